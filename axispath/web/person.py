"""Who is asking: the guest of one browser or somebody with an account, known by a signed cookie.

The cookie holds a person and a key that the store knows, so that it can be taken back. Whether it
is still good is asked every few seconds; while the store is away, what was known last counts.
"""

from __future__ import annotations

import re
import time
from collections.abc import Callable

from flask import current_app, g, request, session
from sqlalchemy.orm import Session

from axispath.core.memory import Memory
from axispath.store import people
from axispath.store.database import Store, StoreGone
from axispath.store.history import NotFound
from axispath.store.receipts import once
from axispath.store.sheets import Opened

KNOWN = "known"  # what the cookie of a browser that was let in before keeps, whoever is in
FRESH = 5.0  # seconds for which a cookie that was good is taken to be so
BROWSERS = ("Firefox", "Edg", "OPR", "Chromium", "Chrome", "Safari")
SYSTEMS = ("Android", "iPhone", "iPad", "Windows", "Mac OS", "CrOS", "Linux")
_good: Memory[tuple[bool, float]] = Memory(5000)


def store() -> Store:
    """The database of the running application."""
    found: Store = current_app.extensions["store"]
    return found


def current_person() -> str | None:
    """The person of this browser, None before the first change and where it was signed out."""
    found = session.get("person")
    if not isinstance(found, str):
        return None
    if "signed_in" not in g:
        g.signed_in = _is_good(found, own_key())
    return found if g.signed_in else None


def own_person() -> str:
    """The person of this browser. Raises NotFound where there is none: nothing here is theirs."""
    person = current_person()
    if person is None:
        raise NotFound
    return person


def was_signed_out() -> bool:
    """Whether the cookie names somebody, and is not good any more."""
    return isinstance(session.get("person"), str) and current_person() is None


def own_key() -> str:
    """The key in this browser's cookie; empty where there is none."""
    found = session.get("key")
    return found if isinstance(found, str) else ""


def _is_good(person: str, key: str) -> bool:
    cookie = (store().address, person, key)
    known = _good.get(cookie)
    if known is not None and time.monotonic() - known[1] < FRESH:
        return known[0]
    try:
        with store().transaction() as database:
            good = people.is_signed_in(database, person, key)
    except StoreGone:
        if known is None:
            raise
        return known[0]
    _good.keep(cookie, (good, time.monotonic()))
    return good


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
    found = session.get("person")
    if isinstance(found, str) and people.is_signed_in(database, found, own_key()):
        return found
    person = people.new_person(database)
    g.new_key = (person, people.sign_in(database, person, browser()))
    return person


def made_once(database: Session, change: str, work: Callable[[str], Opened]) -> tuple[Opened, str]:
    """What a named change makes for the person of this browser, who is made now if need be.

    A change that is sent again may be the first of this browser, whose answer did not arrive, nor
    its cookie: who knows the name of the change made it, and is that guest.
    """
    found, person = once(database, change, lambda: person_for_change(database), work)
    unknown = "new_key" not in g and "person" not in session
    if unknown and people.account_of(database, person) is None:
        g.new_key = (person, people.sign_in(database, person, browser()))
    return found, person


def remember_person(person: str) -> None:
    """Sign the browser's cookie for a person, once what they wanted is stored."""
    made = g.pop("new_key", None)
    if made is not None and made[0] == person:
        keep_cookie(person, made[1])
    session.permanent = True


def keep_cookie(person: str, key: str) -> None:
    """A cookie that names a person, with the key that the store knows."""
    session["person"], session["key"] = person, key
    session.permanent = True
    g.signed_in = True


def forget_cookie() -> None:
    """A cookie of nobody."""
    _good.keep((store().address, session.get("person"), own_key()), (False, time.monotonic()))
    for name in [name for name in session if name != KNOWN]:
        session.pop(name)
    g.signed_in = False


def browser() -> str:
    """What a browser is called in the list of those that are signed in."""
    told = request.headers.get("User-Agent", "")[:400]
    name = next((one for one in BROWSERS if re.search(rf"\b{one}/", told)), "a browser")
    system = next((one for one in SYSTEMS if one in told), "")
    shown = {"Edg": "Edge", "OPR": "Opera"}.get(name, name)
    return f"{shown} on {system}" if system else shown
