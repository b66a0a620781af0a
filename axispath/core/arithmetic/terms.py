"""Sums of terms with complex numbers before them: what normal forms are made of."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import NamedTuple

MOST_TERMS = 240


LARGEST = 10**12  # numbers that are taken apart into primes


LONGEST_NUMBER = 400  # bits


Number = tuple[Fraction, Fraction]  # real and imaginary part


ZERO, ONE = Fraction(0), Fraction(1)


HALF = Fraction(1, 2)


class NotNormal(Exception):
    """The formula has no normal form here, or too long a one."""


class Base(NamedTuple):
    """What is raised to powers: ``kind`` is x, π, prime, ln, exp or atom, ``of`` what it is of."""

    kind: str
    of: object = None


Monomial = frozenset[tuple[Base, Number]]  # bases with their exponents


Terms = dict[Monomial, Number]


EMPTY: Monomial = frozenset()


X, PI = Base("x"), Base("π")


@dataclass(frozen=True)
class Normal:
    """A quotient of two sums of terms."""

    top: Terms
    bottom: Terms

    @property
    def is_zero(self) -> bool:
        """Whether this is 0 wherever it is defined."""
        return not self.top

    @property
    def key(self) -> object:
        """The same for the same sums."""
        return frozenset(self.top.items()), frozenset(self.bottom.items())


def is_constant(monomial: Monomial) -> bool:
    """Whether no base of a monomial depends on x."""
    return all(_constant(base) for base, _ in monomial)


def _constant(base: Base) -> bool:
    if base.kind in ("π", "prime"):
        return True
    if base.kind == "exp":
        return is_constant(base.of)  # type: ignore[arg-type]
    return base.kind == "ln" and isinstance(base.of, int)


def times(a: Number, b: Number) -> Number:
    """The product of two numbers."""
    return a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]


def plus(a: Number, b: Number) -> Number:
    """The sum of two numbers."""
    return a[0] + b[0], a[1] + b[1]


def over(a: Number, b: Number) -> Number:
    """The quotient of two numbers."""
    size = b[0] * b[0] + b[1] * b[1]
    return times(a, (b[0] / size, -b[1] / size))


def power_of(base: Base, exponent: Fraction = ONE) -> Normal:
    """A base to a power as a form."""
    return Normal({frozenset({(base, (exponent, ZERO))}): (ONE, ZERO)}, {EMPTY: (ONE, ZERO)})


def number_form(value: Fraction) -> Normal:
    """A number as a form."""
    return Normal({EMPTY: (value, ZERO)} if value else {}, {EMPTY: (ONE, ZERO)})


def added(a: Terms, b: Terms, sign: int = 1) -> Terms:
    """The sum of two sums, or their difference."""
    total = dict(a)
    for monomial, c in b.items():
        value = plus(total.get(monomial, (ZERO, ZERO)), (c[0] * sign, c[1] * sign))
        if value == (ZERO, ZERO):
            total.pop(monomial, None)
        else:
            total[monomial] = value
    return checked(total)


def checked(terms: Terms) -> Terms:
    """Terms that are not too many or too long. Raises NotNormal."""
    if len(terms) > MOST_TERMS:
        raise NotNormal
    for real, imaginary in terms.values():
        if max(real.denominator.bit_length(), imaginary.denominator.bit_length()) > LONGEST_NUMBER:
            raise NotNormal
    return terms


def single_term(terms: Terms) -> tuple[Monomial, Number] | None:
    """The one term of a sum of one; None for others."""
    return next(iter(terms.items())) if len(terms) == 1 else None


def surd(prime: int, power: Fraction) -> Monomial:
    """A power of a prime number as a monomial."""
    return frozenset({(Base("prime", prime), (power, ZERO))})


# e^(iπq): (√3 + i)/2, (1 + i)/√2 and (1 + i√3)/2.
SHARES: dict[Fraction, Terms] = {
    Fraction(1, 6): {surd(3, HALF): (HALF, ZERO), EMPTY: (ZERO, HALF)},
    Fraction(1, 4): {surd(2, HALF): (HALF, HALF)},
    Fraction(1, 3): {EMPTY: (HALF, ZERO), surd(3, HALF): (ZERO, HALF)},
}


def scaled(x: Normal, factor: Fraction) -> Normal:
    """A form times a number."""
    if not factor:
        return number_form(ZERO)
    return Normal({m: (c[0] * factor, c[1] * factor) for m, c in x.top.items()}, x.bottom)


def is_positive(base: Base, exponent: Number) -> bool:
    """Whether a power is surely above 0."""
    return base.kind in ("prime", "π") or (base.kind == "exp" and not exponent[1])


def turned(factor: Number, exponent: Number) -> tuple[Number, Number]:
    """e^(iπq) with quarter turns taken out: what is left has q below a half."""
    turns = exponent[1]
    quarters = (2 * turns).numerator // (2 * turns).denominator
    for _ in range(quarters % 4):
        factor = times(factor, (ZERO, ONE))
    return factor, (exponent[0], turns - Fraction(quarters, 2))


def content(terms: Terms) -> tuple[Monomial, Number]:
    """What all terms have in common: one monomial and a number."""
    listed = [dict(monomial) for monomial in terms]
    nothing = (ZERO, ZERO)
    taken = frozenset(
        (base, (least, ZERO))
        for base in {base for powers in listed for base in powers}
        if not any(powers.get(base, nothing)[1] for powers in listed)
        and (least := min(powers.get(base, nothing)[0] for powers in listed))
    )
    leading = max(terms, key=lambda m: sorted((str(b), e) for b, e in m))
    return taken, terms[leading]


def without(monomial: Monomial, taken: Monomial) -> Monomial:
    """A monomial divided by another."""
    powers = dict(monomial)
    for base, exponent in taken:
        powers[base] = plus(powers.get(base, (ZERO, ZERO)), (-exponent[0], -exponent[1]))
    return frozenset((base, e) for base, e in powers.items() if e != (ZERO, ZERO))


def primes(value: Fraction) -> Iterator[tuple[int, int]]:
    """The prime factors of a positive fraction with their powers."""
    from flint import fmpz

    if max(value.numerator, value.denominator) > LARGEST:
        raise NotNormal
    for number, sign in ((value.numerator, 1), (value.denominator, -1)):
        for prime, count in fmpz(number).factor():
            yield int(prime), sign * int(count)
