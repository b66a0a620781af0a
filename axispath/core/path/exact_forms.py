"""Exact forms of landmarks, found by guessing and verified by substitution; asymptotes.

Uses SymPy and has no bound on its time: callers run it in a process of its own.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from axispath.core.arithmetic.exact import NotExact, exact_form
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import MINUS

CLOSE = 2e-13  # relative distance at which a form is worth trying
LONGEST = 26  # characters of a form that is still easier to read than a decimal
FAR_OUT = (12345.678, 1234567.89)
LEVELS = {"zero": 0, "intersection": 0, "maximum": 1, "minimum": 1, "inflection": 2}


@dataclass(frozen=True, slots=True)
class Wanted:
    """A landmark whose exact form is wanted; ``sure`` where x itself was found exactly."""

    key: str
    kind: str
    x: float
    y: float | None
    sure: bool


@dataclass(frozen=True, slots=True)
class Form:
    """Exact coordinates as text; empty where none was found, or the decimal is exact."""

    x: str = ""
    y: str = ""


def exact_forms(
    plan: Program, unit: AngleUnit, other: Program | None, wanted: tuple[Wanted, ...]
) -> dict[str, Form]:
    """Exact forms of landmarks of a function, or of its intersections with ``other``."""
    import sympy

    x = sympy.Symbol("x", real=True)
    rule = _rule(plan, unit, x)
    second = _rule(other, unit, x) if other is not None else None
    return {mark.key: _form(sympy, plan, unit, x, rule, second, mark) for mark in wanted}


def _rule(plan: Program, unit: AngleUnit, x: Any) -> Any:
    try:
        return exact_form(plan, unit, x)
    except (NotExact, TypeError, ValueError, ArithmeticError):
        return None


def _form(
    sympy: Any, plan: Program, unit: AngleUnit, x: Any, rule: Any, other: Any, mark: Wanted
) -> Form:
    for candidate in candidates(sympy, mark.x):
        if not mark.sure and not _verified(sympy, x, rule, other, mark, candidate):
            continue
        y = ""
        if mark.y is not None and mark.kind != "zero":
            try:
                value = sympy.simplify(exact_form(plan, unit, candidate))
                if abs(float(value) - mark.y) <= 1e-9 * (1 + abs(mark.y)):
                    y = told(sympy, value)
            except (NotExact, TypeError, ValueError, ArithmeticError):
                y = ""
        return Form(told(sympy, candidate), y)
    return Form()


def _verified(sympy: Any, x: Any, rule: Any, other: Any, mark: Wanted, candidate: Any) -> bool:
    """Whether putting the candidate in gives exactly 0 where it should."""
    level = LEVELS.get(mark.kind)
    if rule is None or level is None or (mark.kind == "intersection" and other is None):
        return False
    expression = rule - other if mark.kind == "intersection" else sympy.diff(rule, x, level)
    try:
        value = expression.subs(x, candidate)
        return bool(sympy.simplify(value) == 0)
    except (TypeError, ValueError, ArithmeticError, AttributeError, NotImplementedError):
        return False


def candidates(sympy: Any, x: float) -> Iterator[Any]:
    """Exact numbers next to x, the simplest first."""
    seen = set()
    for candidate in _guesses(sympy, x):
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
    cube = _fraction(sympy, x**3, 200)
    if cube:
        yield sympy.real_root(cube, 3)
    if abs(x) < 20:
        power = _fraction(sympy, math.exp(x), 60)
        if power > 0:
            yield sympy.log(power)
        ten = _fraction(sympy, 10**x, 60)
        if ten > 0:
            yield sympy.log(ten) / sympy.log(10)
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


def asymptotes(plan: Program, unit: AngleUnit) -> tuple[str, ...]:
    """Horizontal and oblique asymptotes as equations, where SymPy's limits find them."""
    import sympy

    x = sympy.Symbol("x", real=True)
    rule = _rule(plan, unit, x)
    if rule is None or not rule.has(x):
        return ()
    found = []
    for end, side in ((sympy.oo, "right"), (-sympy.oo, "left")):
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
    if sympy.simplify(rule - slope * x - height) == 0:
        return None
    # A limit that the function's own values far out do not bear out is not claimed.
    for far in FAR_OUT:
        at = far if end == sympy.oo else -far
        away = float_value(plan, unit, at) - float(slope) * at - float(height)
        if not abs(away) <= max(1.0, abs(float(height))) * 0.2:
            return None
    return told(sympy, slope * x + height, always=True)


def told(sympy: Any, value: Any, always: bool = False) -> str:
    """An exact number as text: √5, 3/16, π/6; empty where its decimal is exact, or too long."""
    if not always and value.is_Rational:
        bottom = int(value.q)
        for prime in (2, 5):
            while bottom % prime == 0:
                bottom //= prime
        if bottom == 1 and len(str(float(value))) <= 8:
            return ""
    order = None if value.free_symbols else "none"  # x + 2, but 2 + √3
    text = str(_printer(sympy, order).doprint(sympy.together(value)))
    return text if len(text) <= LONGEST else ""


def _printer(sympy: Any, order: str | None) -> Any:
    from sympy.printing.str import StrPrinter

    class Printer(StrPrinter):  # type: ignore[misc]
        """Roots, π and logarithms as a student writes them."""

        def _print_Pow(self, expr: Any, rational: bool = False) -> str:
            if expr.exp == sympy.Rational(1, 2):
                return self._rooted("√", expr.base)
            if expr.exp == -sympy.Rational(1, 2):
                return f"1/{self._rooted('√', expr.base)}"
            if expr.exp == sympy.Rational(1, 3):
                return self._rooted("∛", expr.base)
            return str(super()._print_Pow(expr, rational)).replace("**", "^")

        def _rooted(self, sign: str, base: Any) -> str:
            text = self._print(base)
            return f"{sign}{text}" if base.is_Integer or base.is_Symbol else f"{sign}({text})"

        def _print_Pi(self, expr: Any) -> str:
            return "π"

        def _print_Exp1(self, expr: Any) -> str:
            return "e"

        def _print_log(self, expr: Any) -> str:
            return f"ln({self._print(expr.args[0])})"

        def _print_exp(self, expr: Any) -> str:
            power = expr.args[0]
            if power == -1:
                return "1/e"
            return f"e^{self._print(power)}" if power.is_Integer else f"e^({self._print(power)})"

        def _print_asin(self, expr: Any) -> str:
            return f"arcsin({self._print(expr.args[0])})"

        def _print_acos(self, expr: Any) -> str:
            return f"arccos({self._print(expr.args[0])})"

        def _print_atan(self, expr: Any) -> str:
            return f"arctan({self._print(expr.args[0])})"

        def doprint(self, expr: Any) -> str:
            """Text without signs of multiplication."""
            text = str(super().doprint(expr))
            return text.replace("**", "^").replace("*", "").replace("-", MINUS).replace(" ", "")

    return Printer({"order": order})
