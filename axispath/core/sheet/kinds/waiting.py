"""A line that waits for names which nothing defines."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

WAITING = Kind("waiting", "a line that waits", lambda lane: bool(lane.missing), coloured=True)
