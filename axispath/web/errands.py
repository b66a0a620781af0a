"""Long work: begun where a page asks for it, then looked at, fetched or given up."""

from __future__ import annotations

import os
from threading import Lock

import procrastinate
from flask import Blueprint, Response, current_app
from flask.typing import ResponseReturnValue

from axispath.store import errands
from axispath.store.database import Store, plain_address
from axispath.web import sealing
from axispath.web.asked import answered
from axispath.web.person import guest, store
from axispath.work.client import Here
from axispath.work.errands import work
from axispath.work.protocol import is_person

blueprint = Blueprint("errands", __name__, url_prefix="/api/errands")


def begin(call: bytes) -> Response:
    """Begin long work; answers with where to look for it."""
    with store().transaction() as session:
        before = errands.unfinished(session, guest())
        errand = errands.begin(session, guest(), call)
    broker = current_app.extensions["broker"]
    if isinstance(broker, Here):
        work(store(), broker, errand)
    else:
        # Its own transaction: a worker that is quick must find what it is about.
        which = "errands" if is_person(guest()) else "visitors"
        task = _queue(store()).configure_task("carry out", queue=which, priority=-before)
        task.defer(errand_id=errand)
    response = answered({"errand": errand})
    response.status_code = 202
    response.headers["Location"] = f"/api/errands/{errand}"
    return response


_lock = Lock()
_queues: dict[int, procrastinate.App] = {}


def _queue(database: Store) -> procrastinate.App:
    """The queue of this process, its connections made when they are first needed."""
    with _lock:
        found = _queues.get(os.getpid())
        if found is None:
            connector = procrastinate.SyncPsycopgConnector(
                conninfo=plain_address(database.address), min_size=0, max_size=3, timeout=5.0
            )
            found = procrastinate.App(connector=connector)
            found.open()
            _queues[os.getpid()] = found
    return found


@blueprint.get("/<errand>")
def look(errand: str) -> ResponseReturnValue:
    """How far it is."""
    with store().transaction() as session:
        found = errands.progress(session, guest(), errand)
    share = found.done / found.parts if found.parts > 1 else None
    return answered({"state": found.state, "share": share, "message": found.message})


@blueprint.get("/<errand>/content")
def content(errand: str) -> ResponseReturnValue:
    """What was made."""
    since = sealing.begun()
    with store().transaction() as session:
        data, mimetype = errands.content(session, guest(), errand, since)
    return Response(data, mimetype=mimetype.partition(";")[0])


@blueprint.delete("/<errand>")
def cancel(errand: str) -> ResponseReturnValue:
    """Give it up."""
    with store().transaction() as session:
        errands.cancel(session, guest(), errand)
    return answered({"ok": True})
