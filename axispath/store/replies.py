"""Replies: answers to questions and guesses at what is covered. They are never undone."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from axispath.core.practice.chain import answer_digest
from axispath.core.practice.marked import Marked
from axispath.core.sheet.document import MOST_FOUND
from axispath.core.sheet.refused import EditRefused
from axispath.store import access, seats
from axispath.store.models import Handout, Reply, Sheet, Sitting
from axispath.store.shows import Shows

MOST = 3000  # replies on one sheet
MOST_EACH = 300  # to one question


@dataclass(frozen=True, slots=True)
class Kept:
    """A reply that was kept."""

    question: str
    text: str
    verdict: str
    words: tuple[str, ...]
    found: tuple[dict[str, Any], ...]
    created: datetime
    name: str = ""


def _kept(reply: Reply, name: str = "") -> Kept:
    return Kept(
        reply.question,
        reply.text,
        reply.verdict,
        tuple(reply.words),
        tuple(reply.found),
        reply.created,
        name,
    )


def known(session: Session, person: str, sheet_id: str, change: str) -> Kept | None:
    """The reply that a page sent before under this name."""
    sheet = access.found(session, person, sheet_id)
    if not change:
        return None
    reply = session.scalar(select(Reply).where(Reply.change == change, Reply.sheet_id == sheet.id))
    return _kept(reply) if reply is not None else None


def refuse(session: Session, sheet: Sheet) -> Sitting | None:
    """Whether replies are taken, and whose they are. Raises EditRefused."""
    if sheet.handout is None:
        return None
    handout = session.get_one(Handout, sheet.handout)
    shows = Shows.model_validate(handout.shows)
    sitting = seats.of_sheet(session, sheet)
    if shows.seal is not None:
        why = seats.closed(session, sheet)
        if why:
            raise seats.Closed(why, sitting.id if sitting is not None else "", "an answer")
    if (shows.collects or shows.seal is not None) and sitting is None:
        raise EditRefused("Give a name first: one that whoever handed this out knows.")
    return sitting


def keep(
    session: Session,
    person: str,
    sheet_id: str,
    question: str,
    text: str,
    marked: Marked,
    change: str = "",
) -> Kept:
    """Keep a reply; one sent again under the same name is the first one. Raises EditRefused."""
    sheet = access.found(session, person, sheet_id, lock=True)
    before = known(session, person, sheet_id, change)
    if before is not None:
        return before
    sitting = refuse(session, sheet)
    on_sheet = select(func.count()).select_from(Reply).where(Reply.sheet_id == sheet.id)
    if (session.scalar(on_sheet.where(Reply.question == question)) or 0) >= MOST_EACH:
        raise EditRefused(f"There are {MOST_EACH} answers to this already; no more are taken.")
    if (session.scalar(on_sheet) or 0) >= MOST:
        raise EditRefused(f"There are {MOST} answers on this sheet already; no more are taken.")
    found = [one.model_dump(mode="json") for one in marked.found]
    if found:
        sheet.found = [*sheet.found, *(one for one in found if one not in sheet.found)][:MOST_FOUND]
    reply = Reply(
        sheet_id=sheet.id,
        sitting_id=sitting.id if sitting is not None else None,
        question=question,
        text=text,
        verdict=marked.verdict.value,
        words=list(marked.words),
        found=found,
        change=change or None,
    )
    session.add(reply)
    sheet.changed = func.now()
    if sitting is not None and seats.seal_of(session, sitting.handout) is not None:
        digest = answer_digest(text, marked.verdict.value)
        seats.record(session, sitting, "answered", f"{question or 'a covered landmark'}; {digest}")
    session.flush()
    session.refresh(reply)
    return _kept(reply)


def of_sheet(session: Session, person: str, sheet_id: str) -> list[Kept]:
    """All replies on a sheet, the first one first."""
    sheet = access.found(session, person, sheet_id)
    found = session.scalars(select(Reply).where(Reply.sheet_id == sheet.id).order_by(Reply.id))
    return [_kept(one) for one in found]


def of_handout(session: Session, token: str) -> list[Kept]:
    """All replies that a hand-out has collected, by sitting; asked by whoever handed it out."""
    query = (
        select(Reply, Sitting.name)
        .join(Sitting, Sitting.id == Reply.sitting_id)
        .where(Sitting.handout == token)
        .order_by(Sitting.name, Reply.id)
    )
    return [_kept(reply, name) for reply, name in session.execute(query)]
