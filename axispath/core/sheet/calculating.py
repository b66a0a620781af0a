"""Values of a sheet that programs cannot hold: matrices, complex numbers, what is made of them.

Such lines are carried out when a sheet is resolved. Where a real number or a list comes out it
takes the place of the line in all that uses it, exactly where it is exact; parts of other lines
that are made of numbers alone are treated alike.
"""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Mapping
from dataclasses import dataclass, field, replace

from axispath.core import catalogue
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.arithmetic.program import Definition
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator, Outcome
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.measure import has_units
from axispath.core.language.errors import LanguageError
from axispath.core.language.rebuild import rebuilt
from axispath.core.language.tree import (
    Apply,
    Call,
    Constant,
    Converted,
    Expression,
    FunctionStatement,
    ListOf,
    MatrixOf,
    Name,
    Pair,
    RelationStatement,
    Running,
    Statement,
    UnitOf,
    ValueStatement,
)
from axispath.core.language.vocabulary import IMAGINARY_UNIT
from axispath.core.language.walking import children, free_names, names_in, walk
from axispath.core.memory import Memory
from axispath.core.quantities.dimensions import told
from axispath.core.quantities.scalars import is_real
from axispath.core.quantities.values import (
    Formula,
    Grid,
    Items,
    Measured,
    NoResult,
    Parts,
    Undefined,
    Value,
)
from axispath.core.sheet.answers import Answers
from axispath.core.sheet.axes import Axes, placed
from axispath.core.sheet.dependencies import circles, closure_of, defined_by, missing_names
from axispath.core.sheet.document import Lane
from axispath.core.sheet.measuring import SLOW


class Uncomputed(LanguageError):
    """A line that is understood and has no result, for these numbers."""


@dataclass
class Calculated:
    """What came of it, by lane; ``instead`` are statements that stand for what was typed.

    ``for_lines`` are used by lines of calculation only, and found when they are asked for.
    """

    calculator: Calculator
    instead: dict[str, Statement] = field(default_factory=dict)
    for_lines: set[str] = field(default_factory=set)
    lines: dict[str, str] = field(default_factory=dict)  # lines of Working by their names
    measures: dict[str, str] = field(default_factory=dict)  # units of the values of lanes
    circles: dict[str, LanguageError] | None = None  # where they were looked for here
    _found: dict[str, Outcome | NoResult] = field(default_factory=dict)

    def outcome(self, lane_id: str, body: Expression) -> Outcome:
        """What the body of a lane comes to, found once. Raises NoResult, OutOfTime."""
        found = self._found.get(lane_id)
        key = None
        if found is None and lane_id in self.for_lines:  # others are as quick as a look
            key = self._key(body)
            found = _outcomes.get(key) if key is not None else None
        if found is None:
            try:
                found = self.calculator.result(body)
            except NoResult as reason:
                found = reason
            if key is not None:
                _outcomes.keep(key, found)
        self._found[lane_id] = found
        if isinstance(found, NoResult):
            raise NoResult(str(found))
        return found

    def _key(self, body: Expression) -> Hashable | None:
        """All that shapes the result of a body; None where that is too long to be a key."""
        needed = closure_of((body,), self.calculator.definitions)
        return None if needed is None else (body, self.calculator.unit, needed)


class Standing(Mapping[str, Definition]):
    """The definitions of a sheet. What programs cannot hold stands for the number it comes to.

    Such a line is carried out when it is looked up, by whoever uses it: a lane, a column, an end.
    """

    def __init__(self, plain: Answers, results: Calculated) -> None:
        self._plain = plain
        self._results = results
        self._known: dict[str, Definition] = {}

    def __getitem__(self, name: str) -> Definition:
        found = self._plain[name]
        line = self._results.lines.get(name)
        if line is None:
            return found
        if name not in self._known:
            try:
                stand = stands_for(self._results.outcome(line, found.body).value)
            except NoResult:
                stand = None
            self._known[name] = found if stand is None else Definition(None, stand)
        return self._known[name]

    def __iter__(self) -> Iterator[str]:
        return iter(self._plain)

    def __len__(self) -> int:
        return len(self._plain)

    def __contains__(self, name: object) -> bool:
        return name in self._plain  # what the equations leave open has no value

    def is_found(self, name: str) -> bool:
        """Whether a name has a value that is worked out, by equations or on a line."""
        return name in self._results.lines or name in self._plain.owner

    def beneath(self, name: str) -> list[str]:
        """The names that the meaning of a name needs, whatever it stands for."""
        known = self._plain.plain.get(name) or self._plain.needs.get(name)
        return [] if known is None else [one.name for one in names_in(known.body)]


