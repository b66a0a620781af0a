"""Hand-outs: a sheet, or a part of one, under a link for others."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from axispath.core.path.edited import Step
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import with_view
from axispath.core.sheet.given import given_out, without_answers
from axispath.core.sheet.practice import Cover
from axispath.core.sheet.refused import EditRefused
from axispath.store import access, history, seats, sheets
from axispath.store.models import Handout, Revision, Sheet, Sitting
from axispath.store.sheets import Opened
from axispath.store.shows import Shows

RECENT = timedelta(minutes=10)
MOST = 50  # hand-outs of one sheet that are not taken back


@dataclass(frozen=True, slots=True)
class Given:
    """A hand-out as its visitors find it."""

    token: str
    shows: Shows
    document: Document
    head: int


@dataclass(frozen=True, slots=True)
class Listed:
    """A hand-out as its owner sees it."""

    token: str
    shows: Shows
    follows: bool
    created: datetime
    until: datetime | None
    ended: bool


def give(
    session: Session,
    person: str,
    sheet_id: str,
    shows: Shows,
    follows: bool,
    until: datetime | None = None,
) -> str:
    """Hand a sheet out. Gives the token of the link. Raises EditRefused."""
    sheet = access.owned(session, person, sheet_id, lock=True)
    now = session.scalar(select(func.now()))
    if until is not None and now is not None and until <= now:
        raise EditRefused("The end of a hand-out lies in the future.")
    if sum(not one.ended for one in listed(session, person, sheet_id)) >= MOST:
        raise EditRefused(f"There are {MOST} hand-outs of this sheet; take some back first.")
    token = secrets.token_urlsafe(18)
    made = Handout(
        token=token,
        sheet_id=sheet.id,
        number=None if follows else sheet.head,
        shows=shows.model_dump(mode="json"),
        until=until,
    )
    session.add(made)
    session.flush()
    return token


def listed(session: Session, person: str, sheet_id: str) -> list[Listed]:
    """All hand-outs of a sheet, the newest first."""
    sheet = access.owned(session, person, sheet_id)
    now = session.scalar(select(func.now()))
    found = session.scalars(
        select(Handout).where(Handout.sheet_id == sheet.id).order_by(Handout.created.desc())
    )
    return [
        Listed(
            one.token,
            Shows.model_validate(one.shows),
            one.number is None,
            one.created,
            one.until,
            one.revoked is not None
            or (one.until is not None and now is not None and one.until <= now),
        )
        for one in found
    ]


def revoke(session: Session, person: str, sheet_id: str, token: str) -> None:
    """Take a hand-out back: its link opens nothing from now on."""
    sheet = access.owned(session, person, sheet_id)
    handout = session.get(Handout, token)
    if handout is None or handout.sheet_id != sheet.id:
        raise sheets.NotFound
    if handout.revoked is None:
        handout.revoked = func.now()
    # What it has collected goes with its end; what others made is theirs.
    seats.release(session, [token])
    session.execute(delete(Sitting).where(Sitting.handout == token))


def given(session: Session, token: str, number: int | None = None) -> Given:
    """What a link shows, of a certain revision if one is named. Raises NotFound, Ended."""
    handout = access.running(session, token)
    sheet = session.get_one(Sheet, handout.sheet_id)
    head = sheet.head if handout.number is None else handout.number
    if number is not None and handout.number is None:
        _refuse_past(session, sheet, number)
        head = number
    shows = Shows.model_validate(handout.shows)
    document = history.document_at(session, sheet, head)
    seen = with_view(document, View.model_validate(sheet.view))
    return Given(token, shows, _covered(given_out(seen, shows.lanes), shows), head)


def _refuse_past(session: Session, sheet: Sheet, number: int) -> None:
    """Of a sheet that is followed visitors see what is there now, or was a moment ago."""
    follower = select(func.min(Revision.created)).where(
        Revision.sheet_id == sheet.id, Revision.number > number
    )
    replaced = session.scalar(follower)
    now = session.scalar(select(func.now()))
    if number == sheet.head or (replaced is not None and now and replaced > now - RECENT):
        return
    raise EditRefused("Whoever handed this out has changed it since: load the page again.")


def _covered(document: Document, shows: Shows) -> Document:
    """The document under the cover that its hand-out puts on it."""
    if "landmarks" in shows.off:
        return document.model_copy(update={"cover": Cover(on=True, fixed=True), "found": ()})
    if shows.covered:
        return document.model_copy(
            update={"cover": Cover(on=True, fixed=True, groups=shows.groups)}
        )
    if document.cover.on:  # by whoever handed it out, and theirs to lift
        return document.model_copy(
            update={"cover": document.cover.model_copy(update={"fixed": True}), "found": ()}
        )
    return document


def visit(session: Session, person: str, token: str) -> Opened | None:
    """What a visitor has turned and tabulated so far; None where that is nothing."""
    access.running(session, token)
    found = session.scalar(
        select(Sheet.id)
        .where(Sheet.handout == token, Sheet.person_id == person)
        .order_by(Sheet.created.desc())
        .limit(1)
    )
    return sheets.open_sheet(session, person, found) if found is not None else None


def turned(session: Session, person: str, token: str, steps: Sequence[Step]) -> Opened:
    """A visitor's first turn. Raises EditRefused for what would be a change."""
    found = given(session, token)
    if found.shows.seal is None:
        access.refuse_visitor(steps)
    start_over(session, person, token)
    return sheets.create(session, person, found.document, steps, handout=token)


def copied(session: Session, person: str, token: str) -> Opened:
    """A visitor's copy, as they have turned it, on their own shelf."""
    if seats.seal_of(session, token) is not None:
        raise EditRefused("No copies are taken of a sealed sheet.")
    mine = visit(session, person, token)
    document = mine.document if mine is not None else given(session, token).document
    return sheets.create(session, person, without_answers(document))


def start_over(session: Session, person: str, token: str) -> None:
    """Forget what a visitor turned: the sheet is as it was handed out.

    Answers that the hand-out collects stay with whoever collects them. Raises EditRefused.
    """
    access.running(session, token)
    if seats.seal_of(session, token) is not None and visit(session, person, token) is not None:
        raise EditRefused("Work on a sealed sheet is not thrown away.")
    mine = select(Sheet).where(Sheet.handout == token, Sheet.person_id == person)
    for sheet in session.scalars(mine):
        session.delete(sheet)


def shows_of(session: Session, token: str) -> Shows:
    """What a running hand-out shows, for its page."""
    return Shows.model_validate(access.running(session, token).shows)
