"""Landmarks for the scripts that draw them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from axispath.budgets import MOVING_SEARCH
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.labels import crossing_key, keyed, labelled
from axispath.core.path.lanes import Crossing, Range
from axispath.core.path.survey import moving_survey
from axispath.core.search.landmark import GROUP_OF, Path
from axispath.core.sheet.curve import range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane


def marks_only(document: Document, only: Range | None) -> dict[str, Any]:
    """Landmarks for plot and strips alone, while something moves."""
    found = moving_survey(document, only, MOVING_SEARCH)
    lanes = [lane_on_the_wire(lane, path, document.digits) for lane, path in found.lanes]
    return {"lanes": lanes, "crossings": [], "landmarks": None}


def lane_on_the_wire(lane: ResolvedLane, path: Path | None, digits: int) -> dict[str, Any]:
    """A lane's path; of a curve all places but those of landmarks are along its parameter."""
    low, high = lane.ends
    if SEARCHED[lane.kind.key].along == "parameter":
        span = range_of(lane)
        low, high = span.low, span.high
    return {
        "id": lane.lane.id,
        "low": low.x if low else None,
        "high": high.x if high else None,
        "lowClosed": low.closed if low else True,
        "highClosed": high.closed if high else True,
        "landmarks": list(_marks(lane.lane.id, path, digits)) if path else [],
        "spans": [[s.low, s.high, s.sign, s.direction] for s in path.spans] if path else [],
        "open": [[o.low, o.high] for o in path.open] if path else [],
        "counts": [[c.low, c.high, c.many] for c in path.counts] if path else [],
        "undefined": [[s.low, s.high, s.why] for s in path.undefined] if path else [],
    }


def crossing_on_the_wire(crossing: Crossing, digits: int) -> dict[str, Any]:
    """Where two lanes meet."""
    key = crossing_key(crossing)
    return {
        "lanes": [crossing.first.lane.id, crossing.second.lane.id],
        "landmarks": list(_marks(key, crossing.path, digits)),
    }


def _marks(key: str, path: Path, digits: int) -> Iterator[dict[str, Any]]:
    for name, mark in keyed(key, path):
        if not math.isfinite(mark.x):
            continue
        yield {
            "key": name,
            "kind": mark.kind,
            "group": GROUP_OF[mark.kind],
            "x": mark.x,
            "y": _finite(mark.y),
            "left": _finite(mark.left),
            "right": _finite(mark.right),
            "closed": mark.closed,
            "label": labelled(mark, digits),
            **({} if math.isnan(mark.t) else {"t": mark.t, "also": mark.also}),
        }


def _finite(value: float) -> float | None:
    return value if math.isfinite(value) else None
