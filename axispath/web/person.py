"""Who is asking: so far always the guest of one browser, known by a signed cookie."""

from __future__ import annotations

from flask import current_app, request, session
from sqlalchemy.orm import Session

from axispath.store import sheets
from axispath.store.database import Store


def store() -> Store:
    """The database of the running application."""
    found: Store = current_app.extensions["store"]
    return found


def current_person() -> str | None:
    """The person of this browser, None before the first change."""
    found = session.get("person")
    return found if isinstance(found, str) else None


def guest() -> str:
    """Whose turn it is, where people take turns: a person, else a browser, else an address.

    A browser that has no person yet is known by the token that its page came with.
    """
    person = current_person()
    if person is not None:
        return person
    token = session.get("csrf_token")
    return f"new {token}"[:60] if isinstance(token, str) else f"at {request.remote_addr}"


def person_for_change(database: Session) -> str:
    """The person of this browser, made now if this is the first change."""
    person = current_person()
    if person is not None and sheets.person_exists(database, person):
        return person
    return sheets.new_person(database)


def remember_person(person: str) -> None:
    """Sign the browser's cookie for a person, once what they wanted is stored."""
    session["person"] = person
    session.permanent = True
