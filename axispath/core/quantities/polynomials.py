"""Zeros of polynomials with rational coefficients: exact up to degree two, else enclosed.

The polynomial is factored over the rationals first, so that no two zeros are told apart by
guessing and multiplicities are exact; the zeros of the factors are isolated by the library
(J. von zur Gathen and J. Gerhard 2013, Modern Computer Algebra, chapters 14 to 16; F. Johansson
2017, Arb).
"""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from typing import Any

from flint import arb, fmpq, fmpq_poly, fmpz_poly

from axispath.core.quantities.scalars import enclosed, known, simplified
from axispath.core.quantities.surds import NotExact, Surd
from axispath.core.quantities.values import Scalar

MOST_DEGREE = 100


def polynomial_zeros(coefficients: Sequence[Fraction]) -> list[Scalar]:
    """All zeros, as often as they count: the real ones in order, then the others in pairs.

    ``coefficients`` from the constant on, not all 0.
    """
    polynomial = fmpq_poly([fmpq(c.numerator, c.denominator) for c in coefficients])
    whole = fmpz_poly([int(c.p) for c in (polynomial * polynomial.denom()).coeffs()])
    found: list[Scalar] = []
    for factor, times in whole.factor()[1]:
        for zero in _of_factor(factor):
            found += [zero] * int(times)
    return ordered_zeros(found)


def ordered_zeros(zeros: list[Scalar]) -> list[Scalar]:
    """The real ones in order, then the others in pairs."""
    return sorted(zeros, key=_order)


def _of_factor(factor: fmpz_poly) -> list[Scalar]:
    c = [Fraction(int(one)) for one in factor.coeffs()]
    if len(c) == 2:
        return [Surd.of(-c[0] / c[1])]
    if len(c) == 3:
        try:
            root = Surd.of(c[1] * c[1] - 4 * c[2] * c[0]).square_root()
            half = Surd.of(Fraction(1, 2) / c[2])
            return [(Surd.of(-c[1]) + way) * half for way in (root, -root)]
        except NotExact:
            pass
    if len(c) == 5 and not c[1] and not c[3]:
        try:
            return _biquadratic(c)
        except NotExact:
            pass
    found: list[Any] = list(factor.complex_roots())
    return [simplified(zero) for zero, _ in found]


def _biquadratic(c: list[Fraction]) -> list[Scalar]:
    root = Surd.of(c[2] * c[2] - 4 * c[4] * c[0]).square_root()
    half = Surd.of(Fraction(1, 2) / c[4])
    squares = [(Surd.of(-c[2]) + way) * half for way in (root, -root)]
    roots = [square.square_root() for square in squares]
    return [one for found in roots for one in (found, -found)]


def _order(zero: Scalar) -> tuple[bool, float, float, float]:
    ball = enclosed(known(zero))
    if isinstance(ball, arb):
        return False, float(ball.mid()), 0.0, 0.0
    real, imaginary = float(ball.real.mid()), float(ball.imag.mid())
    return True, round(real, 9), abs(imaginary), -imaginary
