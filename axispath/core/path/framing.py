"""Choosing a view that shows what matters."""

from __future__ import annotations

import math
from collections.abc import Iterable

import numpy as np

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.path.landmark import BREAKS, Kind, Path
from axispath.core.path.lanes import Effort, path_of
from axispath.core.sheet.document import WIDEST, Document, View
from axispath.core.sheet.edits import with_view
from axispath.core.sheet.resolve import ResolvedLane, resolve

REACHES = (10.0, 100.0, 1000.0)  # how far from 0 to look for something to show
MANY = 9  # more landmarks than this and only those nearest to 0 are framed
MATTERING = (Kind.ZERO, Kind.MAXIMUM, Kind.MINIMUM, *BREAKS)
EFFORT = Effort(evaluations=1500)
MARGIN = 0.15
LARGEST = 1e9
FARTHEST = WIDEST / 4  # leaves room for rounding outwards

Box = tuple[float, float, float, float]


def frame(lanes: Iterable[ResolvedLane], patience: Patience | None = None) -> View | None:
    """A view of everything that matters in these lanes; None where there is nothing to see.

    A lane that takes longer than ``patience`` has no say.
    """
    boxes = [box for lane in lanes if (box := _box(lane, patience)) is not None]
    if not boxes:
        return None
    left, bottom = min(b[0] for b in boxes), min(b[2] for b in boxes)
    right, top = max(b[1] for b in boxes), max(b[3] for b in boxes)
    left, right = _rounded(*_shown(left, right))
    bottom, top = _rounded(*_shown(*_with_axis(bottom, top)))
    return View(left=left, right=right, bottom=bottom, top=top)


def _shown(low: float, high: float) -> tuple[float, float]:
    """As much of a range as a view can show."""
    low, high = max(low, -FARTHEST), min(high, FARTHEST)
    return (low, high) if low < high else (-5.0, 5.0)


def settled(before: Document, after: Document, patience: Patience | None = None) -> Document:
    """``after`` with a view that shows its lanes, unless a person has chosen the view.

    The view stays as it is where it shows already what matters.
    """
    if after.view.chosen or after.lanes == before.lanes:
        return after
    shown = resolve(after).functions()
    was = {lane.lane for lane in resolve(before).functions()}
    fresh = [lane for lane in shown if lane.lane not in was]
    if before.lanes and was and all(_in_sight(lane, after.view, patience) for lane in fresh):
        return after
    with limited(_for_all(patience)):
        view = frame(shown, patience)
    return after if view is None else with_view(after, view)


def _for_all(patience: Patience | None) -> Patience | None:
    """For all lanes together: a few that take their time, and all that do not."""
    return None if patience is None else Patience(2 * patience.seconds, patience.clock)


def _in_sight(lane: ResolvedLane, view: View, patience: Patience | None) -> bool:
    """Whether everything of a lane that matters lies in the view."""
    box = _box(lane, patience, margins=False)
    if box is None:
        return True
    left, right, bottom, top = box
    return (
        view.left <= left
        and right <= view.right
        and view.bottom <= bottom
        and top <= view.top
        and right - left > 0.1 * (view.right - view.left)
    )


def _box(lane: ResolvedLane, patience: Patience | None, margins: bool = True) -> Box | None:
    """left, right, bottom and top around what matters in a lane."""
    try:
        with limited(patience):
            return _box_of(lane, margins)
    except OutOfTime:
        return None


def _box_of(lane: ResolvedLane, margins: bool) -> Box | None:
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
    for reach in REACHES:
        left = low.x if low else (high.x if high else 0.0) - reach
        right = high.x if high else (low.x if low else 0.0) + reach
        path = path_of(lane, left, right, EFFORT)
        first = first or path
        if path is None or (low and high) or path.of(*MATTERING):
            return path
    return first


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


def _with_axis(bottom: float, top: float) -> tuple[float, float]:
    """Include the x-axis where it is near enough not to squash the rest."""
    size = top - bottom
    if 0 < bottom <= size * 1.2:
        return -0.08 * (top - 0.0), top
    if -1.2 * size <= top < 0:
        return bottom, -0.08 * bottom
    return bottom, top


def _rounded(low: float, high: float) -> tuple[float, float]:
    """Limits rounded outwards to a 1-2-5 fraction of the width, so that they read well."""
    size = high - low
    if size < max(abs(low), abs(high)) * 1e-9 or size <= 0:
        size = max(abs(low), 1.0)
        low, high = low - size, high + size
    raw = size / 20
    power = 10.0 ** math.floor(math.log10(raw))
    step = power * next(factor for factor in (1, 2, 5, 10) if factor * power >= raw)
    digits = max(0, -math.floor(math.log10(step)))
    return round(math.floor(low / step) * step, digits), round(
        math.ceil(high / step) * step, digits
    )
