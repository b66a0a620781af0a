"""What has been found before: the one kind of memory that everything here uses.

A key holds everything that shaped the value; then an answer never depends on what was asked
before. Whatever a process keeps between two questions is known here, so that it can be put back.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from functools import lru_cache
from threading import Lock
from typing import Any, Generic, ParamSpec, TypeVar
from weakref import WeakSet

P = ParamSpec("P")
T = TypeVar("T")

_memories: WeakSet[Memory[Any]] = WeakSet()
_ways_back: list[Callable[[], object]] = []
_lock = Lock()


def keeps(way_back: Callable[[], object]) -> None:
    """Something that a process keeps beside memories: a setting, a limit, a clock of a thread.

    ``way_back`` puts it as it was when the process began.
    """
    _ways_back.append(way_back)


def put_back() -> None:
    """Forget all that was found, and put back all settings: as in a process that just began."""
    with _lock:
        memories = [*_memories]
    for memory in memories:
        memory.clear()
    for way_back in _ways_back:
        way_back()


def remembered(most: int | None) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """Make a function remember its results: of the ``most`` arguments used last, None for all."""

    def remembering(work: Callable[P, T]) -> Callable[P, T]:
        found = lru_cache(maxsize=most)(work)
        keeps(found.cache_clear)
        return found  # type: ignore[return-value]  # lru_cache asks for hashable arguments alone

    return remembering


def _one(key: Any, value: Any) -> int:
    return 1


class Memory(Generic[T]):
    """The values of the keys used last, up to ``most`` of them by weight; safe under threads.

    Each counts as one unless ``weigh`` says otherwise, in whatever unit ``most`` is given; what
    a key holds is held as long as its value.
    """

    def __init__(self, most: int, weigh: Callable[[Any, T], int] = _one) -> None:
        self.most = most
        self.weight = 0
        self._weigh = weigh
        self._kept: OrderedDict[Hashable, tuple[T, int]] = OrderedDict()
        self._lock = Lock()
        with _lock:
            _memories.add(self)

    def get(self, key: Hashable) -> T | None:
        """The value of a key, None where it is not known."""
        with self._lock:
            if key not in self._kept:
                return None
            self._kept.move_to_end(key)
            return self._kept[key][0]

    def keep(self, key: Hashable, value: T) -> None:
        """Remember a value, and forget what has not been used for longest."""
        weight = self._weigh(key, value)
        with self._lock:
            if key in self._kept:
                self.weight -= self._kept.pop(key)[1]
            self._kept[key] = value, weight
            self.weight += weight
            while self.weight > self.most and self._kept:
                self.weight -= self._kept.popitem(last=False)[1][1]

    def found(self, key: Hashable, work: Callable[[], T]) -> T:
        """The value of a key, found now where it is not known.

        ``work`` runs outside the lock: two threads may both do it, and find the same.
        """
        known = self.get(key)
        if known is None:
            known = work()
            self.keep(key, known)
        return known

    def forget(self, key: Hashable) -> None:
        """Forget the value of a key, where it is known."""
        with self._lock:
            if key in self._kept:
                self.weight -= self._kept.pop(key)[1]

    def clear(self) -> None:
        """Forget everything."""
        with self._lock:
            self._kept.clear()
            self.weight = 0
