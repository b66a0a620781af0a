"""Trails: a sheet as it was in the states that its sliders passed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from axispath.core.path.covering import uncovered
from axispath.core.path.kinds import SEARCHED
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import Slide, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve


def trailed(document: Document, states: Sequence[Sequence[Slide]]) -> Iterator[Document]:
    """The document in each state; a state that is no longer possible is left out."""
    return (found for state in states if (found := _in_state(document, state)) is not None)


def _in_state(document: Document, state: Sequence[Slide]) -> Document | None:
    for slide in state:
        try:
            document = apply(document, slide)
        except EditRefused:
            return None
    return document


def trail_marks(documents: Sequence[Document], view: View) -> Iterator[dict[str, Any]]:
    """Zeros and turning points that lanes left behind, as a sampling sees them."""
    for document in documents:
        for lane in resolve(document).shown(SEARCHED):
            if lane.lane.style.trail == "landmarks":
                yield from lane_marks(document, lane, view)


def lane_marks(document: Document, lane: ResolvedLane, view: View) -> list[dict[str, Any]]:
    """A lane's zeros and turning points in a view, as a sampling sees them, or its moving point."""
    search = SEARCHED[lane.kind.key]
    if search.left_behind is not None:
        places = search.left_behind(lane)
    else:
        path = search.quick(lane, view, None)
        path = path and uncovered(document, lane.lane.id, path)
        places = [(mark.x, mark.y) for mark in path.landmarks] if path is not None else []
    return [{"id": lane.lane.id, "x": x, "y": y} for x, y in places]
