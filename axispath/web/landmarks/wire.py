"""Landmarks for the scripts that draw them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from axispath.budgets import MOVING_EFFORT, MOVING_MARKS, MOVING_SEARCH
from axispath.clock import spent
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.labels import crossing_key, keyed, labelled
from axispath.core.path.lanes import Crossing, Range
from axispath.core.path.moving import Moving
from axispath.core.path.survey import moving_survey
from axispath.core.search.landmark import GROUP_OF, Path
from axispath.core.sheet.curve import range_of
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.states import States


def marks_only(document: Document, only: Range | None) -> dict[str, Any]:
    """Landmarks for plot and strips alone, while something moves."""
    found = moving_survey(document, only, MOVING_SEARCH)
    lanes = [lane_on_the_wire(lane, path, document.digits) for lane, path in found.lanes]
    return {"lanes": lanes, "crossings": [], "landmarks": None}


MORE = ("left", "right", "closed", "t", "also")
USUAL = {"left": None, "right": None, "closed": True}


def marks_in_states(states: States, view: View, only: Range | None) -> dict[str, Any]:
    """Landmarks in states that are going to show, for plot and strips; of as many states, from the
    first on, as there was time for.

    Of each there is a list of what matters while it passes: kind, x, y, and the rest where that is
    not what is usual.
    """
    until, digits = spent() + MOVING_MARKS, states.document.digits
    found = []
    for survey in Moving(states, view, MOVING_EFFORT, MOVING_SEARCH, only).surveys():
        lanes = []
        for lane, path in survey.lanes:
            wide = lane_on_the_wire(lane, None, digits)
            lanes.append({**wide, "landmarks": _passing(lane.lane.id, path)})
        crossings = [
            {
                "lanes": [crossing.first.lane.id, crossing.second.lane.id],
                "key": crossing_key(crossing),
                "landmarks": _passing(crossing_key(crossing), crossing.path),
            }
            for crossing in survey.crossings
        ]
        found.append({"lanes": lanes, "crossings": crossings})
        if spent() > until:
            break
    return {"states": found, "groups": {kind.value: group for kind, group in GROUP_OF.items()}}


def _passing(key: str, path: Path | None) -> list[list[Any]]:
    marks = []
    for wide in _marks(key, path, 0) if path else ():
        rest = {
            name: value
            for name, value in wide.items()
            if name in MORE and USUAL.get(name, ()) != value
        }
        x, y = wide["x"], wide["y"]
        short = [wide["kind"], float(f"{x:.12g}"), None if y is None else float(f"{y:.12g}")]
        marks.append([*short, *([rest] if rest else [])])
    return marks


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
    """Landmarks as they are; without ``digits`` nothing is put in words."""
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
            "label": labelled(mark, digits) if digits else "",
            **({} if math.isnan(mark.t) else {"t": mark.t, "also": mark.also}),
        }


def _finite(value: float) -> float | None:
    return value if math.isfinite(value) else None
