"""A function without its exponential factor, which has no zeros and may be immense or tiny.

e^(−10⁶(x − 0.3)²) is so small away from 0.3 that no ball can tell it from 0; but where
f = e^E g, all of f, f′, f″ … have the signs of the Taylor coefficients of g e^(E − E(x)) at x.
Where f = c + e^E g with a constant c, that still holds for f′, f″ …
"""

from __future__ import annotations

from fractions import Fraction

from flint import arb, arb_series

from axispath.core.arithmetic.balls import BallFunction
from axispath.core.arithmetic.program import Program, Step, varying_steps
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.search.specialise import specialised

_ONE = Fraction(1)


class ScaledFunction:
    """Taylor coefficients of a function up to one positive factor at each x."""

    def __init__(self, plan: Program, unit: AngleUnit) -> None:
        self.true = BallFunction(plan, unit)
        varying, negative, self._offset = _without_constants(plan)
        split = _split(plan, varying, negative)
        self._rest = BallFunction(split[0], unit) if split else None
        self._growth = BallFunction(split[1], unit) if split else None

    @property
    def scaled(self) -> bool:
        """Whether a factor is left out."""
        return self._growth is not None

    def from_level(self, level: int, x: arb, length: int) -> list[arb]:
        """Taylor coefficients that belong together from a level on."""
        if level == 0 and self._offset:
            return self.true.taylor(x, length)
        return self.taylor(x, length)

    @property
    def plan(self) -> Program:
        """The program of the function itself."""
        return self.true.plan

    def taylor(self, x: arb, length: int) -> list[arb]:
        """Enclosures of the coefficients, each with its true sign and true zeros."""
        if self._rest is None or self._growth is None:
            return self.true.taylor(x, length)
        rest = self._rest.taylor(x, length)
        growth = self._growth.taylor(x, length)
        if length == 1:
            return [self.true.value(x)] if self._offset else rest
        change = arb_series([arb(0), *growth[1:]], length).exp()
        product = arb_series(rest, length) * change
        if not growth[0].is_finite():
            return [arb.nan()] * length
        first = self.true.value(x) if self._offset else product[0]
        return [first, *(product[k] for k in range(1, length))]

    def value(self, x: arb) -> arb:
        """An enclosure with the sign of the value."""
        if self._rest is None or self._growth is None or self._offset:
            return self.true.value(x)
        if not self._growth.value(x).is_finite():
            return arb.nan()
        return self._rest.value(x)


def _without_constants(plan: Program) -> tuple[int, bool, bool]:
    """The part of a sum that varies, whether it is negated, and whether anything else is there."""
    varying = varying_steps(plan)
    index, negative, offset = plan.result, False, False
    while True:
        step = plan.steps[index]
        inside = [k for k, part in enumerate(step.operands) if part in varying]
        if step.operation == "negate":
            negative = not negative
        elif step.operation in ("add", "subtract") and len(inside) == 1:
            offset = True
            negative ^= step.operation == "subtract" and inside[0] == 1
        else:
            return index, negative, offset
        index = step.operands[inside[0]] if inside else step.operands[0]


def _split(plan: Program, result: int, negative: bool) -> tuple[Program, Program] | None:
    """A step as g and E in g e^E; None where there is no such factor."""
    rest: list[int] = []
    below: list[int] = []
    growths: list[tuple[int, int | None, int]] = []
    pending = [(result, 1)]
    varying = varying_steps(plan)
    while pending:
        index, sign = pending.pop()
        step = plan.steps[index]
        if step.operation == "multiply":
            pending += [(part, sign) for part in step.operands]
        elif step.operation == "negate":
            negative = not negative
            pending.append((step.operands[0], sign))
        elif step.operation == "divide":
            pending += [(step.operands[0], sign), (step.operands[1], -sign)]
        elif step.operation == "apply" and step.detail == "exp" and index in varying:
            growths.append((step.operands[0], None, sign))
        elif step.operation == "power" and _grows(plan, step, varying):
            growths.append((step.operands[1], step.operands[0], sign))
        else:
            (rest if sign > 0 else below).append(index)
    if not growths:
        return None
    return _product(plan, rest, below, negative), _exponent(plan, growths)


def _grows(plan: Program, step: Step, varying: set[int]) -> bool:
    """Whether a power is e or another positive number to the power of something that varies."""
    base, exponent = step.operands
    stated = plan.steps[base]
    positive = stated.operation == "constant" or (
        stated.operation == "number" and stated.detail > 0
    )
    return positive and exponent in varying


def _product(plan: Program, above: list[int], below: list[int], negative: bool) -> Program:
    steps = list(plan.steps)
    steps.append(Step("number", (), -_ONE if negative else _ONE))
    total = len(steps) - 1
    for operation, parts in (("multiply", above), ("divide", below)):
        for part in parts:
            steps.append(Step(operation, (total, part)))
            total = len(steps) - 1
    return _trimmed(Program(plan.inputs, tuple(steps), total))


def _exponent(plan: Program, growths: list[tuple[int, int | None, int]]) -> Program:
    """The sum of the exponents, each with its base (None for e) and its sign."""
    steps = list(plan.steps)
    steps.append(Step("number", (), Fraction(0)))
    total = len(steps) - 1
    for index, base, sign in growths:
        if base is not None:
            steps.append(Step("apply", (base,), "ln"))
            steps.append(Step("multiply", (index, len(steps) - 1)))
            index = len(steps) - 1
        steps.append(Step("add" if sign > 0 else "subtract", (total, index)))
        total = len(steps) - 1
    return _trimmed(Program(plan.inputs, tuple(steps), total))


def _trimmed(plan: Program) -> Program:
    return specialised(plan, {}, plan.result)
