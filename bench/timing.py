"""Medians of repeated runs."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable


def milliseconds(work: Callable[[], object], times: int = 60) -> list[float]:
    """How long each of ``times`` runs took, after a few unmeasured ones."""
    for _ in range(3):
        work()
    found = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        found.append((time.perf_counter() - start) * 1000)
    return found


def median(work: Callable[[], object], times: int = 60) -> float:
    """The median of ``times`` runs in milliseconds."""
    return statistics.median(milliseconds(work, times))
