"""Relations and regions on the page."""

from axispath.core.path.relations.conics import coefficients, described
from axispath.core.plane.relation import relation_of
from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    """What it is: a conic by its name."""
    curve = relation_of(lane).curve
    found = coefficients(curve.plain) if curve is not None else None
    told = described(found, digits) if found is not None else ""
    return f"{lane.name}: {told or lane.kind.called}"


RELATION = Face("parts/kinds/relation.html", "path", _note)
REGION = Face("parts/kinds/relation.html", "path", _note)
