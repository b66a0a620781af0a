"""Kinks of a relation: where what stands between absolute bars changes its sign on it, or where two
values of which the larger or the smaller one is taken are the same.

Where g = 0, the value of |g| is 0 whatever its sign, so that the places are the common zeros of g
and of the equation with 0 for |g|. There is a kink where the equation with g and the one with −g
for |g| have slopes that are not along one line. In the same way max(a, b) is a where a − b = 0, and
the two sides are those with a and with b.

Whatever else may bend or jump stays open wherever the relation may pass through such a place.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import (
    THROUGHOUT,
    between,
    multiply,
    quartered,
    subtract,
)
from axispath.core.arithmetic.program import NotComputable, Program
from axispath.core.arithmetic.simplest import ZERO, negation
from axispath.core.language.rebuild import rebuilt
from axispath.core.language.tree import Apply, Expression, Negation, Sum
from axispath.core.language.walking import walk
from axispath.core.path.relations.rules import Rectangle, Rules, landmark
from axispath.core.plane.plain import PLANE
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import (
    MOST_BOXES,
    SHARE,
    Plane,
    Solved,
    Zero,
    solve,
    within_any,
)
from axispath.core.search.landmark import Kind, Landmark
from axispath.core.search.prepared import bends, prepared

NARROW = 2.0**-30  # of the rectangle, from where on boxes are not parted


@dataclass(frozen=True, slots=True)
class Kinks:
    """The proved kinks in a rectangle, and boxes in which there may be others."""

    marks: list[Landmark]
    open: Solved


def find_kinks(rules: Rules, rectangle: Rectangle, budget: Budget) -> Kinks:
    """The kinks of a relation in a rectangle."""
    guards = _guards(rules)
    if not guards:
        return Kinks([], Solved((), np.empty((0, 4)), False))
    known = list(dict.fromkeys(bend for node in walk(rules.tree) for bend in _bends(node)))
    found: list[Landmark] = []
    settled: list[Rectangle] = []
    for bend in known:
        try:
            pair = rules.pair(bend.guard, _with(rules.tree, bend.node, bend.there))
            sides = [_with(rules.tree, bend.node, side) for side in bend.sides]
            slopes = [[rules.slope(side, letter) for letter in PLANE] for side in sides]
        except NotComputable:
            continue
        turns = [[box_function(rules.plan(s), rules.unit) for s in both] for both in slopes]
        zeros = solve(pair, rectangle, budget.part(len(known))).zeros
        told = [one for one in zeros if _turns(turns, one)]
        settled += [one.around for one in told]
        new = [landmark(Kind.KINK, one) for one in told]
        found += [mark for mark in new if not any(_same(mark, other) for other in found)]
    return Kinks(found, _unsettled(rules, guards, settled, rectangle, budget))


@dataclass(frozen=True, slots=True)
class Bend:
    """Where a guard is 0, a part of a formula is ``there``, and one of the ``sides`` beside it."""

    node: Apply
    guard: Expression
    there: Expression
    sides: tuple[Expression, Expression]


def _bends(node: object) -> Iterator[Bend]:
    if not isinstance(node, Apply):
        return
    if node.function == "abs":
        inside = node.arguments[0]
        yield Bend(node, inside, ZERO, (inside, negation(inside)))
    elif node.function in ("max", "min"):
        for a, b in itertools.combinations(dict.fromkeys(node.arguments), 2):
            yield Bend(node, Sum((a, Negation(b))), a, (a, b))


def _guards(rules: Rules) -> list[Plane]:
    """What is 0 wherever a formula may jump or bend where it has a value."""
    ready = prepared(rules.plan(rules.tree))
    plan = ready.plan
    steps = {
        guard
        for index, guards in ready.guards.items()
        if bends(plan.steps[index])
        for guard in guards
    }
    return [
        box_function(Program(plan.inputs, plan.steps, step), rules.unit) for step in sorted(steps)
    ]


def _unsettled(
    rules: Rules,
    guards: list[Plane],
    settled: list[Rectangle],
    rectangle: Rectangle,
    budget: Budget,
) -> Solved:
    """Boxes in which the relation may pass a place where its formula jumps or bends."""
    whole = [box_function(rules.plan(tree), rules.unit) for tree in (rules.tree, *rules.slopes)]
    left, right, bottom, top = rectangle
    narrow = np.array([(right - left) * NARROW, (top - bottom) * NARROW])
    boxes = np.array([rectangle])
    stuck: list[NDArray[np.float64]] = []
    while len(boxes):
        budget.spend(1 + len(boxes) // SHARE)
        if budget.spent or len(boxes) > MOST_BOXES:
            return Solved((), np.concatenate([*stuck, boxes]), True)
        x, y = between(boxes[:, 0], boxes[:, 1]), between(boxes[:, 2], boxes[:, 3])
        bent = np.logical_or.reduce([guard(x, y).may_be_zero for guard in guards])
        value, *steep = [part(x, y) for part in whole]
        smooth = np.logical_and.reduce([part.state == THROUGHOUT for part in (value, *steep)])
        boxes = boxes[bent & value.may_be_zero & ~smooth & ~within_any(boxes, settled)]
        size = np.stack([boxes[:, 1] - boxes[:, 0], boxes[:, 3] - boxes[:, 2]], axis=1)
        done = (size <= narrow).all(axis=1)
        stuck.append(boxes[done])
        boxes = quartered(boxes[~done])
    return Solved((), np.concatenate(stuck) if stuck else np.empty((0, 4)), False)


def _same(first: Landmark, second: Landmark) -> bool:
    apart = max(abs(first.x - second.x), abs(first.y - second.y))
    return apart <= 4 * (first.radius + first.y_radius + second.radius + second.y_radius)


def _turns(slopes: list[list[Plane]], one: Zero) -> bool:
    """Whether the slopes of both sides are surely not along one line."""
    x, y = (between(np.array([a]), np.array([b])) for a, b in (one.box[:2], one.box[2:]))
    (a, b), (c, d) = [[slope(x, y) for slope in both] for both in slopes]
    return bool(subtract(multiply(a, d), multiply(b, c)).has_no_zero[0])


def _with(node: Expression, part: Expression, value: Expression) -> Expression:
    """A formula with a value for each place at which a part of it stands."""
    return value if node == part else rebuilt(node, lambda inner: _with(inner, part, value))
