"""Rigorous enclosures with Arb's balls and power series of balls.

A box of x is carried as a short power series, so that one run encloses a function and its
first derivatives over the whole box.

Work happens inside ``precision``, which sets the bits carried.
"""

from __future__ import annotations

import operator
from collections.abc import Callable
from dataclasses import replace
from functools import partial

from flint import arb, arb_series, ctx, fmpq

from axispath.core import catalogue
from axispath.core.arithmetic.folding import folded
from axispath.core.arithmetic.program import Bound, Operation, Program, Step, Work, bind
from axispath.core.arithmetic.quadrature import Quadrature
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import (
    LOCK,
    MAX_ORDER,
    NAN,
    Ball,
    OutsideDomain,
    divide,
    head,
    only_value,
    precision,
    undetermined,
    value_power,
    with_value,
)
from axispath.core.catalogue.powers import logarithm_ball, odd_root_ball
from axispath.core.memory import remembered

DOUBLE = 53


def box(low: arb | float, high: arb | float) -> arb:
    """The smallest ball around both ends; slightly wider than the interval."""
    return arb(low).union(arb(high))


def nearest(ball: arb) -> float:
    """The nearest float64 to the middle of a finite ball, or 0 where nothing speaks against it."""
    return 0.0 if ball.contains(0) else float(ball.mid())


class BallFunction:
    """A program of one input as a function of boxes, at any precision."""

    def __init__(self, plan: Program, unit: AngleUnit) -> None:
        self.plan = folded(plan, unit)
        self.unit = unit
        self._bound: dict[int, Bound | None] = {}

    def _at_current_precision(self) -> Bound:
        bits = ctx.prec
        if bits not in self._bound:
            try:
                made = bind(self.plan, operations(self.plan, self.unit))
                self._bound[bits] = replace(made, work=tuple(map(_plainer(made), made.work)))
            except OutsideDomain:
                self._bound[bits] = None
        bound = self._bound[bits]
        if bound is None:
            raise OutsideDomain
        return bound

    def value(self, x: arb) -> arb:
        """An enclosure of the value on ``x``. Raises OutsideDomain where surely undefined."""
        with LOCK:
            return head(_defined(self._at_current_precision().run(x)))

    def taylor(self, x: arb, length: int) -> list[arb]:
        """Enclosures of f, f', f''/2!, … over ``x``, as many as ``length``, at most 8."""
        assert 1 <= length <= MAX_ORDER
        with LOCK:
            result = _defined(self._at_current_precision().run(arb_series([x, arb(1)], length)))
        if isinstance(result, arb):
            return [result] + [arb(0)] * (length - 1)
        return [result[k] for k in range(length)]

    def series(self, x: arb, length: int) -> Ball:
        """The power series over ``x``, or one number where it is constant."""
        return self.along(arb_series([x, arb(1)], length))

    def along(self, x: arb_series) -> Ball:
        """The function of a power series. Raises OutsideDomain where surely undefined."""
        with LOCK:
            return _defined(self._at_current_precision().run(x))


@remembered(64)
def quadrature(plan: Program, unit: AngleUnit) -> Quadrature:
    """The integrals of a program, with all cells that were found before."""
    return Quadrature(BallFunction(plan, unit))


def _plainer(bound: Bound) -> Callable[[Work], Work]:
    """A product with a constant, or a quotient by one, needs no look at what may be undefined."""

    def is_plain(index: int) -> bool:
        value = bound.registers[index]
        return isinstance(value, arb) and value.is_finite() and not value.contains(0)

    def plainer(work: Work) -> Work:
        index, carry_out, first, second, operands = work
        if carry_out is _multiply and (is_plain(first) or is_plain(second)):
            return index, operator.mul, first, second, operands
        if carry_out is divide and is_plain(second):
            return index, operator.truediv, first, second, operands
        return work

    return plainer


def constant_ball(plan: Program, unit: AngleUnit) -> arb:
    """The value of a program without inputs; NaN where it has none."""
    plan = folded(plan, unit)
    try:
        result = head(_defined(bind(plan, operations(plan, unit)).run()))
    except OutsideDomain:
        return NAN
    return result


def operations(plan: Program, unit: AngleUnit) -> Callable[[Step], Operation]:
    """The operations of a program; where there are cases, a part may fail without the whole."""
    plain = partial(operation, unit=unit)
    return (lambda step: _lenient(step, plain(step))) if plan.chooses else plain


OUTSIDE = object()  # stands for a part that is surely undefined, until a case leaves it out


def _lenient(step: Step, carry_out: Operation) -> Operation:
    def attempt(*operands: Ball) -> Ball | object:
        needed = operands[:2] if step.operation == "choose" else operands
        if any(operand is OUTSIDE for operand in needed):
            return OUTSIDE
        try:
            result: Ball = carry_out(*operands)
        except OutsideDomain:
            return OUTSIDE
        return result

    return attempt


def _defined(result: Ball) -> Ball:
    if result is OUTSIDE:
        raise OutsideDomain
    return result


def _nowhere() -> Ball:
    raise OutsideDomain


