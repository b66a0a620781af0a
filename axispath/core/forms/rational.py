"""Programs of one letter as quotients of polynomials with rational coefficients."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from flint import fmpq, fmpq_poly

from axispath.core.arithmetic.program import Program, Step

MOST_DEGREE = 24
MOST_BITS = 400  # of a coefficient
ONE = fmpq_poly([1])
ZERO = fmpq_poly([])


class NotRational(Exception):
    """The program is no quotient of polynomials, or one of too high a degree."""


@dataclass(frozen=True, slots=True)
class Rational:
    """``top``/``bottom`` in lowest terms, the bottom monic; ``below`` is 0 where there is no value.

    Below are all numbers by which is divided on the way, each once: (x² − 1)/(x − 1) is x + 1, and
    has no value at 1.
    """

    top: fmpq_poly
    bottom: fmpq_poly
    below: fmpq_poly

    @property
    def is_polynomial(self) -> bool:
        """Whether nothing is left below the line."""
        return bool(self.bottom == ONE)

    def equals(self, other: Rational) -> bool:
        """Whether both have the same values wherever both have one."""
        return bool(self.top == other.top and self.bottom == other.bottom)

    def holds_at(self, place: Fraction) -> bool:
        """Whether there is a value at a place."""
        return bool(self.below(fmpq(place.numerator, place.denominator)) != 0)

    @property
    def removed(self) -> fmpq_poly:
        """What is 0 at the holes: where there is no value, though the quotient has one."""
        return once(self.below // self.below.gcd(once(self.bottom)))


def once(polynomial: fmpq_poly) -> fmpq_poly:
    """A polynomial with the same zeros, each single; monic."""
    if polynomial.degree() < 1:
        return ONE
    single = polynomial // polynomial.gcd(polynomial.derivative())
    return single / single.leading_coefficient()


def rational(plan: Program) -> Rational:
    """The quotient that a program of one letter is. Raises NotRational."""
    if plan.inputs != 1 or plan.items is not None:
        raise NotRational
    results: list[tuple[fmpq_poly, fmpq_poly] | None] = [(fmpq_poly([0, 1]), ONE)]
    below = ONE
    for step in plan.steps[1:]:
        given = [results[k] for k in step.operands]
        if any(part is None for part in given):
            raise NotRational
        result, divided = _carried_out(step, [part for part in given if part is not None])
        below = _least_multiple(below, once(divided))
        results.append(result)
    found = results[plan.result]
    assert found is not None
    top, bottom = found
    return Rational(top, bottom, below)


def _carried_out(
    step: Step, given: list[tuple[fmpq_poly, fmpq_poly]]
) -> tuple[tuple[fmpq_poly, fmpq_poly], fmpq_poly]:
    """The result of a step in lowest terms, and by what it divides."""
    match step.operation, given:
        case "number", []:
            number = Fraction(step.detail)
            return (fmpq_poly([fmpq(number.numerator, number.denominator)]), ONE), ONE
        case "negate", [(a, b)]:
            return (-a, b), ONE
        case "add", [(a, b), (c, d)]:
            return _lowest(a * d + c * b, b * d), ONE
        case "subtract", [(a, b), (c, d)]:
            return _lowest(a * d - c * b, b * d), ONE
        case "multiply", [(a, b), (c, d)]:
            return _lowest(a * c, b * d), ONE
        case "divide", [(a, b), (c, d)] if c != ZERO:
            return _lowest(a * d, b * c), c
        case "whole power", [(a, b)]:
            n = int(step.detail)
            if abs(n) * max(a.degree(), b.degree(), 1) > MOST_DEGREE or (n <= 0 and a == ZERO):
                raise NotRational
            if n >= 0:  # x⁰ has no value at 0
                return (a**n, b**n), ONE if n else a
            return _lowest(b**-n, a**-n), a
    raise NotRational


def _lowest(top: fmpq_poly, bottom: fmpq_poly) -> tuple[fmpq_poly, fmpq_poly]:
    if top == ZERO:
        return ZERO, ONE
    shared = top.gcd(bottom)
    top, bottom = top // shared, bottom // shared
    lead = bottom.leading_coefficient()
    top, bottom = top / lead, bottom / lead
    if max(top.degree(), bottom.degree()) > MOST_DEGREE or _bits(top) > MOST_BITS:
        raise NotRational
    return top, bottom


def _bits(polynomial: fmpq_poly) -> int:
    return max(
        (max(int(c.p).bit_length(), int(c.q).bit_length()) for c in polynomial.coeffs()), default=0
    )


def _least_multiple(a: fmpq_poly, b: fmpq_poly) -> fmpq_poly:
    return a * (b // a.gcd(b))
