"""Sittings: who answers on a hand-out: entering, handing in, and what its owner does with them."""

from __future__ import annotations

import secrets
import unicodedata
from collections.abc import Sequence
from datetime import datetime, timedelta

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from axispath.core.sheet.refused import EditRefused
from axispath.store import access, handouts, sheets
from axispath.store.models import Handout, Sheet, Sitting
from axispath.store.seats import OF_PAGES, Seat, ends_of, now_of, of_person, record, seal_of, seat
from axispath.store.seats import hand_in as end
from axispath.store.sheets import NotFound, Opened
from axispath.store.shows import Shows

LONGEST_NAME = 60
MOST = 400  # sittings of one hand-out
MOST_EXTRA = 600  # minutes


def clean(name: str) -> str:
    """A name as it is kept. Raises EditRefused where there is none."""
    found = " ".join("".join(c for c in name if unicodedata.category(c)[0] != "C").split())
    if not found:
        raise EditRefused("Give a name first: one that whoever handed this out knows.")
    if len(found) > LONGEST_NAME:
        raise EditRefused(f"A name has {LONGEST_NAME} characters at most.")
    return found


def enter(
    session: Session, person: str, token: str, name: str, word: str = ""
) -> tuple[Sitting, Opened]:
    """Begin a sitting, or go on with one's own. Raises EditRefused with a sentence.

    In a sealed hand-out the sheet becomes the student's to work on.
    """
    handout = access.running(session, token)
    shows = Shows.model_validate(handout.shows)
    mine = of_person(session, person, token)
    if any(one.handout != token for one in sealed_now(session, person)):
        raise EditRefused("You are in a sealed session already: hand in there first.")
    if mine is None:
        called = clean(name)
        _refuse_entering(session, shows, word)
        # Two who enter at the same moment are told apart, and not counted past the limit.
        session.execute(select(Handout).where(Handout.token == token).with_for_update())
        taken = session.scalars(select(Sitting.name).where(Sitting.handout == token)).all()
        if len(taken) >= MOST:
            raise EditRefused(f"There are {MOST} people here already; no more can enter.")
        mine = Sitting(
            id=secrets.token_urlsafe(12),
            handout=token,
            person_id=person,
            name=told_apart(called, taken),
        )
        session.add(mine)
        session.flush()
        if shows.seal is not None:
            record(session, mine, "entered", mine.name)
    opened = handouts.visit(session, person, token)
    if opened is None:
        opened = handouts.turned(session, person, token, ())
    mine.sheet_id = opened.id
    session.flush()
    return mine, opened


def told_apart(name: str, taken: Sequence[str]) -> str:
    """The name, with a number where somebody has it already."""
    if name not in taken:
        return name
    number = 2
    while f"{name} ({number})" in taken:
        number += 1
    return f"{name[: LONGEST_NAME - 6]} ({number})"


def _refuse_entering(session: Session, shows: Shows, word: str) -> None:
    seal = shows.seal
    if seal is None:
        return
    now = now_of(session)
    if now < seal.begins:
        raise EditRefused("This has not begun yet.")
    if now >= seal.ends:
        raise EditRefused("This is over: nobody can enter any more.")
    if seal.word and word.strip().casefold() != seal.word.strip().casefold():
        raise EditRefused("This is not the word to enter with.")


def reported(session: Session, person: str | None, token: str, kind: str, detail: str = "") -> Seat:
    """What a student's page says of itself; after the end it is only looked at."""
    sitting = of_person(session, person, token)
    seal = seal_of(session, token)
    if sitting is None or seal is None:
        raise NotFound
    found = seat(session, sitting, seal)
    if not found.open:
        return found
    if kind in OF_PAGES:
        record(session, sitting, kind, detail)
        if kind in ("left", "back", "opened"):
            sitting.away = kind == "left"
    elif kind != "here":
        raise EditRefused("There is no such entry.")
    sitting.seen = func.now()
    session.flush()
    session.refresh(sitting)
    return seat(session, sitting, seal)


def hand_in(session: Session, person: str | None, token: str) -> Seat:
    """Hand in before the end."""
    sitting = of_person(session, person, token)
    seal = seal_of(session, token)
    if sitting is None or seal is None:
        raise NotFound
    found = seat(session, sitting, seal)
    if found.open:
        end(session, sitting, "by hand", now_of(session))
        session.flush()
    return seat(session, sitting, seal)


def lock_reported(session: Session, token: str, sitting_id: str, locked: bool) -> None:
    """What a managing device says of a student's machine."""
    sitting = session.get(Sitting, sitting_id)
    if sitting is None or sitting.handout != token:
        raise NotFound
    if sitting.locked is not locked:
        sitting.locked = locked
        record(session, sitting, "locked" if locked else "unlocked")


