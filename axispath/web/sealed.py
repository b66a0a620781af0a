"""Sealed hand-outs: entering, the record, handing in; and the page of whoever handed out."""

from __future__ import annotations

import time
from typing import Any

from flask import Blueprint, Response, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from axispath.capabilities import whole
from axispath.core.sheet.refused import EditRefused
from axispath.device.reports import is_signed
from axispath.exchange.names import file_name
from axispath.exchange.records import Row, Taken, answers_csv, record_archive, record_file
from axispath.store import handouts, replies, seats, sittings
from axispath.store.models import Sheet, Sitting
from axispath.store.sheets import NotFound
from axispath.store.shows import Shows
from axispath.web import computing, sealing
from axispath.web.asked import LockReport, Reporting, answered, body
from axispath.web.person import (
    current_person,
    own_person,
    person_for_change,
    remember_person,
    store,
)
from axispath.web.practice_inside import Asks, asks_within, most_missed
from axispath.web.source import opened, remember
from axispath.work.kinds import LONG, QUICK

blueprint = Blueprint("sealed", __name__)
SKEW = 300  # seconds by which the clock of a device may be wrong


# For whoever is examined


def enter_page(token: str, shows: Shows, trouble: str = "") -> ResponseReturnValue:
    """What is off and what is recorded, before anybody begins."""
    assert shows.seal is not None
    with store().transaction() as database:
        now = seats.now_of(database)
    page = render_template(
        "enter.html",
        token=token,
        seal=shows.seal,
        off=[sealing.TITLES[name] for name in sealing.TITLES if name in whole(shows.off)],
        begun=now >= shows.seal.begins,
        over=now >= shows.seal.ends,
        wait=max(1, int((shows.seal.begins - now).total_seconds()) + 1),
        minutes=int((shows.seal.ends - max(now, shows.seal.begins)).total_seconds() // 60),
        trouble=trouble,
    )
    return page, 422 if trouble else 200


@blueprint.post("/h/<token>/enter")
def enter(token: str) -> ResponseReturnValue:
    """Begin, under a name and with the word."""
    try:
        with store().transaction() as database:
            person = person_for_change(database)
            name, word = request.form.get("name", ""), request.form.get("word", "")
            _, found = sittings.enter(database, person, token, name[:200], word[:80])
    except EditRefused as refused:
        return enter_page(token, sealing.shows_of(token), refused.message)
    remember_person(person)
    remember(found)
    sealing.forget(person)
    return redirect(url_for("handouts.visit", token=token))


def seat_told(seat: seats.Seat) -> dict[str, Any]:
    """A sitting for the script of its page: seconds that are left, by the clock of the server."""
    return {
        "id": seat.id,
        "token": seat.handout,
        "name": seat.name,
        "left": round(seat.left, 1),
        "open": seat.open,
    }


@blueprint.post("/api/h/<token>/report")
def report(token: str) -> Response:
    """What a student's page says of itself; the answer tells how long it goes on."""
    wanted = Reporting.model_validate(body())
    with store().transaction() as database:
        found = sittings.reported(database, current_person(), token, wanted.kind, wanted.detail)
    return answered(seat_told(found))


@blueprint.post("/api/h/<token>/hand-in")
def hand_in(token: str) -> Response:
    """Hand in before the end."""
    person = own_person()
    with store().transaction() as database:
        found = sittings.hand_in(database, person, token)
    sealing.forget(person)
    return answered(seat_told(found))


@blueprint.get("/h/<token>/record")
def own_record(token: str) -> ResponseReturnValue:
    """The record of one's own sitting, as a page."""
    sitting, entries = _own_record(token)
    return render_template(
        "record.html", token=token, name=sitting.name, entries=entries, kinds=seats.KINDS
    )


@blueprint.get("/h/<token>/record.json")
def own_record_file(token: str) -> Response:
    """The same to take away: it shows later changes of what was collected."""
    sitting, entries = _own_record(token)
    return _file(record_file(sitting.name, entries), "record.json", "application/json")


def _own_record(token: str) -> tuple[Sitting, list[Any]]:
    with store().transaction() as database:
        sitting = seats.of_person(database, current_person(), token)
        if sitting is None:
            raise NotFound
        seats.seat(database, sitting, seats.seal_of(database, token))
        return sitting, seats.record_of(database, sitting)


# For a managing device


@blueprint.get("/h/<token>/lock.json")
def lock(token: str) -> Response:
    """Which page a device is to be locked to, and from when to when."""
    seal = sealing.shows_of(token).seal
    if seal is None:
        raise NotFound
    return answered(
        {
            "page": url_for("handouts.visit", token=token, _external=True),
            "begins": seal.begins.isoformat(),
            "ends": seal.ends.isoformat(),
            "report": url_for("sealed.locked", token=token, _external=True),
        }
    )


@blueprint.post("/h/<token>/lock")
def locked(token: str) -> Response:
    """A device says whether it is locked to the page."""
    wanted = LockReport.model_validate(body())
    seal = sealing.shows_of(token).seal
    if seal is None or not seal.device:
        raise NotFound
    signed = (wanted.sitting, wanted.locked, wanted.at, wanted.signature)
    if abs(time.time() - wanted.at) > SKEW or not is_signed(seal.device, *signed):
        raise EditRefused("This report is not signed as it should be, or too old.")
    with store().transaction() as database:
        sittings.lock_reported(database, token, wanted.sitting, wanted.locked)
    return answered({"ok": True})


# For whoever handed it out


@blueprint.get("/sheet/<sheet_id>/handouts/<token>")
def collected(sheet_id: str, token: str) -> ResponseReturnValue:
    """Who is in, away, done; what was answered, and which landmarks were missed most."""
    return _collected(sheet_id, token)


def _collected(sheet_id: str, token: str, trouble: str = "") -> ResponseReturnValue:
    person = own_person()
    with store().transaction() as database:
        handout, found = sittings.all_of(database, person, sheet_id, token)
        shows = Shows.model_validate(handout.shows)
        kept = replies.of_handout(database, token)
        receipts = seats.receipts_of(database, token)
        ended = handout.revoked is not None
        found_by = [
            (sheet.found if (sheet := database.get(Sheet, one.sheet)) is not None else [])
            for one in found
            if one.sheet
        ]
        document = handouts.given(database, token).document if not ended else None
    missed: list[tuple[str, int]] = []
    asked: dict[str, str] = {"": "covered landmarks"}
    if document is not None:
        asked |= _asked(document, sheet_id)
        if document.cover.on and found_by:
            given = (document, found_by, LONG.budget)
            missed = computing.ask(LONG, sheet_id, "", most_missed, *given)[:10]
    page = render_template(
        "collected.html",
        sheet_id=sheet_id,
        name=opened(sheet_id).document.name,
        token=token,
        shows=shows,
        seats=found,
        receipts=receipts,
        table=_table(found, kept),
        replies=kept[::-1][:300],
        asked=asked,
        missed=[(words, count) for words, count in missed if count],
        people=len(found_by),
        off=[sealing.TITLES[name] for name in sealing.TITLES if name in whole(shows.off)],
        trouble=trouble,
        ended=ended,
    )
    return page, 422 if trouble else 200


def _asked(document: Any, route: str) -> dict[str, str]:
    asks: list[Asks] = computing.ask(QUICK, route, "", asks_within, document, QUICK.budget)
    return {
        question.id: f"{number}. {one.sentence or question.kind}"
        for number, (question, one) in enumerate(zip(document.questions, asks, strict=True), 1)
    }


def _table(found: list[seats.Seat], kept: list[replies.Kept]) -> list[dict[str, Any]]:
    """For each sitting and question how often it was tried, and how it ended."""
    rows: dict[tuple[str, str], dict[str, Any]] = {}
    for one in kept:
        if one.text.startswith("hint:"):
            continue
        row = rows.setdefault(
            (one.name, one.question),
            {"name": one.name, "question": one.question, "tries": 0, "right": 0, "verdict": ""},
        )
        row["tries"] += 1
        row["right"] += one.verdict == "right"
        row["verdict"] = "right" if row["right"] and one.question else one.verdict
        row["last"] = one.created
    return list(rows.values())


@blueprint.post("/sheet/<sheet_id>/handouts/<token>/<any(extend, end, letin, forget):action>")
def act(sheet_id: str, token: str, action: str) -> ResponseReturnValue:
    """More time, the end, letting somebody in again, deleting what was collected."""
    person = own_person()
    form = request.form
    which = form.get("sitting", "")[:24]
    try:
        with store().transaction() as database:
            where = (database, person, sheet_id, token)
            match action:
                case "extend":
                    sittings.extend(*where, _minutes(form.get("minutes", "")), which)
                case "end":
                    sittings.end_all(*where)
                case "letin":
                    sittings.let_in(*where, which)
                case _:
                    sittings.forget(*where)
    except EditRefused as refused:
        return _collected(sheet_id, token, refused.message)
    sealing.changed(token)
    return redirect(url_for("sealed.collected", sheet_id=sheet_id, token=token))


def _minutes(text: str) -> int:
    return int(text) if text.isascii() and text.isdigit() and len(text) < 6 else 0


@blueprint.get("/sheet/<sheet_id>/handouts/<token>/answers.csv")
def answers_file(sheet_id: str, token: str) -> Response:
    """All answers as a table."""
    taken, name = _taken(sheet_id, token)
    text = answers_csv(row for one in taken for row in one.answers)
    return _file(("\ufeff" + text).encode(), file_name(f"{name} answers", "csv"), "text/csv")


@blueprint.get("/sheet/<sheet_id>/handouts/<token>/records.zip")
def archive(sheet_id: str, token: str) -> Response:
    """All sheets, answers and records."""
    taken, name = _taken(sheet_id, token)
    data = record_archive(name, taken)
    return _file(data, file_name(f"{name} records", "zip"), "application/zip")


def _taken(sheet_id: str, token: str) -> tuple[list[Taken], str]:
    person = own_person()
    name = opened(sheet_id).document.name
    with store().transaction() as database:
        handout, found = sittings.all_of(database, person, sheet_id, token)
        kept = replies.of_handout(database, token)
        document = None if handout.revoked else handouts.given(database, token).document
        asked = {"": "covered landmarks"}
        if document is not None:
            asked |= {one.id: one.words or one.kind for one in document.questions}
        taken = []
        for one in found:
            sitting = database.get_one(Sitting, one.id)
            sheet = sittings.sheet_of(database, one)
            rows = [
                Row(
                    reply.name,
                    asked.get(reply.question, reply.question),
                    reply.text,
                    reply.verdict,
                    " ".join(reply.words),
                    reply.created.isoformat(timespec="seconds"),
                )
                for reply in kept
                if reply.name == one.name
            ]
            record = seats.record_of(database, sitting)
            taken.append(Taken(one.name, sheet.document if sheet else None, rows, record))
    return taken, name


def _file(data: bytes, name: str, media: str) -> Response:
    response = Response(data, mimetype=media)
    response.headers.set("Content-Disposition", "attachment", filename=name)
    return response
