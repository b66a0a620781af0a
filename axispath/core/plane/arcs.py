"""From cells in which a difference of sides is 0 to lines: one stroke through each cell.

Where the signs at the ends of a side of a cell differ, the place between is found as closely as
floats allow; both cells beside it share it, so that a line has no gaps.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from axispath.core.plane.cells import Cells, Lattice

Floats = NDArray[np.float64]
Whole = NDArray[np.int64]
Values = Callable[[Floats, Floats], Floats]
STEPS = 10
# Sides of a cell: whether it runs along x, and where it begins.
SIDES = ((1, 0, 0), (1, 0, 1), (0, 0, 0), (0, 1, 0))


def arcs_in_cells(values: Values, grid: Lattice, cells: Cells) -> Floats:
    """Segments, shape (n, 2, 2), one for each cell that a line passes."""
    if not len(cells.i):
        return np.empty((0, 2, 2))
    wide = len(grid.y)
    nodes = [(cells.i + di) * wide + cells.j + dj for di in (0, 1) for dj in (0, 1)]
    known, back = np.unique(np.concatenate(nodes), return_inverse=True)
    found = values(grid.x[known // wide], grid.y[known % wide])
    corner = found[back].reshape(4, -1)  # (0,0) (0,1) (1,0) (1,1)
    ends = []
    for along_x, di, dj in SIDES:
        first, last = 2 * di + dj, 2 * (di + along_x) + dj + (1 - along_x)
        ends.append((corner[first] >= 0) != (corner[last] >= 0))
    crossed = np.stack(ends)
    at = np.flatnonzero((crossed.sum(axis=0) == 2) & np.isfinite(corner).all(axis=0))
    if not len(at):
        return np.empty((0, 2, 2))
    order = np.argsort(~crossed[:, at], axis=0, kind="stable")[:2]
    sides = np.array(SIDES)
    numbers = []
    for which in order:
        along_x, di, dj = sides[which].T
        numbers.append(2 * ((cells.i[at] + di) * wide + cells.j[at] + dj) + along_x)
    edges, back = np.unique(np.concatenate(numbers), return_inverse=True)
    places = _on_edges(values, grid, edges, wide)
    return places[back].reshape(2, -1, 2).transpose(1, 0, 2)


def _on_edges(values: Values, grid: Lattice, edges: Whole, wide: int) -> Floats:
    node, along_x = edges // 2, edges % 2 == 1
    i, j = node // wide, node % wide
    low = np.stack([grid.x[i], grid.y[j]], axis=1)
    high = np.stack([grid.x[i + along_x], grid.y[j + ~along_x]], axis=1)
    return _between(values, low, high)


def _between(values: Values, low: Floats, high: Floats) -> Floats:
    """Where the sign changes between two places each: the rule of false position, as the Illinois
    algorithm has it (M. Dowell and P. Jarratt 1971), with a middle where a step is no use.
    """
    at, until = np.zeros(len(low)), np.ones(len(low))
    span = high - low
    first, last = values(low[:, 0], low[:, 1]), values(high[:, 0], high[:, 1])
    below, nearer = first >= 0, np.abs(last) < np.abs(first)
    best = np.where(nearer[:, None], high, low)
    least = np.where(nearer, np.abs(last), np.abs(first))
    for _ in range(STEPS):
        with np.errstate(all="ignore"):
            share = at + (until - at) * first / (first - last)
        share = np.where((share > at) & (share < until), share, (at + until) / 2)
        place = low + span * share[:, None]
        value = values(place[:, 0], place[:, 1])
        better = np.abs(value) < least
        best, least = np.where(better[:, None], place, best), np.where(better, np.abs(value), least)
        same = (value >= 0) == below
        at, until = np.where(same, share, at), np.where(same, until, share)
        first = np.where(same, value, first / 2)
        last = np.where(same, last / 2, value)
    return best


def arcs_in_squares(values: Values, squares: Floats) -> Floats:
    """Segments in single squares (left, right, bottom, top)."""
    if not len(squares):
        return np.empty((0, 2, 2))
    left, right, bottom, top = squares.T
    corners = np.stack(
        [np.stack(p, axis=1) for p in ((left, bottom), (left, top), (right, bottom), (right, top))]
    )
    corner = np.stack([values(c[:, 0], c[:, 1]) for c in corners])
    pairs = np.array([(0, 2), (1, 3), (0, 1), (2, 3)])
    crossed = np.stack([(corner[a] >= 0) != (corner[b] >= 0) for a, b in pairs])
    at = np.flatnonzero((crossed.sum(axis=0) == 2) & np.isfinite(corner).all(axis=0))
    if not len(at):
        return np.empty((0, 2, 2))
    order = np.argsort(~crossed[:, at], axis=0, kind="stable")[:2]
    ends = []
    for which in order:
        first, last = pairs[which].T
        ends.append(_between(values, corners[first, at], corners[last, at]))
    return np.stack(ends, axis=1)


def joined(segments: Floats, near: float) -> Floats:
    """The segments as lines, rows (x, y) with a row of NaN behind each; ends closer than ``near``
    are one.
    """
    if not len(segments):
        return np.empty((0, 2))
    ends = segments.reshape(-1, 2)
    keys = np.round(ends / near).astype(np.int64)
    keys -= keys.min(axis=0)
    single = keys[:, 0] * (int(keys[:, 1].max()) + 1) + keys[:, 1]
    _, back = np.unique(single, return_inverse=True)
    number = back.reshape(-1, 2).tolist()
    touching: dict[int, list[int]] = {}
    for k, (a, b) in enumerate(number):
        touching.setdefault(a, []).append(k)
        touching.setdefault(b, []).append(k)
    used = [False] * len(number)
    # Ends in the order in which they are passed: twice the number of a segment, and its side.
    order: list[int] = []
    # Lines with ends are begun at an end, closed ones anywhere.
    starts = [k for k, (a, b) in enumerate(number) if 1 in (len(touching[a]), len(touching[b]))]
    for start in (*starts, *range(len(number))):
        if used[start]:
            continue
        a, b = number[start]
        flip = len(touching[b]) == 1 and len(touching[a]) != 1
        order += [2 * start + flip, 2 * start + 1 - flip]
        used[start] = True
        at = a if flip else b
        while True:
            after = next((k for k in touching[at] if not used[k]), None)
            if after is None:
                break
            used[after] = True
            one, other = number[after]
            order.append(2 * after + (one == at))
            at = other if one == at else one
        order.append(len(ends))
    return np.concatenate([ends, np.full((1, 2), np.nan)])[order]
