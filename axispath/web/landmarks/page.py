"""The Landmarks page of the desk, and the same landmarks for the scripts."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import Any

from axispath.budgets import MOVING_SEARCH, WORDS
from axispath.core.arithmetic.patience import OutOfTime, limited
from axispath.core.path.lanes import MOST_CROSSED, Range
from axispath.core.path.survey import moving_survey
from axispath.core.sheet.document import Document
from axispath.core.table.words import explain_empty, in_words
from axispath.web.landmarks.groups import COVERED, Group, along, called, group, meeting
from axispath.web.landmarks.searching import looked
from axispath.web.landmarks.wire import crossing_on_the_wire, lane_on_the_wire

LISTED = 24  # functions whose landmarks are listed from the beginning


@dataclass
class Page:
    """All landmarks of a view, for scripts and for the Landmarks page."""

    lanes: list[dict[str, Any]]
    crossings: list[dict[str, Any]]
    groups: list[Group]
    empty: str
    explanation: str
    can_frame: bool
    words: str
    settled: str
    goes_on: bool
    moving: bool = False


def landmarks(
    document: Document,
    moving: bool,
    longer: bool,
    only: Range | None,
    by_x: bool = False,
    unfolded: Collection[str] = (),
) -> Page:
    """Landmarks, spans and open stretches of every visible lane in the document's view.

    While something moves nothing is proved. What is open after the usual effort is searched
    ``longer`` when nothing else is asked for. The lists go by function, or all ``by_x``; of very
    many functions those that are ``unfolded`` are listed, and the first ones.
    """
    found = (
        moving_survey(document, only, MOVING_SEARCH) if moving else looked(document, longer, only)
    )
    digits = document.digits
    few = by_x or len(found.lanes) <= LISTED
    looking = not moving and not longer
    groups = [
        group(lane, path, digits, looking, few or k < LISTED or lane.lane.id in unfolded)
        for k, (lane, path) in enumerate(found.lanes)
        if path is not None
    ]
    groups += [
        meeting(crossing, digits, looking, few or called(crossing) in unfolded)
        for crossing in found.crossings
    ]
    if len(found.lanes) > MOST_CROSSED:
        note = f"Intersections are looked for among the first {MOST_CROSSED} functions shown."
        groups.append(Group("more functions", None, "", note, False, []))
    if len(found.lanes) >= LISTED:
        note = f"Of {LISTED} functions and more, the plot marks those of the lane in focus."
        groups.append(Group("marks on the plot", None, "", note, True, []))
    try:
        with limited(WORDS):
            explanation, can_frame = explain_empty(document, found)
    except OutOfTime:  # the picture says so too
        explanation, can_frame = "", False
    goes_on = looking and found.goes_on
    return Page(
        [lane_on_the_wire(lane, path, digits) for lane, path in found.lanes],
        [crossing_on_the_wire(crossing, digits) for crossing in found.crossings],
        [along(groups)] if by_x and groups else groups,
        "" if found.lanes else "Landmarks appear here as soon as the sheet shows a function.",
        explanation,
        can_frame,
        in_words(document, found),
        _settled(groups, moving, goes_on) if groups else "",
        goes_on,
        moving,
    )


def _settled(groups: list[Group], moving: bool, goes_on: bool) -> str:
    """How far all landmarks are settled, in a few words."""
    if moving:
        return "following the movement; proved when it rests"
    if all(group.complete for group in groups):
        return "every landmark found and settled"
    if any(group.verdict == COVERED for group in groups):
        return "landmarks are covered"
    return "looking further …" if goes_on else "some stretches are not settled"
