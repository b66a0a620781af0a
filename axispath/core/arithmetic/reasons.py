"""Why a formula has no value somewhere, in a sentence for a student."""

from __future__ import annotations

import math

import numpy as np

from axispath.core import catalogue
from axispath.core.arithmetic.floats import COMPARED, bound_to_floats
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.unit import AngleUnit


def why_undefined(plan: Program, unit: AngleUnit, *inputs: float) -> str | None:
    """Why the result has no value for these inputs; None where it has one."""
    with np.errstate(all="ignore"):
        bound = bound_to_floats(plan, unit)
        results = [float(r) for r in bound.run_all(*[np.float64(value) for value in inputs])]
    at = plan.result
    if math.isinf(results[at]):
        return "the value is too large to compute"
    if not math.isnan(results[at]):
        return None
    while (cause := _cause(plan.steps[at], results)) is not None:
        at = cause
    step = plan.steps[at]
    return _reason(step, [results[operand] for operand in step.operands])


def _cause(step: Step, results: list[float]) -> int | None:
    """The operand that is to blame for a step without a value; None if the step itself is."""
    operands = step.operands
    if step.operation == "choose":
        left, right, value, rest = operands
        if math.isnan(results[left]) or math.isnan(results[right]):
            return left if math.isnan(results[left]) else right
        holds = bool(COMPARED[step.detail](results[left], results[right]))
        return value if holds else rest
    return next((operand for operand in operands if math.isnan(results[operand])), None)


def _reason(step: Step, given: list[float]) -> str:
    if any(math.isinf(value) for value in given):
        return "a part of it is too large to compute"
    match step.operation:
        case "undefined":
            return "none of its cases holds"
        case "divide":
            return "it divides by 0"
        case "whole power" | "root power":
            return "0 has no negative power"
        case "power":
            if given[0] == 0:
                return "0 has no such power"
            return "a negative number has no such power"
        case "restrict":
            return f"outside the domain of {step.detail[1]}"
        case "integral":
            return "what is integrated has no value, or no bound, on the way"
    entry = catalogue.ENTRIES[step.detail]
    return f"{step.detail.replace('log_base', 'log')} is defined only where {entry.needs}"
