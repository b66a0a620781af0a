"""The unit that a quantity is shown in: the one asked for, or the one a textbook would choose."""

from __future__ import annotations

import math
from collections.abc import Iterable
from fractions import Fraction

from axispath.core import catalogue
from axispath.core.calculation.measuring import Shown
from axispath.core.catalogue.units import Unit
from axispath.core.language.tree import Constant, Expression, UnitOf
from axispath.core.language.walking import walk
from axispath.core.quantities.dimensions import base_text
from axispath.core.quantities.scalars import (
    absolute,
    is_real,
    multiply,
    real_ball,
    subtract,
)
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, Scalar

PREFIXES = {"G": 9, "M": 6, "k": 3, "": 0, "m": -3, "µ": -6, "n": -9}
COMMON = {"m": ("k", "", "m", "µ", "n"), "s": ("", "m", "µ", "n"), "g": ("k", "", "m", "µ")}
"""Prefixes that are usual, where not all of them are."""


def in_unit(value: Measured, system: str) -> tuple[Scalar, str]:
    """The number in front of its unit, and the unit."""
    if value.shown_in is not None:
        text, factor, offset = value.shown_in
        return multiply(subtract(value.value, Surd.of(offset)), Surd.of(1 / factor)), text
    unit = _chosen(value, system)
    if unit is None:
        return value.value, base_text(value.dimension)
    return multiply(value.value, Surd.of(1 / unit[0])), unit[1]


def has_unit(value: Measured, system: str) -> bool:
    """Whether a system has a unit of its own for a quantity."""
    return bool(_fitting(value, system))


def _fitting(value: Measured, system: str) -> list[Unit]:
    return [
        unit
        for unit in catalogue.UNITS
        if unit.dimension == value.dimension and system in unit.system.split()
    ]


def common_unit(values: Iterable[Measured], system: str) -> Shown | None:
    """The unit in which several values of one kind are shown: that of the largest."""
    given = [one for one in values if one.shown_in is None and is_real(one)]
    if not given:
        return None
    largest = max(given, key=lambda one: float(abs(real_ball(absolute(one.value)).mid())))
    unit = _chosen(largest, system)
    return None if unit is None else (unit[1], unit[0], Fraction(0))


def _chosen(value: Measured, system: str) -> tuple[Fraction, str] | None:
    """A factor and a symbol so that the number is from 1 to 1000, as far as that can be."""
    fitting = _fitting(value, system)
    if not fitting:
        return None
    size = abs(float(real_ball(absolute(value.value)).mid())) if is_real(value) else 1.0
    offers = [offer for unit in fitting for offer in _offers(unit)]
    inside = [one for one in offers if 1 <= size / float(one[0]) < 1000]
    if inside:
        return inside[0]
    usual = [(unit.factor, unit.symbol) for unit in fitting]
    if not size:
        return (Fraction(1), "kg") if usual[0][1] == "g" else usual[0]
    return min(offers, key=lambda one: abs(_order(size / float(one[0]))))


def _order(ratio: float) -> float:
    """How far a number is from the range of 1 to 1000, in powers of ten."""
    return max(0.0, -math.log10(ratio), math.log10(ratio) - 3) if ratio > 0 else 0.0


def _offers(unit: Unit) -> list[tuple[Fraction, str]]:
    if not unit.prefixed:
        return [(unit.factor, unit.symbol)]
    usual = COMMON.get(unit.symbol, tuple(PREFIXES))
    return [(unit.factor * Fraction(10) ** PREFIXES[p], p + unit.symbol) for p in usual]


def readings_of(body: Expression) -> list[str]:
    """How letters were read that could mean something else: constants, and units called alike."""
    found: dict[str, None] = {}
    for node in walk(body):
        if isinstance(node, Constant) and node.name in catalogue.PHYSICAL:
            found[f"{node.name} is the {catalogue.PHYSICAL[node.name].name}"] = None
        elif isinstance(node, UnitOf) and node.symbol in catalogue.PHYSICAL:
            unit = catalogue.unit_of(node.symbol)
            name = unit.name if unit else ""
            found[f"{node.symbol} behind a number is the {name}, behind a sign the constant"] = None
    return list(found)
