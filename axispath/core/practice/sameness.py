"""Whether two formulas are the same function, and how far apart they are where not."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from flint import arb

from axispath.core.arithmetic.identity import lowest_terms
from axispath.core.arithmetic.normal import flat_in, normal_form
from axispath.core.arithmetic.program import Program, Step
from axispath.core.practice.seen import value_at
from axispath.core.sheet.resolve import ResolvedLane

SAMPLES = 401
SIMPLE = (1.0, 2.0, 0.0, -1.0, 3.0, 0.5, -2.0, 5.0, 10.0)


@dataclass(frozen=True, slots=True)
class Apart:
    """How two functions compare: ``same`` is proven, or None where it could not be settled.

    The same are formulas that give the same wherever both have a value, by the rules of algebra.

    ``x`` is a place at which they surely differ, with their values; ``most`` is the largest
    distance that was seen between two samples in a view, in its units; NaN where only one has a
    value somewhere.
    """

    same: bool | None
    x: float = math.nan
    one: float = math.nan
    other: float = math.nan
    most: float = 0.0


def compared(one: ResolvedLane, other: ResolvedLane, left: float, right: float) -> Apart:
    """Two functions of x as they are here, each with its own names."""
    most = _most(one, other, left, right)
    place = _where_different(one, other, left, right)
    if place is not None:
        return Apart(False, *place, most=most)
    return Apart(True if _identical(one, other) else None, most=most)


def _most(one: ResolvedLane, other: ResolvedLane, left: float, right: float) -> float:
    x = np.linspace(left, right, SAMPLES)
    values = [lane.heights(x) for lane in (one, other)]
    both = [np.isfinite(y) for y in values]
    if not np.array_equal(*both):
        return math.nan
    apart = np.abs(values[0] - values[1])[both[0]]
    return float(apart.max()) if len(apart) else 0.0


def _where_different(
    one: ResolvedLane, other: ResolvedLane, left: float, right: float
) -> tuple[float, float, float] | None:
    """A place at which enclosures of the two values have nothing in common, or one has no value."""
    places = [x for x in SIMPLE if left <= x <= right]
    places += [float(x) for x in np.linspace(left, right, 23)[1:-1]]
    for x in places:
        values = [value_at(lane, arb(x)) for lane in (one, other)]
        first, second = values
        if first is not None and second is not None:
            if not first.overlaps(second):
                return x, float(first.mid()), float(second.mid())
            continue
        if (first is None) != (second is None):
            # An enclosure that is missing may only be unknown: floats have to have none either.
            at = np.array([x])
            missing, there = (one, second) if first is None else (other, first)
            if there is not None and math.isnan(missing.heights(at)[0]):
                known = [math.nan if value is None else float(value.mid()) for value in values]
                return x, known[0], known[1]
    return None


def _identical(one: ResolvedLane, other: ResolvedLane) -> bool:
    """Whether the difference is 0 by the rules of algebra, and the domains are the same."""
    ends = zip(one.ends, other.ends, strict=True)
    for first, second in ends:
        if (first is None) != (second is None):
            return False
        if (
            first is not None
            and second is not None
            and not (first.ball.overlaps(second.ball) and first.closed == second.closed)
        ):
            return False
    apart = difference_of_programs(one.program, other.program)
    terms = lowest_terms(apart)
    if terms is not None:
        return terms[0].degree() < 0
    form = normal_form(apart, one.unit)
    return form is not None and 0 in flat_in(form)


def difference_of_programs(one: Program, other: Program) -> Program:
    """one − other of one input: the same name may stand for different numbers in the two."""
    shift = len(one.steps) - 1
    steps = list(one.steps)
    for step in other.steps[1:]:
        operands = tuple(0 if k == 0 else k + shift for k in step.operands)
        steps.append(Step(step.operation, operands, step.detail))
    second = other.result + shift if other.result else 0
    steps.append(Step("subtract", (one.result, second)))
    return Program(1, tuple(steps), len(steps) - 1)
