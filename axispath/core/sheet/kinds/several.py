"""A function of several numbers, for use in other lanes."""

from __future__ import annotations

from axispath.core.sheet.kinds.function import called_with, gives_a_list
from axispath.core.sheet.kinds.kind import Kind

SEVERAL = Kind(
    "several",
    "a function of several numbers",
    lambda lane: lane.statement is not None and len(lane.statement.parameters) > 1,
    trouble=gives_a_list,
    signature=called_with,
)
