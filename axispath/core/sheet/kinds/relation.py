"""Lines that relate x and y: equations, and regions of the plane."""

from __future__ import annotations

from typing import TYPE_CHECKING

from axispath.core.language.tree import RelationStatement
from axispath.core.sheet.kinds.kind import Kind

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane

MOST_COMPARED = 12


def _trouble(lane: ResolvedLane) -> str | None:
    if len(lane.programs) > MOST_COMPARED:
        return f"These are {len(lane.programs)} comparisons; a line can have {MOST_COMPARED}."
    if any(plan.items is not None for plan in lane.programs):
        return "A list is compared here, but a relation compares numbers."
    return None


def _equation(lane: ResolvedLane) -> bool:
    return isinstance(lane.statement, RelationStatement) and lane.statement.equation is not None


def _region(lane: ResolvedLane) -> bool:
    return isinstance(lane.statement, RelationStatement) and lane.statement.equation is None


RELATION = Kind(
    "relation", "a relation", _equation, coloured=True, figure=True, alone=True, trouble=_trouble
)
REGION = Kind("region", "a region", _region, coloured=True, trouble=_trouble)
