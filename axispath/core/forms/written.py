"""Polynomials and numbers as trees, to be written and typeset like everything else."""

from __future__ import annotations

from fractions import Fraction

from flint import fmpq, fmpq_poly

from axispath.core.language.tree import (
    Apply,
    Expression,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Sum,
)


def fraction_of(value: fmpq) -> Fraction:
    """The same number."""
    return Fraction(int(value.p), int(value.q))


def number(value: Fraction) -> Expression:
    """A rational number."""
    whole = Number(str(abs(value.numerator)))
    size = whole if value.denominator == 1 else Quotient(whole, Number(str(value.denominator)))
    return Negation(size) if value < 0 else size


def powers(polynomial: fmpq_poly, letter: str) -> Expression:
    """A sum of powers, the highest first."""
    terms: list[Expression] = []
    for k in range(polynomial.degree(), -1, -1):
        value = fraction_of(polynomial[k])
        if value:
            first = not terms
            term = _term(value if first else abs(value), k, letter)
            terms.append(term if first or value > 0 else Negation(term))
    if not terms:
        return Number("0")
    return terms[0] if len(terms) == 1 else Sum(tuple(terms))


def _term(value: Fraction, k: int, letter: str) -> Expression:
    if k == 0:
        return number(value)
    return times_number(value, Name(letter) if k == 1 else Power(Name(letter), Number(str(k))))


def times_number(value: Fraction, *parts: Expression) -> Expression:
    """A number times some parts; what is below the number's line is below the parts too."""
    first, *rest = parts
    if abs(value.numerator) != 1:
        first, rest = number(Fraction(value.numerator)), [*parts]
    elif value < 0:
        first = Negation(first)
    whole = first
    for part in rest:
        whole = Product(whole, part)
    return whole if value.denominator == 1 else Quotient(whole, Number(str(value.denominator)))


def raised(part: Expression, n: int) -> Expression:
    """A part to a whole power above 0."""
    return part if n == 1 else Power(part, Number(str(n)))


def product(value: Fraction, parts: list[Expression]) -> Expression:
    """A number times some parts."""
    return times_number(value, *parts) if parts else number(value)


def less_root(
    letter: str, centre: Fraction, times: Fraction, radicand: int, sign: int
) -> Expression:
    """x − (p ± q√d), with d above 1."""
    root = times_number(times, Apply("sqrt", (Number(str(radicand)),)))
    terms: list[Expression] = [Name(letter)]
    if centre:
        terms.append(number(-centre))
    terms.append(Negation(root) if sign > 0 else root)
    return Sum(tuple(terms))


def told(value: Fraction) -> str:
    """A number in a sentence: −3/2."""
    return str(value).replace("-", "−")
