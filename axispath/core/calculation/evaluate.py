"""A tree to a value: exact numbers as long as it can be, enclosures otherwise.

The tree is walked at a working precision; where enclosures are too wide to decide something or to
give the digits that are wanted, it is walked again with more. Definitions of the sheet are carried
out once each, whatever their kind.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from fractions import Fraction

from axispath.core import catalogue
from axispath.core.arithmetic.comparing import COMPARED
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.patience import time_check
from axispath.core.arithmetic.program import Definition
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.continued import CONTINUED, real_part
from axispath.core.calculation.functions import at_numbers, refuse_cut
from axispath.core.calculation.lists import MADE, allowed, of_many
from axispath.core.calculation.measuring import (
    constant_value,
    converted,
    temperature,
    unit_value,
)
from axispath.core.calculation.pieces import is_turned, number_of
from axispath.core.calculation.running import RUNNING
from axispath.core.catalogue.sequences import section
from axispath.core.language.exponents import odd_root
from axispath.core.language.measured import difference_before
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
from axispath.core.language.vocabulary import IMAGINARY_UNIT
from axispath.core.quantities import grids
from axispath.core.quantities.polar import principal_root
from axispath.core.quantities.scalars import (
    TooWide,
    enclosed,
    is_real,
    known,
    negate,
    real_root,
    sign,
    subtract,
    to_power,
    whole,
)
from axispath.core.quantities.surds import IMAGINARY, PI, Surd
from axispath.core.quantities.values import (
    Grid,
    Items,
    NoResult,
    Scalar,
    Undefined,
    Value,
)

MOST_CONDITIONED = 60  # rows up to which a condition number is told
MOST_NESTED = 150  # calls within calls
MOST_VISITED = 400_000
EVERY = 64
ONE = Surd.of(1)
Names = Mapping[str, Value]
Known = tuple[Value, bool, float]  # with what is told of it: see Evaluator


@dataclass
class Evaluator:
    """Carries trees out on the definitions of a sheet; one for each precision."""

    definitions: Mapping[str, Definition]
    unit: AngleUnit
    known: dict[str, Known] = field(default_factory=dict)
    visited: int = 0
    depth: int = 0
    condition: float = 0.0  # the largest one of what was solved inexactly
    principal: bool = False  # whether a complex number came out of a real one
    analytic: bool = False  # whether only what is analytic on its whole argument may be answered
    check: Callable[[], None] | None = field(default_factory=time_check)

    def value(self, node: Expression, names: Names) -> Value:
        """The value of an expression. Raises NoResult, TooWide, OutOfTime."""
        self.visited += 1
        if self.visited > MOST_VISITED:
            raise NoResult("this takes too many steps to compute")
        if self.check is not None and self.visited % EVERY == 0:
            self.check()
        match node:
            case Number():
                return number_of(node.text)
            case Constant(name):
                return self.constant(name)
            case Name(name):
                return self.named(name, names)
            case Negation(Product(left, UnitOf(symbol))) if symbol.startswith("°"):
                return temperature(negate(self.number(left, names)), symbol)
            case Negation(operand):
                return grids.opposite(self.value(operand, names))
            case Sum(terms):
                return self.sum(terms, names)
            case Product(left, UnitOf(symbol)) if symbol.startswith("°"):
                return temperature(self.number(left, names), symbol)
            case UnitOf(symbol):
                return unit_value(symbol)
            case Converted(body, unit):
                value = self.value(body, names)
                return grids.each(lambda one: converted(one, unit, body), value)
            case Product(left, right):
                left = difference_before(left, right)
                return grids.product(self.value(left, names), self.value(right, names))
            case Quotient(top, bottom):
                top = difference_before(top, bottom)
                return grids.quotient(self.value(top, names), self.value(bottom, names))
            case Power(base, exponent):
                return self.power(base, exponent, names)
            case Apply(function, arguments):
                return self.apply(function, [self.value(part, names) for part in arguments])
            case Call(name, arguments, order):
                return self.call(name, order, [self.value(part, names) for part in arguments])
            case ListOf(items):
                return self.items(items, names)
            case MatrixOf(rows):
                return self.matrix(rows, names)
            case Part(base, indices):
                return self.part(base, indices, names)
            case Stretch(low, high):
                return self.stretch(low, high, names)
            case Cases():
                return self.cases(node, names)
            case Series():
                return self.series(node, names)
            case Running():
                return RUNNING[node.function](self, node, names)
            case Pair():
                raise NoResult("a point is no number")

    def number(self, node: Expression, names: Names, what: str = "this") -> Scalar:
        """The value of an expression that has to be a number."""
        return grids.scalar(self.value(node, names), what)

    def constant(self, name: str) -> Scalar:
        """A constant of the catalogue."""
        if name == "π":
            return PI
        if name == "τ":
            return PI + PI
        if name == "φ":
            return (ONE + Surd.of(5).square_root()) * Surd.of(Fraction(1, 2))
        if name == IMAGINARY_UNIT:
            return IMAGINARY
        if name in catalogue.PHYSICAL:
            return constant_value(name)
        if name == "∞":
            raise NoResult("∞ is no number: it stands only at the end of a range")
        return catalogue.CONSTANTS[name].ball()

    def named(self, name: str, names: Names) -> Value:
        """A value by its name: an argument, a value of the sheet, or i."""
        if name in names:
            return names[name]
        if name not in self.known:
            definition = self.definitions.get(name)
            if definition is None:
                raise NoResult(f"waits for {name}")
            if definition.parameters is not None:
                raise NoResult(f"{name} is a function: {name}(2) is a value of it")
            outer = self.principal, self.condition
            self.principal, self.condition = False, 0.0
            value = self.deeper(lambda: self.value(definition.body, {}))
            self.known[name] = value, self.principal, self.condition
            self.principal, self.condition = outer
        value, principal, condition = self.known[name]
        self.principal = self.principal or principal
        self.condition = max(self.condition, condition)
        return value

    def deeper(self, work: Callable[[], Value]) -> Value:
        """One level of calls within calls."""
        self.depth += 1
        if self.depth > MOST_NESTED:
            raise NoResult("these definitions call one another too deeply")
        try:
            return work()
        finally:
            self.depth -= 1

    def sum(self, terms: tuple[Expression, ...], names: Names) -> Value:
        """Terms added, or taken away where they are negated."""
        total = self.value(terms[0], names)
        for term in terms[1:]:
            if isinstance(term, Negation):
                total = grids.difference(total, self.value(term.operand, names))
            else:
                total = grids.sum_of(total, self.value(term, names))
        return total

    def power(self, base: Expression, exponent: Expression, names: Names) -> Value:
        """A power; one with an odd root written as a fraction is real for negative numbers."""
        if base == Constant("e"):
            return self.apply("exp", [self.value(exponent, names)])
        low = self.value(base, names)
        root = odd_root(exponent)
        if root is not None:
            bottom, top = root.denominator, Surd.of(root.numerator)
            return grids.each(lambda z: to_power(real_root(z, bottom), top), low)
        high = self.value(exponent, names)
        if isinstance(low, Grid) or isinstance(high, Grid):
            found = grids.power(low, high)
            if isinstance(high, Surd) and high.is_real and high.sign() < 0:
                self.told(low, found)
            return found
        return grids.each(self.raised, low, high)

    def raised(self, base: Scalar, exponent: Scalar) -> Scalar:
        """A power of numbers, exact for roots at angles with exact sines."""
        found = exponent.rational if isinstance(exponent, Surd) else None
        if found is not None and found.denominator > 1 and is_turned(base):
            self.principal = self.principal or is_real(base)
            root = principal_root(base, found.denominator)
            return to_power(root, Surd.of(found.numerator))
        if self.analytic and (found is None or found.denominator > 1):
            refuse_cut(base)
        value = to_power(base, exponent)
        if is_real(base) and is_real(exponent) and not is_real(value):
            self.principal = True
        return value

    def apply(self, function: str, given: list[Value]) -> Value:
        """A function of the catalogue."""
        if self.analytic and function in CONTINUED:
            return CONTINUED[function]([grids.scalar(value, "this") for value in given])
        if self.analytic and function in catalogue.CALCULATED:
            raise TooWide
        if function in catalogue.CALCULATED:
            entry = catalogue.CALCULATED[function]
            unit = (self.unit is AngleUnit.DEGREE,) if entry.angles else ()
            found = entry.work(*unit, *given)
            if entry.solves:
                self.told(given[0], found)
            return found
        if function in MADE:
            return MADE[function](given)
        if function == "abs" and isinstance(given[0], Grid):
            one_row = 1 in given[0].size and given[0].size != (1, 1)
            return self.apply("norm" if one_row else "det", given)
        known = catalogue.ENTRIES[function]
        if known.word.many:
            return of_many(function, given)
        return grids.each(lambda *z: self.at(function, z), *given)

    def told(self, matrix: Value, found: Value) -> None:
        """Keep the condition number where something was solved inexactly."""
        if not isinstance(matrix, Grid) or matrix.size[0] > MOST_CONDITIONED:
            return
        values = found.values if isinstance(found, Items) else ()
        values = found.entries if isinstance(found, Grid) else values
        if any(not isinstance(one, Surd) for one in values):
            number = grids.scalar(catalogue.CALCULATED["condition"].work(matrix), "a condition")
            if not isinstance(number, Undefined):
                self.condition = max(self.condition, float(abs(enclosed(known(number))).mid()))

    def at(self, function: str, given: tuple[Scalar, ...]) -> Scalar:
        """A function at numbers."""
        found = at_numbers(function, self.unit, given, self.analytic)
        if not isinstance(found, Undefined) and not is_real(found):
            self.principal = self.principal or all(is_real(value) for value in given)
        return found

    def items(self, items: tuple[Expression, ...], names: Names) -> Value:
        """A list; lists inside it are joined."""
        found: list[Scalar] = []
        for item in items:
            value = self.value(item, names)
            if isinstance(value, Items):
                found += value.values
            else:
                found.append(grids.scalar(value, "an entry of a list"))
        return Items(tuple(found))

    def matrix(self, rows: tuple[tuple[Expression, ...], ...], names: Names) -> Value:
        """A matrix of numbers."""
        grids.sized(len(rows), len(rows[0]))
        found = []
        for row in rows:
            line = self.items(row, names)
            assert isinstance(line, Items)
            found.append(line.values)
        if len({len(row) for row in found}) > 1:
            raise NoResult("the rows of this matrix are not equally long")
        return Grid(tuple(found))

    def part(self, base: Expression, indices: tuple[Expression, ...], names: Names) -> Value:
        """An entry or a section; behind a number a list in brackets is a factor."""
        value = self.value(base, names)
        if isinstance(value, Items | Grid):
            return section(value, tuple(self.value(index, names) for index in indices))
        return grids.product(value, self.items(indices, names))

    def stretch(self, low: Expression, high: Expression, names: Names) -> Value:
        """Whole numbers one after the other."""
        first = whole(self.number(low, names), "the start of a stretch")
        last = whole(self.number(high, names), "the end of a stretch")
        allowed(last - first + 1)
        return Items(tuple(Surd.of(k) for k in range(first, last + 1)))

    def cases(self, node: Cases, names: Names) -> Value:
        """The first value whose condition holds."""
        for value, condition in zip(node.values, node.conditions, strict=True):
            if self.holds(condition, names):
                return self.value(value, names)
        if node.otherwise is None:
            return Undefined("none of its cases holds")
        return self.value(node.otherwise, names)

    def holds(self, condition: Comparison, names: Names) -> bool:
        """Whether a chain of comparisons holds."""
        given = [self.number(part, names, "what is compared") for part in condition.operands]
        for left, how, right in zip(given, condition.signs, given[1:], strict=False):
            apart = subtract(left, right)
            apart = real_part(apart) if self.analytic else apart
            if not COMPARED[how](sign(apart), 0):
                return False
        return True

    def series(self, node: Series, names: Names) -> Value:
        """A sum or product over a range."""
        low = whole(self.number(node.low, names), "the start of a range")
        high = whole(self.number(node.high, names), "the end of a range")
        allowed(high - low + 1)
        work = grids.sum_of if node.kind == "sum" else grids.product
        total: Value = Surd.of(0 if node.kind == "sum" else 1)
        for k in range(low, high + 1):
            term = self.value(node.body, {**names, node.index: Surd.of(k)})
            total = term if k == low else work(total, term)
        return total

    def call(self, name: str, order: int, given: list[Value]) -> Value:
        """A function of the sheet, or its derivative, at values of any kind."""
        definition = self.definitions.get(name)
        if definition is None or definition.parameters is None:
            raise NoResult(f"waits for {name}")
        if len(definition.parameters) != len(given):
            raise NoResult(f"{name} is not a function of so many arguments")
        body = definition.body
        for _ in range(order):
            body = derivative(body, definition.parameters[0], self.definitions)
        names = dict(zip(definition.parameters, given, strict=True))
        self.inside(name, definition, given[0])
        value = self.deeper(lambda: self.value(body, names))
        if order:
            # A derivative has a value only where the function has.
            own = self.call(name, 0, given)
            return own if isinstance(own, Undefined) else value
        return value

    def inside(self, name: str, definition: Definition, given: Value) -> None:
        """Refuse an argument outside the domain."""
        domain = definition.domain
        if domain is None:
            return
        x = grids.scalar(given, f"the argument of {name}")
        for end, closed, way in (
            (domain.low, domain.low_closed, 1),
            (domain.high, domain.high_closed, -1),
        ):
            if end is None:
                continue
            side = way * sign(subtract(x, self.number(end, {})))
            if side < 0 or (side == 0 and not closed):
                raise NoResult(f"outside the domain of {name}")
