"""Exact arithmetic with numbers a + bπ for rational a and b.

Enough for most places that matter in school: whole numbers and fractions, multiples of π,
and the sines, roots and logarithms that are rational there. Answers None as soon as a step
leaves these numbers, has no value, or grows too long to be worth it.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from fractions import Fraction
from typing import NamedTuple

from flint import arb, fmpq

from axispath.core.arithmetic.comparing import COMPARED, INSIDE
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import precision

MAX_DIGITS = 2000
MOST_PLACES = 15  # that a number is rounded to
LARGEST_WHOLE = 1000  # of which a factorial is taken


class Inexact(Exception):
    """The value is no number of this form."""


class Exact(NamedTuple):
    """a + bπ."""

    rational: Fraction
    turns: Fraction = Fraction(0)

    @property
    def ball(self) -> arb:
        """An enclosure at the working precision."""
        whole = arb(fmpq(self.rational.numerator, self.rational.denominator))
        if not self.turns:
            return whole
        return whole + arb.pi() * arb(fmpq(self.turns.numerator, self.turns.denominator))

    @property
    def is_zero(self) -> bool:
        """Whether this is 0: π is irrational, so both parts must be."""
        return not self.rational and not self.turns

    def sign(self) -> int:
        """1, 0 or −1."""
        if not self.turns:
            return (self.rational > 0) - (self.rational < 0)
        for bits in (64, 512, 20_000):
            with precision(bits):
                ball = self.ball
            if ball > 0:
                return 1
            if ball < 0:
                return -1
        raise Inexact


def exact_value(plan: Program, *inputs: Fraction) -> Fraction | None:
    """The exact result for rational inputs, where it is rational and defined."""
    found = exact_registers(plan, AngleUnit.RADIAN, *(Exact(value) for value in inputs))
    result = found[plan.result]
    return result.rational if result is not None and not result.turns else None


def exact_registers(plan: Program, unit: AngleUnit, *inputs: Exact) -> list[Exact | None]:
    """The exact value of every step, None where it has none of this form."""
    results: list[Exact | None] = list(inputs)
    for step in plan.steps[plan.inputs :]:
        if _is_zeroth_power(plan, step, results):
            results.append(ONE)
            continue
        try:
            results.append(carried_out(step, [results[i] for i in step.operands], unit))
        except (Inexact, ZeroDivisionError):
            results.append(None)
    return results


def _is_zeroth_power(plan: Program, step: Step, results: list[Exact | None]) -> bool:
    """Whether a step is e⁰, or that of another constant."""
    if step.operation != "power":
        return False
    base, exponent = step.operands
    value = results[exponent]
    return value is not None and value.is_zero and plan.steps[base].operation == "constant"


def carried_out(step: Step, given: list[Exact | None], unit: AngleUnit) -> Exact:
    """The exact value of a step. Raises Inexact, ZeroDivisionError."""
    if step.operation == "choose":
        return _chosen(str(step.detail), given)
    if any(value is None for value in given):
        raise Inexact
    return _computed(step, [value for value in given if value is not None], unit)


def _computed(step: Step, given: list[Exact], unit: AngleUnit) -> Exact:
    detail = step.detail
    match step.operation, given:
        case "number", _:
            return Exact(detail)
        case "constant", _ if detail == "π":
            return Exact(Fraction(0), Fraction(1))
        case "negate", [value]:
            return Exact(-value.rational, -value.turns)
        case "add", [left, right]:
            return _short(left.rational + right.rational, left.turns + right.turns)
        case "subtract", [left, right]:
            return _short(left.rational - right.rational, left.turns - right.turns)
        case "multiply", [left, right]:
            return _product(left, right)
        case "divide", [top, bottom]:
            return _quotient(top, bottom)
        case "whole power", [base]:
            return _power(base, int(detail))
        case "root power", [base]:
            return _power(_root(base, detail.denominator), detail.numerator)
        case "power", [base, exponent]:
            if base.is_zero and exponent.sign() <= 0:
                raise Inexact
            return _power(base, _whole(exponent))
        case "integral", [low, high] if low == high:
            if exact_registers(detail, unit, low)[detail.result] is None:
                raise Inexact
            return Exact(Fraction(0))
        case "given", [value, _]:
            return value
        case "restrict", [value, x, end]:
            inside = INSIDE[detail[0]](_difference_sign(x, end), 0)
            if not inside:
                raise Inexact
            return value
        case "apply", _:
            return applied_exactly(str(detail), given, unit)
    raise Inexact


def _chosen(sign: str, given: list[Exact | None]) -> Exact:
    left, right, value, rest = given
    if left is None or right is None:
        raise Inexact
    chosen = value if COMPARED[sign](_difference_sign(left, right), 0) else rest
    if chosen is None:
        raise Inexact
    return chosen


def applied_exactly(name: str, given: list[Exact], unit: AngleUnit) -> Exact:
    """A function of the catalogue. Raises Inexact, ZeroDivisionError where it has no value."""
    x = given[0]
    match name:
        case "abs":
            return Exact(-x.rational, -x.turns) if x.sign() < 0 else x
        case "sign":
            return Exact(Fraction(x.sign()))
        case "floor" | "ceil":
            work = math.floor if name == "floor" else math.ceil
            return Exact(Fraction(work(_rational(x))))
        case "round":
            return _rounded(x, _whole(given[1]) if len(given) > 1 else 0)
        case "mod":
            steps = math.floor(_rational(_quotient(x, given[1])))
            return _short(x.rational - steps * given[1].rational, x.turns - steps * given[1].turns)
        case "sqrt":
            return _root(x, 2)
        case "cbrt":
            return _root(x, 3)
        case "root":
            return _root(given[1], _whole(x))
        case "ln" | "log" if x == ONE:
            return ZERO
        case "log_base" if given[1] == ONE and x != ONE and x.sign() > 0:
            return ZERO
        case "exp" if x.is_zero:
            return ONE
        case "min" | "max":
            return _extreme(name, given)
        case "sin" | "cos" | "tan":
            return _circular(name, _half_turns(x, unit))
        case "sec" | "csc" | "cot":
            other = {"sec": "cos", "csc": "sin", "cot": "tan"}[name]
            turns = _half_turns(x, unit)
            if name == "cot" and (turns - Fraction(1, 2)).denominator == 1:
                return ZERO
            return _quotient(ONE, _circular(other, turns))
        case "degrees":
            return x if unit is AngleUnit.DEGREE else _product(x, Exact(Fraction(0), HALF_DEGREE))
        case "sinh" | "tanh" | "arsinh" | "artanh" | "erf" if x.is_zero:
            return ZERO
        case "arcsin" | "arccos" | "arctan":
            return _inverse(name, x, unit)
        case "factorial" | "binomial" | "gcd" | "lcm":
            return _of_whole(name, [_whole(value) for value in given])
        case "cosh" if x.is_zero:
            return ONE
    raise Inexact


def _rounded(x: Exact, places: int) -> Exact:
    """With so many decimal places; halves go away from 0."""
    if abs(places) > MOST_PLACES:
        raise Inexact
    scale = Fraction(10) ** places
    size = math.floor(abs(_rational(x)) * scale + Fraction(1, 2)) / scale
    return Exact(size if x.sign() >= 0 else -size)


ZERO, ONE = Exact(Fraction(0)), Exact(Fraction(1))
HALF_DEGREE = Fraction(1, 180)
# sin(kπ/6) where it is rational, by k from 0 to 11.
_HALF = Fraction(1, 2)
_SINES = {0: Fraction(0), 1: _HALF, 3: Fraction(1), 5: _HALF}
_SINES |= {place + 6: -value for place, value in _SINES.items()}
_TANGENTS = {0: Fraction(0), 1: Fraction(1), 3: Fraction(-1)}  # tan(kπ/4), by k from 0 to 3


def _circular(name: str, half_turns: Fraction) -> Exact:
    if name == "tan":
        table, steps = _TANGENTS, 4 * half_turns
        place = steps % 4
        if place == 2:
            raise ZeroDivisionError
    else:
        shifted = half_turns + Fraction(1, 2) if name == "cos" else half_turns
        table, steps = _SINES, 6 * shifted
        place = steps % 12
    if place.denominator != 1 or int(place) not in table:
        raise Inexact
    return Exact(Fraction(table[int(place)]))


def sine_and_cosine(angle: Exact, unit: AngleUnit) -> tuple[arb, arb] | None:
    """Sine and cosine of an exact angle, where at least one of them is rational."""
    found: list[Exact | None] = []
    for name in ("sin", "cos"):
        try:
            found.append(_circular(name, _half_turns(angle, unit)))
        except Inexact:
            found.append(None)
    sine, cosine = found
    if sine is None and cosine is None:
        return None
    place = angle.ball if unit is AngleUnit.RADIAN else angle.ball * (arb.pi() / 180)
    return (
        place.sin() if sine is None else sine.ball,
        place.cos() if cosine is None else cosine.ball,
    )


# arcsin and arctan of numbers that school knows, in half turns.
_ARCSINES = {Fraction(0): Fraction(0), _HALF: Fraction(1, 6), Fraction(1): _HALF}
_ARCTANGENTS = {Fraction(0): Fraction(0), Fraction(1): Fraction(1, 4)}


def _inverse(name: str, x: Exact, unit: AngleUnit) -> Exact:
    value = _rational(x)
    table = _ARCTANGENTS if name == "arctan" else _ARCSINES
    if abs(value) not in table:
        raise Inexact
    half_turns = table[abs(value)] * (1 if value >= 0 else -1)
    if name == "arccos":
        half_turns = _HALF - half_turns
    return Exact(180 * half_turns) if unit is AngleUnit.DEGREE else Exact(Fraction(0), half_turns)


def _of_whole(name: str, given: list[int]) -> Exact:
    if name in ("factorial", "binomial") and (min(given) < 0 or max(given) > LARGEST_WHOLE):
        raise Inexact
    return _short(Fraction(_WHOLE[name](*given)), Fraction(0))


_WHOLE: dict[str, Callable[..., int]] = {
    "factorial": math.factorial,
    "binomial": math.comb,
    "gcd": math.gcd,
    "lcm": math.lcm,
}


def _half_turns(x: Exact, unit: AngleUnit) -> Fraction:
    """An angle as a multiple of π."""
    if unit is AngleUnit.DEGREE:
        return _rational(x) / 180
    if x.rational:
        raise Inexact
    return x.turns


def _extreme(name: str, given: list[Exact]) -> Exact:
    best = given[0]
    for other in given[1:]:
        sign = _difference_sign(other, best)
        if sign == (1 if name == "max" else -1):
            best = other
    return best


def _difference_sign(left: Exact, right: Exact) -> int:
    return Exact(left.rational - right.rational, left.turns - right.turns).sign()


def _product(left: Exact, right: Exact) -> Exact:
    if left.turns and right.turns:
        raise Inexact
    turns = left.turns * right.rational + right.turns * left.rational
    return _short(left.rational * right.rational, turns)


def _quotient(top: Exact, bottom: Exact) -> Exact:
    if not bottom.turns:
        return _short(top.rational / bottom.rational, top.turns / bottom.rational)
    ratio = top.turns / bottom.turns
    if top.rational != ratio * bottom.rational:
        raise Inexact
    return Exact(ratio)


def _power(base: Exact, n: int) -> Exact:
    if n == 1:
        return base
    value = _rational(base)
    digits = max(value.numerator.bit_length(), value.denominator.bit_length())
    if digits * abs(n) > 4 * MAX_DIGITS:
        raise Inexact
    return Exact(value**n)


def _root(x: Exact, n: int) -> Exact:
    value = _rational(x)
    if not 1 <= n <= 64 or (value < 0 and n % 2 == 0):
        raise Inexact
    parts = [_whole_root(abs(part), n) for part in (value.numerator, value.denominator)]
    root = Fraction(parts[0], parts[1])
    return Exact(-root if value < 0 else root)


def _whole_root(value: int, n: int) -> int:
    root = math.isqrt(value) if n == 2 else round(value ** (1 / n)) if value < 2**900 else 0
    for near in (root - 1, root, root + 1):
        if near >= 0 and near**n == value:
            return near
    raise Inexact


def _rational(x: Exact) -> Fraction:
    if x.turns:
        raise Inexact
    return x.rational


def _whole(x: Exact) -> int:
    value = _rational(x)
    if value.denominator != 1 or abs(value) > 10_000:
        raise Inexact
    return int(value)


def _short(rational: Fraction, turns: Fraction) -> Exact:
    for value in (rational, turns):
        if max(value.numerator.bit_length(), value.denominator.bit_length()) > 4 * MAX_DIGITS:
            raise Inexact
    return Exact(rational, turns)
