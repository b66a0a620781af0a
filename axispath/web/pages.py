"""The pages: the sheet and the shelf."""

from __future__ import annotations

from datetime import date
from typing import Any, get_args

from flask import Blueprint, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup

from axispath.capabilities import pages_off, whole
from axispath.core.memory import Memory
from axispath.core.practice.kinds import ASKED
from axispath.core.sheet.groups import MarkGroup
from axispath.core.sheet.look import LOOK
from axispath.core.solve.methods import METHODS
from axispath.exchange.formats import PARTS, PICTURES, WHOLE
from axispath.exchange.incoming import INCOMING
from axispath.store import people, sheets
from axispath.store.sheets import Opened
from axispath.store.shelf import AT_ONCE, LONGEST_LABEL, Order
from axispath.store.shelf import shelf as found_on_shelf
from axispath.store.shows import Shows
from axispath.web import computing, present
from axispath.web.desk import DESK_PAGES, DeskPage
from axispath.web.handbook import words
from axispath.web.keys import KEYS
from axispath.web.person import browser, current_person, keep_cookie, own_key, store
from axispath.web.source import BLANK, DEMO, opened

blueprint = Blueprint("pages", __name__)
QUESTION_KINDS = [
    {
        "name": name,
        "title": kind.title,
        "fields": kind.fields,
        "example": kind.example,
        "by": kind.by,
    }
    for name, kind in ASKED.items()
]
_seen: Memory[bool] = Memory(5000)  # of whom it was noted lately; it is noted once a day


@blueprint.before_request
def keep_person() -> None:
    """A visit makes the browser keep its cookie for longer; nothing else does."""
    person = current_person()
    if person is None:
        return
    session.modified = True
    if not own_key():
        with store().transaction() as database:
            key = people.keyed(database, person, browser())
        if key is not None:
            keep_cookie(person, key)
    today = (person, own_key(), date.today())
    if _seen.get(today) is None:
        with store().transaction() as database:
            people.was_here(database, person, own_key())
        _seen.keep(today, True)


@blueprint.get("/")
def blank() -> ResponseReturnValue:
    """A blank sheet; it is stored at its first change."""
    return sheet_page(opened(BLANK))


@blueprint.get("/sheet/<sheet_id>")
def sheet(sheet_id: str) -> ResponseReturnValue:
    """A stored sheet."""
    found = opened(sheet_id)
    if found.handout is not None:
        return redirect(url_for("handouts.visit", token=found.handout))
    return sheet_page(found)


@blueprint.get("/demo/<name>")
def demo(name: str) -> ResponseReturnValue:
    """A demo sheet; a change makes it a sheet of one's own."""
    return sheet_page(opened(DEMO + name))


@blueprint.get("/shelf")
def shelf() -> ResponseReturnValue:
    """A person's sheets, and the demo sheets."""
    return shelf_page()


def shelf_page(trouble: str = "", chosen_trouble: str = "") -> ResponseReturnValue:
    """The shelf; ``trouble`` says why a file could not be brought in, or what of the chosen."""
    person = current_person()
    asked = request.args
    order: Order = "name" if asked.get("order") == "name" else "change"
    first = max(asked.get("first", 0, type=int), 0)
    words, label = asked.get("words", "")[:200], asked.get("label", "")[:LONGEST_LABEL]
    with store().transaction() as database:
        mine = found_on_shelf(database, person or "", words, label, order, first)
        demos = sheets.demos(database)
        account = people.account_of(database, person) if person else None
    page = render_template(
        "shelf.html",
        account=account,
        trouble=trouble,
        chosen_trouble=chosen_trouble,
        endings=[ending for kind in INCOMING for ending in kind.endings],
        incoming=INCOMING,
        formats=(*WHOLE, *PICTURES),
        shelf=mine,
        words=words,
        label=label,
        order=order,
        first=first,
        at_once=AT_ONCE,
        longest_label=LONGEST_LABEL,
        tiles=asked.get("look") == "tiles",
        demos=demos,
    )
    return page, 422 if trouble or chosen_trouble else 200


def desk_pages(found: Opened, shows: Shows | None) -> list[DeskPage]:
    """The pages of the desk that a sheet comes with."""
    if shows is None:
        return list(DESK_PAGES)
    asks = found.document.questions or found.document.cover.on
    off = pages_off(whole(shows.off))
    return [
        page
        for page in DESK_PAGES
        if page.name not in off
        and (shows.pages is None or page.name in shows.pages or (page.name == "practise" and asks))
    ]


def sheet_page(
    found: Opened,
    shows: Shows | None = None,
    turned: bool = False,
    again: str = "",
    seat: dict[str, Any] | None = None,
) -> str:
    """The page of a sheet; of a hand-out with what it ``shows``, as it was ``turned`` or not."""
    shown = computing.payload(found.document, found.id)
    lanes = [Markup(lane["html"]) for lane in shown["lanes"]]
    start = {**present.state(found, shown), "words": words(), "seat": seat}
    start["lanes"] = [{**lane, "html": ""} for lane in shown["lanes"]]  # the page has it already
    return render_template(
        "sheet.html",
        sheet=found,
        document=found.document,
        lanes=lanes,
        start=start,
        picture=computing.picture(found.document, found.id),
        keys=KEYS,
        desk_pages=desk_pages(found, shows),
        question_kinds=QUESTION_KINDS,
        shows=shows,
        turned=turned,
        again=again,
        seat=seat,
        sealed_off=whole(shows.off) if shows else frozenset(),
        methods=METHODS.values(),
        formats=PICTURES,
        whole=WHOLE,
        parts=PARTS,
        look=LOOK,
        mark_groups=get_args(MarkGroup),
    )
