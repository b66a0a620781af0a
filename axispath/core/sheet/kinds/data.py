"""A data set: measured numbers in columns."""

from __future__ import annotations

from axispath.core.sheet.kinds.kind import Kind

DATA = Kind("data", "a data set", lambda lane: lane.measured is not None, coloured=True)
