"""What a step of an unfinished program depends on, and its value where that is a fraction."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction

from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.rationals import exact_value


def needed_for(steps: Sequence[Step], value: int) -> list[int]:
    """The steps that a step depends on, itself last."""
    found, pending = set(), [value]
    while pending:
        index = pending.pop()
        if index not in found:
            found.add(index)
            pending += steps[index].operands
    return sorted(found)


def fixed(steps: Sequence[Step], value: int) -> Fraction | None:
    """The value of a step without inputs, where it is a fraction."""
    needed = needed_for(steps, value)
    place = {index: k for k, index in enumerate(needed)}
    short = tuple(
        Step(step.operation, tuple(place[part] for part in step.operands), step.detail)
        for step in (steps[index] for index in needed)
    )
    return exact_value(Program(0, short, len(short) - 1))
