"""Matrices and complex numbers on the page: what they are, as far as a note can show it."""

from axispath.core.quantities.values import NoResult, called
from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    try:
        return f"{called(lane.outcome.value)}, for lines of Working"
    except NoResult:
        return "for lines of Working"


FOR_LINES = Face("parts/lane.html", note=_note)
RESTING = Face("parts/lane.html", note=lambda lane, digits: "at rest")
