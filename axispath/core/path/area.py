"""The area between a curve and the axis, or between two curves, enclosed by balls.

On a stretch about a middle m with half its width r, the Taylor polynomial at m is integrated
exactly and the rest is bounded by the last coefficient over the whole stretch; stretches on
which that is not good enough are halved (R. E. Moore 1966, Interval Analysis; G. F. Corliss
and L. B. Rall 1987, Adaptive, self-validating numerical quadrature).
"""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, nearest, precision
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.numbers import decimal
from axispath.core.search.budget import Budget
from axispath.core.search.find import find_path
from axispath.core.search.landmark import Kind, Path

BITS = 106
ORDER = 7
GOOD = 1e-14  # of the whole that each stretch may be off by, for its share of the width
DEEPEST = 60
MOST = 6000  # evaluations


class NoArea(Exception):
    """There is no area, for the reason that the exception says in a sentence."""


@dataclass(frozen=True, slots=True)
class Area:
    """``signed`` counts what lies below the axis as negative, ``whole`` does not.

    Each is within its error of the true number where ``proven``.
    """

    signed: float
    signed_error: float
    whole: float
    whole_error: float
    proven: bool


def area(plan: Program, unit: AngleUnit, low: float, high: float) -> Area:
    """The area between a function and the axis from ``low`` to ``high``. Raises NoArea."""
    path = find_path(plan, unit, End.at(low), End.at(high), Budget())
    _refuse_breaks(path)
    balls = BallFunction(plan, unit)
    proven = path.complete
    zeros = [mark for mark in path.of(Kind.ZERO) if low < mark.x < high]
    breaks = {m.x for m in path.of(Kind.JUMP, Kind.KINK, Kind.HOLE) if low < m.x < high}
    cuts = sorted({low, high, *breaks, *(mark.x for mark in zeros)})
    with precision(BITS):
        signed, whole = arb(0), arb(0)
        scale = _scale(balls, cuts)
        for start, stop in itertools.pairwise(cuts):
            part, sure = _integral(balls, path, start, stop, scale)
            signed += part
            whole += abs(part)
            proven = proven and sure
        for mark in zeros:
            # The curve changes sign within the radius of the zero, not exactly at its float.
            radius = max(mark.radius, math.ulp(mark.x))
            whole += arb(0, 1) * 4 * arb(radius) * _height(balls, mark.x, radius)
        return Area(nearest(signed), _error(signed), nearest(whole), _error(whole), proven)


def _refuse_breaks(path: Path) -> None:
    poles = path.of(Kind.POLE)
    if poles:
        place = decimal(poles[0].x)
        raise NoArea(f"The curve leaves every bound at x = {place}, so there is no area to give.")
    if path.undefined:
        gap = path.undefined[0]
        part = f"from x = {decimal(gap.low)} to {decimal(gap.high)}"
        raise NoArea(f"The curve is undefined {part}, so there is no area to give.")


def _scale(balls: BallFunction, cuts: list[float]) -> float:
    """About how large the area is; only the effort depends on it."""
    low, high = cuts[0], cuts[-1]
    heights = [_float(balls, low + (high - low) * (k + 0.5) / 16) for k in range(16)]
    return (high - low) * max([1e-300, *(abs(y) for y in heights if math.isfinite(y))])


def _float(balls: BallFunction, x: float) -> float:
    try:
        return float(balls.value(arb(x)).mid())
    except OutsideDomain:
        return math.nan


def _integral(
    balls: BallFunction, path: Path, low: float, high: float, scale: float
) -> tuple[arb, bool]:
    """An enclosure of the integral over a smooth stretch, and whether it is one for certain."""
    total, sure = arb(0), True
    spent = 0
    stack = [(low, high, 0)]
    while stack:
        start, stop, depth = stack.pop()
        spent += 1
        part = _taylor(balls, start, stop)
        share = GOOD * scale * (stop - start) / (high - low)
        if part is not None and float(part.rad()) <= share:
            total += part
            continue
        middle = start + (stop - start) / 2
        if depth < DEEPEST and start < middle < stop:
            if spent > MOST:
                raise NoArea("This area takes more work than the time allowed; try a narrower one.")
            stack += [(start, middle, depth + 1), (middle, stop, depth + 1)]
            continue
        height = _between_ends(balls, path, start, stop)
        if height is None:
            # No bound of the values here is known: the sliver is counted, but not proved.
            sure = False
            y = _float(balls, middle)
            height = arb(y) if math.isfinite(y) else arb(0)
        total += height * (arb(stop) - arb(start))
    return total, sure


def _taylor(balls: BallFunction, start: float, stop: float) -> arb | None:
    middle, half = (arb(start) + arb(stop)) / 2, (arb(stop) - arb(start)) / 2
    try:
        at = balls.taylor(middle, ORDER)
        rest = balls.taylor(arb(middle, half), ORDER)[ORDER - 1]
    except OutsideDomain:
        return None
    total = 2 * rest * half**ORDER / ORDER
    for k in range(0, ORDER - 1, 2):
        total += 2 * at[k] * half ** (k + 1) / (k + 1)
    return total if total.is_finite() else None


def _between_ends(balls: BallFunction, path: Path, start: float, stop: float) -> arb | None:
    """A bound of the values beside a break, where the path proves that they rise or fall."""
    monotone = any(s.low <= start and stop <= s.high for s in path.spans)
    ends = [_limit(balls, path, start, "right"), _limit(balls, path, stop, "left")]
    if not monotone or not path.complete or ends[0] is None or ends[1] is None:
        return None
    return ends[0].union(ends[1])


def _limit(balls: BallFunction, path: Path, x: float, side: str) -> arb | None:
    """The value at a place, or what the values approach there from a side."""
    for mark in path.of(Kind.JUMP, Kind.HOLE, Kind.KINK):
        if mark.x == x:
            limit = getattr(mark, side)
            return arb(limit, 1e-14 * abs(limit)) if math.isfinite(limit) else None
    try:
        value = balls.value(arb(x))
    except OutsideDomain:
        return None
    return value if value.is_finite() else None


def _height(balls: BallFunction, x: float, radius: float) -> arb:
    """A bound of the values near a zero; 0 where there is none, which the caller has not proved."""
    try:
        height = abs(balls.value(arb(x, radius)))
    except OutsideDomain:
        return arb(0)
    return height.abs_upper() if height.is_finite() else arb(0)


def _error(ball: arb) -> float:
    """How far the nearest float may be from the true number."""
    middle = nearest(ball)
    return float((abs(ball - arb(middle))).upper())
