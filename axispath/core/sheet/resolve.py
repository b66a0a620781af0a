"""A document with its lines read, its names resolved and its functions ready to compute.

Order does not matter: names are collected from all lanes first.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property, lru_cache

from flint import arb

from axispath.core import catalogue
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
from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope
from axispath.core.language.statement import Heading, heading, parse_statement
from axispath.core.language.tree import (
    Call,
    Domain,
    Expression,
    FunctionStatement,
    Statement,
    ValueStatement,
    free_names,
)
from axispath.core.memory import Memory
from axispath.core.sheet.document import Document, Lane

END_BITS = 200
SLOW = "This takes too long to compute."


@dataclass(frozen=True)
class ResolvedLane:
    """A lane with what its line means here. ``error`` is set where it means nothing."""

    lane: Lane
    unit: AngleUnit
    statement: Statement | None = None
    error: LanguageError | None = None
    missing: tuple[str, ...] = ()
    definitions: dict[str, Definition] = field(default_factory=dict, repr=False, compare=False)
    running: bool = field(default=False, compare=False)  # its argument hides a value of that name

    @property
    def name(self) -> str | None:
        """The name the lane defines."""
        return (self.statement.name if self.statement else None) or self.lane.name

    @property
    def ready(self) -> bool:
        """Whether the lane has a meaning that can be computed."""
        return self.error is None and not self.missing and self.statement is not None

    @property
    def plottable(self) -> bool:
        """Whether the lane is a function of one variable, ready to compute."""
        return (
            self.ready
            and isinstance(self.statement, FunctionStatement)
            and (len(self.statement.parameters) == 1)
        )

    @cached_property
    def program(self) -> Program:
        """The formula as steps."""
        assert self.statement is not None
        inputs = getattr(self.statement, "parameters", ())
        return program(self.statement.body, inputs, self.definitions, self.running)

    @cached_property
    def floats(self) -> FloatFunction:
        """The formula on float64 arrays, whatever its domain."""
        return float_function(self.program, self.unit)

    @cached_property
    def slopes(self) -> FloatFunction:
        """The derivative by rule on float64 arrays. Raises NotComputable where there is none."""
        assert isinstance(self.statement, FunctionStatement)
        inputs = self.statement.parameters
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
        return getattr(self.statement, "domain", None)

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
    """All lanes of a document, resolved, in their order."""

    lanes: tuple[ResolvedLane, ...]

    def __iter__(self) -> Iterator[ResolvedLane]:
        return iter(self.lanes)

    def lane(self, lane_id: str) -> ResolvedLane | None:
        """The lane with this id."""
        return next((lane for lane in self.lanes if lane.lane.id == lane_id), None)

    def functions(self) -> list[ResolvedLane]:
        """The lanes that are plotted."""
        return [lane for lane in self.lanes if lane.plottable and not lane.lane.hidden]


# A dragged slider makes a sheet of each picture; those of the last moments are worth keeping.
_sheets: Memory[Sheet] = Memory(32)


def resolve(document: Document) -> Sheet:
    """Read all lanes of a document. Never fails: errors stand in their lanes."""
    key = (document.lanes, document.unit)
    found = _sheets.get(key)
    if found is None:
        found = _resolve(*key)
        # What was broken off for lack of time is not what the lines mean.
        if not any(lane.error is not None and lane.error.message == SLOW for lane in found):
            _sheets.keep(key, found)
    return found


def _resolve(lanes: tuple[Lane, ...], unit: AngleUnit) -> Sheet:
    names = _names(scope_of(lanes))
    statements: dict[str, Statement] = {}
    errors: dict[str, LanguageError] = {}
    taken: set[str] = set()
    for lane in lanes:
        try:
            statement = _read(lane.text, names)
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
    definitions = _definitions(lanes, statements)
    errors |= _circles(lanes, statements, definitions)
    broken = {
        statements[lane.id].name or lane.name or ""
        for lane in lanes
        if lane.id in errors and lane.id in statements
    }
    found = []
    for lane in lanes:
        read = statements.get(lane.id)
        missing = _missing(read, definitions, broken) if read else ()
        resolved = ResolvedLane(lane, unit, read, errors.get(lane.id), missing, definitions)
        found.append(_checked(resolved))
    return Sheet(tuple(found))


Names = tuple[tuple[tuple[str, int], ...], frozenset[str], tuple[tuple[str, str], ...]]


def _names(scope: Scope) -> Names:
    """The names of a scope as a key: the same line under the same names reads the same."""
    return tuple(scope.functions.items()), scope.values, tuple(scope.signatures.items())


@lru_cache(maxsize=4096)
def _read(text: str, names: Names) -> Statement:
    functions, values, signatures = names
    return parse_statement(
        text, Scope(catalogue.VOCABULARY, dict(functions), values, dict(signatures))
    )


@lru_cache(maxsize=4096)
def _heading(text: str) -> Heading:
    return heading(text, catalogue.VOCABULARY)


def scope_of(lanes: tuple[Lane, ...], without: str | None = None) -> Scope:
    """The names that lanes define, but for the lane ``without``."""
    functions: dict[str, int] = {}
    signatures: dict[str, str] = {}
    values: set[str] = set()
    for lane in lanes:
        if lane.id == without:
            continue
        try:
            head = _heading(lane.text)
        except LanguageError:
            continue
        name = head.name or lane.name
        if not name or name in functions or name in values:
            continue
        if head.name and head.parameters is None:
            values.add(name)
        else:
            parameters = head.parameters or ("x",)
            functions[name] = len(parameters)
            signatures[name] = f"{name}({', '.join(parameters)})"
    return Scope(catalogue.VOCABULARY, functions, frozenset(values), signatures)


def _definitions(
    lanes: tuple[Lane, ...], statements: dict[str, Statement]
) -> dict[str, Definition]:
    return {
        str(statement.name or lane.name): _definition(statement)
        for lane in lanes
        if (statement := statements.get(lane.id)) is not None
    }


Use = tuple[str, int | None]  # a name, and with how many arguments; None for a value


def used_names(definition: Definition) -> list[Use]:
    """The names of the sheet that a definition needs."""
    parameters = definition.parameters or ()
    domain = definition.domain
    ends = [end for end in (domain.low, domain.high) if end] if domain else []
    found: dict[Use, None] = {}
    for root in (definition.body, *ends):
        for node in free_names(root):
            if isinstance(node, Call):
                found[node.name, len(node.arguments)] = None
            elif root in ends or node.name not in parameters:
                found[node.name, None] = None
    return list(found)


def _circles(
    lanes: tuple[Lane, ...],
    statements: dict[str, Statement],
    definitions: dict[str, Definition],
) -> dict[str, LanguageError]:
    """An error for every lane whose definition leads back to itself."""
    needs = {
        name: {used for used, _ in used_names(definition)}
        for name, definition in definitions.items()
    }
    errors = {}
    for lane in lanes:
        statement = statements.get(lane.id)
        name = statement and (statement.name or lane.name)
        circle = _circle(name, needs) if name else None
        if circle:
            chain = " needs ".join([*circle, str(name)])
            sentence = (
                f"{name} is defined by itself."
                if len(circle) == 1
                else f"These definitions go round in a circle: {chain}."
            )
            errors[lane.id] = LanguageError(sentence, 0, len(lane.text))
    return errors


def _circle(name: str, needs: dict[str, set[str]]) -> list[str] | None:
    """A shortest chain of names from ``name`` back to itself."""
    chains = [[name]]
    seen: set[str] = set()
    for chain in chains:
        for needed in sorted(needs.get(chain[-1], ())):
            if needed == name:
                return chain
            if needed not in seen:
                seen.add(needed)
                chains.append([*chain, needed])
    return None


def _missing(
    statement: Statement, definitions: dict[str, Definition], broken: set[str]
) -> tuple[str, ...]:
    """Names without a fitting meaning that the statement needs, however indirectly."""
    found: dict[str, None] = {}
    seen: set[Use] = set()
    pending = used_names(_definition(statement))
    while pending:
        use = pending.pop(0)
        if use in seen:
            continue
        seen.add(use)
        name, count = use
        definition = definitions.get(name)
        if definition is None or name in broken or _arity(definition) != count:
            found[name] = None
        else:
            pending += used_names(definition)
    return tuple(found)


def _arity(definition: Definition) -> int | None:
    return None if definition.parameters is None else len(definition.parameters)


def _definition(statement: Statement) -> Definition:
    if isinstance(statement, ValueStatement):
        return Definition(None, statement.body)
    return Definition(statement.parameters, statement.body, statement.domain)


def _checked(lane: ResolvedLane) -> ResolvedLane:
    """The lane, or with an error where its cost or its domain makes no sense."""
    if not lane.ready:
        return lane
    whole = (0, len(lane.lane.text))
    try:
        trouble = _trouble(lane)
    except NotComputable as error:
        trouble = str(error)
    except OutOfTime:
        trouble = SLOW
    if trouble is None:
        return lane
    return ResolvedLane(lane.lane, lane.unit, lane.statement, LanguageError(trouble, *whole))


def _trouble(lane: ResolvedLane) -> str | None:
    """What is wrong with a lane whose line can be read."""
    if has_infinite_constant(lane.program, lane.unit):
        return "A number in this formula is too large to compute."
    if lane.program.items is not None and isinstance(lane.statement, FunctionStatement):
        return "This gives a list, but a function here gives one value for each x."
    low, high = lane.ends
    for end in (low, high):
        if end is not None and not (end.ball.is_finite() and abs(end.ball) < arb(1e15)):
            return "An end of the domain has no value that can be used."
    if low is not None and high is not None and not low.ball < high.ball:
        return "The domain is empty: its start is not below its end."
    return None