def _choose(sign: str, left: Ball, right: Ball, value: Ball, rest: Ball) -> Ball:
    holds, fails = _COMPARED[sign]
    a, b = head(left), head(right)
    if holds(a, b) or fails(a, b):
        chosen = value if holds(a, b) else rest
        series = [part for part in (left, right) if isinstance(part, arb_series)]
        if chosen is OUTSIDE or not series or a > b or a < b:
            return chosen
        # At the border between two cases the one that holds tells the value, and no slope.
        return only_value(head(chosen), series[0])
    if value is OUTSIDE and rest is OUTSIDE:
        raise OutsideDomain
    shapes = (part for part in (left, right, value, rest) if isinstance(part, arb_series))
    return undetermined(next(shapes, NAN))


def _given(value: Ball, other: Ball) -> Ball:
    return value if head(other).is_finite() else undetermined(value)


def _surely_equal(a: arb, b: arb) -> bool:
    return bool(a.is_exact() and b.is_exact() and a == b)


def _surely_unequal(a: arb, b: arb) -> bool:
    return bool(a != b)


def operation(step: Step, unit: AngleUnit) -> Operation:
    """How this arithmetic carries out a step."""
    detail = step.detail
    match step.operation:
        case "number":
            return lambda: arb(fmpq(detail.numerator, detail.denominator))
        case "constant":
            return catalogue.CONSTANTS[detail].ball
        case "whole power":
            return lambda base: _whole_power(base, detail)
        case "root power":
            return lambda base: _whole_power(
                odd_root_ball(base, detail.denominator), detail.numerator
            )
        case "undefined":
            return _nowhere
        case "choose":
            return partial(_choose, detail)
        case "restrict":
            return partial(_restrict, detail[0])
        case "apply":
            return in_unit(catalogue.ENTRIES[detail], unit)
        case "integral":
            return quadrature(detail, unit).along
    return _OPERATIONS[step.operation]


def in_unit(entry: catalogue.Entry, unit: AngleUnit) -> Operation:
    """A function of the catalogue on balls, with angles in a unit."""
    if unit is AngleUnit.RADIAN or entry.angle is catalogue.Angle.NONE:
        return entry.ball
    if entry.angle is catalogue.Angle.RESULT:
        return lambda *values: entry.ball(*values) * (arb(180) / arb.pi())
    assert entry.ball_in_degrees is not None
    return entry.ball_in_degrees


def _multiply(left: Ball, right: Ball) -> Ball:
    """A product; 0 times something that may be undefined may be undefined.

    The library's series forget the NaN of one factor where the other is exactly 0.
    """
    product = left * right
    if head(product).is_zero() and not (head(left).is_finite() and head(right).is_finite()):
        return undetermined(product)
    return product


def _whole_power(base: Ball, n: int) -> Ball:
    if n == 0 and not head(base).is_finite():
        return undetermined(base)
    if n < 0:
        return divide(arb(1), _whole_power(base, -n))
    if isinstance(base, arb):
        return value_power(base, n)
    result = base**n
    if n > 1 and base[0].contains(0):
        return with_value(result, value_power(base[0], n))
    return result


def _power(base: Ball, exponent: Ball) -> Ball:
    if isinstance(exponent, arb) and exponent.is_exact() and exponent.is_integer():
        whole = exponent.unique_fmpz()
        if whole is not None and abs(whole) <= 10**9 and whole != 0:
            return _whole_power(base, int(whole))
    at = head(base)
    if at > 0:
        if isinstance(base, arb) and isinstance(exponent, arb):
            return base**exponent
        return (exponent * logarithm_ball(base)).exp()
    power = head(exponent)
    if at.is_zero() and power > 0:
        return arb(0) if isinstance(base, arb) else undetermined(base)
    if (at < 0 and isinstance(exponent, arb) and not exponent.contains_integer()) or (
        at.is_zero() and power <= 0
    ):
        raise OutsideDomain
    return undetermined(base if isinstance(exponent, arb) else exponent)


def _restrict(side: str, value: Ball, x: Ball, end: Ball) -> Ball:
    at, limit = head(x), head(end)
    inside, outside = _SIDES[side]
    if inside(at, limit):
        return value
    if outside(at, limit):
        raise OutsideDomain
    return undetermined(x if isinstance(value, arb) else value)


_COMPARED: dict[str, tuple[Callable[[arb, arb], bool], Callable[[arb, arb], bool]]] = {
    "<": (operator.lt, operator.ge),
    "<=": (operator.le, operator.gt),
    ">": (operator.gt, operator.le),
    ">=": (operator.ge, operator.lt),
    "=": (_surely_equal, _surely_unequal),
    "!=": (_surely_unequal, _surely_equal),
}
_SIDES = {
    "above": (operator.gt, operator.le),
    "at or above": (operator.ge, operator.lt),
    "below": (operator.lt, operator.ge),
    "at or below": (operator.le, operator.gt),
}
_OPERATIONS: dict[str, Operation] = {
    "add": operator.add,
    "subtract": operator.sub,
    "multiply": _multiply,
    "negate": operator.neg,
    "divide": divide,
    "power": _power,
    "given": _given,
}


__all__ = ["DOUBLE", "BallFunction", "box", "constant_ball", "nearest", "precision"]
