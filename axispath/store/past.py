"""The past of a sheet: seen as a list, gone back to, branched from."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from axispath.core.path.edited import Step
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.told import ADDED, DELETED, of_one_thing, told_as_one
from axispath.store import access, history, sheets
from axispath.store.models import Revision
from axispath.store.sheets import Conflict, Opened

AT_ONCE = 120  # revisions of one list
MOST_NAMED = 100
LONGEST = 80
ONE_PIECE = timedelta(minutes=5)  # between steps of one piece of work
NEWS = (ADDED, DELETED)  # what is told by itself, however close the next


@dataclass(frozen=True, slots=True)
class Point:
    """A revision. ``line`` says whether the sheet of now came of it, ``here`` that it is it."""

    number: int
    label: str
    told: str
    name: str
    created: datetime
    line: bool
    here: bool


@dataclass(frozen=True, slots=True)
class Past:
    """Some revisions of a sheet, the newest first, and whether there are older ones."""

    head: int
    points: tuple[Point, ...]
    older: bool

    @property
    def groups(self) -> tuple[Group, ...]:
        """The points, those of one piece of work together."""
        groups: list[list[Point]] = []
        for point in self.points:
            if groups and _belong(groups[-1][-1], point):
                groups[-1].append(point)
            else:
                groups.append([point])
        return tuple(Group(tuple(points)) for points in groups)


@dataclass(frozen=True, slots=True)
class Group:
    """Points that belong together, the newest first."""

    points: tuple[Point, ...]

    @property
    def told(self) -> str:
        """What all of them together did."""
        newest, oldest = self.points[0], self.points[-1]
        if of_one_thing(point.told for point in self.points):
            return told_as_one(oldest.told, newest.told)
        return newest.label


def _belong(newer: Point, older: Point) -> bool:
    """Whether two neighbours are steps of one piece of work: the same thing done to the same."""
    return (
        newer.label == older.label
        and newer.line == older.line
        and not any(point.here or point.name for point in (newer, older))
        and newer.created - older.created < ONE_PIECE
        and not any(point.told.startswith(NEWS) for point in (newer, older))
    )


def past(session: Session, person: str, sheet_id: str, before: int | None = None) -> Past:
    """The past of a sheet, from before a revision on."""
    sheet = access.owned(session, person, sheet_id)
    parents = dict(
        session.execute(
            select(Revision.number, Revision.parent).where(Revision.sheet_id == sheet.id)
        ).all()
    )
    line: set[int] = set()
    at: int | None = sheet.head
    while at is not None and at not in line:
        line.add(at)
        at = parents.get(at)
    query = (
        select(Revision)
        .where(Revision.sheet_id == sheet.id, Revision.joined.is_(False))
        .order_by(Revision.number.desc())
        .limit(AT_ONCE + 1)
    )
    found = list(session.scalars(query.where(Revision.number < before) if before else query))
    points = tuple(
        Point(
            r.number,
            r.label,
            r.told,
            r.name or "",
            r.created,
            r.number in line,
            r.number == sheet.head,
        )
        for r in found[:AT_ONCE]
    )
    return Past(sheet.head, points, len(found) > AT_ONCE)


def state(session: Session, person: str, sheet_id: str, number: int) -> Document:
    """The sheet as it was. Raises NotFound where that is not kept."""
    return history.document_at(session, access.owned(session, person, sheet_id), number)


def name(session: Session, person: str, sheet_id: str, number: int, called: str) -> None:
    """Name a point, so that it is found and kept; no name takes the name away."""
    sheet = access.owned(session, person, sheet_id, lock=True)
    called = " ".join(called.split())
    if len(called) > LONGEST:
        raise EditRefused(f"The name of a point has {LONGEST} characters at most.")
    named = select(func.count()).where(Revision.sheet_id == sheet.id, Revision.name.is_not(None))
    if called and (session.scalar(named) or 0) >= MOST_NAMED:
        raise EditRefused(f"A sheet has {MOST_NAMED} named points at most.")
    history.revision_at(session, sheet, number).name = called or None


def go_back(session: Session, person: str, sheet_id: str, base: int, number: int) -> Opened:
    """The sheet as it was, as its newest state: nothing that came since is lost."""
    sheet = access.owned(session, person, sheet_id, lock=True)
    if sheet.head != base:
        raise Conflict(sheet.head)
    then = history.revision_at(session, sheet, number)
    label = f"going back to {f'“{then.name}”' if then.name else f'after {then.label}'}"
    document = history.document_of(session, sheet, then)
    return sheets.change(session, person, sheet_id, base, [Step(label, document)])


def branch(session: Session, person: str, sheet_id: str, number: int) -> Opened:
    """A sheet of its own from a state of the past."""
    return sheets.create(session, person, sheets.copy_of(state(session, person, sheet_id, number)))
