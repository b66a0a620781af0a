"""Relations and regions on the page."""

from typing import Any

from axispath.core.path.relations.conics import coefficients, described
from axispath.core.plane.relation import relation_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.solved import solved_for_y
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    """What it is: a conic by its name."""
    curve = relation_of(lane).curve
    found = coefficients(curve.plain) if curve is not None else None
    told = described(found, digits) if found is not None else ""
    return f"{lane.name}: {told or lane.kind.called}"


def _more(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    return {"solved": tuple(solved_for_y(lane))}


RELATION = Face("parts/kinds/relation.html", "path", _note, _more)
REGION = Face("parts/kinds/relation.html", "path", _note)
