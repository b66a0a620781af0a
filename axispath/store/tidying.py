"""What is thrown away, by rule, so that nothing grows without end.

- A move of a slider that the next one has overtaken: after an hour.
- Of revisions older than 30 days, all but the last of each day; the first, the head and those
  with a name stay.
- What visitors of hand-outs turned: 14 days after they did, where no answers are collected; what
  was collected 30 days after the hand-out's end.
- Deleted sheets: after 30 days. Guests who have not been here for 90 days, with their sheets;
  accounts stay. Browsers that were not seen for 400 days are signed out.
- Receipts of changes: after 7 days. What long work has made: after an hour.
- Long columns of numbers that no sheet needs: after an hour.

Every pass is short, and takes what is left over the next time.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta

from sqlalchemy import CursorResult, DateTime, cast, delete, func, select, text
from sqlalchemy.orm import Session

from axispath.store import sheets as sheets_of
from axispath.store.database import Store
from axispath.store.history import document_at, text_of
from axispath.store.models import (
    Account,
    Attempt,
    Content,
    Errand,
    Handout,
    Letter,
    Person,
    Receipt,
    Reply,
    Revision,
    Sheet,
    SheetContent,
    SignIn,
    Sitting,
)
from axispath.store.packing import packed, revised, unpacked

VISITS = timedelta(days=14)  # since a visitor of a hand-out last turned something
OVERTAKEN = timedelta(hours=1)
OLD = timedelta(days=30)
DELETED = timedelta(days=30)
AWAY = timedelta(days=90)
UNUSED = timedelta(days=400)  # a browser that was not seen for so long is signed out
RECEIPTS = timedelta(days=7)
ERRANDS = timedelta(hours=1)
AT_ONCE = 200  # sheets or people of one pass
MANY = 50  # a history that is shorter is not worth thinning
LOCK = 7_204_115  # whoever holds it tidies; others leave it alone


@dataclass(frozen=True)
class Tidied:
    """How much was thrown away."""

    people: int
    sheets: int
    revisions: int
    receipts: int


def tidy(store: Store) -> Tidied | None:
    """Throw away what the rules say; None where another process is just doing it."""
    with store.transaction() as session:
        if not session.scalar(select(func.pg_try_advisory_xact_lock(LOCK))):
            return None
        session.execute(text("set local statement_timeout = '60s'"))
        receipts = _gone(session, delete(Receipt).where(Receipt.created < func.now() - RECEIPTS))
        session.execute(delete(Errand).where(Errand.created < func.now() - ERRANDS))
        needed = select(SheetContent.digest).where(SheetContent.digest == Content.digest).exists()
        session.execute(delete(Content).where(Content.created < func.now() - ERRANDS, ~needed))
        gone = select(Sheet.id).where(Sheet.deleted < func.now() - DELETED).limit(AT_ONCE)
        sheets = _gone(session, delete(Sheet).where(Sheet.id.in_(gone)))
        visits = Sheet.handout.is_not(None) & (Sheet.changed < func.now() - VISITS)
        collected = select(Sitting.id).where(Sitting.sheet_id == Sheet.id).exists()
        visits &= ~collected
        sealed = cast(Handout.shows["seal"]["ends"].as_string(), DateTime(timezone=True))
        over = func.coalesce(Handout.until, sealed) < func.now() - DELETED
        ended = select(Handout.token).where(over)
        session.execute(delete(Sitting).where(Sitting.handout.in_(ended)))
        loose = Reply.sheet_id.is_(None) & Reply.sitting_id.is_(None)
        session.execute(delete(Reply).where(loose))
        session.execute(delete(Sheet).where(visits))
        session.execute(delete(Attempt).where(Attempt.last < func.now() - RECEIPTS))
        session.execute(delete(Letter).where(Letter.created < func.now() - RECEIPTS))
        session.execute(delete(SignIn).where(SignIn.seen < func.now() - UNUSED))
        kept = select(Account.person_id).where(Account.person_id == Person.id).exists()
        away = select(Person.id).where(Person.seen < func.now() - AWAY, ~kept).limit(AT_ONCE)
        people = _gone(session, delete(Person).where(Person.id.in_(away)))
        thick = (
            select(Revision.sheet_id)
            .where(
                (Revision.joined & (Revision.created < func.now() - OVERTAKEN))
                | (Revision.created < func.now() - OLD)
            )
            .group_by(Revision.sheet_id)
            .having(func.bool_or(Revision.joined) | (func.count() > MANY))
            .limit(AT_ONCE)
        )
        found = list(session.scalars(thick))
    _describe(store)
    revisions = 0
    for sheet_id in found:
        with store.transaction() as session:
            sheet = session.get(Sheet, sheet_id, with_for_update=True)
            if sheet is not None:
                revisions += thin(session, sheet)
    return Tidied(people, sheets, revisions, receipts)


def _describe(store: Store) -> None:
    """Sheets from before they were searched are made to be found."""
    with store.transaction() as session:
        plain = select(Sheet).where(Sheet.content == "").limit(AT_ONCE)
        for sheet in session.scalars(plain.with_for_update(skip_locked=True)):
            sheets_of.describe(sheet, document_at(session, sheet, sheet.head))


def _gone(session: Session, statement: object) -> int:
    result = session.execute(statement)  # type: ignore[call-overload]
    assert isinstance(result, CursorResult)
    return result.rowcount


def thin(session: Session, sheet: Sheet) -> int:
    """Thin the history of a sheet by the rules; gives how many revisions are gone."""
    now = session.scalar(select(func.now()))
    assert now is not None
    history = list(
        session.scalars(
            select(Revision).where(Revision.sheet_id == sheet.id).order_by(Revision.number)
        )
    )
    parents = {revision.parent for revision in history}
    last = {revision.created.date(): revision.number for revision in history}
    superfluous = {
        revision.number
        for revision in history
        if revision.number != sheet.head
        and revision.parent is not None
        and revision.name is None
        and (
            (
                revision.joined
                and revision.created < now - OVERTAKEN
                and revision.number not in parents
            )
            or (revision.created < now - OLD and last[revision.created.date()] != revision.number)
        )
    }
    if not superfluous:
        return 0
    texts = {r.number: text_of(session, sheet, r) for r in history}
    before = {revision.number: revision.parent for revision in history}
    snapshot: Revision | None = None
    weight = 0
    for revision in history:
        if revision.number in superfluous:
            session.delete(revision)
            continue
        while revision.parent in superfluous:
            revision.parent = before[revision.parent]
        # All that stays is packed anew: what it was packed against may be gone.
        whole = texts[revision.number]
        body = None
        if snapshot is not None:
            body = revised(whole, texts[snapshot.number], len(snapshot.body))
        if snapshot is None or body is None:
            snapshot, body = revision, packed(whole)
        against = None if snapshot is revision else snapshot.number
        revision.base, revision.body = against, body
        assert unpacked(body, texts[against] if against is not None else None) == whole
        weight += len(revision.body)
    sheet.weight = weight
    session.flush()
    return len(superfluous)
