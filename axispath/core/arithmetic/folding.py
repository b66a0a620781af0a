"""Parts of a program that depend on no input, written as the fractions that they are."""

from __future__ import annotations

from dataclasses import replace

from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.rationals import Exact, Inexact, carried_out
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.memory import remembered


@remembered(1024)
def folded(plan: Program, unit: AngleUnit) -> Program:
    """The program with every constant part that is a fraction written as one.

    So sin(π) is 0 and not 1.2·10⁻¹⁶, and a division by it has no value.
    """
    varying = set(range(plan.inputs))
    if plan.inputs == len(plan.steps):
        return plan
    constants: list[Exact | None] = [None] * plan.inputs
    steps = list(plan.steps)
    for index, step in enumerate(plan.steps[plan.inputs :], plan.inputs):
        if not varying.isdisjoint(step.operands):
            varying.add(index)
            constants.append(None)
            continue
        value, told = simpler(step, [constants[i] for i in step.operands], unit)
        constants.append(value)
        steps[index] = told
    return replace(plan, steps=tuple(steps))


def simpler(step: Step, given: list[Exact | None], unit: AngleUnit) -> tuple[Exact | None, Step]:
    """The exact value of a constant step, None where it has none of this form, and the step as
    plainly as it can be told: the fraction that it is, or that it has no value.
    """
    try:
        value = carried_out(step, given, unit)
    except Inexact:
        return None, step
    except ZeroDivisionError:
        return None, Step("undefined")
    if value.turns or step.operation == "number":
        return value, step
    return value, Step("number", (), value.rational)
