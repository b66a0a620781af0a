"""Edits of points: one that a hand moves, and several made into a list or into data."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from axispath.core.data.cells import MAX_ROWS, Cells
from axispath.core.language.numbers import full_precision
from axispath.core.language.walking import free_names
from axispath.core.sheet.dependencies import coordinates_of, used_names
from axispath.core.sheet.document import MAX_LANES, Document, LaneId
from axispath.core.sheet.edits.change import Change, LaneChange, lane_of
from axispath.core.sheet.edits.data import unused, with_data
from axispath.core.sheet.edits.lines import AddLane
from axispath.core.sheet.kinds.point import POINT, is_free, places
from axispath.core.sheet.measured import Column
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve

DIGITS = 12
SMALLEST = 1e-100  # what is smaller is 0: no view shows the difference
Coordinate = Annotated[float, Field(allow_inf_nan=False, ge=-1e15, le=1e15)]


class MovePoint(LaneChange):
    """Other coordinates for a point of plain numbers."""

    do: Literal["move point"] = "move point"
    x: Coordinate
    y: Coordinate

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        resolved = resolve(document).lane(lane.id)
        if resolved is None or not is_free(resolved):
            raise EditRefused(
                f"{self.called(document)} follows other names, so that it cannot be moved by hand."
            )
        left, equals, _ = lane.text.partition("=")
        x, y = (_written(value) for value in (self.x, self.y))
        head = f"{left.rstrip()} = " if equals else ""
        return document.with_lane(lane.model_copy(update={"text": f"{head}({x}, {y})"}))

    def words(self, document: Document) -> str:
        return f"moving {self.called(document)}"


class GatherPoints(Change):
    """One list in the place of some points; those that follow names or are followed by other lines
    stay beside it."""

    do: Literal["gather points"] = "gather points"
    ids: Annotated[tuple[LaneId, ...], Field(min_length=1, max_length=MAX_LANES)]

    def applied(self, document: Document) -> Document:
        points = _points(document, self.ids, "put into a list of points")
        moved = _alone(points, is_free)
        parts = [part for lane in points for part in _in_a_list(lane, lane in moved)]
        return AddLane(text=f"[{', '.join(parts)}]").applied(_without(document, moved))

    def words(self, document: Document) -> str:
        return "making a list of points"


class PointsToData(Change):
    """A data set of the places where points are, in their stead; those that follow names or are
    followed by other lines stay beside it."""

    do: Literal["points to data"] = "points to data"
    ids: Annotated[tuple[LaneId, ...], Field(min_length=1, max_length=MAX_LANES)]
    id: LaneId | None = None

    def applied(self, document: Document) -> Document:
        points = _points(document, self.ids, "made into data")
        there = [place for lane in points for place in places(lane)]
        there = [(x, y) for x, y in there if math.isfinite(x + y)]
        if not there:
            raise EditRefused("None of these points has a place, so that there is no data in them.")
        if len(there) > MAX_ROWS:
            raise EditRefused(f"A data set holds {MAX_ROWS} rows; these are {len(there)} points.")
        left = _without(document, _alone(points, _of_numbers))
        values = zip(*there, strict=True)
        names = unused(left, ("x_1", "y_1"))
        columns = tuple(
            Column(name=name, cells=Cells(list(one)))
            for name, one in zip(names, values, strict=True)
        )
        return with_data(left, "", columns, self.id)

    def words(self, document: Document) -> str:
        return "making data of points"


def _points(document: Document, ids: tuple[str, ...], what: str) -> list[ResolvedLane]:
    """The lanes of some points. Raises EditRefused where one of them is none."""
    sheet = resolve(document)
    lanes = [sheet.lane(lane_of(document, one).id) for one in ids]
    points = [lane for lane in lanes if lane is not None and lane.kind is POINT]
    if len(points) < len(ids):
        raise EditRefused(f"Only points can be {what}.")
    return points


def _without(document: Document, lanes: list[ResolvedLane]) -> Document:
    gone = {lane.lane.id for lane in lanes}
    kept = tuple(lane for lane in document.lanes if lane.id not in gone)
    return document.model_copy(update={"lanes": kept})


def _of_numbers(lane: ResolvedLane) -> bool:
    """Whether a point, or every point of a list, is written in numbers alone."""
    return lane.statement is not None and not any(True for _ in free_names(lane.statement.body))


def _alone(
    points: list[ResolvedLane], may_go: Callable[[ResolvedLane], bool]
) -> list[ResolvedLane]:
    """Those of some points that may go, and that no other line follows."""
    used = {name for one in points[0].definitions.values() for name, _ in used_names(one)}
    return [
        lane
        for lane in points
        if may_go(lane) and not {lane.name, *coordinates_of(str(lane.name))} & used
    ]


def _in_a_list(lane: ResolvedLane, moved: bool) -> list[str]:
    """A point, or the points of a list, as they stand in a list; ``moved`` there for good."""
    if moved:
        return [lane.lane.text.rpartition("=")[2].strip()]
    if len(places(lane)) == 1:
        return [f"({lane.name}_x, {lane.name}_y)"]
    return [f"({_written(x)}, {_written(y)})" for x, y in places(lane) if math.isfinite(x + y)]


def _written(value: float) -> str:
    return full_precision(float(f"{value:.{DIGITS}g}") if abs(value) >= SMALLEST else 0.0)
