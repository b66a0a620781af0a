"""Long work, part by part: a queue in PostgreSQL, so that any host may carry it out.

Each part is a job for the broker, so that it is bounded like all others; between the parts it is
noted how far it is, and looked whether it was given up.
"""

from __future__ import annotations

import asyncio
import logging
import os
import pickle
import time
from functools import cache
from typing import Any
from urllib.parse import unquote

import orjson
import procrastinate

from axispath.exchange.sheets.archive import packed
from axispath.store import errands
from axispath.store.database import Store, plain_address
from axispath.store.tidying import tidy
from axispath.work.client import Broker, Here, from_environment
from axispath.work.kinds import LONG
from axispath.work.protocol import BROKEN, NAMED, PARTS, Busy, Cut, Job, called, is_person

VISITORS = "errands"  # all who are nobody yet take turns as one
LARGEST = 64 << 20  # bytes that one may make
BUSY = 60.0  # seconds that a part waits for a broker that has too much to do
log = logging.getLogger(__name__)

queue = procrastinate.App(
    connector=procrastinate.PsycopgConnector(
        conninfo=plain_address(os.environ.get("DATABASE_URL", "postgresql://")),
        min_size=1,
        max_size=6,
    )
)


@cache
def _store() -> Store:
    return Store(os.environ["DATABASE_URL"])


@queue.task(name="carry out", queue="errands")
async def carry_out(errand_id: str) -> None:
    """Carry out one errand."""
    await asyncio.to_thread(work, _store(), from_environment(), errand_id)


@queue.periodic(cron="7 * * * *")
@queue.task(name="tidy", queue="errands", queueing_lock="tidy")
async def tidy_up(timestamp: int) -> None:
    """Once an hour: throw away what the rules say."""
    done = await asyncio.to_thread(tidy, _store())
    log.info("tidied: %s", done)
    await queue.job_manager.delete_old_jobs(nb_hours=24, include_failed=True)


@queue.periodic(cron="* * * * *")
@queue.task(name="take up again", queue="errands", queueing_lock="take up")
async def take_up_again(timestamp: int) -> None:
    """Once a minute: what a process that is gone had begun."""
    for job in await queue.job_manager.get_stalled_jobs():
        await queue.job_manager.retry_job(job)


def work(store: Store, broker: Broker | Here, errand_id: str) -> None:
    """All parts of an errand, one after the other."""
    with store.transaction() as session:
        found = errands.take(session, errand_id)
    if found is None:
        return
    guest, call = found
    made: bytes | None
    try:
        made, mimetype, message = _made(store, broker, errand_id, guest, call)
    except Cut as cut:
        made, mimetype, message = None, "", cut.message
    except Busy:
        made, mimetype, message = None, "", "There is too much to do here just now."
    except Exception as error:  # whatever it is, the page is told that there is nothing to wait for
        log.error("an errand failed: %s", type(error).__name__)
        made, mimetype, message = None, "", BROKEN
    with store.transaction() as session:
        errands.finish(session, errand_id, made, mimetype, message)


def _made(
    store: Store, broker: Broker | Here, errand_id: str, guest: str, call: bytes
) -> tuple[bytes | None, str, str]:
    """What the parts come to, its type, and where there is nothing, why."""
    function, given = pickle.loads(call)
    name, at, *rest = given
    content: list[tuple[str, bytes]] = []
    size, part, parts = 0, 0, 1
    mimetype = ""
    while part < parts:
        asked = called(function, name, {**at, "part": part}, *rest)
        job = Job(LONG.name, guest, errand_id, "", asked, "" if is_person(guest) else VISITORS)
        status, kept, data = _patiently(broker, job)
        heads = dict(kept)
        if status != 200:
            return None, "", _sentence(data)
        mimetype = heads["Content-Type"]
        parts = int(heads.get(PARTS, 1))
        part += 1
        content.append((unquote(heads.get(NAMED, "")), data))
        size += len(data)
        if size > LARGEST:
            return None, "", f"This is larger than {LARGEST >> 20} MB."
        with store.transaction() as session:
            if not errands.goes_on(session, errand_id, part, parts):
                return None, "", ""
    if content[0][0]:
        return packed(content), "application/zip", ""
    return b"".join(data for _, data in content), mimetype, ""


def _patiently(broker: Broker | Here, job: Job) -> Any:
    until = time.monotonic() + BUSY
    while True:
        try:
            return broker.ask(job)
        except Busy:
            if time.monotonic() > until:
                raise
            time.sleep(1)


def _sentence(data: bytes) -> str:
    try:
        return str(orjson.loads(data)["message"])
    except (ValueError, KeyError):
        return BROKEN
