"""What computes, as it runs behind the wall: in a process that can be ended at any time.

It knows the templates and the sentences of the application, and no person and no database. Where
there is no broker the web process itself calls it.
"""

from __future__ import annotations

import io
from collections.abc import Callable, Sequence
from contextlib import ExitStack, suppress
from functools import cache
from typing import Any

from flask import Flask, Response, current_app, has_app_context

from axispath.budgets import FIRST_PICTURE, FRAMING
from axispath.clock import spent
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.path.edited import Step, edited
from axispath.core.practice.kinds import ASKED
from axispath.core.sampling.kinds import DRAWN
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import Edit, SetQuestion
from axispath.core.sheet.resolve import resolve
from axispath.web import present
from axispath.web.picture import encoded_picture, frame_of
from axispath.web.source import given
from axispath.work.protocol import NAMED, PARTS, TOO_LONG, Cut, Passing

USUAL_SIZE = 900, 560  # pixels
MOST_AT_ONCE = 24  # lanes whose curves come with a page
LARGEST_AT_ONCE = 100_000  # bytes of them
UNFINISHED = "X-Unfinished"  # a header in here: the same question may be answered better later

KEPT = ("Content-Type", PARTS, NAMED)  # headers that go on to whoever asked
Route = Callable[..., Response]
VIEWS: dict[str, Route] = {}
"""The routes that are carried out in here, by name."""


@cache
def application() -> Flask:
    """The application as a worker has it."""
    from axispath.web.app import create_inside

    return create_inside()


def answered_view(
    name: str, at: dict[str, Any], data: bytes, document: Document | None, seconds: float
) -> Any:
    """What a route answers: its status, the headers worth keeping, and its content."""
    with ExitStack() as around:
        app = _entered(around)
        around.enter_context(app.request_context(_environment(data)))
        around.enter_context(given(document))
        around.enter_context(limited(Patience(seconds, spent)))
        try:
            response = app.make_response(VIEWS[name](**at))
        except Exception as error:
            response = app.make_response(app.handle_user_exception(error))
        # What may come out better another time is not remembered.
        unfinished = response.headers.pop(UNFINISHED, None) or response.status_code != 200
        kept = [(name, response.headers[name]) for name in KEPT if name in response.headers]
        found = response.status_code, kept, response.get_data()
        return Passing(found) if unfinished else found


def _entered(around: ExitStack) -> Flask:
    """The application that runs here: a web process's own, or that of a worker."""
    if has_app_context():
        return current_app._get_current_object()  # type: ignore[attr-defined, no-any-return]
    app = application()
    around.enter_context(app.app_context())
    return app


def _environment(data: bytes) -> dict[str, Any]:
    return {
        "REQUEST_METHOD": "POST",
        "PATH_INFO": "/api/",
        "SERVER_NAME": "localhost",
        "SERVER_PORT": "80",
        "SERVER_PROTOCOL": "HTTP/1.1",
        "CONTENT_LENGTH": str(len(data)),
        "wsgi.input": io.BytesIO(data),
        "wsgi.url_scheme": "http",
    }


def shown(document: Document, seconds: float) -> dict[str, Any]:
    """What pages and scripts show of a document. Raises Cut where that takes too long."""
    with ExitStack() as around:
        app = _entered(around)
        around.enter_context(app.request_context(_environment(b"")))
        try:
            around.enter_context(limited(Patience(seconds, spent)))
            return present.payload(document)
        except OutOfTime:
            raise Cut(TOO_LONG) from None


def drawn_at_once(document: Document) -> bytes:
    """The curves for a page that is about to be opened, in its view and a usual size.

    Empty where that takes longer than a page should, or is more than a page should carry.
    """
    with suppress(OutOfTime), limited(FIRST_PICTURE):
        sheet = resolve(document)
        if len(sheet.shown(DRAWN)) <= MOST_AT_ONCE:
            data = encoded_picture(document, sheet, frame_of(document.view, *USUAL_SIZE))
            return data if len(data) <= LARGEST_AT_ONCE else b""
    return b""


def edited_within(document: Document, edits: Sequence[Edit], seconds: float) -> list[Step]:
    """The steps of edits, within a time."""
    with limited(Patience(seconds, spent)):
        steps = edited(document, edits, FRAMING)
        for edit in edits:
            if isinstance(edit, SetQuestion):
                ASKED[edit.question.kind].checked(document, edit.question)
        return steps
