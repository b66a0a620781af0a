"""How large a region is within a rectangle: between what surely belongs and what may belong."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from axispath.core.memory import Memory
from axispath.core.plane.cells import Cells, Lattice, halved
from axispath.core.plane.picture import area_of, known_in, rectangles
from axispath.core.plane.relation import Relation

FINEST = 1 << 16  # cells along each side
MOST = 90_000  # cells that may belong, from where on they are not parted

Rectangle = tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class Size:
    """The area is within ``error`` of ``area``; ``inside`` where no part reaches the rectangle's
    border, so that this is all of the region but for what may lie elsewhere.
    """

    area: float
    error: float
    inside: bool


_sizes: Memory[Size] = Memory(200)


def size_of(relation: Relation, rectangle: Rectangle) -> Size:
    """The area of a region in a rectangle (left, right, bottom, top)."""
    return _sizes.found((relation, rectangle), lambda: _size(relation, rectangle))


def _size(relation: Relation, rectangle: Rectangle) -> Size:
    left, right, bottom, top = rectangle
    grid = Lattice(np.linspace(left, right, FINEST + 1), np.linspace(bottom, top, FINEST + 1))
    cells, size = Cells(np.zeros(1, dtype=np.int64), np.zeros(1, dtype=np.int64)), FINEST
    sure, inside = 0.0, True
    while True:
        yes, no = known_in(relation, *grid.boxes(cells.i, cells.j, size))
        sure += area_of(rectangles(grid, cells.some(yes), size))
        inside = inside and not _at_the_border(cells.some(yes), size)
        cells = cells.some(~yes & ~no)
        if size == 1 or 4 * len(cells.i) > MOST:
            break
        cells, size = halved(cells, size), size // 2
    maybe = area_of(rectangles(grid, cells, size))
    inside = inside and not _at_the_border(cells, size)
    return Size(sure + maybe / 2, maybe / 2, inside)


def _at_the_border(cells: Cells, size: int) -> bool:
    ends = [(part == 0) | (part + size == FINEST) for part in (cells.i, cells.j)]
    return bool(np.logical_or(*ends).any())
