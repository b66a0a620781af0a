"""Exact coordinates of landmarks whose parameter is known exactly."""

from __future__ import annotations

from typing import Any

from axispath.core.arithmetic.exact import NotExact, exact_form
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.search.exact_forms import Form, exact_number
from axispath.core.search.landmark import Landmark
from axispath.core.search.told import told_in

NEAR = 1e-9

Place = tuple[str, Exact, float, float]
"""The key of a landmark, its parameter, and its coordinates in floating point."""


def place_of_mark(key: str, mark: Landmark) -> Place | None:
    """What is asked of a landmark; None where its parameter is not known exactly."""
    return None if mark.exact is None else (key, mark.exact, mark.x, mark.y)


def curve_forms(
    x: Program, y: Program, unit: AngleUnit, wanted: tuple[Place, ...]
) -> dict[str, Form]:
    """Exact coordinates as text, by the keys of landmarks."""
    import sympy

    found = {}
    for key, exact, near_x, near_y in wanted:
        t = exact_number(sympy, exact)
        texts = [_told(sympy, p, unit, t, near) for p, near in ((x, near_x), (y, near_y))]
        found[key] = Form(*texts)
    return found


def _told(sympy: Any, plan: Program, unit: AngleUnit, t: Any, near: float) -> str:
    try:
        value = sympy.simplify(exact_form(plan, unit, t))
        if abs(float(value) - near) <= NEAR * (1 + abs(near)):
            return str(told_in(sympy, value, unit))
    except (NotExact, TypeError, ValueError, ArithmeticError):
        pass
    return ""
