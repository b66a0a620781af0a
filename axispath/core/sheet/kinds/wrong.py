"""A line that is not understood."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

WRONG = Kind(
    "wrong",
    "a line that is not understood",
    lambda lane: lane.statement is None or (lane.error is not None),
)
