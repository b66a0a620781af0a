"""Paths of the lanes of a sheet, remembered for as long as the lanes stay the same."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import TypeVar

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import nearest, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.arithmetic.program import Definition, NotComputable, Program, extended
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.tree import Call, Expression, Name, Negation, Sum
from axispath.core.memory import Memory
from axispath.core.search.budget import EVALUATIONS, Budget
from axispath.core.search.find import find_path, find_zeros, untouched
from axispath.core.search.landmark import Kind, Landmark, Path
from axispath.core.sheet.resolve import ResolvedLane

T = TypeVar("T")
REMEMBERED = 32 << 20  # bytes, roughly
STEP, LANDMARK = 300, 600  # bytes that a step of a program and a landmark take, roughly
MOST_CROSSED = 12
BITS = 106
OVERTIME = 4  # times a search's budget, after which it is broken off wherever it is
SEARCHES = 5  # as many searches of a look at a sheet may take the whole effort each
LEAST = 300  # evaluations


@dataclass(frozen=True, slots=True)
class Effort:
    """What one look at a sheet may cost: of each search, while there are few of them.

    ``seconds`` needs a ``clock``, which the core does not have.
    """

    evaluations: int = EVALUATIONS
    seconds: float | None = None
    clock: Callable[[], float] | None = None

    def shared(self, searches: int) -> Effort:
        """The part of it that each of so many searches gets, all of it together."""
        seconds = None if self.seconds is None else self.seconds / max(searches, 1)
        return replace(self, evaluations=self.evaluations // max(searches, 1), seconds=seconds)

    def budget(self, searches: int) -> Budget:
        """The budget of one of so many searches."""
        part = min(1.0, SEARCHES / max(searches, 1))
        seconds = None if self.seconds is None else self.seconds * part
        return Budget(max(LEAST, int(self.evaluations * part)), seconds, self.clock)


USUAL = Effort()


def _weight(key: tuple[Hashable, ...], found: Path) -> int:
    steps = sum(len(part.steps) for part in key if isinstance(part, Program))
    return steps * STEP + len(found.landmarks) * LANDMARK + 2000


_paths: Memory[Path] = Memory(REMEMBERED, _weight)
Range = tuple[End, End]


def interval(lane: ResolvedLane, left: float, right: float, only: Range | None) -> Range | None:
    """Where to look for landmarks: the whole domain, or the view where the domain has no end.

    ``only`` narrows it to a part. None where nothing of the domain is left.
    """
    low, high = lane.ends
    if only is not None:
        low = only[0] if low is None or only[0].ball > low.ball else low
        high = only[1] if high is None or only[1].ball < high.ball else high
    low = low or End.at(left)
    high = high or End.at(right)
    return (low, high) if low.ball < high.ball else None


def path_of(
    lane: ResolvedLane,
    left: float,
    right: float,
    effort: Effort = USUAL,
    searches: int = 1,
    only: Range | None = None,
) -> Path | None:
    """The path of a lane in a view from ``left`` to ``right``, as one of so many searches."""
    ends = interval(lane, left, right, only)
    if ends is None:
        return None
    budget = effort.budget(searches)
    return remembered(
        ("path", lane.program, lane.unit),
        ends,
        budget,
        lambda: find_path(lane.program, lane.unit, *ends, budget),
    )


def remembered(
    subject: tuple[Hashable, ...], ends: Range, budget: Budget, work: Callable[[], Path]
) -> Path:
    """The path of a subject between two ends, as far as a budget reaches."""

    key = (*subject, ends[0].key, ends[1].key, budget.left, budget.seconds)
    known = _paths.get(key)
    if known is not None:
        return known
    found, own = within_overtime(work, budget.seconds, budget.clock)
    if found is None:
        found = untouched(ends[0].x, ends[1].x)
    if own:
        _paths.keep(key, found)
    return found


def within_overtime(
    work: Callable[[], T], seconds: float | None, clock: Callable[[], float] | None
) -> tuple[T | None, bool]:
    """What a search finds that may take so many seconds; None where it had to be broken off.

    Beside it stands whether that is its own answer, to be remembered: not so where whoever
    asked had less time left than the search itself.
    """
    if clock is None or seconds is None:
        patience, start = None, 0.0
    else:
        patience, start = Patience(seconds * OVERTIME, clock), clock()
    with suppress(OutOfTime), limited(patience):
        return work(), True
    return None, patience is not None and patience.clock() - start >= patience.seconds


@dataclass(frozen=True, slots=True)
class Crossing:
    """Where two lanes meet."""

    first: ResolvedLane
    second: ResolvedLane
    path: Path


def crossing_path(
    first: ResolvedLane,
    second: ResolvedLane,
    left: float,
    right: float,
    budget: Budget,
    only: Range | None,
) -> Path | None:
    """The intersections of two functions on what their domains have in common."""
    ends = common(first, second, left, right, only)
    return None if ends is None else _crossing(first, second, ends, budget)


def common(
    first: ResolvedLane,
    second: ResolvedLane,
    left: float,
    right: float,
    only: Range | None,
) -> Range | None:
    """Where two functions can meet; None where their domains have nothing in common."""
    one, other = (interval(lane, left, right, only) for lane in (first, second))
    if one is None or other is None:
        return None
    low, high = one[0].within(other[0], 1), one[1].within(other[1], -1)
    # Two domains may have a single place in common.
    meet = not low.ball > high.ball and low.belongs and high.belongs
    return (low, high) if low.ball < high.ball or meet else None


def _crossing(first: ResolvedLane, second: ResolvedLane, ends: Range, budget: Budget) -> Path:
    try:
        apart = difference(first, second)
    except NotComputable:
        # Each can be computed, and both together are too much.
        return untouched(ends[0].x, ends[1].x)

    def work() -> Path:
        path = find_zeros(apart, first.unit, *ends, budget)
        return replace(path, landmarks=tuple(met_on(first, mark) for mark in path.landmarks))

    return remembered(("crossing", apart, first.program, first.unit), ends, budget, work)


def met_on(lane: ResolvedLane, mark: Landmark) -> Landmark:
    """A zero of a difference as an intersection: at its height, with what is known of it."""
    y, error = float(lane.floats(np.array([mark.x]))[0]) + 0.0, 0.0
    with precision(BITS), suppress(OutsideDomain):
        low, high = np.nextafter(mark.x, -np.inf), np.nextafter(mark.x, np.inf)
        ball = lane.balls.value(arb(mark.x, max(mark.radius, float(high - low))))
        if ball.is_finite():
            # Floats are off by more than the enclosure is wide.
            y, error = nearest(ball), float(ball.rad())
    return replace(mark, kind=Kind.INTERSECTION, y=y, y_radius=error)


def difference(first: ResolvedLane, second: ResolvedLane) -> Program:
    """first − second as a program of x, without their own domains."""
    body, sides = difference_of(first, second)
    return program(body, ("x",), extended(first.definitions, sides))


def difference_of(
    first: ResolvedLane, second: ResolvedLane
) -> tuple[Expression, dict[str, Definition]]:
    """first − second as a formula, and what the names in it stand for."""
    sides = {"first side": _rule(first), "second side": _rule(second)}
    calls = [Call(name, (Name("x"),)) for name in sides]
    return Sum((calls[0], Negation(calls[1]))), sides


def _rule(lane: ResolvedLane) -> Definition:
    assert lane.statement is not None
    return Definition(lane.parameters, lane.statement.body)
