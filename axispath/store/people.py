"""People: guests, accounts, and the browsers that they are signed in with.

Nothing secret is kept as it is: passphrases by Argon2, keys of cookies and recovery codes by
SHA-256, since those are long and made at random.
"""

from __future__ import annotations

import hashlib
import re
import secrets
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cache
from typing import TypeVar

from pwdlib import PasswordHash
from sqlalchemy import delete, func, select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from axispath.core.sheet.refused import EditRefused
from axispath.store import seats
from axispath.store.attempts import count_wrong, forget_wrong, refuse_waiting
from axispath.store.models import (
    Account,
    Letter,
    Person,
    Receipt,
    RecoveryCode,
    Sheet,
    SignIn,
    Sitting,
)

SEEN = timedelta(days=1)  # how exactly it is known when somebody was last here
SHORTEST, LONGEST = 10, 200  # characters of a passphrase
LONGEST_NAME = 60
CODES = 8  # recovery codes of an account
MOST_BROWSERS = 40
LETTER = timedelta(hours=1)  # for which the link of a letter works
MOST_LETTERS = 3  # of an account in that time
MAIL = re.compile(r"[^\s@<>,;:\"\\]{1,64}@[A-Za-z0-9-]{1,63}(?:\.[A-Za-z0-9-]{1,63}){1,8}")
T = TypeVar("T")
_hasher = PasswordHash.recommended()


@cache
def _nobody(hasher: PasswordHash) -> str:
    """Compared with where a name is not known, so that this takes as long."""
    return hasher.hash(secrets.token_hex(16))


class Wrong(EditRefused):
    """Name and passphrase do not go together; no more is said than that."""

    def __init__(self, message: str = "This name and this passphrase do not go together.") -> None:
        super().__init__(message)


@dataclass(frozen=True, slots=True)
class Browser:
    """A browser that somebody is signed in with."""

    number: int
    called: str
    created: datetime
    seen: datetime
    here: bool


def attempted(work: Callable[[], T]) -> T | Wrong:
    """What some work gives, or that something was wrong: what was counted of it is to be kept."""
    try:
        return work()
    except Wrong as wrong:
        return wrong


# Browsers


def new_person(session: Session) -> str:
    """A person for a browser that has made its first change."""
    person = Person(id=secrets.token_hex(16))
    session.add(person)
    session.flush()
    return person.id


def sign_in(session: Session, person: str, browser: str) -> str:
    """A key for the cookie of a browser. The oldest of very many is signed out."""
    key = secrets.token_urlsafe(24)
    session.add(SignIn(key=_digest(key), person_id=person, browser=browser[:80]))
    session.flush()
    older = (
        select(SignIn.key)
        .where(SignIn.person_id == person)
        .order_by(SignIn.number.desc())
        .offset(MOST_BROWSERS)
    )
    session.execute(delete(SignIn).where(SignIn.key.in_(older)))
    return key


def is_signed_in(session: Session, person: str, key: str) -> bool:
    """Whether a cookie is still good: one without a key, from before, until its first visit."""
    if not key:
        return bool(session.scalar(select(Person.unkeyed).where(Person.id == person)))
    found = select(SignIn.number).where(SignIn.key == _digest(key), SignIn.person_id == person)
    return session.scalar(found) is not None


def keyed(session: Session, person: str, browser: str) -> str | None:
    """A key in the place of a cookie that has none; None where that was done already."""
    done = update(Person).where(Person.id == person, Person.unkeyed).values(unkeyed=False)
    if session.scalar(done.returning(Person.id)) is None:
        return None
    return sign_in(session, person, browser)


def was_here(session: Session, person: str, key: str = "") -> None:
    """Note that a person is here, and with which browser, once a day."""
    for row in (Person, SignIn):
        which = Person.id == person if row is Person else SignIn.key == _digest(key)
        session.execute(
            update(row).where(which, row.seen < func.now() - SEEN).values(seen=func.now())
        )


def browsers(session: Session, person: str, key: str) -> list[Browser]:
    """Where somebody is signed in, the newest first."""
    found = session.scalars(
        select(SignIn).where(SignIn.person_id == person).order_by(SignIn.number.desc())
    )
    here = _digest(key)
    return [Browser(s.number, s.browser, s.created, s.seen, s.key == here) for s in found]


