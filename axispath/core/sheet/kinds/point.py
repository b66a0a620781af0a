"""A point, or a list of points."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from axispath.core.arithmetic.floats import float_items, float_value
from axispath.core.arithmetic.program import Program
from axispath.core.language.running import USUAL
from axispath.core.language.tree import Expression, Name, Negation, Number, Pair
from axispath.core.language.walking import coordinates, free_names
from axispath.core.sheet.kinds.kind import Kind

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane


def places(lane: ResolvedLane) -> list[tuple[float, float]]:
    """Where the points are; NaN where a coordinate has no value."""
    first, second = (_values(plan, lane) for plan in lane.programs)
    count = max(len(first), len(second))
    # A number beside a list is the same for all of them.
    return list(zip(_spread(first, count), _spread(second, count), strict=True))


def _values(plan: Program, lane: ResolvedLane) -> list[float]:
    return [float_value(plan, lane.unit)] if plan.items is None else float_items(plan, lane.unit)


def _spread(values: list[float], count: int) -> list[float]:
    return values * count if len(values) == 1 else values


def is_free(lane: ResolvedLane) -> bool:
    """Whether both coordinates are plain numbers, so that a hand can move the point."""
    body = lane.statement.body if lane.statement else None
    return isinstance(body, Pair) and _plain(body.first) and _plain(body.second)


def _plain(node: Expression) -> bool:
    return isinstance(node.operand if isinstance(node, Negation) else node, Number)


def could_run(lane: ResolvedLane) -> tuple[str, ...]:
    """Letters of a single point that a curve could run along, where nobody has said which is meant.

    Of a point that is there the usual letters that it uses; of one that waits what it waits for.
    """
    statement = lane.statement
    if statement is None or not isinstance(statement.body, Pair) or statement.parameters:
        return ()
    if lane.lane.runs:
        return ()
    if lane.missing:
        return tuple(name for name in lane.missing if len(name) == 1)
    used = {node.name for node in free_names(statement.body) if isinstance(node, Name)}
    return tuple(letter for letter in USUAL if letter in used)


def _trouble(lane: ResolvedLane) -> str | None:
    first, second = lane.programs
    if first.items is None or second.items is None or len(first.items) == len(second.items):
        return None
    return f"These lists are not equally long: {len(first.items)} values and {len(second.items)}."


def why_missing(lane: ResolvedLane) -> Program | None:
    """The coordinate that has no value, of a single point that is not there."""
    there = places(lane)
    if len(there) != 1 or all(math.isfinite(value) for value in there[0]):
        return None
    return lane.programs[0 if not math.isfinite(there[0][0]) else 1]


POINT = Kind(
    "point",
    "a point",
    lambda lane: lane.statement is not None and coordinates(lane.statement.body) is not None,
    coloured=True,
    trouble=_trouble,
)
