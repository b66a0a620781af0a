"""What a view of points has to hold."""

from __future__ import annotations

import math

from axispath.core.path.kinds.register import Box
from axispath.core.sheet.kinds.point import places
from axispath.core.sheet.resolve import ResolvedLane

ALONE = 2.0  # how far around a single point there is to see


def point_box(lane: ResolvedLane, margins: bool) -> Box | None:
    """left, right, bottom and top around points."""
    there = [place for place in places(lane) if all(math.isfinite(value) for value in place)]
    if not there:
        return None
    xs, ys = [x for x, _ in there], [y for _, y in there]
    box = min(xs), max(xs), min(ys), max(ys)
    if not margins:
        return box
    left, right, bottom, top = box
    across, upwards = (0.15 * (right - left) or ALONE), (0.15 * (top - bottom) or ALONE)
    return left - across, right + across, bottom - upwards, top + upwards
