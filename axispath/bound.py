"""Processes that end with the one that started them."""

from __future__ import annotations

import ctypes
import os
import signal
from collections.abc import Callable

_PARENT_DEATH = 1  # PR_SET_PDEATHSIG of Linux's prctl
_libc = ctypes.CDLL(None, use_errno=True)


def end_with_parent(with_signal: signal.Signals = signal.SIGTERM) -> None:
    """Ask the system to send this process a signal when its parent ends, however it ends."""
    parent = os.getppid()
    if _libc.prctl(_PARENT_DEATH, int(with_signal), 0, 0, 0):
        raise OSError(ctypes.get_errno(), "prctl")
    if os.getppid() != parent:
        os.kill(os.getpid(), with_signal)  # it ended just before


def bound(with_signal: signal.Signals = signal.SIGTERM) -> Callable[[], None]:
    """The same for a program started by subprocess (``preexec_fn``)."""
    return lambda: end_with_parent(with_signal)
