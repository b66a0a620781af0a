"""The highest, lowest and saddle points of a function of x and y in a rectangle.

They are common zeros of both slopes; the sign of the determinant of second slopes, enclosed, tells
which they are.
"""

from __future__ import annotations

import numpy as np

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import between, multiply, subtract
from axispath.core.arithmetic.fraction import numerator
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.path.relations.rules import Rectangle, Rules, landmark
from axispath.core.path.relations.search import NEAR, open_stretches
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Zero, solve
from axispath.core.search.isolate import merged_open
from axispath.core.search.landmark import Kind, Landmark, Open, Path, Reason
from axispath.core.sheet.resolve import ResolvedLane


def find_levels(lane: ResolvedLane, rectangle: Rectangle, budget: Budget) -> Path:
    """The points at which both slopes are 0, in the order of x; ``z`` is the value there."""
    left, right = rectangle[:2]
    assert lane.statement is not None
    rules = Rules(lane.statement.body, lane.definitions, lane.unit)
    fx, fy = (numerator(slope) for slope in rules.slopes)
    if ZERO in (fx, fy):  # the same along a whole direction
        flat = (Open(left, right, Reason.OVERLAP),) if fx == fy else ()
        return Path(left, right, (), (), flat, (), ())
    solved = solve(rules.pair(fx, fy), rectangle, budget)
    marks, unsure = _told(rules, solved.zeros)
    still = [*open_stretches(solved, [], rectangle), *unsure]
    return Path(
        left,
        right,
        tuple(sorted(marks, key=lambda mark: (mark.x, mark.y))),
        (),
        tuple(merged_open(still, (right - left) * NEAR)),
        (),
        (),
    )


def _told(rules: Rules, zeros: tuple[Zero, ...]) -> tuple[list[Landmark], list[Open]]:
    value = box_function(rules.plan(rules.tree), rules.unit)
    fx, fy = rules.slopes
    second = [
        box_function(rules.plan(rules.slope(tree, letter)), rules.unit)
        for tree, letter in ((fx, "x"), (fx, "y"), (fy, "y"))
    ]
    marks, unsure = [], []
    for one in zeros:
        x, y = (between(np.array([a]), np.array([b])) for a, b in (one.box[:2], one.box[2:]))
        height = value(x, y)
        if height.state[0] == 0:
            continue
        a, b, c = (part(x, y) for part in second)
        det = subtract(multiply(a, c), multiply(b, b))
        low, high = float(height.low[0]), float(height.high[0])
        kind = None
        if det.state[0] == 2 and det.high[0] < 0:
            kind = Kind.SADDLE
        elif det.state[0] == 2 and det.low[0] > 0:
            kind = Kind.PEAK if a.high[0] < 0 else Kind.PIT
        if kind is None or not np.isfinite(high - low):
            unsure.append(Open(one.box[0], one.box[1], Reason.CLOSE))
            continue
        marks.append(landmark(kind, one, z=(low + high) / 2, z_radius=(high - low) / 2))
    return marks, unsure
