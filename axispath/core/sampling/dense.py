"""Where a curve is denser than pixels: columns in which it turns several times.

There no stroke can be true; what is true is how far up and down it goes. Such columns are
probed at places that follow no grid, and drawn as a filled band.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Columns = NDArray[np.int64]
Heights = Callable[[Floats], Floats]

PROBES = 24  # in a column
WINDOW = 2  # columns on either side that are counted together with one
TURNS = 9  # of the curve in these, from which on they are a band
AROUND = 6  # columns on either side of a turn that are probed
NEAR = 24  # columns on either side in which turns of the samples are counted
CROWD = 3  # turns in these, below which nothing is probed
LEAST = 1.0  # pixels: a turn smaller than that does not show
GOLDEN = 0.6180339887498949
WIDEST = 1 << 20  # columns, more than any picture has


@dataclass(frozen=True, slots=True)
class Dense:
    """Dense columns, and how low and how high the curve goes in each, in pixels."""

    columns: Columns
    lowest: Floats
    highest: Floats


def crowded(x: Floats, y: Floats, left: float, pixel: float) -> dict[int, Columns]:
    """Columns near which samples turn again and again, by row of ``y``; most rows have none.

    ``x`` are first samples of all rows, a pixel or two apart, ``y`` their heights in pixels, shape
    (rows, places). Column k runs from ``left`` + k · ``pixel`` on.
    """
    step = np.diff(y, axis=1)
    large = np.abs(step) > LEAST
    turns = (step[:, :-1] * step[:, 1:] < 0) & large[:, :-1] & large[:, 1:]
    missing = np.isnan(step)
    if missing.any():
        turns |= missing[:, :-1] != missing[:, 1:]
    row, at = np.nonzero(turns)
    if len(at) < CROWD:
        return {}
    key = row * WIDEST + np.floor((x[at + 1] - left) / pixel).astype(np.int64)
    near = np.searchsorted(key, key + NEAR, side="right") - np.searchsorted(key, key - NEAR)
    key = key[near >= CROWD]
    first = int(np.floor((x[0] - left) / pixel))
    last = int(np.ceil((x[-1] - left) / pixel * (1 - 1e-12))) - 1
    found = {}
    for one in np.unique(key // WIDEST):
        middle = key[key // WIDEST == one] % WIDEST
        around = np.unique(np.concatenate([middle + k for k in range(-AROUND, AROUND + 1)]))
        found[int(one)] = around[(around >= first) & (around <= last)]
    return found


def dense_among(
    suspects: Columns, heights: Heights, start: float, stop: float, left: float, pixel: float
) -> Dense:
    """Those of some columns that are dense; ``heights`` gives pixels above the view's bottom."""
    shares = (np.arange(PROBES) * GOLDEN) % 1.0
    shares.sort()
    # Another shift in every column, so that no oscillation keeps step with the probes.
    shifts = ((suspects * GOLDEN) % 1.0) / PROBES
    places = left + (suspects[:, None] + (shares[None, :] + shifts[:, None]) % 1.0) * pixel
    places.sort(axis=1)
    places = np.clip(places, start, stop)
    probed = heights(places.ravel()).reshape(places.shape)
    dense = _turns_around(suspects, probed) >= TURNS
    found, probed = suspects[dense], probed[dense]
    low = np.nanmin(probed, axis=1, initial=np.inf)
    high = np.nanmax(probed, axis=1, initial=-np.inf)
    return Dense(found, *_with_neighbours(found, low, high))


def _turns_around(columns: NDArray[np.int64], probed: Floats) -> NDArray[np.int64]:
    """Turns in each column and in those near it; none where a column itself has none."""
    own = _turns(probed)
    around = own.copy()
    for away in range(1, WINDOW + 1):
        beside = columns[away:] - columns[:-away] == away
        around[:-away] += np.where(beside, own[away:], 0)
        around[away:] += np.where(beside, own[:-away], 0)
    return np.where(own > 0, around, 0)


def _turns(probed: Floats) -> NDArray[np.int64]:
    """How often the curve turns, by more than a pixel, among the probes of each column."""
    turned = np.zeros(len(probed), dtype=np.int64)
    direction = np.zeros(len(probed))
    extreme = probed[:, 0].copy()
    for height in probed.T[1:]:
        step = height - extreme
        moved = np.abs(step) > LEAST
        back = moved & (step * direction < 0)
        turned += back
        direction = np.where(moved, np.sign(step), direction)
        extreme = np.where(moved | np.isnan(extreme), height, extreme)
    return turned


def _with_neighbours(
    columns: NDArray[np.int64], low: Floats, high: Floats
) -> tuple[Floats, Floats]:
    """Extremes over each column and those beside it: probes may miss the last tip of one."""
    if len(columns) < 2:
        return low, high
    beside = np.diff(columns) == 1
    lows, highs = low.copy(), high.copy()
    lows[:-1] = np.where(beside, np.minimum(low[:-1], low[1:]), low[:-1])
    highs[:-1] = np.where(beside, np.maximum(high[:-1], high[1:]), high[:-1])
    lows[1:] = np.where(beside, np.minimum(lows[1:], low[:-1]), lows[1:])
    highs[1:] = np.where(beside, np.maximum(highs[1:], high[:-1]), highs[1:])
    return lows, highs