def found_from(tree: Expression, letter: str, definitions: Mapping[str, Definition]) -> str | None:
    """A name in a formula whose value was worked out from that of a letter, however indirectly.

    Such a value does not follow where the letter runs inside a program.
    """
    if not isinstance(definitions, Standing):
        return None
    pending = [one.name for one in names_in(tree)]
    seen: set[str] = set()
    while pending:
        name = pending.pop()
        if name in seen or name == letter:
            continue
        seen.add(name)
        if definitions.is_found(name) and _leads_to(name, letter, definitions):
            return name
        pending += definitions.beneath(name)
    return None


def _leads_to(name: str, letter: str, definitions: Standing) -> bool:
    pending, seen = definitions.beneath(name), {name}
    while pending:
        one = pending.pop()
        if one == letter:
            return True
        if one not in seen:
            seen.add(one)
            pending += definitions.beneath(one)
    return False


def _weight(key: Hashable, found: Outcome | NoResult) -> int:
    value = found.value if isinstance(found, Outcome) else None
    if isinstance(value, Grid):
        return 4 + value.size[0] * value.size[1]
    return 4 + len(value) if isinstance(value, Items) else 4


# A change of one line leaves most of the others what they were.
_outcomes: Memory[Outcome | NoResult] = Memory(250_000, _weight)


def beyond(node: Expression, names: frozenset[str] | set[str] = frozenset()) -> bool:
    """Whether programs cannot hold an expression; ``names`` are those that they cannot."""
    return any(_beyond(one, names) for one in walk(node))


def _beyond(node: Expression, names: frozenset[str] | set[str]) -> bool:
    match node:
        case MatrixOf() | Running() | UnitOf() | Converted():
            return True
        case Apply(function):
            return function in catalogue.CALCULATED
        case Constant(name):
            return name == IMAGINARY_UNIT or name in catalogue.PHYSICAL
        case Name(name) | Call(name):
            return name in names
    return False


def calculated(
    lanes: tuple[Lane, ...],
    statements: dict[str, Statement],
    errors: dict[str, LanguageError],
    definitions: Answers,
    unit: AngleUnit,
    axes: Axes,
) -> Calculated:
    """Carry out what programs cannot hold; ``statements`` get what stands for it in the end."""
    found = Calculated(Calculator(definitions if definitions.owner else definitions.plain, unit))
    bodies = {lane_id: one for lane_id, one in statements.items() if beyond(one.body)}
    if not bodies and not definitions.owner:
        return found
    names = _names_beyond(definitions.plain) | definitions.measured
    wrong = circles(lanes, statements, {**definitions.plain, **definitions.needs})
    found.circles = wrong
    definitions.broken |= _names_of(lanes, statements, {*errors, *wrong})
    for lane in lanes:
        statement = statements.get(lane.id)
        if statement is None or lane.id in errors or lane.id in wrong or lane.fit is not None:
            continue
        touched = lane.id in bodies or any(one.name in names for one in names_in(statement.body))
        name = str(statement.name or lane.name)
        if not touched and isinstance(statement, FunctionStatement):
            names -= {name}
        if not touched or missing_names(statement, definitions, set()):
            continue
        if lane.working:
            found.for_lines.add(lane.id)
            if isinstance(statement, ValueStatement):
                found.lines[name] = lane.id
            continue
        try:
            _carried_out(found, lane, statement, names, axes)
            if isinstance(found.instead.get(lane.id), FunctionStatement):
                names -= {name}  # written out now
            continue
        except NoResult as error:
            reason = str(error)
        except OutOfTime:
            reason = SLOW
        sentence = f"{reason[:1].upper()}{reason[1:].rstrip('.')}."
        errors[lane.id] = Uncomputed(sentence, 0, len(lane.text))
    statements.update(found.instead)
    return found


def _names_of(
    lanes: tuple[Lane, ...], statements: Mapping[str, Statement], ids: set[str]
) -> set[str]:
    """What some lanes define."""
    return {
        name
        for lane in lanes
        if lane.id in ids and (read := statements.get(lane.id)) is not None
        for name in defined_by(read, str(read.name or lane.name))
    }


def _names_beyond(definitions: Mapping[str, Definition]) -> set[str]:
    """The names whose meaning programs cannot hold, however indirectly."""
    found = {name for name, one in definitions.items() if _only_for_lines(one)}
    users: dict[str, set[str]] = {}
    for name, definition in definitions.items():
        for used in names_in(definition.body):
            users.setdefault(used.name, set()).add(name)
    pending = list(found)
    while pending:
        for user in users.get(pending.pop(), ()):
            if user not in found:
                found.add(user)
                pending.append(user)
    return found


