"""Samples that a polyline does not need: those on a straight stretch between two others."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]

STRAIGHT = 0.06  # pixels that a sample left out lies off the line through those that stay
PASSES = 3  # each leaves out every second sample at most


def thinned(x: Floats, y: Floats, broken: Flags, height: float) -> NDArray[np.int64]:
    """The samples that stay, in order. After those that are ``broken`` the line has a gap.

    ``x`` and ``y`` are in pixels, ``height`` is that of the picture. A sample is only ever left out
    between two that stay, so that the line stays within ``PASSES`` times the bound of every
    sample that shows.
    """
    missing = np.isnan(y)
    first = np.empty(len(x), dtype=bool)
    first[0], first[1:] = True, broken[:-1]
    fixed = missing | broken | first
    if missing.any():
        fixed[1:] |= missing[:-1]
        fixed[:-1] |= missing[1:]
    kept: NDArray[np.int64] = np.arange(len(x))
    for _ in range(PASSES):
        if len(kept) < 3:
            break
        plain = _straight(x, y, height) & ~fixed[1:-1] & _every_second(first)[1:-1]
        if not plain.any():
            break
        stays = np.ones(len(x), dtype=bool)
        stays[1:-1] = ~plain
        kept, x, y = kept[stays], x[stays], y[stays]
        first, fixed = first[stays], fixed[stays]
    return kept


def _straight(x: Floats, y: Floats, height: float) -> Flags:
    """Samples on the line through their neighbours, or not seen together with them."""
    run, rise = x[2:] - x[:-2], y[2:] - y[:-2]
    area = (y[1:-1] - y[:-2]) * run
    area -= rise * (x[1:-1] - x[:-2])
    area *= area
    run *= run
    run += rise * rise
    run *= STRAIGHT**2
    found: Flags = area <= run
    for away in (y > height, y < 0):
        found |= away[:-2] & away[1:-1] & away[2:]
    return found


def _every_second(first: Flags) -> Flags:
    """Every second one of each line, so that both neighbours stay."""
    along = np.arange(len(first), dtype=np.int32)
    odd: Flags = ((along - np.maximum.accumulate(along * first)) & 1).astype(bool)
    return odd
