"""A document with its lines read, its names resolved and its functions ready to compute.

Order does not matter: names are collected from all lanes first.
"""

from __future__ import annotations

from collections.abc import Container, Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from axispath.core.arithmetic.balls import BallFunction, constant_ball, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.floats import (
    FloatFunction,
    float_function,
    float_items,
    float_value,
    has_infinite_constant,
)
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.arithmetic.program import Definition, NotComputable, Program
from axispath.core.arithmetic.rationals import exact_registers
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Outcome
from axispath.core.language.errors import LanguageError
from axispath.core.language.points import from_polar
from axispath.core.language.tree import (
    Domain,
    Expression,
    FunctionStatement,
    Name,
    RelationStatement,
    Statement,
    ValueStatement,
)
from axispath.core.language.walking import coordinates, differences
from axispath.core.memory import Memory
from axispath.core.quantities.values import NoResult
from axispath.core.sheet.answers import Answers, answers_of
from axispath.core.sheet.axes import Axes
from axispath.core.sheet.calculating import Calculated, Standing, calculated
from axispath.core.sheet.data import Arrays
from axispath.core.sheet.dependencies import (
    circles,
    defined_by,
    definitions_of,
    missing_names,
)
from axispath.core.sheet.document import Document, Lane
from axispath.core.sheet.fitted import Fitted
from axispath.core.sheet.kinds import Kind, kind_of
from axispath.core.sheet.measuring import SLOW, measured
from axispath.core.sheet.scopes import names_of, read_with, scope_of

END_BITS = 200


