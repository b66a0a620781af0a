"""A block of equations, whose unknowns are values of the sheet."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

EQUATIONS = Kind("equations", "a block of equations", lambda lane: lane.lane.block is not None)
