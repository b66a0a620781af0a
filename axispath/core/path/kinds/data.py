"""What a view of a data set has to hold."""

from __future__ import annotations

import numpy as np

from axispath.core.path.kinds.register import Box
from axispath.core.sheet.resolve import ResolvedLane

MARGIN = 0.06
ALONE = 1.0


def data_box(lane: ResolvedLane, margins: bool) -> Box | None:
    """left, right, bottom and top around what is drawn."""
    data, arrays = lane.lane.data, lane.measured
    assert data is not None and arrays is not None
    x = arrays.columns[data.across]
    if data.look == "points" and data.upwards:
        y = arrays.columns[data.upwards]
        there = np.isfinite(x) & np.isfinite(y)
        ends = [x[there], y[there]]
    else:
        there = np.isfinite(x)
        ends = [x[there], np.array([0.0, _height(data.look, x[there])])]
    if not there.any():
        return None
    found = []
    for values in ends:
        low, high = float(values.min()), float(values.max())
        room = ((high - low) * MARGIN or ALONE) if margins else 0.0
        found += [low - room, high + room]
    left, right, bottom, top = found
    return left, right, bottom, top


def _height(look: str, values: np.ndarray[tuple[int, ...], np.dtype[np.float64]]) -> float:
    if look == "box":
        return 1.0
    if look == "dots" or not len(values):
        return float(np.unique(values, return_counts=True)[1].max()) if len(values) else 1.0
    bins = max(1, round(1 + np.log2(len(values))))
    return float(np.histogram(values, bins)[0].max()) * 1.1
