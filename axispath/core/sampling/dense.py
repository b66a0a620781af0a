"""Where a curve is denser than pixels: columns in which it turns several times.

There no stroke can be true; what is true is how far up and down it goes. Such columns are
probed at places that follow no grid, and drawn as a filled band.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Heights = Callable[[Floats], Floats]

PROBES = 24  # in a column
WINDOW = 2  # columns on either side that are counted together with one
TURNS = 9  # of the curve in these, from which on they are a band
AROUND = 6  # columns on either side of a turn that are probed
NEAR = 24  # columns on either side in which turns of the samples are counted
CROWD = 3  # turns in these, below which nothing is probed
LEAST = 1.0  # pixels: a turn smaller than that does not show
GOLDEN = 0.6180339887498949


def dense_columns(
    heights: Heights, x: Floats, y: Floats, left: float, pixel: float
) -> tuple[NDArray[np.int64], Floats, Floats]:
    """The dense columns, and how low and how high the curve goes in each, in pixels.

    ``x`` and ``y`` are first samples, a pixel or two apart, ``heights`` gives pixels above the
    bottom of the view, and column k runs from ``left`` + k · ``pixel`` on.
    """
    suspects = _suspects(x, y, left, pixel)
    if not len(suspects):
        return suspects, np.empty(0), np.empty(0)
    shares = (np.arange(PROBES) * GOLDEN) % 1.0
    shares.sort()
    # Another shift in every column, so that no oscillation keeps step with the probes.
    shifts = ((suspects * GOLDEN) % 1.0) / PROBES
    places = left + (suspects[:, None] + (shares[None, :] + shifts[:, None]) % 1.0) * pixel
    places.sort(axis=1)
    places = np.clip(places, x[0], x[-1])
    probed = heights(places.ravel()).reshape(places.shape)
    dense = _turns_around(suspects, probed) >= TURNS
    found, probed = suspects[dense], probed[dense]
    low = np.nanmin(probed, axis=1, initial=np.inf)
    high = np.nanmax(probed, axis=1, initial=-np.inf)
    low, high = _with_neighbours(found, low, high)
    return found, low, high


def _suspects(x: Floats, y: Floats, left: float, pixel: float) -> NDArray[np.int64]:
    """Columns near samples at which the curve turns; turns that are alone are left out."""
    step = np.diff(y)
    turns = (step[:-1] * step[1:] < 0) & (np.abs(step[:-1]) > LEAST) & (np.abs(step[1:]) > LEAST)
    missing = np.isnan(step)
    turns |= missing[:-1] != missing[1:]
    at = np.flatnonzero(turns) + 1
    if not len(at):
        return np.empty(0, dtype=np.int64)
    first = int(np.floor((x[0] - left) / pixel))
    last = int(np.ceil((x[-1] - left) / pixel * (1 - 1e-12))) - 1
    middle = np.floor((x[at] - left) / pixel).astype(np.int64)
    first_near = np.searchsorted(middle, middle - NEAR)
    last_near = np.searchsorted(middle, middle + NEAR, side="right")
    middle = middle[last_near - first_near >= CROWD]
    if not len(middle):
        return middle
    near = np.unique(np.concatenate([middle + k for k in range(-AROUND, AROUND + 1)]))
    return near[(near >= first) & (near <= last)]


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
