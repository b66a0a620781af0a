"""Corners of a region, where the borders of two of its comparisons meet on its own border; and
where along x there is any of it.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace

import numpy as np

from axispath.core.arithmetic.fraction import radical
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.path.relations.rules import Rectangle, Rules, heights, side_rules
from axispath.core.path.relations.search import (
    MOST_CUTS,
    PLACES,
    centres_of,
    met,
    on_edge,
    open_stretches,
)
from axispath.core.plane.relation import Relation
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import solve
from axispath.core.search.landmark import Count, Kind, Landmark, Open, Path
from axispath.core.sheet.resolve import ResolvedLane

Bordered = tuple[Rules, list[Landmark]]
"""A border, and the places at which it is no smooth line."""
CORNERED = (Kind.KINK, Kind.CROSSING, Kind.CUSP)  # of a border, where it is no smooth line
AROUND = 16  # places about a corner at which it is looked whether they belong
NEAR = 1e-7  # of the rectangle, that these are away


def find_corners(
    lane: ResolvedLane, relation: Relation, rectangle: Rectangle, budget: Budget
) -> Path:
    """The corners in a rectangle, in the order of x; a hollow one does not belong."""
    pairs = list(itertools.combinations(side_rules(lane), 2))
    marks: list[Landmark] = []
    still: list[Open] = []
    more = False
    for first, second in pairs:
        path = met(first, second, rectangle, budget.part(len(pairs)))
        still += path.open
        more = more or path.more
        marks += [
            replace(mark, kind=Kind.CORNER, closed=bool(_holds(relation, mark)))
            for mark in path.landmarks
            if _on_the_border(relation, mark, rectangle) and not _known(mark, marks)
        ]
    sides = [
        (rules, [] if ZERO in rules.slopes else centres_of(rules, rectangle, budget)[0])
        for rules in side_rules(lane)
    ]
    for _, sharp in sides:
        marks += [
            replace(mark, kind=Kind.CORNER, closed=bool(_holds(relation, mark)))
            for mark in sharp
            if mark.kind in CORNERED
            if _on_the_border(relation, mark, rectangle) and not _known(mark, marks)
        ]
    marks.sort(key=lambda mark: (mark.x, mark.y))
    left, right = rectangle[:2]
    counts = () if still or more else _counted(lane, relation, sides, marks, rectangle, budget)
    return Path(left, right, tuple(marks), (), tuple(still), (), (), more=more, counts=counts)


@dataclass(frozen=True, slots=True)
class Over:
    """The stretches of y over an x that belong to a region, and whether all of them are known."""

    stretches: tuple[tuple[float, float], ...]
    complete: bool


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
    return Over(tuple(stretches), complete)


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


def _on_the_border(relation: Relation, mark: Landmark, rectangle: Rectangle) -> bool:
    """Whether some of what lies about a place belongs to the region and some not."""
    left, right, bottom, top = rectangle
    angle = 2 * np.pi * (np.arange(AROUND) + 0.37) / AROUND
    x = mark.x + NEAR * (right - left) * np.cos(angle)
    y = mark.y + NEAR * (top - bottom) * np.sin(angle)
    found = relation.holds(x, y)
    return bool(found.any() and not found.all())


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
