"""Seats: a sitting as it stands, and the record of it.

All times are those of the database: the clock of a student's machine counts for nothing.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from axispath.core.practice import chain
from axispath.core.sheet.document import lasting
from axispath.core.sheet.refused import EditRefused
from axispath.store import history
from axispath.store.models import Entry, Handout, Sheet, Sitting
from axispath.store.shows import Seal, Shows

MOST_ENTRIES = 5000  # of one record; from then on only what follows is noted
ALWAYS = ("answered", "handed in", "more time", "let in", "locked", "unlocked")
MOST_REPORTS = 1500  # entries from which on each kind that a page reports has its share of them
MOST_DETAIL = 300  # signs
GONE = timedelta(seconds=40)  # without a word from a page, after which it counts as away
KINDS = {
    "entered": "entered",
    "opened": "opened again",
    "left": "left the page",
    "back": "came back",
    "lost": "lost the network",
    "found": "found the network",
    "full": "went to full screen",
    "small": "left full screen",
    "changed": "changed the sheet",
    "answered": "answered",
    "late": "a change came too late and was not taken",
    "locked": "the device reports: locked to this page",
    "unlocked": "the device reports: not locked",
    "more time": "was given more time",
    "let in": "was let in again",
    "handed in": "handed in",
}
"""What is recorded, as pages say it."""
OF_PAGES = ("opened", "left", "back", "lost", "found", "full", "small")
"""What a student's page reports."""


class Closed(EditRefused):
    """A change, or an answer, of a ``sitting`` that is closed."""

    def __init__(self, message: str, sitting: str = "", what: str = "") -> None:
        super().__init__(message)
        self.sitting = sitting
        self.what = what


@dataclass(frozen=True, slots=True)
class Seat:
    """A sitting as pages show it; ``left`` are seconds to its end, ``open`` before that."""

    id: str
    handout: str
    sheet: str | None
    name: str
    started: datetime
    ends: datetime | None
    left: float
    extra: int
    away: bool
    locked: bool | None
    ended: datetime | None

    @property
    def open(self) -> bool:
        """Whether it goes on."""
        return self.ended is None and self.left > 0


def of_person(session: Session, person: str | None, token: str) -> Sitting | None:
    """The sitting of somebody on a hand-out."""
    if person is None:
        return None
    query = select(Sitting).where(Sitting.handout == token, Sitting.person_id == person)
    return session.scalar(query.order_by(Sitting.started.desc()).limit(1))


def of_sheet(session: Session, sheet: Sheet) -> Sitting | None:
    """The sitting that a sheet belongs to.

    In a sealed hand-out it is told by the sheet alone: somebody may have sat there as two people.
    """
    if not sheet.handout:
        return None
    own = session.scalar(select(Sitting).where(Sitting.sheet_id == sheet.id))
    if own is not None or seal_of(session, sheet.handout) is not None:
        return own
    return of_person(session, sheet.person_id, sheet.handout)


def now_of(session: Session) -> datetime:
    """The time of the database."""
    now: datetime = session.scalars(select(func.clock_timestamp())).one()
    return now


def ends_of(seal: Seal, sitting: Sitting) -> datetime:
    """When a sitting ends by itself."""
    return seal.ends + timedelta(minutes=sitting.extra)


def record(session: Session, sitting: Sitting, kind: str, detail: str = "", at: str = "") -> None:
    """Note what happened. Entries of one sitting follow one another, whoever asks."""
    assert kind in KINDS, kind
    session.execute(select(Sitting.id).where(Sitting.id == sitting.id).with_for_update())
    last = session.scalar(
        select(Entry).where(Entry.sitting_id == sitting.id).order_by(Entry.number.desc()).limit(1)
    )
    if last is not None and last.number >= MOST_ENTRIES and kind not in ALWAYS:
        return
    if kind in OF_PAGES and last is not None and last.number >= MOST_REPORTS:
        same = select(func.count()).where(Entry.sitting_id == sitting.id, Entry.kind == kind)
        if (session.scalar(same) or 0) >= MOST_REPORTS // len(OF_PAGES):
            return
    before = _entry(last) if last is not None else None
    moment = at or now_of(session).isoformat(timespec="milliseconds")
    found = chain.following(before, moment, kind, detail[:MOST_DETAIL])
    session.add(
        Entry(
            sitting_id=sitting.id,
            number=found.number,
            at=found.at,
            kind=found.kind,
            detail=found.detail,
            before=found.before,
            hash=found.hash,
        )
    )
    session.flush()


