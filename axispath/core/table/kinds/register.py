"""What the registers of this layer hold."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from axispath.core.path.landmark import Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane


@dataclass(frozen=True, slots=True)
class Read:
    """One lane at one x; ``slope`` is NaN where the curve has none."""

    lane: ResolvedLane
    y: float
    shown: str
    reason: str | None
    slope: float

    @property
    def defined(self) -> bool:
        """Whether there is a value."""
        return math.isfinite(self.y)


@dataclass(frozen=True, slots=True)
class Described:
    """``words`` on a lane as its path goes; ``unseen`` why it does not show, None if it does."""

    words: Callable[[ResolvedLane, Path | None, Document], str]
    unseen: Callable[[ResolvedLane, Path | None, Document], str | None]
