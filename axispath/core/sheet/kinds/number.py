"""A plain number, which is a slider."""

from __future__ import annotations

from typing import TYPE_CHECKING

from axispath.core.language.tree import Negation, Number
from axispath.core.sheet.kinds.kind import Kind

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane


def _plain(lane: ResolvedLane) -> bool:
    if lane.statement is None or lane.statement.parameters:
        return False
    body = lane.written.body if lane.written else lane.statement.body
    return isinstance(body.operand if isinstance(body, Negation) else body, Number)


NUMBER = Kind("number", "a slider", _plain)
