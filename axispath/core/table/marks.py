"""Reading solutions off a table: where a column changes sign or two cross between rows, and why."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.path.lanes import Effort, difference
from axispath.core.search.find import find_zeros
from axispath.core.search.landmark import Kind
from axispath.core.sheet.resolve import ResolvedLane

EFFORT = Effort(evaluations=400)
MOST = 60  # stretches of rows that are looked into
CROSSED = 4  # columns that are compared with one another
Event = Literal["zero", "cross", "on the row", "pole", "jump", "not settled"]


@dataclass(frozen=True, slots=True)
class RowMark:
    """What happens between a row and the next (on the row itself for “on the row”).

    ``x`` is the proven place; ``other`` the second column of a crossing.
    """

    row: int
    column: int
    event: Event
    x: float | None = None
    other: int | None = None


def row_marks(
    sources: Sequence[ResolvedLane | None],
    x: NDArray[np.float64],
    values: Sequence[NDArray[np.float64]],
    effort: Effort = EFFORT,
) -> list[RowMark]:
    """The marks of some successive rows at ``x``; ``values`` are those of each column."""
    found = []
    budget = [MOST]
    for k, (source, y) in enumerate(zip(sources, values, strict=True)):
        if source is not None:
            found += _of(source.program, source, x, y, k, None, budget, effort)
    whole = [k for k, s in enumerate(sources) if s is not None and not s.running][:CROSSED]
    for a, b in itertools.combinations(whole, 2):
        first, second = sources[a], sources[b]
        assert first is not None and second is not None
        apart = values[a] - values[b]
        if np.isfinite(apart).any() and not np.all(apart[np.isfinite(apart)] == 0):
            plan = difference(first, second)
            found += _of(plan, first, x, apart, a, b, budget, effort)
    # In the order in which they are met from row to row; what has no place comes last.
    away = [np.inf if mark.x is None else abs(mark.x - float(x[mark.row])) for mark in found]
    order = sorted(range(len(found)), key=lambda k: (found[k].row, away[k], found[k].column))
    return [found[k] for k in order]


def _of(
    plan: Program,
    source: ResolvedLane,
    x: NDArray[np.float64],
    y: NDArray[np.float64],
    column: int,
    other: int | None,
    budget: list[int],
    effort: Effort,
) -> list[RowMark]:
    found = [
        RowMark(int(row), column, "on the row", float(x[row]), other)
        for row in np.flatnonzero(y == 0)[:MOST]
    ]
    for before, after in _changes(y):
        low, high = sorted((float(x[before]), float(x[after])))
        event, place = _between(plan, source, low, high, other, budget, effort)
        found.append(RowMark(before, column, event, place, other))
    return found


def _changes(y: NDArray[np.float64]) -> list[tuple[int, int]]:
    """Pairs of rows with different signs, with nothing or one undefined row between them."""
    sign = np.sign(y)
    near = [(int(i), int(i) + 1) for i in np.flatnonzero(sign[:-1] * sign[1:] < 0)]
    gap = np.isnan(y[1:-1]) & (sign[:-2] * sign[2:] < 0)
    return near + [(int(i), int(i) + 2) for i in np.flatnonzero(gap)]


def _between(
    plan: Program,
    source: ResolvedLane,
    low: float,
    high: float,
    other: int | None,
    budget: list[int],
    effort: Effort,
) -> tuple[Event, float | None]:
    if budget[0] <= 0:
        return "not settled", None
    budget[0] -= 1
    path = find_zeros(
        plan, source.unit, End.at(low), End.at(high), effort.budget(1), with_breaks=True
    )
    zeros = path.of(Kind.ZERO)
    if zeros:
        return ("zero" if other is None else "cross"), zeros[0].x
    if not path.complete:
        return "not settled", None
    poles, jumps = path.of(Kind.POLE), path.of(Kind.JUMP, Kind.HOLE)
    if poles:
        return "pole", poles[0].x
    # Without a zero or a break inside, the signs differ by a break on one of the two rows.
    return "jump", jumps[0].x if jumps else None
