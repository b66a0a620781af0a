"""Derivatives of trees by the rules of calculus; functions bring theirs from the catalogue."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Mapping
from fractions import Fraction

from axispath.core import catalogue
from axispath.core.arithmetic.letters import depends, spelled_out
from axispath.core.arithmetic.patience import time_check
from axispath.core.arithmetic.program import Definition, NotComputable, TooLarge
from axispath.core.arithmetic.simplest import ONE, TWO, ZERO, negation, sum_of, times
from axispath.core.language.exponents import odd_root
from axispath.core.language.rebuild import substituted
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Constant,
    Expression,
    ListOf,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Running,
    Series,
    Sum,
)
from axispath.core.language.walking import free_names, literal
from axispath.core.memory import remembered

MOST_PARTS = 8_000
Rule = Callable[[Expression], Expression]
# 1 where angles are radians and π/180 where they are degrees: what a degree sign does, undone.
ANGLE_FACTOR = Quotient(Quotient(Constant("π"), Number("180")), Apply("degrees", (ONE,)))


def derivative(
    node: Expression, variable: str, definitions: Mapping[str, Definition]
) -> Expression:
    """The derivative with respect to ``variable``. Values of the sheet are constants.

    Raises TooLarge where it would be too long to write out.
    """
    work = _Work()

    def slope(body: Expression, letter: str) -> Expression:
        return _derivative(body, letter, definitions, work)

    return slope(spelled_out(node, definitions, slope), variable)


class _Work:
    """How much one derivative may cost, so that nested functions do not grow without end."""

    def __init__(self) -> None:
        self.left = MOST_PARTS
        self.check = time_check()
        # By identity, as equality would compare whole trees; the parts themselves are kept alive.
        self.known: dict[int, tuple[Expression, Expression]] = {}

    def spend(self) -> None:
        """One more part is differentiated."""
        self.left -= 1
        if self.left < 0:
            raise TooLarge("This derivative is too long to write out.")
        if self.check is not None and self.left % 64 == 0:
            self.check()


def _derivative(
    node: Expression, variable: str, definitions: Mapping[str, Definition], work: _Work
) -> Expression:
    work.spend()

    def inner(part: Expression) -> Expression:
        if id(part) not in work.known:
            work.known[id(part)] = part, _derivative(part, variable, definitions, work)
        return work.known[id(part)][1]

    if not depends(node, variable):
        return ZERO
    match node:
        case Name():
            return ONE
        case Negation(operand):
            return negation(inner(operand))
        case Sum(terms):
            return sum_of([inner(term) for term in terms])
        case Product(left, right):
            factors = _factors(node)
            if any(isinstance(part, Apply) and part.function == "abs" for part in factors):
                return _product(factors, inner)
            # Two factors at a time, so that derivatives of derivatives share their parts.
            return sum_of([times(inner(left), right), times(left, inner(right))])
        case Quotient(top, bottom):
            above = sum_of([times(inner(top), bottom), negation(times(top, inner(bottom)))])
            if inner(bottom) == ZERO:
                return Quotient(inner(top), bottom)
            return Quotient(above, Power(bottom, Number("2")))
        case Power(base, exponent):
            return _power(base, exponent, inner)
        case Apply(function, arguments):
            return _applied(function, arguments, inner)
        case Call(name, (argument,), order):
            return times(Call(name, (argument,), order + 1), inner(argument))
        case Call(name, arguments, 0) if name in definitions:
            return inner(_written_out(definitions[name], arguments))
        case Cases():
            return _cases(node, inner)
        case Series("sum", body, index, low, high):
            return Series("sum", inner(body), index, low, high)
        case Running("integral", body, index, (low, high)) if not _holds(body, index, variable):
            # The theorem of calculus: the formula at each end, times how fast the end moves.
            return sum_of(
                [
                    times(substituted(body, {index: high}), inner(high)),
                    negation(times(substituted(body, {index: low}), inner(low))),
                ]
            )
    raise NotComputable("The derivative of this formula cannot be written down here.")


def _written_out(definition: Definition, arguments: tuple[Expression, ...]) -> Expression:
    """What a function of several variables is at its arguments."""
    given = zip(definition.parameters or (), arguments, strict=True)
    try:
        return substituted(definition.body, dict(given))
    except ValueError as error:
        raise NotComputable(str(error)) from error


def _holds(body: Expression, index: str, variable: str) -> bool:
    """Whether what is integrated depends on a variable besides the letter that runs."""
    return index != variable and any(one.name == variable for one in free_names(body))


def _factors(node: Expression) -> list[Expression]:
    """What is multiplied, from left to right."""
    if isinstance(node, Product):
        return [*_factors(node.left), *_factors(node.right)]
    return [node]


def _product(factors: list[Expression], inner: Rule) -> Expression:
    """The product rule; a factor |v| has no bend where the others are 0."""
    terms = []
    for k, factor in enumerate(factors):
        others = [*factors[:k], *factors[k + 1 :]]
        if isinstance(factor, Apply) and factor.function == "abs":
            terms.append(_bent(others, factor.arguments[0], inner(factor.arguments[0])))
        else:
            terms.append(_together([*others[:k], inner(factor), *others[k:]]))
    return sum_of(terms)


def _bent(others: list[Expression], inside: Expression, slope: Expression) -> Expression:
    """``others`` times the slope of |v|, at v = 0 too: 0 where what it is multiplied by is 0."""
    if slope == ZERO:
        return ZERO
    for k, other in enumerate(others):
        count = 1 if other == inside else _power_of(other, inside)
        if count:  # v times the sign of v is |v|
            rest = [Apply("abs", (inside,)), _raised(inside, count - 1)]
            return _together([*others[:k], *rest, *others[k + 1 :], slope])
    left = _together([*others, slope])
    turned = Product(left, Quotient(Apply("abs", (inside,)), inside))
    level = Cases((ZERO,), (Comparison((left, ZERO), ("=",)),), None)
    return Cases((turned,), (Comparison((inside, ZERO), ("!=",)),), level)


def _power_of(node: Expression, base: Expression) -> int:
    """n where a factor is the n-th power of ``base`` for a whole n above 1, else 0."""
    power = literal(node.exponent) if isinstance(node, Power) and node.base == base else None
    return int(power) if power is not None and power.denominator == 1 and power > 1 else 0


def _raised(base: Expression, n: int) -> Expression:
    return ONE if n == 0 else base if n == 1 else Power(base, Number(str(n)))


def _together(factors: list[Expression]) -> Expression:
    result: Expression = ONE
    for factor in factors:
        result = times(result, factor)
    return result


def _cases(node: Cases, inner: Rule) -> Expression:
    """Each case has its slope, and a border one only where both sides agree in value and slope."""
    last = None if node.otherwise is None else inner(node.otherwise)
    slopes = [inner(value) for value in node.values]
    result = last
    for k in reversed(range(len(slopes))):
        rest = Cases(node.values[k + 1 :], node.conditions[k + 1 :], node.otherwise)
        after = Cases(tuple(slopes[k + 1 :]), node.conditions[k + 1 :], last)
        beyond = (rest, after) if node.values[k + 1 :] else (node.otherwise, last)
        chosen = Cases((slopes[k],), (node.conditions[k],), result)
        borders = [
            _border(node.conditions[k], at, (node.values[k], slopes[k]), beyond)
            for at in range(len(node.conditions[k].signs))
        ]
        result = sum_of([chosen, *borders])
    assert result is not None
    return result


def _border(
    condition: Comparison,
    at: int,
    before: tuple[Expression, Expression],
    beyond: tuple[Expression | None, Expression | None],
) -> Expression:
    """0, and undefined at a border of a condition where the function jumps or bends."""
    left, right = condition.operands[at : at + 2]
    away = Comparison((left, right), ("!=",))
    if beyond[0] is None or beyond[1] is None:
        return Cases((ZERO,), (away,), None)
    same = [Comparison((before[k], beyond[k]), ("=",)) for k in (0, 1)]  # type: ignore[arg-type]
    agree = Cases((Cases((ZERO,), (same[1],), None),), (same[0],), None)
    return Cases((ZERO,), (away,), agree)


def _power(base: Expression, exponent: Expression, inner: Rule) -> Expression:
    slope = inner(base)
    value = literal(exponent)
    if isinstance(base, Apply) and base.function == "abs" and value is not None and value > 1:
        return _power_of_absolute(base.arguments[0], exponent, value, inner)
    if odd_root(exponent) is not None and value is not None:
        less = value - 1
        lowered: Expression = Quotient(
            Number(str(abs(less.numerator))), Number(str(less.denominator))
        )
        lowered = Negation(lowered) if less < 0 else lowered
        return times(times(exponent, Power(base, lowered)), slope)
    if value is not None and value.denominator == 1:
        less = value - 1
        lowered = Number(str(abs(less))) if less >= 0 else Negation(Number(str(abs(less))))
        return times(times(exponent, Power(base, lowered)), slope)
    growth = inner(exponent)
    if growth == ZERO:
        lowered = Sum((exponent, Negation(ONE)))
        return times(times(exponent, Power(base, lowered)), slope)
    rate = times(growth, Apply("ln", (base,)))
    if slope != ZERO:
        rate = sum_of([rate, Quotient(times(exponent, slope), base)])
    return times(Power(base, exponent), rate)


def _power_of_absolute(
    inside: Expression, exponent: Expression, value: Fraction, inner: Rule
) -> Expression:
    """The slope of |v|ⁿ for n above 1, which is 0 at v = 0."""
    if value.denominator == 1 and value % 2 == 0:
        return _power(inside, exponent, inner)
    lowered = Power(Apply("abs", (inside,)), Sum((exponent, Negation(ONE))))
    if value.denominator == 1:
        lowered = Power(inside, Number(str(value - 1)))
    return _bent([exponent, lowered], inside, inner(inside))


def _applied(function: str, arguments: tuple[Expression, ...], inner: Rule) -> Expression:
    if function not in catalogue.ENTRIES:
        raise NotComputable(f"{function} has no derivative that can be written down here.")
    entry = catalogue.ENTRIES[function]
    if entry.word.many:
        return _of_many(function, arguments, inner)
    arguments = (*arguments, *(Number(text) for text in entry.defaults[_given(entry, arguments) :]))
    if len(entry.derivatives) != len(arguments):
        raise NotComputable(f"The derivative of {function} cannot be written down here.")
    parts = []
    for k, argument in enumerate(arguments):
        slope = inner(argument)
        if slope == ZERO:
            continue
        if not entry.derivatives[k]:
            raise NotComputable(f"The derivative of {function} cannot be written down here.")
        outer = substituted(
            _stated(function, k), dict(zip(entry.word.arguments, arguments, strict=True))
        )
        parts.append(times(_in_unit(entry, outer), slope))
    return sum_of(parts)


def _given(entry: catalogue.Entry, arguments: tuple[Expression, ...]) -> int:
    """How many of the optional arguments are given."""
    return len(arguments) - (len(entry.word.arguments) - entry.word.optional)


def _of_many(function: str, arguments: tuple[Expression, ...], inner: Rule) -> Expression:
    """Sums, products, averages and extremes of values written out one by one."""
    arguments = tuple(
        item
        for argument in arguments
        for item in (argument.items if isinstance(argument, ListOf) else (argument,))
    )
    slopes = [inner(argument) for argument in arguments]
    match function:
        case "sum":
            return sum_of(slopes)
        case "mean":
            return Quotient(sum_of(slopes), Number(str(len(slopes))))
        case "product":
            whole = Apply("product", arguments)
            rates = [Quotient(s, a) for s, a in zip(slopes, arguments, strict=True) if s != ZERO]
            return times(whole, sum_of(list(rates)))
        case "min" | "max":
            return _extreme(function, arguments, slopes)
        case "variance":
            return _spread(arguments, slopes)
        case "deviation":
            return Quotient(_spread(arguments, slopes), times(TWO, Apply(function, arguments)))
        case "median" if len(arguments) == 3:
            a, b, c = arguments
            upper = Apply("min", (Apply("max", (a, b)), c))
            return inner(Apply("max", (Apply("min", (a, b)), upper)))
        case "median" if len(arguments) % 2:
            return _chosen(Apply(function, arguments), arguments, slopes)
    raise NotComputable(f"The derivative of {function} cannot be written down here.")


def _extreme(
    function: str, arguments: tuple[Expression, ...], slopes: list[Expression]
) -> Expression:
    """The slope of the largest or smallest of several values."""
    slope_of = dict(zip(arguments, slopes, strict=True))
    if len(slope_of) == 1:
        return slopes[0]
    sign = ">" if function == "max" else "<"
    conditions = []
    for one in slope_of:
        others = tuple(other for other in slope_of if other != one)
        bound = others[0] if len(others) == 1 else Apply(function, others)
        conditions.append(Comparison((one, bound), (sign,)))
    tied = _chosen(Apply(function, tuple(slope_of)), tuple(slope_of), list(slope_of.values()))
    return Cases(tuple(slope_of.values()), tuple(conditions), tied)


def _chosen(
    value: Expression, arguments: tuple[Expression, ...], slopes: list[Expression]
) -> Expression:
    """The slope of whichever argument is the value; undefined where two with other slopes are."""
    is_it = [Comparison((a, value), ("=",)) for a in arguments]
    terms: list[Expression] = [Cases(tuple(slopes), tuple(is_it), None)]
    for (a, one), (b, other) in itertools.combinations(zip(arguments, slopes, strict=True), 2):
        if one != other:
            away = tuple(Comparison((part, value), ("!=",)) for part in (a, b))
            same = Comparison((one, other), ("=",))
            terms.append(Cases((ZERO, ZERO, ZERO), (*away, same), None))
    return sum_of(terms)


def _spread(arguments: tuple[Expression, ...], slopes: list[Expression]) -> Expression:
    """The derivative of the sample variance: 2/(n − 1) times the sum of (a − mean) a′."""
    mean = Apply("mean", arguments)
    terms = [
        times(sum_of([a, Negation(mean)]), s)
        for a, s in zip(arguments, slopes, strict=True)
        if s != ZERO
    ]
    return Quotient(times(TWO, sum_of(terms)), Number(str(len(arguments) - 1)))


def _in_unit(entry: catalogue.Entry, outer: Expression) -> Expression:
    if entry.angle is catalogue.Angle.ARGUMENT and entry.word.name != "degrees":
        return Product(ANGLE_FACTOR, outer)
    return Quotient(outer, ANGLE_FACTOR) if entry.angle is catalogue.Angle.RESULT else outer


@remembered(None)
def _stated(function: str, k: int) -> Expression:
    entry = catalogue.ENTRIES[function]
    scope = catalogue.SCOPE.with_values(entry.word.arguments)
    return parse_expression(entry.derivatives[k], scope)
