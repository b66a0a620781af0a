"""Which landmarks there are to find: those of lanes and of their meetings, whatever covers them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from flint import arb

from axispath.core.path.called import KIND_NAMES
from axispath.core.path.covering import is_covered, is_same
from axispath.core.path.labels import crossing_key
from axispath.core.path.lanes import USUAL, Crossing, Effort, Range
from axispath.core.path.survey import Survey, survey
from axispath.core.practice.typed import Number, Point
from axispath.core.search.landmark import GROUP_OF, Kind, Landmark, Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Cover, Found
from axispath.core.sheet.resolve import ResolvedLane


def enclosure(x: float, radius: float) -> arb:
    """Where a number lies that a landmark has, rounded to ``x``."""
    return arb(x, radius + math.ulp(x))


@dataclass(frozen=True)
class Sought:
    """One landmark, and whose it is: of a lane, or of two that meet."""

    key: str
    name: str
    lanes: tuple[ResolvedLane, ...]
    mark: Landmark

    @property
    def group(self) -> str:
        """Under which heading it is listed."""
        return GROUP_OF[self.mark.kind]

    @property
    def called(self) -> str:
        """What it is, such as “a zero of f”."""
        word = KIND_NAMES[self.mark.kind]
        article = "an" if word[0] in "aeiou" else "a"
        if self.mark.kind in (Kind.MEETS_X, Kind.MEETS_Y):
            return f"a point of {self.name} {word}"
        return f"{article} {word} of {self.name}"

    @property
    def place(self) -> arb:
        """The enclosure of its x."""
        return enclosure(self.mark.x, self.mark.radius)

    @property
    def height(self) -> arb:
        """The enclosure of its y."""
        return enclosure(self.mark.y, self.mark.y_radius)

    def is_at(self, x: Number) -> bool:
        """Whether a number is its place, to the digits typed."""
        if (
            x.end.exact is not None
            and self.mark.exact is not None
            and not x.slack
            and not self.curve
        ):
            return x.end.exact == self.mark.exact
        return x.may_be(self.place)

    def is_point(self, point: Point) -> bool:
        """Whether a point is it, to the digits typed; at a break only the place counts."""
        at_height = point.y is None or self.mark.y != self.mark.y or point.y.may_be(self.height)
        return self.is_at(point.x) and at_height

    @property
    def curve(self) -> bool:
        """Whether what is known of it exactly is a parameter."""
        return self.mark.t == self.mark.t

    @property
    def found(self) -> Found:
        """How it is remembered as found."""
        height = self.mark.y if abs(self.mark.y) < 1e300 else None
        return Found(key=self.key, kind=self.mark.kind.value, x=self.mark.x, y=height)

    def is_found(self, found: tuple[Found, ...]) -> bool:
        """Whether it is among those that were found."""
        return any(is_same(one, self.key, self.mark) for one in found)


def whole(document: Document, effort: Effort = USUAL, only: Range | None = None) -> Survey:
    """A look at the sheet without its cover."""
    return survey(document.model_copy(update={"cover": Cover()}), effort, only)


def sought(found: Survey) -> Iterator[Sought]:
    """All landmarks of a look."""
    for lane, path in found.lanes:
        for mark in path.landmarks if path is not None else ():
            yield Sought(lane.lane.id, lane.name or "", (lane,), mark)
    for crossing in found.crossings:
        for mark in crossing.path.landmarks:
            yield Sought(crossing_key(crossing), _both(crossing), _lanes(crossing), mark)


def _lanes(crossing: Crossing) -> tuple[ResolvedLane, ...]:
    return crossing.first, crossing.second


def _both(crossing: Crossing) -> str:
    return f"{crossing.first.name} and {crossing.second.name}"


def covered(document: Document, found: Survey) -> list[Sought]:
    """The landmarks under the cover, those that were found among them."""
    return [one for one in sought(found) if is_covered(document, one.key, one.mark.kind)]


def open_paths(document: Document, found: Survey) -> list[tuple[str, Path]]:
    """What was not searched to its end of the lanes under the cover, with their names."""
    cover = document.cover
    own = [
        (lane.name or "", path)
        for lane, path in found.lanes
        if path is not None and (not cover.lanes or lane.lane.id in cover.lanes)
    ]
    met = [
        (_both(c), c.path)
        for c in found.crossings
        if cover.covers("intersections", tuple(lane.lane.id for lane in _lanes(c)))
    ]
    return [(name, path) for name, path in [*own, *met] if not path.complete]
