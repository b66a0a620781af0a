"""Whether a place lies on a lane, and every part of the lane's formula has a value there."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from flint import arb

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.rationals import Exact
from axispath.core.checking.places import (
    Coordinate,
    has_value,
    is_zero,
    value_at,
)
from axispath.core.language.tree import RelationStatement
from axispath.core.language.walking import differences
from axispath.core.sheet.resolve import ResolvedLane

PLANE = ("x", "y")
Lies = Callable[[ResolvedLane, Coordinate, Coordinate], bool | None]
"""Whether a place (x, y) lies on a lane: surely, surely not, or None where that cannot be told."""


def on_function(lane: ResolvedLane, x: Coordinate, y: Coordinate) -> bool | None:
    """On the graph of a function: its value at x is y."""
    assert lane.program is not None
    height = value_at(lane.program, lane.unit, x)
    if height is None:
        return False
    told = has_value(lane.program, lane.unit, x)
    if told and height.is_finite() and not height.overlaps(_ball(y)):
        return False
    return True if told else None


def on_relation(lane: ResolvedLane, x: Coordinate, y: Coordinate) -> bool | None:
    """On what an equation describes: both of its sides have a value, and their difference is 0."""
    statement = lane.statement
    assert isinstance(statement, RelationStatement)
    told: bool | None = True
    for comparison in statement.comparisons:
        for difference in differences(comparison):
            plan = program(difference, PLANE, lane.definitions)
            there = has_value(plan, lane.unit, x, y)
            if there is False:
                return False
            if there is None:
                told = None
            elif comparison is statement.equation and is_zero(plan, lane.unit, x, y) is False:
                return False
    return told


def _ball(at: Coordinate) -> arb:
    return at.ball if isinstance(at, Exact) else at


LIES: Mapping[str, Lies] = {"function": on_function, "relation": on_relation}
"""By the kind of lane. Of other kinds the checker tells nothing yet."""
