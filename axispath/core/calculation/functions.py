"""Functions of the catalogue at numbers: exact where that is known, enclosed, else principal."""

from __future__ import annotations

import math
from fractions import Fraction

from flint import acb, arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import in_unit
from axispath.core.arithmetic.rationals import Exact, Inexact, applied_exactly
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.measuring import of_quantities
from axispath.core.calculation.principal import CUTS, FROM_ZERO, PRINCIPAL
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.quantities.polar import exact_angle, exact_sine, in_degrees, of_degrees
from axispath.core.quantities.scalars import (
    TooWide,
    absolute,
    complex_of,
    enclosed,
    is_real,
    known,
    simplified,
    to_power,
)
from axispath.core.quantities.surds import IMAGINARY, PI, NotExact, Surd
from axispath.core.quantities.values import Measured, Scalar, Undefined

HALF = Surd.of(Fraction(1, 2))
ONE = Surd.of(1)
LARGEST = 1_000
LONGEST = 4_000  # bits of a power that is compared


def at_numbers(
    function: str, unit: AngleUnit, given: tuple[Scalar, ...], analytic: bool = False
) -> Scalar:
    """A function of the catalogue at numbers. Raises TooWide.

    With ``analytic`` also where it may not be analytic on all of an enclosure.
    """
    numbers: list[Surd | arb | acb] = []
    for value in given:
        if isinstance(value, Undefined):
            return value
        if isinstance(value, Measured):
            return of_quantities(function, given)
        numbers.append(value)
    if function == "abs":
        return absolute(numbers[0])
    if function == "factorial" and _is_large(numbers[0]):
        return enclosed(numbers[0] + Surd.of(1)).gamma()  # type: ignore[operator]
    exact = [value for value in numbers if isinstance(value, Surd)]
    if len(exact) == len(numbers):
        try:
            return _exactly(function, exact, unit)
        except NotExact:
            pass
        except ZeroDivisionError:
            return _undefined(function)
    if all(is_real(value) for value in numbers):
        try:
            return _enclosed(function, [enclosed(v) for v in numbers], unit)
        except OutsideDomain:
            pass
        except TooWide:
            if function not in PRINCIPAL:
                raise
    if analytic and function in CUTS and CUTS[function].runs_through(complex_of(numbers[0])):
        raise TooWide
    return _beyond(function, numbers, unit)


def _is_large(value: Surd | arb | acb) -> bool:
    """Whether a whole number is beyond those whose factorial is written out."""
    found = value.rational if isinstance(value, Surd) else None
    return found is not None and found.denominator == 1 and found > LARGEST


def refuse_cut(base: Scalar) -> None:
    """Refuse a base whose powers may not be analytic. Raises TooWide."""
    if not isinstance(base, Undefined | Measured) and FROM_ZERO.runs_through(complex_of(base)):
        raise TooWide


def _undefined(function: str) -> Undefined:
    entry = catalogue.ENTRIES[function]
    shown = function.replace("log_base", "log")
    return Undefined(f"{shown} is defined only where {entry.needs}")


def _enclosed(function: str, given: list[arb | acb], unit: AngleUnit) -> arb:
    value = in_unit(catalogue.ENTRIES[function], unit)(*given)
    if not value.is_finite():
        raise TooWide
    return arb(value)


