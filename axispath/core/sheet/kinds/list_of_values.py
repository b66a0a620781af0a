"""A list of values."""

from __future__ import annotations

from typing import TYPE_CHECKING

from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.arithmetic.program import NotComputable
from axispath.core.sheet.kinds.kind import Kind

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane


def _is_list(lane: ResolvedLane) -> bool:
    if lane.statement is None or lane.statement.parameters:
        return False
    try:
        return lane.program.items is not None
    except (NotComputable, OutOfTime):  # said where the lane is checked
        return False


LIST = Kind("list", "a list", _is_list)
