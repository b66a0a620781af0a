"""Curves with a parameter: their landmarks, where they meet others, and what a view has to hold."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from axispath.core.memory import Memory
from axispath.core.path.curves.measure import Measures, measures
from axispath.core.path.curves.meets import with_curve, with_function
from axispath.core.path.curves.quick import quick_curve
from axispath.core.path.curves.round import round_of
from axispath.core.path.curves.search import find_curve
from axispath.core.path.kinds.register import Box, Searched
from axispath.core.path.lanes import Effort, Range, remembered
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import CURVE_GROUPS, POLAR_GROUPS, Path
from axispath.core.sheet.curve import curve_of, inside, range_of, slopes_of
from axispath.core.sheet.document import View
from axispath.core.sheet.resolve import ResolvedLane

SAMPLES = 2000
FAR = 30  # times as far out as most of a curve, from where on a part of it is not framed
MARGIN = 0.08
KEPT = 1 << 20  # bytes
MATTERS = 0.8  # of a curve's samples lie in what decides how far out is far


def curve_path(
    lane: ResolvedLane,
    view: View,
    effort: Effort,
    searches: int,
    only: Range | None,
) -> Path | None:
    """The landmarks of a curve over its parameter; ``only`` those above a part of the axis."""
    curve, span = curve_of(lane), range_of(lane)
    budget = effort.budget(searches)
    subject = ("curve", curve.x, curve.y, curve.unit, curve.radius)
    found = remembered(
        subject,
        (span.low, span.high),
        budget,
        lambda: find_curve(curve, slopes_of(lane), span, budget),
    )
    return _only(found, only)


def _only(path: Path, only: Range | None) -> Path:
    if only is None:
        return path
    low, high = only[0].x, only[1].x
    return replace(path, landmarks=tuple(m for m in path.landmarks if low <= m.x <= high))


def quick(lane: ResolvedLane, view: View, only: Range | None) -> Path | None:
    """The same as a sampling sees it."""
    return _only(quick_curve(curve_of(lane), range_of(lane)), only)


def moving_point(lane: ResolvedLane) -> list[tuple[float, float]]:
    """Where the moving point is, if there is one."""
    if lane.lane.at is None:
        return []
    x, y = curve_of(lane).places(np.array([inside(range_of(lane), lane.lane.at)]))
    return [(float(x[0]), float(y[0]))] if np.isfinite(x[0]) else []


_measures: Memory[Measures] = Memory(KEPT, lambda key, found: 2000)


def curve_measures(lane: ResolvedLane, path: Path) -> Measures:
    """Length and area of a curve with this path; without patience it may take its time."""
    curve, span = curve_of(lane), range_of(lane)
    key = (curve.x, curve.y, curve.unit, curve.radius, span.low.key, span.high.key, path)
    return _measures.found(
        key, lambda: measures(curve, slopes_of(lane), round_of(curve, span), path)
    )


PARAMETRIC = Searched(curve_path, quick, CURVE_GROUPS, "parameter", moving_point, curve_measures)
POLAR = Searched(curve_path, quick, POLAR_GROUPS, "parameter", moving_point, curve_measures)


def function_met(
    first: ResolvedLane,
    second: ResolvedLane,
    view: View,
    budget: Budget,
    only: Range | None,
) -> Path | None:
    """Where a curve meets a function."""
    span, curve = range_of(first), curve_of(first)
    ends = tuple(None if end is None else end.key for end in second.ends)
    subject = ("met", curve.x, curve.y, curve.unit, second.program, ends)
    found = remembered(
        subject, (span.low, span.high), budget, lambda: with_function(first, second, budget)
    )
    return _only(found, only)


def curves_met(
    first: ResolvedLane,
    second: ResolvedLane,
    view: View,
    budget: Budget,
    only: Range | None,
) -> Path | None:
    """Where two curves meet."""
    span, other = range_of(first), range_of(second)
    one, two = curve_of(first), curve_of(second)
    subject = ("met", one.x, one.y, one.unit, two.x, two.y, other.low.key, other.high.key)
    found = remembered(
        subject, (span.low, span.high), budget, lambda: with_curve(first, second, budget)
    )
    return _only(found, only)


def curve_box(lane: ResolvedLane, margins: bool) -> Box | None:
    """left, right, bottom and top around a whole curve, but for what runs off far away."""
    span = range_of(lane)
    x, y = curve_of(lane).places(np.linspace(span.low.x, span.high.x, SAMPLES))
    known = np.isfinite(x)
    if not known.any():
        return None
    x, y = x[known], y[known]
    found: list[float] = []
    for values in (x, y):
        low, high = np.quantile(values, [(1 - MATTERS) / 2, (1 + MATTERS) / 2])
        size = float(high - low) or abs(float(high)) or 1.0
        bottom, top = float(values.min()), float(values.max())
        if top - bottom > FAR * size:  # it runs off
            bottom, top = max(bottom, float(low) - size), min(top, float(high) + size)
        found += [bottom, top]
    left, right, bottom, top = found
    if not margins:
        return left, right, bottom, top
    across, upwards = (right - left) or 2.0, (top - bottom) or 2.0
    return (
        left - MARGIN * across,
        right + MARGIN * across,
        bottom - MARGIN * upwards,
        top + MARGIN * upwards,
    )
