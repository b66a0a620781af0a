"""Derivatives of trees by the rules of calculus; functions bring theirs from the catalogue."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache

from axispath.core import catalogue
from axispath.core.arithmetic.program import Definition, NotComputable
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
    Series,
    Sum,
    free_names,
    literal,
    odd_root,
)

ZERO, ONE, TWO = Number("0"), Number("1"), Number("2")
# 1 where angles are radians and π/180 where they are degrees: what a degree sign does, undone.
ANGLE_FACTOR = Quotient(Quotient(Constant("π"), Number("180")), Apply("degrees", (ONE,)))


def derivative(
    node: Expression, variable: str, definitions: Mapping[str, Definition]
) -> Expression:
    """The derivative with respect to ``variable``. Values of the sheet are constants."""

    def inner(part: Expression) -> Expression:
        return derivative(part, variable, definitions)

    if not any(isinstance(n, Name) and n.name == variable for n in free_names(node)) and not any(
        isinstance(n, Call) and _mentions(n, variable) for n in free_names(node)
    ):
        return ZERO
    match node:
        case Name():
            return ONE
        case Negation(operand):
            return _negation(inner(operand))
        case Sum(terms):
            return _sum([inner(term) for term in terms])
        case Product(left, right):
            return _sum([_times(inner(left), right), _times(left, inner(right))])
        case Quotient(top, bottom):
            above = _sum([_times(inner(top), bottom), _negation(_times(top, inner(bottom)))])
            if inner(bottom) == ZERO:
                return Quotient(inner(top), bottom)
            return Quotient(above, Power(bottom, Number("2")))
        case Power(base, exponent):
            return _power(base, exponent, inner)
        case Apply(function, arguments):
            return _applied(function, arguments, inner)
        case Call(name, (argument,), order):
            return _times(Call(name, (argument,), order + 1), inner(argument))
        case Cases(values, conditions, otherwise):
            last = None if otherwise is None else inner(otherwise)
            return Cases(tuple(inner(value) for value in values), conditions, last)
        case Series("sum", body, index, low, high):
            return Series("sum", inner(body), index, low, high)
    raise NotComputable("The derivative of this formula cannot be written down here.")


def _mentions(call: Call, variable: str) -> bool:
    return any(
        isinstance(n, Name) and n.name == variable
        for part in call.arguments
        for n in free_names(part)
    )


def _power(base: Expression, exponent: Expression, inner) -> Expression:  # type: ignore[no-untyped-def] # noqa: ANN001
    slope = inner(base)
    value = literal(exponent)
    if odd_root(exponent) is not None and value is not None:
        less = value - 1
        lowered: Expression = Quotient(
            Number(str(abs(less.numerator))), Number(str(less.denominator))
        )
        lowered = Negation(lowered) if less < 0 else lowered
        return _times(_times(exponent, Power(base, lowered)), slope)
    if value is not None and value.denominator == 1:
        less = value - 1
        lowered = Number(str(abs(less))) if less >= 0 else Negation(Number(str(abs(less))))
        return _times(_times(exponent, Power(base, lowered)), slope)
    growth = inner(exponent)
    if growth == ZERO:
        lowered = Sum((exponent, Negation(ONE)))
        return _times(_times(exponent, Power(base, lowered)), slope)
    rate = _times(growth, Apply("ln", (base,)))
    if slope != ZERO:
        rate = _sum([rate, Quotient(_times(exponent, slope), base)])
    return _times(Power(base, exponent), rate)


def _applied(function: str, arguments: tuple[Expression, ...], inner) -> Expression:  # type: ignore[no-untyped-def] # noqa: ANN001
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
        outer = _substituted(
            _stated(function, k), dict(zip(entry.word.arguments, arguments, strict=True))
        )
        parts.append(_times(_in_unit(entry, outer), slope))
    return _sum(parts)


def _given(entry: catalogue.Entry, arguments: tuple[Expression, ...]) -> int:
    """How many of the optional arguments are given."""
    return len(arguments) - (len(entry.word.arguments) - entry.word.optional)


def _of_many(function: str, arguments: tuple[Expression, ...], inner) -> Expression:  # type: ignore[no-untyped-def] # noqa: ANN001
    """Sums, products, averages and extremes of values written out one by one."""
    arguments = tuple(
        item
        for argument in arguments
        for item in (argument.items if isinstance(argument, ListOf) else (argument,))
    )
    slopes = [inner(argument) for argument in arguments]
    match function:
        case "sum":
            return _sum(slopes)
        case "mean":
            return Quotient(_sum(slopes), Number(str(len(slopes))))
        case "product":
            whole = Apply("product", arguments)
            rates = [Quotient(s, a) for s, a in zip(slopes, arguments, strict=True) if s != ZERO]
            return _times(whole, _sum(list(rates)))
        case "min" | "max":
            extreme = Apply(function, arguments)
            chosen = tuple(Comparison((a, extreme), ("=",)) for a in arguments)
            return Cases(tuple(slopes), chosen, None)
        case "variance":
            return _spread(arguments, slopes)
        case "deviation":
            return Quotient(_spread(arguments, slopes), _times(TWO, Apply(function, arguments)))
        case "median" if len(arguments) % 2:
            middle = Apply(function, arguments)
            chosen = tuple(Comparison((a, middle), ("=",)) for a in arguments)
            return Cases(tuple(slopes), chosen, None)
    raise NotComputable(f"The derivative of {function} cannot be written down here.")


def _spread(arguments: tuple[Expression, ...], slopes: list[Expression]) -> Expression:
    """The derivative of the sample variance: 2/(n − 1) times the sum of (a − mean) a′."""
    mean = Apply("mean", arguments)
    terms = [
        _times(_sum([a, Negation(mean)]), s)
        for a, s in zip(arguments, slopes, strict=True)
        if s != ZERO
    ]
    return Quotient(_times(TWO, _sum(terms)), Number(str(len(arguments) - 1)))


def _in_unit(entry: catalogue.Entry, outer: Expression) -> Expression:
    if entry.angle is catalogue.Angle.ARGUMENT and entry.word.name != "degrees":
        return Product(ANGLE_FACTOR, outer)
    return Quotient(outer, ANGLE_FACTOR) if entry.angle is catalogue.Angle.RESULT else outer


@cache
def _stated(function: str, k: int) -> Expression:
    entry = catalogue.ENTRIES[function]
    scope = catalogue.SCOPE.with_values(entry.word.arguments)
    return parse_expression(entry.derivatives[k], scope)


def _substituted(node: Expression, given: Mapping[str, Expression]) -> Expression:
    def put(part: Expression) -> Expression:
        return _substituted(part, given)

    match node:
        case Name(name):
            return given.get(name, node)
        case Negation(operand):
            return Negation(put(operand))
        case Sum(terms):
            return Sum(tuple(put(term) for term in terms))
        case Product(left, right):
            return Product(put(left), put(right))
        case Quotient(top, bottom):
            return Quotient(put(top), put(bottom))
        case Power(base, exponent):
            return Power(put(base), put(exponent))
        case Apply(function, arguments):
            return Apply(function, tuple(put(part) for part in arguments))
        case Number() | Constant():
            return node
    raise AssertionError(f"a stated derivative holds a {type(node).__name__}")


def _sum(terms: list[Expression]) -> Expression:
    kept = [term for term in terms if term != ZERO]
    if not kept:
        return ZERO
    return kept[0] if len(kept) == 1 else Sum(tuple(kept))


def _times(left: Expression, right: Expression) -> Expression:
    if ZERO in (left, right):
        return ZERO
    if left == ONE:
        return right
    return left if right == ONE else Product(left, right)


def _negation(node: Expression) -> Expression:
    if node == ZERO:
        return ZERO
    return node.operand if isinstance(node, Negation) else Negation(node)
