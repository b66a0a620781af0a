"""Exact arithmetic with SymPy: √5, 3/16, π/6 instead of decimals.

Slow compared with floats and balls, and without a bound on its time: whoever calls it on
what a student typed does so in a process of its own, with a time limit.
"""

from __future__ import annotations

import functools
import math
from fractions import Fraction
from typing import Any

from axispath.core import catalogue
from axispath.core.arithmetic.program import Operation, Program, Step, bind
from axispath.core.arithmetic.unit import AngleUnit

LARGEST_EXPONENT = 2_000  # of a whole power whose base is a number


class NotExact(ArithmeticError):
    """There is no exact value, or none that is worth writing down."""


def exact_form(plan: Program, unit: AngleUnit, *inputs: Any) -> Any:
    """The result as a SymPy expression, for SymPy expressions or fractions as inputs.

    Raises NotExact where the result is undefined, not real, or too long.
    """
    import sympy

    given = [
        sympy.Rational(value.numerator, value.denominator) if isinstance(value, Fraction) else value
        for value in inputs
    ]
    bound = bind(plan, functools.partial(_operation, sympy, unit))
    result = sympy.sympify(bound.run(*given))
    if result.has(sympy.nan, sympy.zoo, sympy.oo, -sympy.oo) or result.is_real is False:
        raise NotExact
    return result


def _operation(sympy: Any, unit: AngleUnit, step: Step) -> Operation:
    detail = step.detail
    match step.operation:
        case "number":
            return lambda: sympy.Rational(detail.numerator, detail.denominator)
        case "constant":
            return lambda: catalogue.CONSTANTS[detail].exact(sympy)
        case "add":
            return lambda a, b: a + b
        case "subtract":
            return lambda a, b: a - b
        case "multiply":
            return lambda a, b: a * b
        case "negate":
            return lambda a: -a
        case "divide":
            return lambda a, b: sympy.nan if b.is_zero else a / b
        case "whole power":
            return lambda base: _power(base, sympy.Integer(detail))
        case "root power":
            return lambda base: _power(
                sympy.real_root(base, detail.denominator), sympy.Integer(detail.numerator)
            )
        case "power":
            return _power
        case "given":
            return lambda value, other: sympy.nan if other.has(sympy.nan) else value
        case "restrict":
            return lambda value, x, end: _decided(sympy, detail[0], x, end, value, sympy.nan)
        case "choose":
            return lambda a, b, value, rest: _decided(sympy, detail, a, b, value, rest)
        case "undefined":
            return lambda: sympy.nan
    return functools.partial(_applied, sympy, unit, catalogue.ENTRIES[detail])


def _power(base: Any, exponent: Any) -> Any:
    """A power, unless it would be a number of thousands of digits."""
    if base.is_number and exponent.is_number:
        size = abs(complex(exponent.evalf(15)))
        digits = 1 + abs(math.log(abs(complex(base.evalf(15))) or 1.0))
        if not size * digits <= LARGEST_EXPONENT:
            raise NotExact
    return base**exponent


def _applied(sympy: Any, unit: AngleUnit, entry: catalogue.Entry, *given: Any) -> Any:
    if any(value.has(sympy.nan) for value in given):
        return sympy.nan
    angle = entry.angle if unit is AngleUnit.DEGREE else catalogue.Angle.NONE
    if angle is catalogue.Angle.ARGUMENT:
        if entry.word.name == "degrees":
            return given[0]
        return entry.exact(sympy, *(value * sympy.pi / 180 for value in given))
    result = sympy.sympify(entry.exact(sympy, *given))
    return result * 180 / sympy.pi if angle is catalogue.Angle.RESULT else result


_RELATIONS = {
    "<": "Lt",
    "<=": "Le",
    ">": "Gt",
    ">=": "Ge",
    "=": "Eq",
    "!=": "Ne",
    "below": "Lt",
    "at or below": "Le",
    "above": "Gt",
    "at or above": "Ge",
}


def _decided(sympy: Any, sign: str, left: Any, right: Any, value: Any, rest: Any) -> Any:
    """``value`` or ``rest``, where the comparison can be decided."""
    holds = getattr(sympy, _RELATIONS[sign])(left, right)
    if holds == sympy.true:
        return value
    if holds == sympy.false:
        return rest
    raise NotExact
