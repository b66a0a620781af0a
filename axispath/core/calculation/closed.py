"""Closed forms of integrals, limits and endless sums: found by SymPy, borne out by numbers.

Has no bound on its time: callers run it in a process of its own.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from flint import acb

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.exact import NotExact, exact_form
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.program import NotComputable, Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.language.tree import Constant, Expression, Negation, Running
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import NoResult

CLOSED = ("integral", "limit", "sum", "product")
CLOSE = 1e-9
NUMERIC = 1e-7  # of what is summed up numerically
INFINITE = Constant("∞")


@dataclass(frozen=True, slots=True)
class Closing:
    """What is asked for: a function of a formula, its ends, and the value as far as it is known."""

    function: str
    plan: Program
    unit: AngleUnit
    ends: tuple[Surd | float, ...]
    side: str = ""
    near: float | None = None


def closing_of(calculator: Calculator, node: Expression, near: float | None) -> Closing | None:
    """What to ask about an expression; None where it is not one of these, or not of numbers."""
    if not isinstance(node, Running) or node.function not in CLOSED:
        return None
    ends: list[Surd | float] = []
    try:
        for end in node.ends:
            if end in (INFINITE, Negation(INFINITE)):
                ends.append(math.inf if end == INFINITE else -math.inf)
                continue
            value = calculator.result(end).value
            if not isinstance(value, Surd):
                return None
            ends.append(value)
        plan = program(node.body, (node.index,), calculator.definitions)
    except (NoResult, NotComputable, KeyError):
        return None
    return Closing(node.function, plan, calculator.unit, tuple(ends), node.side, near)


def closed_form(asked: Closing) -> Any:
    """A SymPy expression; None where none is found, or numbers do not bear it out."""
    import sympy

    whole = asked.function in ("sum", "product")
    x = sympy.Symbol("x", integer=True) if whole else sympy.Symbol("x", real=True)
    try:
        rule = exact_form(asked.plan, asked.unit, x)
        ends = [_sympy(sympy, end) for end in asked.ends]
        found = _worked_out(sympy, asked, rule, x, ends)
    except (NotExact, TypeError, ValueError, ArithmeticError, NotImplementedError, AttributeError):
        return None
    if found is None or not found.is_number or not found.is_finite or found.is_real is False:
        return None
    if found.has(sympy.Integral, sympy.Sum, sympy.Limit, sympy.Product):
        return None
    found = sympy.simplify(found)
    return found if _borne_out(sympy, asked, rule, x, float(found)) else None


def _worked_out(sympy: Any, asked: Closing, rule: Any, x: Any, ends: list[Any]) -> Any:
    match asked.function:
        case "integral":
            return sympy.integrate(rule, (x, *ends))
        case "limit":
            if asked.side or not ends[0].is_finite:
                return sympy.limit(rule, x, ends[0], "-" if asked.side == "left" else "+")
            left, right = (sympy.limit(rule, x, ends[0], side) for side in "-+")
            return left if left == right else None
        case "sum":
            return sympy.summation(rule, (x, *ends))
    return sympy.product(rule, (x, *ends))


def _sympy(sympy: Any, end: Surd | float) -> Any:
    if not isinstance(end, Surd):
        return sympy.oo if end > 0 else -sympy.oo
    total = sympy.Integer(0)
    for (s, m, k), q in end.terms:
        part = sympy.Rational(q.numerator, q.denominator) * sympy.sqrt(m) * sympy.pi**k
        total += part * sympy.I if s else part
    return total


def _borne_out(sympy: Any, asked: Closing, rule: Any, x: Any, value: float) -> bool:
    """Whether numbers that are summed up or come nearer agree with the form."""
    if asked.near is not None:
        return abs(value - asked.near) <= CLOSE * (1 + abs(value))
    import mpmath

    if asked.function == "limit":
        return _approached(asked, value)
    work = {"sum": mpmath.nsum, "product": mpmath.nprod, "integral": mpmath.quad}[asked.function]
    near = work(sympy.lambdify(x, rule, "mpmath"), [_end(mpmath, end) for end in asked.ends])
    return bool(abs(near - value) <= NUMERIC * (1 + abs(value)))


def _end(mpmath: Any, end: Surd | float) -> Any:
    return _float(end) if isinstance(end, Surd) else mpmath.inf if end > 0 else -mpmath.inf


def _float(end: Surd) -> float:
    ball = end.ball()
    return float(ball.real.mid() if isinstance(ball, acb) else ball.mid())


def _approached(asked: Closing, value: float) -> bool:
    """Whether the formula comes nearer and nearer to its limit."""
    (end,) = asked.ends
    apart = []
    for step in (1e-2, 1e-3, 1e-4) if isinstance(end, Surd) else (1e2, 1e4, 1e6):
        if isinstance(end, Surd):
            way = -1 if asked.side == "left" else 1
            place = _float(end) + way * step
        else:
            place = math.copysign(step, end)
        apart.append(abs(float_value(asked.plan, asked.unit, place) - value))
    return apart[-1] <= max(apart[0], 1e-9) and apart[-1] <= 0.05 * (1 + abs(value))
