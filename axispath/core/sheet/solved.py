"""A relation solved for y by hand: where its equation is linear or quadratic in y."""

from __future__ import annotations

from axispath.core import catalogue
from axispath.core.arithmetic.fraction import fraction
from axispath.core.arithmetic.simplest import ONE, TWO, ZERO, negation, sum_of, times
from axispath.core.language.plain import plain
from axispath.core.language.tree import (
    Apply,
    Expression,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    RelationStatement,
    Sum,
    differences,
    free_names,
    literal,
)
from axispath.core.sheet.resolve import ResolvedLane

DEGREE = 2
FOUR = Number("4")
Powers = list[Expression]
"""What stands with 1, y and y²."""


def solved_for_y(lane: ResolvedLane) -> list[str]:
    """The right sides of y = …, as they are typed; none where that is not to be had so.

    A relation that is cut off by inequalities is left as it is.
    """
    statement = lane.statement
    if not isinstance(statement, RelationStatement) or statement.equation is None:
        return []
    if len(statement.comparisons) > 1:
        return []
    (difference,) = differences(statement.equation)
    top, bottom = fraction(difference)
    if _uses_y(bottom):
        return []
    powers = _powers(top)
    if powers is None:
        return []
    constant, linear, square = (*powers, ZERO, ZERO)[:3]
    if square == ZERO:
        if linear == ZERO:
            return []
        found = [_over(negation(constant), linear)]
    else:
        found = _roots(square, linear, constant)
    return [plain(tree, catalogue.VOCABULARY) for tree in found]


def _roots(square: Expression, linear: Expression, constant: Expression) -> list[Expression]:
    if linear == ZERO:
        root = Apply("sqrt", (_over(negation(constant), square),))
        return [root, Negation(root)]
    under = sum_of([Power(linear, TWO), negation(times(times(FOUR, square), constant))])
    root = Apply("sqrt", (under,))
    below = times(TWO, square)
    return [_over(Sum((negation(linear), part)), below) for part in (root, Negation(root))]


def _over(top: Expression, bottom: Expression) -> Expression:
    value = literal(bottom)
    if value == 1:
        return top
    if value == -1:
        return _opposite(top)
    return Quotient(top, bottom)


def _opposite(node: Expression) -> Expression:
    if isinstance(node, Negation) and isinstance(node.operand, Sum):
        return node.operand
    return sum_of([negation(t) for t in node.terms]) if isinstance(node, Sum) else negation(node)


def _uses_y(node: Expression) -> bool:
    return any(isinstance(name, Name) and name.name == "y" for name in free_names(node)) or any(
        _uses_y(part)
        for call in free_names(node)
        if not isinstance(call, Name)
        for part in call.arguments
    )


def _powers(node: Expression) -> Powers | None:
    """A formula by the powers of y, up to the second; None where it is not of that form."""
    if not _uses_y(node):
        return [node]
    match node:
        case Name("y"):
            return [ZERO, ONE]
        case Negation(operand):
            inner = _powers(operand)
            return None if inner is None else [negation(part) for part in inner]
        case Sum(terms):
            parts = [_powers(term) for term in terms]
            known = [part for part in parts if part is not None]
            if len(known) < len(parts):
                return None
            return [
                sum_of([part[k] for part in known if k < len(part)])
                for k in range(max(map(len, known)))
            ]
        case Product(left, right):
            return _product(_powers(left), _powers(right))
        case Quotient(top, bottom) if not _uses_y(bottom):
            inner = _powers(top)
            return None if inner is None else [p if p == ZERO else _over(p, bottom) for p in inner]
        case Power(base, exponent) if literal(exponent) == DEGREE:
            inner = _powers(base)
            return _product(inner, inner)
    return None


def _product(left: Powers | None, right: Powers | None) -> Powers | None:
    if left is None or right is None or len(left) + len(right) - 2 > DEGREE:
        return None
    found: list[list[Expression]] = [[] for _ in range(len(left) + len(right) - 1)]
    for i, a in enumerate(left):
        for j, b in enumerate(right):
            found[i + j].append(times(a, b))
    return [sum_of(terms) for terms in found]
