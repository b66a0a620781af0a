"""Carry out errands, and tidy the store, until told to stop: python -m axispath.work.carrying.

When the database goes away the queue's worker ends; then this begins anew, until it is back. What
had been begun is taken up again by whoever runs then.
"""

from __future__ import annotations

import asyncio
import logging
import os
import sys
import time

from axispath.bound import end_with_parent
from axispath.work.errands import queue

# Errands carried out by one process: those of people, and apart from them those of visitors.
AT_ONCE = {"errands": 4, "visitors": 2}
REST = 2.0  # seconds before it begins anew
log = logging.getLogger(__name__)


async def carry() -> None:
    """Carry out what waits in every queue, until all of them have ended or one has failed."""
    async with queue.open_async():
        workers = [
            queue.run_worker_async(
                queues=[name],
                concurrency=most,
                fetch_job_polling_interval=2.0,
                install_signal_handlers=False,
            )
            for name, most in AT_ONCE.items()
        ]
        await asyncio.gather(*workers)


if __name__ == "__main__":
    end_with_parent()
    logging.basicConfig(level=logging.WARNING, format="%(levelname)s %(name)s: %(message)s")
    # Both tell each second, with all their calls, that the database is away; it is told here once.
    logging.getLogger("procrastinate").setLevel(logging.CRITICAL)
    logging.getLogger("psycopg.pool").setLevel(logging.CRITICAL)
    try:
        asyncio.run(carry())
        why = "its worker ended"
    except Exception as error:
        why = type(error).__name__
    log.warning("errands wait: %s", why)
    time.sleep(REST)
    os.execv(sys.executable, [sys.executable, "-m", "axispath.work.carrying"])
