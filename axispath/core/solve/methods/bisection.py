"""Bisection: a bracket with a change of sign, halved."""

from __future__ import annotations

import math

from axispath.core.language.numbers import decimal
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.methods.way import (
    FILLED,
    MOST,
    REACHED,
    Line,
    Run,
    Step,
    Way,
    difference_of,
    next_after,
    shown,
    two,
)
from axispath.core.solve.question import Question


def _run(question: Question, start: float, second: float | None) -> Run:
    low, high = sorted(two(start, second))
    f, name = difference_of(question), question.unknown
    below, above = f(low), f(high)
    for x, y in ((low, below), (high, above)):
        if not math.isfinite(y):
            raise EditRefused(f"There is no value at {name} = {decimal(x)}: choose another start.")
    if below * above > 0:
        raise EditRefused(
            "Bisection needs two starts between which the difference of the sides changes sign; "
            f"at {decimal(low)} and {decimal(high)} it has the same sign."
        )
    steps = []
    for _ in range(MOST):
        middle = low + (high - low) / 2
        value = f(middle)
        steps.append(Step(middle, value, (high - low) / 2, low, high))
        if value == 0 or middle in (low, high):
            break
        if not math.isfinite(value):
            return Run(tuple(steps), False, f"There is no value at {name} = {decimal(middle)}.")
        if (value > 0) == (above > 0):
            high = middle
        else:
            low = middle
    last = steps[-1]
    if len(steps) > 2 and abs(last.value) > abs(steps[0].value):
        told = f"The sign changes at {name} = {decimal(last.x)}, but there is a jump or a pole."
        return Run(tuple(steps), False, told)
    told = f"The bracket halves at every step: {name} = {decimal(last.x, 12)}."
    return Run(tuple(steps), True, told)


def _drawn(found: Run, k: int) -> list[Line]:
    """The two ends of the bracket."""
    step = found.steps[k]
    return [[(x, -math.inf), (x, math.inf)] for x in (step.low, step.high)]


def _worked(question: Question, found: Run, k: int) -> str:
    step, after = found.steps[k], next_after(found, k)
    middle = f"({decimal(step.low, FILLED)} + {shown(step.high)}) / 2 = {decimal(step.x, REACHED)}"
    if after is None:
        return middle
    sign = "above" if step.value > 0 else "below"
    low, high = found.steps[k + 1].low, found.steps[k + 1].high
    kept = f"between {decimal(low, FILLED)} and {decimal(high, FILLED)}"
    return f"{middle}; there it is {sign} 0, so the sign changes {kept}"


RULE = "next = middle of the half in which the sign of left − right changes"
BISECTION = Way(
    "bisection", 2, _run, _drawn, _worked, RULE, error="error below", bracketed=True, alone=True
)
