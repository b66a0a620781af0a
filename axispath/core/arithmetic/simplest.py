"""Sums, products and negations of trees, without what changes nothing."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.language.tree import Expression, Negation, Number, Product, Quotient, Sum

ZERO, ONE, TWO = Number("0"), Number("1"), Number("2")


def sum_of(terms: list[Expression]) -> Expression:
    """The sum of some terms."""
    kept = [term for term in terms if term != ZERO]
    if not kept:
        return ZERO
    return kept[0] if len(kept) == 1 else Sum(tuple(kept))


def times(left: Expression, right: Expression) -> Expression:
    """The product of two."""
    if ZERO in (left, right):
        return ZERO
    if left == ONE:
        return right
    return left if right == ONE else Product(left, right)


def number(value: Fraction) -> Expression:
    """An exact number, as a fraction where it is none of the whole ones."""
    made: Expression = Number(str(abs(value.numerator)))
    if value.denominator != 1:
        made = Quotient(made, Number(str(value.denominator)))
    return Negation(made) if value < 0 else made


def negation(node: Expression) -> Expression:
    """The opposite."""
    if node == ZERO:
        return ZERO
    return node.operand if isinstance(node, Negation) else Negation(node)
