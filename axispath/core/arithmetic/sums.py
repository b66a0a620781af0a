"""Quotients of sums of terms: added, multiplied, divided and raised."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.arithmetic.terms import (
    EMPTY,
    LONGEST_NUMBER,
    MOST_TERMS,
    ONE,
    PI,
    SHARES,
    ZERO,
    Base,
    Monomial,
    Normal,
    NotNormal,
    Number,
    Terms,
    added,
    is_positive,
    number_form,
    over,
    plus,
    power_of,
    primes,
    single_term,
    times,
    turned,
)
from axispath.core.arithmetic.unit import AngleUnit

MOST_POWER = 24


class Sums:
    """Arithmetic of normal forms."""

    def __init__(self, unit: AngleUnit) -> None:
        self.unit = unit
        self.sums: dict[object, Terms] = {}  # what an atom that is a sum stands for
        self.above: set[object] = set()  # what is surely positive, since a logarithm is taken of it

    # Products of terms: equal bases are brought together

    def product(self, a: Terms, b: Terms) -> Terms:
        """The product of two sums."""
        if len(a) * len(b) > 4 * MOST_TERMS:
            raise NotNormal
        total: Terms = {}
        for left, c in a.items():
            for right, d in b.items():
                total = added(total, self._term(left, right, times(c, d)))
        return total

    def _term(self, left: Monomial, right: Monomial, factor: Number) -> Terms:
        """The product of two monomials, whole powers of sums and primes written out."""
        powers: dict[Base, Number] = dict(left)
        for base, exponent in right:
            powers[base] = plus(powers.get(base, (ZERO, ZERO)), exponent)
        outside: list[Terms] = []
        kept = []
        for base, exponent in powers.items():
            if exponent == (ZERO, ZERO):
                continue
            if base.kind == "prime":
                whole = exponent[0].numerator // exponent[0].denominator
                if abs(whole) > LONGEST_NUMBER:
                    raise NotNormal
                factor = times(factor, (Fraction(int(base.of)) ** whole, ZERO))  # type: ignore[call-overload]
                exponent = (exponent[0] - whole, ZERO)
            elif base.kind == "atom" and base.of in self.sums and exponent[0] >= 1:
                whole = exponent[0].numerator // exponent[0].denominator
                outside += [self.sums[base.of]] * whole
                exponent = (exponent[0] - whole, ZERO)
            elif base.kind == "exp" and base.of == frozenset({(PI, (ONE, ZERO))}):
                factor, exponent = turned(factor, exponent)
                if exponent[1] in SHARES and not exponent[0]:
                    outside.append(SHARES[exponent[1]])
                    exponent = (ZERO, ZERO)
            if exponent != (ZERO, ZERO):
                kept.append((base, exponent))
        found: Terms = {frozenset(kept): factor}
        for terms in outside:
            found = self.product(found, terms)
        return found

    def times(self, a: Normal, b: Normal) -> Normal:
        """The product of two quotients."""
        return self.quotient(self.product(a.top, b.top), self.product(a.bottom, b.bottom))

    def quotient(self, top: Terms, bottom: Terms) -> Normal:
        """A quotient; a single term below goes up."""
        if not bottom:
            raise NotNormal
        single = single_term(bottom)
        if single is not None:
            turned = frozenset((base, (-e[0], -e[1])) for base, e in single[0])
            factor = over((ONE, ZERO), single[1])
            return Normal(self.product(top, {turned: factor}), {EMPTY: (ONE, ZERO)})
        return Normal(top, bottom)

    def plus(self, a: Normal, b: Normal, sign: int = 1) -> Normal:
        """A sum or difference of two quotients."""
        if a.bottom == b.bottom:
            return self.quotient(added(a.top, b.top, sign), a.bottom)
        top = added(self.product(a.top, b.bottom), self.product(b.top, a.bottom), sign)
        return self.quotient(top, self.product(a.bottom, b.bottom))

    def over(self, a: Normal, b: Normal) -> Normal:
        """A quotient of two quotients."""
        return self.quotient(self.product(a.top, b.bottom), self.product(a.bottom, b.top))

    def power(self, base: Normal, n: int) -> Normal:
        """A whole power."""
        if abs(n) > MOST_POWER:
            raise NotNormal
        result = number_form(ONE)
        for _ in range(abs(n)):
            result = self.times(result, base)
        return result if n >= 0 else self.over(number_form(ONE), result)

    # Powers that are not whole

    def rooted(self, base: Normal, exponent: Fraction) -> Normal:
        """A power with a fraction as exponent."""
        if exponent.denominator == 1:
            return self.power(base, exponent.numerator)
        single = single_term(base.top) if len(base.bottom) == 1 and EMPTY in base.bottom else None
        if single is not None:
            monomial, (real, imaginary) = single
            free = [(b, e) for b, e in monomial if not is_positive(b, e)]
            plain = not free or (len(free) == 1 and free[0][1] == (ONE, ZERO))
            if plain and real > 0 and not imaginary:
                raised = frozenset((b, (e[0] * exponent, ZERO)) for b, e in monomial)
                rooted = Normal({raised: (ONE, ZERO)}, {EMPTY: (ONE, ZERO)})
                return self.times(self._number_power(real, exponent), rooted)
        atom = Base("atom", ("power", base.key))
        if base.bottom == {EMPTY: (ONE, ZERO)}:
            self.sums[atom.of] = base.top
        return self.times(power_of(atom, exponent), number_form(ONE))

    def _number_power(self, value: Fraction, exponent: Fraction) -> Normal:
        powers = frozenset((Base("prime", p), (k * exponent, ZERO)) for p, k in primes(value))
        return Normal(self._term(powers, EMPTY, (ONE, ZERO)), {EMPTY: (ONE, ZERO)})

    # Exponentials and logarithms
