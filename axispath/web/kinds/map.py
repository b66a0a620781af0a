"""Functions of two variables on the page."""

from typing import Any

from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    return "a function of two variables, as a map of its levels"


def _more(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    return {"levels": lane.lane.levels}


MAP = Face("parts/kinds/map.html", "path", _note, _more)
