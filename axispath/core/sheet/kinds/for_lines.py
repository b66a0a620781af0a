"""What only lines of calculation can use: a matrix, a complex number, several results."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

FOR_LINES = Kind("calculated", "a matrix or a complex number", lambda lane: lane.for_lines)
