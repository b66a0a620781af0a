"""The tables.

A sheet's history is a tree of revisions, each a document, packed (see packing.py) against the
snapshot ``base`` or, where that is null, a snapshot itself. ``Sheet.head`` is the revision that
the sheet shows; undo moves it to the parent, redo to the newest child. The view travels beside
the history, so that undoing an edit does not move the picture. ``Sheet.weight`` are the bytes
of its history.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import (
    BigInteger,
    DateTime,
    ForeignKey,
    Identity,
    Index,
    LargeBinary,
    String,
    Text,
    UniqueConstraint,
    false,
    func,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Base of all tables."""


class Person(Base):
    """Somebody with a shelf: the guest of one browser, or somebody with an account.

    One who is ``unkeyed`` has the cookie of an older version, which has no key yet.
    """

    __tablename__ = "person"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )
    seen: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    unkeyed: Mapped[bool] = mapped_column(nullable=False, default=False, server_default=false())


class SignIn(Base):
    """A browser that somebody is signed in with; ``key`` is the digest of what its cookie has."""

    __tablename__ = "sign_in"

    key: Mapped[str] = mapped_column(String(64), primary_key=True)
    number: Mapped[int] = mapped_column(BigInteger, Identity(), unique=True, nullable=False)
    person_id: Mapped[str] = mapped_column(
        ForeignKey("person.id", ondelete="CASCADE"), nullable=False
    )
    browser: Mapped[str] = mapped_column(String(80), nullable=False, default="", server_default="")
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )
    seen: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    __table_args__ = (Index("sign_in_person", "person_id"),)


class Account(Base):
    """A name and a passphrase; ``called`` is the name as names are compared."""

    __tablename__ = "account"

    person_id: Mapped[str] = mapped_column(
        ForeignKey("person.id", ondelete="CASCADE"), primary_key=True
    )
    name: Mapped[str] = mapped_column(String(80), nullable=False)
    called: Mapped[str] = mapped_column(String(80), nullable=False, unique=True)
    passphrase: Mapped[str] = mapped_column(String(200), nullable=False)
    mail: Mapped[str | None] = mapped_column(String(200))
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )


class RecoveryCode(Base):
    """The digest of a code that replaces the passphrase once."""

    __tablename__ = "recovery_code"

    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    person_id: Mapped[str] = mapped_column(
        ForeignKey("person.id", ondelete="CASCADE"), nullable=False
    )
    code: Mapped[str] = mapped_column(String(64), nullable=False)

    __table_args__ = (Index("recovery_code_person", "person_id"),)


class Letter(Base):
    """A letter with a link for a new passphrase; ``token`` is the digest of what the link has."""

    __tablename__ = "letter"

    token: Mapped[str] = mapped_column(String(64), primary_key=True)
    person_id: Mapped[str] = mapped_column(
        ForeignKey("person.id", ondelete="CASCADE"), nullable=False
    )
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    __table_args__ = (Index("letter_person", "person_id"),)


class Attempt(Base):
    """Wrong passphrases for a name, whether there is such an account or not."""

    __tablename__ = "attempt"

    called: Mapped[str] = mapped_column(String(64), primary_key=True)
    count: Mapped[int] = mapped_column(nullable=False)
    until: Mapped[datetime] = mapped_column(DateTime(timezone=True), nullable=False)
    last: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )


