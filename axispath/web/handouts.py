"""Hand-outs: the page where a sheet is handed out, and the page that its visitors see."""

from __future__ import annotations

import re
import secrets
from datetime import UTC, datetime, timedelta
from typing import get_args

import segno
from flask import Blueprint, Response, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup
from pydantic import ValidationError
from werkzeug.datastructures import MultiDict

from axispath.core.language.numbers import listed as listed_words
from axispath.core.sheet.document import Document
from axispath.core.sheet.groups import MarkGroup
from axispath.core.sheet.practice import Cover
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.store import access, handouts, seats
from axispath.store.shows import Seal, Shows
from axispath.web import sealing
from axispath.web.desk import DESK_PAGES
from axispath.web.pages import sheet_page
from axispath.web.person import (
    current_person,
    made_once,
    own_person,
    remember_person,
    store,
)
from axispath.web.sealed import enter_page, seat_told
from axispath.web.security import POLICY
from axispath.web.source import LINK, opened, remember

blueprint = Blueprint("handouts", __name__)
LONGEST_SEAL = 600  # minutes
LATEST = timedelta(days=366)  # from now until a sealed session begins
LASTING = {"": None, "lesson": 2, "day": 24, "week": 24 * 7, "term": 24 * 120}  # hours
FRAMED = POLICY.replace("frame-ancestors 'none'", "frame-ancestors *")


# For whoever hands out


@blueprint.get("/sheet/<sheet_id>/handouts")
def listed(sheet_id: str) -> ResponseReturnValue:
    """The hand-outs of a sheet, and a form for another."""
    return _listed(sheet_id)


def _listed(sheet_id: str, trouble: str = "") -> str:
    found = opened(sheet_id)
    with store().transaction() as database:
        given = handouts.listed(database, own_person(), sheet_id)
    lanes = [lane for lane in resolve(found.document) if not lane.lane.working]
    covered = {one.token: covered_words(one, found.document) for one in given}
    return render_template(
        "handouts.html",
        sheet=found,
        document=found.document,
        lanes=[(one.lane.id, one.name or one.lane.text, one.lane.text) for one in lanes],
        pages=DESK_PAGES,
        given=given,
        covered=covered,
        trouble=trouble,
        groups=get_args(MarkGroup),
        capabilities=sealing.TITLES,
        titles={page.name: page.title for page in DESK_PAGES},
    )


def covered_words(given: handouts.Listed, document: Document) -> str:
    """What a hand-out covers, such as “zeros of f”; empty where it covers nothing.

    What the sheet itself covers counts where the hand-out follows it: of one that stays as it was
    that is not known here.
    """
    cover = document.cover if given.follows else Cover()
    if given.shows.covered:
        return listed_words(given.shows.groups) if given.shows.groups else "all landmarks"
    if not cover.on:
        return ""
    what = listed_words(cover.groups) if cover.groups else "landmarks"
    names = [
        lane.name or lane.lane.text for lane in resolve(document) if lane.lane.id in cover.lanes
    ]
    return f"{what} of {listed_words(names)}" if names else what


def _seal(form: MultiDict[str, str]) -> Seal:
    """How the form seals it. Raises EditRefused."""
    now = datetime.now(UTC).replace(microsecond=0)
    begins = _moment(form.get("begins", ""), form.get("offset", "0")) or now
    minutes = form.get("minutes", "")
    if not (minutes.isascii() and minutes.isdigit() and 1 <= int(minutes) <= LONGEST_SEAL):
        raise EditRefused(f"A sealed session lasts from 1 to {LONGEST_SEAL} minutes.")
    if begins > now + LATEST:
        raise EditRefused("A sealed session begins within a year.")
    if begins < now - timedelta(minutes=1):
        raise EditRefused("The beginning of a sealed session does not lie in the past.")
    word = " ".join(form.get("word", "").split())
    if len(word) > 40:
        raise EditRefused("The word to enter with has 40 signs at most.")
    return Seal(
        off=tuple(name for name in sealing.TITLES if name in form.getlist("off")),
        begins=begins,
        ends=begins + timedelta(minutes=int(minutes)),
        word=word,
        device=secrets.token_urlsafe(24) if "device" in form else "",
    )


def _moment(text: str, offset: str) -> datetime | None:
    """A time as a form has it, in the zone of the browser. Raises EditRefused."""
    if not text.strip():
        return None
    try:
        there = datetime.fromisoformat(text).replace(tzinfo=UTC)
        return there + timedelta(minutes=max(-900, min(900, int(offset))))
    except (ValueError, OverflowError) as error:
        raise EditRefused("This is no time: choose a day and a time of day.") from error


