"""Formulas at one place: whether they have a value there, and whether it is 0."""

from __future__ import annotations

import math
from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.balls import operations
from axispath.core.arithmetic.program import Program, bind
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain, head, precision

BITS = 300  # carried by every check
SIMPLE = 64  # the largest denominator of a coordinate that was settled exactly
SHORT = 2**20  # the largest denominator of a float64 that is taken for the number itself
Coordinate = Exact | arb
"""A coordinate that is known exactly, or a ball that holds it."""


def coordinate(value: float, radius: float = 0.0, exact: Exact | None = None) -> Coordinate:
    """A coordinate within ``radius`` of a number that ``value`` is the nearest float64 of.

    It is exact where that is known, or nothing is off and the number has few bits. Where there is
    no value it may be anywhere.
    """
    if exact is not None:
        return exact
    if not math.isfinite(value):
        return arb(0, math.inf)
    if radius == 0 and Fraction(value).denominator <= SHORT:
        return Exact(Fraction(value))
    return arb(value, radius + math.ulp(value))


def simple(value: float) -> Coordinate:
    """A coordinate that is known to be a simple fraction."""
    near = Fraction(value).limit_denominator(SIMPLE)
    return Exact(near) if float(near) == value else coordinate(value)


def value_at(plan: Program, unit: AngleUnit, *place: Coordinate) -> arb | None:
    """An enclosure of the value at a place, not finite where it may have none; None where it surely
    has none.
    """
    with precision(BITS):
        given = [one.ball if isinstance(one, Exact) else one for one in place]
        try:
            return head(bind(plan, operations(plan, unit)).run(*given))
        except OutsideDomain:
            return None


def has_value(plan: Program, unit: AngleUnit, *place: Coordinate) -> bool | None:
    """Whether a formula has a value at a place; None where that cannot be told."""
    found = value_at(plan, unit, *place)
    if found is None:
        return False
    if found.is_finite() or _exactly(plan, unit, place) is not None:
        return True
    return None


def is_zero(plan: Program, unit: AngleUnit, *place: Coordinate) -> bool | None:
    """Whether the value at a place is 0: surely, surely not, or None where it may be."""
    exact = _exactly(plan, unit, place)
    if exact is not None:
        return exact.is_zero
    found = value_at(plan, unit, *place)
    if found is None:
        return False
    return False if found.is_finite() and not found.contains(0) else None


def _exactly(plan: Program, unit: AngleUnit, place: tuple[Coordinate, ...]) -> Exact | None:
    exact = [one for one in place if isinstance(one, Exact)]
    if len(exact) < len(place):
        return None
    return exact_registers(plan, unit, *exact)[plan.result]
