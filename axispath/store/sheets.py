"""Operations on sheets. Every one takes the person, and finds only that person's sheets."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from axispath.clock import spent
from axispath.core.arithmetic.patience import Patience
from axispath.core.path.framing import settled
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import Edit, apply, describe, with_view
from axispath.core.sheet.refused import EditRefused
from axispath.store.models import Person, Revision, Sheet

FRAMING = Patience(0.4, spent)  # of one lane, in choosing a view for it
MAX_SHEETS = 500
MAX_REVISIONS = 20_000


class NotFound(Exception):
    """No such sheet for this person."""


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


@dataclass(frozen=True, slots=True)
class Listed:
    """A sheet on a shelf."""

    id: str
    name: str
    changed: datetime
    deleted: bool


def new_person(session: Session) -> str:
    """A person for a browser that has made its first change."""
    person = Person(id=secrets.token_hex(16))
    session.add(person)
    session.flush()
    return person.id


def person_exists(session: Session, person: str) -> bool:
    """Whether a cookie still names somebody."""
    return session.get(Person, person) is not None


def create(session: Session, person: str, document: Document, edits: Sequence[Edit] = ()) -> Opened:
    """A new sheet from a document and the edits made to it so far."""
    count = select(func.count()).select_from(Sheet).where(Sheet.person_id == person)
    if session.scalar(count) >= MAX_SHEETS:  # type: ignore[operator]
        raise EditRefused(f"A shelf can hold {MAX_SHEETS} sheets; delete some for good first.")
    sheet = Sheet(
        id=secrets.token_urlsafe(9),
        person_id=person,
        name=document.name,
        head=1,
        view=document.view.model_dump(),
    )
    session.add(sheet)
    session.flush()
    _add_revision(session, sheet, None, "starting the sheet", document)
    return change(session, person, sheet.id, 1, edits) if edits else _opened(session, sheet)


def open_sheet(session: Session, person: str | None, sheet_id: str) -> Opened:
    """A sheet of this person, deleted or not."""
    return _opened(session, _find(session, person, sheet_id))


def document_of(session: Session, person: str | None, sheet_id: str, number: int) -> Document:
    """The document of a sheet at a revision. Raises NotFound where there is none such."""
    revision = _revision(session, _find(session, person, sheet_id), number)
    return Document.model_validate(revision.document)


def change(
    session: Session, person: str, sheet_id: str, base: int, edits: Sequence[Edit]
) -> Opened:
    """Apply edits to a sheet last seen at revision ``base``, all of them or none.

    Edits sent again, because the answer to them was lost, are not applied twice.
    """
    sheet = _find(session, person, sheet_id, lock=True)
    if sheet.head != base:
        if _is_there_already(session, sheet, base, edits):
            return _opened(session, sheet)
        raise Conflict(sheet.head)
    document = _document(session, sheet)
    for edit in edits:
        label = describe(document, edit)
        after = settled(document, apply(document, edit), FRAMING)
        if after != document:
            document = after
            _add_revision(session, sheet, sheet.head, label, document)
    sheet.name = document.name
    sheet.view = document.view.model_dump()
    sheet.changed = func.now()
    session.flush()
    return _opened(session, sheet)


def _is_there_already(session: Session, sheet: Sheet, base: int, edits: Sequence[Edit]) -> bool:
    """Whether these edits to an older revision lead to what the sheet is now."""
    try:
        document = Document.model_validate(_revision(session, sheet, base).document)
        for edit in edits:
            document = settled(document, apply(document, edit), FRAMING)
    except (NotFound, EditRefused):
        return False
    return bool(edits) and _without_ids(document) == _without_ids(_document(session, sheet))


def _without_ids(document: Document) -> Document:
    """Lanes by their place: the ids of new ones are made up anew each time."""
    lanes = tuple(lane.model_copy(update={"id": str(k)}) for k, lane in enumerate(document.lanes))
    return document.model_copy(update={"lanes": lanes, "view": View()})


def branch(
    session: Session, person: str, sheet_id: str, base: int, edits: Sequence[Edit]
) -> Opened:
    """A new sheet: what ``base`` was, with the edits that could not be saved on the old one."""
    sheet = _find(session, person, sheet_id)
    revision = _revision(session, sheet, base)
    before = Document.model_validate(revision.document)
    copy = before.model_copy(update={"name": _copy_name(before.name)})
    return create(session, person, copy, edits)


def undo(session: Session, person: str, sheet_id: str, base: int) -> Opened:
    """Go back to the document before the newest edit."""
    sheet = _find(session, person, sheet_id, lock=True)
    if sheet.head != base:
        raise Conflict(sheet.head)
    parent = _revision(session, sheet, sheet.head).parent
    return _moved(session, sheet, parent)


def redo(session: Session, person: str, sheet_id: str, base: int) -> Opened:
    """Go forward again to the newest document that followed this one."""
    sheet = _find(session, person, sheet_id, lock=True)
    if sheet.head != base:
        raise Conflict(sheet.head)
    child = _newest_child(session, sheet)
    return _moved(session, sheet, child.number if child else None)


def set_view(session: Session, person: str, sheet_id: str, view: View) -> None:
    """Remember where a sheet was last looked at."""
    sheet = _find(session, person, sheet_id, lock=True)
    sheet.view = view.model_dump()


def duplicate(session: Session, person: str, sheet_id: str) -> Opened:
    """A copy of a sheet on the person's own shelf."""
    document = open_sheet(session, person, sheet_id).document
    name = _copy_name(document.name)
    return create(session, person, document.model_copy(update={"name": name}))