def _entry(stored: Entry) -> chain.Entry:
    return chain.Entry(
        stored.number, stored.at, stored.kind, stored.detail, stored.before, stored.hash
    )


def receipts_of(session: Session, token: str) -> dict[str, str]:
    """The last digest of each sitting of a hand-out that has a record."""
    newest = (
        select(Entry.sitting_id, Entry.hash)
        .join(Sitting, Sitting.id == Entry.sitting_id)
        .where(Sitting.handout == token)
        .distinct(Entry.sitting_id)
        .order_by(Entry.sitting_id, Entry.number.desc())
    )
    return {row.sitting_id: row.hash for row in session.execute(newest)}


def record_of(session: Session, sitting: Sitting) -> list[chain.Entry]:
    """All entries, in order."""
    query = select(Entry).where(Entry.sitting_id == sitting.id).order_by(Entry.number)
    return [_entry(one) for one in session.scalars(query)]


def seat(session: Session, sitting: Sitting, seal: Seal | None) -> Seat:
    """A sitting as it stands; one whose time is over is handed in by this look, at its end."""
    now = now_of(session)
    ends = ends_of(seal, sitting) if seal is not None else None
    if seal is not None and ends is not None and sitting.ended is None and now >= ends:
        hand_in(session, sitting, "by itself, at the end", ends)
    silent = sitting.ended is None and seal is not None and now - sitting.seen > GONE
    return Seat(
        sitting.id,
        sitting.handout,
        sitting.sheet_id,
        sitting.name,
        sitting.started,
        ends,
        (ends - now).total_seconds() if ends is not None else float("inf"),
        sitting.extra,
        sitting.away or silent,
        sitting.locked,
        sitting.ended,
    )


def hand_in(session: Session, sitting: Sitting, how: str, moment: datetime) -> None:
    """The end of a sitting: the record carries the digest of the sheet as it is now."""
    sitting.ended = moment
    sheet = session.get(Sheet, sitting.sheet_id) if sitting.sheet_id else None
    if sheet is not None:
        document = history.document_at(session, sheet, sheet.head)
        how = f"{how}; the sheet: {chain.sheet_digest(lasting(document))}"
    record(session, sitting, "handed in", how, moment.isoformat(timespec="milliseconds"))


def seal_of(session: Session, token: str) -> Seal | None:
    """How a hand-out is sealed."""
    handout = session.get(Handout, token)
    return Shows.model_validate(handout.shows).seal if handout is not None else None


def closed(session: Session, sheet: Sheet) -> str:
    """Why nothing can be changed in a sheet of a sealed hand-out; empty where it can."""
    seal = seal_of(session, str(sheet.handout)) if sheet.handout else None
    if seal is None:
        return ""
    sitting = of_sheet(session, sheet)
    if sitting is None:
        return "Enter first, with your name."
    found = seat(session, sitting, seal)
    if found.open:
        return ""
    return "This is handed in: it can be read, and not changed any more."


def release(session: Session, tokens: Sequence[str]) -> None:
    """Before hand-outs go: what others made on them in a sitting becomes their own."""
    done = select(Sitting.sheet_id).where(Sitting.handout.in_(tokens))
    for sheet in session.scalars(select(Sheet).where(Sheet.id.in_(done))):
        sheet.handout = None
    session.flush()


def release_all_of(session: Session, person: str) -> None:
    """The same with all hand-outs of somebody who goes."""
    mine = select(Sheet.id).where(Sheet.person_id == person)
    release(session, session.scalars(select(Handout.token).where(Handout.sheet_id.in_(mine))).all())
