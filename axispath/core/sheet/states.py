"""A sheet in several states of what is turned: which lanes are the same in all of them, and which
follow as one program with the numbers for further inputs.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cache

from axispath.core.arithmetic.boxes import Boxes
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.program import Definition, NotComputable, Program
from axispath.core.arithmetic.turned import TurnedProgram, TurnedRows, turned_program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import full_precision
from axispath.core.language.tree import Expression, FunctionStatement
from axispath.core.memory import Memory
from axispath.core.sheet.calculating import found_from
from axispath.core.sheet.dependencies import closure_of, ends_in
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import Slide, apply
from axispath.core.sheet.kinds.number import NUMBER
from axispath.core.sheet.resolve import ResolvedLane, Sheet, resolve
from axispath.core.sheet.sliders import DIGITS

State = Sequence[Slide]


class States:
    """A document in so many states, each told by slides of the same lanes."""

    def __init__(self, document: Document, states: Sequence[State]) -> None:
        self.document = document
        self.states = states
        self.sheet = resolve(document)
        self._ids = frozenset(slide.id for state in states for slide in state)
        turned = [lane for lane in self.sheet if lane.lane.id in self._ids]
        self._names = {lane.lane.id: str(lane.name) for lane in turned if lane.kind is NUMBER}
        self.in_state = cache(self._in_state)
        self._moved: dict[str, Moved | None] = {}

    def __len__(self) -> int:
        return len(self.states)

    def _in_state(self, k: int) -> Document:
        """The document in one state. Raises EditRefused."""
        found = self.document
        for slide in self.states[k]:
            found = apply(found, slide)
        return found

    def sheet_in(self, k: int) -> Sheet:
        """The sheet in one state. Raises EditRefused."""
        return resolve(self.in_state(k))

    def names_in(self, lane: ResolvedLane) -> tuple[str, ...] | None:
        """What is turned of that a lane's formula and domain need; None where that is not known."""
        statement = lane.statement
        settled = lane.fitted is None and lane.measured is None and not lane.lane.samples.by
        if not lane.ready or statement is None or lane.lane.id in self._ids or not settled:
            return None
        if lane.lane.levels or lane.measure is not None:
            return None
        return self._needed([statement.body, *ends_in(lane.domain)], lane.definitions)

    def _needed(
        self, bodies: Sequence[Expression], definitions: Mapping[str, Definition]
    ) -> tuple[str, ...] | None:
        turned = set(self._names.values())
        needed = closure_of(bodies, definitions)
        if needed is None:
            return None
        for name in turned:
            if any(found_from(body, name, definitions) for body in bodies):
                return None
        return tuple(sorted({name for name, _ in needed} & turned))

    def same(self, lane: ResolvedLane) -> bool:
        """Whether a lane is surely the same in all states."""
        return isinstance(lane.statement, FunctionStatement) and self.names_in(lane) == ()

    def moved(self, lane: ResolvedLane) -> Moved | None:
        """A function of x as it moves; None where its states have no program in common, or
        where its domain moves.
        """
        if lane.lane.id not in self._moved:
            self._moved[lane.lane.id] = self._moved_lane(lane)
        return self._moved[lane.lane.id]

    def _moved_lane(self, lane: ResolvedLane) -> Moved | None:
        names = self.names_in(lane)
        if not names or lane.kind.key != "function" or lane.running or lane.statement is None:
            return None
        ends = closure_of(ends_in(lane.domain), lane.definitions)
        if ends is None or any(name in names for name, _ in ends):
            return None
        variable = lane.parameters[0]
        return self.moved_rule(
            Rule(lane.statement.body, variable, lane.definitions, lane.unit, names)
        )

    def moved_rule(self, rule: Rule) -> Moved | None:
        """A rule as it moves in these states; None where it has no program."""
        if not all(self._gives(name) for name in rule.names):
            return None
        found = Moved(rule, [self.numbers(k, rule.names) for k in range(len(self))])
        return None if found.program(0) is None else found

    def numbers(self, k: int, names: tuple[str, ...]) -> tuple[Fraction, ...]:
        """The numbers of one state, in the order of their names."""
        values = {self._names[s.id]: s.value for s in self.states[k] if s.id in self._names}
        return tuple(as_written(values[name]) for name in names)

    def _gives(self, name: str) -> bool:
        """Whether every state has a number for a name."""
        (one,) = (lane_id for lane_id, other in self._names.items() if other == name)
        return all(any(slide.id == one for slide in state) for state in self.states)


@dataclass(frozen=True, slots=True)
class Rule:
    """A formula of one variable, and the ``names`` in it that are turned."""

    body: Expression
    variable: str
    definitions: Mapping[str, Definition]
    unit: AngleUnit
    names: tuple[str, ...]


class Moved:
    """A rule and its derivatives as what is turned moves them, each one program."""

    def __init__(self, rule: Rule, numbers: Sequence[tuple[Fraction, ...]]) -> None:
        self.rule = rule
        self.unit = rule.unit
        self.names = rule.names
        self.numbers = numbers
        self._bodies = [rule.body]
        self._key = _without(closure_of((rule.body,), rule.definitions), rule.names)
        self.rows = cache(self._rows)

    def program(self, level: int) -> TurnedProgram | None:
        """The formula, or a derivative of it; None where there is no program of it."""
        rule = self.rule
        key = rule.body, rule.variable, self._key, rule.names, rule.unit, level

        def work() -> TurnedProgram | NotComputable:
            try:
                body = self._body(level)
                return turned_program(body, rule.variable, rule.definitions, rule.names, rule.unit)
            except NotComputable as error:
                return error

        found = _programs.found(key, work) if self._key is not None else work()
        return found if isinstance(found, TurnedProgram) else None

    def _body(self, level: int) -> Expression:
        while len(self._bodies) <= level:
            rule = self.rule
            self._bodies.append(derivative(self._bodies[-1], rule.variable, rule.definitions))
        return self._bodies[level]

    def _rows(self, level: int) -> TurnedRows | None:
        """It in all states; None where they have to be looked at one by one."""
        found = self.program(level)
        rows = None if found is None else found.rows(self.numbers)
        return None if rows is None or rows.immense else rows

    def boxed(self, level: int) -> Callable[..., Boxes] | None:
        """It on boxes of the variable and of what is turned; None where there is no program."""
        found = self.program(level)
        return None if found is None else found.boxed

    def at(self, k: int) -> Program:
        """The formula in one state."""
        found = self.program(0)
        assert found is not None
        return found.at(self.numbers[k])


def _without(
    closure: tuple[tuple[str, Definition], ...] | None, names: tuple[str, ...]
) -> tuple[tuple[str, Definition], ...] | None:
    """What else a formula needs, which shapes its program."""
    return None if closure is None else tuple(one for one in closure if one[0] not in names)


def as_written(value: float) -> Fraction:
    """The number that a slider's line holds once it has been turned to a value."""
    shown = float(f"{value:.{DIGITS}g}")
    return Fraction(full_precision(shown)) if math.isfinite(shown) else Fraction(0)


_programs: Memory[TurnedProgram | NotComputable] = Memory(
    60_000, lambda key, found: len(found.plan.steps) if isinstance(found, TurnedProgram) else 1
)
