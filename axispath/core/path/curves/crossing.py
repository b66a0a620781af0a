"""Where a curve crosses itself, and where two curves meet."""

from __future__ import annotations

import math
from contextlib import suppress
from dataclasses import dataclass, field, replace

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import nearest, precision
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.curves.along import Along, place_of
from axispath.core.path.curves.arcs import Arcs, arcs_of
from axispath.core.path.curves.corners import unseparated
from axispath.core.path.curves.meeting import Meeting, Met, meetings
from axispath.core.path.curves.models import Floats, modelled
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import Certainty, Kind, Landmark, Method
from axispath.core.sheet.curve import Curve

BITS = 106
NEWTON = 6
POLISHED = 150  # crossings whose places are narrowed to the last digits
ROOMS = (2.0**-44, 2.0**-34, 2.0**-26)
TOGETHER = 1e-9  # of the size of a curve: crossings nearer than that are listed as one
EVALUATIONS_PER_CROSSING = 10
CUSP_PARTS = 8


@dataclass
class Crossings:
    """The crossings, the stretches of the parameter left open, and whether there was more."""

    marks: list[Landmark] = field(default_factory=list)
    open: list[tuple[float, float]] = field(default_factory=list)
    touching: list[tuple[float, float, float, float]] = field(default_factory=list)
    spent: bool = False
    overlap: bool = False


def crossings_of(told: Along, cusps: list[Landmark], budget: Budget) -> Crossings:
    """Where a curve crosses itself."""
    arcs = arcs_of(told)
    found = Crossings(open=list(arcs.unknown))
    size = size_of(told.curve, arcs)
    pieces, bad = modelled(told.curve, arcs.stretches, size, budget)
    found.open += unseparated(told.curve, arcs, pieces, bad)
    if pieces.count < 2:
        return found
    i, j = pieces.near(pieces)
    chosen = (i < j) & arcs.compared(pieces.owner[i], pieces.owner[j])
    safe = _around_cusps(told, cusps)

    def ignored(low_s: Floats, high_s: Floats, low_t: Floats, high_t: Floats) -> NDArray[np.bool_]:
        none = np.zeros(len(low_s), dtype=bool)
        for low, high, wrapped in safe:
            if wrapped:  # across the start of a closed curve
                none |= (high_s <= wrapped[0]) & (low_t >= wrapped[1])
            none |= (low_s >= low) & (high_t <= high)
        return none

    met = meetings(pieces, pieces, i[chosen], j[chosen], ignored, budget)
    found.spent, found.overlap = met.spent, met.overlap
    found.touching = [part for part in met.open if not _at_own_corner(told, part)]
    points = _apart(told, polished(told.curve, told.curve, met, budget))
    found.marks = _together(told.curve, points, size)
    return found


def size_of(curve: Curve, arcs: Arcs) -> float:
    """About how large a curve is; only the effort depends on it."""
    t = np.array([t for low, high in arcs.stretches for t in np.linspace(low, high, 7)[1:-1]])
    if not len(t):
        return 1.0
    x, y = curve.places(t)
    known = np.isfinite(x)
    if not known.any():
        return 1.0
    spread = [float(np.subtract(*np.percentile(v[known], [90, 10]))) for v in (x, y)]
    return max(*spread, 1e-300)


def _around_cusps(
    told: Along, cusps: list[Landmark]
) -> list[tuple[float, float, tuple[float, float] | None]]:
    """Stretches around cusps on which the curve does not cross itself.

    Across the direction of a cusp the point moves on: with w at right angles to C″, w·C′ is 0 at
    the cusp together with its slope, and has one sign beside it where w·C‴ has one throughout.
    """
    found: list[tuple[float, float, tuple[float, float] | None]] = []
    for mark in cusps:
        if mark.kind is not Kind.CUSP or mark.certainty is not Certainty.EXACT:
            continue
        others = [abs(place.x - mark.t) for path in told.slopes for place in path.of(Kind.ZERO)]
        others += [told.high - told.low]
        room = min(d for d in others if d > 1e-9 * (told.high - told.low))
        for k in range(CUSP_PARTS):
            reach = room / 2 ** (k + 1)
            if _moves_on(told.curve, mark, reach):
                at_start = told.round.closed and told.same(mark.t, told.low)
                wrapped = (told.low + reach, told.high - reach) if at_start else None
                found.append((mark.t - reach, mark.t + reach, wrapped))
                break
    return found


def _moves_on(curve: Curve, mark: Landmark, reach: float) -> bool:
    with precision(BITS), suppress(OutsideDomain):
        t = mark.exact.ball if mark.exact is not None else arb(mark.t, mark.t_radius)
        second = [balls.taylor(t, 3)[2] for balls in curve.balls]
        third = [balls.taylor(arb(t.mid(), reach), 4)[3] for balls in curve.balls]
        return bool(third[1] * second[0] - third[0] * second[1] != 0)
    return False


def _at_own_corner(told: Along, part: tuple[float, float, float, float]) -> bool:
    """Whether a box that stayed open is only the place at which two arcs follow one another."""
    _, high_s, low_t, _ = part
    if high_s < low_t:
        return False
    return any(told.same(t, high_s) and told.same(t, low_t) for t in told.hard)


def polished(one: Curve, other: Curve, met: Met, budget: Budget) -> list[Meeting]:
    """Common points, narrowed as far as it goes."""
    found = []
    for k, point in enumerate(met.points):
        if k >= POLISHED or budget.spent:
            found.append(point)
            continue
        budget.spend(EVALUATIONS_PER_CROSSING)
        found.append(_narrowed(one, other, point) or point)
    return found


