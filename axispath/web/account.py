"""The page Account: made by choice, signed in from several browsers, taken away and deleted."""

from __future__ import annotations

import secrets
from collections.abc import Callable
from typing import TypeVar

from flask import Blueprint, g, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue
from sqlalchemy.orm import Session

from axispath import letters
from axispath.core.sheet.refused import EditRefused
from axispath.store import people
from axispath.store.attempts import Wait
from axispath.store.people import LONGEST, LONGEST_NAME, SHORTEST, Wrong
from axispath.web.limits import network
from axispath.web.person import (
    KNOWN,
    browser,
    current_person,
    forget_cookie,
    keep_cookie,
    own_key,
    person_for_change,
    store,
)

T = TypeVar("T")
ANOTHER = "The passphrase is another one."
blueprint = Blueprint("account", __name__, url_prefix="/account")


@blueprint.get("")
def page() -> ResponseReturnValue:
    """The account, or how to make one."""
    return _page()


def _page(
    trouble: str = "",
    at: str = "",
    codes: list[str] | None = None,
    told: str = "",
    letter: str = "",
) -> str:
    """``trouble`` stands in the form ``at``; ``codes`` are shown this once.

    ``letter`` is what the link of one has that led here.
    """
    person = current_person()
    account, signed_in = None, []
    if person is not None:
        with store().transaction() as database:
            account = people.account_of(database, person)
            signed_in = people.browsers(database, person, own_key()) if account else []
    return render_template(
        "account.html",
        account=account,
        browsers=signed_in,
        trouble=trouble,
        at=at,
        codes=codes,
        told=told,
        letter=letter,
        letters=letters.configured(),
        typed=request.form.get("name", ""),
        shortest=SHORTEST,
        longest=LONGEST,
        longest_name=LONGEST_NAME,
    )


@blueprint.post("/<action>")
def act(action: str) -> ResponseReturnValue:
    """One of the forms."""
    work = ACTS.get(action)
    if work is None:
        return redirect(url_for("account.page"))
    try:
        return work()
    except Wait as wait:
        return _page(str(wait), action), 429, {"Retry-After": str(wait.seconds)}
    except EditRefused as refused:
        return _page(refused.message, action), 422


def _field(name: str) -> str:
    return request.form.get(name, "")[: LONGEST + 1]


def _make() -> ResponseReturnValue:
    with store().transaction() as database:
        person = person_for_change(database)
        codes = people.register(database, person, _field("name"), _field("passphrase"))
        key = people.sign_in(database, person, browser())
        people.sign_out_others(database, person, key)
    g.pop("new_key", None)
    _rotate(person, key)
    return _page(codes=codes)


def _counted(work: Callable[[Session], T], wrong: str = "") -> T:
    """What some work with a passphrase gives. Raises Wrong, with what was counted of it kept."""
    with store().transaction() as database:
        found = people.attempted(lambda: work(database))
    if isinstance(found, Wrong):
        raise Wrong(wrong) if wrong else found
    return found


def _signed_in(database: Session, person: str) -> tuple[str, str]:
    return person, people.sign_in(database, person, browser())


def _enter() -> ResponseReturnValue:
    def work(database: Session) -> tuple[str, str]:
        given = _field("name"), _field("passphrase"), current_person(), _origin()
        return _signed_in(database, people.let_in(database, *given))

    _rotate(*_counted(work))
    return redirect(url_for("pages.shelf"))


def _recover() -> ResponseReturnValue:
    def work(database: Session) -> tuple[str, str]:
        given = _field("name"), _field("code"), _field("passphrase"), current_person()
        return _signed_in(database, people.let_in_by_code(database, *given))

    _rotate(*_counted(work))
    return redirect(url_for("account.page"))


def _ask_letter() -> ResponseReturnValue:
    """The same answer for every name, known or not, with a mail address or without."""
    if letters.configured():
        with store().transaction() as database:
            found = people.letter(database, _field("name"))
        if found is not None:
            address, token = found
            link = url_for("account.by_letter", token=token, _external=True)
            text = (
                f"Somebody, you perhaps, asked for a new passphrase. Within an hour:\n\n{link}\n\n"
                "If it was not you, there is nothing to do.\n"
            )
            letters.send(address, "A new passphrase for Axis Path", text)
    return _page(told="If there is such an account with a mail address, a letter is on its way.")


@blueprint.get("/letter/<token>")
def by_letter(token: str) -> ResponseReturnValue:
    """Where the link of a letter leads."""
    return _page(letter=token)


def _use_letter() -> ResponseReturnValue:
    token = _field("token")
    try:
        with store().transaction() as database:
            person, key = _signed_in(
                database,
                people.let_in_by_letter(database, token, _field("passphrase"), current_person()),
            )
    except EditRefused as refused:
        return _page(refused.message, "use-letter", letter=token), 422
    _rotate(person, key)
    return redirect(url_for("account.page"))


def _mail() -> ResponseReturnValue:
    person = _mine()
    given = _field("passphrase"), _field("mail")
    _counted(lambda database: people.set_mail(database, person, *given), ANOTHER)
    return redirect(url_for("account.page"))


def _rotate(person: str, key: str) -> None:
    """Another cookie: the one of before opens nothing any more."""
    forget_cookie()
    keep_cookie(person, key)
    # This browser is known from now on, whoever else tries the name from its address.
    session.setdefault(KNOWN, secrets.token_hex(8))


def _origin() -> str:
    """Where a passphrase comes from: a browser that was let in before, else a network."""
    known = session.get(KNOWN)
    return f"browser {known}" if known else f"at {network(request.remote_addr or '')}"


def _mine() -> str:
    person = current_person()
    if person is None:
        raise EditRefused("You are signed out in this browser.")
    return person


def _leave() -> ResponseReturnValue:
    with store().transaction() as database:
        people.sign_out(database, _mine(), own_key())
    forget_cookie()
    return redirect(url_for("account.page"))


def _leave_everywhere() -> ResponseReturnValue:
    with store().transaction() as database:
        people.sign_out_others(database, _mine(), "")
    forget_cookie()
    return redirect(url_for("account.page"))


def _leave_one() -> ResponseReturnValue:
    number = request.form.get("number", "", type=str)
    with store().transaction() as database:
        people.sign_out_one(database, _mine(), int(number) if number.isdigit() else 0)
    return redirect(url_for("account.page"))


def _change() -> ResponseReturnValue:
    person = _mine()
    given = own_key(), _field("old"), _field("passphrase")
    _counted(
        lambda database: people.change_passphrase(database, person, *given),
        "The passphrase of now is another one.",
    )
    return redirect(url_for("account.page"))


def _codes() -> ResponseReturnValue:
    person = _mine()

    def work(database: Session) -> list[str]:
        people.confirm(database, person, _field("passphrase"))
        return people.new_codes(database, person)

    return _page(codes=_counted(work, ANOTHER))


def _delete() -> ResponseReturnValue:
    person = _mine()
    _counted(lambda database: people.remove(database, person, _field("passphrase")), ANOTHER)
    forget_cookie()
    return redirect(url_for("pages.shelf"))


ACTS: dict[str, Callable[[], ResponseReturnValue]] = {
    "make": _make,
    "enter": _enter,
    "recover": _recover,
    "ask-letter": _ask_letter,
    "use-letter": _use_letter,
    "mail": _mail,
    "leave": _leave,
    "leave-everywhere": _leave_everywhere,
    "leave-one": _leave_one,
    "change": _change,
    "codes": _codes,
    "delete": _delete,
}
