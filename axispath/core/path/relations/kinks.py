"""Kinks of a relation: where what stands between absolute bars changes its sign on it.

Where g = 0, the value of |g| is 0 whatever its sign, so that the places are the common zeros of g
and of the equation with 0 for |g|. There is a kink where the equation with g and the one with −g
for |g| have slopes that are not along one line.
"""

from __future__ import annotations

import numpy as np

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import between, multiply, subtract
from axispath.core.arithmetic.program import NotComputable
from axispath.core.arithmetic.simplest import ZERO, negation
from axispath.core.language.rebuild import rebuilt
from axispath.core.language.tree import Apply, Expression
from axispath.core.language.walking import walk
from axispath.core.path.relations.rules import Rectangle, Rules, landmark
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Plane, Zero, solve
from axispath.core.search.landmark import Kind, Landmark


def find_kinks(rules: Rules, rectangle: Rectangle, budget: Budget) -> list[Landmark]:
    """The proved kinks in a rectangle; others stay open where they are searched for otherwise."""
    insides = dict.fromkeys(
        node.arguments[0]
        for node in walk(rules.tree)
        if isinstance(node, Apply) and node.function == "abs"
    )
    found: list[Landmark] = []
    for inside in insides:
        try:
            pair = rules.pair(inside, _with(rules.tree, inside, ZERO))
            sides = [_with(rules.tree, inside, g) for g in (inside, negation(inside))]
            slopes = [[rules.slope(side, letter) for letter in ("x", "y")] for side in sides]
        except NotComputable:
            continue
        turns = [[box_function(rules.plan(s), rules.unit) for s in both] for both in slopes]
        zeros = solve(pair, rectangle, budget.part(len(insides))).zeros
        new = [landmark(Kind.KINK, one) for one in zeros if _turns(turns, one)]
        found += [mark for mark in new if not any(_same(mark, other) for other in found)]
    return found


def _same(first: Landmark, second: Landmark) -> bool:
    apart = max(abs(first.x - second.x), abs(first.y - second.y))
    return apart <= 4 * (first.radius + first.y_radius + second.radius + second.y_radius)


def _turns(slopes: list[list[Plane]], one: Zero) -> bool:
    """Whether the slopes of both sides are surely not along one line."""
    x, y = (between(np.array([a]), np.array([b])) for a, b in (one.box[:2], one.box[2:]))
    (a, b), (c, d) = [[slope(x, y) for slope in both] for both in slopes]
    return bool(subtract(multiply(a, d), multiply(b, c)).has_no_zero[0])


def _with(node: Expression, inside: Expression, value: Expression) -> Expression:
    """A formula with a value for the absolute value of ``inside``."""

    if isinstance(node, Apply) and node.function == "abs" and node.arguments[0] == inside:
        return value
    return rebuilt(node, lambda part: _with(part, inside, value))
