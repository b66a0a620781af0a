"""A relation solved for y or x by hand, where its equation is linear or quadratic in that."""

from __future__ import annotations

from typing import Literal

from axispath.core import catalogue
from axispath.core.arithmetic.fraction import fraction
from axispath.core.arithmetic.letter import opposite, over, powers_of, uses
from axispath.core.arithmetic.simplest import TWO, ZERO, negation, sum_of, times
from axispath.core.language.plain import plain
from axispath.core.language.tree import (
    Apply,
    Expression,
    Negation,
    Number,
    Power,
    RelationStatement,
    Sum,
)
from axispath.core.language.walking import differences
from axispath.core.sheet.resolve import ResolvedLane

FOUR = Number("4")
Letter = Literal["x", "y"]


def solved_for(letter: Letter, lane: ResolvedLane) -> list[str]:
    """The right sides of y = … or x = …, as they are typed; none where that is not to be had so.

    A relation that is cut off by inequalities is left as it is.
    """
    statement = lane.statement
    if not isinstance(statement, RelationStatement) or statement.equation is None:
        return []
    if len(statement.comparisons) > 1:
        return []
    (difference,) = differences(statement.equation)
    top, bottom = fraction(difference)
    if uses(letter, bottom):
        return []
    powers = powers_of(letter, top)
    if powers is None:
        return []
    constant, linear, square = (*powers, ZERO, ZERO)[:3]
    if square == ZERO:
        if linear == ZERO:
            return []
        found = [over(opposite(constant), linear)]
    else:
        found = _roots(square, linear, constant)
    return [plain(tree, catalogue.VOCABULARY) for tree in found]


def _roots(square: Expression, linear: Expression, constant: Expression) -> list[Expression]:
    if linear == ZERO:
        root = Apply("sqrt", (over(opposite(constant), square),))
        return [root, Negation(root)]
    under = sum_of([Power(linear, TWO), negation(times(times(FOUR, square), constant))])
    root = Apply("sqrt", (under,))
    below = times(TWO, square)
    return [over(Sum((negation(linear), part)), below) for part in (root, Negation(root))]