@dataclass(frozen=True)
class ResolvedLane:
    """A lane with what its line means here. ``error`` is set where it means nothing."""

    lane: Lane
    unit: AngleUnit
    statement: Statement | None = None
    error: LanguageError | None = None
    missing: tuple[str, ...] = ()
    definitions: Mapping[str, Definition] = field(default_factory=dict, repr=False, compare=False)
    running: bool = field(default=False, compare=False)  # its argument hides a value of that name
    typed: Statement | None = field(
        default=None, compare=False
    )  # before its parameters were fitted
    fitted: Fitted | None = field(default=None, repr=False, compare=False)
    measured: Arrays | None = field(default=None, repr=False, compare=False)
    calculated: Calculated | None = field(default=None, repr=False, compare=False)
    answers: Answers | None = field(default=None, repr=False, compare=False)  # of a block
    measure: str | None = None  # the unit of its values; None where it holds no quantities
    across: str = ""  # the unit of x then

    @property
    def outcome(self) -> Outcome:
        """What a value comes to as a line of calculation. Raises NoResult, OutOfTime."""
        if self.calculated is None or self.written is None:
            raise NoResult("there is nothing to calculate")
        return self.calculated.outcome(self.lane.id, self.written.body)

    @property
    def for_lines(self) -> bool:
        """Whether only lines of calculation use it."""
        return self.calculated is not None and self.lane.id in self.calculated.for_lines

    @property
    def written(self) -> Statement | None:
        """Its line as it was read."""
        return self.typed or self.statement

    @property
    def typed_domain(self) -> Domain | None:
        """The domain as it was typed, in units where it has some."""
        return self.written.domain if self.written else None

    @property
    def name(self) -> str | None:
        """The name the lane defines."""
        return (self.statement.name if self.statement else None) or self.lane.name

    @property
    def ready(self) -> bool:
        """Whether the lane has a meaning that can be computed."""
        means = self.statement is not None or self.measured is not None
        return self.error is None and not self.missing and means

    @cached_property
    def kind(self) -> Kind:
        """What kind of lane this is."""
        return kind_of(self)

    def can(self, register: Container[str]) -> bool:
        """Whether lanes of this kind have an entry in a register of some layer."""
        return self.kind.key in register

    @property
    def parameters(self) -> tuple[str, ...]:
        """The variables of a function; a value has none."""
        return self.statement.parameters if self.statement else ()

    @cached_property
    def program(self) -> Program:
        """The formula as steps."""
        assert self.statement is not None
        return program(self.statement.body, self.parameters, self.definitions, self.running)

    @cached_property
    def programs(self) -> tuple[Program, ...]:
        """The formula as steps, or one program for each coordinate of a point or a curve, or each
        difference of sides in a relation.
        """
        statement = self.statement
        both = coordinates(statement.body) if statement else None
        if isinstance(statement, FunctionStatement) and statement.polar:
            both = from_polar(statement.body, Name(statement.parameters[0]))
        if isinstance(statement, RelationStatement):
            sides = [p for one in statement.comparisons for p in differences(one)]
            return tuple(program(side, self.parameters, self.definitions) for side in sides)
        if both is None:
            return (self.program,)
        return tuple(program(part, self.parameters, self.definitions) for part in both)

    @cached_property
    def floats(self) -> FloatFunction:
        """The formula on float64 arrays, whatever its domain."""
        return float_function(self.program, self.unit)

    def heights(self, x: np.ndarray) -> np.ndarray:
        """The formula on float64 arrays; NaN outside the written domain."""
        with np.errstate(all="ignore"):
            found = np.array(np.broadcast_to(self.floats(x), x.shape), dtype=float)
        for end, outside in zip(self.ends, (np.less, np.greater), strict=True):
            if end is not None:
                found[outside(x, end.x)] = np.nan
        return found

    @cached_property
    def slopes(self) -> FloatFunction:
        """The derivative by rule on float64 arrays. Raises NotComputable where there is none."""
        assert self.statement is not None
        inputs = self.parameters
        slope = derivative(self.statement.body, inputs[0], self.definitions)
        return float_function(program(slope, inputs, self.definitions, self.running), self.unit)

    @cached_property
    def balls(self) -> BallFunction:
        """The formula on boxes, whatever its domain."""
        return BallFunction(self.program, self.unit)

    @cached_property
    def value(self) -> float:
        """The value of a number lane; NaN where it has none."""
        return float_value(self.program, self.unit)

    @cached_property
    def items(self) -> list[float] | None:
        """The values of a list lane; None for other lanes."""
        if self.program.items is None:
            return None
        return float_items(self.program, self.unit)

    @property
    def domain(self) -> Domain | None:
        """The domain as written."""
        return self.statement.domain if self.statement else None

    @cached_property
    def ends(self) -> tuple[End | None, End | None]:
        """The ends of the written domain; None for an end that is not written."""
        domain = self.domain
        if domain is None:
            return None, None
        return self._end(domain.low, domain.low_closed), self._end(domain.high, domain.high_closed)

    def _end(self, end: Expression | None, closed: bool) -> End | None:
        if end is None:
            return None
        with precision(END_BITS):
            plan = program(end, (), self.definitions)
            ball = constant_ball(plan, self.unit)
        exact = exact_registers(plan, self.unit)[plan.result]
        return End(ball, closed, of_domain=True, exact=exact, plan=plan)


@dataclass(frozen=True)
class Sheet:
    """All lanes of a document, resolved, in their order; ``late`` where time was too short."""

    lanes: tuple[ResolvedLane, ...]
    late: bool = False

    def __iter__(self) -> Iterator[ResolvedLane]:
        return iter(self.lanes)

    def lane(self, lane_id: str) -> ResolvedLane | None:
        """The lane with this id."""
        return next((lane for lane in self.lanes if lane.lane.id == lane_id), None)

    def shown(self, register: Container[str]) -> list[ResolvedLane]:
        """The lanes that are not hidden and whose kind has an entry in a register."""
        there = (lane for lane in self.lanes if not (lane.lane.hidden or lane.lane.working))
        return [lane for lane in there if lane.can(register)]

    @property
    def working(self) -> list[ResolvedLane]:
        """The lines of the page Working."""
        return [lane for lane in self.lanes if lane.lane.working and lane.lane.block is None]

    @property
    def blocks(self) -> list[ResolvedLane]:
        """The blocks of equations of the page Working."""
        return [lane for lane in self.lanes if lane.lane.block is not None]


