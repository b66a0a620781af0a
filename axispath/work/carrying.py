"""Carry out errands, and tidy the store, until told to stop: python -m axispath.work.carrying."""

from __future__ import annotations

import logging

from axispath.command.bound import end_with_parent
from axispath.work.errands import queue

AT_ONCE = 4  # errands carried out by one process

if __name__ == "__main__":
    end_with_parent()
    logging.basicConfig(level=logging.WARNING, format="%(levelname)s %(name)s: %(message)s")
    logging.getLogger("procrastinate").setLevel(logging.WARNING)
    queue.run_worker(
        queues=["errands"],
        concurrency=AT_ONCE,
        fetch_job_polling_interval=2.0,
        shutdown_graceful_timeout=3,
    )
