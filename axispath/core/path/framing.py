"""Choosing a view that shows what matters."""

from __future__ import annotations

import math
from collections.abc import Iterable

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.path.kinds import FRAMED
from axispath.core.path.kinds.register import Box
from axispath.core.sheet.document import WIDEST, Document, View
from axispath.core.sheet.edits import with_view
from axispath.core.sheet.resolve import ResolvedLane, resolve

FARTHEST = WIDEST / 4  # leaves room for rounding outwards


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
    turned = after.unit is not before.unit  # then x counts something else
    if after.view.chosen or (after.lanes == before.lanes and not turned):
        return after
    shown = resolve(after).shown(FRAMED)
    was = {lane.lane for lane in resolve(before).shown(FRAMED) if not turned}
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
            return FRAMED[lane.kind.key](lane, margins)
    except OutOfTime:
        return None


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
