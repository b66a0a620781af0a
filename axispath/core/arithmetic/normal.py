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
from fractions import Fraction

from axispath.core import catalogue
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.sums import Sums
from axispath.core.arithmetic.terms import (
    EMPTY,
    HALF,
    ONE,
    PI,
    ZERO,
    Base,
    Monomial,
    Normal,
    NotNormal,
    Number,
    Terms,
    X,
    content,
    is_constant,
    is_positive,
    number_form,
    over,
    power_of,
    primes,
    scaled,
    single_term,
    times,
    without,
)
from axispath.core.arithmetic.unit import AngleUnit

MOST_POWER = 24


def normal_form(plan: Program, unit: AngleUnit) -> Normal | None:
    """The normal form of a program of one input; None where there is none."""
    writer = _Writer(unit)
    results = [power_of(X)]
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
        ratio = over(value, form.bottom[first])
        if form.top == {m: times(c, ratio) for m, c in form.bottom.items()}:
            return {1, 2}
    if all(is_constant(m) for m in (*form.top, *form.bottom)):
        return {1, 2}
    straight = frozenset({(X, (ONE, ZERO))})
    rest = (m - straight if (X, (ONE, ZERO)) in m else m for m in form.top)
    if all(is_constant(m) for m in (*rest, *form.bottom)):
        return {2}
    return set()


# Numbers a + bi


# Sums of terms


class _Writer(Sums):
    """Writes the steps of a program as normal forms."""

    def exponential(self, exponent: Normal, imaginary: bool = False) -> Normal:
        """e to a power, or to i times it."""
        if exponent.bottom != {EMPTY: (ONE, ZERO)} or any(c[1] for c in exponent.top.values()):
            exponent = power_of(Base("atom", exponent.key))
        result = number_form(ONE)
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
                return self.rooted(power_of(of), factor)
            if isinstance(of, Base) and factor.denominator == 1 and factor % 2 == 0:
                return self.power(power_of(of), factor.numerator)  # |g|² is g²
        exponent = (ZERO, factor) if imaginary else (factor, ZERO)
        single = frozenset({(Base("exp", monomial), exponent)})
        return Normal(self._term(single, EMPTY, (ONE, ZERO)), {EMPTY: (ONE, ZERO)})

    def logarithm(self, x: Normal) -> Normal:
        """The natural logarithm of the absolute value."""
        single = single_term(x.top) if x.bottom == {EMPTY: (ONE, ZERO)} else None
        if single is not None and single[1][0] > 0:
            doubtful = [(base, e) for base, e in single[0] if not is_positive(base, e)]
            if len(doubtful) == 1 and not doubtful[0][1][1] and doubtful[0][1][0].numerator % 2:
                self.above.add(doubtful[0][0])
        top, bottom = self._logarithm_of(x.top), self._logarithm_of(x.bottom)
        return self.plus(top, bottom, -1)

    def _logarithm_of(self, terms: Terms) -> Normal:
        if not terms:
            raise NotNormal
        common = content(terms)
        total = self._logarithm_of_term(common)
        rest = {without(m, common[0]): over(c, common[1]) for m, c in terms.items()}
        if len(rest) > 1:
            for factor, count in self._factors(rest):
                total = self.plus(total, scaled(power_of(Base("ln", factor)), Fraction(count)))
        return total

    def _logarithm_of_term(self, term: tuple[Monomial, Number]) -> Normal:
        monomial, (real, imaginary) = term
        if imaginary:
            raise NotNormal
        total = number_form(ZERO)
        for p, k in primes(abs(real)):
            total = self.plus(total, scaled(power_of(Base("ln", p)), Fraction(k)))
        for base, exponent in monomial:
            if exponent[1]:
                raise NotNormal
            if base.kind == "exp":
                of: Monomial = base.of  # type: ignore[assignment]
                inner = Normal({of: (ONE, ZERO)}, {EMPTY: (ONE, ZERO)})
            elif base.kind == "prime":
                inner = power_of(Base("ln", base.of))
            else:
                inner = power_of(Base("ln", base))
            total = self.plus(total, scaled(inner, exponent[0]))
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
                return number_form(step.detail)
            case "constant", _ if step.detail == "π":
                return power_of(PI)
            case "constant", _ if step.detail == "e":
                return self.exponential(number_form(ONE))
            case "negate", [a]:
                return scaled(a, -ONE)
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
            return number_form(ONE)
        return self.exponential(self.times(exponent, self.logarithm(base)))

    def _applied(self, name: str, given: list[Normal]) -> Normal:
        x = given[0]
        one = number_form(ONE)
        match name:
            case "exp":
                return self.exponential(x)
            case "ln":
                return self.logarithm(x)
            case "log":
                return self.over(self.logarithm(x), self.logarithm(number_form(Fraction(10))))
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
                return self.times(x, scaled(power_of(PI), Fraction(1, 180)))
            case "sinh" | "cosh" | "tanh":
                return self._hyperbolic(name, x)
            case "arccos" | "arccot":
                right = scaled(power_of(PI), HALF)
                if self.unit is AngleUnit.DEGREE:
                    right = number_form(Fraction(90))
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
        return power_of(Base("atom", (name, tuple(x.key for x in given))))

    def _circular(self, name: str, x: Normal) -> Normal:
        if self.unit is AngleUnit.DEGREE:
            x = self.times(x, scaled(power_of(PI), Fraction(1, 180)))
        forward = self.exponential(x, imaginary=True)
        back = self.exponential(scaled(x, -ONE), imaginary=True)
        cosine = scaled(self.plus(forward, back), HALF)
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
                return self.over(number_form(ONE), cosine)
        return self.over(number_form(ONE), sine)

    def _hyperbolic(self, name: str, x: Normal) -> Normal:
        up, down = self.exponential(x), self.exponential(scaled(x, -ONE))
        cosine = scaled(self.plus(up, down), HALF)
        sine = scaled(self.plus(up, down, -1), HALF)
        return {"sinh": sine, "cosh": cosine}.get(name) or self.over(sine, cosine)
