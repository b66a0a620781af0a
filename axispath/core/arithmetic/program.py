"""A formula as a list of steps that any arithmetic can carry out.

Functions of the sheet are written out where they are called, equal parts are computed
once, and nothing nests: a program of a thousand steps needs no deep recursion to run.
build.py writes programs.
"""

from __future__ import annotations

from collections import ChainMap
from collections.abc import Callable, Mapping, MutableMapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, cast

from axispath.core.arithmetic.patience import time_check
from axispath.core.language.tree import Domain, Expression

MAX_STEPS = 6_000
MAX_ITEMS = 5_000
MAX_WHOLE_EXPONENT = 10**9


class NotComputable(ArithmeticError):
    """The formula has no program; the message is a sentence for a student."""


class TooLarge(NotComputable):
    """The formula would cost too much to compute."""

    def __init__(self, message: str = "This formula is too large to compute.") -> None:
        super().__init__(message)


def allowed(count: int) -> int:
    """How many values a list may have. Raises TooLarge."""
    if count > MAX_ITEMS:
        raise TooLarge(f"That is more than {MAX_ITEMS} values, which is too many to compute.")
    return max(count, 0)


@dataclass(frozen=True, slots=True)
class Step:
    """One operation on the results of earlier steps; ``detail`` is what it needs besides."""

    operation: str
    operands: tuple[int, ...] = ()
    detail: Any = None


@dataclass(frozen=True, slots=True)
class Definition:
    """What a name of the sheet stands for; ``parameters`` is None for a value."""

    parameters: tuple[str, ...] | None
    body: Expression
    domain: Domain | None = None


def extended(
    definitions: Mapping[str, Definition], more: Mapping[str, Definition]
) -> Mapping[str, Definition]:
    """Definitions with some more. None is looked up for it, as some are worked out only then."""
    return ChainMap(dict(more), cast("MutableMapping[str, Definition]", definitions))


@dataclass(frozen=True, slots=True)
class Program:
    """``steps`` in order, the first ``inputs`` of them inputs.

    ``result`` is the step that gives the result; ``items`` are the steps that give the
    values of a list, where the result is one.
    """

    inputs: int
    steps: tuple[Step, ...]
    result: int
    items: tuple[int, ...] | None = None

    @property
    def chooses(self) -> bool:
        """Whether there are cases, so that a part without a value may not matter."""
        return any(step.operation == "choose" for step in self.steps)


def varying_steps(plan: Program) -> set[int]:
    """The steps that depend on an input."""
    found = set(range(plan.inputs))
    for index, step in enumerate(plan.steps):
        if not found.isdisjoint(step.operands):
            found.add(index)
    return found


def less(plan: Program) -> Program:
    """x less the value of a program without inputs."""
    steps = [Step("input", (), "x")]
    steps += [Step(s.operation, tuple(i + 1 for i in s.operands), s.detail) for s in plan.steps]
    steps.append(Step("subtract", (0, plan.result + 1)))
    return Program(1, tuple(steps), len(steps) - 1)


def folded_in(plan: Program) -> Program:
    """A program of u, with 1/u for its input."""
    steps = [Step("input", (), "u"), Step("number", (), Fraction(1)), Step("divide", (1, 0))]

    def moved(index: int) -> int:
        return 2 if index == 0 else index + 2

    for step in plan.steps[1:]:
        operands = tuple(moved(i) for i in step.operands)
        steps.append(Step(step.operation, operands, step.detail))
    return Program(1, tuple(steps), moved(plan.result))


Operation = Callable[..., Any]


# Where the result goes, what is carried out, and on what: on one or two steps, which are told by
# themselves as most are of that kind (−1 for none), or on all of some.
Work = tuple[int, Operation, int, int, tuple[int, ...]]


def _work(index: int, operation: Operation, operands: tuple[int, ...]) -> Work:
    first = operands[0] if len(operands) in (1, 2) else -1
    return index, operation, first, operands[1] if len(operands) == 2 else -1, operands


@dataclass(frozen=True, slots=True)
class Bound:
    """A program bound to one arithmetic: constants computed, operations looked up."""

    registers: tuple[Any, ...]
    work: tuple[Work, ...]
    result: int

    def run(self, *inputs: Any) -> Any:
        """The result for these inputs."""
        return self.run_all(*inputs)[self.result]

    def run_all(self, *inputs: Any) -> list[Any]:
        """The results of all steps for these inputs. May raise OutOfTime: see patience.py."""
        check = time_check()
        registers = list(self.registers)
        registers[: len(inputs)] = inputs
        for index, operation, first, second, operands in self.work:
            if check is not None:
                check()
            if second >= 0:
                registers[index] = operation(registers[first], registers[second])
            elif first >= 0:
                registers[index] = operation(registers[first])
            else:
                registers[index] = operation(*[registers[operand] for operand in operands])
        return registers


def bind(plan: Program, operation: Callable[[Step], Operation]) -> Bound:
    """Bind to an arithmetic, computing at once whatever does not depend on the inputs."""
    registers: list[Any] = [None] * len(plan.steps)
    varying = set(range(plan.inputs))
    work = []
    for index, step in enumerate(plan.steps[plan.inputs :], plan.inputs):
        carry_out = operation(step)
        if varying.isdisjoint(step.operands):
            registers[index] = carry_out(*[registers[operand] for operand in step.operands])
        else:
            varying.add(index)
            work.append(_work(index, carry_out, step.operands))
    return Bound(tuple(registers), tuple(work), plan.result)
