"""How long a computation may take, for those who have a clock; the core itself has none."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass

from axispath.core.memory import keeps

Clock = Callable[[], float]


class OutOfTime(Exception):
    """A computation took longer than it was given."""


@dataclass(frozen=True, slots=True)
class Patience:
    """So many seconds by a clock."""

    seconds: float
    clock: Clock


@dataclass(frozen=True, slots=True)
class _Deadline:
    until: float
    clock: Clock

    def check(self) -> None:
        if self.clock() > self.until:
            raise OutOfTime


_deadline: ContextVar[_Deadline | None] = ContextVar("deadline", default=None)
keeps(lambda: _deadline.set(None))


@contextmanager
def limited(patience: Patience | None) -> Iterator[None]:
    """What is computed in here raises OutOfTime when it takes longer; None sets no limit.

    An earlier limit around this one goes on to hold.
    """
    if patience is None:
        yield
        return
    until = patience.clock() + patience.seconds
    outer = _deadline.get()
    if outer is not None:
        until = min(until, outer.until)
    token = _deadline.set(_Deadline(until, patience.clock))
    try:
        yield
    finally:
        _deadline.reset(token)


def time_check() -> Callable[[], None] | None:
    """What raises OutOfTime once it is late; None where there is no limit."""
    deadline = _deadline.get()
    return deadline.check if deadline is not None else None
