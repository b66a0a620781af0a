"""What the registers of this layer hold."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal, Protocol

from axispath.core.path.curves.measure import Measures
from axispath.core.path.lanes import Effort, Range
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.document import View
from axispath.core.sheet.resolve import ResolvedLane

Box = tuple[float, float, float, float]
"""left, right, bottom and top."""


class Search(Protocol):
    """A proven search: the path of a lane in a view, as one of so many searches."""

    def __call__(
        self,
        lane: ResolvedLane,
        view: View,
        effort: Effort,
        searches: int,
        only: Range | None,
    ) -> Path | None:
        """The path, or None where the lane is not in the view."""


@dataclass(frozen=True, slots=True)
class Searched:
    """How landmarks are found: proven, and quickly while something moves.

    ``groups`` are the headings that they are listed under, ``along`` whether they lie along x or
    along a parameter. ``left_behind`` is what a trail of points consists of, where that is not
    the landmarks, ``measured`` gives lengths and areas of a lane with this path.
    """

    path: Search
    quick: Callable[[ResolvedLane, View, Range | None], Path | None]
    groups: Mapping[str, tuple[Kind, ...]]
    along: Literal["x", "parameter"] = "x"
    left_behind: Callable[[ResolvedLane], list[tuple[float, float]]] | None = None
    measured: Callable[[ResolvedLane, Path], Measures] | None = None


class Meets(Protocol):
    """A proven search for the places at which two lanes meet."""

    def __call__(
        self,
        first: ResolvedLane,
        second: ResolvedLane,
        view: View,
        budget: Budget,
        only: Range | None,
    ) -> Path | None:
        """The intersections, or None where the lanes have nothing in common."""


Framed = Callable[[ResolvedLane, bool], Box | None]
"""What matters in a lane, with margins or without; None where there is nothing to see."""
