"""A map of levels: bands between them and the lines on them, from one look at the plane.

A square that is proved to lie between two levels belongs to their band; others are parted down to
two pixels. On such a cell, if the function is continuous there, signs at the corners tell where a
level line enters and leaves: every line that is drawn is there. A loop smaller than a cell may be
missed.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from axispath.core.arithmetic.boxes import NOWHERE, THROUGHOUT
from axispath.core.plane.arcs import arcs_in_cells
from axispath.core.plane.cells import BLOCK, MOST_CELLS, Cells, all_blocks, halved, lattice
from axispath.core.plane.picture import Floats, rectangles, side_by_side
from axispath.core.plane.relation import Side
from axispath.core.plane.screen import Screen


@dataclass(frozen=True)
class Levels:
    """``bands`` are rectangles (left, right, bottom, top) below, between and above the levels,
    ``lines`` the segments (n, 2, 2) of each level.
    """

    bands: tuple[Floats, ...]
    lines: tuple[Floats, ...]


def levels_drawn(side: Side, levels: list[float], screen: Screen) -> Levels:
    """A map of a function of x and y with rising levels."""
    grid = lattice(screen)
    cells, size = all_blocks(grid), BLOCK
    steps = np.array(levels)
    bands: list[list[Floats]] = [[] for _ in range(len(levels) + 1)]
    while True:
        found = side.whole(*grid.boxes(cells.i, cells.j, size))
        first = np.searchsorted(steps, found.low, "left")
        last = np.searchsorted(steps, found.high, "right")
        within = (found.state == THROUGHOUT) & (first == last)
        for band in np.unique(first[within]):
            part = cells.some(within & (first == band))
            bands[int(band)].append(rectangles(grid, part, size))
        kept = ~within & (found.state != NOWHERE)
        cells, first, last = cells.some(kept), first[kept], last[kept]
        smooth = found.state[kept] == THROUGHOUT
        if size == 1 or len(cells.i) > MOST_CELLS:
            break
        cells, size = halved(cells, size), size // 2
    if size > 1:
        nothing = np.empty((0, 2, 2))
        return Levels(tuple(map(_joined, bands)), (nothing,) * len(levels))
    _by_middles(side, bands, rectangles(grid, cells, 1), steps)
    lines = []
    for k, level in enumerate(levels):
        on = cells.some(smooth & (first <= k) & (k < last))

        def apart(x: Floats, y: Floats, level: float = level) -> Floats:
            return side.values(x, y) - level

        lines.append(arcs_in_cells(apart, grid, Cells(on.i, on.j)))
    return Levels(tuple(map(_joined, bands)), tuple(lines))


def _by_middles(side: Side, bands: list[list[Floats]], boxes: Floats, steps: Floats) -> None:
    middle = (boxes[:, [0, 2]] + boxes[:, [1, 3]]) / 2
    values = side.values(middle[:, 0], middle[:, 1])
    band = np.searchsorted(steps, values, "right")
    for k in range(len(bands)):
        bands[k].append(boxes[np.isfinite(values) & (band == k)])


def _joined(parts: list[Floats]) -> Floats:
    return side_by_side(np.concatenate(parts) if parts else np.empty((0, 4)))