def _narrowed(one: Curve, other: Curve, point: Meeting) -> Meeting | None:
    """The only common point in a box, in a box as narrow as 106 bits allow."""
    s, t = point.s, point.t
    with precision(BITS), suppress(OutsideDomain, ZeroDivisionError):
        for room in ROOMS:
            for _ in range(NEWTON):
                step = _step(one, other, arb(s), arb(t))
                if step is None:
                    return None
                ds, dt = (float(part.mid()) for part in step[:2])
                s, t = s + ds, t + dt
                if abs(ds) <= 1e-16 * max(abs(s), 1e-3) and abs(dt) <= 1e-16 * max(abs(t), 1e-3):
                    break
            if abs(s - point.s) > point.s_radius or abs(t - point.t) > point.t_radius:
                return None
            wide_s, wide_t = (max(abs(v), 2.0**-10) * room for v in (s, t))
            box = _krawczyk(one, other, s, t, wide_s, wide_t)
            if box is not None:
                return Meeting(s, t, box[0], box[1])
    return None


def _values(curve: Curve, at: arb) -> list[list[arb]]:
    return [balls.taylor(at, 2) for balls in curve.balls]


def _step(one: Curve, other: Curve, s: arb, t: arb) -> tuple[arb, arb] | None:
    """Newton's step for x₁(s) = x₂(t), y₁(s) = y₂(t)."""
    (x1, y1), (x2, y2) = _values(one, s), _values(other, t)
    f, g = x1[0] - x2[0], y1[0] - y2[0]
    a, b, c, d = x1[1], -x2[1], y1[1], -y2[1]
    det = a * d - b * c
    if det.contains(0) or not det.is_finite():
        return None
    return -(d * f - b * g) / det, -(a * g - c * f) / det


def _krawczyk(
    one: Curve, other: Curve, s: float, t: float, wide_s: float, wide_t: float
) -> tuple[float, float] | None:
    """How far the point is from (s, t) at most, if there is exactly one within ``wide``."""
    (x1, y1), (x2, y2) = _values(one, arb(s)), _values(other, arb(t))
    f, g = x1[0] - x2[0], y1[0] - y2[0]
    a, b, c, d = (arb(v.mid()) for v in (x1[1], -x2[1], y1[1], -y2[1]))
    det = a * d - b * c
    if det.contains(0):
        return None
    y = [arb((v / det).mid()) for v in (d, -b, -c, a)]
    (bx1, by1), (bx2, by2) = _values(one, arb(s, wide_s)), _values(other, arb(t, wide_t))
    j = [bx1[1], -bx2[1], by1[1], -by2[1]]
    es, et = arb(0, wide_s), arb(0, wide_t)
    ks = -(y[0] * f + y[1] * g)
    ks += (1 - y[0] * j[0] - y[1] * j[2]) * es - (y[0] * j[1] + y[1] * j[3]) * et
    kt = -(y[2] * f + y[3] * g)
    kt += (1 - y[2] * j[1] - y[3] * j[3]) * et - (y[2] * j[0] + y[3] * j[2]) * es
    if not (es.contains_interior(ks) and et.contains_interior(kt)):
        return None
    return float(abs(ks).abs_upper()), float(abs(kt).abs_upper())


def _apart(told: Along, points: list[Meeting]) -> list[Meeting]:
    """Each common point once, without the place at which start and end are joined."""
    found: list[Meeting] = []
    width = told.high - told.low
    for point in points:
        s, t = sorted((point.s, point.t))
        if told.round.closed:
            # The end of a closed curve is its start.
            s, t = (told.low if told.same(v, told.high) else v for v in (s, t))
            s, t = min(s, t), max(s, t)
        reach = max(point.s_radius, point.t_radius, width * 1e-12)
        if told.round.joined and s - told.low <= 2 * reach and told.high - t <= 2 * reach:
            continue
        if told.round.closed and t - s <= 2 * reach:
            continue
        if any(abs(p.s - s) <= 4 * reach and abs(p.t - t) <= 4 * reach for p in found):
            continue
        found.append(replace(point, s=s, t=t))
    return found


def _together(curve: Curve, points: list[Meeting], size: float) -> list[Landmark]:
    """Common points as landmarks; those at one place are one with all its parameters."""
    marks: list[Landmark] = []
    for point in sorted(points, key=lambda p: p.s):
        mark = crossing_at(curve, point)
        if mark is None:
            continue
        near = next(
            (
                k
                for k, m in enumerate(marks)
                if math.hypot(m.x - mark.x, m.y - mark.y) <= TOGETHER * size
            ),
            None,
        )
        if near is None:
            marks.append(mark)
            continue
        known = marks[near]
        more = [
            v
            for v in (mark.t, *mark.also)
            if all(abs(v - w) > 1e-9 for w in (known.t, *known.also))
        ]
        marks[near] = replace(known, also=tuple(sorted((*known.also, *more))))
    return marks


def crossing_at(curve: Curve, point: Meeting) -> Landmark | None:
    """A common point as a landmark of a curve, at its first parameter."""
    found = place_of(curve, arb(point.s, point.s_radius))
    if found is None:
        return None
    x, y = found
    return Landmark(
        Kind.CROSSING,
        nearest(x) if x.rad() < 1e-9 else float(x.mid()),
        nearest(y) if y.rad() < 1e-9 else float(y.mid()),
        Certainty.PROVEN,
        float(x.rad()),
        point.s - point.s_radius,
        point.s + point.s_radius,
        y_radius=float(y.rad()),
        method=Method.PAIR,
        t=point.s,
        t_radius=point.s_radius,
        also=(point.t,),
    )