class Sheet(Base):
    """A sheet of one person; with a ``handout`` what a visitor of that one turns and tabulates.

    ``found`` are the covered landmarks that were found, whatever is undone since. ``labels`` are
    its person's own, each between bars; ``summary`` says in a line what is on it, ``content`` is
    what is searched.
    """

    __tablename__ = "sheet"

    id: Mapped[str] = mapped_column(String(16), primary_key=True)
    person_id: Mapped[str | None] = mapped_column(
        ForeignKey("person.id", ondelete="CASCADE"), nullable=True
    )
    demo: Mapped[str | None] = mapped_column(String(40), unique=True)
    name: Mapped[str] = mapped_column(String(200), nullable=False)
    head: Mapped[int] = mapped_column(nullable=False)
    view: Mapped[dict[str, Any]] = mapped_column(JSONB, nullable=False)
    weight: Mapped[int] = mapped_column(BigInteger, nullable=False, default=0, server_default="0")
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )
    changed: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )
    deleted: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))
    handout: Mapped[str | None] = mapped_column(ForeignKey("handout.token", ondelete="CASCADE"))
    labels: Mapped[str] = mapped_column(String(300), nullable=False, default="", server_default="")
    summary: Mapped[str] = mapped_column(String(200), nullable=False, default="", server_default="")
    content: Mapped[str] = mapped_column(Text, nullable=False, default="", server_default="")
    found: Mapped[list[Any]] = mapped_column(
        JSONB, nullable=False, default=list, server_default="[]"
    )

    __table_args__ = (
        Index("sheet_shelf", "person_id", "changed"),
        Index("sheet_handout", "handout"),
    )


class Handout(Base):
    """A link under which others see a sheet.

    With a ``number`` it stays at that revision, else it follows the sheet. ``shows`` says which
    lanes and pages are seen, and whether landmarks are covered and other pages may frame it.
    """

    __tablename__ = "handout"

    token: Mapped[str] = mapped_column(String(32), primary_key=True)
    sheet_id: Mapped[str] = mapped_column(
        ForeignKey("sheet.id", ondelete="CASCADE", use_alter=True), nullable=False
    )
    number: Mapped[int | None] = mapped_column()
    shows: Mapped[dict[str, Any]] = mapped_column(JSONB, nullable=False)
    until: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))
    revoked: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    __table_args__ = (Index("handout_sheet", "sheet_id"),)


class Sitting(Base):
    """Somebody who answers on a hand-out, under a name of their choice.

    Of a sealed one it runs from ``started`` to ``ended``, with ``extra`` minutes for themselves;
    ``locked`` is what a managing device last reported, None where none does.
    """

    __tablename__ = "sitting"

    id: Mapped[str] = mapped_column(String(24), primary_key=True)
    handout: Mapped[str] = mapped_column(
        ForeignKey("handout.token", ondelete="CASCADE"), nullable=False
    )
    person_id: Mapped[str | None] = mapped_column(ForeignKey("person.id", ondelete="SET NULL"))
    sheet_id: Mapped[str | None] = mapped_column(ForeignKey("sheet.id", ondelete="SET NULL"))
    name: Mapped[str] = mapped_column(String(60), nullable=False)
    extra: Mapped[int] = mapped_column(nullable=False, default=0, server_default="0")
    away: Mapped[bool] = mapped_column(nullable=False, default=False, server_default=false())
    locked: Mapped[bool | None] = mapped_column()
    started: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )
    seen: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )
    ended: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))

    __table_args__ = (
        Index("sitting_handout", "handout"),
        Index("sitting_person", "person_id"),
    )


class Reply(Base):
    """An answer to a ``question``, or a guess at what is covered where that is empty; never undone.

    ``change`` is the name that the page gave it, so that one sent twice is one.
    """

    __tablename__ = "reply"

    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    sheet_id: Mapped[str | None] = mapped_column(ForeignKey("sheet.id", ondelete="SET NULL"))
    sitting_id: Mapped[str | None] = mapped_column(ForeignKey("sitting.id", ondelete="CASCADE"))
    question: Mapped[str] = mapped_column(String(12), nullable=False)
    text: Mapped[str] = mapped_column(Text, nullable=False)
    verdict: Mapped[str] = mapped_column(String(10), nullable=False)
    words: Mapped[list[str]] = mapped_column(JSONB, nullable=False)
    found: Mapped[list[Any]] = mapped_column(
        JSONB, nullable=False, default=list, server_default="[]"
    )
    change: Mapped[str | None] = mapped_column(String(64), unique=True)
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    __table_args__ = (
        Index("reply_sheet", "sheet_id"),
        Index("reply_sitting", "sitting_id"),
    )


