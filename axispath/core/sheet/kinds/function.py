"""A function of one variable, drawn over the x-axis."""

from __future__ import annotations

from typing import TYPE_CHECKING

from flint import arb

from axispath.core.sheet.kinds.kind import Kind

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane

FARTHEST = 1e15


def called_with(lane: ResolvedLane) -> str:
    """A function with its arguments: f(x)."""
    assert lane.statement is not None
    return f"{lane.name}({', '.join(lane.statement.parameters)})"


def gives_a_list(lane: ResolvedLane) -> str | None:
    """The sentence for a function that gives a list; None where it gives numbers."""
    if lane.program.items is None:
        return None
    return "This gives a list, but a function here gives one value for each x."


def domain_trouble(lane: ResolvedLane) -> str | None:
    """What is wrong with the ends of a domain."""
    low, high = lane.ends
    for end in (low, high):
        if end is not None and not (end.ball.is_finite() and abs(end.ball) < arb(FARTHEST)):
            return "An end of the domain has no value that can be used."
    if low is not None and high is not None and not low.ball < high.ball:
        return "The domain is empty: its start is not below its end."
    return None


def _trouble(lane: ResolvedLane) -> str | None:
    return domain_trouble(lane) or gives_a_list(lane)


FUNCTION = Kind(
    "function",
    "a function",
    lambda lane: lane.statement is not None and len(lane.statement.parameters) == 1,
    coloured=True,
    domain=True,
    trouble=_trouble,
    signature=called_with,
)
