"""Values in tables."""

from __future__ import annotations

from axispath.core.sheet.resolve import ResolvedLane


def column_of_value(lane: ResolvedLane) -> str:
    """The head of its column where a slider runs: its name."""
    return lane.name or ""
