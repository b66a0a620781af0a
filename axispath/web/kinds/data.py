"""Data sets on the page."""

from typing import Any

import numpy as np

from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face

MOST_TICKS = 400
LISTED = 8


def _note(lane: ResolvedLane, digits: int) -> str:
    data = lane.lane.data
    assert data is not None
    names = [column.name for column in data.columns]
    shown = ", ".join(names[:LISTED]) + (", …" if len(names) > LISTED else "")
    rows = "1 row" if data.rows == 1 else f"{data.rows} rows"
    out = f", {len(data.out)} left out" if data.out else ""
    return f"{rows}{out}: {shown}"


def _ticks(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    """Where its values lie along x, for its strip; what is drawn."""
    data, arrays = lane.lane.data, lane.measured
    assert data is not None and arrays is not None
    values = arrays.used(data.across)
    there = np.unique(values[np.isfinite(values)])
    if len(there) > MOST_TICKS:
        there = there[np.unique(np.linspace(0, len(there) - 1, MOST_TICKS).round().astype(int))]
    drawn = {"x": data.across, "y": data.upwards, "look": data.look}
    return {"ticks": tuple(there.tolist()), "measured": drawn}


DATA = Face("parts/kinds/data.html", "ticks", _note, _ticks)
