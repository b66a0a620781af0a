"""Operations on sheets. Every one takes the person, and finds only that person's sheets."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from axispath.core.path.edited import Step
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import with_view
from axispath.core.sheet.practice import Found
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.summed import content, summary
from axispath.store import access, history
from axispath.store.history import NotFound
from axispath.store.models import Sheet

MAX_SHEETS = 2000
MAX_WEIGHT = 20 << 20  # bytes of all histories of one person
__all__ = ["NotFound"]


class Conflict(Exception):
    """The sheet has moved on since the caller last saw it."""

    def __init__(self, head: int) -> None:
        super().__init__(f"The sheet is at revision {head} now.")
        self.head = head


@dataclass(frozen=True, slots=True)
class Opened:
    """A sheet as its person sees it."""

    id: str
    document: Document
    head: int
    undo: str | None
    redo: str | None
    deleted: bool = False
    handout: str | None = None


@dataclass(frozen=True, slots=True)
class Listed:
    """A sheet on a shelf."""

    id: str
    name: str
    changed: datetime
    deleted: bool


def create(
    session: Session,
    person: str,
    document: Document,
    steps: Sequence[Step] = (),
    handout: str | None = None,
) -> Opened:
    """A new sheet from a document and the steps taken from it so far.

    With a ``handout`` it is what a visitor of that one turns, and on no shelf.
    """
    _refuse_more_than_fits(session, person)
    sheet = Sheet(
        id=secrets.token_urlsafe(9),
        person_id=person,
        name=document.name,
        head=1,
        view=document.view.model_dump(),
        weight=0,
        handout=handout,
    )
    describe(sheet, document)
    session.add(sheet)
    session.flush()
    history.begin(session, sheet, "starting the sheet", document)
    return change(session, person, sheet.id, 1, steps) if steps else _opened(session, sheet)


def open_sheet(session: Session, person: str | None, sheet_id: str) -> Opened:
    """A sheet of this person, deleted or not."""
    return _opened(session, access.found(session, person, sheet_id))


def document_of(session: Session, person: str | None, sheet_id: str, number: int) -> Document:
    """The document of a sheet at a revision. Raises NotFound where there is none such."""
    return history.document_at(session, access.found(session, person, sheet_id), number)


def change(
    session: Session, person: str, sheet_id: str, base: int, steps: Sequence[Step]
) -> Opened:
    """Take steps from revision ``base`` of a sheet, all of them or none.

    Raises Conflict where the sheet has moved on since.
    """
    sheet = access.found(session, person, sheet_id, lock=True)
    if sheet.head != base:
        raise Conflict(sheet.head)
    access.refuse_changes(session, sheet, steps)
    if steps:
        _refuse_too_much(session, person)
    for step in steps:
        history.add(session, sheet, step)
    if steps:
        document = steps[-1].document
        sheet.name = document.name
        sheet.view = document.view.model_dump()
        describe(sheet, document)
    sheet.changed = func.now()
    session.flush()
    return _opened(session, sheet)


def writable(session: Session, person: str | None, sheet_id: str) -> Sheet:
    """A sheet of this person, locked. Raises NotFound and Ended."""
    return access.found(session, person, sheet_id, lock=True)


def describe(sheet: Sheet, document: Document) -> None:
    """Note what is on a sheet, for its shelf."""
    sheet.summary = summary(document).replace("\x00", "")[:200]
    sheet.content = content(document).replace("\x00", "")


def copy_of(document: Document) -> Document:
    """The same document under the name of a copy."""
    return document.model_copy(update={"name": _copy_name(document.name)})


def undo(session: Session, person: str, sheet_id: str, base: int) -> Opened:
    """Go back to the document before the newest edit."""
    sheet = access.found(session, person, sheet_id, lock=True)
    if sheet.head != base:
        raise Conflict(sheet.head)
    access.refuse_changes(session, sheet, (), "undo")
    parent = history.revision_at(session, sheet, sheet.head).parent
    return _moved(session, sheet, parent)


def redo(session: Session, person: str, sheet_id: str, base: int) -> Opened:
    """Go forward again to the newest document that followed this one."""
    sheet = access.found(session, person, sheet_id, lock=True)
    if sheet.head != base:
        raise Conflict(sheet.head)
    access.refuse_changes(session, sheet, (), "redo")
    child = history.newest_child(session, sheet)
    return _moved(session, sheet, child.number if child else None)


def set_view(session: Session, person: str, sheet_id: str, view: View) -> None:
    """Remember where a sheet was last looked at. Raises EditRefused where it is handed in."""
    sheet = access.found(session, person, sheet_id, lock=True)
    access.refuse_changes(session, sheet, ())
    sheet.view = view.model_dump()


def duplicate(session: Session, person: str, sheet_id: str) -> Opened:
    """A copy of a sheet on the person's own shelf."""
    access.owned(session, person, sheet_id)
    return create(session, person, copy_of(open_sheet(session, person, sheet_id).document))


