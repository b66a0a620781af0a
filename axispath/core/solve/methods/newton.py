"""Newton's method: along the tangent to the axis."""

from __future__ import annotations

import math

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.numbers import decimal
from axispath.core.solve.methods.way import (
    MOST,
    Line,
    Run,
    Step,
    Way,
    difference_of,
    down_slope,
    ended,
    next_after,
    wandered,
)
from axispath.core.solve.question import Question


def _run(question: Question, x: float, second: float | None) -> Run:
    f, name = difference_of(question), question.unknown
    balls = BallFunction(question.differences[0], question.unit)
    steps: list[Step] = []
    before = x
    for _ in range(MOST):
        value, slope = f(x), _slope(balls, x)
        moved = abs(x - before) if steps else math.inf
        steps.append(Step(x, value, moved, before, before, slope))
        end = ended(steps, name)
        if end is not None:
            return end
        if not math.isfinite(slope):
            told = f"At {name} = {decimal(x)} there is no slope, so no tangent leads on."
            return Run(tuple(steps), False, told)
        if slope == 0:
            told = f"At {name} = {decimal(x)} the tangent is level and never meets the axis."
            return Run(tuple(steps), False, told)
        before, x = x, x - value / slope
    return Run(tuple(steps), False, wandered(steps, name))


def _slope(balls: BallFunction, x: float) -> float:
    with precision(106):
        try:
            slope = balls.taylor(arb(x), 2)[1]
        except OutsideDomain:
            return math.nan
        return float(slope.mid()) if slope.is_finite() else math.nan


def _drawn(found: Run, k: int) -> list[Line]:
    """Up to the curve, and down its tangent."""
    step, after = found.steps[k], next_after(found, k)
    lines: list[Line] = [[(step.x, 0.0), (step.x, step.value)]]
    if after is not None:
        lines.append([(step.x, step.value), (after, 0.0)])
    return lines


def _worked(question: Question, found: Run, k: int) -> str:
    step, after = found.steps[k], next_after(found, k)
    return "" if after is None else down_slope(step, step.slope, after)


RULE = "next = x − (left − right) / its slope"
NEWTON = Way("newton", 1, _run, _drawn, _worked, RULE)