def _beyond(function: str, given: list[Surd | arb | acb], unit: AngleUnit) -> Scalar:
    """The principal value where there is no real one."""
    if function == "log_base":
        base, value = given
        top, bottom = at_numbers("ln", unit, (value,)), at_numbers("ln", unit, (base,))
        if isinstance(top, Undefined) or isinstance(bottom, Undefined):
            return _undefined(function)
        if enclosed(known(bottom)).contains(0):
            raise TooWide
        return simplified(enclosed(known(top)) / enclosed(known(bottom)))
    degree = given[0].rational if function == "root" and isinstance(given[0], Surd) else None
    if degree:
        return to_power(given[1], Surd.of(1 / degree))
    if function == "cbrt":
        return to_power(given[0], Surd.of(Fraction(1, 3)))
    work = PRINCIPAL.get(function)
    if work is None or len(given) != 1:
        return _undefined(function)
    entry, z = catalogue.ENTRIES[function], given[0]
    if isinstance(z, Surd) and z.is_zero and not _entire(function):
        return _undefined(function)
    ball = complex_of(z)
    degrees = unit is AngleUnit.DEGREE
    if degrees and entry.angle is catalogue.Angle.ARGUMENT:
        ball = ball * arb.pi() / 180
    found = work(ball)
    if degrees and entry.angle is catalogue.Angle.RESULT:
        found = found * 180 / arb.pi()
    if not found.is_finite():
        if isinstance(z, Surd):
            return _undefined(function)
        raise TooWide
    return simplified(found)


def _entire(function: str) -> bool:
    return function not in ("ln", "log", "csc", "cot", "gamma")


def _exactly(function: str, given: list[Surd], unit: AngleUnit) -> Surd:
    """An exact value. Raises NotExact, and ZeroDivisionError where there is none."""
    x = given[0]
    degrees = unit is AngleUnit.DEGREE
    match function:
        case "sqrt":
            return x.square_root()
        case "degrees":
            return x if degrees else x * PI * Surd.of(Fraction(1, 180))
        case "sin":
            return exact_sine(in_degrees(x, degrees))
        case "cos":
            return exact_sine(in_degrees(x, degrees) + 90)
        case "exp" if not x.parts[1].is_zero and x.parts[0].is_zero:
            turn = in_degrees(x.parts[1], False)
            return exact_sine(turn + 90) + IMAGINARY * exact_sine(turn)
        case "tan" | "cot" | "sec" | "csc":
            return _quotient_of_sines(function, in_degrees(x, degrees))
        case "log":
            return _logarithm(Surd.of(10), x)
        case "log_base":
            return _logarithm(x, given[1])
        case "arcsin":
            return of_degrees(exact_angle(x, "sine"), degrees)
        case "arccos":
            return of_degrees(90 - exact_angle(x, "sine"), degrees)
        case "arctan":
            return of_degrees(exact_angle(x, "tangent"), degrees)
    pairs = [_as_exact(value) for value in given]
    try:
        found = applied_exactly(function, pairs, unit)
    except Inexact:
        raise NotExact from None
    return Surd.of(found.rational) + PI * Surd.of(found.turns)


def _quotient_of_sines(function: str, angle: Fraction) -> Surd:
    sine, cosine = exact_sine(angle), exact_sine(angle + 90)
    tops = {"tan": (sine, cosine), "cot": (cosine, sine), "sec": (ONE, cosine), "csc": (ONE, sine)}
    top, bottom = tops[function]
    return top / bottom


def _logarithm(base: Surd, value: Surd) -> Surd:
    """The exponent of a base, where it is a small fraction. Raises NotExact."""
    b, x = base.rational, value.rational
    if 0 in (b, x) or b == 1:
        raise ZeroDivisionError
    if b is None or x is None or b < 0 or x < 0:
        raise NotExact
    near = Fraction(_log(x) / _log(b)).limit_denominator(12)
    if abs(near) * max(b.numerator.bit_length(), b.denominator.bit_length()) > LONGEST:
        raise NotExact
    if b**near.numerator != x**near.denominator:
        raise NotExact
    return Surd.of(near)


def _log(value: Fraction) -> float:
    return math.log(value.numerator) - math.log(value.denominator)


def _as_exact(value: Surd) -> Exact:
    """A number a + bπ. Raises NotExact for others."""
    found = dict(value.terms)
    if any(unit not in ((0, 1, 0), (0, 1, 1)) for unit in found):
        raise NotExact
    return Exact(found.get((0, 1, 0), Fraction(0)), found.get((0, 1, 1), Fraction(0)))
