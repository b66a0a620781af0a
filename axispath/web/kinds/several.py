"""Functions of several numbers on the page."""

from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    return "a function of several numbers, for use in other lanes"


SEVERAL = Face("parts/lane.html", note=_note)
