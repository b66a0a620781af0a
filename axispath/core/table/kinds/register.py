"""What the registers of this layer hold."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.search.landmark import Path
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
class Section:
    """What a function of two variables is along a line through a place.

    ``rows`` are pairs relative to the picture of it, 0 to 1 from left to right and from bottom to
    top, with NaN between strokes; ``at`` is the place in it. ``line`` is it as a lane.
    """

    title: str
    line: str
    rows: NDArray[np.float32]
    at: tuple[float, float]
    ends: tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class Spot:
    """One lane at one place of the plane, in words."""

    lane: ResolvedLane
    shown: str
    words: tuple[str, ...] = ()
    sections: tuple[Section, ...] = ()


@dataclass(frozen=True, slots=True)
class Described:
    """``words`` on a lane as its path goes; ``unseen`` why it does not show, None if it does."""

    words: Callable[[ResolvedLane, Path | None, Document], str]
    unseen: Callable[[ResolvedLane, Path | None, Document], str | None]
