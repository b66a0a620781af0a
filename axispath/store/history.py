"""The history of a sheet: revisions, packed, and how one is reached from another."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

from sqlalchemy import exists, func, select
from sqlalchemy.orm import Session

from axispath.core.path.edited import Step
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.told import told_as_one
from axispath.store.contents import keep, named_in
from axispath.store.models import Revision, Sheet
from axispath.store.packing import LARGEST, packed, revised, unpacked, written

MAX_REVISIONS = 20_000
TOGETHER = timedelta(seconds=3)  # between moves of a slider that count as one


class NotFound(Exception):
    """No such sheet for this person."""


def revision_at(session: Session, sheet: Sheet, number: int) -> Revision:
    """A revision. Raises NotFound where there is none such."""
    found = session.scalar(
        select(Revision).where(Revision.sheet_id == sheet.id, Revision.number == number)
    )
    if found is None:
        raise NotFound
    return found


def text_of(session: Session, sheet: Sheet, revision: Revision) -> bytes:
    """The document of a revision as text."""
    if revision.base is None:
        return unpacked(revision.body)
    return unpacked(revision.body, unpacked(revision_at(session, sheet, revision.base).body))


def document_at(session: Session, sheet: Sheet, number: int) -> Document:
    """The document of a revision. Raises NotFound where there is none such."""
    return document_of(session, sheet, revision_at(session, sheet, number))


def document_of(session: Session, sheet: Sheet, revision: Revision) -> Document:
    """The document of a revision at hand."""
    text = text_of(session, sheet, revision)
    return Document.model_validate_json(text, context={"contents": named_in(session, text)})


def newest_child(session: Session, sheet: Sheet) -> Revision | None:
    """What redo leads to."""
    return session.scalar(
        select(Revision)
        .where(
            Revision.sheet_id == sheet.id,
            Revision.parent == sheet.head,
            Revision.joined.is_(False),
        )
        .order_by(Revision.number.desc())
        .limit(1)
    )


def begin(session: Session, sheet: Sheet, label: str, document: Document) -> None:
    """The first revision of a sheet."""
    _put(session, sheet, 1, None, Step(label, document), None)


def add(session: Session, sheet: Sheet, step: Step) -> None:
    """One more revision after the head. Raises EditRefused where the history is full."""
    head = revision_at(session, sheet, sheet.head)
    newest = session.scalar(select(func.max(Revision.number)).where(Revision.sheet_id == sheet.id))
    number = (newest or 0) + 1
    if number > MAX_REVISIONS:
        raise EditRefused("This sheet’s history is full; duplicate the sheet to go on.")
    parent: int | None = head.number
    if step.slides and _goes_on(session, sheet, head, step):
        # One move of a slider after the other: undo goes back to before them all.
        head.joined = True
        parent = head.parent
        step = replace(step, told=told_as_one(head.told, step.told))
    snapshot = head if head.base is None else revision_at(session, sheet, head.base)
    _put(session, sheet, number, parent, step, snapshot)


def _goes_on(session: Session, sheet: Sheet, head: Revision, step: Step) -> bool:
    if head.label != step.label or head.parent is None:
        return False
    if head.created < datetime.now(UTC) - TOGETHER:
        return False
    child = exists().where(Revision.sheet_id == sheet.id, Revision.parent == head.number)
    return not session.scalar(select(child))


def _put(
    session: Session,
    sheet: Sheet,
    number: int,
    parent: int | None,
    step: Step,
    snapshot: Revision | None,
) -> None:
    text, contents = written(step.document)
    if len(text) > LARGEST:
        raise EditRefused("This sheet is too large to be stored.")
    base = body = None
    if snapshot is not None:
        base = snapshot.number
        body = revised(text, unpacked(snapshot.body), len(snapshot.body))
    if body is None:
        base, body = None, packed(text)
    session.add(
        Revision(
            sheet_id=sheet.id,
            number=number,
            parent=parent,
            label=step.label[:200],
            told=step.told.replace("\x00", "")[:300],
            base=base,
            body=body,
            joined=False,
        )
    )
    sheet.head = number
    sheet.weight += len(body) + keep(session, sheet, contents)
    session.flush()
