"""Formulas that look at more than one row: steps, running sums, ranks."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


def step(values: Floats) -> Floats:
    """What a number is more than the one in the row before; none in the first row."""
    found = np.full(len(values), np.nan)
    found[1:] = values[1:] - values[:-1]
    return found


def running(values: Floats) -> Floats:
    """The sum of a number and all those before it; rows without a number do not count."""
    found = np.cumsum(np.where(np.isfinite(values), values, 0.0))
    return np.where(np.isfinite(values), found, np.nan)


def rank(values: Floats) -> Floats:
    """The place in rising order, from 1; equal numbers share the middle of their places."""
    found = np.full(len(values), np.nan)
    there = np.isfinite(values)
    _, which, counts = np.unique(values[there], return_inverse=True, return_counts=True)
    last = np.cumsum(counts)
    found[there] = (last - (counts - 1) / 2)[which]
    return found


def row(values: Floats) -> Floats:
    """The number of the row, from 1."""
    return np.arange(1, len(values) + 1, dtype=np.float64)


OVER_ROWS: dict[str, Callable[[Floats], Floats]] = {
    "step": step,
    "running": running,
    "rank": rank,
    "row": row,
}
"""What a formula of a column may use besides the functions of the language, of one column."""
