"""Float64 arithmetic with NumPy: NaN means undefined, infinity means too large to hold."""

from __future__ import annotations

import operator
from collections.abc import Callable
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axispath.core import catalogue
from axispath.core.arithmetic.balls import quadrature
from axispath.core.arithmetic.folding import folded
from axispath.core.arithmetic.program import Bound, Operation, Program, Step, bind
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.powers import odd_root

Values = Any
WHOLE = 8192  # places that are computed in one go
PIECE = 1024  # and of more of them, how many at a time
FloatFunction = Callable[[NDArray[np.float64]], NDArray[np.float64]]


def float_function(plan: Program, unit: AngleUnit) -> FloatFunction:
    """A program of one input as a function of float64 arrays of any shape."""
    bound = bound_to_floats(plan, unit)

    def piece(x: NDArray[np.float64]) -> NDArray[np.float64]:
        with np.errstate(all="ignore"):
            result = np.asarray(bound.run(x), dtype=np.float64)
        return result if result.shape == x.shape else np.full(x.shape, result)

    def function(x: NDArray[np.float64]) -> NDArray[np.float64]:
        if x.ndim != 1 or x.size <= WHOLE:
            return piece(x)
        # The clock is looked at between steps, so that no step may take long by itself.
        return np.concatenate([piece(x[k : k + PIECE]) for k in range(0, x.size, PIECE)])

    return function


def float_items(plan: Program, unit: AngleUnit) -> list[float]:
    """The values of a list without inputs."""
    registers = bound_to_floats(plan, unit).run_all()
    return [float(registers[item]) for item in plan.items or ()]


def float_value(plan: Program, unit: AngleUnit, *inputs: float) -> float:
    """The result for numbers as inputs."""
    with np.errstate(all="ignore"):
        return float(bound_to_floats(plan, unit).run(*[np.float64(value) for value in inputs]))


def has_infinite_constant(plan: Program, unit: AngleUnit) -> bool:
    """Whether a part that depends on no input is too large to hold."""
    constants = bound_to_floats(plan, unit).registers
    return any(value is not None and bool(np.isinf(value)) for value in constants)


def bound_to_floats(plan: Program, unit: AngleUnit) -> Bound:
    """A program bound to this arithmetic."""
    with np.errstate(all="ignore"):
        return bind(folded(plan, unit), lambda step: operation(step, unit))


def operation(step: Step, unit: AngleUnit) -> Operation:
    """How this arithmetic carries out a step."""
    detail = step.detail
    match step.operation:
        case "number":
            return lambda: _nearest(detail)
        case "constant":
            return lambda: np.float64(catalogue.CONSTANTS[detail].value)
        case "whole power":
            return lambda base: _whole_power(base, detail)
        case "root power":
            return lambda base: _root_power(base, detail)
        case "undefined":
            return lambda: np.float64(np.nan)
        case "choose":
            return lambda left, right, value, rest: _choose(detail, left, right, value, rest)
        case "restrict":
            return lambda value, x, end: np.where(_HOLDS[detail[0]](x, end), value, np.nan)
        case "apply":
            return _applied(catalogue.ENTRIES[detail], unit)
        case "integral":
            return quadrature(detail, unit).floats
    return _OPERATIONS[step.operation]


def _applied(entry: catalogue.Entry, unit: AngleUnit) -> Operation:
    if unit is AngleUnit.RADIAN or entry.angle is catalogue.Angle.NONE:
        return entry.value
    if entry.angle is catalogue.Angle.RESULT:
        return lambda *values: np.rad2deg(entry.value(*values))
    assert entry.value_in_degrees is not None
    return entry.value_in_degrees


def _nearest(value: Fraction) -> np.float64:
    try:
        return np.float64(float(value))
    except OverflowError:
        return np.float64(np.inf if value > 0 else -np.inf)


def _divide(top: Values, bottom: Values) -> Values:
    return np.divide(top, np.where(np.equal(bottom, 0), np.nan, bottom))


def _power(base: Values, exponent: Values) -> Values:
    result = np.power(base, exponent)
    return np.where(np.equal(base, 0) & ~np.greater(exponent, 0), np.nan, result)


def _whole_power(base: Values, n: int) -> Values:
    if n == 0:
        return np.where(np.isnan(base), np.nan, 1.0)
    if n == 2:
        return base * base
    if n < 0:
        # Not one over the power, which may be too small to hold where this is not too large.
        return np.where(np.equal(base, 0), np.nan, np.power(base, float(n)))
    return base if n == 1 else np.power(base, float(n))


def _root_power(base: Values, exponent: Fraction) -> Values:
    return _whole_power(odd_root(base, exponent.denominator), exponent.numerator)


def _choose(sign: str, left: Values, right: Values, value: Values, rest: Values) -> Values:
    chosen = np.where(COMPARED[sign](left, right), value, rest)
    return np.where(np.isnan(left) | np.isnan(right), np.nan, chosen)


COMPARED = {
    "<": np.less,
    "<=": np.less_equal,
    ">": np.greater,
    ">=": np.greater_equal,
    "=": np.equal,
    "!=": np.not_equal,
}
_HOLDS = {
    "above": np.greater,
    "at or above": np.greater_equal,
    "below": np.less,
    "at or below": np.less_equal,
}
_OPERATIONS: dict[str, Operation] = {
    "add": operator.add,
    "subtract": operator.sub,
    "multiply": operator.mul,
    "negate": operator.neg,
    "divide": _divide,
    "power": _power,
    "given": lambda value, other: np.where(np.isnan(other), np.nan, value),
}
