"""Landmarks in many states of what moves, all at once: seen by a scan, and proved.

A scan in floating point sees where a function and its first derivatives change sign; Newton's
method narrows that, and interval Newton proves it, as it maps a tight box into itself (Moore 1966,
Interval Analysis; Kearfott 1996, Rigorous Global Search, chapter 1). All states and all places are
carried along in the same arrays. What cannot be proved is left out: while something moves a
landmark may be missing that a scan does not see, and none is ever wrong.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axispath.core.arithmetic.boxes import OPERATIONS, THROUGHOUT, Boxes, between, outwards
from axispath.core.arithmetic.guessing import guess
from axispath.core.arithmetic.places import uneven
from axispath.core.arithmetic.rationals import exact_registers
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.path.lanes import Range
from axispath.core.search.landmark import Certainty, Kind, Landmark, Method, Path
from axispath.core.search.prepared import prepared
from axispath.core.search.spans import in_order
from axispath.core.sheet.states import Moved

SAMPLES = 600
PARTS = 64  # of an interval, on each of which a formula is looked at for breaks
STEPS = 4  # of Newton's method
CROWDED = 300  # changes of sign in a state, from which on a scan sees too little to be worth it
REACH = 2.0**-34  # of the place or of the interval: how far around it there is no other zero
Floats = NDArray[np.float64]
Index = NDArray[np.int64]
Heights = Callable[[Boxes, Index], Boxes]


def is_smooth(moved: Moved, ends: Range) -> bool:
    """Whether a formula surely neither breaks nor has a kink between two ends, in any state."""
    if not prepared(moved.at(0)).guards:
        return True
    borders = np.linspace(ends[0].x, ends[1].x, PARTS + 1)
    count = len(moved.numbers)
    parts = between(np.tile(borders[:-1], count), np.tile(borders[1:], count))
    numbers = _numbers(moved, np.repeat(np.arange(count), PARTS))
    for level in (0, 1, 2):
        boxed = moved.boxed(level)
        if boxed is None or not (boxed(parts, *numbers).state == THROUGHOUT).all():
            return False
    return True


def proved(
    moved: Moved,
    ends: Range,
    levels: tuple[int, ...],
    heights: Heights,
    zero: Kind = Kind.ZERO,
) -> list[Path] | None:
    """The zeros of some derivatives of a moving formula in all its states; None where there is
    no program of one of them.

    ``heights`` gives the values that landmarks have, ``zero`` is what those of the formula are.
    """
    low, high = ends[0].x, ends[1].x
    count = len(moved.numbers)
    found: list[list[Landmark]] = [[] for _ in range(count)]
    for level in levels:
        zeros = _zeros(moved, ends, level, heights)
        if zeros is None:
            return None
        kind = {0: zero, 2: Kind.INFLECTION}.get(level)
        for k, mark in zeros.landmarks(kind):
            found[k].append(mark)
            touches = level == 1 and 0 in levels and mark.y == 0.0
            if touches and (exact := _exactly_zero(moved, k, mark)) is not None:
                found[k].append(exact)
    if 1 in levels and low <= 0 <= high:
        for k, intercept in enumerate(_intercepts(heights, count)):
            found[k] += [intercept] if intercept is not None else []
    return [Path(low, high, tuple(in_order(marks)), (), (), (), (), more=True) for marks in found]


def _zeros(moved: Moved, ends: Range, level: int, heights: Heights) -> _Zeros | None:
    values, slopes = moved.rows(level), moved.rows(level + 1)
    below, above = moved.boxed(level), moved.boxed(level + 1)
    if values is None or slopes is None or below is None or above is None:
        return None
    low, high = ends[0].x, ends[1].x
    x = low + (high - low) * uneven(SAMPLES)
    row, at = _changes(values.grid(x))
    left, right, place = x[at], x[at + 1], (x[at] + x[at + 1]) / 2
    with np.errstate(all="ignore"):
        for _ in range(STEPS):
            place = np.clip(place - values.at(place, row) / slopes.at(place, row), left, right)
    reach = np.maximum(np.abs(place), high - low) * REACH
    single, tight = between(place, place), between(place - reach, place + reach)
    numbers = _numbers(moved, row)
    there, value, slope = below(tight, *numbers), below(single, *numbers), above(tight, *numbers)
    with np.errstate(all="ignore"):
        mapped = OPERATIONS["subtract"](single, OPERATIONS["divide"](value, slope))
        sure = (there.state == THROUGHOUT) & slope.has_no_zero & (mapped.state == THROUGHOUT)
        sure &= (mapped.low > tight.low) & (mapped.high < tight.high)
        sure &= (mapped.low >= low) & (mapped.high <= high)
    mapped = Boxes(mapped.low[sure], mapped.high[sure], mapped.state[sure])
    row = row[sure]
    return _Zeros(row, mapped, reach[sure], slope.low[sure] > 0, heights(mapped, row))


def _changes(y: Floats) -> tuple[Index, Index]:
    """Rows and places after which the sign changes, a 0 counting as below."""
    above = y > 0
    change = (above[:, :-1] != above[:, 1:]) & np.isfinite(y[:, :-1]) & np.isfinite(y[:, 1:])
    change[change.sum(axis=1) > CROWDED] = False
    row, at = np.nonzero(change)
    return row, at


def _numbers(moved: Moved, row: Index) -> list[Boxes]:
    """What is turned, as boxes, each in the state of its row."""
    found = []
    for values in zip(*moved.numbers, strict=True):
        near = np.array([float(value) for value in values])[row]
        found.append(outwards(near, near, np.full(len(row), THROUGHOUT)))
    return found


def heights_of(moved: Moved) -> Heights | None:
    """The values of a moving formula on boxes."""
    boxed = moved.boxed(0)
    if boxed is None:
        return None

    def heights(x: Boxes, row: Index) -> Boxes:
        return boxed(x, *_numbers(moved, row))

    return heights


def _intercepts(heights: Heights, count: int) -> list[Landmark | None]:
    """The height at 0 in each state, where there is one."""
    zero = np.zeros(count)
    found = heights(between(zero, zero), np.arange(count))
    marks: list[Landmark | None] = []
    for k in range(count):
        y, radius = _middle(found.low[k], found.high[k])
        there = found.state[k] == THROUGHOUT and np.isfinite(y)
        marks.append(
            Landmark(
                Kind.Y_INTERCEPT,
                0.0,
                y,
                Certainty.PROVEN,
                y_radius=radius,
                method=Method.VALUE,
            )
            if there
            else None
        )
    return marks


def _exactly_zero(moved: Moved, k: int, turning: Landmark) -> Landmark | None:
    """The zero that a turning point at height 0 is, where exact arithmetic tells so."""
    plan, unit = moved.at(k), moved.unit
    for exact in guess(arb(turning.x, turning.radius), unit is AngleUnit.DEGREE):
        value = exact_registers(plan, unit, exact)[plan.result]
        if value is not None and value.is_zero:
            return replace(
                turning,
                kind=Kind.ZERO,
                x=float(exact.ball),
                certainty=Certainty.EXACT,
                radius=0.0,
                y_radius=0.0,
                method=Method.EXACT,
                exact=exact,
            )
    return None


@dataclass(frozen=True, slots=True)
class _Zeros:
    """Zeros that are proved, each in the state of its row: where, how far around it there is no
    other, whether what is zero rises, and the values there.
    """

    row: Index
    place: Boxes
    reach: Floats
    rises: NDArray[np.bool_]
    heights: Boxes

    def landmarks(self, kind: Kind | None) -> list[tuple[int, Landmark]]:
        """The landmarks with their states; without a ``kind`` they are turning points."""
        parts = (self.place.low, self.place.high, self.reach, self.rises)
        lists = [part.tolist() for part in (*parts, self.heights.low, self.heights.high, self.row)]
        found = []
        for low, high, reach, rises, lowest, highest, row in zip(*lists, strict=True):
            x, radius = _middle(low, high)
            y, y_radius = (0.0, 0.0) if kind is Kind.ZERO else _middle(lowest, highest)
            own = kind or (Kind.MINIMUM if rises else Kind.MAXIMUM)
            mark = Landmark(
                own, x, y, Certainty.PROVEN, radius, x - reach, x + reach, y_radius=y_radius
            )
            found.append((row, mark))
        return found


def _middle(low: float, high: float) -> tuple[float, float]:
    """The middle of an interval, 0 where it may be, and how far off its ends are."""
    middle = 0.0 if low <= 0 <= high else low + (high - low) / 2
    return middle, max(high - middle, middle - low)
