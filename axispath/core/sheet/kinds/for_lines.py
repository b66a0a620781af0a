"""What only lines can use: a matrix, a complex number, a quantity, several results."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

CALLED = "a matrix, a complex number or a quantity"
FOR_LINES = Kind("calculated", CALLED, lambda lane: lane.for_lines)
