"""A formula as one fraction: what is above the line tells where it is 0."""

from __future__ import annotations

from axispath.core.language.tree import (
    Apply,
    Expression,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Sum,
)
from axispath.core.language.walking import literal

ONE = Number("1")
MOST_TERMS = 8  # beyond which one fraction would be longer than it helps


def numerator(node: Expression) -> Expression:
    """Something that is 0 wherever the formula is 0; 0 elsewhere only where a denominator is 0."""
    return fraction(node)[0]


def fraction(node: Expression) -> tuple[Expression, Expression]:
    """What is above and below the line of one fraction that has the formula's values."""
    match node:
        case Negation(operand):
            top, bottom = fraction(operand)
            return Negation(top), bottom
        case Product(left, right):
            (a, b), (c, d) = fraction(left), fraction(right)
            return _times(a, c), _times(b, d)
        case Quotient(left, right) if literal(node) is None:
            (a, b), (c, d) = fraction(left), fraction(right)
            return _times(a, d), _times(b, c)
        case Apply("tan", arguments):
            return Apply("sin", arguments), Apply("cos", arguments)
        case Power(base, exponent):
            return _power(node, base, exponent)
        case Sum(terms) if len(terms) <= MOST_TERMS:
            return _sum(node, terms)
    return node, ONE


def radical(node: Expression) -> Expression:
    """Something with the same zeros, each once where that is seen in products and powers."""
    match node:
        case Negation(operand):
            return radical(operand)
        case Product(left, right):
            if literal(left) is not None:
                return radical(right)
            if literal(right) is not None:
                return radical(left)
            one, other = radical(left), radical(right)
            return one if one == other else Product(one, other)
        case Power(base, exponent):
            value = literal(exponent)
            if value is not None and value > 0 and value.denominator == 1:
                return radical(base)
    return node


def _times(left: Expression, right: Expression) -> Expression:
    if left == ONE:
        return right
    return left if right == ONE else Product(left, right)


def _power(node: Power, base: Expression, exponent: Expression) -> tuple[Expression, Expression]:
    value = literal(exponent)
    if value is None or value.denominator != 1 or value == 0:
        return node, ONE
    top, bottom = fraction(base)
    if value < 0:
        top, bottom = bottom, top
    size = Number(str(abs(value.numerator)))

    def raised(part: Expression) -> Expression:
        return part if part == ONE or size == ONE else Power(part, size)

    return raised(top), raised(bottom)


def _sum(node: Sum, terms: tuple[Expression, ...]) -> tuple[Expression, Expression]:
    parts = [fraction(term) for term in terms]
    below: list[Expression] = []
    for _, bottom in parts:
        if bottom != ONE and bottom not in below:
            below.append(bottom)
    if not below:
        return node, ONE
    tops = []
    for top, bottom in parts:
        for other in below:
            if other != bottom:
                top = _times(top, other)
        tops.append(top)
    whole = below[0]
    for other in below[1:]:
        whole = _times(whole, other)
    return Sum(tuple(tops)), whole