def sign_out(session: Session, person: str, key: str) -> None:
    """Sign a browser out."""
    session.execute(delete(SignIn).where(SignIn.person_id == person, SignIn.key == _digest(key)))


def sign_out_one(session: Session, person: str, number: int) -> None:
    """Sign out one of the browsers in the list."""
    session.execute(delete(SignIn).where(SignIn.person_id == person, SignIn.number == number))


def sign_out_others(session: Session, person: str, key: str) -> None:
    """Sign out every browser but this one."""
    session.execute(delete(SignIn).where(SignIn.person_id == person, SignIn.key != _digest(key)))


# Accounts


def account_of(session: Session, person: str) -> Account | None:
    """The account of a person; None for a guest."""
    return session.get(Account, person)


def register(session: Session, person: str, name: str, passphrase: str) -> list[str]:
    """Make a guest somebody with an account. Gives the recovery codes, which are shown once."""
    shown = _name(name)
    _check_passphrase(passphrase, shown)
    if account_of(session, person) is not None:
        raise EditRefused("You are signed in already.")
    made = insert(Account).values(
        person_id=person,
        name=shown,
        called=_called(shown),
        passphrase=_hasher.hash(passphrase),
    )
    done = made.on_conflict_do_nothing(index_elements=[Account.called])
    if session.execute(done.returning(Account.person_id)).first() is None:
        raise EditRefused("This name is taken. Choose another, or sign in with it.")
    return new_codes(session, person)


def let_in(
    session: Session, name: str, passphrase: str, guest: str | None, origin: str = ""
) -> str:
    """The person whose name and passphrase these are; a guest's sheets come along.

    ``origin`` is the address or the known browser that asks.
    Raises Wrong and Wait; what was wrong is counted, so keep the transaction although they came.
    """
    called = _called(name)
    refuse_waiting(session, called, origin)
    account = session.scalar(select(Account).where(Account.called == called))
    nobody = _nobody(_hasher)
    good, renewed = _hasher.verify_and_update(
        passphrase[:LONGEST], account.passphrase if account is not None else nobody
    )
    if account is None or not good:
        count_wrong(session, called, origin)
        raise Wrong
    if renewed:
        account.passphrase = renewed
    forget_wrong(session, called, origin)
    _bring_along(session, guest, account.person_id)
    return account.person_id


def let_in_by_code(
    session: Session, name: str, code: str, passphrase: str, guest: str | None
) -> str:
    """The same by a recovery code, which is used up, with a new passphrase.

    Nobody waits for it: it is long and made at random. Every browser is signed out:
    whoever had the old passphrase is not in any more.
    """
    called = _called(name)
    _check_passphrase(passphrase, name)
    account = session.scalar(select(Account).where(Account.called == called))
    used = None
    if account is not None:
        which = (RecoveryCode.person_id == account.person_id) & (
            RecoveryCode.code == _digest(_plain_code(code))
        )
        used = session.scalar(delete(RecoveryCode).where(which).returning(RecoveryCode.id))
    if account is None or used is None:
        raise Wrong("This name and this code do not go together, or the code was used.")
    account.passphrase = _hasher.hash(passphrase)
    session.execute(delete(SignIn).where(SignIn.person_id == account.person_id))
    _bring_along(session, guest, account.person_id)
    return account.person_id


def set_mail(session: Session, person: str, passphrase: str, address: str) -> None:
    """Where a letter is sent if the passphrase is forgotten; nowhere where it is empty."""
    account = confirm(session, person, passphrase)
    address = address.strip()
    if address and (len(address) > 200 or not MAIL.fullmatch(address)):
        raise EditRefused("This is no mail address.")
    account.mail = address or None


def letter(session: Session, name: str) -> tuple[str, str] | None:
    """The address of a letter and what its link has; None where none is to be sent."""
    account = session.scalar(select(Account).where(Account.called == _called(name)))
    if account is None or account.mail is None:
        return None
    recent = select(func.count()).where(
        Letter.person_id == account.person_id, Letter.created > func.now() - LETTER
    )
    if (session.scalar(recent) or 0) >= MOST_LETTERS:
        return None
    token = secrets.token_urlsafe(24)
    session.add(Letter(token=_digest(token), person_id=account.person_id))
    return account.mail, token


