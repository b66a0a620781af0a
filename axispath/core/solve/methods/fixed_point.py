"""Fixed-point iteration: from the curve to the diagonal and back."""

from __future__ import annotations

import math

from axispath.core import catalogue
from axispath.core.arithmetic.floats import float_function
from axispath.core.language.numbers import decimal
from axispath.core.language.plain import plain
from axispath.core.language.rebuild import substituted
from axispath.core.language.tree import Expression, Name, Negation, Number
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.methods.way import (
    FARTHEST,
    FILLED,
    MOST,
    REACHED,
    SETTLED,
    Line,
    Run,
    Step,
    Way,
    of_one,
    wandered,
)
from axispath.core.solve.question import Question


def _run(question: Question, x: float, second: float | None) -> Run:
    name = question.unknown
    left, right = question.comparison.operands
    if left == Name(name):
        side = question.sides[1]
    elif right == Name(name):
        side = question.sides[0]
    else:
        raise EditRefused(
            f"Fixed-point iteration needs {name} alone on one side, such as {name} = cos {name}."
        )
    g = of_one(float_function(side, question.unit))
    steps: list[Step] = []
    before = x
    for _ in range(MOST):
        value = g(x)
        steps.append(Step(x, value, abs(x - before) if steps else math.inf, before, x))
        if not math.isfinite(value):
            told = f"The next step leaves the domain: no value at {name} = {decimal(x)}."
            return Run(tuple(steps), False, told)
        if abs(value - x) <= SETTLED * max(abs(x), 1.0):
            told = f"The iterates settle on {name} = {decimal(x, 12)}."
            return Run(tuple(steps), True, told)
        if abs(value) > FARTHEST:
            return Run(tuple(steps), False, "The iterates run away: each is farther out.")
        before, x = x, value
    return Run(tuple(steps), False, wandered(steps, name))


def _drawn(found: Run, k: int) -> list[Line]:
    """From the diagonal to the curve and back to the diagonal."""
    step = found.steps[k]
    return [[(step.x, step.x), (step.x, step.value), (step.value, step.value)]]


def _iterated(question: Question) -> Expression:
    """The side that gives the next number."""
    left, right = question.comparison.operands
    return right if left == Name(question.unknown) else left


def _lanes(question: Question) -> list[tuple[str, str]]:
    """The side that is iterated, and the diagonal."""
    side = _iterated(question)
    return [("step", plain(side, catalogue.VOCABULARY)), ("diagonal", question.unknown)]


def _worked(question: Question, found: Run, k: int) -> str:
    step = found.steps[k]
    number = Number(f"{abs(step.x):.{FILLED}g}")
    filled = substituted(
        _iterated(question), {question.unknown: Negation(number) if step.x < 0 else number}
    )
    value = decimal(step.value, REACHED) if math.isfinite(step.value) else "no value"
    return f"{plain(filled, catalogue.VOCABULARY)} = {value}"


RULE = "next = the other side at x"
FIXED_POINT = Way("fixed-point", 1, _run, _drawn, _worked, RULE, _lanes, value="next")
