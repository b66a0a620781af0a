"""Polynomials of x and y by their powers, and as elements of a ring that can take them apart."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from flint import fmpq, fmpq_mpoly, fmpq_mpoly_ctx

from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.arithmetic.simplest import number, sum_of, times
from axispath.core.language.tree import Expression, Name, Number, Power

RING = fmpq_mpoly_ctx.get(("x", "y"), "lex")


def in_ring(found: Coefficients) -> fmpq_mpoly:
    """A polynomial as an element of the ring."""
    return RING.from_dict({k: fmpq(v.numerator, v.denominator) for k, v in found.items()})


def by_powers(part: fmpq_mpoly) -> Coefficients:
    """The same the other way round."""
    return {(int(i), int(j)): Fraction(int(v.p), int(v.q)) for (i, j), v in part.to_dict().items()}


def squarefree(found: Coefficients) -> tuple[Coefficients, bool]:
    """The polynomial with each of its factors once, and whether it had one more often."""
    part, repeated = each_once(in_ring(found))
    return by_powers(part), repeated


def each_once(whole: fmpq_mpoly) -> tuple[fmpq_mpoly, bool]:
    """The product of all factors, each once, and whether one of them stood more often."""
    _, factors = whole.factor_squarefree()
    part = RING.from_dict({(0, 0): fmpq(1)})
    for factor, _ in factors:
        part *= factor
    return part, any(power > 1 for _, power in factors)


def written(found: Coefficients) -> Expression:
    """A polynomial as a formula."""
    terms = []
    for (i, j), value in sorted(found.items(), reverse=True):
        term = number(value)
        for name, power in (("x", i), ("y", j)):
            letter: Expression = Name(name)
            if power:
                term = times(term, letter if power == 1 else Power(letter, Number(str(power))))
        terms.append(term)
    return sum_of(terms)


def value_at(found: Coefficients, x: Fraction, y: Fraction) -> Fraction:
    """The value at a place."""
    return sum((value * x**i * y**j for (i, j), value in found.items()), Fraction(0))


def slope(found: Coefficients, letter: str) -> Coefficients:
    """The derivative of a polynomial along x or y."""
    result: Coefficients = {}
    for (i, j), value in found.items():
        power = i if letter == "x" else j
        if power:
            result[(i - 1, j) if letter == "x" else (i, j - 1)] = power * value
    return result


@dataclass(frozen=True, slots=True)
class Shared:
    """What two polynomials have in common as a factor, and what is left of each."""

    curve: Coefficients
    rest: tuple[Coefficients, Coefficients]


def shared(first: Coefficients, second: Coefficients) -> Shared | None:
    """The factor that two polynomials have in common; None where there is none."""
    if not first or not second:
        return None
    f, g = (in_ring(part) for part in (first, second))
    common = f.gcd(g)
    if common.is_constant():
        return None
    return Shared(by_powers(common), (by_powers(f // common), by_powers(g // common)))


def without_lines(found: Coefficients) -> Coefficients:
    """The polynomial without its factors in x or in y alone, which are lines along the axes."""
    part = in_ring(found)
    _, factors = part.factor()
    for factor, power in factors:
        if 0 in factor.degrees():
            part = part // factor**power
    return by_powers(part)
