"""Whether a sheet in radians looks as if degrees were meant."""

from __future__ import annotations

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tree import Apply, Expression, literal, walk
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve

LEAST = 10  # no angle in radians that anybody types is a whole number as large as this
TURN_PARTS = 90


def seems_to_mean_degrees(document: Document) -> str | None:
    """What in the sheet suggests degrees, such as ``sin(60)``; None where nothing does."""
    if document.unit is AngleUnit.DEGREE:
        return None
    for lane in resolve(document):
        found = _suspect(lane) if lane.statement else None
        if found:
            return found
    return None


def _suspect(lane: ResolvedLane) -> str | None:
    assert lane.statement is not None
    turning = [node for node in walk(lane.statement.body) if _takes_angle(node)]
    for node in turning:
        assert isinstance(node, Apply)
        value = literal(node.arguments[0])
        if value is not None and value.denominator == 1 and abs(value) >= LEAST and value % 5 == 0:
            return f"{node.function}({value})"
    domain = lane.domain
    if turning and domain:
        for end in (domain.low, domain.high):
            value = literal(end) if end else None
            if value is not None and value and value % TURN_PARTS == 0:
                return f"a domain up to {value}"
    return None


def turns(body: Expression) -> bool:
    """Whether the angle unit matters to a formula."""
    return any(
        isinstance(node, Apply)
        and catalogue.ENTRIES[node.function].angle is not catalogue.Angle.NONE
        and node.function != "degrees"
        for node in walk(body)
    )


def _takes_angle(node: Expression) -> bool:
    if not isinstance(node, Apply) or node.function == "degrees":
        return False
    return catalogue.ENTRIES[node.function].angle is catalogue.Angle.ARGUMENT
