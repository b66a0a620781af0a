"""Long work: asked for by a guest, carried out elsewhere, looked at and fetched."""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from axispath.core.sheet.refused import EditRefused
from axispath.store.history import NotFound
from axispath.store.models import Errand

AT_ONCE = 4  # errands of one guest that are not finished
MOST_BYTES = 64 << 20  # that errands of one guest keep; an ended one keeps what it made alone
KEPT = timedelta(hours=1)
UNFINISHED = ("waiting", "working")


class TooMany(Exception):
    """This guest has asked for as much as is carried out at once."""


@dataclass(frozen=True, slots=True)
class Progress:
    """How far an errand is."""

    state: str
    done: int
    parts: int
    message: str


def begin(session: Session, guest: str, call: bytes) -> str:
    """Ask for work; gives its id. Raises TooMany."""
    own = Errand.guest == guest
    held = func.octet_length(Errand.call) + func.coalesce(func.octet_length(Errand.content), 0)
    kept = select(func.sum(held)).where(own, Errand.created > func.now() - KEPT)
    if unfinished(session, guest) >= AT_ONCE:
        raise TooMany
    if (session.scalar(kept) or 0) + len(call) > MOST_BYTES:
        raise EditRefused("What was made here in the last hour is a lot: fetch it, and wait a bit.")
    errand = Errand(id=secrets.token_hex(16), guest=guest, state="waiting", call=call)
    session.add(errand)
    session.flush()
    return errand.id


def unfinished(session: Session, guest: str) -> int:
    """How many errands of a guest are not finished."""
    running = select(func.count()).where(Errand.guest == guest, Errand.state.in_(UNFINISHED))
    return session.scalar(running) or 0


def progress(session: Session, guest: str, errand_id: str) -> Progress:
    """How far an errand of this guest is. Raises NotFound."""
    found = _find(session, guest, errand_id)
    return Progress(found.state, found.done, found.parts, found.message)


def content(
    session: Session, guest: str, errand_id: str, since: datetime | None = None
) -> tuple[bytes, str]:
    """What an errand of this guest has made, and its type.

    Raises NotFound, and EditRefused for what was asked for before ``since``.
    """
    found = _find(session, guest, errand_id)
    if since is not None and found.created < since:
        raise EditRefused("This was begun before the sealed session: it waits until its end.")
    if found.state != "done" or found.content is None:
        raise NotFound
    return found.content, found.mimetype


def cancel(session: Session, guest: str, errand_id: str) -> None:
    """Give an errand of this guest up."""
    found = _find(session, guest, errand_id)
    if found.state in UNFINISHED:
        found.state = "cancelled"
    found.call, found.content = b"", None


def take(session: Session, errand_id: str) -> tuple[str, bytes] | None:
    """The guest and the work of an errand that is to be carried out now; None for one given up."""
    found = session.get(Errand, errand_id, with_for_update=True)
    if found is None or found.state not in UNFINISHED:
        return None
    found.state, found.done = "working", 0
    return found.guest, found.call


def goes_on(session: Session, errand_id: str, done: int, parts: int) -> bool:
    """Note how far it is; False where it was given up meanwhile."""
    noted = (
        update(Errand)
        .where(Errand.id == errand_id, Errand.state == "working")
        .values(done=done, parts=parts)
    )
    return session.execute(noted.returning(Errand.id)).first() is not None


def finish(
    session: Session, errand_id: str, made: bytes | None, mimetype: str = "", message: str = ""
) -> None:
    """The end of an errand: what was made, or why nothing was."""
    session.execute(
        update(Errand)
        .where(Errand.id == errand_id, Errand.state == "working")
        .values(
            state="failed" if made is None else "done",
            content=made,
            call=b"",
            mimetype=mimetype,
            message=message[:500],
        )
    )


def _find(session: Session, guest: str, errand_id: str) -> Errand:
    found = session.get(Errand, errand_id)
    if found is None or found.guest != guest:
        raise NotFound
    return found
