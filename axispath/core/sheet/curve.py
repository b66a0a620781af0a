"""Curves along which a parameter runs: their coordinates as functions of it, and its range."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.floats import float_function
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.motion import Motion, motion_of
from axispath.core.arithmetic.program import NotComputable, Program
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.points import from_polar
from axispath.core.language.tree import FunctionStatement, Name
from axispath.core.language.walking import coordinates
from axispath.core.memory import Memory
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import END_BITS, ResolvedLane, resolve

TURNS = 3  # of a curve that goes on and on
MANY_TURNS = 10  # of one that never comes back to its start
REACH = 10  # of a parameter about which nothing is known
PROBES = 101
KEPT = 4 << 20

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Curve:
    """The coordinates of a moving point as programs of its parameter; ``radius`` of a polar one."""

    x: Program
    y: Program
    unit: AngleUnit
    radius: Program | None = None

    @cached_property
    def balls(self) -> tuple[BallFunction, BallFunction]:
        """Both coordinates on boxes."""
        return BallFunction(self.x, self.unit), BallFunction(self.y, self.unit)

    @cached_property
    def motion(self) -> Motion:
        """Whether the point comes back."""
        return motion_of(self.x, self.y, self.unit)

    def places(self, t: Floats) -> tuple[Floats, Floats]:
        """Both coordinates in floating point; NaN where there is none."""
        both = (float_function(plan, self.unit)(t) for plan in (self.x, self.y))
        x, y = both
        missing = ~(np.isfinite(x) & np.isfinite(y))
        return np.where(missing, np.nan, x), np.where(missing, np.nan, y)


@dataclass(frozen=True)
class Slopes:
    """The derivatives of a curve's coordinates by rule, and of its radius."""

    x: Program
    y: Program
    radius: Program | None = None


def slopes_of(lane: ResolvedLane) -> Slopes | None:
    """The derivatives of a curve; None where no rule gives them."""
    statement = lane.statement
    assert isinstance(statement, FunctionStatement)
    letter = statement.parameters[0]
    parts = coordinates(statement.body) or from_polar(statement.body, Name(letter))
    trees = [*parts, statement.body] if statement.polar else [*parts]
    try:
        plans = [
            program(derivative(tree, letter, lane.definitions), (letter,), lane.definitions)
            for tree in trees
        ]
    except NotComputable:
        return None
    return Slopes(*plans)


@dataclass(frozen=True)
class Range:
    """From where to where a parameter runs; ``why`` says so where the sheet chose it."""

    low: End
    high: End
    why: str = ""

    @property
    def width(self) -> float:
        """From end to end."""
        return self.high.x - self.low.x


_ranges: Memory[Range] = Memory(KEPT, lambda key, found: 1000)


def curve_of(lane: ResolvedLane) -> Curve:
    """The curve of a lane."""
    x, y = lane.programs
    polar = getattr(lane.statement, "polar", False)
    return Curve(x, y, lane.unit, lane.program if polar else None)


def range_of(lane: ResolvedLane) -> Range:
    """The range of a curve's parameter as written, and what the sheet chooses for missing ends."""
    low, high = lane.ends
    if low is not None and high is not None:
        return Range(low, high)
    curve = curve_of(lane)
    keys = tuple(end.key if end is not None else None for end in (low, high))
    key = (curve.x, curve.y, curve.unit, curve.radius is not None, *keys)
    return _ranges.found(key, lambda: _chosen(curve, low, high))


def _chosen(curve: Curve, low: End | None, high: End | None) -> Range:
    start, stop, why = _natural(curve)
    if low is None and high is None:
        return Range(_end(start), _end(stop), why)
    length = Exact(stop.rational - start.rational, stop.turns - start.turns)
    with precision(END_BITS):
        if low is not None:
            return Range(low, _beyond(low, length, 1), why)
        assert high is not None
        return Range(_beyond(high, length, -1), high, why)


