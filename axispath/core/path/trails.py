"""Trails: a sheet as it was in the states that its sliders passed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from axispath.core.path.lanes import interval
from axispath.core.path.quick import quick_path
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import Slide, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve


def trailed(document: Document, states: Sequence[Sequence[Slide]]) -> list[Document]:
    """The document in each state; a state that is no longer possible is left out."""
    return [found for state in states if (found := _in_state(document, state)) is not None]


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
        for lane in resolve(document).functions():
            ends = interval(lane, view.left, view.right, None)
            if lane.lane.style.trail != "landmarks" or ends is None:
                continue
            for mark in quick_path(lane.floats, ends[0].x, ends[1].x).landmarks:
                yield {"id": lane.lane.id, "x": mark.x, "y": mark.y}
