"""Whether a sheet in radians looks as if degrees were meant."""

from __future__ import annotations

from collections.abc import Iterable

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tree import Apply, Expression
from axispath.core.language.walking import literal, walk
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
    found = suspect_in(lane.unit, (lane.statement.body,))
    domain = lane.domain
    if found is None and domain and any(_takes_angle(n) for n in walk(lane.statement.body)):
        for end in (domain.low, domain.high):
            value = literal(end) if end else None
            if value is not None and value and value % TURN_PARTS == 0:
                return f"a domain up to {value}"
    return found


def suspect_in(unit: AngleUnit, trees: Iterable[Expression]) -> str | None:
    """The first angle of some formulas that looks like degrees in a sheet of radians."""
    if unit is AngleUnit.DEGREE:
        return None
    for node in (node for tree in trees for node in walk(tree)):
        if isinstance(node, Apply) and _takes_angle(node):
            value = literal(node.arguments[0])
            whole = value is not None and value.denominator == 1
            if whole and value is not None and abs(value) >= LEAST and value % 5 == 0:
                return f"{node.function}({value})"
    return None


def turns(body: Expression) -> bool:
    """Whether the angle unit matters to a formula."""
    return any(
        isinstance(node, Apply) and node.function != "degrees" and takes_part(node.function)
        for node in walk(body)
    )


def of_angles(body: Expression) -> bool:
    """Whether a formula takes angles: sin x does, and arcsin x gives one."""
    return any(_takes_angle(node) for node in walk(body))


def takes_part(function: str) -> bool:
    """Whether the angle unit matters to a function."""
    if function in catalogue.CALCULATED:
        return catalogue.CALCULATED[function].angles
    return catalogue.ENTRIES[function].angle is not catalogue.Angle.NONE


def _takes_angle(node: Expression) -> bool:
    if not isinstance(node, Apply) or node.function not in catalogue.ENTRIES:
        return False
    if node.function == "degrees":
        return False
    return catalogue.ENTRIES[node.function].angle is catalogue.Angle.ARGUMENT
