"""Methods of solving an equation step by step, to be watched: they may fail, and then say why.

As taught: R. L. Burden and J. D. Faires 2011, Numerical Analysis, chapter 2.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.floats import float_function
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.numbers import decimal
from axispath.core.language.tree import Name
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.question import Question

MOST = 60  # iterates
FARTHEST = 1e12
SETTLED = 4e-16  # relative change below which an iterate counts as found
Function = Callable[[float], float]


class Method(StrEnum):
    """The methods that can be watched."""

    BISECTION = "bisection"
    NEWTON = "newton"
    SECANT = "secant"
    FIXED_POINT = "fixed-point"


@dataclass(frozen=True, slots=True)
class Step:
    """One row of the table of iterates.

    ``low`` and ``high`` are what the step was drawn from: a bracket, or the two places of a
    chord; at a tangent both are the place where it touches. ``error`` is how far the iterate may
    be off (bisection) or has moved.
    """

    x: float
    value: float
    error: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Run:
    """The iterates, whether they settled on a solution, and a sentence on how it ended."""

    steps: tuple[Step, ...]
    found: bool
    told: str


def run(question: Question, method: Method, start: float, second: float | None) -> Run:
    """Carry a method out from a start; bisection and secant take two.

    Raises EditRefused where the method cannot begin.
    """
    if not question.is_equation:
        raise EditRefused("These methods solve equations; this is an inequality.")
    name = question.unknown
    if method is Method.FIXED_POINT:
        return _fixed_point(question, start, name)
    f = _float(float_function(question.differences[0], question.unit))
    if method is Method.NEWTON:
        return _newton(f, BallFunction(question.differences[0], question.unit), start, name)
    if second is None or second == start:
        raise EditRefused("This method starts from two different places.")
    if method is Method.BISECTION:
        return _bisection(f, min(start, second), max(start, second), name)
    return _secant(f, start, second, name)


def _float(function: Callable[[np.ndarray], np.ndarray]) -> Function:
    return lambda x: float(function(np.array([x]))[0])


def _bisection(f: Function, low: float, high: float, name: str) -> Run:
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


def _newton(f: Function, balls: BallFunction, x: float, name: str) -> Run:
    steps: list[Step] = []
    before = x
    for _ in range(MOST):
        value, slope = f(x), _slope(balls, x)
        steps.append(Step(x, value, abs(x - before) if steps else math.inf, before, before))
        ended = _ended(steps, name)
        if ended is not None:
            return ended
        if not math.isfinite(slope):
            told = f"At {name} = {decimal(x)} there is no slope, so no tangent leads on."
            return Run(tuple(steps), False, told)
        if slope == 0:
            told = f"At {name} = {decimal(x)} the tangent is level and never meets the axis."
            return Run(tuple(steps), False, told)
        before, x = x, x - value / slope
    return Run(tuple(steps), False, _wandered(steps, name))


def _slope(balls: BallFunction, x: float) -> float:
    with precision(106):
        try:
            slope = balls.taylor(arb(x), 2)[1]
        except OutsideDomain:
            return math.nan
        return float(slope.mid()) if slope.is_finite() else math.nan


def _secant(f: Function, first: float, second: float, name: str) -> Run:
    steps: list[Step] = []
    a, b = first, second
    below = f(a)
    steps.append(Step(a, below, math.inf, a, a))
    for _ in range(MOST):
        value = f(b)
        steps.append(Step(b, value, abs(b - a), a, b))
        ended = _ended(steps, name)
        if ended is not None:
            return ended
        if not math.isfinite(below):
            told = f"There is no value at {name} = {decimal(a)}."
            return Run(tuple(steps), False, told)
        if value == below:
            told = f"Between {decimal(a)} and {decimal(b)} the chord is level; it leads nowhere."
            return Run(tuple(steps), False, told)
        a, b, below = b, b - value * (b - a) / (value - below), value
    return Run(tuple(steps), False, _wandered(steps, name))


def _fixed_point(question: Question, x: float, name: str) -> Run:
    left, right = question.comparison.operands
    if left == Name(name):
        side = question.sides[1]
    elif right == Name(name):
        side = question.sides[0]
    else:
        raise EditRefused(
            f"Fixed-point iteration needs {name} alone on one side, such as {name} = cos {name}."
        )
    g = _float(float_function(side, question.unit))
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
    return Run(tuple(steps), False, _wandered(steps, name))


def _ended(steps: list[Step], name: str) -> Run | None:
    """The end of an iteration that has settled, left the domain or run away."""
    last = steps[-1]
    if not math.isfinite(last.x) or abs(last.x) > FARTHEST:
        return Run(tuple(steps), False, "The iterates run away: each is farther out.")
    if not math.isfinite(last.value):
        told = f"The step leaves the domain: there is no value at {name} = {decimal(last.x)}."
        return Run(tuple(steps), False, told)
    settled = len(steps) > 1 and last.error <= SETTLED * max(abs(last.x), 1e-300)
    if last.value == 0 or settled:
        if settled and len(steps) > 2 and abs(last.value) > abs(steps[0].value):
            return Run(tuple(steps), False, "The iterates settle where there is no solution.")
        return Run(tuple(steps), True, f"The iterates settle on {name} = {decimal(last.x, 12)}.")
    return None


def _wandered(steps: list[Step], name: str) -> str:
    late = [step.x for step in steps[-8:]]
    first = steps[-1].error
    cycle = next(
        (k for k in range(2, 5) if abs(late[-1] - late[-1 - k]) <= 1e-9 * (1 + abs(late[-1]))), 0
    )
    if cycle and first > 1e-6:
        shown = ", ".join(decimal(x) for x in late[-cycle:])
        return f"The iterates go round in a circle: {shown}, and again."
    if abs(steps[-1].value) <= 1e-9:
        near = decimal(steps[-1].x)
        return f"After {len(steps)} steps {name} is near {near}, but has not settled: it is slow."
    return f"After {len(steps)} steps the iterates have not settled."
