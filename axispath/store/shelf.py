"""A person's shelf: searched, sorted, labelled, many sheets at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from sqlalchemy import ColumnElement, func, select
from sqlalchemy.orm import Session

from axispath.core.sheet.refused import EditRefused
from axispath.store import sheets
from axispath.store.models import Sheet

AT_ONCE = 60  # sheets of one page
MOST_WORDS = 8
LONGEST_LABEL = 30
MOST_LABELS = 8  # of one sheet
Order = Literal["change", "name"]


@dataclass(frozen=True, slots=True)
class OnShelf:
    """A sheet as it stands on a shelf."""

    id: str
    head: int
    name: str
    summary: str
    labels: tuple[str, ...]
    changed: datetime


@dataclass(frozen=True, slots=True)
class Shelf:
    """Some of the sheets that were asked for, how many there are, and all labels in use."""

    found: tuple[OnShelf, ...]
    total: int
    labels: tuple[str, ...]
    deleted: tuple[OnShelf, ...]


def shelf(
    session: Session,
    person: str,
    words: str = "",
    label: str = "",
    order: Order = "change",
    first: int = 0,
) -> Shelf:
    """The sheets of a person that have all these words, and the label."""
    mine = (Sheet.person_id == person) & Sheet.handout.is_(None)
    kept = mine & Sheet.deleted.is_(None)
    wanted = kept
    for word in words.casefold().split()[:MOST_WORDS]:
        wanted &= Sheet.content.contains(word.replace("\x00", ""), autoescape=True)
    if label:
        wanted &= Sheet.labels.contains(f"|{label}|".replace("\x00", ""), autoescape=True)
    by: ColumnElement[object] = (
        Sheet.changed.desc() if order == "change" else func.lower(Sheet.name)  # type: ignore[assignment]
    )
    columns = (Sheet.id, Sheet.head, Sheet.name, Sheet.summary, Sheet.labels, Sheet.changed)
    query = select(*columns).where(wanted).order_by(by, Sheet.id).limit(AT_ONCE).offset(first)
    gone = select(*columns).where(mine & Sheet.deleted.is_not(None)).order_by(Sheet.deleted.desc())
    total = session.scalar(select(func.count()).select_from(Sheet).where(wanted)) or 0
    used = session.scalars(select(Sheet.labels).where(kept & (Sheet.labels != "")).distinct())
    labels = sorted({one for text in used for one in _split(text)}, key=str.casefold)
    return Shelf(
        tuple(_listed(*row) for row in session.execute(query)),
        total,
        tuple(labels),
        tuple(_listed(*row) for row in session.execute(gone.limit(AT_ONCE))),
    )


def put_label(session: Session, person: str, sheet_id: str, label: str, on: bool) -> None:
    """Put a label of one's own on a sheet, or take it off."""
    label = " ".join(label.replace("|", " ").split())
    if not 1 <= len(label) <= LONGEST_LABEL:
        raise EditRefused(f"A label has 1 to {LONGEST_LABEL} characters.")
    sheet = sheets.own(session, person, sheet_id)
    kept = [one for one in _split(sheet.labels) if one.casefold() != label.casefold()]
    if on:
        kept.append(label)
    if len(kept) > MOST_LABELS:
        raise EditRefused(f"A sheet has {MOST_LABELS} labels at most.")
    sheet.labels = f"|{'|'.join(kept)}|" if kept else ""


def empty(session: Session, person: str) -> None:
    """Delete for good whatever was put aside."""
    gone = select(Sheet.id).where(Sheet.person_id == person, Sheet.deleted.is_not(None))
    for sheet_id in list(session.scalars(gone)):
        sheets.destroy(session, person, sheet_id)


def _split(labels: str) -> Sequence[str]:
    return [one for one in labels.split("|") if one]


def _listed(
    sheet_id: str, head: int, name: str, line: str, labels: str, changed: datetime
) -> OnShelf:
    return OnShelf(sheet_id, head, name, line, tuple(_split(labels)), changed)
