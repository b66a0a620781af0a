"""How long a curve is, and the area that it encloses or sweeps, enclosed by balls.

On a stretch about a middle m the Taylor polynomial of what is integrated is integrated exactly, and
the rest is bounded by the last coefficient over the whole stretch; stretches on which that is not
good enough are halved (R. E. Moore 1966, Interval Analysis; G. F. Corliss and L. B. Rall 1987,
Adaptive, self-validating numerical quadrature). Towards a cusp, where the speed is 0 and its root
has no expansion, a stretch counts as something between 0 and the highest speed on it.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from flint import arb, arb_series

from axispath.core.arithmetic.balls import BallFunction, nearest, precision
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.curves.round import Round
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.curve import Curve, Slopes

BITS = 80
ORDER = 8
SAMPLES = 500
GOOD = 1e-9  # of the whole that all stretches together may be off by, roughly
DEEPEST = 44
MOST = 4000  # stretches

Series = Callable[[arb, int], list[arb]]


@dataclass(frozen=True)
class Measured:
    """A number that the true one is within ``error`` of."""

    value: float
    error: float


@dataclass(frozen=True)
class Measures:
    """``length`` of one round; ``area`` where the curve is closed, counted with its turns.

    ``swept`` is what the line from the pole sweeps over a polar curve's range. None where that
    could not be told.
    """

    length: Measured | None = None
    area: Measured | None = None
    swept: Measured | None = None


def measures(curve: Curve, slopes: Slopes | None, around: Round, path: Path) -> Measures:
    """The length of a curve and its area, where nothing breaks and all is settled."""
    broken = path.of(Kind.POLE, Kind.JUMP, Kind.HOLE)
    if slopes is None or broken or path.undefined or path.open:
        return Measures()
    cuts = sorted({path.low, path.high, *(m.t for m in path.of(Kind.CUSP, Kind.STOP, Kind.KINK))})
    if curve.radius is not None and slopes.radius is not None:
        return _of_polar(curve, curve.radius, slopes.radius, around, cuts)
    x, y = curve.balls
    dx, dy = (BallFunction(plan, curve.unit) for plan in (slopes.x, slopes.y))

    def speed_squared(t: arb, length: int) -> list[arb]:
        a, b = (arb_series(part.taylor(t, length), length) for part in (dx, dy))
        total = a * a + b * b
        return [total[k] for k in range(length)]

    def turning(t: arb, length: int) -> list[arb]:
        parts = [arb_series(part.taylor(t, length), length) for part in (x, dy, y, dx)]
        total = (parts[0] * parts[1] - parts[2] * parts[3]) / 2
        return [total[k] for k in range(length)]

    size, long = _sizes(curve, cuts)
    length = _measured(_length(speed_squared), cuts, long)
    area = None
    if around.closed or around.joined:
        area = _measured(_plain(turning), cuts, size * long)
    return Measures(length, area)


def _of_polar(
    curve: Curve, radius: Program, slope: Program, around: Round, cuts: list[float]
) -> Measures:
    """From the distance alone: ds² = dr² + r² dθ², and x dy − y dx = r² dθ."""
    r, dr = BallFunction(radius, curve.unit), BallFunction(slope, curve.unit)

    def squares(t: arb, length: int) -> tuple[arb_series, arb]:
        turn = arb.pi() / 180 if curve.unit is AngleUnit.DEGREE else arb(1)
        distance = arb_series(r.taylor(t, length), length)
        return distance * distance, turn

    def speed_squared(t: arb, length: int) -> list[arb]:
        square, turn = squares(t, length)
        away = arb_series(dr.taylor(t, length), length)
        total = away * away + square * turn * turn
        return [total[k] for k in range(length)]

    def sweeping(t: arb, length: int) -> list[arb]:
        square, turn = squares(t, length)
        total = square * turn / 2
        return [total[k] for k in range(length)]

    size, long = _sizes(curve, cuts)
    swept = _measured(_plain(sweeping), cuts, size * long)
    closed = around.closed or around.joined
    return Measures(_measured(_length(speed_squared), cuts, long), swept if closed else None, swept)


def _sizes(curve: Curve, cuts: list[float]) -> tuple[float, float]:
    """About how far a curve goes, and how long it is; only the effort depends on it."""
    x, y = curve.places(np.linspace(cuts[0], cuts[-1], SAMPLES))
    size = float(np.nanmax(np.hypot(x - np.nanmean(x), y - np.nanmean(y)))) or 1.0
    return size, float(np.nansum(np.hypot(np.diff(x), np.diff(y)))) or 1.0


Part = Callable[[arb, arb, bool], arb | None]
"""The integral over a stretch with this middle and half width, or a bound of it for the last."""


def _plain(series: Series) -> Part:
    def part(middle: arb, half: arb, last: bool) -> arb | None:
        at = series(middle, ORDER)
        rest = series(arb(middle.mid(), half.abs_upper()), ORDER)[ORDER - 1]
        return _integrated(at, rest, half)

    return part


def _length(squared: Series) -> Part:
    def part(middle: arb, half: arb, last: bool) -> arb | None:
        over = squared(arb(middle.mid(), half.abs_upper()), ORDER)
        if over[0] > 0:
            at = arb_series(squared(middle, ORDER), ORDER).sqrt()
            rest = arb_series(over, ORDER).sqrt()[ORDER - 1]
            return _integrated([at[k] for k in range(ORDER)], rest, half)
        if not last or not over[0].is_finite():
            return None
        most = over[0].abs_upper().sqrt() * 2 * half
        return arb(0).union(most)

    return part


def _integrated(at: list[arb], rest: arb, half: arb) -> arb | None:
    total = 2 * rest * half**ORDER / ORDER
    for k in range(0, ORDER - 1, 2):
        total += 2 * at[k] * half ** (k + 1) / (k + 1)
    return total if total.is_finite() else None


def _measured(part: Part, cuts: list[float], scale: float) -> Measured | None:
    """The integral between all cuts; None where it could not be bounded well."""
    with precision(BITS):
        total, spent = arb(0), 0
        stack = [(a, b, 0) for a, b in itertools.pairwise(cuts)]
        width = cuts[-1] - cuts[0]
        while stack:
            start, stop, depth = stack.pop()
            spent += 1
            if spent > MOST:
                return None
            middle, half = (arb(start) + arb(stop)) / 2, (arb(stop) - arb(start)) / 2
            found = None
            try:
                found = part(arb(middle.mid()), half, depth >= DEEPEST or _tiny(start, stop, width))
            except OutsideDomain:
                return None
            share = GOOD * scale * max((stop - start) / width, 2.0**-8)
            if found is not None and float(found.rad()) <= share:
                total += found
                continue
            if depth >= DEEPEST:
                if found is None:
                    return None
                total += found
                continue
            cut = start + (stop - start) / 2
            stack += [(cut, stop, depth + 1), (start, cut, depth + 1)]
        value = nearest(total)
        return Measured(value, float(abs(total - arb(value)).abs_upper()))


def _tiny(start: float, stop: float, width: float) -> bool:
    return stop - start < 1e-4 * width
