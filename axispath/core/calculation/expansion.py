"""A formula next to a place as a series of the distance, by walking its tree."""

from __future__ import annotations

from fractions import Fraction
from typing import TYPE_CHECKING

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.exponents import odd_root
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import (
    Apply,
    Call,
    Constant,
    Expression,
    Name,
    Negation,
    Power,
    Product,
    Quotient,
    Sum,
)
from axispath.core.language.walking import free_names
from axispath.core.quantities import grids
from axispath.core.quantities.laurent import Laurent, NoSeries
from axispath.core.quantities.scalars import negate, sign
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Scalar

if TYPE_CHECKING:
    from axispath.core.calculation.evaluate import Evaluator, Names

Local = dict[str, Laurent]


class Expansion:
    """Expands formulas; ``local`` says what the letters that run are, as series."""

    def __init__(self, evaluator: Evaluator, names: Names) -> None:
        self.evaluator = evaluator
        self.names = names
        self.sided = False  # whether the side of the place made a difference

    def series(self, node: Expression, local: Local) -> Laurent:
        """The series of an expression. Raises NoSeries, NoResult, TooWide."""
        if not any(isinstance(n, Call) or n.name in local for n in free_names(node)):
            return Laurent.of(self.evaluator.number(node, self.names))
        match node:
            case Name(name):
                return local[name]
            case Negation(operand):
                return -self.series(operand, local)
            case Sum(terms):
                total = self.series(terms[0], local)
                for term in terms[1:]:
                    total = total + self.series(term, local)
                return total
            case Product(left, right):
                return self.series(left, local) * self.series(right, local)
            case Quotient(top, bottom):
                return self.series(top, local) * self.series(bottom, local).inverse()
            case Power(base, exponent):
                return self.power(base, exponent, local)
            case Apply(function, arguments):
                given = [self.series(part, local) for part in arguments]
                return self.applied(function, given)
            case Call(name, arguments, 0):
                return self.call(name, arguments, local)
        raise NoSeries

    def call(self, name: str, arguments: tuple[Expression, ...], local: Local) -> Laurent:
        """A function of the sheet, written out."""
        definition = self.evaluator.definitions.get(name)
        if definition is None or definition.parameters is None or definition.domain is not None:
            raise NoSeries
        given = [self.series(part, local) for part in arguments]
        inner = dict(zip(definition.parameters, given, strict=True))
        outer, self.names = self.names, {}
        try:
            return self.series(definition.body, inner)
        finally:
            self.names = outer

    def power(self, base: Expression, exponent: Expression, local: Local) -> Laurent:
        """A power; of a varying exponent by the exponential function."""
        if base == Constant("e"):
            return self.applied("exp", [self.series(exponent, local)])
        low = self.series(base, local)
        root = odd_root(exponent)
        if root is not None:
            self.sided = self.sided or low.start != 0
            negative = sign(low.terms[0]) < 0
            found = (-low if negative else low).power(Surd.of(root))
            return -found if negative and root.numerator % 2 else found
        high = self.series(exponent, local)
        if high.exact and high.start == 0 and len(high.terms) == 1:
            power = high.terms[0].rational if isinstance(high.terms[0], Surd) else None
            whole = power is not None and power.denominator == 1
            self.sided = self.sided or (low.start != 0 and not whole)
            return low.power(high.terms[0])
        return self.applied("exp", [high * self.applied("ln", [low])])

    def applied(self, function: str, given: list[Laurent]) -> Laurent:
        """A function of the catalogue."""
        u = given[0]
        degrees = self.evaluator.unit is AngleUnit.DEGREE
        match function:
            case "sqrt" | "cbrt" | "abs" if u.start != 0 and not self.sided:
                self.sided = True
                return self.applied(function, given)
            case "sqrt":
                return u.power(Surd.of(Fraction(1, 2)))
            case "cbrt":
                return u.power(Surd.of(Fraction(1, 3)))
            case "abs":
                return u if u.is_zero or sign(u.terms[0]) > 0 else -u
            case "exp":
                return u.composed([self.at("exp", u.at_zero)])
            case "sin" | "cos" if not degrees:
                sine, cosine = self.at("sin", u.at_zero), self.at("cos", u.at_zero)
                turns = [sine, cosine, negate(sine), negate(cosine)]
                return u.composed(turns if function == "sin" else turns[1:] + turns[:1])
            case "tan" if not degrees:
                return self.applied("sin", [u]) * self.applied("cos", [u]).inverse()
            case "sinh" | "cosh":
                up, down = self.applied("exp", [u]), self.applied("exp", [-u])
                whole = up + (down if function == "cosh" else -down)
                return whole.scaled(Surd.of(Fraction(1, 2)))
        entry = catalogue.ENTRIES.get(function)
        angle = entry.angle is not catalogue.Angle.NONE if entry else False
        if entry is None or len(given) != 1 or not entry.derivatives or (angle and degrees):
            raise NoSeries
        if entry.stepped or not entry.derivatives[0]:
            raise NoSeries
        # y′ = f′(u)·u′, and y is known where t is 0.
        start = u.at_zero
        rule = parse_expression(
            entry.derivatives[0], catalogue.SCOPE.with_values(entry.word.arguments)
        )
        slope = self.series(rule, {entry.word.arguments[0]: u}) * u.slope()
        return slope.integral(self.at(function, start))

    def at(self, function: str, value: Scalar) -> Scalar:
        """A function at a number."""
        found = grids.scalar(self.evaluator.apply(function, [value]), function)
        if isinstance(found, arb) and not found.is_finite():
            raise NoSeries
        return found
