"""Numbers back to trees, so that they are typeset, copied and used in other lines."""

from __future__ import annotations

import math
from fractions import Fraction

from flint import acb, arb

from axispath.core.language.tree import (
    Apply,
    Constant,
    Expression,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Sum,
)
from axispath.core.language.vocabulary import IMAGINARY_UNIT
from axispath.core.quantities.surds import Surd, Unit

IMAGINARY = Constant(IMAGINARY_UNIT)
DIGITS = 40  # of an enclosed number that stands for itself in other lines


def tree_of(value: Surd | arb | acb, negative: bool = False) -> Expression:
    """A number as an expression: exact, or with so many digits as are of use."""
    if negative:
        value = -value
    if isinstance(value, Surd):
        return _exact(value)
    if isinstance(value, arb):
        return decimal_tree(value)
    parts: list[Expression] = []
    if not value.real.is_zero():
        parts.append(decimal_tree(value.real))
    imaginary = decimal_tree(value.imag)
    inner = imaginary.operand if isinstance(imaginary, Negation) else imaginary
    turned = Product(inner, IMAGINARY)
    if not parts:
        return signed(turned) if isinstance(imaginary, Negation) else turned
    parts.append(Negation(turned) if isinstance(imaginary, Negation) else turned)
    return Sum(tuple(parts))


def decimal_tree(value: arb) -> Expression:
    """A real number as a decimal."""
    text = value.mid().str(DIGITS, radius=False)
    number = Number(text.lstrip("-"))
    return Negation(number) if text.startswith("-") else number


def _exact(value: Surd) -> Expression:
    """All over one denominator: (1 + √5)/2, 5π/6, 2√3, 1 − 2i."""
    if value.is_zero:
        return Number("0")
    real, imaginary = value.parts
    if real.terms and imaginary.terms:
        whole = all(q.denominator == 1 for _, q in value.terms)
        if not whole and len({q.denominator for _, q in value.terms}) > 1:
            turned = _real(imaginary)
            if len(imaginary.terms) == 1 and imaginary.terms[0][1] < 0:
                return Sum((_real(real), Negation(Product(_real(-imaginary), IMAGINARY))))
            return Sum((_real(real), Product(turned, IMAGINARY)))
    return _real(value)


def _real(value: Surd) -> Expression:
    ordered = sorted(value.terms, key=_order)
    bottom = math.lcm(*(q.denominator for _, q in ordered))
    negative = ordered[0][1] < 0 and len(ordered) == 1
    below = min((unit[2] for unit, _ in ordered), default=0)
    under: Expression | None = Number(str(bottom)) if bottom > 1 else None
    if below < 0:
        letter = _pi(-below)
        under = letter if under is None else Product(under, letter)
    terms = []
    for (s, m, k), q in ordered:
        sized = abs(q) * bottom if negative else q * bottom
        terms.append(_term((s, m, k - min(below, 0)), sized))
    top = terms[0] if len(terms) == 1 else Sum(tuple(terms))
    whole = top if under is None else Quotient(top, under)
    return signed(whole) if negative else whole


def signed(node: Expression) -> Expression:
    """The opposite, with its sign in front of the first number: −2i, −1/2."""
    if isinstance(node, Product):
        return Product(signed(node.left), node.right)
    if isinstance(node, Quotient) and not isinstance(node.numerator, Sum):
        return Quotient(signed(node.numerator), node.denominator)
    return Negation(node)


def _order(term: tuple[Unit, Fraction]) -> tuple[int, int, int, int]:
    (s, m, k), q = term
    return s, abs(k), m, 0 if q > 0 else 1


def _term(unit: Unit, q: Fraction) -> Expression:
    s, m, k = unit
    size = abs(q)
    factors: list[Expression] = []
    if size != 1 or unit == (0, 1, 0):
        factors.append(Number(str(size.numerator)))
    if m > 1:
        factors.append(Apply("sqrt", (Number(str(m)),)))
    if k:
        factors.append(_pi(k))
    if s:
        factors.append(IMAGINARY)
    found = factors[0]
    for factor in factors[1:]:
        found = Product(found, factor)
    return Negation(found) if q < 0 else found


def _pi(k: int) -> Expression:
    return Constant("π") if k == 1 else Power(Constant("π"), Number(str(k)))
