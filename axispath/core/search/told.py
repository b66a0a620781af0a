"""Exact numbers of SymPy as text that reads as the same number on a sheet."""

from __future__ import annotations

from typing import Any

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import MINUS
from axispath.core.search.read_back import reads_back

LONGEST = 26  # characters of a form that is still easier to read than a decimal
DIGITS = 90
LOWERED = "₀₁₂₃₄₅₆₇₈₉"


def told_in(sympy: Any, value: Any, unit: AngleUnit) -> str:
    """An exact number as text that is this number on a sheet in this unit; else empty.

    In degrees a sine is one of degrees, and an arcsine is meant in degrees.
    """
    shown = _in_degrees(sympy, value) if unit is AngleUnit.DEGREE else value
    text = told(sympy, shown)
    return text if text and reads_back(text, unit, str(value.evalf(DIGITS))) else ""


def _in_degrees(sympy: Any, value: Any) -> Any:
    """The same number, where the arguments of sines and the values of arcsines are degrees."""
    waves = (sympy.sin, sympy.cos, sympy.tan, sympy.cot, sympy.sec, sympy.csc)
    angles = (sympy.asin, sympy.acos, sympy.atan, sympy.acot)
    degree = sympy.pi / 180
    value = value.replace(
        lambda part: isinstance(part, waves),
        lambda part: part.func(sympy.expand(part.args[0] / degree), evaluate=False),
    )
    angle = sympy.Dummy()
    found = [part for part in value.atoms(sympy.Function) if isinstance(part, angles)]
    for part in found:
        value = value.subs(part, angle * degree)
        value = sympy.expand(value).subs(angle, part)
    return value


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
            alone = base.is_Integer or base.is_Symbol or base.is_NumberSymbol
            return f"{sign}{text}" if alone else f"{sign}({text})"

        def _print_Mul(self, expr: Any) -> str:
            top, bottom = expr.as_numer_denom()
            if top.func is sympy.log and bottom.func is sympy.log and bottom.args[0].is_Integer:
                lowered = "".join(LOWERED[int(d)] for d in str(bottom.args[0]))
                return f"log{lowered}({self._print(top.args[0])})"
            return str(super()._print_Mul(expr))

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
