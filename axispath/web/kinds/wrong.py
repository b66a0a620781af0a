"""Lines that are not understood, on the page."""

from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    return f"not understood: {lane.error.message}" if lane.error else ""


WRONG = Face("parts/lane.html", note=_note)