def _beyond(end: End, length: Exact, sign: int) -> End:
    exact = None
    if end.exact is not None:
        exact = Exact(
            end.exact.rational + sign * length.rational, end.exact.turns + sign * length.turns
        )
    return End(end.ball + sign * length.ball, of_domain=True, exact=exact)


def _end(exact: Exact) -> End:
    with precision(END_BITS):
        return End(exact.ball, of_domain=True, exact=exact)


def _natural(curve: Curve) -> tuple[Exact, Exact, str]:
    """A stretch that shows the curve, and why it was chosen."""
    motion, zero = curve.motion, Exact(Fraction(0))
    if motion.period is not None and motion.period.exact is not None:
        return zero, motion.period.exact, "one full period"
    turn = (
        Exact(Fraction(360)) if curve.unit is AngleUnit.DEGREE else Exact(Fraction(0), Fraction(2))
    )
    if motion.never:
        turns = TURNS if "goes on" in motion.never else MANY_TURNS
        stop = Exact(turn.rational * turns, turn.turns * turns)
        return zero, stop, f"{'three' if turns == TURNS else 'ten'} turns: {motion.never}"
    if curve.radius is not None:
        stop = Exact(turn.rational * TURNS, turn.turns * TURNS)
        return zero, stop, "three turns"
    reach = Exact(Fraction(REACH))
    there = np.isfinite(curve.places(np.linspace(-REACH, REACH, PROBES))[0])
    half = PROBES // 2
    if there.any() and not there[:half].any():
        return zero, reach, "as far as it is defined below, and to 10"
    if there.any() and not there[half + 1 :].any():
        return Exact(Fraction(-REACH)), zero, "from −10, as far as it is defined"
    return Exact(Fraction(-REACH)), reach, "from −10 to 10: nothing in it repeats"


def parameters(document: Document) -> dict[str, ResolvedLane]:
    """The letters that run along curves, each with the first curve that has it.

    What is a value of the sheet is none.
    """
    found: dict[str, ResolvedLane] = {}
    sheet = resolve(document)
    named = {lane.name for lane in sheet}
    for lane in sheet:
        if lane.ready and lane.statement is not None and lane.statement.curve:
            letter = lane.parameters[0]
            if letter not in named:
                found.setdefault(letter, lane)
    return found


def written_exact(value: Exact) -> str:
    """An exact end as it is typed: 2π, π/2, −3, 3/4."""
    parts = [_share(value.turns, "π")] if value.turns else []
    if value.rational or not parts:
        parts.insert(0, _share(value.rational, ""))
    return " + ".join(parts).replace("+ −", "− ").replace("+ -", "- ")


def _share(share: Fraction, letter: str) -> str:
    top = abs(share.numerator)
    sign = "-" if share < 0 else ""
    shown = f"{'' if letter and top == 1 else top}{letter}"
    return f"{sign}{shown}" if share.denominator == 1 else f"{sign}{shown}/{share.denominator}"


def end_text(end: End) -> str:
    """An end as a person would type it."""
    if end.exact is not None:
        return written_exact(end.exact)
    return f"{end.x:.12g}"


def times_over(span: Range, motion: Motion) -> Fraction | None:
    """How many periods a range covers, where both are exact; None where that is not known."""
    if motion.period is None or motion.period.exact is None:
        return None
    ends, turn = (span.low.exact, span.high.exact), motion.period.exact
    if ends[0] is None or ends[1] is None:
        return None
    length = Exact(ends[1].rational - ends[0].rational, ends[1].turns - ends[0].turns)
    if turn.turns and not turn.rational and not length.rational:
        return length.turns / turn.turns
    if turn.rational and not turn.turns and not length.turns:
        return length.rational / turn.rational
    return None


def inside(span: Range, t: float) -> float:
    """A parameter held within the range."""
    return min(max(t, span.low.x), span.high.x) if math.isfinite(t) else span.low.x