def _only_for_lines(one: Definition) -> bool:
    """Whether a program cannot hold a definition; a function that is an integral it can."""
    held = one.parameters is not None
    return any(_beyond(node, set()) and not (held and _is_held(node)) for node in walk(one.body))


def _is_held(node: Expression) -> bool:
    """Whether a node is an integral from one number to another."""
    if not isinstance(node, Running) or node.function != "integral":
        return False
    return len(node.ends) == 2 and not any(INFINITE in walk(end) for end in node.ends)


def _carried_out(
    found: Calculated, lane: Lane, statement: Statement, names: set[str], axes: Axes
) -> None:
    if isinstance(statement, ValueStatement) and not isinstance(statement.body, Pair):
        stand = stands_for(found.outcome(lane.id, statement.body).value)
        if stand is None:
            found.for_lines.add(lane.id)
        else:
            found.instead[lane.id] = ValueStatement(statement.name, stand)
        return
    if isinstance(statement, RelationStatement):
        raise NoResult("a relation compares numbers; name what it needs on a line of its own")
    holds = axes.measured and _holds_quantities(found.calculator, statement.body)
    if holds and isinstance(statement, FunctionStatement):
        made = placed(statement, axes, found.calculator.definitions, found.calculator)
        found.instead[lane.id] = made.statement
        found.measures[lane.id] = made.measure
        return
    try:
        body = _settled(found.calculator, statement.body, set(statement.parameters), names)
    except _Open as reason:
        raise NoResult(str(reason)) from None
    found.instead[lane.id] = replace(statement, body=body)


def _holds_quantities(calculator: Calculator, body: Expression) -> bool:
    """Whether a formula has units, or names whose values have some, however indirectly."""
    seen: set[str] = set()
    pending = [body]
    while pending:
        node = pending.pop()
        if has_units(node):
            return True
        for one in names_in(node):
            known = calculator.definitions.get(one.name)
            if known is not None and one.name not in seen:
                seen.add(one.name)
                pending.append(known.body)
    return False


INFINITE = Constant("∞")


class _Open(Exception):
    """A part that only lines can compute needs an argument."""


def _settled(
    calculator: Calculator, node: Expression, bound: set[str], names: set[str]
) -> Expression:
    """A tree in which every part that programs cannot hold is what it comes to."""
    if not beyond(node, names):
        return node
    needs = {one.name for one in free_names(node)} & bound
    if isinstance(node, Running) and node.function in ("derivative", "taylor") and not needs:
        value = calculator.result(node).value
        if isinstance(value, Formula):
            if value.variable not in bound:
                raise NoResult(f"this is a formula in {value.variable}: {value.variable} is free")
            return value.expression
    if (
        isinstance(node, Running)
        and (node.function, node.ends) == ("derivative", ())
        and needs
        and node.index in bound
        and not beyond(node.body, names)
    ):
        return derivative(node.body, node.index, calculator.definitions)
    if isinstance(node, Running) and node.function == "integral" and needs:
        # A function of its ends: a program holds it, if it holds what is integrated.
        if not _is_held(node) or beyond(node.body, names):
            raise _Open("the ends of this integral are numbers or functions, and none is ∞")
        return node
    if isinstance(node, Pair | ListOf) or needs:
        if not children(node) or _beyond(node, names):
            raise _Open("a matrix or complex number is computed from numbers alone, not from x")
        return rebuilt(node, lambda part: _settled(calculator, part, bound, names))
    stand = stands_for(calculator.result(node).value)
    if stand is not None:
        return stand
    if not children(node) or _beyond(node, names):
        raise NoResult(_not_real(calculator, node))
    return rebuilt(node, lambda part: _settled(calculator, part, bound, names))


def _not_real(calculator: Calculator, node: Expression) -> str:
    """What a sentence says of a value that a program cannot hold."""
    value = calculator.result(node).value
    if isinstance(value, Measured):
        return f"a quantity in {told(value.dimension)} stands where a plain number is needed"
    return "a matrix or a complex number stands where a real number is needed"


def stands_for(value: Value) -> Expression | None:
    """A real number or a list of them as an expression; None for other values."""
    if isinstance(value, Items):
        parts = [stands_for(one) for one in value.values]
        kept = tuple(part for part in parts if part is not None)
        return ListOf(kept) if len(kept) == len(parts) else None
    if isinstance(value, Grid | Formula | Parts | Undefined | Measured) or not is_real(value):
        return None
    return tree_of(value)