@blueprint.post("/sheet/<sheet_id>/handouts")
def give(sheet_id: str) -> ResponseReturnValue:
    """Hand a sheet out."""
    form = request.form
    pages = [page.name for page in DESK_PAGES]
    chosen = tuple(name for name in pages if name in form.getlist("page"))
    lanes = None if form.get("which") == "all" else tuple(form.getlist("lane"))
    hours = LASTING.get(form.get("lasting", ""))
    until = datetime.now(UTC) + timedelta(hours=hours) if hours else None
    try:
        if lanes is not None and not lanes:
            raise EditRefused("Choose the lanes that are to be seen, or all of them.")
        if lanes is not None and not all(re.fullmatch(r"[a-z0-9]{1,12}", one) for one in lanes):
            raise EditRefused("There are no such lanes on this sheet.")
        shows = Shows(
            lanes=lanes,
            pages=None if len(chosen) == len(pages) else chosen,
            covered="covered" in form,
            groups=tuple(one for one in get_args(MarkGroup) if one in form.getlist("group")),
            framed="framed" in form,
            collects="collects" in form,
            seal=_seal(form) if "sealed" in form else None,
        )
        with store().transaction() as database:
            follows = form.get("follows") == "yes"
            handouts.give(database, own_person(), sheet_id, shows, follows, until)
    except EditRefused as refused:
        return _listed(sheet_id, refused.message), 422
    except ValidationError:
        return _listed(sheet_id, "There is no such choice."), 422
    return redirect(url_for("handouts.listed", sheet_id=sheet_id))


@blueprint.post("/sheet/<sheet_id>/handouts/<token>/revoke")
def revoke(sheet_id: str, token: str) -> ResponseReturnValue:
    """Take a hand-out back."""
    with store().transaction() as database:
        handouts.revoke(database, own_person(), sheet_id, token)
    return redirect(url_for("handouts.listed", sheet_id=sheet_id))


@blueprint.get("/sheet/<sheet_id>/handouts/<token>/code")
def code(sheet_id: str, token: str) -> ResponseReturnValue:
    """The link as a QR code, as large as the page: to be projected."""
    with store().transaction() as database:
        given = handouts.listed(database, own_person(), sheet_id)
    if token not in {one.token for one in given if not one.ended}:
        raise access.Ended
    link = url_for("handouts.visit", token=token, _external=True)
    drawn = segno.make(link, error="m").svg_inline(border=4, svgclass="qr", omitsize=True)
    name = opened(sheet_id).document.name
    return render_template("code.html", link=link, code=Markup(drawn), name=name, sheet=sheet_id)


# For visitors


@blueprint.get("/h/<token>")
def visit(token: str) -> ResponseReturnValue:
    """A hand-out, as this visitor has turned it."""
    person = current_person()
    mine, seat = None, None
    with store().transaction() as database:
        shows = handouts.shows_of(database, token)
        if person is not None:
            mine = handouts.visit(database, person, token)
        sitting = seats.of_person(database, person, token)
        if shows.seal is not None and sitting is not None and mine is not None:
            seat = seats.seat(database, sitting, shows.seal)
    if mine is not None:
        remember(mine)
    if shows.seal is not None and seat is None:
        return enter_page(token, shows)
    found = mine or opened(LINK + token)
    page = Response(
        sheet_page(
            found, shows, mine is not None, secrets.token_hex(16), seat_told(seat) if seat else None
        )
    )
    if shows.framed:
        page.headers["Content-Security-Policy"] = FRAMED
    return page


@blueprint.post("/h/<token>/copy")
def copy(token: str) -> ResponseReturnValue:
    """A copy on the visitor's own shelf; the same button pressed twice makes one."""
    name = request.form.get("change", "")
    change = name if re.fullmatch(r"[0-9a-f]{32}", name) else ""
    with store().transaction() as database:
        found, person = made_once(
            database, change, lambda mine: handouts.copied(database, mine, token)
        )
    remember_person(person)
    return redirect(url_for("pages.sheet", sheet_id=found.id))


@blueprint.post("/h/<token>/start-over")
def start_over(token: str) -> ResponseReturnValue:
    """Forget what was turned."""
    person = current_person()
    if person is not None:
        with store().transaction() as database:
            handouts.start_over(database, person, token)
    return redirect(url_for("handouts.visit", token=token))
