"""What was so a moment ago: asked of the database again only when it may have changed."""

from __future__ import annotations

import time
from collections.abc import Callable, Hashable
from typing import Generic, TypeVar

from axispath.core.memory import Memory

T = TypeVar("T")
FRESH = 2.0  # seconds for which what was found is taken to be so


class Lately(Generic[T]):
    """The answers of the last seconds, of the ``most`` keys used last; safe under threads."""

    def __init__(self, most: int) -> None:
        self._known: Memory[tuple[T, float]] = Memory(most)

    def found(self, key: Hashable, work: Callable[[], T]) -> T:
        """The answer for a key, found now where it is not fresh; what ``work`` raises goes on."""
        known = self._known.get(key)
        if known is not None and time.monotonic() - known[1] < FRESH:
            return known[0]
        found = work()
        self._known.keep(key, (found, time.monotonic()))
        return found

    def forget(self, key: Hashable) -> None:
        """What was known of a key is not so any more."""
        self._known.forget(key)

    def clear(self) -> None:
        """Nothing that was known is so any more."""
        self._known.clear()
