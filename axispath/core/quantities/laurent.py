"""Series in a small t > 0 with finitely many negative powers, their coefficients numbers.

Σ cₖ tᵛ⁺ᵏ up to a fixed count of terms (D. E. Knuth 1997, The Art of Computer Programming,
volume 2, section 4.7). Exact coefficients are compared with 0 exactly, so leading terms are known
for certain.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from axispath.core.quantities.scalars import (
    add,
    divide,
    is_zero,
    known,
    multiply,
    negate,
    sign,
    to_power,
)
from axispath.core.quantities.surds import ZERO, Surd
from axispath.core.quantities.values import Scalar

TERMS = 20


class NoSeries(ArithmeticError):
    """There is no such series here, or none that is known."""


@dataclass(frozen=True, slots=True)
class Laurent:
    """``terms`` from t to the power ``start`` on; the first is not 0 unless it is exactly 0.

    ``exact`` where all further terms are 0.
    """

    start: int
    terms: tuple[Scalar, ...]
    exact: bool = False

    @staticmethod
    def of(value: Scalar) -> Laurent:
        """A constant."""
        return Laurent(0, (known(value),), exact=True)

    @staticmethod
    def made(start: int, terms: list[Scalar], exact: bool) -> Laurent:
        """A series without leading zeros. Raises NoSeries where all known terms are 0."""
        at = next((k for k, term in enumerate(terms) if not is_zero(known(term))), None)
        if at is None:
            if exact:
                return Laurent.of(ZERO)
            raise NoSeries
        kept = terms[at : at + TERMS]
        return Laurent(start + at, tuple(kept), exact and len(terms) - at <= TERMS)

    @property
    def is_zero(self) -> bool:
        """Whether it is 0 throughout."""
        return self.exact and all(is_zero(term) for term in self.terms)

    @property
    def end(self) -> int:
        """The first power that is not known."""
        return self.start + (TERMS if self.exact else len(self.terms))

    def term(self, power: int) -> Scalar:
        """The coefficient of a power of t, which has to be known."""
        k = power - self.start
        if 0 <= k < len(self.terms):
            return self.terms[k]
        if k < 0 or self.exact:
            return ZERO
        raise NoSeries

    def __neg__(self) -> Laurent:
        return Laurent(self.start, tuple(negate(term) for term in self.terms), self.exact)

    def __add__(self, other: Laurent) -> Laurent:
        if self.is_zero or other.is_zero:
            return other if self.is_zero else self
        start = min(self.start, other.start)
        exact = self.exact and other.exact
        if exact:
            end = max(self.start + len(self.terms), other.start + len(other.terms))
        else:
            ends = [one.end for one in (self, other) if not one.exact]
            end = min(*ends, start + 2 * TERMS)
        return Laurent.made(
            start, [add(self.term(p), other.term(p)) for p in range(start, end)], exact
        )

    def __mul__(self, other: Laurent) -> Laurent:
        if self.is_zero or other.is_zero:
            return Laurent.of(ZERO)
        exact = self.exact and other.exact
        count = len(self.terms) + len(other.terms) - 1
        if not exact:
            count = min(len(one.terms) for one in (self, other) if not one.exact)
        found: list[Scalar] = []
        for k in range(min(count, 2 * TERMS)):
            total: Scalar = ZERO
            for i in range(max(0, k - len(other.terms) + 1), min(k + 1, len(self.terms))):
                total = add(total, multiply(self.terms[i], other.terms[k - i]))
            found.append(total)
        return Laurent.made(self.start + other.start, found, exact and count <= 2 * TERMS)

    def scaled(self, factor: Scalar) -> Laurent:
        """A number times this."""
        return self * Laurent.of(factor)

    def inverse(self) -> Laurent:
        """1 over this. Raises NoSeries for 0."""
        if self.is_zero:
            raise NoSeries
        if self.exact and len(self.terms) == 1:
            return Laurent(-self.start, (divide(Surd.of(1), self.terms[0]),), exact=True)
        count = TERMS if self.exact else len(self.terms)
        lead = divide(Surd.of(1), self.terms[0])
        found = [lead]
        for k in range(1, count):
            total: Scalar = ZERO
            for i in range(1, min(k, len(self.terms) - 1) + 1):
                total = add(total, multiply(self.terms[i], found[k - i]))
            found.append(negate(multiply(total, lead)))
        return Laurent(-self.start, tuple(found))

    def whole_power(self, n: int) -> Laurent:
        """A whole power."""
        if n < 0:
            return self.inverse().whole_power(-n)
        result, base = Laurent.of(Surd.of(1)), self
        while n:
            result = result * base if n & 1 else result
            n >>= 1
            base = base * base if n else base
        return result

    def power(self, exponent: Scalar) -> Laurent:
        """A real power of a series with a positive leading term, by the binomial series."""
        if self.is_zero:
            raise NoSeries
        rational = exponent.rational if isinstance(exponent, Surd) else None
        if rational is not None and rational.denominator == 1:
            return self.whole_power(int(rational))
        lowered = Fraction(0) if rational is None else rational * self.start
        if (rational is None and self.start) or lowered.denominator != 1:
            raise NoSeries
        lead = self.terms[0]
        if sign(lead) < 0:
            raise NoSeries
        rest = Laurent(0, self.terms, self.exact).scaled(divide(Surd.of(1), lead))
        small = rest + Laurent.of(Surd.of(-1))
        total = Laurent.of(Surd.of(1))
        factor: Scalar = Surd.of(1)
        part = total
        for k in range(1, TERMS):
            if small.is_zero:
                break
            share = add(exponent, Surd.of(1 - k))
            factor = divide(multiply(factor, share), Surd.of(k))
            part = part * small
            if part.start >= TERMS or is_zero(factor):
                break
            total = total + part.scaled(factor)
        shifted = total.scaled(to_power(lead, exponent))
        cut = shifted if small.is_zero else shifted.cut(self.end - self.start)
        return Laurent(cut.start + int(lowered), cut.terms, cut.exact)

    def cut(self, end: int) -> Laurent:
        """The terms below a power of t, and no claim on further ones."""
        if not self.exact and end >= self.end:
            return self
        count = min(max(end - self.start, 1), TERMS)
        terms = [self.term(self.start + k) if self.exact else self.terms[k] for k in range(count)]
        return Laurent(self.start, tuple(terms))

    def slope(self) -> Laurent:
        """The derivative by t."""
        terms = [multiply(term, Surd.of(self.start + k)) for k, term in enumerate(self.terms)]
        return Laurent.made(self.start - 1, terms, self.exact)

    def integral(self, constant: Scalar) -> Laurent:
        """What has this as its derivative, and ``constant`` at t = 0. Raises NoSeries at a pole."""
        if self.is_zero:
            return Laurent.of(constant)
        if self.start < 0:
            raise NoSeries
        places = enumerate(self.terms, self.start + 1)
        terms = [divide(term, Surd.of(power)) for power, term in places]
        whole = Laurent.made(self.start + 1, terms, self.exact)
        return whole if is_zero(known(constant)) else Laurent.of(constant) + whole

    @property
    def at_zero(self) -> Scalar:
        """The value at t = 0. Raises NoSeries where it grows beyond all bounds."""
        if self.is_zero or self.start > 0:
            return ZERO
        if self.start < 0:
            raise NoSeries
        return self.terms[0]

    def small_part(self) -> Laurent:
        """This less its value at t = 0."""
        value = self.at_zero
        if self.is_zero or self.start > 0:
            return self
        rest = list(self.terms[1:])
        if not rest:
            return Laurent.of(ZERO)
        return Laurent.made(1, rest, self.exact) if value is not None else self

    def composed(self, derivatives: list[Scalar]) -> Laurent:
        """Σ dₖ sᵏ/k! of the small part s: a function with these derivatives where this begins."""
        small = self.small_part()
        total = Laurent.of(derivatives[0])
        if small.is_zero:
            return total
        part, factor = Laurent.of(Surd.of(1)), Fraction(1)
        for k in range(1, TERMS):
            part, factor = part * small, factor / k
            if part.start >= TERMS:
                break
            share = multiply(derivatives[k % len(derivatives)], Surd.of(factor))
            if not is_zero(known(share)):
                total = total + part.scaled(share)
        return total.cut(min(TERMS, small.end))
