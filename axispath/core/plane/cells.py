"""Cells of the plane that a difference of sides may be 0 in, halved until a cell is a pixel or two.

Enclosures of the values, sharpened by those of the slopes (the mean value form), prove cells empty;
where a slope is never 0 on a cell, what is in it is one arc at most along each grid line (S.
Plantinga and G. Vegter 2004, Isotopic approximation of implicit curves and surfaces). What is still
neither at a quarter of a pixel is left over.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.boxes import THROUGHOUT, Boxes, between, quartered
from axispath.core.plane.relation import Side
from axispath.core.plane.screen import Screen

Floats = NDArray[np.float64]
Whole = NDArray[np.int64]
BLOCK = 32  # cells across the squares that are begun with
FINE = 2  # pixels across a cell
MOST_CELLS = 60_000
MOST_LEFT = 2_500  # cells that are looked into further
DEEPER = (2, 4, 8)  # parts of a cell, one after the other


@dataclass(frozen=True, slots=True)
class Lattice:
    """The grid of a frame: ``x`` and ``y`` are its lines."""

    x: Floats
    y: Floats

    def boxes(self, i: Whole, j: Whole, size: int) -> tuple[Boxes, Boxes]:
        """The squares of so many cells that begin at lines i and j."""
        return (
            between(self.x[i], self.x[i + size]),
            between(self.y[j], self.y[j + size]),
        )


def lattice(frame: Screen) -> Lattice:
    """The grid whose cells are about FINE pixels wide; it may go beyond the frame."""
    columns = -(-max(frame.width, FINE) // (FINE * BLOCK)) * BLOCK
    rows = -(-max(frame.height, FINE) // (FINE * BLOCK)) * BLOCK
    wide = (frame.right - frame.left) / max(frame.width, FINE) * FINE
    high = (frame.top - frame.bottom) / max(frame.height, FINE) * FINE
    across, upwards = (
        np.arange(columns + 1, dtype=np.float64),
        np.arange(rows + 1, dtype=np.float64),
    )
    return Lattice(frame.left + across * wide, frame.bottom + upwards * high)


@dataclass(frozen=True, slots=True)
class Looked:
    """What enclosures say of boxes: whether 0 may be a value, and whether a slope is never 0."""

    may: NDArray[np.bool_]
    regular: NDArray[np.bool_]


def look(side: Side, x: Boxes, y: Boxes) -> Looked:
    """The enclosures of a difference on boxes."""
    functions = side.boxes
    found = functions[0](x, y)
    may = found.may_be_zero
    regular = np.zeros(may.shape, dtype=bool)
    if len(functions) < 3:
        return Looked(may, regular)
    at = np.flatnonzero(may)
    if not len(at):
        return Looked(may, regular)
    part_x, part_y = _some(x, at), _some(y, at)
    slopes = [functions[k](part_x, part_y) for k in (1, 2)]
    smooth = (found.state[at] == THROUGHOUT) & np.logical_and.reduce(
        [s.state == THROUGHOUT for s in slopes]
    )
    middle = functions[0](_middles(part_x), _middles(part_y))
    with np.errstate(all="ignore"):
        reach = sum(
            np.maximum(np.abs(s.low), np.abs(s.high)) * (part.high - part.low) * 0.5000001
            for s, part in zip(slopes, (part_x, part_y), strict=True)
        )
        apart = (middle.low - reach > 0) | (middle.high + reach < 0)
    may = may.copy()
    may[at] &= ~(smooth & apart)
    regular[at] = smooth & (slopes[0].has_no_zero | slopes[1].has_no_zero)
    return Looked(may, regular)


def _some(boxes: Boxes, at: Whole) -> Boxes:
    return Boxes(boxes.low[at], boxes.high[at], boxes.state[at])


def _middles(boxes: Boxes) -> Boxes:
    middle = (boxes.low + boxes.high) / 2
    return Boxes(middle, middle, boxes.state)


@dataclass(frozen=True, slots=True)
class Cells:
    """Cells by the numbers of their left and lower lines."""

    i: Whole
    j: Whole

    def some(self, which: NDArray[np.bool_]) -> Cells:
        """Those of them that are meant."""
        return Cells(self.i[which], self.j[which])


def all_blocks(grid: Lattice) -> Cells:
    """The squares that a grid is begun with."""
    i, j = np.meshgrid(
        np.arange(0, len(grid.x) - 1, BLOCK), np.arange(0, len(grid.y) - 1, BLOCK), indexing="ij"
    )
    return Cells(i.ravel(), j.ravel())


def halved(cells: Cells, size: int) -> Cells:
    """Each square of so many cells as four."""
    half = size // 2
    i = np.concatenate([cells.i, cells.i + half, cells.i, cells.i + half])
    j = np.concatenate([cells.j, cells.j, cells.j + half, cells.j + half])
    return Cells(i, j)


@dataclass(frozen=True)
class Searched:
    """Cells with an arc, small squares (left, right, bottom, top) with one, and what is left over.

    ``over`` are squares that could not be settled, ``left`` the cells that they lie in.
    """

    arcs: Cells
    small: NDArray[np.float64]
    over: NDArray[np.float64]
    left: Cells


def search(
    side: Side, grid: Lattice, inside: Callable[[Boxes, Boxes], NDArray[np.bool_]] | None = None
) -> Searched:
    """Where in a grid a difference of sides is 0; ``inside`` tells where that matters at all."""
    cells, size = all_blocks(grid), BLOCK
    while True:
        x, y = grid.boxes(cells.i, cells.j, size)
        looked = look(side, x, y)
        may = looked.may if inside is None else looked.may & inside(x, y)
        kept = cells.some(may)
        if size == 1 or len(kept.i) > MOST_CELLS:
            break
        cells, size = halved(kept, size), size // 2
    if size > 1:  # everywhere, as far as can be told
        ends = np.stack([a[kept.i] for a in (grid.x, grid.x[size:])], axis=1)
        sides = np.stack([a[kept.j] for a in (grid.y, grid.y[size:])], axis=1)
        nothing = Cells(np.empty(0, dtype=np.int64), np.empty(0, dtype=np.int64))
        return Searched(nothing, np.empty((0, 4)), np.concatenate([ends, sides], axis=1), kept)
    regular = looked.regular[may]
    left = kept.some(~regular)
    over = np.stack(
        [grid.x[left.i], grid.x[left.i + 1], grid.y[left.j], grid.y[left.j + 1]], axis=1
    )
    small = [np.empty((0, 4))]
    if len(left.i) <= MOST_LEFT:
        for _ in DEEPER:
            over = quartered(over)
            looked = look(side, between(over[:, 0], over[:, 1]), between(over[:, 2], over[:, 3]))
            small.append(over[looked.may & looked.regular])
            over = over[looked.may & ~looked.regular]
            if len(over) > MOST_CELLS:
                break
    return Searched(kept.some(regular), np.concatenate(small), over, left)
