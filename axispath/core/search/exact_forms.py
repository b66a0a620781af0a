"""Exact forms of landmarks, found by guessing and verified by substitution; asymptotes.

Uses SymPy and has no bound on its time: callers run it in a process of its own.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.exact import NotExact, exact_form
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.asymptotes import asymptote
from axispath.core.search.landmark import Kind, Landmark
from axispath.core.search.told import DIGITS, told, told_in

CLOSE = 2e-13  # relative distance at which a form is worth trying
FAR_OUT = (12345.678, 1234567.89)
BITS = 320


@dataclass(frozen=True, slots=True)
class Wanted:
    """A landmark whose exact form is wanted.

    Its place is the only zero of ``of`` (a program, or a derivative of it) between ``low`` and
    ``high``; ``exact`` is the place itself, if that is known.
    """

    key: str
    x: float
    y: float | None
    low: float
    high: float
    of: tuple[Program, int] | None = None
    exact: Exact | None = None


def asked_for(key: str, mark: Landmark) -> Wanted:
    """What is asked about a landmark."""
    y = mark.y if math.isfinite(mark.y) and abs(mark.y) < 1e15 else None
    y = None if mark.kind is Kind.ZERO else y
    exact = Exact(Fraction(0)) if mark.kind is Kind.Y_INTERCEPT else mark.exact
    return Wanted(key, mark.x, y, mark.low, mark.high, mark.of, exact)


@dataclass(frozen=True, slots=True)
class Form:
    """Exact coordinates as text; empty where none was found, or the decimal is exact."""

    x: str = ""
    y: str = ""


def exact_forms(plan: Program, unit: AngleUnit, wanted: tuple[Wanted, ...]) -> dict[str, Form]:
    """Exact forms of landmarks; ``plan`` gives their heights."""
    import sympy

    x = sympy.Symbol("x", real=True)
    rules = {of[0]: _rule(of[0], unit, x) for mark in wanted if (of := mark.of) is not None}
    return {mark.key: _form(sympy, plan, unit, x, rules, mark) for mark in wanted}


def _rule(plan: Program, unit: AngleUnit, x: Any) -> Any:
    try:
        return exact_form(plan, unit, x)
    except (NotExact, TypeError, ValueError, ArithmeticError):
        return None


def _form(
    sympy: Any, plan: Program, unit: AngleUnit, x: Any, rules: dict[Program, Any], mark: Wanted
) -> Form:
    if mark.exact is not None:
        near = iter([exact_number(sympy, mark.exact)])
    else:
        near = candidates(sympy, mark.x, unit)
    for candidate in near:
        if mark.exact is None and not (
            _inside(sympy, candidate, mark)
            and _borne_out(unit, mark, candidate)  # the cheaper of the two comes first
            and _is_zero_there(sympy, x, rules, mark, candidate)
        ):
            continue
        y = ""
        if mark.y is not None:
            try:
                value = sympy.simplify(exact_form(plan, unit, candidate))
                if abs(float(value) - mark.y) <= 1e-9 * (1 + abs(mark.y)):
                    y = told_in(sympy, value, unit)
            except (NotExact, TypeError, ValueError, ArithmeticError):
                y = ""
        return Form(told_in(sympy, candidate, unit), y)
    return Form()


def exact_number(sympy: Any, exact: Exact) -> Any:
    """a + bπ for SymPy."""
    parts = [sympy.Rational(part.numerator, part.denominator) for part in exact]
    return parts[0] + parts[1] * sympy.pi


def _inside(sympy: Any, candidate: Any, mark: Wanted) -> bool:
    """Whether a candidate lies where the landmark is the only one."""
    low, high = (sympy.Rational(Fraction(end)) for end in (mark.low, mark.high))
    place = candidate.evalf(DIGITS)
    return bool(low <= place <= high) or abs(float(place) - mark.x) <= 2 * math.ulp(mark.x)


def _is_zero_there(
    sympy: Any, x: Any, rules: dict[Program, Any], mark: Wanted, candidate: Any
) -> bool:
    """Whether putting the candidate in gives exactly 0 where it should."""
    if mark.of is None or rules[mark.of[0]] is None:
        return False
    try:
        value = sympy.diff(rules[mark.of[0]], x, mark.of[1]).subs(x, candidate)
        return bool(sympy.simplify(sympy.expand_log(value, force=True)) == 0)
    except (TypeError, ValueError, ArithmeticError, AttributeError, NotImplementedError):
        return False


def _borne_out(unit: AngleUnit, mark: Wanted, candidate: Any) -> bool:
    """Whether an enclosure of what should be 0 at the candidate holds 0, and hardly more."""
    if mark.of is None:
        return False
    plan, level = mark.of
    with precision(BITS):
        # SymPy's digits with what they may be off by.
        place = arb(str(candidate.evalf(DIGITS))) * (1 + arb(0, 1) * arb(10) ** (5 - DIGITS))
        try:
            value = BallFunction(plan, unit).taylor(place, level + 1)[level]
        except OutsideDomain:
            return True  # at an end that does not belong; the place is proved symbolically
        if not value.is_finite():
            return True
        return bool(value.contains(0)) and bool(value.rad() < arb(10) ** (-DIGITS // 2))


def candidates(sympy: Any, x: float, unit: AngleUnit) -> Iterator[Any]:
    """Exact numbers next to x, the simplest first."""
    seen = set()
    guesses = _guesses(sympy, x)
    if unit is AngleUnit.DEGREE:
        turned = (180 * angle / sympy.pi for angle in _angles(sympy, math.radians(x)))
        guesses = itertools.chain(guesses, turned)
    for candidate in guesses:
        near = float(candidate)
        if abs(near - x) <= CLOSE * max(abs(x), 1e-3) and candidate not in seen:
            seen.add(candidate)
            yield candidate


def _guesses(sympy: Any, x: float) -> Iterator[Any]:
    yield _fraction(sympy, x, 1000)
    yield _fraction(sympy, x / math.pi, 120) * sympy.pi
    square = _fraction(sympy, x * x, 400)
    if square > 0:
        yield sympy.sqrt(square) * (1 if x > 0 else -1)
    yield from _quadratic(sympy, x)
    for n in (3, 4, 5, 6):
        power = _fraction(sympy, x**n, 200)
        if power and (n % 2 or power > 0):
            root = sympy.real_root(power, n)
            yield root if n % 2 or x > 0 else -root
    yield from _nested(sympy, x)
    if abs(x) < 20:
        for q in (1, 2, 3, 4, 6):
            power = _fraction(sympy, math.exp(q * x), 60)
            if power > 0:
                yield sympy.log(power) / q
        for base in (2, 3, 5, 7, 10):
            power = _fraction(sympy, float(base) ** x, 60)
            if power > 0:
                yield sympy.log(power) / sympy.log(base)
    if x > 0:
        yield sympy.exp(_fraction(sympy, math.log(x), 12))
    over = _fraction(sympy, x * x / math.pi, 120)
    if over > 0:
        yield sympy.sqrt(over * sympy.pi) * (1 if x > 0 else -1)
    if x:
        yield _fraction(sympy, math.pi * x, 120) / sympy.pi
    yield from _angles(sympy, x)


def _quadratic(sympy: Any, x: float) -> Iterator[Any]:
    """(p ± √q)/r from a quadratic equation with small whole coefficients."""
    for a in range(1, 13):
        for b in range(-36, 37):
            c = -(a * x * x + b * x)
            if abs(c - round(c)) <= 1e-11 * (1 + abs(c)) and abs(c) < 500:
                root = sympy.sqrt(b * b - 4 * a * round(c))
                sign = 1 if 2 * a * x + b > 0 else -1
                yield (-b + sign * root) / (2 * a)
                return


def _nested(sympy: Any, x: float) -> Iterator[Any]:
    """√(p ± √q), written as √a ± √b where it is that."""
    for square in _quadratic(sympy, x * x):
        if not square.is_positive:
            continue
        root = sympy.sqrtdenest(sympy.sqrt(square))
        if not any(power.base.has(sympy.Pow) for power in root.atoms(sympy.Pow)):
            yield root * (1 if x > 0 else -1)


def _angles(sympy: Any, x: float) -> Iterator[Any]:
    """Angles with a rational sine, cosine or tangent, any number of turns away."""
    turn = 2 * math.pi
    for inverse, value, period, mirrored in (
        (sympy.asin, math.sin(x), turn, lambda a: sympy.pi - a),
        (sympy.acos, math.cos(x), turn, lambda a: -a),
        (sympy.atan, math.tan(x), math.pi, lambda a: a),
    ):
        fraction = _fraction(sympy, value, 40)
        if abs(float(fraction) - value) > 1e-11:
            continue
        base = inverse(fraction)
        for angle in (base, mirrored(base)):  # type: ignore[no-untyped-call]
            turns = round((x - float(angle)) / period)
            if abs(turns) <= 50:
                yield angle + turns * (2 if period == turn else 1) * sympy.pi


def _fraction(sympy: Any, x: float, largest: int) -> Any:
    near = Fraction(x).limit_denominator(largest)
    return sympy.Rational(near.numerator, near.denominator)


def exact_value(plan: Program, unit: AngleUnit) -> str:
    """A constant in exact form as text; empty where none is found, or the decimal is exact."""
    import sympy

    try:
        value = sympy.simplify(exact_form(plan, unit))
        near = float_value(plan, unit)
        if abs(float(value) - near) > 1e-9 * (1 + abs(near)):
            return ""
        return told_in(sympy, value, unit)
    except (NotExact, TypeError, ValueError, ArithmeticError):
        return ""


def asymptotes(plan: Program, unit: AngleUnit) -> tuple[str, ...]:
    """Horizontal and oblique asymptotes as equations, where SymPy's limits find them."""
    import sympy

    x = sympy.Symbol("x", real=True)
    rule = _rule(plan, unit, x)
    found = []
    for end, side, way in ((sympy.oo, "right", 1), (-sympy.oo, "left", -1)):
        read = asymptote(plan, unit, way)
        line = None
        if read is not None:
            slope, height = (sympy.Rational(n.numerator, n.denominator) for n in read)
            line = told(sympy, slope * x + height, always=True)
        elif rule is not None and rule.has(x):
            line = _line(sympy, plan, unit, rule, x, end)
        if line is not None:
            found.append((line, side))
    if len(found) == 2 and found[0][0] == found[1][0]:
        return (f"y = {found[0][0]}",)
    return tuple(f"y = {line} to the {side}" for line, side in found)


def _line(sympy: Any, plan: Program, unit: AngleUnit, rule: Any, x: Any, end: Any) -> str | None:
    try:
        slope = sympy.limit(rule / x, x, end)
        if not (slope.is_finite and slope.is_real and slope.is_number):
            return None
        height = sympy.limit(sympy.simplify(rule - slope * x), x, end)
    except (TypeError, ValueError, ArithmeticError, NotImplementedError, AttributeError):
        return None
    if not (height.is_finite and height.is_real and height.is_number):
        return None
    # On the side that matters, where |x| is x or −x.
    far_out = sympy.Symbol("x", positive=True) * (1 if end == sympy.oo else -1)
    if sympy.simplify((rule - slope * x - height).subs(x, far_out)) == 0:
        return None
    # A limit that the function's own values far out do not bear out is not claimed.
    for far in FAR_OUT:
        at = far if end == sympy.oo else -far
        away = float_value(plan, unit, at) - float(slope) * at - float(height)
        if not abs(away) <= max(1.0, abs(float(height))) * 0.2:
            return None
    return told(sympy, slope * x + height, always=True)
