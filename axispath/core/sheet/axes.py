"""Lanes of quantities: x and y are numbers of the units that the axes have."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import NamedTuple

from axispath.core import catalogue
from axispath.core.arithmetic.program import Definition
from axispath.core.arithmetic.simplest import number
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.measuring import Shown
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.measure import Kind, Measuring, kind_of_value, real_value
from axispath.core.equations.measured import needed_in
from axispath.core.equations.wishes import read_wish
from axispath.core.language.rebuild import substituted
from axispath.core.language.tree import (
    Domain,
    Expression,
    FunctionStatement,
    Name,
    Product,
    Quotient,
    Sum,
)
from axispath.core.quantities.dimensions import NONE, Dimension, base_text, told
from axispath.core.quantities.values import Measured, NoResult

PLAIN: Shown = ("", Fraction(1), Fraction(0))


class Axes(NamedTuple):
    """The units of the axes as typed; empty where an axis has none."""

    x: str = ""
    y: str = ""

    @property
    def measured(self) -> bool:
        """Whether one has a unit."""
        return bool(self.x.strip() or self.y.strip())


@dataclass(frozen=True, slots=True)
class AxisUnit:
    """A unit of an axis: what it is called, how much of the SI, and of which dimension."""

    shown: Shown
    of: Dimension


def axis_unit(text: str) -> AxisUnit:
    """The unit of an axis as typed; that of plain numbers where it is empty. Raises NoResult."""
    if not text.strip():
        return AxisUnit(PLAIN, NONE)
    wish = read_wish("the axis", "", "", "", text)
    if wish.wrong or wish.shown is None or wish.of is None:
        raise NoResult(wish.wrong or "there is no such unit")
    return AxisUnit(wish.shown, wish.of)


@dataclass(frozen=True, slots=True)
class Placed:
    """A function in numbers of the axes' units; ``measure`` is the unit of its values."""

    statement: FunctionStatement
    measure: str


def placed(
    statement: FunctionStatement,
    axes: Axes,
    definitions: Mapping[str, Definition],
    calculator: Calculator,
) -> Placed:
    """A function of x whose formula holds quantities. Raises NoResult where its units do not fit.

    x stands for so many units of its axis; values are counted in those of y, or in the SI's where
    that axis has none.
    """
    if statement.parameters != ("x",) or statement.curve:
        raise NoResult("only functions of x hold quantities")
    across, upwards = axis_unit(axes.x), axis_unit(axes.y)
    reading = _Reading(across, definitions, calculator)
    tree, of = reading.bare(statement.body)
    if axes.y.strip():
        if of != upwards.of:
            unit = upwards.shown[0]
            raise NoResult(f"its values are in {told(of)}, and the y-axis is in {unit}")
        shown = upwards.shown
    else:
        shown = _si(of)
    body = tree if shown[1:] == PLAIN[1:] else Quotient(_less(tree, shown[2]), number(shown[1]))
    domain = reading.domain(statement.domain) if statement.domain is not None else None
    return Placed(replace(statement, body=body, domain=domain), shown[0])


def _less(tree: Expression, offset: Fraction) -> Expression:
    return tree if not offset else Sum((tree, number(-offset)))


def _si(of: Dimension) -> Shown:
    """The SI's own unit of a dimension."""
    names = (u.symbol for u in catalogue.UNITS if u.dimension == of and u.factor == 1)
    return (next(names, base_text(of)), Fraction(1), Fraction(0)) if of != NONE else PLAIN


@dataclass(frozen=True)
class _Reading:
    across: AxisUnit
    definitions: Mapping[str, Definition]
    calculator: Calculator

    def bare(self, body: Expression) -> tuple[Expression, Dimension]:
        """A formula as one of numbers, in which x counts units of its axis; its dimension."""
        kinds = {"x": Kind(self.across.of, self._scale())}
        values: dict[str, Expression] = {}
        for name in needed_in([body], frozenset("x"), self.definitions)[0]:
            if name not in self.definitions:
                continue
            value = real_value(self.calculator.result(Name(name)).value, name)
            kinds[name] = kind_of_value(value)
            if isinstance(value, Measured):
                values[name] = tree_of(value.value)
        measuring = Measuring(kinds, self.definitions, frozenset())
        found = measuring.bare(body)
        _, factor, offset = self.across.shown
        x: Expression = Name("x")
        if factor != 1:
            x = Product(number(factor), x)
        values["x"] = Sum((x, number(offset))) if offset else x
        return substituted(found.tree, values), measuring.dimensions.now(found.form).known

    def _scale(self) -> Shown | None:
        return self.across.shown if self.across.shown[2] else None

    def domain(self, domain: Domain) -> Domain:
        """A domain in units of the axis; ends that are plain numbers are so already."""
        ends = [None if end is None else self._end(end) for end in (domain.low, domain.high)]
        return replace(domain, low=ends[0], high=ends[1])

    def _end(self, end: Expression) -> Expression:
        tree, of = self.bare(end)
        if of == NONE:
            return end
        if of != self.across.of:
            unit = self.across.shown[0] or "plain numbers"
            raise NoResult(f"an end of its domain is in {told(of)}, and the x-axis is in {unit}")
        return Quotient(_less(tree, self.across.shown[2]), number(self.across.shown[1]))


def axis_label(label: str, unit: str, letter: str) -> str:
    """What stands at an axis: its label, with the unit where it has one."""
    unit = unit.strip()
    return f"{label or letter} in {unit}" if unit else label
