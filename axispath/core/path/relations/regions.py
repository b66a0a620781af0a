"""Corners of a region, where the borders of two of its comparisons meet on its own border; and
where along x there is any of it.
"""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass, replace

import numpy as np

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import between
from axispath.core.arithmetic.fraction import radical
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.path.relations.centres import (
    PLACES,
    centres_of,
    open_stretches,
    unsettled,
)
from axispath.core.path.relations.rules import (
    Rectangle,
    Rules,
    heights,
    may_pass,
    side_rules,
)
from axispath.core.path.relations.search import MOST_CUTS, met, on_edge
from axispath.core.plane.member import belongs
from axispath.core.plane.relation import Relation
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import solve
from axispath.core.search.landmark import Count, Kind, Landmark, Open, Path, Reason
from axispath.core.sheet.resolve import ResolvedLane

Bordered = tuple[Rules, list[Landmark]]
"""A border, and the places at which it is no smooth line."""
CORNERED = (Kind.KINK, Kind.CROSSING, Kind.CUSP)  # of a border, where it is no smooth line
AROUND = 32  # directions that are looked at where a border goes in none that is known
NEAR = (1e-7, 1e-6, 1e-5)  # of the rectangle, that places beside a corner are away
LEVEL = 1e-9  # a slope that may be none
THIN = 1e-4  # an angle, in which a border could bend before the nearest place beside a corner


def find_corners(
    lane: ResolvedLane, relation: Relation, rectangle: Rectangle, budget: Budget
) -> Path:
    """The corners in a rectangle, in the order of x; a hollow one does not belong."""
    borders = side_rules(lane)
    pairs = list(itertools.combinations(borders, 2))
    marks: list[Landmark] = []
    places: list[Landmark] = []
    still: list[Open] = []
    more = False
    for first, second in pairs:
        path = met(first, second, rectangle, budget.part(len(pairs)))
        still += path.open
        more = more or path.more
        places += path.landmarks
    sides: list[Bordered] = []
    for rules in borders:
        sharp: list[Landmark] = []
        if ZERO not in rules.slopes:
            middle = centres_of(rules, rectangle, budget)
            still += unsettled(rules, middle, rectangle)
            sharp = middle.marks
        sides.append((rules, sharp))
    places += [mark for _, sharp in sides for mark in sharp if mark.kind in CORNERED]
    for mark in places:
        if _known(mark, marks):
            continue
        corner = _is_corner(relation, borders, mark, rectangle)
        if corner:
            closed = bool(_holds(relation, mark))
            marks.append(replace(mark, kind=Kind.CORNER, closed=closed))
        elif corner is None:
            still.append(Open(mark.x, mark.x, Reason.CLOSE))
    marks.sort(key=lambda mark: (mark.x, mark.y))
    left, right = rectangle[:2]
    counts = () if still or more else _counted(lane, relation, sides, marks, rectangle, budget)
    return Path(left, right, tuple(marks), (), tuple(still), (), (), more=more, counts=counts)


@dataclass(frozen=True, slots=True)
class Over:
    """The stretches of y over an x that belong to a region, and whether all of them are known;
    and the y at which borders lie over it.
    """

    stretches: tuple[tuple[float, float], ...]
    complete: bool
    cuts: tuple[float, ...] = ()


def over(
    lane: ResolvedLane, relation: Relation, ends: tuple[float, float], x: float, budget: Budget
) -> Over:
    """What of a region lies over an x, between two ends of y."""
    cuts, complete = {*ends}, True
    for rules in side_rules(lane):
        found, all_of_them = heights(rules, ends, x, budget)
        cuts |= set(found)
        complete = complete and all_of_them
    stretches: list[tuple[float, float]] = []
    for low, high in itertools.pairwise(sorted(cuts)):
        if not relation.holds_at(x, (low + high) / 2):
            continue
        if stretches and stretches[-1][1] == low:
            low = stretches.pop()[0]
        stretches.append((low, high))
    return Over(tuple(stretches), complete, tuple(sorted(cuts)))


def _counted(
    lane: ResolvedLane,
    relation: Relation,
    sides: list[Bordered],
    corners: list[Landmark],
    rectangle: Rectangle,
    budget: Budget,
) -> tuple[Count, ...]:
    """How many stretches of a region lie over each x; () where that is not settled.

    It can change only at corners, where a border rises straight up, and at the rectangle's edges.
    """
    left, right, bottom, top = rectangle
    cuts = {left, right, *(mark.x for mark in corners)}
    for rules, sharp in sides:
        changes = _changes(rules, sharp, rectangle, budget.part(PLACES))
        if changes is None:
            return ()
        cuts |= changes
    ordered = sorted(x for x in cuts if left <= x <= right)
    if len(ordered) > MOST_CUTS:
        return ()
    found: list[Count] = []
    for low, high in itertools.pairwise(ordered):
        there = over(lane, relation, (bottom, top), (low + high) / 2, budget.part(PLACES))
        if not there.complete:
            return ()
        many = len(there.stretches)
        if found and found[-1].many == many:
            low = found.pop().low
        found.append(Count(low, high, many))
    return tuple(found)


