"""Corners of a region: where the borders of two of its comparisons meet on its own border."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np

from axispath.core.path.budget import Budget
from axispath.core.path.landmark import Kind, Landmark, Open, Path
from axispath.core.path.relations.search import Rectangle, met, side_rules
from axispath.core.plane.relation import Relation
from axispath.core.sheet.resolve import ResolvedLane

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
            if _on_the_border(relation, mark, rectangle)
            and not any(abs(m.x - mark.x) + abs(m.y - mark.y) < 1e-12 for m in marks)
        ]
    marks.sort(key=lambda mark: (mark.x, mark.y))
    left, right = rectangle[:2]
    return Path(left, right, tuple(marks), (), tuple(still), (), (), more=more)


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
