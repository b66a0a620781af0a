"""What every method is, and what methods have in common."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from axispath.core import catalogue
from axispath.core.arithmetic.floats import float_function
from axispath.core.language.numbers import decimal
from axispath.core.language.plain import plain
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.question import Question

MOST = 60  # iterates
FARTHEST = 1e12
FILLED = 8  # digits of the numbers that are filled into a formula
REACHED = 10  # digits of what comes out of it
SETTLED = 4e-16  # relative change below which an iterate counts as found
Function = Callable[[float], float]
Line = list[tuple[float, float]]
"""Points of the axes; an infinite height is the edge of the plot."""


@dataclass(frozen=True, slots=True)
class Step:
    """One row of the table of iterates.

    ``low`` and ``high`` are what the step was drawn from: a bracket, or the two places of a
    chord; at a tangent both are the place where it touches. ``error`` is how far the iterate may
    be off (bisection) or has moved. ``slope`` is that of a tangent.
    """

    x: float
    value: float
    error: float
    low: float
    high: float
    slope: float = math.nan


@dataclass(frozen=True, slots=True)
class Run:
    """The iterates, whether they settled on a solution, and a sentence on how it ended."""

    steps: tuple[Step, ...]
    found: bool
    told: str


def difference_lane(question: Question) -> list[tuple[str, str]]:
    """The curve whose zero is looked for: the difference of the sides."""
    left, right = question.comparison.operands
    shown = [plain(side, catalogue.VOCABULARY) for side in (left, right)]
    return [("difference", f"{shown[0]} - ({shown[1]})")]


@dataclass(frozen=True, slots=True)
class Way:
    """A method that can be watched.

    ``run`` carries it out from one start or from two (``starts``), and raises EditRefused where
    it cannot begin; ``drawn`` gives the lines of a step, by its number; ``rule`` is how it goes on
    and ``worked`` the same with the numbers of a step filled in; ``lanes`` what it works on, as
    names and formulas. ``value`` and ``error`` head the columns of its table, and where
    ``bracketed`` each step lies in a bracket; ``alone`` are steps drawn without those before.
    """

    name: str
    starts: int
    run: Callable[[Question, float, float | None], Run]
    drawn: Callable[[Run, int], list[Line]]
    worked: Callable[[Question, Run, int], str]
    rule: str
    lanes: Callable[[Question], list[tuple[str, str]]] = difference_lane
    value: str = "left − right"
    error: str = "moved by"
    bracketed: bool = False
    alone: bool = False


def difference_of(question: Question) -> Function:
    """The difference of the sides as a function of one number."""
    return of_one(float_function(question.differences[0], question.unit))


def of_one(function: Callable[[np.ndarray], np.ndarray]) -> Function:
    """A function of arrays as one of numbers."""
    return lambda x: float(function(np.array([x]))[0])


def two(start: float, second: float | None) -> tuple[float, float]:
    """Two different starts. Raises EditRefused."""
    if second is None or second == start:
        raise EditRefused("This method starts from two different places.")
    return start, second


def shown(value: float) -> str:
    """A number as it stands in a formula that is worked out: in brackets where it has a sign."""
    text = decimal(value, FILLED)
    return f"({text})" if value < 0 else text


def down_slope(step: Step, slope: float, after: float) -> str:
    """From a place to the next one along a line with this slope, worked out."""
    quotient = f"{shown(step.value)} / {shown(slope)}"
    return f"{decimal(step.x, FILLED)} − {quotient} = {decimal(after, REACHED)}"


def next_after(found: Run, k: int) -> float | None:
    """The iterate after a step, where there is one."""
    return found.steps[k + 1].x if k + 1 < len(found.steps) else None


def ended(steps: list[Step], name: str) -> Run | None:
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


def wandered(steps: list[Step], name: str) -> str:
    """How an iteration went that did not end."""
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
