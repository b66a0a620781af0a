"""What the broker counts: for operators, and for limits that hold for all processes together."""

from __future__ import annotations

import heapq
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from axispath.work.protocol import Ask

MOST_KEYS = 50_000  # of limits that are counted; the smallest give way


@dataclass
class Counts:
    """Numbers since the broker began."""

    jobs: Counter[str] = field(default_factory=Counter)
    seconds: float = 0.0  # that workers were busy
    remembered: int = 0  # answers that were known
    refused: int = 0  # jobs there was no room or time for
    cut: int = 0  # jobs that were ended
    replaced: int = 0  # processes
    rates: dict[str, tuple[int, float]] = field(default_factory=dict)

    def answer(self, asked: Ask, now: Callable[[], dict[str, int]]) -> Any:
        """What is asked of the counts; ``now`` gives the numbers of this moment."""
        if asked.what == "counts":
            return self.told(**now())
        counting: dict[str, Callable[..., Any]] = {"rate": self.rate, "forget": self.forget}
        return counting[asked.what](*asked.given)

    def told(self, **now: int) -> dict[str, Any]:
        """The numbers, and those of this moment."""
        return {
            "jobs": dict(self.jobs),
            "seconds": self.seconds,
            "remembered": self.remembered,
            "refused": self.refused,
            "cut": self.cut,
            "replaced": self.replaced,
            **now,
        }

    def rate(self, key: str, amount: int, seconds: float) -> tuple[int, float]:
        """Count ``amount`` more for a key, in a window of so many seconds from its first.

        Gives the count, and when the window ends, in seconds since 1970.
        """
        now = time.time()
        count, until = self.rates.get(key, (0, 0.0))
        if until <= now:
            count, until = 0, now + seconds
            self.rates.pop(key, None)
        if amount:
            self.rates[key] = (count + amount, until)
            if len(self.rates) > MOST_KEYS:
                self._give_way(now)
        return count + amount, until

    def _give_way(self, now: float) -> None:
        """Make room: windows that are over, then the smallest counts. Whoever fills the room with
        fresh keys does not have a large count forgotten that way.
        """
        for key in [key for key, (_, until) in self.rates.items() if until <= now]:
            del self.rates[key]
        least = heapq.nsmallest(
            len(self.rates) - MOST_KEYS * 9 // 10, self.rates.items(), key=lambda one: one[1][0]
        )
        for key, _ in least:
            del self.rates[key]

    def forget(self, key: str) -> None:
        """Begin a key anew."""
        self.rates.pop(key, None)