class Entry(Base):
    """An entry of the record of a sitting; ``hash`` is over it and the hash ``before``."""

    __tablename__ = "entry"

    sitting_id: Mapped[str] = mapped_column(
        ForeignKey("sitting.id", ondelete="CASCADE"), primary_key=True
    )
    number: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[str] = mapped_column(String(40), nullable=False)
    kind: Mapped[str] = mapped_column(String(20), nullable=False)
    detail: Mapped[str] = mapped_column(String(300), nullable=False)
    before: Mapped[str] = mapped_column(String(64), nullable=False)
    hash: Mapped[str] = mapped_column(String(64), nullable=False)


class Revision(Base):
    """One document in the history of a sheet. ``label`` says what led to it, ``told`` what it
    changed in the mathematics.

    One that is ``joined`` was overtaken by the next, and is kept for a while only; one with a
    ``name`` is a point to go back to, and stays.
    """

    __tablename__ = "revision"

    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    sheet_id: Mapped[str] = mapped_column(
        ForeignKey("sheet.id", ondelete="CASCADE"), nullable=False
    )
    number: Mapped[int] = mapped_column(nullable=False)
    parent: Mapped[int | None] = mapped_column()
    label: Mapped[str] = mapped_column(String(200), nullable=False)
    told: Mapped[str] = mapped_column(String(300), nullable=False, default="", server_default="")
    base: Mapped[int | None] = mapped_column()
    body: Mapped[bytes] = mapped_column(LargeBinary, nullable=False)
    joined: Mapped[bool] = mapped_column(nullable=False, default=False, server_default=false())
    name: Mapped[str | None] = mapped_column(String(80))
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    __table_args__ = (UniqueConstraint("sheet_id", "number", name="revision_number"),)


class Receipt(Base):
    """A change that was carried out, by the name that its page gave it."""

    __tablename__ = "receipt"

    change: Mapped[str] = mapped_column(String(64), primary_key=True)
    person_id: Mapped[str | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    sheet_id: Mapped[str | None] = mapped_column(ForeignKey("sheet.id", ondelete="CASCADE"))
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    __table_args__ = (Index("receipt_created", "created"),)


class Errand(Base):
    """Long work that was asked for, how far it is, and in the end what was made.

    ``state`` is waiting, working, done, failed or cancelled; ``call`` is the pickled work.
    """

    __tablename__ = "errand"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    guest: Mapped[str] = mapped_column(String(80), nullable=False)
    state: Mapped[str] = mapped_column(String(12), nullable=False)
    done: Mapped[int] = mapped_column(nullable=False, default=0, server_default="0")
    parts: Mapped[int] = mapped_column(nullable=False, default=1, server_default="1")
    call: Mapped[bytes] = mapped_column(LargeBinary, nullable=False)
    mimetype: Mapped[str] = mapped_column(String(80), nullable=False, default="", server_default="")
    message: Mapped[str] = mapped_column(String(500), nullable=False, default="", server_default="")
    content: Mapped[bytes | None] = mapped_column(LargeBinary, deferred=True)
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )

    __table_args__ = (
        Index("errand_guest", "guest", "state"),
        Index("errand_created", "created"),
    )


class Content(Base):
    """A long column of numbers, compressed, known by its digest."""

    __tablename__ = "content"

    digest: Mapped[str] = mapped_column(String(64), primary_key=True)
    body: Mapped[bytes] = mapped_column(LargeBinary, nullable=False)
    created: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), nullable=False
    )


class SheetContent(Base):
    """Which columns some revision of a sheet needs."""

    __tablename__ = "sheet_content"

    sheet_id: Mapped[str] = mapped_column(
        ForeignKey("sheet.id", ondelete="CASCADE"), primary_key=True
    )
    digest: Mapped[str] = mapped_column(String(64), primary_key=True)

    __table_args__ = (Index("sheet_content_digest", "digest"),)
