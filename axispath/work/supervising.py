"""Whoever begins the broker anew at once: it has loaded everything, and does little else.

A broker that is gone is forked again within a moment, since nothing has to be loaded for it; one
that does not answer is taken to be stuck, and ended first.
"""

from __future__ import annotations

import logging
import os
import signal
import time
from collections.abc import Callable
from typing import NoReturn

from axispath.bound import end_with_parent
from axispath.budgets import SILENT
from axispath.work.client import Broker
from axispath.work.protocol import Busy

LOOK = 0.2  # seconds between two looks at it
AT_FIRST = 30.0  # seconds that it may take to begin
MOST_FAILURES = 5  # in a row, each within a second, after which something else is wrong
log = logging.getLogger(__name__)


def supervise(address: str, serve: Callable[[], None]) -> NoReturn:
    """Have ``serve`` carried out by a process of its own, again and again, until told to stop."""
    stopping = False

    def stop(*_: object) -> None:
        nonlocal stopping
        stopping = True

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    failures = 0
    while not stopping and failures < MOST_FAILURES:
        begun = time.monotonic()
        pid = _begin(serve)
        why = _watched(pid, address, lambda: stopping)
        if why:
            log.warning("the broker %s, and is begun anew", why)
        failures = failures + 1 if time.monotonic() - begun < 1 else 0
    raise SystemExit(0 if stopping else 1)


def _begin(serve: Callable[[], None]) -> int:
    pid = os.fork()
    if pid:
        return pid
    end_with_parent()
    status = 1
    try:
        serve()
        status = 0
    except Exception as error:
        log.error("the broker failed: %s", type(error).__name__)
    finally:
        os._exit(status)


def _watched(pid: int, address: str, stopping: Callable[[], bool]) -> str:
    """Until a broker has ended: why it did, empty where it was told to."""
    heard, known = time.monotonic(), False
    asking = Broker(address, LOOK * 2)
    while True:
        ended, _ = os.waitpid(pid, os.WNOHANG)
        if ended:
            return "" if stopping() else "ended"
        if stopping():
            os.kill(pid, signal.SIGTERM)
            os.waitpid(pid, 0)
            return ""
        try:
            asking.tell("counts")
            heard, known = time.monotonic(), True
        except Busy:
            if time.monotonic() - heard > (SILENT if known else AT_FIRST):
                os.kill(pid, signal.SIGKILL)
                os.waitpid(pid, 0)
                return "did not answer"
        time.sleep(LOOK)
