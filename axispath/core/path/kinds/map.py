"""Functions of two variables: highest, lowest and saddle points, and what a view has to hold."""

from __future__ import annotations

from axispath.core.path.kinds.register import Box, Searched
from axispath.core.path.kinds.relation import in_rectangle, quick, searched
from axispath.core.path.lanes import Effort
from axispath.core.path.relations.levels import find_levels
from axispath.core.path.relations.rules import Rectangle
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import MAP_GROUPS, Kind, Path
from axispath.core.sheet.resolve import ResolvedLane

REACH = 5.0
NEAREST = 6  # points that are framed
EFFORT = Effort(evaluations=2000)
MATTERING = (Kind.PEAK, Kind.PIT, Kind.SADDLE)


def _find(lane: ResolvedLane, rectangle: Rectangle, budget: Budget) -> Path:
    subject = ("map", lane.program, lane.unit)
    return searched(subject, lane, rectangle, budget, lambda: find_levels(lane, rectangle, budget))


MAP = Searched(in_rectangle(_find), quick, MAP_GROUPS)


def map_box(lane: ResolvedLane, margins: bool) -> Box | None:
    """left, right, bottom and top around the points that matter, else about the origin."""
    rectangle = (-2 * REACH, 2 * REACH, -2 * REACH, 2 * REACH)
    marks = _find(lane, rectangle, EFFORT.budget(1)).of(*MATTERING)
    far = sorted(max(abs(mark.x), abs(mark.y)) for mark in marks)
    reach = max([REACH, *(1.3 * size for size in far[:NEAREST])])
    return -reach, reach, -reach, reach
