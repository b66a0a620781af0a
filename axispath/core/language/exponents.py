"""Exponents that stand for real roots."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.language.tree import Expression, Negation, Quotient
from axispath.core.language.walking import literal


def odd_root(exponent: Expression) -> Fraction | None:
    """The exponent p/q of a real root with q odd and above 1, written as a fraction, else None.

    ``x^(1/3)`` is the real cube root; ``x^0.2`` is not a root, because a decimal is not
    written as one.
    """
    bare = exponent.operand if isinstance(exponent, Negation) else exponent
    if not isinstance(bare, Quotient):
        return None
    value = literal(exponent)
    if value is None or value.denominator == 1 or value.denominator % 2 == 0:
        return None
    top, bottom = literal(bare.numerator), literal(bare.denominator)
    whole = top is not None and bottom is not None and top.denominator == bottom.denominator == 1
    return value if whole else None
