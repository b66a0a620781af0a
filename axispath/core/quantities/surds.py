"""Exact numbers: sums of fractions times roots, powers of π, and i.

Each is a finite sum of q · i^s · √m · π^k with rational q, s 0 or 1, m whole and free of squares,
k whole. Roots of different square-free numbers are linearly independent over the rationals
(A. S. Besicovitch 1940, On the linear independence of fractional powers of integers), and π is
transcendental (F. Lindemann 1882, Über die Zahl π), so such a sum is 0 only where it has no terms:
equality is decided, and with it every determinant and rank.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

from flint import acb, arb, ctx, fmpq, fmpz

MOST_TERMS = 24
MOST_BITS = 8_000  # of a numerator or denominator
MOST_FACTORED = 120  # bits of a number whose square factors are looked for
FARTHEST = 60_000  # bits up to which a sign is looked for

Unit = tuple[int, int, int]  # s, m, k
ONE: Unit = (0, 1, 0)


class NotExact(ArithmeticError):
    """The result is no number of this form, or too long to be worth it."""


@dataclass(frozen=True)
class Surd:
    """An exact number, as its terms in order."""

    terms: tuple[tuple[Unit, Fraction], ...]

    @staticmethod
    def of(value: Fraction | int) -> Surd:
        """A rational number."""
        if not value:
            return ZERO
        return Surd(((ONE, value if isinstance(value, Fraction) else Fraction(value)),))

    @staticmethod
    def _short(value: Fraction) -> Surd:
        """A rational number, if it is not too long."""
        if max(value.numerator.bit_length(), value.denominator.bit_length()) > MOST_BITS:
            raise NotExact
        return Surd.of(value)

    @staticmethod
    def collected(terms: Mapping[Unit, Fraction]) -> Surd:
        """A sum of terms, without those that are 0. Raises NotExact where it grows too long."""
        kept = tuple(sorted((unit, q) for unit, q in terms.items() if q))
        if len(kept) > MOST_TERMS:
            raise NotExact
        for _, q in kept:
            if max(q.numerator.bit_length(), q.denominator.bit_length()) > MOST_BITS:
                raise NotExact
        return Surd(kept)

    @property
    def is_zero(self) -> bool:
        """Whether this is 0."""
        return not self.terms

    @property
    def rational(self) -> Fraction | None:
        """Its value where it is a fraction."""
        if not self.terms:
            return Fraction(0)
        if len(self.terms) == 1 and self.terms[0][0] == ONE:
            return self.terms[0][1]
        return None

    @cached_property
    def is_real(self) -> bool:
        """Whether no term has i."""
        return all(unit[0] == 0 for unit, _ in self.terms)

    @property
    def parts(self) -> tuple[Surd, Surd]:
        """Real and imaginary part."""
        real = tuple((unit, q) for unit, q in self.terms if unit[0] == 0)
        rest = tuple(((0, m, k), q) for (s, m, k), q in self.terms if s == 1)
        return Surd(real), Surd(rest)

    def __neg__(self) -> Surd:
        return Surd(tuple((unit, -q) for unit, q in self.terms))

    def __add__(self, other: Surd) -> Surd:
        first, second = self.rational, other.rational
        if first is not None and second is not None:
            return Surd._short(first + second)
        found = dict(self.terms)
        for unit, q in other.terms:
            found[unit] = found.get(unit, Fraction(0)) + q
        return Surd.collected(found)

    def __sub__(self, other: Surd) -> Surd:
        return self + -other

    def __mul__(self, other: Surd) -> Surd:
        first, second = self.rational, other.rational
        if first is not None and second is not None:
            return Surd._short(first * second)
        found: dict[Unit, Fraction] = {}
        for one, q in self.terms:
            for two, r in other.terms:
                unit, factor = _times(one, two)
                found[unit] = found.get(unit, Fraction(0)) + q * r * factor
        return Surd.collected(found)

    def inverse(self) -> Surd:
        """1 over this. Raises ZeroDivisionError, and NotExact where π stands in a sum."""
        if not self.terms:
            raise ZeroDivisionError
        if len(self.terms) == 1:
            ((s, m, k), q) = self.terms[0]
            return Surd.collected({(s, m, -k): Fraction(-1 if s else 1) / (q * m)})
        if len({unit[2] for unit, _ in self.terms}) > 1:
            raise NotExact
        mirrored = self._mirrored()
        return mirrored * (self * mirrored).inverse()

    def _mirrored(self) -> Surd:
        """The conjugate by i, or by one of the primes under the roots."""
        if not self.is_real:
            return self.conjugate()
        inside = next(m for (_, m, _), _ in self.terms if m > 1)
        prime = _a_prime_of(inside)
        return Surd(tuple((u, -q if u[1] % prime == 0 else q) for u, q in self.terms))

    def conjugate(self) -> Surd:
        """With −i for i."""
        return Surd(tuple((unit, -q if unit[0] else q) for unit, q in self.terms))

    def __truediv__(self, other: Surd) -> Surd:
        bottom = other.rational
        if bottom is not None and self.rational is not None:
            return Surd._short(self.rational / bottom)
        if bottom is not None:
            return Surd.collected({unit: q / bottom for unit, q in self.terms})
        if self.terms and len(self.terms) == len(other.terms):
            ratio = self._ratio(other)
            if ratio is not None:
                return Surd.of(ratio)
        return self * other.inverse()

    def _ratio(self, other: Surd) -> Fraction | None:
        """How many times another this is, where that is a fraction: 2π + 2 over π + 1."""
        ratio = self.terms[0][1] / other.terms[0][1]
        same = all(
            one == two and q == ratio * r
            for (one, q), (two, r) in zip(self.terms, other.terms, strict=True)
        )
        return ratio if same else None

    def to_power(self, n: int) -> Surd:
        """A whole power. Raises ZeroDivisionError, NotExact."""
        if n < 0:
            return self.inverse().to_power(-n)
        value = self.rational
        if value is not None:
            bits = max(value.numerator.bit_length(), value.denominator.bit_length())
            if bits * n > MOST_BITS and abs(value) != 1 and value:
                raise NotExact
            return Surd.of(value**n)
        if n > MOST_BITS:
            raise NotExact
        result, base = Surd.of(1), self
        while n:
            if n & 1:
                result = result * base
            n >>= 1
            base = base * base if n else base
        return result

    def sign(self) -> int:
        """1, 0 or −1 of a real number. Raises NotExact where it is not real, or not told."""
        if not self.is_real:
            raise NotExact
        value = self.rational
        if value is not None:
            return (value > 0) - (value < 0)
        bits = 64
        before = ctx.prec
        try:
            while bits <= FARTHEST:
                ctx.prec = bits
                ball = self._real_ball()
                if ball > 0:
                    return 1
                if ball < 0:
                    return -1
                bits *= 4
        finally:
            ctx.prec = before
        raise NotExact

    def square_root(self) -> Surd:
        """The principal square root. Raises NotExact where it is no such number."""
        value = self.rational
        if value is not None:
            root = _rational_root(abs(value))
            return root * IMAGINARY if value < 0 else root
        if len(self.terms) == 1 and self.is_real and self.terms[0][0][1] == 1:
            (_, _, k), q = self.terms[0]  # √(q π^k)
            if k % 2:
                raise NotExact
            root = _rational_root(abs(q)) * Surd((((0, 1, k // 2), Fraction(1)),))
            return root * IMAGINARY if q < 0 else root
        return self._denested()

    def _denested(self) -> Surd:
        """√(a + b) as √((a + d)/2) ± √((a − d)/2) with d = √(a² − b²), where these are simple."""
        if len(self.terms) != 2 or self.terms[0][0] != ONE:
            raise NotExact
        first, second = (Surd((term,)) for term in self.terms)
        if not second.is_real and second.terms[0][0] != (1, 1, 0):
            raise NotExact
        apart = (first * first - second * second).rational
        if apart is None or apart < 0:
            raise NotExact
        distance = _rational_root(apart)
        half = Surd.of(Fraction(1, 2))
        squares = [((first + way) * half).rational for way in (distance, -distance)]
        if squares[0] is None or squares[1] is None:
            raise NotExact
        big, small = (Surd.of(q).square_root() for q in squares if q is not None)
        root = big + (small if self.terms[1][1] > 0 else -small)
        # Which of the two roots is the principal one: that to the right, or above.
        real, imaginary = root.parts
        way = real.sign() or imaginary.sign()
        root = root if way >= 0 else -root
        if root * root != self:
            raise NotExact
        return root

    def ball(self) -> arb | acb:
        """An enclosure at the working precision, complex where this is not real."""
        if self.is_real:
            return self._real_ball()
        real, imaginary = self.parts
        return acb(real._real_ball(), imaginary._real_ball())

    def _real_ball(self) -> arb:
        total = arb(0)
        for (_, m, k), q in self.terms:
            part = arb(fmpq(q.numerator, q.denominator))
            if m > 1:
                part *= arb(m).sqrt()
            if k:
                part *= arb.pi() ** k
            total += part
        return total


def _times(one: Unit, two: Unit) -> tuple[Unit, int]:
    shared = math.gcd(one[1], two[1])
    inside = one[1] * two[1] // (shared * shared)
    turned = one[0] + two[0]
    return (turned % 2, inside, one[2] + two[2]), -shared if turned == 2 else shared


def _a_prime_of(number: int) -> int:
    return int(fmpz(number).factor()[0][0])


def _rational_root(value: Fraction) -> Surd:
    """The root of a fraction that is not negative, its squares taken out."""
    if not value:
        return ZERO
    number = value.numerator * value.denominator
    outside, inside = _without_squares(number)
    return Surd.collected({(0, inside, 0): Fraction(outside, value.denominator)})


def _without_squares(number: int) -> tuple[int, int]:
    root = math.isqrt(number)
    if root * root == number:
        return root, 1
    if number.bit_length() > MOST_FACTORED:
        raise NotExact
    outside = inside = 1
    for prime, power in fmpz(number).factor():
        outside *= int(prime) ** (power // 2)
        inside *= int(prime) ** (power % 2)
    return outside, inside


def total(terms: Iterable[Surd]) -> Surd:
    """The sum of exact numbers."""
    found = ZERO
    for term in terms:
        found = found + term
    return found


ZERO = Surd(())
IMAGINARY = Surd((((1, 1, 0), Fraction(1)),))
PI = Surd((((0, 1, 1), Fraction(1)),))
