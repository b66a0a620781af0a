"""Functions of quantities, units by their symbols, and conversions."""

from __future__ import annotations

from fractions import Fraction

from axispath.core import catalogue
from axispath.core.language.plain import plain
from axispath.core.language.rebuild import rebuilt
from axispath.core.language.tree import Expression, Power, Product, Quotient, UnitOf
from axispath.core.language.walking import literal, walk
from axispath.core.quantities.dimensions import NONE, Dimension, combined, raised, told
from axispath.core.quantities.scalars import (
    absolute,
    add,
    dimension_of,
    known,
    measured,
    multiply,
    real_root,
    sign,
    to_power,
    whole,
)
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, NoResult, Scalar, Undefined

Shown = tuple[str, Fraction, Fraction]


def of_quantities(function: str, given: tuple[Scalar, ...]) -> Scalar:
    """A function of the catalogue at quantities: few have one. Raises NoResult."""
    match function, given:
        case "abs", (value,):
            return absolute(value)
        case "sqrt", (value,):
            return to_power(value, Surd.of(Fraction(1, 2)))
        case "cbrt", (value,):
            return real_root(value, 3)
        case "root", (n, value):
            return to_power(value, Surd.of(Fraction(1, whole(n, "the number of a root"))))
        case "sign", (value,):
            return Surd.of(sign(value))
    of = next(one.dimension for one in given if isinstance(one, Measured))
    raise NoResult(f"{function} takes a plain number, and this is in {told(of)}")


def unit_value(symbol: str) -> Scalar:
    """One of a unit. A temperature with a zero of its own stands for a difference in a product."""
    unit = catalogue.unit_of(symbol)
    if unit is None:
        raise NoResult(f"{symbol} is no unit that is known here")
    return measured(Surd.of(unit.factor), unit.dimension)


def temperature(number: Scalar, symbol: str) -> Scalar:
    """So many degrees on a scale with a zero of its own."""
    unit = catalogue.unit_of(symbol)
    assert unit is not None
    if isinstance(number, Undefined | Measured):
        raise NoResult(f"before {symbol} stands a plain number")
    above = add(multiply(number, Surd.of(unit.factor)), Surd.of(unit.offset))
    return Measured(known(above), unit.dimension, (symbol, unit.factor, unit.offset))


def constant_value(symbol: str) -> Scalar:
    """A constant of nature."""
    one = catalogue.PHYSICAL[symbol]
    return measured(Surd.of(one.value), one.dimension)


def shown_in(unit: Expression) -> tuple[Shown, Dimension]:
    """Units that a result is to be shown in: their text, what they are in the SI, their zero."""
    offset = Fraction(0)
    if isinstance(unit, UnitOf) and (found := catalogue.unit_of(unit.symbol)) is not None:
        offset = found.offset
    factor, of = _product(unit)
    text = plain(_named(unit), catalogue.VOCABULARY).replace(" * ", " ").replace(" / ", "/")
    return (text, factor, offset), of


def _named(unit: Expression) -> Expression:
    """Units by their own symbols, however they were spelled."""
    if isinstance(unit, UnitOf):
        found = catalogue.unit_of(unit.symbol)
        return UnitOf(found.symbol) if found is not None else unit
    return rebuilt(unit, _named)


def _product(unit: Expression) -> tuple[Fraction, Dimension]:
    match unit:
        case UnitOf(symbol):
            found = catalogue.unit_of(symbol)
            if found is not None:
                return found.factor, found.dimension
        case Product(left, right) | Quotient(left, right):
            way = 1 if isinstance(unit, Product) else -1
            first, second = _product(left), _product(right)
            return first[0] * second[0] ** way, combined(first[1], second[1], way)
        case Power(base, exponent):
            power = literal(exponent)
            if power is not None and power.denominator == 1:
                found_base = _product(base)
                return found_base[0] ** int(power), raised(found_base[1], power)
    raise NoResult("behind “in” stands a product of units")


def converted(value: Scalar, unit: Expression, body: Expression) -> Scalar:
    """What ``body`` comes to, in other units. Raises NoResult where these are of another kind."""
    if isinstance(value, Undefined):
        return value
    shown, of = shown_in(unit)
    if dimension_of(value) != of:
        raise NoResult(f"{told(dimension_of(value))} cannot be shown in {shown[0]}{_read(body)}")
    bare = value.value if isinstance(value, Measured) else value
    return Measured(bare, of, shown) if of != NONE else Measured(bare, NONE, shown)


def _read(body: Expression) -> str:
    """Which letters were read as units that are constants of nature elsewhere."""
    symbols = dict.fromkeys(node.symbol for node in walk(body) if isinstance(node, UnitOf))
    both = [symbol for symbol in symbols if symbol in catalogue.PHYSICAL]
    found = ((symbol, catalogue.unit_of(symbol)) for symbol in both)
    return "".join(
        f"; {symbol} was read as {unit.name}: behind a sign, as in · {symbol}, "
        f"it is {catalogue.PHYSICAL[symbol].name}"
        for symbol, unit in found
        if unit is not None
    )
