"""Trees to programs."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from functools import partial

from axispath.core import catalogue
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.needed import fixed, needed_for
from axispath.core.arithmetic.patience import time_check
from axispath.core.arithmetic.program import (
    MAX_STEPS,
    MAX_WHOLE_EXPONENT,
    Definition,
    NotComputable,
    Program,
    Step,
    TooLarge,
    allowed,
)
from axispath.core.language.exponents import odd_root
from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Constant,
    Converted,
    Expression,
    ListOf,
    MatrixOf,
    Name,
    Negation,
    Number,
    Pair,
    Part,
    Power,
    Product,
    Quotient,
    Running,
    Series,
    Stretch,
    Sum,
    UnitOf,
)
from axispath.core.language.walking import free_names, literal

# What an expression comes to: one step, or a list of steps.
Value = int | tuple[int, ...]
Names = Mapping[str, int]
MOST_VISITED = 400_000  # parts of a formula, with all that it depends on
LOOK_EVERY = 256  # parts of a formula between two looks at the clock
SHORT = 12  # steps of an exponent that is looked at for being a whole number
ONE = Number("1")
PLAIN = ("number", "negate", "add", "subtract", "multiply", "divide", "whole power")


def program(
    expression: Expression,
    inputs: tuple[str, ...] = ("x",),
    definitions: Mapping[str, Definition] | None = None,
    everywhere: bool = False,
    turned: tuple[str, ...] = (),
) -> Program:
    """Write ``expression`` out as steps. Every name must be an input or defined.

    Inputs hide values of the sheet with their names: in the expression itself, and with
    ``everywhere`` in all definitions that it needs. Values that are ``turned`` are further inputs,
    behind the others, for whatever needs them.

    Raises NotComputable with a sentence where that cannot be done.
    """
    builder = Builder({} if definitions is None else definitions)
    names = {name: builder.step(Step("input", (), name)) for name in inputs}
    if everywhere:
        builder.values.update(names)
    for name in turned:
        builder.values[name] = builder.step(Step("input", (), (name, "turned")))
    value = builder.expression(expression, names)
    count = len(inputs) + len(turned)
    if isinstance(value, int):
        return Program(count, tuple(builder.steps), value)
    last = value[-1] if value else builder.step(Step("undefined"))
    return Program(count, tuple(builder.steps), last, value)


@dataclass
class Builder:
    """Writes steps, each different one once."""

    definitions: Mapping[str, Definition]
    steps: list[Step] = field(default_factory=list)
    known: dict[Step, int] = field(default_factory=dict)
    values: dict[str, Value] = field(default_factory=dict)
    calls: dict[tuple[str, int, tuple[int, ...]], int] = field(default_factory=dict)
    derivatives: dict[tuple[str, int], Definition] = field(default_factory=dict)
    check: Callable[[], None] | None = field(default_factory=time_check)
    visited: int = 0
    # By identity, with what must stay alive for that.
    written: dict[tuple[int, int], tuple[Value, Expression, Names]] = field(default_factory=dict)

    def step(self, step: Step) -> int:
        """The index of a step, written down if it is new."""
        if step in self.known:
            return self.known[step]
        if len(self.steps) >= MAX_STEPS:
            raise TooLarge
        self.steps.append(step)
        self.known[step] = len(self.steps) - 1
        return len(self.steps) - 1

    def number(self, value: Fraction | int) -> int:
        """A number."""
        return self.step(Step("number", (), Fraction(value)))

    def expression(self, node: Expression, names: Names) -> Value:
        """The steps of an expression."""
        # Derivatives share their parts: each is written out once for the same names.
        key = id(node), id(names)
        if key not in self.written:
            self.written[key] = self._expression(node, names), node, names
        return self.written[key][0]

    def _expression(self, node: Expression, names: Names) -> Value:
        self.visited += 1
        if self.visited > MOST_VISITED:
            raise TooLarge
        if self.check is not None and self.visited % LOOK_EVERY == 0:
            self.check()
        match node:
            case Number():
                return self.number(node.value)
            case Constant(name):
                if name not in catalogue.CONSTANTS:
                    raise NotComputable("A complex number stands where a real one is needed.")
                return self.step(Step("constant", (), name))
            case Name(name):
                return names[name] if name in names else self.value(name)
            case Negation(operand):
                return self.each("negate", None, self.expression(operand, names))
            case Sum(terms):
                return self.sum(terms, names)
            case Product(left, right):
                return self.both("multiply", left, right, names)
            case Quotient(top, bottom):
                return self.both("divide", top, bottom, names)
            case Power(base, exponent):
                return self.power(base, exponent, names)
            case Apply(function, arguments):
                return self.apply(function, arguments, names)
            case Call(name, arguments, order):
                given = [self.expression(part, names) for part in arguments]
                return self.spread(partial(self.call, name, order), given)
            case Cases():
                return self.cases(node, names)
            case ListOf(items):
                return self.flat([self.expression(item, names) for item in items])
            case Series():
                return self.series(node, names)
            case Stretch(low, high):
                return self.range("steps", [self.expression(p, names) for p in (low, high, ONE)])
            case Part(base, indices):
                return self.part(self.expression(base, names), indices, names)
            case Pair():
                raise NotComputable("A point is no number.")
            case MatrixOf():
                raise NotComputable("A matrix stands where one number is needed.")
            case UnitOf() | Converted():
                raise NotComputable("Units are computed with on lines of Working.")
            case Running("integral", _, _, (_, _)):
                return self.integral(node, names)
            case Running(function):
                raise NotComputable(f"{function} is computed from numbers alone here.")

    def one(self, node: Expression, names: Names) -> int:
        """An expression that must not be a list."""
        value = self.expression(node, names)
        if isinstance(value, tuple):
            raise NotComputable("A list stands where one number is needed.")
        return value

    def each(self, operation: str, detail: object, *values: Value) -> Value:
        """One operation, carried out element by element where lists take part."""
        return self.spread(lambda *given: self.step(Step(operation, given, detail)), list(values))

    def spread(self, work: object, values: list[Value]) -> Value:
        """``work`` on numbers, or element by element on lists of one length."""
        assert callable(work)
        lengths = {len(value) for value in values if isinstance(value, tuple)}
        if not lengths:
            return int(work(*values))
        if len(lengths) > 1:
            few, many = sorted(lengths)[:2]
            raise NotComputable(f"Lists of {few} and of {many} values cannot be combined.")
        (length,) = lengths
        rows = [value if isinstance(value, tuple) else (value,) * length for value in values]
        return tuple(int(work(*row)) for row in zip(*rows, strict=True))

    def flat(self, values: list[Value]) -> tuple[int, ...]:
        """Lists and numbers as one list."""
        found: list[int] = []
        for value in values:
            found += value if isinstance(value, tuple) else (value,)
        return tuple(found)

    def both(self, operation: str, left: Expression, right: Expression, names: Names) -> Value:
        """An operation on two expressions."""
        first = self.expression(left, names)
        return self.each(operation, None, first, self.expression(right, names))

    def sum(self, terms: tuple[Expression, ...], names: Names) -> Value:
        """Terms added, or taken away where they are negated."""
        total = self.expression(terms[0], names)
        for term in terms[1:]:
            if isinstance(term, Negation):
                other = self.expression(term.operand, names)
                total = self.each("subtract", None, total, other)
            else:
                total = self.each("add", None, total, self.expression(term, names))
        return total

    def power(self, base: Expression, exponent: Expression, names: Names) -> Value:
        """A power, by the kind of its exponent."""
        value = literal(exponent)
        if value is not None and value.denominator == 1:
            if abs(value) > MAX_WHOLE_EXPONENT:
                raise TooLarge
            return self.each("whole power", int(value), self.expression(base, names))
        root = odd_root(exponent)
        if root is not None:
            return self.each("root power", root, self.expression(base, names))
        if base == Constant("e"):
            return self.each("apply", "exp", self.expression(exponent, names))
        raised = self.expression(exponent, names)
        whole = self._whole(raised)
        if whole is not None:
            return self.each("whole power", whole, self.expression(base, names))
        return self.each("power", None, self.expression(base, names), raised)

    def _whole(self, value: Value) -> int | None:
        """The whole number that an exponent is once it is written out, as in a sum over k."""
        if not isinstance(value, int) or len(needed := needed_for(self.steps, value)) > SHORT:
            return None
        if any(self.steps[i].operation not in PLAIN for i in needed):
            return None
        found = fixed(self.steps, value)
        if found is None or found.denominator != 1 or abs(found) > MAX_WHOLE_EXPONENT:
            return None
        return int(found)

    def apply(self, function: str, arguments: tuple[Expression, ...], names: Names) -> Value:
        """A function of the catalogue."""
        if function in catalogue.CALCULATED:
            raise NotComputable(f"{function} is computed from numbers alone here.")
        entry = catalogue.ENTRIES[function]
        given = [self.expression(part, names) for part in arguments]
        if function in ("steps", "spread"):
            return self.range(function, given)
        if entry.word.many:
            items = self.flat(given)
            if not items:
                raise NotComputable(f"{function} needs at least one value.")
            if function in ("min", "max") and len(items := tuple(dict.fromkeys(items))) == 1:
                return items[0]
            return self.step(Step("apply", items, function))
        return self.each("apply", function, *given)

    def part(self, base: Value, indices: tuple[Expression, ...], names: Names) -> Value:
        """An entry or a stretch of a list; behind a number a list in brackets is a factor."""
        asked = self.expression(ListOf(indices), names)
        assert isinstance(asked, tuple)
        if isinstance(base, int):
            return self.each("multiply", None, base, asked)
        places = [self.constant(value, "The place in a list") for value in asked]
        if len(indices) > 1 or any(p.denominator > 1 or not 1 <= p <= len(base) for p in places):
            raise NotComputable(f"A list of {len(base)} values has places 1 to {len(base)}.")
        found = tuple(base[int(place) - 1] for place in places)
        return found if isinstance(indices[0], Stretch | ListOf) else found[0]

    def range(self, function: str, given: list[Value]) -> Value:
        """A list by step or by count."""
        low, high, third = given
        if not all(isinstance(value, int) for value in given):
            raise NotComputable(f"{function} takes three numbers.")
        size = self.constant(third, f"The last number of {function}")
        if function == "steps":
            if size == 0:
                raise NotComputable("The step of a list must not be 0.")
            first = self.constant(low, "The start of steps")
            distance = self.constant(high, "The end of steps") - first
            many = distance / size * (1 + Fraction(1, 10**12))
            count = int(many) + 1 if many >= 0 else 0
            return tuple(self.number(first + k * size) for k in range(allowed(count)))
        if size.denominator != 1 or size < 2:
            raise NotComputable("spread needs a whole number of values, 2 or more.")
        count = allowed(int(size))
        width = self.each("subtract", None, high, low)
        shares = tuple(self.number(Fraction(k, count - 1)) for k in range(count))
        return self.each("add", None, low, self.each("multiply", None, width, shares))

    def constant(self, value: Value, what: str) -> Fraction:
        """The exact value of a step without inputs."""
        assert isinstance(value, int)
        if any(self.steps[index].operation == "input" for index in needed_for(self.steps, value)):
            raise NotComputable(f"{what} has to be a fixed number.")
        found = fixed(self.steps, value)
        if found is None:
            raise NotComputable(f"{what} has to be a fixed fraction.")
        return found

    def cases(self, node: Cases, names: Names) -> int:
        """Cases as a chain of choices."""
        rest = (
            self.step(Step("undefined"))
            if node.otherwise is None
            else self.one(node.otherwise, names)
        )
        for value, condition in reversed(list(zip(node.values, node.conditions, strict=True))):
            rest = self.chosen(condition, self.one(value, names), rest, names)
        return rest

    def chosen(self, condition: Comparison, value: int, rest: int, names: Names) -> int:
        """A choice by a chain of comparisons."""
        operands = [self.one(part, names) for part in condition.operands]
        pairs = list(zip(operands, condition.signs, operands[1:], strict=False))
        for left, sign, right in reversed(pairs):
            value = self.step(Step("choose", (left, right, value, rest), sign))
        return value

    def series(self, node: Series, names: Names) -> int:
        """A sum or product over a range, written out."""
        low = self.constant(self.one(node.low, names), "The start of the range")
        high = self.constant(self.one(node.high, names), "The end of the range")
        if low.denominator != 1 or high.denominator != 1:
            raise NotComputable("The range of a sum goes from a whole number to a whole number.")
        count = allowed(int(high - low) + 1)
        operation, start = ("add", 0) if node.kind == "sum" else ("multiply", 1)
        total = self.number(start)
        for k in range(int(low), int(low) + count):
            term = self.one(node.body, {**names, node.index: self.number(k)})
            total = term if k == low else self.step(Step(operation, (total, term)))
        return total

    def integral(self, node: Running, names: Names) -> int:
        """A definite integral, of a formula in which nothing but its own letter runs."""
        if any(one.name in names for one in free_names(node.body) if one.name != node.index):
            raise NotComputable("The formula of an integral must not depend on other arguments.")
        inner = program(node.body, (node.index,), self.definitions)
        return self.step(Step("integral", tuple(self.one(end, names) for end in node.ends), inner))

    def value(self, name: str) -> Value:
        """A value of the sheet, written out once."""
        if name not in self.values:
            self.values[name] = self.expression(self.definitions[name].body, {})
        return self.values[name]

    def call(self, name: str, order: int, *given: int) -> int:
        """A function of the sheet, written out once for the same arguments."""
        # Without this, a chain of lanes that each use the one before twice doubles at every lane.
        key = (name, order, given)
        if len(self.definitions[name].parameters or ()) != len(given):
            raise NotComputable(f"{name} is not a function of so many arguments.")
        if key not in self.calls:
            self.calls[key] = self.written_out(name, order, given)
        return self.calls[key]

    def written_out(self, name: str, order: int, given: tuple[int, ...]) -> int:
        """A function or derivative of the sheet with its domain."""
        definition = self.derived(name, order)
        inner = dict(zip(definition.parameters or (), given, strict=True))
        result = self.one(definition.body, inner)
        if order:
            # A derivative has a value only where the function has: (ln x)′ is not 1/x below 0.
            result = self.step(Step("given", (result, self.call(name, order - 1, *given))))
        domain = definition.domain
        if domain is None:
            return result
        for end, closed, side in (
            (domain.low, domain.low_closed, "above"),
            (domain.high, domain.high_closed, "below"),
        ):
            if end is not None:
                detail = (f"at or {side}" if closed else side, name)
                result = self.step(Step("restrict", (result, given[0], self.one(end, {})), detail))
        return result

    def derived(self, name: str, order: int) -> Definition:
        """The definition of a function, or of its derivative."""
        if order == 0:
            return self.definitions[name]
        if (name, order) not in self.derivatives:
            before = self.derived(name, order - 1)
            assert before.parameters is not None
            body = derivative(before.body, before.parameters[0], self.definitions)
            self.derivatives[name, order] = Definition(before.parameters, body, before.domain)
        return self.derivatives[name, order]
