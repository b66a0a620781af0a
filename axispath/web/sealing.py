"""What a seal switches off is off here, for every route, whatever the pages show."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass

from flask import Flask, request
from flask.typing import ResponseReturnValue

from axispath.capabilities import CAPABILITIES, is_off, whole
from axispath.core.sheet.refused import EditRefused
from axispath.store import access, sittings
from axispath.store.history import NotFound
from axispath.store.models import Handout, Sheet, Sitting
from axispath.store.seats import Closed, record, seal_of, seat
from axispath.store.shows import Shows
from axispath.web.lately import Lately
from axispath.web.person import current_person, store
from axispath.web.source import BLANK, DEMO, LINK

FREE = ("static", "versioned", "operating.", "errands.", "sealed.", "account.")
_shows: Lately[Shows] = Lately(2000)
_handouts: Lately[str] = Lately(5000)
_examined: Lately[Examined | None] = Lately(5000)


@dataclass(frozen=True, slots=True)
class Examined:
    """The sealed sitting that somebody is in: what is off for them."""

    token: str
    sheet: str | None
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


def examined(person: str) -> Examined | None:
    """The sealed sitting that somebody is in, as it was a moment ago."""

    def found() -> Examined | None:
        with store().transaction() as database:
            inside = sittings.sealed_now(database, person)
            if inside is None:
                return None
            handout = database.get_one(Handout, inside.handout)
            off = whole(Shows.model_validate(handout.shows).off)
            return Examined(inside.handout, inside.sheet, off)

    return _examined.found((store().address, person), found)


def forget(person: str) -> None:
    """Somebody has entered, or handed in: what was known of them is not so any more."""
    _examined.forget((store().address, person))


def guard(app: Flask) -> None:
    """Refuse what is off before any route is called."""

    @app.before_request
    def check() -> None:
        route = request.endpoint or ""
        if not route or route.startswith(FREE):
            return
        at = request.view_args or {}
        key = str(at.get("key") or at.get("sheet_id") or "")
        token = str(at.get("token") or "") if route == "handouts.copy" else ""
        token = token or (handout_of(key) if key else "")
        shows = None
        with suppress(NotFound):  # the route says what is not there, or not any more
            shows = shows_of(token) if token else None
        if shows is not None:
            _refuse_off(whole(shows.off), route)
            if key.startswith(LINK) and shows.seal is not None:
                raise SwitchedOff("Enter first, with your name.")
        person = current_person()
        inside = examined(person) if person is not None else None
        link = token or str(at.get("token") or "")
        if inside is not None and link != inside.token:
            elsewhere = inside.off & {"sheets", "handbook"}
            _refuse_off(elsewhere, "pages." if key or link else route)

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


def _refuse_off(off: frozenset[str], route: str) -> None:
    title = is_off(off, route)
    if title:
        raise SwitchedOff(f"This is switched off until you have handed in: {title}.")


TITLES = {name: one.title for name, one in CAPABILITIES.items()}


def changed(token: str) -> None:
    """A hand-out was changed by whoever gave it: what was known of it is not so any more."""
    _shows.clear()
    _examined.clear()
