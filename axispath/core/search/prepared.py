"""A program made ready for finding where it breaks.

Every step that may break gets its guards: steps whose zeros cut the axis into pieces on which
the function is smooth or undefined.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass

from axispath.core import catalogue
from axispath.core.arithmetic.build import Builder
from axispath.core.arithmetic.program import Program, Step, TooLarge
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Expression
from axispath.core.memory import remembered

MOST_COMPARED = 8  # values of a minimum whose meeting points are looked for
MOST_GUARDED = 400  # steps with guards


@dataclass(frozen=True, eq=False)
class Prepared:
    """``plan`` with extra steps for the guards, by the step that they guard.

    ``varying`` are the steps that depend on the input.
    """

    plan: Program
    guards: dict[int, tuple[int, ...]]
    varying: frozenset[int]


@remembered(256)
def prepared(plan: Program) -> Prepared:
    """Guards for every step of ``plan`` that may break."""
    builder = Builder({})
    places: list[int] = []
    for step in plan.steps:
        operands = tuple(places[i] for i in step.operands)
        entry = catalogue.ENTRIES.get(step.detail) if step.operation == "apply" else None
        if step.detail == "sqrt" and _is_square(builder.steps[operands[0]]):
            # √(u²) is |u|, which tells more than a root at 0.
            inner = builder.steps[operands[0]].operands
            places.append(builder.step(Step("apply", inner, "abs")))
        elif (undone := _undone(builder, step, operands)) is not None:
            places.append(undone)
        elif entry is not None and entry.stepped and entry.plainer:
            places.append(_written_out(builder, entry, operands))
        else:
            places.append(builder.step(Step(step.operation, operands, step.detail)))
    result = places[plan.result]
    varying = set(range(plan.inputs))
    guards: dict[int, tuple[int, ...]] = {}
    _note_varying(builder.steps, 0, varying)
    for index, step in enumerate(list(builder.steps)):
        if index not in varying:
            continue
        known = len(builder.steps)
        found = _guards_of(builder, index)
        _note_varying(builder.steps, known, varying)
        chooses = step.operation == "choose"
        kept = tuple(guard for guard in found if chooses or guard in varying)
        if kept:
            guards[index] = kept
    if len(guards) > MOST_GUARDED:
        raise TooLarge
    steps = tuple(builder.steps)
    return Prepared(Program(plan.inputs, steps, result), guards, frozenset(varying))


# An inverse of what it inverts, by the whole number of half turns that lie between.
_UNDONE = {
    ("arcsin", "sin"): "cos(180° floor(u/180° + 1/2)) (u - 180° floor(u/180° + 1/2))",
    ("arccos", "cos"): "abs(u - 360° floor(u/360° + 1/2))",
    ("arctan", "tan"): "u - 180° floor(u/180° + 1/2)",
}


def _undone(builder: Builder, step: Step, operands: tuple[int, ...]) -> int | None:
    """arcsin(sin(u)) and the like, written with floor: which tells more than the arcsine at ±1."""
    if step.operation != "apply" or not operands:
        return None
    inner = builder.steps[operands[0]]
    text = _UNDONE.get((step.detail, inner.detail)) if inner.operation == "apply" else None
    if text is None:
        return None
    found = builder.one(_parsed(text, ("u",)), {"u": inner.operands[0]})
    return builder.step(Step("given", (found, operands[0])))


def _is_square(step: Step) -> bool:
    return step.operation == "whole power" and step.detail == 2


@remembered(128)
def plainer_program(name: str, count: int) -> Program:
    """A function of the catalogue in terms of plainer ones, as a program of so many arguments.

    Those that are left out have their usual values.
    """
    entry = catalogue.ENTRIES[name]
    builder = Builder({})
    arguments = entry.word.arguments[:count]
    given = tuple(builder.step(Step("input", (), argument)) for argument in arguments)
    result = _written_out(builder, entry, given)
    return Program(len(given), tuple(builder.steps), result)


@remembered(256)
def _parsed(text: str, arguments: tuple[str, ...]) -> Expression:
    return parse_expression(text, catalogue.SCOPE.with_values(arguments))


def _written_out(builder: Builder, entry: catalogue.Entry, operands: tuple[int, ...]) -> int:
    """An entry's plainer form; what it jumps or bends by is written out in turn."""
    arguments = entry.word.arguments
    defaults = [
        builder.one(_parsed(text, ()), {})
        for text in entry.defaults[len(operands) - (len(arguments) - entry.word.optional) :]
    ]
    names = dict(zip(arguments, (*operands, *defaults), strict=False))
    return builder.one(_parsed(entry.plainer, arguments), names)


def _note_varying(steps: list[Step], start: int, varying: set[int]) -> None:
    """Add to ``varying`` the steps from ``start`` on that depend on the input."""
    for index in range(start, len(steps)):
        if not varying.isdisjoint(steps[index].operands):
            varying.add(index)


def _guards_of(builder: Builder, index: int) -> tuple[int, ...]:
    step = builder.steps[index]
    match step.operation:
        case "divide":
            return (step.operands[1],)
        case "whole power" if step.detail < 0:
            return step.operands
        case "root power":
            return step.operands
        case "power":
            return (step.operands[0],)
        case "choose" | "restrict":
            at = 0 if step.operation == "choose" else 1
            return (_difference(builder, *step.operands[at : at + 2]),)
        case "apply":
            return _of_entry(builder, step)
        case "integral":
            return tuple(
                g for end in step.operands for g in _of_integrand(builder, step.detail, end)
            )
    return ()


def _of_integrand(builder: Builder, plan: Program, at: int) -> tuple[int, ...]:
    """The guards of what is integrated, at an end of the integral; a bend of it is none there."""
    inner = prepared(plan)
    places = [at]
    for step in inner.plan.steps[1:]:
        operands = tuple(places[i] for i in step.operands)
        places.append(builder.step(Step(step.operation, operands, step.detail)))
    return tuple(
        places[guard]
        for index, guards in inner.guards.items()
        if not bends(inner.plan.steps[index])
        for guard in guards
    )


def bends(step: Step) -> bool:
    """Whether a step jumps or bends without leaving all bounds."""
    entry = catalogue.ENTRIES.get(step.detail) if step.operation == "apply" else None
    return step.operation == "choose" or (entry is not None and entry.stepped)


def _of_entry(builder: Builder, step: Step) -> tuple[int, ...]:
    entry = catalogue.ENTRIES[step.detail]
    if entry.stepped and entry.word.many:
        if len(step.operands) > MOST_COMPARED:
            return ()
        pairs = itertools.combinations(dict.fromkeys(step.operands), 2)
        return tuple(_difference(builder, a, b) for a, b in pairs)
    names = dict(zip(entry.word.arguments, step.operands, strict=False))
    return tuple(builder.one(_parsed(text, entry.word.arguments), names) for text in entry.guards)


def _difference(builder: Builder, left: int, right: int) -> int:
    zero = builder.number(0)
    if right == zero:
        return left
    return builder.step(Step("subtract", (left, right)))
