"""The highest, lowest and saddle points of a function of x and y in a rectangle.

They are common zeros of both slopes; the sign of the determinant of second slopes, enclosed, tells
which they are. Where it is 0, the branches of the level through the point tell it, if the function
is a polynomial: none for a highest or lowest point, four or more for a saddle.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

import numpy as np

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import between, multiply, subtract
from axispath.core.arithmetic.fraction import numerator
from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.language.tree import Expression
from axispath.core.path.relations.centres import NEAR, exact_place, open_stretches
from axispath.core.path.relations.eliminating import eliminated
from axispath.core.path.relations.rules import Rectangle, Rules, landmark
from axispath.core.path.relations.sharing import beside, shared_within, text_of
from axispath.core.plane.branches import branches_at
from axispath.core.plane.plain import PLANE, polynomial
from axispath.core.plane.polynomials import slope, value_at, written
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Zero, solve
from axispath.core.search.isolate import merged_open
from axispath.core.search.landmark import Kind, Landmark, Open, Path, Reason, SharedCurve
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
    across, upwards = (polynomial(part, rules.definitions) for part in (fx, fy))
    common = shared_within(across, upwards, rectangle)
    if common is None:
        return _levels(rules, (fx, fy), (across, upwards), rectangle, budget)
    told = SharedCurve(text_of(common.curve), 0)
    if any(max(map(sum, part)) == 0 for part in common.rest):
        return Path(left, right, (), (), (), (), (), shared=told)
    one, other = (written(part) for part in common.rest)
    path = _levels(rules, (one, other), common.rest, rectangle, budget)
    curve = Rules(written(common.curve), rules.definitions, rules.unit)
    kept, still = beside(path.landmarks, curve, common)
    return replace(path, landmarks=kept, open=(*path.open, *still), shared=told)


def _levels(
    rules: Rules,
    both: tuple[Expression, Expression],
    steep: tuple[Coefficients | None, Coefficients | None],
    rectangle: Rectangle,
    budget: Budget,
) -> Path:
    """The points at which both functions are 0, which both slopes are there and nowhere else;
    ``steep`` are they as polynomials.
    """
    left, right = rectangle[:2]
    pair = rules.pair(*both)
    solved = eliminated(*steep, pair, solve(pair, rectangle, budget), rectangle)
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
        place = None if kind is not None else exact_place(one)
        if place is not None and rules.polynomial is not None:
            settled, kind = _by_branches(rules.polynomial, *place)
            if settled and kind is None:  # neither: it rises to one side and falls to the other
                continue
        if kind is None or not np.isfinite(high - low):
            unsure.append(Open(one.box[0], one.box[1], Reason.CLOSE))
            continue
        marks.append(landmark(kind, one, z=(low + high) / 2, z_radius=(high - low) / 2))
    return marks, unsure


def _by_branches(found: Coefficients, x: Fraction, y: Fraction) -> tuple[bool, Kind | None]:
    """Whether a place at which both slopes may be 0 could be told, and what it is then."""
    if any(value_at(slope(found, letter), x, y) for letter in PLANE):
        return False, None
    height = value_at(found, x, y)
    level = {powers: value for powers, value in found.items() if powers != (0, 0)}
    lifted = found.get((0, 0), Fraction(0)) - height
    if lifted:
        level[0, 0] = lifted
    branches = branches_at(level, x, y) if level else None
    if branches is None:
        return False, None
    if branches.half:
        return True, Kind.SADDLE if branches.half > 2 else None
    off = Fraction(1, 2**500)  # nearer than any other part of the level
    near = value_at(level, x + off, y)
    return True, Kind.PEAK if near < 0 else Kind.PIT
