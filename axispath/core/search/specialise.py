"""A prepared program on one piece of the axis, where every choice has been made."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from fractions import Fraction

from axispath.core.arithmetic.program import Program, Step


@dataclass(frozen=True, slots=True)
class Branch:
    """What a step comes to on a piece: another step, its negative, or a number."""

    step: int | None = None
    negated: bool = False
    number: Fraction | None = None


Branches = Mapping[int, Branch]


def followed(index: int, branches: Branches) -> int:
    """The step that a step comes to."""
    while (branch := branches.get(index)) and branch.step is not None and not branch.negated:
        index = branch.step
    return index


def needs(plan: Program, index: int, branches: Branches) -> tuple[int, ...]:
    """The steps that a step (already followed) is computed from."""
    branch = branches.get(index)
    if branch is None:
        return tuple(followed(i, branches) for i in plan.steps[index].operands)
    return () if branch.step is None else (followed(branch.step, branches),)


def needed(plan: Program, targets: Iterable[int], branches: Branches) -> list[int]:
    """All steps that some steps (already followed) are computed from, themselves too, in order."""
    found: set[int] = set()
    pending = list(targets)
    while pending:
        index = pending.pop()
        if index not in found:
            found.add(index)
            pending += needs(plan, index, branches)
    return sorted(found)


def specialised(plan: Program, branches: Branches, target: int) -> Program:
    """The program of one step on a piece."""
    at = followed(target, branches)
    order = sorted({*range(plan.inputs), *needed(plan, [at], branches)})
    place = {index: k for k, index in enumerate(order)}
    steps = []
    for index in order:
        operands = tuple(place[i] for i in needs(plan, index, branches))
        branch = branches.get(index)
        if branch is None:
            steps.append(Step(plan.steps[index].operation, operands, plan.steps[index].detail))
        elif branch.negated:
            steps.append(Step("negate", operands))
        else:
            steps.append(Step("number", (), branch.number))
    return Program(plan.inputs, tuple(steps), place[at])
