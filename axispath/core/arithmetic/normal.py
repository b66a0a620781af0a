"""A normal form in which formulas that are the same look the same.

A formula becomes a quotient of sums of terms c g₁^a g₂^b …, where the g are x, π, primes,
logarithms of such, e^m for a monomial m, and whatever else cannot be taken apart. With complex
exponents e^(im) makes sines and cosines: cos m = (e^(im) + e^(−im))/2. Then products of powers
are added exponents, and sin² + cos² = 1, the addition theorems, cosh² − sinh² = 1 and the laws of
logarithms and powers need no rule of their own (Moses 1971, Algebraic Simplification: a guide for
the perplexed). Where the normal form is 0 the formula is 0 wherever it has a value; where it is
not, nothing is said.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import NamedTuple

from axispath.core import catalogue
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.unit import AngleUnit

MOST_TERMS = 240
MOST_POWER = 24
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


def normal_form(plan: Program, unit: AngleUnit) -> Normal | None:
    """The normal form of a program of one input; None where there is none."""
    writer = _Writer(unit)
    results = [_of(X)]
    try:
        for step in plan.steps[1:]:
            results.append(writer.step(step, [results[i] for i in step.operands]))
        return results[plan.result]
    except (NotNormal, ZeroDivisionError, OverflowError):
        return None


def flat_in(form: Normal) -> set[int]:
    """Which of the function (0), its slope (1) and its bend (2) are zero everywhere."""
    if form.is_zero:
        return {0, 1, 2}
    first, value = next(iter(form.top.items()))
    if first in form.bottom:
        ratio = _over(value, form.bottom[first])
        if form.top == {m: _times(c, ratio) for m, c in form.bottom.items()}:
            return {1, 2}
    if all(_is_constant(m) for m in (*form.top, *form.bottom)):
        return {1, 2}
    straight = frozenset({(X, (ONE, ZERO))})
    rest = (m - straight if (X, (ONE, ZERO)) in m else m for m in form.top)
    if all(_is_constant(m) for m in (*rest, *form.bottom)):
        return {2}
    return set()


def _is_constant(monomial: Monomial) -> bool:
    return all(_constant(base) for base, _ in monomial)


def _constant(base: Base) -> bool:
    if base.kind in ("π", "prime"):
        return True
    if base.kind == "exp":
        return _is_constant(base.of)  # type: ignore[arg-type]
    return base.kind == "ln" and isinstance(base.of, int)


# Numbers a + bi


def _times(a: Number, b: Number) -> Number:
    return a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]


def _plus(a: Number, b: Number) -> Number:
    return a[0] + b[0], a[1] + b[1]


def _over(a: Number, b: Number) -> Number:
    size = b[0] * b[0] + b[1] * b[1]
    return _times(a, (b[0] / size, -b[1] / size))


# Sums of terms


def _of(base: Base, exponent: Fraction = ONE) -> Normal:
    return Normal({frozenset({(base, (exponent, ZERO))}): (ONE, ZERO)}, {EMPTY: (ONE, ZERO)})


def _number(value: Fraction) -> Normal:
    return Normal({EMPTY: (value, ZERO)} if value else {}, {EMPTY: (ONE, ZERO)})


def _added(a: Terms, b: Terms, sign: int = 1) -> Terms:
    total = dict(a)
    for monomial, c in b.items():
        value = _plus(total.get(monomial, (ZERO, ZERO)), (c[0] * sign, c[1] * sign))
        if value == (ZERO, ZERO):
            total.pop(monomial, None)
        else:
            total[monomial] = value
    return _checked(total)


def _checked(terms: Terms) -> Terms:
    if len(terms) > MOST_TERMS:
        raise NotNormal
    for real, imaginary in terms.values():
        if max(real.denominator.bit_length(), imaginary.denominator.bit_length()) > LONGEST_NUMBER:
            raise NotNormal
    return terms


def _single(terms: Terms) -> tuple[Monomial, Number] | None:
    return next(iter(terms.items())) if len(terms) == 1 else None


def _surd(prime: int, power: Fraction) -> Monomial:
    return frozenset({(Base("prime", prime), (power, ZERO))})


# e^(iπq): (√3 + i)/2, (1 + i)/√2 and (1 + i√3)/2.
SHARES: dict[Fraction, Terms] = {
    Fraction(1, 6): {_surd(3, HALF): (HALF, ZERO), EMPTY: (ZERO, HALF)},
    Fraction(1, 4): {_surd(2, HALF): (HALF, HALF)},
    Fraction(1, 3): {EMPTY: (HALF, ZERO), _surd(3, HALF): (ZERO, HALF)},
}


class _Writer:
    """Carries out the steps of a program on normal forms."""

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
                total = _added(total, self._term(left, right, _times(c, d)))
        return total

    def _term(self, left: Monomial, right: Monomial, factor: Number) -> Terms:
        """The product of two monomials, whole powers of sums and primes written out."""
        powers: dict[Base, Number] = dict(left)
        for base, exponent in right:
            powers[base] = _plus(powers.get(base, (ZERO, ZERO)), exponent)
        outside: list[Terms] = []
        kept = []
        for base, exponent in powers.items():
            if exponent == (ZERO, ZERO):
                continue
            if base.kind == "prime":
                whole = exponent[0].numerator // exponent[0].denominator
                if abs(whole) > LONGEST_NUMBER:
                    raise NotNormal
                factor = _times(factor, (Fraction(int(base.of)) ** whole, ZERO))  # type: ignore[call-overload]
                exponent = (exponent[0] - whole, ZERO)
            elif base.kind == "atom" and base.of in self.sums and exponent[0] >= 1:
                whole = exponent[0].numerator // exponent[0].denominator
                outside += [self.sums[base.of]] * whole
                exponent = (exponent[0] - whole, ZERO)
            elif base.kind == "exp" and base.of == frozenset({(PI, (ONE, ZERO))}):
                factor, exponent = _turned(factor, exponent)
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
        single = _single(bottom)
        if single is not None:
            turned = frozenset((base, (-e[0], -e[1])) for base, e in single[0])
            factor = _over((ONE, ZERO), single[1])
            return Normal(self.product(top, {turned: factor}), {EMPTY: (ONE, ZERO)})
        return Normal(top, bottom)

    def plus(self, a: Normal, b: Normal, sign: int = 1) -> Normal:
        """A sum or difference of two quotients."""
        if a.bottom == b.bottom:
            return self.quotient(_added(a.top, b.top, sign), a.bottom)
        top = _added(self.product(a.top, b.bottom), self.product(b.top, a.bottom), sign)
        return self.quotient(top, self.product(a.bottom, b.bottom))

    def over(self, a: Normal, b: Normal) -> Normal:
        """A quotient of two quotients."""
        return self.quotient(self.product(a.top, b.bottom), self.product(a.bottom, b.top))

    def power(self, base: Normal, n: int) -> Normal:
        """A whole power."""
        if abs(n) > MOST_POWER:
            raise NotNormal
        result = _number(ONE)
        for _ in range(abs(n)):
            result = self.times(result, base)
        return result if n >= 0 else self.over(_number(ONE), result)

    # Powers that are not whole

    def rooted(self, base: Normal, exponent: Fraction) -> Normal:
        """A power with a fraction as exponent."""
        if exponent.denominator == 1:
            return self.power(base, exponent.numerator)
        single = _single(base.top) if len(base.bottom) == 1 and EMPTY in base.bottom else None
        if single is not None:
            monomial, (real, imaginary) = single
            free = [(b, e) for b, e in monomial if not _positive(b, e)]
            plain = not free or (len(free) == 1 and free[0][1] == (ONE, ZERO))
            if plain and real > 0 and not imaginary:
                raised = frozenset((b, (e[0] * exponent, ZERO)) for b, e in monomial)
                rooted = Normal({raised: (ONE, ZERO)}, {EMPTY: (ONE, ZERO)})
                return self.times(self._number_power(real, exponent), rooted)
        atom = Base("atom", ("power", base.key))
        if base.bottom == {EMPTY: (ONE, ZERO)}:
            self.sums[atom.of] = base.top
        return self.times(_of(atom, exponent), _number(ONE))

    def _number_power(self, value: Fraction, exponent: Fraction) -> Normal:
        powers = frozenset((Base("prime", p), (k * exponent, ZERO)) for p, k in _primes(value))
        return Normal(self._term(powers, EMPTY, (ONE, ZERO)), {EMPTY: (ONE, ZERO)})

    # Exponentials and logarithms

    def exponential(self, exponent: Normal, imaginary: bool = False) -> Normal:
        """e to a power, or to i times it."""
        if exponent.bottom != {EMPTY: (ONE, ZERO)} or any(c[1] for c in exponent.top.values()):
            exponent = _of(Base("atom", exponent.key))
        result = _number(ONE)
        for monomial, (real, _) in exponent.top.items():
            result = self.times(result, self._exponential_of(monomial, real, imaginary))
        return result

    def _exponential_of(self, monomial: Monomial, factor: Fraction, imaginary: bool) -> Normal:
        logarithm = next(iter(monomial))[0] if len(monomial) == 1 else None
        alone = logarithm is not None and monomial == frozenset({(logarithm, (ONE, ZERO))})
        if not imaginary and alone and logarithm is not None and logarithm.kind == "ln":
            of = logarithm.of
            if isinstance(of, int):
                return self._number_power(Fraction(of), factor)
            if isinstance(of, Base) and of in self.above:
                return self.rooted(_of(of), factor)
            if isinstance(of, Base) and factor.denominator == 1 and factor % 2 == 0:
                return self.power(_of(of), factor.numerator)  # |g|² is g²
        exponent = (ZERO, factor) if imaginary else (factor, ZERO)
        single = frozenset({(Base("exp", monomial), exponent)})
        return Normal(self._term(single, EMPTY, (ONE, ZERO)), {EMPTY: (ONE, ZERO)})

    def logarithm(self, x: Normal) -> Normal:
        """The natural logarithm of the absolute value."""
        single = _single(x.top) if x.bottom == {EMPTY: (ONE, ZERO)} else None
        if single is not None and single[1][0] > 0:
            doubtful = [(base, e) for base, e in single[0] if not _positive(base, e)]
            if len(doubtful) == 1 and not doubtful[0][1][1] and doubtful[0][1][0].numerator % 2:
                self.above.add(doubtful[0][0])
        top, bottom = self._logarithm_of(x.top), self._logarithm_of(x.bottom)
        return self.plus(top, bottom, -1)

    def _logarithm_of(self, terms: Terms) -> Normal:
        if not terms:
            raise NotNormal
        common = _content(terms)
        total = self._logarithm_of_term(common)
        rest = {_without(m, common[0]): _over(c, common[1]) for m, c in terms.items()}
        if len(rest) > 1:
            for factor, count in self._factors(rest):
                total = self.plus(total, _scaled(_of(Base("ln", factor)), Fraction(count)))
        return total

    def _logarithm_of_term(self, term: tuple[Monomial, Number]) -> Normal:
        monomial, (real, imaginary) = term
        if imaginary:
            raise NotNormal
        total = _number(ZERO)
        for p, k in _primes(abs(real)):
            total = self.plus(total, _scaled(_of(Base("ln", p)), Fraction(k)))
        for base, exponent in monomial:
            if exponent[1]:
                raise NotNormal
            if base.kind == "exp":
                of: Monomial = base.of  # type: ignore[assignment]
                inner = Normal({of: (ONE, ZERO)}, {EMPTY: (ONE, ZERO)})
            elif base.kind == "prime":
                inner = _of(Base("ln", base.of))
            else:
                inner = _of(Base("ln", base))
            total = self.plus(total, _scaled(inner, exponent[0]))
        return total

    def _factors(self, terms: Terms) -> Iterator[tuple[object, int]]:
        """A sum taken apart into factors, where it is a polynomial in x."""
        from flint import fmpq, fmpq_poly

        degrees: dict[int, Fraction] = {}
        for monomial, (real, imaginary) in terms.items():
            exponent = dict(monomial).get(X, (ZERO, ZERO))
            power = exponent[0]
            whole = power.denominator == 1 and 0 <= power <= MOST_POWER
            if len(monomial - {(X, exponent)}) or imaginary or not whole:
                yield frozenset(terms.items()), 1
                return
            degrees[int(exponent[0])] = real
        listed = [degrees.get(k, ZERO) for k in range(max(degrees) + 1)]
        poly = fmpq_poly([fmpq(c.numerator, c.denominator) for c in listed])
        for factor, count in poly.factor()[1]:
            monic = factor / factor.leading_coefficient()
            yield tuple(str(c) for c in monic.coeffs()), int(count)

    # Steps

    def step(self, step: Step, given: list[Normal]) -> Normal:
        """One step of a program."""
        match step.operation, given:
            case "number", _:
                return _number(step.detail)
            case "constant", _ if step.detail == "π":
                return _of(PI)
            case "constant", _ if step.detail == "e":
                return self.exponential(_number(ONE))
            case "negate", [a]:
                return _scaled(a, -ONE)
            case "add", [a, b]:
                return self.plus(a, b)
            case "subtract", [a, b]:
                return self.plus(a, b, -1)
            case "multiply", [a, b]:
                return self.times(a, b)
            case "divide", [a, b]:
                return self.over(a, b)
            case "whole power", [a]:
                return self.power(a, step.detail)
            case "root power", [a]:
                return self.rooted(a, step.detail)
            case "power", [a, b]:
                return self._general_power(a, b)
            case "given", [a, _]:
                return a
            case "restrict", [a, *_]:
                return a
            case "apply", _:
                return self._applied(str(step.detail), given)
        raise NotNormal

    def _general_power(self, base: Normal, exponent: Normal) -> Normal:
        fixed = exponent.top.get(EMPTY) if len(exponent.top) == 1 else None
        if fixed is not None and exponent.bottom == {EMPTY: (ONE, ZERO)} and not fixed[1]:
            return self.rooted(base, fixed[0])
        if not exponent.top:
            return _number(ONE)
        return self.exponential(self.times(exponent, self.logarithm(base)))

    def _applied(self, name: str, given: list[Normal]) -> Normal:
        x = given[0]
        one = _number(ONE)
        match name:
            case "exp":
                return self.exponential(x)
            case "ln":
                return self.logarithm(x)
            case "log":
                return self.over(self.logarithm(x), self.logarithm(_number(Fraction(10))))
            case "log_base":
                return self.over(self.logarithm(given[1]), self.logarithm(x))
            case "sqrt":
                return self.rooted(x, HALF)
            case "cbrt":
                return self.rooted(x, Fraction(1, 3))
            case "sin" | "cos" | "tan" | "sec" | "csc" | "cot":
                return self._circular(name, x)
            case "degrees":
                if self.unit is AngleUnit.DEGREE:
                    return x
                return self.times(x, _scaled(_of(PI), Fraction(1, 180)))
            case "sinh" | "cosh" | "tanh":
                return self._hyperbolic(name, x)
            case "arccos" | "arccot":
                right = _scaled(_of(PI), HALF)
                if self.unit is AngleUnit.DEGREE:
                    right = _number(Fraction(90))
                other = "arcsin" if name == "arccos" else "arctan"
                return self.plus(right, self._atom(other, given), -1)
            case "sum":
                total = given[0]
                for item in given[1:]:
                    total = self.plus(total, item)
                return total
            case "product":
                total = one
                for item in given:
                    total = self.times(total, item)
                return total
        return self._atom(name, given)

    def _atom(self, name: str, given: list[Normal]) -> Normal:
        if name not in catalogue.ENTRIES:
            raise NotNormal
        return _of(Base("atom", (name, tuple(x.key for x in given))))

    def _circular(self, name: str, x: Normal) -> Normal:
        if self.unit is AngleUnit.DEGREE:
            x = self.times(x, _scaled(_of(PI), Fraction(1, 180)))
        forward = self.exponential(x, imaginary=True)
        back = self.exponential(_scaled(x, -ONE), imaginary=True)
        cosine = _scaled(self.plus(forward, back), HALF)
        half_over_i = {EMPTY: (ZERO, -HALF)}
        both = self.plus(forward, back, -1)
        sine = Normal(self.product(both.top, half_over_i), both.bottom)
        match name:
            case "sin":
                return sine
            case "cos":
                return cosine
            case "tan":
                return self.over(sine, cosine)
            case "cot":
                return self.over(cosine, sine)
            case "sec":
                return self.over(_number(ONE), cosine)
        return self.over(_number(ONE), sine)

    def _hyperbolic(self, name: str, x: Normal) -> Normal:
        up, down = self.exponential(x), self.exponential(_scaled(x, -ONE))
        cosine = _scaled(self.plus(up, down), HALF)
        sine = _scaled(self.plus(up, down, -1), HALF)
        return {"sinh": sine, "cosh": cosine}.get(name) or self.over(sine, cosine)


def _scaled(x: Normal, factor: Fraction) -> Normal:
    if not factor:
        return _number(ZERO)
    return Normal({m: (c[0] * factor, c[1] * factor) for m, c in x.top.items()}, x.bottom)


def _positive(base: Base, exponent: Number) -> bool:
    return base.kind in ("prime", "π") or (base.kind == "exp" and not exponent[1])


def _turned(factor: Number, exponent: Number) -> tuple[Number, Number]:
    """e^(iπq) with quarter turns taken out: what is left has q below a half."""
    turns = exponent[1]
    quarters = (2 * turns).numerator // (2 * turns).denominator
    for _ in range(quarters % 4):
        factor = _times(factor, (ZERO, ONE))
    return factor, (exponent[0], turns - Fraction(quarters, 2))


def _content(terms: Terms) -> tuple[Monomial, Number]:
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


def _without(monomial: Monomial, taken: Monomial) -> Monomial:
    powers = dict(monomial)
    for base, exponent in taken:
        powers[base] = _plus(powers.get(base, (ZERO, ZERO)), (-exponent[0], -exponent[1]))
    return frozenset((base, e) for base, e in powers.items() if e != (ZERO, ZERO))


def _primes(value: Fraction) -> Iterator[tuple[int, int]]:
    """The prime factors of a positive fraction with their powers."""
    from flint import fmpz

    if max(value.numerator, value.denominator) > LARGEST:
        raise NotNormal
    for number, sign in ((value.numerator, 1), (value.denominator, -1)):
        for prime, count in fmpz(number).factor():
            yield int(prime), sign * int(count)
