"""Curves along which a parameter runs: two coordinates, or a distance from the pole by an angle."""

from __future__ import annotations

from typing import TYPE_CHECKING

from axispath.core.language.tree import FunctionStatement
from axispath.core.sheet.kinds.function import called_with, domain_trouble, gives_a_list
from axispath.core.sheet.kinds.kind import Kind

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane


def _trouble(lane: ResolvedLane) -> str | None:
    if any(plan.items is not None for plan in lane.programs):
        return "A curve has two numbers for each value of its parameter, not lists."
    return domain_trouble(lane)


def _polar_trouble(lane: ResolvedLane) -> str | None:
    return domain_trouble(lane) or gives_a_list(lane)


def _is_parametric(lane: ResolvedLane) -> bool:
    statement = lane.statement
    return isinstance(statement, FunctionStatement) and statement.curve and not statement.polar


def _is_polar(lane: ResolvedLane) -> bool:
    return isinstance(lane.statement, FunctionStatement) and lane.statement.polar


PARAMETRIC = Kind(
    "parametric",
    "a curve",
    _is_parametric,
    coloured=True,
    domain=True,
    figure=True,
    trouble=_trouble,
    signature=called_with,
)
POLAR = Kind(
    "polar",
    "a polar curve",
    _is_polar,
    coloured=True,
    grid="polar",
    domain=True,
    figure=True,
    trouble=_polar_trouble,
    signature=called_with,
)
