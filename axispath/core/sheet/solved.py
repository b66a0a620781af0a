"""A relation solved for y or x by hand, where its equation is linear or quadratic in that."""

from __future__ import annotations

from typing import Literal

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
)
from axispath.core.language.walking import differences, free_names, literal
from axispath.core.sheet.resolve import ResolvedLane

DEGREE = 2
FOUR = Number("4")
Powers = list[Expression]
"""What stands with 1, y and y²."""
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
    if _uses(letter, bottom):
        return []
    powers = _powers(letter, top)
    if powers is None:
        return []
    constant, linear, square = (*powers, ZERO, ZERO)[:3]
    if square == ZERO:
        if linear == ZERO:
            return []
        found = [_over(_opposite(constant), linear)]
    else:
        found = _roots(square, linear, constant)
    return [plain(tree, catalogue.VOCABULARY) for tree in found]


def _roots(square: Expression, linear: Expression, constant: Expression) -> list[Expression]:
    if linear == ZERO:
        root = Apply("sqrt", (_over(_opposite(constant), square),))
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
    """The negative of a formula; of a sum term by term, those without a minus first."""
    if isinstance(node, Negation):
        return node.operand
    if not isinstance(node, Sum):
        return negation(node)
    terms = [negation(term) for term in node.terms]
    return sum_of(sorted(terms, key=lambda term: isinstance(term, Negation)))


def _uses(letter: Letter, node: Expression) -> bool:
    return any(isinstance(name, Name) and name.name == letter for name in free_names(node)) or any(
        _uses(letter, part)
        for call in free_names(node)
        if not isinstance(call, Name)
        for part in call.arguments
    )


def _powers(letter: Letter, node: Expression) -> Powers | None:
    """A formula by the powers of a letter, up to the second; None where it is not of that form."""
    if not _uses(letter, node):
        return [node]
    match node:
        case Name(name) if name == letter:
            return [ZERO, ONE]
        case Negation(operand):
            inner = _powers(letter, operand)
            return None if inner is None else [negation(part) for part in inner]
        case Sum(terms):
            parts = [_powers(letter, term) for term in terms]
            known = [part for part in parts if part is not None]
            if len(known) < len(parts):
                return None
            return [
                sum_of([part[k] for part in known if k < len(part)])
                for k in range(max(map(len, known)))
            ]
        case Product(left, right):
            return _product(_powers(letter, left), _powers(letter, right))
        case Quotient(top, bottom) if not _uses(letter, bottom):
            inner = _powers(letter, top)
            return None if inner is None else [p if p == ZERO else _over(p, bottom) for p in inner]
        case Power(base, exponent) if literal(exponent) == DEGREE:
            inner = _powers(letter, base)
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
