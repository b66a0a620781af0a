"""Exact coordinates of places where two equations hold, guessed and verified by substitution.

A box about the place is proved to hold no other one, so that exact coordinates in this box with
which both equations are exactly 0 are those of the place. Uses SymPy, without a bound on its time.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from axispath.core.arithmetic.exact import NotExact, exact_form
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.search.exact_forms import Form, candidates
from axispath.core.search.landmark import Common, Landmark
from axispath.core.search.told import told_in

TRIED = 4  # guesses for each coordinate
NEAR = 1e-9  # relative size of what may be 0, for floats: the cheaper look comes first
DIGITS = 40


@dataclass(frozen=True, slots=True)
class Both:
    """A landmark whose exact coordinates are wanted."""

    key: str
    x: float
    y: float
    pair: Common


def both_of(key: str, mark: Landmark) -> Both | None:
    """What is asked of a landmark; None where it is no place of two equations."""
    return None if mark.pair is None else Both(key, mark.x, mark.y, mark.pair)


def pair_forms(unit: AngleUnit, wanted: tuple[Both, ...]) -> dict[str, Form]:
    """Exact coordinates as text, by the keys of landmarks, where both were found."""
    import sympy

    return {one.key: _form(sympy, unit, one) for one in wanted}


def _form(sympy: Any, unit: AngleUnit, one: Both) -> Form:
    pair = one.pair
    for x, y in _guesses(sympy, unit, one):
        if not (
            _between(sympy, x, pair.low, pair.high) and _between(sympy, y, pair.bottom, pair.top)
        ):
            continue
        if all(_zero(sympy, plan, unit, x, y) for plan in (pair.first, pair.second)):
            return Form(told_in(sympy, x, unit), told_in(sympy, y, unit))
    return Form()


def _guesses(sympy: Any, unit: AngleUnit, one: Both) -> Iterator[tuple[Any, Any]]:
    """Pairs of exact numbers next to the place, the simplest first."""
    xs, ys = (list(itertools.islice(candidates(sympy, at, unit), TRIED)) for at in (one.x, one.y))
    return iter(sorted(itertools.product(xs, ys), key=lambda both: sum(map(_length, both))))


def _length(value: Any) -> int:
    return len(str(value))


def _between(sympy: Any, value: Any, low: float, high: float) -> bool:
    ends = (sympy.Rational(Fraction(end)) for end in (low, high))
    least, most = ends
    return bool(least <= value.evalf(DIGITS) <= most)


def _zero(sympy: Any, plan: Program, unit: AngleUnit, x: Any, y: Any) -> bool:
    """Whether a program of x and y is exactly 0 at a place."""
    near = float_value(plan, unit, float(x), float(y))
    if not abs(near) <= NEAR * (1 + abs(float(x)) + abs(float(y))) ** 2:
        return False
    try:
        return bool(sympy.simplify(exact_form(plan, unit, x, y)) == 0)
    except (NotExact, TypeError, ValueError, ArithmeticError):
        return False
