"""What an address in the API stands for: a blank sheet, a demo sheet or a stored one."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from axispath.core.memory import Memory
from axispath.core.sheet.document import Document
from axispath.demo.harbour import DEMOS
from axispath.store import sheets
from axispath.store.sheets import NotFound, Opened
from axispath.web.person import current_person, store

BLANK = "blank"
DEMO = "demo."
KEPT = 512

_documents: Memory[Document] = Memory(KEPT)
_given: ContextVar[Document | None] = ContextVar("given", default=None)


def opened(key: str) -> Opened:
    """The sheet behind a key, as this browser's person sees it."""
    if key == BLANK:
        return Opened(BLANK, Document(), 0, None, None)
    if key.startswith(DEMO):
        make = DEMOS.get(key.removeprefix(DEMO))
        if make is None:
            raise NotFound
        return Opened(key, make(), 0, None, None)
    with store().transaction() as database:
        found = sheets.open_sheet(database, current_person(), key)
    remember(found)
    return found


def document_at(key: str, head: int) -> Document:
    """The document of a key at a revision. Revisions never change, so they are remembered."""
    at_hand = _given.get()
    if at_hand is not None:
        return at_hand
    known = (key, head, current_person())
    remembered = _documents.get(known)
    if remembered is not None:
        return remembered
    if key == BLANK or key.startswith(DEMO):
        return opened(key).document
    with store().transaction() as database:
        document = sheets.document_of(database, current_person(), key, head)
    _documents.keep(known, document)
    return document


@contextmanager
def given(document: Document | None) -> Iterator[None]:
    """What is asked in here is about this document, which came with the question."""
    token = _given.set(document)
    try:
        yield
    finally:
        _given.reset(token)


def remember(found: Opened) -> None:
    """Keep the document of a sheet at hand for the requests that follow."""
    _documents.keep((found.id, found.head, current_person()), found.document)
