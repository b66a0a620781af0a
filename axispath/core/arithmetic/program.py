"""A formula as a list of steps that any arithmetic can carry out.

Functions of the sheet are written out where they are called, equal parts are computed
once, and nothing nests: a program of a thousand steps needs no deep recursion to run.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from axispath.core.language.tree import (
    Apply,
    Call,
    Constant,
    Domain,
    Expression,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Sum,
    literal,
    odd_root,
)

MAX_STEPS = 20_000
MAX_WHOLE_EXPONENT = 10**9


class TooLarge(ArithmeticError):
    """The formula would cost too much to compute."""


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


@dataclass(frozen=True, slots=True)
class Program:
    """``steps`` in order; the first ``inputs`` are inputs; the last step is the result."""

    inputs: int
    steps: tuple[Step, ...]
    result: int


def program(
    expression: Expression,
    inputs: tuple[str, ...] = ("x",),
    definitions: Mapping[str, Definition] | None = None,
) -> Program:
    """Write ``expression`` out as steps. Every name must be an input or defined."""
    builder = _Builder(definitions or {})
    names = {name: builder.step(Step("input", (), name)) for name in inputs}
    result = builder.expression(expression, names)
    return Program(len(inputs), tuple(builder.steps), result)


@dataclass
class _Builder:
    definitions: Mapping[str, Definition]
    steps: list[Step] = field(default_factory=list)
    known: dict[Step, int] = field(default_factory=dict)
    values: dict[str, int] = field(default_factory=dict)
    calls: dict[tuple[str, tuple[int, ...]], int] = field(default_factory=dict)

    def step(self, step: Step) -> int:
        if step in self.known:
            return self.known[step]
        if len(self.steps) >= MAX_STEPS:
            raise TooLarge
        self.steps.append(step)
        self.known[step] = len(self.steps) - 1
        return len(self.steps) - 1

    def expression(self, node: Expression, names: Mapping[str, int]) -> int:
        match node:
            case Number():
                return self.step(Step("number", (), node.value))
            case Constant(name):
                return self.step(Step("constant", (), name))
            case Name(name):
                return names[name] if name in names else self.value(name)
            case Negation(operand):
                return self.step(Step("negate", (self.expression(operand, names),)))
            case Sum(terms):
                return self.sum(terms, names)
            case Product(left, right):
                return self.both("multiply", left, right, names)
            case Quotient(top, bottom):
                return self.both("divide", top, bottom, names)
            case Power(base, exponent):
                return self.power(base, exponent, names)
            case Apply(function, arguments):
                found = tuple(self.expression(part, names) for part in arguments)
                return self.step(Step("apply", found, function))
            case Call(name, arguments):
                return self.call(name, arguments, names)

    def both(
        self, operation: str, left: Expression, right: Expression, names: Mapping[str, int]
    ) -> int:
        first = self.expression(left, names)
        return self.step(Step(operation, (first, self.expression(right, names))))

    def sum(self, terms: tuple[Expression, ...], names: Mapping[str, int]) -> int:
        total = self.expression(terms[0], names)
        for term in terms[1:]:
            if isinstance(term, Negation):
                other = self.expression(term.operand, names)
                total = self.step(Step("subtract", (total, other)))
            else:
                total = self.step(Step("add", (total, self.expression(term, names))))
        return total

    def power(self, base: Expression, exponent: Expression, names: Mapping[str, int]) -> int:
        value = literal(exponent)
        if value is not None and value.denominator == 1:
            if abs(value) > MAX_WHOLE_EXPONENT:
                raise TooLarge
            return self.step(Step("whole power", (self.expression(base, names),), int(value)))
        root = odd_root(exponent)
        if root is not None:
            return self.step(Step("root power", (self.expression(base, names),), root))
        return self.both("power", base, exponent, names)

    def value(self, name: str) -> int:
        if name not in self.values:
            self.values[name] = self.expression(self.definitions[name].body, {})
        return self.values[name]

    def call(self, name: str, arguments: tuple[Expression, ...], names: Mapping[str, int]) -> int:
        given = tuple(self.expression(part, names) for part in arguments)
        # Without this, a chain of lanes that each use the one before twice doubles at every lane.
        if (name, given) not in self.calls:
            self.calls[name, given] = self.written_out(name, given)
        return self.calls[name, given]

    def written_out(self, name: str, given: tuple[int, ...]) -> int:
        definition = self.definitions[name]
        inner = dict(zip(definition.parameters or (), given, strict=True))
        result = self.expression(definition.body, inner)
        domain = definition.domain
        if domain is None:
            return result
        low = None if domain.low is None else self.expression(domain.low, {})
        high = None if domain.high is None else self.expression(domain.high, {})
        if low is not None:
            side = "at or above" if domain.low_closed else "above"
            result = self.step(Step("restrict", (result, given[0], low), (side, name)))
        if high is not None:
            side = "at or below" if domain.high_closed else "below"
            result = self.step(Step("restrict", (result, given[0], high), (side, name)))
        return result


Operation = Callable[..., Any]


@dataclass(frozen=True, slots=True)
class Bound:
    """A program bound to one arithmetic: constants computed, operations looked up."""

    registers: tuple[Any, ...]
    work: tuple[tuple[int, Operation, tuple[int, ...]], ...]
    result: int

    def run(self, *inputs: Any) -> Any:
        """The result for these inputs."""
        registers = list(self.registers)
        registers[: len(inputs)] = inputs
        for index, operation, operands in self.work:
            if len(operands) == 2:
                registers[index] = operation(registers[operands[0]], registers[operands[1]])
            else:
                registers[index] = operation(*[registers[operand] for operand in operands])
        return registers[self.result]


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
            work.append((index, carry_out, step.operands))
    return Bound(tuple(registers), tuple(work), plan.result)