def let_in_by_letter(session: Session, token: str, passphrase: str, guest: str | None) -> str:
    """The person of a letter, once, with a new passphrase; every browser is signed out."""
    found = session.get(Letter, _digest(token))
    now = session.scalar(select(func.now()))
    if found is None or now is None or found.created < now - LETTER:
        raise EditRefused("This letter was used, or is older than an hour: ask for another.")
    account = session.get_one(Account, found.person_id)
    _check_passphrase(passphrase, account.name)
    account.passphrase = _hasher.hash(passphrase)
    for row in (Letter, SignIn):
        session.execute(delete(row).where(row.person_id == account.person_id))
    _bring_along(session, guest, account.person_id)
    return account.person_id


def confirm(session: Session, person: str, passphrase: str) -> Account:
    """The account of a person who shows that it is they. Raises Wrong and Wait."""
    account = account_of(session, person)
    if account is None:
        raise EditRefused("There is no account here; it may have been deleted in another window.")
    let_in(session, account.name, passphrase, None, f"person {person}")
    return account


def change_passphrase(session: Session, person: str, key: str, old: str, new: str) -> None:
    """Another passphrase; every other browser is signed out."""
    account = confirm(session, person, old)
    _check_passphrase(new, account.name)
    account.passphrase = _hasher.hash(new)
    sign_out_others(session, person, key)


def new_codes(session: Session, person: str) -> list[str]:
    """New recovery codes in the place of all older ones."""
    session.execute(delete(RecoveryCode).where(RecoveryCode.person_id == person))
    codes = ["-".join(secrets.token_hex(2) for _ in range(4)) for _ in range(CODES)]
    session.add_all(RecoveryCode(person_id=person, code=_digest(_plain_code(c))) for c in codes)
    session.flush()
    return codes


def remove(session: Session, person: str, passphrase: str) -> None:
    """Delete an account with all it holds."""
    confirm(session, person, passphrase)
    seats.release_all_of(session, person)
    session.execute(delete(Person).where(Person.id == person))


def _bring_along(session: Session, guest: str | None, person: str) -> None:
    """The sheets of a guest become those of the person that the guest turned out to be.

    What both have sat for stays with the guest: one may be handed in, and the other not.
    """
    if guest is None or guest == person or account_of(session, guest) is not None:
        return
    sat = select(Sitting.handout).where(Sitting.person_id == person)
    twice = list(
        session.scalars(
            select(Sitting.handout).where(Sitting.person_id == guest, Sitting.handout.in_(sat))
        )
    )
    session.execute(
        update(Sitting)
        .where(Sitting.person_id == guest, Sitting.handout.not_in(twice))
        .values(person_id=person)
    )
    session.execute(
        update(Sheet)
        .where(Sheet.person_id == guest, Sheet.handout.is_(None) | Sheet.handout.not_in(twice))
        .values(person_id=person)
    )
    session.execute(update(Receipt).where(Receipt.person_id == guest).values(person_id=person))
    if not twice:
        session.execute(delete(Person).where(Person.id == guest))


def _name(name: str) -> str:
    shown = " ".join(unicodedata.normalize("NFC", name).split())
    if not 2 <= len(shown) <= LONGEST_NAME or any(
        unicodedata.category(sign)[0] == "C" for sign in shown
    ):
        raise EditRefused(f"A name has 2 to {LONGEST_NAME} letters, digits or signs.")
    return shown


def _called(name: str) -> str:
    """A name as names are compared: what looks alike is one."""
    seen = "".join(sign for sign in name if unicodedata.category(sign)[0] != "C")
    return " ".join(unicodedata.normalize("NFKC", seen).casefold().split())[:80]


def _check_passphrase(passphrase: str, name: str) -> None:
    if len(passphrase) < SHORTEST:
        raise EditRefused(f"A passphrase has {SHORTEST} characters or more: some words, say.")
    if len(passphrase) > LONGEST:
        raise EditRefused(f"A passphrase has {LONGEST} characters at most.")
    if _called(passphrase) == _called(name) or len(set(passphrase)) < 4:
        raise EditRefused("This passphrase is too easy to guess. Take a few words.")


def _plain_code(code: str) -> str:
    return "".join(sign for sign in code.lower() if sign.isalnum())


def _digest(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()