# A dragged slider makes a sheet of each picture; those of the last moments are worth keeping.
_sheets: Memory[Sheet] = Memory(32)


def resolve(document: Document) -> Sheet:
    """Read all lanes of a document. Never fails: errors stand in their lanes."""
    key = (document.lanes, document.unit, document.axes)
    found = _sheets.get(key)
    if found is None:
        found = _resolve(*key)
        # What was broken off for lack of time is not what the lines mean.
        slow = any(lane.error is not None and lane.error.message == SLOW for lane in found)
        if not (slow or found.late):
            _sheets.keep(key, found)
    return found


def _resolve(lanes: tuple[Lane, ...], unit: AngleUnit, axes: Axes) -> Sheet:
    scope = scope_of(lanes)
    names = names_of(scope)
    statements: dict[str, Statement] = {}
    errors: dict[str, LanguageError] = {}
    taken: set[str] = set()
    for lane in lanes:
        if lane.data is not None or lane.block is not None or lane.written.rests:
            continue
        try:
            how = lane.value, lane.runs, lane.working, axes.measured
            statement = read_with(lane.text, names, *how)
            name = statement.name or lane.name
            if name in taken:
                raise LanguageError(
                    f"{name} is defined in another lane already.", 0, len(lane.text)
                )
            statements[lane.id] = statement
            if name:
                taken.add(name)
        except LanguageError as error:
            errors[lane.id] = error
    found = measured(lanes, statements, errors, unit)
    first = {**definitions_of(lanes, statements), **found.lists}
    answers = answers_of(lanes, scope, first, unit)
    results = calculated(lanes, typed := dict(statements), errors, answers, unit, axes)
    written = {lane_id: statements[lane_id] for lane_id in results.instead} | found.typed
    statements = typed
    defined = definitions_of(lanes, statements)
    found_here = results.circles
    errors |= circles(lanes, statements, defined) if found_here is None else found_here
    plain = answers.over({**defined, **found.lists})
    definitions = Standing(plain, results)
    broken = {
        name
        for lane in lanes
        if lane.id in errors and (read := statements.get(lane.id)) is not None
        for name in defined_by(read, str(read.name or lane.name))
    }
    made = []
    for lane in lanes:
        read = statements.get(lane.id)
        missing = missing_names(read, plain, broken) if read else ()
        resolved = ResolvedLane(
            lane,
            unit,
            read,
            errors.get(lane.id),
            missing,
            definitions,
            typed=written.get(lane.id),
            fitted=found.fits.get(lane.id),
            measured=found.arrays.get(lane.id),
            calculated=results,
            answers=plain if lane.block is not None else None,
            measure=results.measures.get(lane.id),
            across=axes.x.strip() if lane.id in results.measures else "",
        )
        made.append(_checked(resolved))
    return Sheet(tuple(made), answers.late or plain.late)


def _checked(lane: ResolvedLane) -> ResolvedLane:
    """The lane, or with an error where its cost or its domain makes no sense."""
    if not lane.ready:
        return lane
    whole = (0, len(lane.lane.text))
    if lane.measured is not None or lane.for_lines:
        return lane
    if lane.lane.working and isinstance(lane.statement, ValueStatement):
        return lane  # calculated, whatever its size
    try:
        trouble = _trouble(lane)
    except NotComputable as error:
        trouble = str(error)
    except OutOfTime:
        trouble = SLOW
    if trouble is None:
        return lane
    wrong = LanguageError(trouble, *whole)
    return ResolvedLane(lane.lane, lane.unit, lane.statement, wrong, typed=lane.typed)


def _trouble(lane: ResolvedLane) -> str | None:
    """What is wrong with a lane whose line can be read."""
    if any(has_infinite_constant(plan, lane.unit) for plan in lane.programs):
        return "A number in this formula is too large to compute."
    return lane.kind.trouble(lane)
