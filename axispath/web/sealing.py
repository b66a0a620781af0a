"""What a seal switches off is off here, for every route, whatever the pages show."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime

import orjson
from flask import Flask, g, request
from flask.typing import ResponseReturnValue

from axispath.capabilities import CAPABILITIES, FORM, edits_off, is_off, whole
from axispath.core.sheet.edits.formed import wanted
from axispath.core.sheet.refused import EditRefused
from axispath.store import access, sittings
from axispath.store.history import NotFound
from axispath.store.models import Handout, Sheet, Sitting
from axispath.store.seats import Closed, record, seal_of, seat
from axispath.store.shows import Shows
from axispath.web.lately import Lately
from axispath.web.person import current_person, store
from axispath.web.source import BLANK, DEMO, LINK

FREE = ("static", "versioned", "operating.", "account.")
# What belongs to a sitting itself, and is refused where it is somebody else's by what it does.
SITTING = ("sealed.enter", "sealed.report", "sealed.hand_in", "sealed.lock")
# What is asked with every movement: who is examined may be known from a moment ago.
UNDER_THE_HAND = ("api.picture", "api.frames", "api.marks", "api.path", "api.reading", "api.spot")
_shows: Lately[Shows] = Lately(2000)
_handouts: Lately[str] = Lately(5000)
_examined: Lately[Examined | None] = Lately(5000)


@dataclass(frozen=True, slots=True)
class Examined:
    """The sealed sittings that somebody is in: what is off for them is off in any of them."""

    tokens: frozenset[str]
    since: datetime
    off: frozenset[str]


class SwitchedOff(EditRefused):
    """Something that a seal has switched off."""


def shows_of(token: str) -> Shows:
    """What a hand-out shows, as it was a moment ago. Raises NotFound and Ended."""

    def found() -> Shows:
        with store().transaction() as database:
            return Shows.model_validate(access.running(database, token).shows)

    return _shows.found((store().address, token), found)


def handout_of(key: str) -> str:
    """The hand-out that a key belongs to; empty for a sheet of one's own."""
    if key.startswith(LINK):
        return key.removeprefix(LINK)
    if key == BLANK or key.startswith(DEMO):
        return ""

    def found() -> str:
        with store().transaction() as database:
            sheet = database.get(Sheet, key)
            return (sheet.handout or "") if sheet is not None else ""

    return _handouts.found((store().address, key), found)


def examined(person: str, lately: bool = False) -> Examined | None:
    """The sealed sittings that somebody is in; ``lately`` as they were a moment ago."""

    def found() -> Examined | None:
        with store().transaction() as database:
            inside = sittings.sealed_now(database, person)
            if not inside:
                return None
            shown = [database.get_one(Handout, one.handout).shows for one in inside]
            off = frozenset[str]().union(*(whole(Shows.model_validate(one).off) for one in shown))
            tokens = frozenset(one.handout for one in inside)
            return Examined(tokens, max(one.started for one in inside), off)

    if not lately:
        forget(person)
    return _examined.found((store().address, person), found)


def forget(person: str) -> None:
    """Somebody has entered, or handed in: what was known of them is not so any more."""
    _examined.forget((store().address, person))


def guard(app: Flask) -> None:
    """Refuse what is off before any route is called."""

    @app.before_request
    def check() -> None:
        route = request.endpoint or ""
        if not route or route.startswith((*FREE, *SITTING)):
            return
        at = request.view_args or {}
        key = str(at.get("key") or at.get("sheet_id") or "")
        token = str(at.get("token") or "") if route == "handouts.copy" else ""
        token = token or (handout_of(key) if key else "")
        shows = None
        with suppress(NotFound):  # the route says what is not there, or not any more
            shows = shows_of(token) if token else None
        off: frozenset[str] = frozenset()
        if shows is not None:
            off |= whole(shows.off)
            if key.startswith(LINK) and shows.seal is not None:
                raise SwitchedOff("Enter first, with your name.")
        person = current_person()
        hot = route.startswith(UNDER_THE_HAND)
        g.examined = inside = examined(person, hot) if person is not None else None
        if inside is not None:
            off |= inside.off
            link = token or (not key and str(at.get("token") or ""))
            if link not in inside.tokens and (key or at.get("token")):
                _refuse_off(inside.off, "pages.")
        _refuse_off(off, route)
        if off and edits_off(off) & _tried():
            raise SwitchedOff("This is switched off until you have handed in.")

    @app.errorhandler(Closed)
    def closed(error: Closed) -> ResponseReturnValue:
        # What was refused was undone with all that belonged to it: that it came is noted apart.
        if error.sitting:
            with store().transaction() as database:
                sitting = database.get(Sitting, error.sitting)
                if sitting is not None:
                    seat(database, sitting, seal_of(database, sitting.handout))
                    record(database, sitting, "late", error.what)
        return app.handle_user_exception(EditRefused(error.message))


def _tried() -> set[str]:
    """The names of all edits that a request brings, wherever they stand in it."""
    found: set[str] = set()
    try:
        # As the routes read it: whatever a request says that it is.
        waiting = [orjson.loads(request.get_data())]
    except orjson.JSONDecodeError:
        return found
    while waiting:
        one = waiting.pop()
        if isinstance(one, dict):
            if isinstance(one.get("do"), str):
                found.add(one["do"])
            if isinstance(one.get("text"), str) and wanted(one["text"]) is not None:
                found.add(FORM)
            waiting += one.values()
        elif isinstance(one, list):
            waiting += one
    return found


def begun() -> datetime | None:
    """When whoever asks began a sealed sitting that is not over: what they had before is shut."""
    inside: Examined | None = g.examined
    return inside.since if inside is not None else None


def _refuse_off(off: frozenset[str], route: str) -> None:
    title = is_off(off, route)
    if title:
        raise SwitchedOff(f"This is switched off until you have handed in: {title}.")


TITLES = {name: one.title for name, one in CAPABILITIES.items()}


def changed(token: str) -> None:
    """A hand-out was changed by whoever gave it: what was known of it is not so any more."""
    _shows.clear()
    _examined.clear()
