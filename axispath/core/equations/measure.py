"""Equations between quantities as equations between numbers of the SI's units.

Dimensions are found before any number is; a 0 has whatever dimension is wanted.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.program import Definition
from axispath.core.arithmetic.simplest import number
from axispath.core.calculation.measuring import Shown, shown_in
from axispath.core.equations.forms import PLAIN, Dimensions, Form, is_wild
from axispath.core.equations.reading import Equation
from axispath.core.language.measured import difference_before
from axispath.core.language.rebuild import substituted
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
from axispath.core.language.walking import free_names, literal, walk
from axispath.core.quantities.dimensions import NONE, Dimension
from axispath.core.quantities.scalars import is_real
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, NoResult, Scalar, Undefined, Value

HALF, THIRD = Fraction(1, 2), Fraction(1, 3)
ALIKE = ("min", "max", "abs", "mean", "median")  # give what they take
MOST_INLINED = 40  # functions of the sheet within one another
TEMPERATURES = "temperatures on such a scale are not added: give a difference in K"


@dataclass(frozen=True, slots=True)
class Kind:
    """What a known value is measured in; ``wrong`` says why it cannot be used."""

    dimension: Dimension = NONE
    scale: Shown | None = None
    wrong: str = ""


@dataclass(frozen=True, slots=True)
class Bare:
    """A formula in numbers of the SI and its dimension; ``scale`` where its zero is that of one."""

    tree: Expression
    form: Form
    scale: Shown | None = None


@dataclass
class Measuring:
    """Turns the equations of one system into such between numbers.

    ``known`` says of names with a value what that is measured in; functions of the sheet are
    written out where they are called. Where all is ``unmeasured`` there is nothing to be found.
    """

    known: Mapping[str, Kind]
    definitions: Mapping[str, Definition]
    unknowns: frozenset[str]
    unmeasured: bool = False
    dimensions: Dimensions = field(default_factory=Dimensions)
    wished: dict[str, Shown] = field(default_factory=dict)
    scales: dict[str, Shown] = field(default_factory=dict)  # of unknowns that are temperatures
    depth: int = 0

    def equation(self, one: Equation) -> tuple[Expression, Expression]:
        """Both sides as numbers. Raises NoResult with what does not fit."""
        self.dimensions.equation = one.number
        left, right = (self._wished(side) for side in (one.left, one.right))
        self.dimensions.same(
            left.form,
            right.form,
            lambda a, b: f"equation {one.number} has {a} on its left and {b} on its right",
        )
        for side, other in ((one.left, right), (one.right, left)):
            if isinstance(side, Name) and side.name in self.unknowns and other.scale is not None:
                self.scales[side.name] = other.scale
        return left.tree, right.tree

    def _wished(self, side: Expression) -> Bare:
        if isinstance(side, Converted) and isinstance(side.body, Name):
            self.wished[side.body.name] = shown_in(side.unit)[0]
        return self.bare(side)

    def bare(self, node: Expression) -> Bare:
        """A formula as one of numbers."""
        match node:
            case Number():
                wild = not node.value and not self.unmeasured
                return Bare(node, self.dimensions.any() if wild else PLAIN)
            case Constant(name) if name in catalogue.PHYSICAL:
                one = catalogue.PHYSICAL[name]
                return Bare(number(one.value), Form(one.dimension))
            case Constant():
                return Bare(node, PLAIN)
            case Name(name):
                return self.name(name)
            case UnitOf(symbol):
                unit = catalogue.unit_of(symbol)
                assert unit is not None
                return Bare(number(unit.factor), Form(unit.dimension))
            case Product(left, UnitOf(symbol)) if symbol.startswith("°"):
                return self.temperature(left, symbol)
            case Negation(Product(left, UnitOf(symbol))) if symbol.startswith("°"):
                return self.temperature(Negation(left), symbol)
            case Negation(operand):
                inner = self.bare(operand)
                return Bare(Negation(inner.tree), inner.form, inner.scale)
            case Sum(terms):
                return self.sum(terms)
            case Product(left, right):
                first, second = self.bare(difference_before(left, right)), self.bare(right)
                return Bare(Product(first.tree, second.tree), first.form.times(second.form))
            case Quotient(top, bottom):
                first, second = self.bare(difference_before(top, bottom)), self.bare(bottom)
                form = first.form.times(second.form, Fraction(-1))
                return Bare(Quotient(first.tree, second.tree), form)
            case Power(base, exponent):
                return self.power(base, exponent)
            case Converted(body, unit):
                inner = self.bare(body)
                of = shown_in(unit)
                words = f"{{}} cannot be shown in {of[0][0]}"
                self.dimensions.same(inner.form, Form(of[1]), lambda a, _: words.format(a))
                return inner
            case Apply(function, arguments):
                return self.apply(function, arguments)
            case Call():
                return self.call(node)
            case Cases():
                return self.cases(node)
            case Series() | Running():
                return Bare(node, PLAIN)
            case MatrixOf() | Part() | Stretch() | Pair() | ListOf():
                raise NoResult("lists, matrices and points do not stand in equations")

    def name(self, name: str) -> Bare:
        """An unknown, or a name whose value is known."""
        if name in self.unknowns:
            form = PLAIN if self.unmeasured else Form(NONE, ((name, Fraction(1)),))
            return Bare(Name(name), form, self.scales.get(name))
        kind = self.known.get(name)
        if kind is None:
            raise NoResult(f"waits for {name}")
        if kind.wrong:
            raise NoResult(kind.wrong)
        return Bare(Name(name), Form(kind.dimension), kind.scale)

    def temperature(self, amount: Expression, symbol: str) -> Bare:
        """So many degrees on a scale with a zero of its own."""
        unit = catalogue.unit_of(symbol)
        assert unit is not None
        inner = self.plain(amount, f"before {symbol} stands a plain number")
        tree = Sum((Product(inner, number(unit.factor)), number(unit.offset)))
        return Bare(tree, Form(unit.dimension), (symbol, unit.factor, unit.offset))

    def plain(self, node: Expression, words: str) -> Expression:
        """A formula that has to be a plain number."""
        inner = self.bare(node)
        self.dimensions.same(inner.form, PLAIN, lambda a, _: words.format(a))
        return inner.tree

    def sum(self, terms: tuple[Expression, ...]) -> Bare:
        """Terms of one dimension."""
        parts = [self.bare(terms[0]), *(self._added(term) for term in terms[1:])]
        for part in parts[1:]:
            self.dimensions.same(
                parts[0].form, part.form, lambda a, b: f"{a} and {b} cannot be added or compared"
            )
        scales = [part.scale for part in parts if part.scale is not None]
        away = [isinstance(term, Negation) for term in terms[1:]]
        if len(scales) > 1 and away != [True]:
            raise NoResult(TEMPERATURES)
        form = next((p.form for p in parts if not is_wild(p.form)), parts[0].form)
        kept = [part.scale for part in parts[:1] if part.scale is not None]
        kept += [p.scale for p, off in zip(parts[1:], away, strict=True) if p.scale and not off]
        scale = kept[0] if len(scales) == len(kept) == 1 else None
        return Bare(Sum(tuple(p.tree for p in parts)), form, scale)

    def _added(self, term: Expression) -> Bare:
        """A term behind the first: −20 °C is 20 °C taken away there, not one below zero."""
        if not isinstance(term, Negation):
            return self.bare(term)
        inner = self.bare(term.operand)
        return replace(inner, tree=Negation(inner.tree))

    def power(self, base: Expression, exponent: Expression) -> Bare:
        """A power; that of a quantity has a number written out for its exponent."""
        below = self.bare(base)
        power = literal(exponent)
        if power is not None:
            return Bare(Power(below.tree, exponent), PLAIN.times(below.form, power))
        words = (
            "a quantity ({}) is raised to a number that is written out, so that its unit is known"
        )
        self.dimensions.same(below.form, PLAIN, lambda a, _: words.format(a))
        above = self.plain(exponent, "an exponent is a plain number, not {}")
        return Bare(Power(below.tree, above), PLAIN)

    def apply(self, function: str, arguments: tuple[Expression, ...]) -> Bare:
        """A function of the catalogue: few take quantities."""
        if function == "sqrt":
            inner = self.bare(arguments[0])
            return Bare(Apply(function, (inner.tree,)), PLAIN.times(inner.form, HALF))
        if function == "cbrt":
            inner = self.bare(arguments[0])
            return Bare(Apply(function, (inner.tree,)), PLAIN.times(inner.form, THIRD))
        root = literal(arguments[0]) if function == "root" else None
        if root:
            inner = self.bare(arguments[1])
            tree = Apply(function, (arguments[0], inner.tree))
            return Bare(tree, PLAIN.times(inner.form, 1 / root))
        if function in (*ALIKE, "sign", "atan2"):
            parts = [self.bare(one) for one in arguments]
            for part in parts[1:]:
                self.dimensions.same(
                    parts[0].form, part.form, lambda a, b: f"{a} and {b} cannot be compared"
                )
            form = parts[0].form if function in ALIKE else PLAIN
            return Bare(Apply(function, tuple(p.tree for p in parts)), form)
        if function in catalogue.CALCULATED:
            raise NoResult(f"{function} does not stand in an equation")
        words = f"{function} takes a plain number, and this is in {{}}"
        return Bare(Apply(function, tuple(self.plain(one, words) for one in arguments)), PLAIN)

    def call(self, node: Call) -> Bare:
        """A function of the sheet, written out where it can be."""
        known = self.definitions.get(node.name)
        if known is None or known.parameters is None:
            raise NoResult(f"{node.name} is no function of the sheet")
        if len(known.parameters) != len(node.arguments):
            raise NoResult(f"{node.name} takes {len(known.parameters)} arguments")
        if node.order == 0 and known.domain is None and self.depth < MOST_INLINED:
            self.depth += 1
            try:
                given = dict(zip(known.parameters, node.arguments, strict=True))
                return self.bare(substituted(known.body, given))
            except ValueError:
                pass  # an index of a sum has the name of what would be put in
            finally:
                self.depth -= 1
        if any(n.name in self.unknowns for n in free_names(known.body)):
            raise NoResult(f"{node.name} needs an unknown of the equations: write it out there")
        words = f"{node.name} takes a plain number, and this is in {{}}"
        arguments = tuple(self.plain(one, words) for one in node.arguments)
        return Bare(Call(node.name, arguments, node.order), PLAIN)

    def cases(self, node: Cases) -> Bare:
        """Values of one dimension; conditions compare what is alike."""
        tested = []
        for condition in node.conditions:
            parts = [self.bare(one) for one in condition.operands]
            for part in parts[1:]:
                self.dimensions.same(
                    parts[0].form, part.form, lambda a, b: f"{a} and {b} cannot be compared"
                )
            tested.append(Comparison(tuple(p.tree for p in parts), condition.signs))
        rest = [node.otherwise] if node.otherwise is not None else []
        values = [self.bare(one) for one in (*node.values, *rest)]
        for part in values[1:]:
            self.dimensions.same(
                values[0].form,
                part.form,
                lambda a, b: f"cases give {a} and {b}: one kind is needed",
            )
        given = tuple(p.tree for p in values[: len(node.values)])
        otherwise = values[-1].tree if rest else None
        return Bare(Cases(given, tuple(tested), otherwise), values[0].form)


def kind_of_value(value: Scalar) -> Kind:
    """What a value is measured in."""
    if not isinstance(value, Measured):
        return Kind()
    shown = value.shown_in
    return Kind(value.dimension, shown if shown is not None and shown[2] else None)


def has_units(tree: Expression) -> bool:
    """Whether units or constants of nature stand in a formula itself."""
    return any(
        isinstance(node, UnitOf) or (isinstance(node, Constant) and node.name in catalogue.PHYSICAL)
        for node in walk(tree)
    )


def real_value(value: Value, name: str) -> Scalar:
    """A value of the sheet as equations can use it. Raises NoResult for others."""
    match value:
        case Undefined(why):
            raise NoResult(f"{name} has no value: {why}")
        case Surd() | arb() | Measured() if is_real(value):
            return value
    raise NoResult(f"{name} is no real number: equations are about those")
