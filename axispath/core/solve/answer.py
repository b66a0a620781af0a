"""All solutions of a question in an interval, or on the whole line.

On a bounded part they are the zeros of the difference of the sides, found and proved as every
path is. Far out the line is folded in by u = 1/x, so that the search there is bounded too, and
the expansion at u = 0 settles what happens towards infinity (path/germ.py).
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass, replace

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.floats import float_function
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.find import find_path, find_zeros
from axispath.core.path.landmark import BREAKS, Kind, Landmark, Open, Path, Span, Stretch
from axispath.core.path.lanes import Effort
from axispath.core.solve.question import Question
from axispath.core.solve.sets import Interval, common, united

FOLD = 16.0  # beyond ±this the line is looked at through u = 1/x
MOST = 1000  # solutions that are listed
THOROUGH = Effort(evaluations=20_000)
BITS = 160
CLOSE = 1e-9
KEPT = {"<": (-1,), "<=": (-1, 0), ">": (1,), ">=": (1, 0), "=": (0,)}


@dataclass(frozen=True, slots=True)
class Solution:
    """One solution, the height of the sides there, and how far apart they are in floats."""

    mark: Landmark
    y: float
    residual: float


@dataclass(frozen=True, slots=True)
class Miss:
    """The place where two sides that never meet come closest; ``x`` is ±∞ for ever closer."""

    x: float
    apart: float


@dataclass(frozen=True, slots=True)
class Answer:
    """What was found from ``low`` to ``high``, which may be infinite.

    ``always`` are stretches on which the sides are the same; ``solved`` is the solution set of
    an inequality. Outside ``open`` nothing is missing.
    """

    low: float
    high: float
    solutions: tuple[Solution, ...]
    always: tuple[Interval, ...]
    open: tuple[Open, ...]
    defined: bool
    everywhere: bool
    solved: tuple[Interval, ...] | None
    nearest: Miss | None
    more: bool

    @property
    def complete(self) -> bool:
        """Whether there are no solutions but these, for certain."""
        return not self.open and not self.more


def answer(
    question: Question, low: End | None, high: End | None, effort: Effort = THOROUGH
) -> Answer:
    """Solve between ``low`` and ``high``; None is infinity."""
    looks = [
        _look(question, index, low, high, effort) for index in range(len(question.differences))
    ]
    marks = [(mark, index) for index, look in enumerate(looks) for mark in _zeros(look)]
    marks.sort(key=lambda found: found[0].x)
    solutions = tuple(_solution(question, mark, index) for mark, index in marks[:MOST])
    paths = [path for look in looks for path in look.paths]
    always = tuple(part for part in looks[0].kept("=") if part.low < part.high)
    undefined = all(p.undefined and not p.spans and not p.open and not p.zero for p in paths)
    solved = None
    if not question.is_equation:
        solved = looks[0].kept(question.comparison.signs[0])
        for look, sign in zip(looks[1:], question.comparison.signs[1:], strict=True):
            solved = common(solved, look.kept(sign))
    everywhere = bool(always) and not marks and all(not p.spans and not p.open for p in paths)
    found = Answer(
        -math.inf if low is None else low.x,
        math.inf if high is None else high.x,
        solutions,
        always,
        tuple(item for path in paths for item in path.open),
        not undefined,
        everywhere,
        solved,
        None,
        len(marks) > MOST or any(path.more for path in paths),
    )
    if question.is_equation and not solutions and not always and found.complete and found.defined:
        found = replace(found, nearest=_nearest(question, low, high, effort))
    return found


@dataclass(frozen=True)
class _Look:
    """The paths of one difference over the parts of the line, in order, in terms of x."""

    paths: list[Path]

    def kept(self, sign: str) -> tuple[Interval, ...]:
        """Where the difference has a sign that an inequality asks for."""
        parts = [part for path in self.paths for part in _kept(path, KEPT[sign])]
        return united(parts)


def _look(
    question: Question, index: int, low: End | None, high: End | None, effort: Effort
) -> _Look:
    plan, tree = question.differences[index], question.difference_trees[index]
    unit = question.unit

    def searched(plan: Program, start: End, stop: End) -> Path:
        path = find_zeros(plan, unit, start, stop, effort.budget(1), with_breaks=True)
        return replace(path, spans=tuple(_spans(path, BallFunction(plan, unit))))

    def near(start: End, stop: End) -> Path:
        return searched(plan, start, stop)

    paths = []
    start = low if low is not None else End.at(-max(FOLD, 2 * abs(high.x) if high else FOLD))
    stop = high if high is not None else End.at(max(FOLD, 2 * abs(low.x) if low else FOLD))
    if low is None:
        path = searched(question.outwards(tree), End.at(1 / start.x), _OPEN_ZERO)
        paths.append(_unfolded(path, near))
    paths.append(near(start, stop))
    if high is None:
        path = searched(question.outwards(tree), _OPEN_ZERO, End.at(1 / stop.x))
        paths.append(_unfolded(path, near))
    return _Look(paths)


_OPEN_ZERO = replace(End.at(0.0), closed=False, of_domain=True)


def _spans(path: Path, balls: BallFunction) -> Iterator[Span]:
    """The stretches between zeros and breaks, with the one sign that the values have there."""
    marks = [m.x for m in path.landmarks if m.kind is Kind.ZERO or m.kind in BREAKS]
    taken = [(s.low, s.high) for group in (path.zero, path.undefined, path.open) for s in group]
    cuts = sorted({path.low, path.high, *marks, *(x for ends in taken for x in ends)})
    with precision(BITS):
        for low, high in itertools.pairwise(cuts):
            middle = low + (high - low) / 2
            if any(start <= middle <= stop for start, stop in taken) or not low < middle < high:
                continue
            with suppress(OutsideDomain):
                value = balls.value(arb(middle))
                if value > 0 or value < 0:
                    yield Span(low, high, 1 if value > 0 else -1, 0, 0)


def _unfolded(path: Path, near: Callable[[End, End], Path]) -> Path:
    """A path in u = 1/x as one in x. Zeros are found anew there, to full precision."""

    def out(u: float) -> float:
        return 1 / u if u else math.copysign(math.inf, path.low + path.high)

    marks = []
    for mark in reversed(path.landmarks):
        if mark.x == 0.0:
            continue
        x = out(mark.x)
        fresh = None
        if mark.kind is Kind.ZERO:
            room = abs(x) * CLOSE
            again = near(End.at(x - room), End.at(x + room)).of(Kind.ZERO)
            fresh = again[0] if len(again) == 1 else None
        marks.append(
            fresh
            or replace(
                mark,
                x=x,
                left=mark.right,
                right=mark.left,
                radius=mark.radius * x * x + math.ulp(x),
                low=out(mark.high),
                high=out(mark.low) if mark.low * mark.high > 0 else x,
            )
        )
    spans = tuple(replace(s, low=out(s.high), high=out(s.low)) for s in reversed(path.spans))
    return Path(
        out(path.high),
        out(path.low),
        tuple(marks),
        spans,
        # At u = 0 itself there is no x.
        tuple(
            replace(o, low=out(o.high), high=out(o.low))
            for o in reversed(path.open)
            if o.low or o.high
        ),
        tuple(replace(g, low=out(g.high), high=out(g.low)) for g in reversed(path.undefined)),
        tuple(Stretch(out(z.high), out(z.low)) for z in reversed(path.zero)),
        (),
        path.more,
    )


def _zeros(look: _Look) -> list[Landmark]:
    """All zeros from left to right, each once: parts of the line share their ends."""
    marks = [m for path in look.paths for m in path.of(Kind.ZERO)]
    marks.sort(key=lambda mark: mark.x)
    found: list[Landmark] = []
    for mark in marks:
        if not found or mark.x > found[-1].x + 4 * (mark.radius + math.ulp(mark.x)):
            found.append(mark)
    return found


def _solution(question: Question, mark: Landmark, index: int) -> Solution:
    at = np.array([mark.x])
    sides = question.sides[index : index + 2]
    heights = [float(float_function(side, question.unit)(at)[0]) for side in sides]
    shown = replace(mark, kind=Kind.INTERSECTION, y=heights[0] + 0.0)
    return Solution(shown, heights[0] + 0.0, heights[0] - heights[1])


def _kept(path: Path, signs: tuple[int, ...]) -> Iterator[Interval]:
    """The parts of a path on which the function has one of some signs."""
    marks = [m for m in path.landmarks if m.kind is Kind.ZERO or m.kind in BREAKS]
    places = {mark.x for mark in marks}

    def snapped(x: float) -> float:
        # A span ends at the bracket of a landmark, which is a little beside it.
        near = min(places, key=lambda place: abs(place - x), default=x)
        return near if abs(near - x) <= CLOSE * max(1.0, abs(x)) else x

    stretches = [(s.low, s.high) for s in path.spans if s.sign in signs]
    stretches += [(s.low, s.high) for s in path.zero if 0 in signs]
    for low, high in ((snapped(a), snapped(b)) for a, b in stretches):
        # Where nothing happens at an end the curve goes on through it; else the landmark there
        # tells whether it belongs to the set.
        ends = [x not in places and math.isfinite(x) for x in (low, high)]
        yield Interval(low, high, *ends)
    for mark in marks:
        if mark.kind is Kind.ZERO:
            value = 0.0
        elif mark.closed and math.isfinite(mark.y):
            value = mark.y if abs(mark.y) > mark.y_radius else 0.0
        else:
            continue
        if int(np.sign(value)) in signs:
            yield Interval(mark.x, mark.x, True, True)


def _nearest(question: Question, low: End | None, high: End | None, effort: Effort) -> Miss | None:
    """Where the sides of an equation without solutions come closest."""
    plan = question.differences[0]
    start = low or End.at(-FOLD)
    stop = high or End.at(FOLD)
    path = find_path(plan, question.unit, start, stop, effort.budget(1))
    apart = [
        Miss(mark.x, abs(y))
        for mark in path.landmarks
        for y in (mark.y, mark.left, mark.right)
        if math.isfinite(y)
    ]
    apart += _at(plan, question, [start.x, stop.x])
    best = min(apart, key=lambda miss: miss.apart, default=None)
    for end, reach in ((low, -1.0), (high, 1.0)):
        if end is None:
            far = _at(plan, question, [reach * 10.0**k for k in (2, 4, 6)])
            nearer = len(far) == 3 and far[2].apart <= far[1].apart <= far[0].apart
            if nearer and (best is None or far[2].apart < best.apart):
                best = Miss(math.copysign(math.inf, reach), 0.0)
    return best


def _at(plan: Program, question: Question, places: list[float]) -> list[Miss]:
    values = float_function(plan, question.unit)(np.array(places, dtype=float))
    pairs = zip(places, values, strict=True)
    return [Miss(float(x), abs(float(y))) for x, y in pairs if math.isfinite(y)]
