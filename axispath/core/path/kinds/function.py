"""Functions of x: their landmarks, and what a view of them has to hold."""

from __future__ import annotations

import math

import numpy as np

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.path.kinds.register import Box, Searched
from axispath.core.path.lanes import Effort, Range, crossing_path, interval, path_of
from axispath.core.path.quick import quick_path
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import BREAKS, GROUPS, Kind, Path
from axispath.core.sheet.angles import of_angles
from axispath.core.sheet.document import View
from axispath.core.sheet.resolve import ResolvedLane

REACHES = (10.0, 100.0, 1000.0)  # how far from 0 to look for something to show
IN_DEGREES = (540.0, 5400.0)  # the same where x is an angle: one turn and a half, and fifteen
MANY = 9  # more landmarks than this and only those nearest to 0 are framed
MATTERING = (Kind.ZERO, Kind.MAXIMUM, Kind.MINIMUM, *BREAKS)
EFFORT = Effort(evaluations=1500)
MARGIN = 0.15
LARGEST = 1e9


def quick(lane: ResolvedLane, view: View, only: Range | None) -> Path | None:
    """Landmarks as a sampling sees them; None where the domain is not in the view."""
    ends = interval(lane, view.left, view.right, only)
    return quick_path(lane.floats, ends[0].x, ends[1].x) if ends is not None else None


def function_path(
    lane: ResolvedLane,
    view: View,
    effort: Effort,
    searches: int,
    only: Range | None,
) -> Path | None:
    """The path of a function over its domain and the view."""
    return path_of(lane, view.left, view.right, effort, searches, only)


def functions_met(
    first: ResolvedLane,
    second: ResolvedLane,
    view: View,
    budget: Budget,
    only: Range | None,
) -> Path | None:
    """Where two functions meet."""
    return crossing_path(first, second, view.left, view.right, budget, only)


FUNCTION = Searched(function_path, quick, GROUPS)


def function_box(lane: ResolvedLane, margins: bool) -> Box | None:
    """left, right, bottom and top around the landmarks that matter."""
    path = _telling_path(lane)
    if path is None:
        return None
    marks = sorted(path.of(*MATTERING), key=lambda mark: abs(mark.x))[:MANY]
    low, high = lane.ends
    places = [mark.x for mark in marks]
    left, right = _across(places, margins)
    left = low.x if low else left
    right = high.x if high else right
    if low and not high:
        right = max(right, left + (right - left if right > left else 10.0))
    if high and not low:
        left = min(left, right - 10.0 if left >= right else left)
    heights = [mark.y for mark in path.landmarks if mark.kind is not Kind.INFLECTION]
    heights = [y for mark_y in heights if math.isfinite(y := mark_y) and abs(y) < LARGEST]
    chosen = [y for mark in marks for y in (mark.y, mark.left, mark.right) if math.isfinite(y)]
    if low or high:
        chosen = [*chosen, *heights]
    vertical = _upwards(lane, chosen, left, right, margins)
    if vertical is None:
        return None
    pad = (right - left) * 0.05 if margins else 0.0
    left, right = (left - pad if low else left), (right + pad if high else right)
    return left, right, *vertical


def _telling_path(lane: ResolvedLane) -> Path | None:
    """The path on the domain, or as near to 0 as there is something to tell."""
    low, high = lane.ends
    first = None
    for reach in _reaches(lane):
        left = low.x if low else (high.x if high else 0.0) - reach
        right = high.x if high else (low.x if low else 0.0) + reach
        path = path_of(lane, left, right, EFFORT)
        first = first or path
        if path is None or (low and high) or path.of(*MATTERING):
            return path
    return first


def _reaches(lane: ResolvedLane) -> tuple[float, ...]:
    """How far to look, in what x counts."""
    if lane.unit is not AngleUnit.DEGREE or lane.statement is None:
        return REACHES
    return IN_DEGREES if of_angles(lane.statement.body) else REACHES


def _across(places: list[float], margins: bool) -> tuple[float, float]:
    if not places:
        return (-5.0, 5.0) if margins else (0.0, 0.0)
    left, right = min(places), max(places)
    if not margins:
        return left, right
    size = right - left or max(abs(left), 5.0)
    if 0 < left <= 2 * size:
        left = 0.0
    if -2 * size <= right < 0:
        right = 0.0
    margin = 0.15 if len(places) >= MANY else 0.6
    return left - margin * size, right + margin * size


def _upwards(
    lane: ResolvedLane, heights: list[float], left: float, right: float, margins: bool
) -> tuple[float, float] | None:
    """bottom and top: the landmarks, and as much of the curve as does not squash them."""
    x = np.linspace(left, right, 301)[1:-1]
    with np.errstate(all="ignore"):
        y = lane.floats(x)
    y = y[np.abs(y) < LARGEST]
    if not len(y) and not heights:
        return None
    if not heights and not margins:
        return None
    if len(y) and (not heights or min(heights) == max(heights)):
        heights = [*heights, *(float(value) for value in np.percentile(y, [12, 75]))]
    bottom, top = min(heights), max(heights)
    if not margins:
        return bottom, top
    size = top - bottom or abs(top) or 1.0
    if not len(y):
        return bottom - size * MARGIN, top + size * MARGIN
    reach_down, reach_up = float(np.min(y)), float(np.max(y))
    return (
        max(min(bottom, reach_down), bottom - size) - size * MARGIN,
        min(max(top, reach_up), top + size) + size * MARGIN,
    )
