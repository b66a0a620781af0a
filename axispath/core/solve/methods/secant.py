"""The secant method: along the chord to the axis."""

from __future__ import annotations

import math

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
    two,
    wandered,
)
from axispath.core.solve.question import Question


def _run(question: Question, start: float, second: float | None) -> Run:
    a, b = two(start, second)
    f, name = difference_of(question), question.unknown
    steps: list[Step] = []
    below = f(a)
    steps.append(Step(a, below, math.inf, a, a))
    for _ in range(MOST):
        value = f(b)
        steps.append(Step(b, value, abs(b - a), a, b))
        end = ended(steps, name)
        if end is not None:
            return end
        if not math.isfinite(below):
            told = f"There is no value at {name} = {decimal(a)}."
            return Run(tuple(steps), False, told)
        if value == below:
            told = f"Between {decimal(a)} and {decimal(b)} the chord is level; it leads nowhere."
            return Run(tuple(steps), False, told)
        a, b, below = b, b - value * (b - a) / (value - below), value
    return Run(tuple(steps), False, wandered(steps, name))


def _drawn(found: Run, k: int) -> list[Line]:
    """Up to the curve, and along the chord through the last two points."""
    step, after = found.steps[k], next_after(found, k)
    lines: list[Line] = [[(step.x, 0.0), (step.x, step.value)]]
    if after is not None and k > 0:
        before = found.steps[k - 1]
        lines.append([(before.x, before.value), (step.x, step.value), (after, 0.0)])
    return lines


def _worked(question: Question, found: Run, k: int) -> str:
    step, after = found.steps[k], next_after(found, k)
    if after is None or not k:
        return ""
    before = found.steps[k - 1]
    slope = (step.value - before.value) / (step.x - before.x)
    return down_slope(step, slope, after)


RULE = "next = x − (left − right) / slope of the chord"
SECANT = Way("secant", 2, _run, _drawn, _worked, RULE)
