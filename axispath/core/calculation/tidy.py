"""Derivatives as a person would write them: without factors of 1 and powers of 1."""

from __future__ import annotations

from axispath.core.arithmetic.derivative import ANGLE_FACTOR
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.rebuild import rebuilt
from axispath.core.language.tree import (
    Constant,
    Expression,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Sum,
)

ZERO, ONE = Number("0"), Number("1")


def tidied(node: Expression, unit: AngleUnit) -> Expression:
    """The same formula, shorter."""
    if node == ANGLE_FACTOR:
        degrees = unit is AngleUnit.DEGREE
        return Quotient(Constant("π"), Number("180")) if degrees else ONE
    match rebuilt(node, lambda part: tidied(part, unit)):
        case Negation(Negation(inner)):
            return inner
        case Negation(Number("0")):
            return ZERO
        case Power(base, Number("1")):
            return base
        case Power(_, Number("0")):
            return ONE
        case Quotient(top, Number("1")):
            return top
        case Product(left, right):
            return _product(left, right)
        case Sum(terms):
            kept = tuple(term for term in terms if term != ZERO)
            return Sum(kept) if len(kept) > 1 else kept[0] if kept else ZERO
        case other:
            return other


def _product(left: Expression, right: Expression) -> Expression:
    if ZERO in (left, right):
        return ZERO
    if left == ONE:
        return right
    if right == ONE:
        return left
    if isinstance(left, Negation):
        return Negation(_product(left.operand, right))
    if isinstance(right, Negation):
        return Negation(_product(left, right.operand))
    if isinstance(left, Number) and isinstance(right, Number):
        value = left.value * right.value
        if value.denominator == 1:
            return Number(str(value))
    if isinstance(right, Number):
        return Product(right, left)
    return Product(left, right)