# For whoever handed it out


def all_of(session: Session, person: str, sheet_id: str, token: str) -> tuple[Handout, list[Seat]]:
    """A hand-out of one's own with its sittings, by name."""
    handout = _own(session, person, sheet_id, token)
    seal = Shows.model_validate(handout.shows).seal
    found = session.scalars(select(Sitting).where(Sitting.handout == token).order_by(Sitting.name))
    return handout, [seat(session, one, seal) for one in found]


def _own(session: Session, person: str, sheet_id: str, token: str) -> Handout:
    sheet = access.owned(session, person, sheet_id)
    handout = session.get(Handout, token)
    if handout is None or handout.sheet_id != sheet.id:
        raise NotFound
    return handout


def _sitting(session: Session, handout: Handout, sitting_id: str) -> Sitting:
    sitting = session.get(Sitting, sitting_id)
    if sitting is None or sitting.handout != handout.token:
        raise NotFound
    return sitting


def extend(
    session: Session, person: str, sheet_id: str, token: str, minutes: int, sitting_id: str = ""
) -> None:
    """More time, for one or for all. Raises EditRefused."""
    handout = _own(session, person, sheet_id, token)
    if not 1 <= minutes <= MOST_EXTRA:
        raise EditRefused(f"More time is from 1 to {MOST_EXTRA} minutes.")
    shows = Shows.model_validate(handout.shows)
    if shows.seal is None:
        raise EditRefused("This hand-out has no end of its own.")
    if sitting_id:
        sitting = _sitting(session, handout, sitting_id)
        if sitting.extra + minutes > MOST_EXTRA:
            raise EditRefused(f"More time is {MOST_EXTRA} minutes at most.")
        sitting.extra += minutes
        record(session, sitting, "more time", f"{minutes} minutes")
        return
    _put_end(handout, shows, max(shows.seal.ends, now_of(session)) + timedelta(minutes=minutes))
    for sitting in session.scalars(select(Sitting).where(Sitting.handout == token)):
        record(session, sitting, "more time", f"{minutes} minutes, for all")


def end_all(session: Session, person: str, sheet_id: str, token: str) -> None:
    """End it for everybody now."""
    handout = _own(session, person, sheet_id, token)
    shows = Shows.model_validate(handout.shows)
    if shows.seal is None:
        raise EditRefused("This hand-out has no end of its own.")
    now = now_of(session)
    for sitting in session.scalars(select(Sitting).where(Sitting.handout == token)):
        if sitting.ended is None:
            end(session, sitting, "ended by whoever handed it out", now)
    if shows.seal.ends > now:
        _put_end(handout, shows, max(now, shows.seal.begins))


def _put_end(handout: Handout, shows: Shows, ends: datetime) -> None:
    assert shows.seal is not None
    seal = shows.seal.model_copy(update={"ends": ends})
    handout.shows = shows.model_copy(update={"seal": seal}).model_dump(mode="json")


def let_in(session: Session, person: str, sheet_id: str, token: str, sitting_id: str) -> None:
    """Let somebody go on who has handed in. Raises EditRefused where the time is over."""
    handout = _own(session, person, sheet_id, token)
    sitting = _sitting(session, handout, sitting_id)
    seal = Shows.model_validate(handout.shows).seal
    if seal is None or now_of(session) >= ends_of(seal, sitting):
        raise EditRefused("The time is over: give more time first.")
    if sitting.ended is not None:
        sitting.ended = None
        record(session, sitting, "let in", "")


def forget(session: Session, person: str, sheet_id: str, token: str) -> None:
    """Delete everything that a hand-out has collected."""
    handout = _own(session, person, sheet_id, token)
    for sitting in session.scalars(select(Sitting).where(Sitting.handout == handout.token)):
        session.delete(sitting)


def sealed_now(session: Session, person: str) -> list[Seat]:
    """The sealed sittings that somebody is in just now: one, or more where people were merged."""
    query = select(Sitting).where(Sitting.person_id == person, Sitting.ended.is_(None))
    found = []
    for sitting in session.scalars(query.order_by(Sitting.started)):
        seal = seal_of(session, sitting.handout)
        if seal is not None and (one := seat(session, sitting, seal)).open:
            found.append(one)
    return found


def sheet_of(session: Session, seat_: Seat) -> Opened | None:
    """The sheet of a sitting."""
    sheet = session.get(Sheet, seat_.sheet) if seat_.sheet else None
    if sheet is None or sheet.person_id is None:
        return None
    return sheets.open_sheet(session, sheet.person_id, sheet.id)
