"""Relations and regions on the page."""

from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    return f"{lane.name}: {lane.kind.called} between x and y"


RELATION = Face("parts/kinds/relation.html", "path", _note)
REGION = Face("parts/kinds/relation.html", "path", _note)
