"""All landmarks of a curve over the range of its parameter."""

from __future__ import annotations

import math
from dataclasses import replace

from axispath.core.path.curves.along import (
    Along,
    along,
    breaks,
    ends,
    on_the_axes,
    open_stretches,
    turns,
    undefined,
)
from axispath.core.path.curves.crossing import crossings_of
from axispath.core.path.curves.polar import distances, polar_crossings
from axispath.core.path.curves.round import round_of
from axispath.core.search.budget import EVALUATIONS, Budget
from axispath.core.search.find import untouched
from axispath.core.search.isolate import merged_open
from axispath.core.search.landmark import Kind, Landmark, Open, Path, Reason, Stretch
from axispath.core.sheet.curve import Curve, Range, Slopes

MOST = 1000  # landmarks of one curve
CORNERS = (Kind.START, Kind.END, Kind.LEVEL, Kind.UPRIGHT, Kind.CUSP, Kind.STOP, Kind.KINK)
AXES = (Kind.MEETS_X, Kind.MEETS_Y)
SIDES = (("leftmost", "x", -1), ("rightmost", "x", 1), ("lowest", "y", -1), ("highest", "y", 1))


def find_curve(
    curve: Curve, slopes: Slopes | None, span: Range, budget: Budget | int = EVALUATIONS
) -> Path:
    """The landmarks of a curve, in the order of its parameter; the path is over the parameter.

    What a range shows more than once is listed once.
    """
    budget = Budget(budget) if isinstance(budget, int) else budget
    around = round_of(curve, span)
    if slopes is None:
        return untouched(around.low.x, around.high.x)
    told = along(curve, slopes, around, budget)
    turned = turns(told)
    marks = [*ends(told), *on_the_axes(told), *turned, *breaks(told)]
    if curve.radius is not None and slopes.radius is not None:
        far, signs, unsettled = distances(curve, slopes, around, budget)
        poles = [t for mark in far if mark.kind is Kind.AT_POLE for t in (mark.t, *mark.also)]
        marks = [
            m for m in marks if m.kind not in AXES or not any(told.same(m.t, t) for t in poles)
        ]
        marks += far
        crossed = polar_crossings(curve, around, budget)
    else:
        unsettled, signs = [], []
        crossed = crossings_of(told, turned, budget)
    marks += crossed.marks
    width = around.high.x - around.low.x
    left = [Open(a, b, Reason.CLOSE) for a, b in crossed.open]
    for low_s, high_s, low_t, high_t in crossed.touching:
        reason = Reason.BUDGET if crossed.spent else Reason.CLOSE
        reason = Reason.OVERLAP if crossed.overlap else reason
        left += [Open(low_s, high_s, reason), Open(low_t, high_t, reason)]
    still = merged_open([*open_stretches(told), *unsettled, *left], width * 2.0**-30)
    ordered = sorted(marks, key=lambda mark: (mark.t, mark.kind != Kind.START))
    if not still:
        ordered = _outermost(ordered, told)
    flat = [(s.low, s.high) for s in told.slopes[0].zero]
    rests = [
        Stretch(max(a, s.low), min(b, s.high))
        for s in told.slopes[1].zero
        for a, b in flat
        if max(a, s.low) < min(b, s.high)
    ]
    return Path(
        around.low.x,
        around.high.x,
        tuple(ordered[:MOST]),
        tuple(signs),
        tuple(still),
        tuple(undefined(told)),
        (),
        tuple(rests),
        more=len(ordered) > MOST or crossed.spent,
    )


def _outermost(marks: list[Landmark], told: Along) -> list[Landmark]:
    """The landmarks, with those that are farthest to one side marked as such."""
    corners = [m for m in marks if m.kind in CORNERS and math.isfinite(m.x)]
    named: dict[int, list[str]] = {}
    for word, axis, sign in SIDES if corners else ():
        # Beside a break a coordinate may come nearer to a value than anywhere it is.
        if any(_unreached(mark) for mark in told.values["xy".index(axis)].landmarks):
            continue
        best = max(sign * getattr(mark, axis) for mark in corners)
        for mark in corners:
            error = mark.radius if axis == "x" else mark.y_radius
            if sign * getattr(mark, axis) >= best - 2 * error - 1e-13 * max(abs(best), 1e-300):
                named.setdefault(id(mark), []).append(word)
    return [replace(m, extremes=tuple(named[id(m)])) if id(m) in named else m for m in marks]


def _unreached(mark: Landmark) -> bool:
    breaks = (Kind.POLE, Kind.JUMP, Kind.HOLE)
    return mark.kind in breaks or (mark.kind is Kind.END and not mark.closed)
