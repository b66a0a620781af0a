"""Wrong passphrases: counted by the name and by where they come from, and waited for.

By the name alone anybody could shut somebody else out; a browser that was signed in before is an
origin of its own, so that its owner goes ahead of a whole school behind one address.
"""

from __future__ import annotations

import hashlib
from datetime import timedelta

from sqlalchemy import delete, func, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from axispath.core.sheet.refused import EditRefused
from axispath.store.models import Attempt

FREE = 5  # wrong passphrases before waiting begins
LONGEST_WAIT = timedelta(minutes=15)
FORGOTTEN = timedelta(days=1)  # after which wrong ones do not count any more


class Wait(EditRefused):
    """Too many wrong ones: the next is not looked at yet."""

    def __init__(self, seconds: int) -> None:
        self.seconds = seconds
        when = f"{seconds} seconds" if seconds < 90 else f"{-(-seconds // 60)} minutes"
        super().__init__(f"Too many wrong passphrases for this name. Try again in {when}.")


def refuse_waiting(session: Session, called: str, origin: str) -> None:
    """Raises Wait where it is too early for another try."""
    until = session.scalar(select(Attempt.until).where(Attempt.called == _key(called, origin)))
    now = session.scalar(select(func.now()))
    if until is not None and now is not None and until > now:
        raise Wait(max(1, round((until - now).total_seconds())))


def count_wrong(session: Session, called: str, origin: str) -> None:
    """One wrong passphrase more; from some on the wait doubles."""
    key = _key(called, origin)
    known = session.get(Attempt, key, with_for_update=True)
    now = session.scalar(select(func.now()))
    assert now is not None
    count = 1 if known is None or known.last < now - FORGOTTEN else known.count + 1
    wait = timedelta(seconds=2 ** min(count - FREE, 10)) if count >= FREE else timedelta(0)
    values = {"count": count, "until": now + min(wait, LONGEST_WAIT), "last": now}
    put = insert(Attempt).values(called=key, **values)
    session.execute(put.on_conflict_do_update(index_elements=[Attempt.called], set_=values))


def forget_wrong(session: Session, called: str, origin: str) -> None:
    """A right one: what was wrong before does not count any more."""
    session.execute(delete(Attempt).where(Attempt.called == _key(called, origin)))


def _key(called: str, origin: str) -> str:
    return hashlib.sha256(f"{called}\n{origin}".encode()).hexdigest()
