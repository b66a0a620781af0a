"""A function of x and y, drawn as a map of its levels."""

from __future__ import annotations

from typing import TYPE_CHECKING

from axispath.core.language.tree import FunctionStatement
from axispath.core.sheet.kinds.function import called_with, gives_a_list
from axispath.core.sheet.kinds.kind import Kind

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane


def _recognised(lane: ResolvedLane) -> bool:
    statement = lane.statement
    return (
        isinstance(statement, FunctionStatement)
        and statement.parameters == ("x", "y")
        and not statement.curve
    )


MAP = Kind(
    "map",
    "a function of two variables",
    _recognised,
    coloured=True,
    trouble=gives_a_list,
    signature=called_with,
)
