"""A process that carries jobs out, one after the other, until its broker is gone."""

from __future__ import annotations

import contextlib
import os
import pickle
import resource
import signal
from collections.abc import Callable
from multiprocessing.connection import Connection

from axispath.bound import end_with_parent
from axispath.work.kinds import Kind
from axispath.work.protocol import carried_out

ADDRESSES = 4 << 30  # bytes of address space: what asks for more gets MemoryError, not the machine


def work(pipe: Connection, kind: Kind, begin: Callable[[], object] | None) -> None:
    """Take calls from the pipe and give their answers, after ``begin``. Never returns."""
    end_with_parent(signal.SIGKILL)
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP, signal.SIGCHLD):
        signal.signal(number, signal.SIG_DFL)
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # Ctrl+C reaches everybody; the broker ends us
    os.nice(kind.nice)
    resource.setrlimit(resource.RLIMIT_AS, (ADDRESSES, ADDRESSES))
    if begin is not None:
        begin()
    with contextlib.suppress(EOFError, OSError):
        while True:
            pipe.send_bytes(pickle.dumps(carried_out(pipe.recv_bytes())))
    os._exit(0)
