"""Changes that were carried out, so that one sent again is not carried out again.

A page that got no answer cannot know whether its change arrived. It sends the same change with
the same name; the name is made at random by the page and told to nobody else.
"""

from __future__ import annotations

from collections.abc import Callable

from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from axispath.store.models import Receipt
from axispath.store.sheets import NotFound, Opened, open_sheet


def once(
    session: Session, change: str, person: Callable[[], str], work: Callable[[str], Opened]
) -> tuple[Opened, str]:
    """What ``work`` makes of a sheet for a person, or what it made of it the first time.

    ``person`` gives who asks, and may make them. Gives the sheet and its person. Of two at the
    same time the second waits for the first.
    """
    if not change:
        mine = person()
        return work(mine), mine
    noted = insert(Receipt).values(change=change).on_conflict_do_nothing()
    if session.execute(noted.returning(Receipt.change)).first() is None:
        return _again(session, change)
    mine = person()
    found = work(mine)
    receipt = session.get_one(Receipt, change)
    receipt.person_id, receipt.sheet_id = mine, found.id
    session.flush()
    return found, mine


def carried_out(session: Session, change: str) -> Opened | None:
    """The sheet of a change that was carried out; None where it was not yet."""
    receipt = session.get(Receipt, change)
    if receipt is None or receipt.person_id is None or receipt.sheet_id is None:
        return None
    return open_sheet(session, receipt.person_id, receipt.sheet_id)


def _again(session: Session, change: str) -> tuple[Opened, str]:
    found = carried_out(session, change)
    if found is None:
        raise NotFound
    return found, session.get_one(Receipt, change).person_id or ""
