"""The picture of a relation in a frame: lines that are proved, and what stays open."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.boxes import Boxes, quartered
from axispath.core.plane.arcs import arcs_in_cells, arcs_in_squares
from axispath.core.plane.cells import (
    BLOCK,
    Cells,
    Lattice,
    all_blocks,
    halved,
    lattice,
    search,
)
from axispath.core.plane.relation import Relation, Side, known
from axispath.core.plane.screen import Screen

Floats = NDArray[np.float64]
Truth = NDArray[np.bool_]
SMALL = 3  # cells across, up to which what is not settled is drawn as part of the line
MOST_GROUPED = 6_000
MOST_UNKNOWN = 60_000


@dataclass(frozen=True)
class Drawn:
    """Lines as segments (n, 2, 2), squares (left, right, bottom, top) and what of them is open.

    ``dots`` are squares less than a pixel wide that belong to the line as far as can be told.
    """

    segments: Floats
    dots: Floats
    open: Floats
    share: float  # of the frame's pixels that stayed open


def curve_drawn(relation: Relation, side: Side, frame: Screen) -> Drawn:
    """Where a difference of sides is 0 and the rest of the relation holds."""
    grid = lattice(frame)
    found = search(side, grid, None if relation.rule is None else _inside(relation))
    segments = np.concatenate(
        [
            arcs_in_cells(side.plain_values, grid, found.arcs),
            arcs_in_squares(side.plain_values, found.small),
        ]
    )
    segments = segments[_holds(relation, segments)]
    dots, still = _parted(grid, found.left, found.over)
    area = (frame.right - frame.left) * (frame.top - frame.bottom)
    return Drawn(segments, dots, still, min(1.0, area_of(still) / area))


def _holds(relation: Relation, segments: Floats) -> Truth:
    middle = segments.mean(axis=1)
    return relation.holds(middle[:, 0], middle[:, 1])


def _inside(relation: Relation) -> Callable[[Boxes, Boxes], Truth]:
    def inside(x: Boxes, y: Boxes) -> Truth:
        return ~known_in(relation, x, y)[1]

    return inside


def known_in(relation: Relation, x: Boxes, y: Boxes) -> tuple[Truth, Truth]:
    """Where boxes surely belong to a region, and where surely nothing of them does."""
    assert relation.rule is not None
    yes, no = [], []
    for side in relation.sides:
        first, second = side.known(side.whole(x, y))
        yes.append(first)
        no.append(second)
    return known(relation.rule, yes, no)


def _parted(grid: Lattice, left: Cells, over: Floats) -> tuple[Floats, Floats]:
    """What is left over: squares in small groups of cells, and those that are open."""
    none = np.empty((0, 4))
    if not len(over):
        return none, none
    if len(left.i) > MOST_GROUPED:
        return none, over
    group, sizes = _groups(left)
    wide, high = grid.x[1] - grid.x[0], grid.y[1] - grid.y[0]
    i = np.floor(((over[:, 0] + over[:, 1]) / 2 - grid.x[0]) / wide).astype(np.int64)
    j = np.floor(((over[:, 2] + over[:, 3]) / 2 - grid.y[0]) / high).astype(np.int64)
    small = np.array(
        [
            sizes.get(group.get(cell, -1), SMALL + 1) <= SMALL
            for cell in zip(i.tolist(), j.tolist(), strict=True)
        ]
    )
    return over[small], over[~small]


def _groups(cells: Cells) -> tuple[dict[tuple[int, int], int], dict[int, int]]:
    """Which cells hang together, and how many cells a group is across."""
    pending = set(zip(cells.i.tolist(), cells.j.tolist(), strict=True))
    group: dict[tuple[int, int], int] = {}
    sizes = {}
    number = 0
    while pending:
        stack = [pending.pop()]
        members = []
        while stack:
            i, j = stack.pop()
            members.append((i, j))
            for near in ((i + a, j + b) for a in (-1, 0, 1) for b in (-1, 0, 1)):
                if near in pending:
                    pending.remove(near)
                    stack.append(near)
        across = [max(m[k] for m in members) - min(m[k] for m in members) + 1 for k in (0, 1)]
        sizes[number] = max(across)
        group |= dict.fromkeys(members, number)
        number += 1
    return group, sizes


def shaded(relation: Relation, frame: Screen) -> Floats:
    """The part of a frame where a region is: rectangles (left, right, bottom, top).

    Cells that are neither surely inside nor surely outside are parted in four, and a part belongs
    where its middle does.
    """
    grid = lattice(frame)
    cells, size = all_blocks(grid), BLOCK
    full: list[Floats] = []
    while True:
        x, y = grid.boxes(cells.i, cells.j, size)
        yes, no = known_in(relation, x, y)
        full.append(rectangles(grid, cells.some(yes), size))
        cells = cells.some(~yes & ~no)
        if size == 1 or len(cells.i) > MOST_UNKNOWN:
            break
        cells, size = halved(cells, size), size // 2
    while size > 1:  # too many to be proved: by their middles
        cells, size = halved(cells, size), size // 2
        if len(cells.i) > 4 * MOST_UNKNOWN:
            break
    parts = quartered(rectangles(grid, cells, size))
    middle = (parts[:, [0, 2]] + parts[:, [1, 3]]) / 2
    full.append(parts[relation.holds(middle[:, 0], middle[:, 1])])
    return side_by_side(np.concatenate(full))


def rectangles(grid: Lattice, cells: Cells, size: int) -> Floats:
    """Squares of so many cells as rectangles (left, right, bottom, top)."""
    return np.stack(
        [grid.x[cells.i], grid.x[cells.i + size], grid.y[cells.j], grid.y[cells.j + size]], axis=1
    )


def area_of(boxes: Floats) -> float:
    """The area that rectangles have together."""
    return float(((boxes[:, 1] - boxes[:, 0]) * (boxes[:, 3] - boxes[:, 2])).sum())


def side_by_side(boxes: Floats) -> Floats:
    """The rectangles with those side by side made into one."""
    if not len(boxes):
        return boxes
    boxes = boxes[np.lexsort((boxes[:, 0], boxes[:, 3], boxes[:, 2]))]
    near = 1e-9 * float(np.abs(boxes).max())
    follows = (
        (np.abs(boxes[1:, 0] - boxes[:-1, 1]) <= near)
        & (np.abs(boxes[1:, 2] - boxes[:-1, 2]) <= near)
        & (np.abs(boxes[1:, 3] - boxes[:-1, 3]) <= near)
    )
    first = np.flatnonzero(np.concatenate([[True], ~follows]))
    last = np.concatenate([first[1:] - 1, [len(boxes) - 1]])
    runs = boxes[first].copy()
    runs[:, 1] = boxes[last, 1]
    return runs


def borders(relation: Relation, frame: Screen) -> tuple[Floats, Floats, Floats]:
    """The border of a region: segments where it belongs to it and where not, and open squares."""
    belongs, beyond, still = [np.empty((0, 2, 2))], [np.empty((0, 2, 2))], [np.empty((0, 4))]
    pixel = (frame.right - frame.left) / frame.width, (frame.top - frame.bottom) / frame.height
    for number, side in enumerate(relation.sides):
        bare = Relation((side,), None, None)
        found = curve_drawn(bare, side, frame)
        middle = found.segments.mean(axis=1)
        across = (found.segments[:, 1] - found.segments[:, 0]) / pixel
        normal = np.stack([-across[:, 1], across[:, 0]], axis=1)
        length = np.hypot(normal[:, 0], normal[:, 1])[:, None]
        with np.errstate(all="ignore"):
            step = np.nan_to_num(normal / length) * 0.05 * pixel
        here, there = middle + step, middle - step
        one, other = (relation.holds(p[:, 0], p[:, 1]) for p in (here, there))
        edge = one != other
        on = _holds_on(relation, number, middle)
        belongs.append(found.segments[edge & on])
        beyond.append(found.segments[edge & ~on])
        still.append(found.open)
    return np.concatenate(belongs), np.concatenate(beyond), np.concatenate(still)


def _holds_on(relation: Relation, number: int, places: Floats) -> Truth:
    """Whether places on the border of one comparison belong to a region."""
    found = [side.holds(places[:, 0], places[:, 1]) for side in relation.sides]
    found[number] = np.full(len(places), relation.sides[number].sign in ("<=", ">=", "="))
    return relation.ruled(found)
