"""Points on the page."""

import math
from typing import Any

from axispath.core.sheet.document import Document
from axispath.core.sheet.kinds.point import could_run, is_free, places
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.kinds import AT_PLACE
from axispath.core.table.kinds.point import polar_place, why_not_there, written_place
from axispath.web.kinds.register import Face

LISTED = 4
MOST_REGIONS = 6
SEEN_BY_POINTS = ("region",)


def _note(lane: ResolvedLane, digits: int) -> str:
    there = places(lane)
    if missing := why_not_there(lane):
        return missing
    if is_free(lane):
        return ""
    shown = ", ".join(written_place(place, digits) for place in there[:LISTED])
    if len(there) == 1:
        return f"at {shown}"
    return f"{len(there)} points: {shown}{', …' if len(there) > LISTED else ''}"


MOST_PLACES = 400  # of one lane, on its strip


def _placed(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    """Where the points of a lane are, for its strip, and what is written beside them."""
    there = places(lane)
    finite = [place for place in there if all(map(math.isfinite, place))]
    alone = lane.lane.style.place and len(there) == 1 and len(finite) == 1
    shown = written_place(there[0], document.digits) if alone else ""
    label = f"{lane.name} {shown}".rstrip()
    return {
        "places": tuple(finite[:MOST_PLACES]),
        "free": is_free(lane),
        "label": label,
        "letters": could_run(lane),
        "polar": polar_place(there[0], document) if len(there) == 1 else "",
        "within": _within(document, finite[0]) if len(there) == len(finite) == 1 else "",
    }


def _within(document: Document, place: tuple[float, float]) -> str:
    """In which regions of the sheet a point lies."""
    regions = [lane for lane in resolve(document).shown(AT_PLACE) if lane.can(SEEN_BY_POINTS)]
    told = [
        f"{AT_PLACE[lane.kind.key](document, lane, *place).shown.replace('it', str(lane.name), 1)}"
        for lane in regions[:MOST_REGIONS]
    ]
    return ", ".join(told)


POINT = Face("parts/kinds/point.html", "point", _note, _placed)