def own(session: Session, person: str, sheet_id: str) -> Sheet:
    """A sheet of one's own, to be changed."""
    return access.owned(session, person, sheet_id, lock=True)


def set_deleted(session: Session, person: str, sheet_id: str, deleted: bool) -> None:
    """Put a sheet aside, or bring it back."""
    sheet = access.owned(session, person, sheet_id, lock=True)
    if not deleted and sheet.deleted is not None:
        _refuse_more_than_fits(session, person)
    sheet.deleted = func.now() if deleted else None


def destroy(session: Session, person: str, sheet_id: str) -> None:
    """Delete a sheet for good, with its history; only one that was put aside before."""
    sheet = access.owned(session, person, sheet_id, lock=True)
    if sheet.deleted is None:
        raise EditRefused("Delete the sheet first; then it can be deleted for good.")
    session.execute(delete(Sheet).where(Sheet.id == sheet.id))


def _refuse_more_than_fits(session: Session, person: str) -> None:
    mine = select(func.count()).where(Sheet.person_id == person, Sheet.handout.is_(None))
    if (session.scalar(mine.where(Sheet.deleted.is_(None))) or 0) >= MAX_SHEETS:
        raise EditRefused(f"A shelf can hold {MAX_SHEETS} sheets; delete some first.")
    if (session.scalar(mine.where(Sheet.deleted.is_not(None))) or 0) >= MAX_SHEETS:
        raise EditRefused(
            f"There are {MAX_SHEETS} deleted sheets here; delete some of them for good first."
        )
    _refuse_too_much(session, person)


def _refuse_too_much(session: Session, person: str) -> None:
    weight = select(func.sum(Sheet.weight)).where(Sheet.person_id == person)
    if (session.scalar(weight) or 0) >= MAX_WEIGHT:
        raise EditRefused(
            f"The sheets here fill their {MAX_WEIGHT >> 20} MB; delete some for good first."
        )


def shelf(session: Session, person: str) -> list[Listed]:
    """A person's sheets, the newest change first."""
    found = session.scalars(
        select(Sheet)
        .where(Sheet.person_id == person, Sheet.handout.is_(None))
        .order_by(Sheet.changed.desc())
    )
    return [Listed(s.id, s.name, s.changed, s.deleted is not None) for s in found]


def demos(session: Session) -> list[Listed]:
    """The demo sheets, open to everybody as something to copy."""
    found = session.scalars(select(Sheet).where(Sheet.demo.is_not(None)).order_by(Sheet.name))
    return [Listed(str(s.demo), s.name, s.changed, False) for s in found]


def store_demo(session: Session, demo: str, document: Document) -> None:
    """Put a demo sheet in place, or bring it up to date."""
    sheet = session.scalar(select(Sheet).where(Sheet.demo == demo))
    if sheet is None:
        sheet = Sheet(
            id=secrets.token_urlsafe(9),
            demo=demo,
            name=document.name,
            head=1,
            view=document.view.model_dump(),
            weight=0,
        )
        session.add(sheet)
        session.flush()
        history.begin(session, sheet, "the demo sheet", document)
    elif _document(session, sheet) != document:
        history.add(session, sheet, Step("a newer demo sheet", document))
        sheet.name = document.name
        sheet.view = document.view.model_dump()


def _document(session: Session, sheet: Sheet) -> Document:
    stored = history.document_at(session, sheet, sheet.head)
    return with_view(stored, View.model_validate(sheet.view))


def _moved(session: Session, sheet: Sheet, number: int | None) -> Opened:
    if number is not None:
        document = history.document_at(session, sheet, number)
        sheet.name = document.name
        describe(sheet, document)
        sheet.head = number
        sheet.changed = func.now()
        session.flush()
    return _opened(session, sheet)


def _opened(session: Session, sheet: Sheet) -> Opened:
    head = history.revision_at(session, sheet, sheet.head)
    child = history.newest_child(session, sheet)
    stored = history.document_of(session, sheet, head)
    return Opened(
        sheet.id,
        with_found(with_view(stored, View.model_validate(sheet.view)), sheet.found),
        sheet.head,
        head.label if head.parent is not None else None,
        child.label if child else None,
        sheet.deleted is not None,
        sheet.handout,
    )


def with_found(document: Document, found: list[Any]) -> Document:
    """The document with the covered landmarks that were found, whatever was undone since."""
    return document.model_copy(update={"found": tuple(Found.model_validate(one) for one in found)})


def found_on(session: Session, person: str | None, sheet_id: str) -> list[Any]:
    """What was found on a sheet of this person."""
    return access.found(session, person, sheet_id).found


def _copy_name(name: str) -> str:
    return f"{name[:110]} (copy)"
