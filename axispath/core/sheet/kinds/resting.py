"""A line of calculation that rests: kept, and not computed."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

RESTING = Kind("resting", "a line at rest", lambda lane: lane.lane.written.rests)
