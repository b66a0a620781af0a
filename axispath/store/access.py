"""Who may do what with which sheet: asked here, and nowhere else."""

from __future__ import annotations

from collections.abc import Iterable
from enum import StrEnum

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from axispath.capabilities import edits_off, whole
from axispath.core.path.edited import Step
from axispath.core.sheet.refused import EditRefused
from axispath.store import seats
from axispath.store.history import NotFound
from axispath.store.models import Handout, Sheet

TURNED = frozenset(
    (
        *("slide", "move along", "set table", "remove table"),
        *("keep equation", "forget equation", "fold lane", "show lane"),
    )
)
"""The edits of a visitor: of what they look at, not of what is there."""


OWNERS = frozenset(("set question", "remove question", "move question", "set cover", "rename"))
"""The edits that somebody who is examined does not make, whatever is off."""


class Ended(NotFound):
    """A hand-out that was taken back, or whose time is over."""


class Role(StrEnum):
    """What somebody is to a sheet."""

    OWNER = "owner"
    VISITOR = "visitor"


def found(session: Session, person: str | None, sheet_id: str, lock: bool = False) -> Sheet:
    """A sheet for whoever may see it. Raises NotFound and Ended."""
    query = select(Sheet).where(Sheet.id == sheet_id, Sheet.person_id == person)
    sheet = session.scalar(query.with_for_update() if lock else query)
    if sheet is None or person is None:
        raise NotFound
    if role_of(sheet) is Role.VISITOR:
        running(session, str(sheet.handout))
    return sheet


def role_of(sheet: Sheet) -> Role:
    """What its person is to a sheet."""
    return Role.OWNER if sheet.handout is None else Role.VISITOR


def owned(session: Session, person: str | None, sheet_id: str, lock: bool = False) -> Sheet:
    """A sheet of one's own. Raises NotFound for a visitor, too."""
    sheet = found(session, person, sheet_id, lock)
    if role_of(sheet) is not Role.OWNER:
        raise NotFound
    return sheet


def running(session: Session, token: str) -> Handout:
    """A hand-out whose link works. Raises NotFound, and Ended where it did."""
    handout = session.get(Handout, token)
    if handout is None:
        raise NotFound
    now = session.scalar(select(func.now()))
    over = handout.until is not None and now is not None and handout.until <= now
    gone = select(Sheet.deleted).where(Sheet.id == handout.sheet_id)
    if handout.revoked is not None or over or session.scalar(gone) is not None:
        raise Ended
    return handout


def refuse_changes(session: Session, sheet: Sheet, steps: Iterable[Step], moved: str = "") -> None:
    """A visitor turns and tabulates, and changes nothing; somebody who is examined does what is
    not off, until the end. ``moved`` is a way through the history. Raises EditRefused.
    """
    if role_of(sheet) is Role.OWNER:
        return
    seal = seats.seal_of(session, str(sheet.handout))
    if seal is None:
        refuse_visitor(steps)
        return
    steps = list(steps)
    why = seats.closed(session, sheet)
    sitting = seats.of_sheet(session, sheet)
    if why:
        late = sitting.id if sitting is not None and (steps or moved) else ""
        raise seats.Closed(why, late, "a change of the sheet")
    off = edits_off(whole(frozenset(seal.off))) | OWNERS
    if any(step.kind in off for step in steps):
        raise EditRefused("This is switched off here.")
    if sitting is not None:
        for label in [step.label for step in steps] + [moved] * bool(moved):
            seats.record(session, sitting, "changed", label)


def refuse_visitor(steps: Iterable[Step]) -> None:
    """What a visitor may do. Raises EditRefused for everything else."""
    if any(step.kind not in TURNED for step in steps):
        raise EditRefused("This sheet was handed out to look at: take a copy to change it.")