def _changes(
    rules: Rules, sharp: list[Landmark], rectangle: Rectangle, budget: Budget
) -> set[float] | None:
    """Where a border rises straight up or meets the lower or upper edge; None where unsettled."""
    edges = [on_edge(rules, edge, rectangle, budget) for edge in (("y", 2), ("y", 3))]
    steep = rules.slopes[1]
    if any(edge is None for edge in edges):
        return None
    found = {x for edge in edges if edge is not None for x in edge}
    if steep == ZERO:  # lines straight up, which both edges have met
        return found
    solved = solve(rules.pair(rules.tree, radical(steep)), rectangle, budget)
    if open_stretches(solved, sharp, rectangle):
        return None
    return found | {one.x for one in solved.zeros} | {mark.x for mark in sharp}


def _known(mark: Landmark, marks: list[Landmark]) -> bool:
    return any(abs(m.x - mark.x) + abs(m.y - mark.y) < 1e-12 for m in marks)


def _is_corner(
    relation: Relation, sides: list[Rules], mark: Landmark, rectangle: Rectangle
) -> bool | None:
    """Whether next to a place some belongs to the region and some not; None where that is open.

    The lines along which borders pass through the place part its surroundings into sectors, however
    thin; a place in each of them tells for all of it.
    """
    through = [rules for rules in sides if may_pass(rules, mark)]
    lines = [_direction(rules, mark) for rules in through]
    told = {_belongs_towards(relation, mark, middle, rectangle) for middle in _sectors(lines)}
    if {True, False} <= told:
        return True
    settled = None not in told and None not in lines and not _parallel(lines)
    return False if settled else None


def _direction(rules: Rules, mark: Landmark) -> float | None:
    """The angle, up to half a turn, at which a border passes; None where both slopes may be 0."""
    at = [between(np.array([v]), np.array([v])) for v in (mark.x, mark.y)]
    slopes = [box_function(rules.plan(slope), rules.unit)(*at) for slope in rules.slopes]
    across, upwards = (float(part.low[0]) / 2 + float(part.high[0]) / 2 for part in slopes)
    size = math.hypot(across, upwards)
    if not math.isfinite(size) or size < LEVEL:
        return None
    return math.atan2(-across, upwards) % math.pi


def _sectors(lines: list[float | None]) -> list[float]:
    """The middles of the sectors between lines; of many where one of them is not known."""
    known = [line for line in lines if line is not None]
    if len(known) < len(lines) or not known:
        known += [2 * math.pi * (k + 0.37) / AROUND for k in range(AROUND)]
    ordered = sorted({(line + turn) % (2 * math.pi) for line in known for turn in (0, math.pi)})
    ends = [*ordered[1:], ordered[0] + 2 * math.pi]
    return [(low + high) / 2 for low, high in zip(ordered, ends, strict=True)]


def _parallel(lines: list[float | None]) -> bool:
    """Whether two lines may be the same."""
    known = sorted(line for line in lines if line is not None)
    return any(
        min(high - low, math.pi - high + low) < THIN
        for low, high in itertools.combinations(known, 2)
    )


def _belongs_towards(
    relation: Relation, mark: Landmark, angle: float, rectangle: Rectangle
) -> bool | None:
    """Whether what lies in a direction right beside a place belongs; None where it differs."""
    size = rectangle[1] - rectangle[0]
    told = {
        belongs(
            relation,
            mark.x + near * size * math.cos(angle),
            mark.y + near * size * math.sin(angle),
        )
        for near in NEAR
    }
    return told.pop() if len(told) == 1 else None


def _holds(relation: Relation, mark: Landmark) -> bool:
    """Whether the corner itself belongs: what is 0 there as far as can be told counts as 0."""
    at = np.array([mark.x]), np.array([mark.y])
    found = []
    for side in relation.sides:
        value = float(side.values(*at)[0])
        room = 1e-12 * (1 + abs(mark.x) + abs(mark.y)) ** 2
        if abs(value) <= room:
            found.append(np.array([side.sign in ("<=", ">=", "=")]))
        else:
            found.append(side.holds(*at))
    return bool(relation.ruled(found)[0])
