"""A value: an expression without a variable."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

VALUE = Kind(
    "value",
    "a value",
    lambda lane: lane.statement is not None and not lane.statement.parameters,
)