def set_deleted(session: Session, person: str, sheet_id: str, deleted: bool) -> None:
    """Put a sheet aside, or bring it back."""
    sheet = _find(session, person, sheet_id, lock=True)
    sheet.deleted = func.now() if deleted else None


def shelf(session: Session, person: str) -> list[Listed]:
    """A person's sheets, the newest change first."""
    found = session.scalars(
        select(Sheet).where(Sheet.person_id == person).order_by(Sheet.changed.desc())
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
        )
        session.add(sheet)
        session.flush()
        _add_revision(session, sheet, None, "the demo sheet", document)
    elif _document(session, sheet) != document:
        _add_revision(session, sheet, sheet.head, "a newer demo sheet", document)
        sheet.name = document.name
        sheet.view = document.view.model_dump()


def _find(session: Session, person: str | None, sheet_id: str, lock: bool = False) -> Sheet:
    query = select(Sheet).where(Sheet.id == sheet_id, Sheet.person_id == person)
    sheet = session.scalar(query.with_for_update() if lock else query)
    if sheet is None or person is None:
        raise NotFound
    return sheet


def _revision(session: Session, sheet: Sheet, number: int) -> Revision:
    found = session.scalar(
        select(Revision).where(Revision.sheet_id == sheet.id, Revision.number == number)
    )
    if found is None:
        raise NotFound
    return found


def _newest_child(session: Session, sheet: Sheet) -> Revision | None:
    return session.scalar(
        select(Revision)
        .where(Revision.sheet_id == sheet.id, Revision.parent == sheet.head)
        .order_by(Revision.number.desc())
        .limit(1)
    )


def _document(session: Session, sheet: Sheet) -> Document:
    stored = Document.model_validate(_revision(session, sheet, sheet.head).document)
    return with_view(stored, View.model_validate(sheet.view))


def _add_revision(
    session: Session, sheet: Sheet, parent: int | None, label: str, document: Document
) -> None:
    newest = session.scalar(select(func.max(Revision.number)).where(Revision.sheet_id == sheet.id))
    number = (newest or 0) + 1
    if number > MAX_REVISIONS:
        raise EditRefused("This sheet’s history is full; duplicate the sheet to go on.")
    session.add(
        Revision(
            sheet_id=sheet.id,
            number=number,
            parent=parent,
            label=label[:200],
            document=document.model_dump(mode="json"),
        )
    )
    sheet.head = number
    session.flush()


def _moved(session: Session, sheet: Sheet, number: int | None) -> Opened:
    if number is not None:
        document = Document.model_validate(_revision(session, sheet, number).document)
        sheet.head = number
        sheet.name = document.name
        sheet.changed = func.now()
        session.flush()
    return _opened(session, sheet)


def _opened(session: Session, sheet: Sheet) -> Opened:
    head = _revision(session, sheet, sheet.head)
    child = _newest_child(session, sheet)
    return Opened(
        sheet.id,
        _document(session, sheet),
        sheet.head,
        head.label if head.parent is not None else None,
        child.label if child else None,
        sheet.deleted is not None,
    )


def _copy_name(name: str) -> str:
    return f"{name[:110]} (copy)"
