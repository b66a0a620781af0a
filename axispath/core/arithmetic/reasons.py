"""Why a formula has no value somewhere, in a sentence for a student."""

from __future__ import annotations

import math

import numpy as np

from axispath.core import catalogue
from axispath.core.arithmetic.floats import operation
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.unit import AngleUnit


def why_undefined(plan: Program, unit: AngleUnit, *inputs: float) -> str | None:
    """The first step that fails for these inputs; None where there is a value."""
    results: list[float] = [float(value) for value in inputs]
    with np.errstate(all="ignore"):
        for step in plan.steps[plan.inputs :]:
            given = [results[operand] for operand in step.operands]
            result = float(operation(step, unit)(*[np.float64(value) for value in given]))
            if math.isnan(result) and not any(math.isnan(value) for value in given):
                return _reason(step, given)
            results.append(result)
    return "the value is too large to compute" if math.isinf(results[plan.result]) else None


def _reason(step: Step, given: list[float]) -> str:
    if any(math.isinf(value) for value in given):
        return "a part of it is too large to compute"
    match step.operation:
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
    entry = catalogue.ENTRIES[step.detail]
    return f"{step.detail.replace('log_base', 'log')} is defined only where {entry.needs}"
