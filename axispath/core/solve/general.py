"""Exact answers by SymPy: the general solution of a periodic equation, and identities.

Has no bound on its time: callers run it in a process of its own. Nothing is claimed that the
solutions found and proved otherwise do not bear out.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from axispath.core.arithmetic.exact import NotExact, exact_form
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import MINUS
from axispath.core.search.told import told

CLOSE = 1e-8
MOST = 8  # families of solutions that are still worth reading


@dataclass(frozen=True, slots=True)
class General:
    """``families`` such as ("π/6 + 2πk", "5π/6 + 2πk"); ``always`` for an identity."""

    families: tuple[str, ...] = ()
    always: bool = False


def general_solution(
    left: Program,
    right: Program,
    unit: AngleUnit,
    found: tuple[float, ...],
    low: float,
    high: float,
) -> General:
    """What SymPy finds, if it agrees with the solutions ``found`` from ``low`` to ``high``."""
    import sympy

    x = sympy.Symbol("x", real=True)
    try:
        rule = exact_form(left, unit, x) - exact_form(right, unit, x)
        if sympy.simplify(rule) == 0:
            return General(always=True)
        if not rule.has(sympy.sin, sympy.cos, sympy.tan):
            return General()
        solutions = sympy.solveset(rule, x, sympy.S.Reals)
        families = sorted(set(_families(sympy, solutions)), key=lambda f: (f[1], f[0]))
    except (NotExact, TypeError, ValueError, ArithmeticError, NotImplementedError, AttributeError):
        return General()
    families = list(_fewest(sympy, families))
    if not 0 < len(families) <= MOST or not _agree(families, found, low, high):
        return General()
    texts = tuple(_written(sympy, base, period, unit) for base, period in families)
    return General(texts if all(texts) else ())


def _families(sympy: Any, solutions: Any) -> Iterator[tuple[Any, Any]]:
    """Base and period of every family in a set; raises ValueError for sets of other kinds."""
    if isinstance(solutions, sympy.Union):
        for part in solutions.args:
            yield from _families(sympy, part)
        return
    if not isinstance(solutions, sympy.ImageSet) or solutions.base_sets != (sympy.S.Integers,):
        raise ValueError("not a family of numbers")
    (variable,) = solutions.lamda.variables
    expression = sympy.expand(solutions.lamda.expr)
    period = expression.coeff(variable, 1)
    base = sympy.simplify(expression - period * variable)
    if base.has(variable) or not period.is_number or float(period) == 0:
        raise ValueError("not a family of numbers")
    period = sympy.Abs(period)
    yield sympy.simplify(base - period * sympy.floor(base / period)), period


def _fewest(sympy: Any, families: list[tuple[Any, Any]]) -> Iterator[tuple[Any, Any]]:
    """Two families half a period apart are one of half the period."""
    left = list(families)
    while left:
        base, period = left.pop(0)
        twin = next(
            (
                other
                for other in left
                if other[1] == period and sympy.simplify(other[0] - base - period / 2) == 0
            ),
            None,
        )
        if twin is not None:
            left.remove(twin)
            left.insert(0, (base, period / 2))
        else:
            yield base, period


def _agree(
    families: Iterable[tuple[Any, Any]], found: tuple[float, ...], low: float, high: float
) -> bool:
    """Whether the families give exactly the solutions found in the interval."""
    if not (math.isfinite(low) and math.isfinite(high)):
        low, high = (min(found, default=0.0), max(found, default=0.0))
    expected = set()
    for base, period in families:
        start, step = float(base), float(period)
        first = math.ceil((low - start) / step - CLOSE)
        last = math.floor((high - start) / step + CLOSE)
        if last - first > 3000:
            return False
        expected |= {start + k * step for k in range(first, last + 1)}
    missing = [x for x in found if not any(abs(x - e) <= CLOSE * (1 + abs(x)) for e in expected)]
    extra = [e for e in expected if not any(abs(x - e) <= CLOSE * (1 + abs(e)) for x in found)]
    return bool(found) and not missing and not extra


def _written(sympy: Any, base: Any, period: Any, unit: AngleUnit) -> str:
    sign = "°" if unit is AngleUnit.DEGREE else ""
    start = told(sympy, base, always=True)
    step = told(sympy, period, always=True)
    if not start or not step:
        return ""
    turned = f"{step}{sign}k" if sign or not step[-1].isdigit() else f"{step}k"
    if "/" in step:
        turned = f"({step}){sign}k"
    if start == "0":
        return turned
    return f"{start}{sign} + {turned}".replace(f"+ {MINUS}", f"{MINUS} ")
