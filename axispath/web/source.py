"""What an address in the API stands for: a blank sheet, a demo, a hand-out or a stored sheet."""

from __future__ import annotations

import time
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from axispath.core.memory import Memory
from axispath.core.sheet.document import Document
from axispath.demo.harbour import DEMOS
from axispath.store import access, handouts, sheets
from axispath.store.sheets import NotFound, Opened
from axispath.web.person import current_person, store

BLANK = "blank"
DEMO = "demo."
LINK = "link."
KEPT = 512
FRESH = 3.0  # seconds for which a link that worked is taken to work

_documents: Memory[tuple[Document, str | None]] = Memory(KEPT)
_running: Memory[float] = Memory(KEPT)
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
        if key.startswith(LINK):
            link = handouts.given(database, key.removeprefix(LINK))
            found = Opened(key, link.document, link.head, None, None, handout=link.token)
        else:
            found = sheets.open_sheet(database, current_person(), key)
    remember(found)
    return found


def document_at(key: str, head: int) -> Document:
    """The document of a key at a revision. Revisions never change, so they are remembered.

    A hand-out may end while its page is open: that is asked again every few seconds.
    """
    at_hand = _given.get()
    if at_hand is not None:
        return at_hand
    document = _remembered_at(key, head)
    if document.cover.on and is_stored(key):
        # What was found is not part of the history: it may have changed in another process.
        with store().transaction() as database:
            found = sheets.found_on(database, current_person(), key)
        document = sheets.with_found(document, found)
    return document


def is_stored(key: str) -> bool:
    """Whether a key is that of a stored sheet."""
    return key != BLANK and not key.startswith((DEMO, LINK))


def _remembered_at(key: str, head: int) -> Document:
    known = (key, head, current_person())
    remembered = _documents.get(known)
    if remembered is not None:
        document, handout = remembered
        if handout is not None:
            _refuse_ended(handout)
        return document
    if key == BLANK or key.startswith(DEMO):
        return opened(key).document
    handout = None
    with store().transaction() as database:
        if key.startswith(LINK):
            link = handouts.given(database, key.removeprefix(LINK), head)
            document, handout = link.document, link.token
        else:
            document = sheets.document_of(database, current_person(), key, head)
            handout = access.found(database, current_person(), key).handout
    _documents.keep(known, (document, handout))
    return document


def _refuse_ended(token: str) -> None:
    which = (store().address, token)
    asked = _running.get(which)
    if asked is not None and time.monotonic() - asked < FRESH:
        return
    with store().transaction() as database:
        access.running(database, token)
    _running.keep(which, time.monotonic())


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
    _documents.keep((found.id, found.head, current_person()), (found.document, found.handout))
