"""Routes that compute, and all else that computes for the pages: carried out behind the wall.

The web process looks after the person, the database and the headers. What is computed travels as
a call with the document it is about, to a process that can be ended; the code is the same on
both sides, and where there is no broker it runs here.
"""

from __future__ import annotations

import base64
import functools
import hashlib
import pickle
from collections.abc import Callable, Sequence
from contextlib import ExitStack
from typing import Any

from flask import Response, current_app, request

from axispath.core.memory import Memory
from axispath.core.path.edited import Step
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import Edit
from axispath.web import errands, present
from axispath.web.asked import body, seen_revision
from axispath.web.crowd import Crowd
from axispath.web.inside import (
    VIEWS,
    Route,
    answered_view,
    drawn_at_once,
    edited_within,
    shown,
)
from axispath.web.limits import from_network
from axispath.web.person import guest
from axispath.web.source import document_at
from axispath.work.client import Broker, Here
from axispath.work.kinds import LONG, QUICK, Kind
from axispath.work.protocol import Cut, Job, called, is_person

PAYLOADS = 24 << 20  # bytes
# Threads of a process that wait for one guest, and for all from one network who are nobody yet.
MOST_OF_ONE, MOST_OF_VISITORS = 12, 16

Chosen = Kind | Callable[[dict[str, Any]], Kind]


def patient(asked: dict[str, Any]) -> Kind:
    """The kind of work of a look that may be a longer one."""
    return LONG if asked.get("longer") is True or asked.get("patient") is True else QUICK


def computed(
    kind: Chosen = QUICK, shared: bool = True, lengthy: bool = False
) -> Callable[[Route], Route]:
    """A route that computes on the document of its ``key``, if it has one.

    ``shared``: the same question about the same document is answered once, whoever asks.
    ``lengthy``: who prefers it (RFC 7240) gets an errand at once instead of waiting; the view is
    then asked part by part, by a parameter ``part``.
    """

    def wrapped(view: Route) -> Route:
        name = f"{view.__module__}.{view.__name__}"
        VIEWS[name] = view

        @functools.wraps(view)
        def route(**at: Any) -> Response:
            asked = body()
            key = at.get("key")
            document = document_at(key, seen_revision(asked, "head")) if key else None
            wanted = kind if isinstance(kind, Kind) else kind(asked)
            data = request.get_data()
            call = (name, at, data, document, wanted.budget)
            if lengthy and "respond-async" in request.headers.get("Prefer", ""):
                return errands.begin(called(answered_view, *call))
            same = name_of(name, data, document) if shared else ""
            status, kept, content = ask(wanted, str(key or ""), same, answered_view, *call)
            return Response(content, status, kept)

        return route

    return wrapped


def ask(kind: Kind, route: str, same: str, function: Callable[..., Any], *given: Any) -> Any:
    """Have something carried out. Raises what it raises, Busy, or Cut."""
    broker: Broker | Here = current_app.extensions["broker"]
    who = guest()
    network = "" if is_person(who) else from_network()
    job = Job(kind.name, who, route, same, called(function, *given), network)
    with ExitStack() as waiting:
        waiting.enter_context(_waiting.one_more(who, MOST_OF_ONE))
        if network:
            waiting.enter_context(_waiting.one_more(network, MOST_OF_VISITORS))
        return broker.ask(job)


_waiting = Crowd()


def name_of(*shaping: Any) -> str:
    """A name for all that shapes an answer."""
    digest = hashlib.sha256()
    for part in shaping:
        if isinstance(part, Document):
            part = part.model_dump_json(context={"contents": {}}).encode()
        data = part if isinstance(part, bytes) else repr(part).encode()
        digest.update(len(data).to_bytes(8, "little") + data)
    return digest.hexdigest()


# Documents


_payloads: Memory[dict[str, Any]] = Memory(PAYLOADS, lambda _, found: len(pickle.dumps(found)))


def payload(document: Document, route: str) -> dict[str, Any]:
    """What pages and scripts show of a document; plainly, where it takes too much to compute."""
    seen = document.model_copy(update={"view": View()})  # whatever its view

    def work() -> dict[str, Any]:
        same = name_of("payload", seen)
        found: dict[str, Any] = ask(QUICK, route, same, shown, seen, QUICK.budget)
        return found

    try:
        return _payloads.found(seen, work)
    except Cut as cut:
        return present.plain_payload(document, cut.message)


def picture(document: Document, route: str) -> str:
    """The curves that a page comes with, in base 64; empty where the page asks for them itself."""
    found: bytes = ask(QUICK, route, name_of("at once", document), drawn_at_once, document)
    return base64.b64encode(found).decode()


def steps(document: Document, edits: Sequence[Edit], route: str) -> list[Step]:
    """What edits lead to. Raises EditRefused, Busy or Cut."""
    found: list[Step] = ask(QUICK, route, "", edited_within, document, edits, QUICK.budget)
    return found


def told_of_waiting(before: Document, after: Document, edits: Sequence[Edit], route: str) -> str:
    """Who needs what a deletion has taken away."""
    if not present.takes_away(edits):
        return ""
    found: str = ask(QUICK, route, "", present.told_of_waiting, before, after)
    return found
