"""Equations of the plane with their slopes, and their common zeros as landmarks."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

import numpy as np

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import between
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.arithmetic.program import Definition, Program, extended
from axispath.core.arithmetic.simplest import number
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tree import Expression, RelationStatement
from axispath.core.language.walking import differences
from axispath.core.plane.plain import PLANE, plain, polynomial
from axispath.core.plane.polynomials import without_lines, written
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Pair, Zero
from axispath.core.search.find import find_zeros
from axispath.core.search.landmark import Certainty, Common, Kind, Landmark, Method
from axispath.core.sheet.resolve import ResolvedLane

Rectangle = tuple[float, float, float, float]


@dataclass(frozen=True)
class Rules:
    """An equation F(x, y) = 0 as trees and programs, with its slopes of both orders."""

    tree: Expression
    definitions: Mapping[str, Definition]
    unit: AngleUnit

    def plan(self, tree: Expression) -> Program:
        """A program of x and y."""
        return program(tree, PLANE, self.definitions)

    def slope(self, tree: Expression, letter: str) -> Expression:
        """The derivative along x or y."""
        return derivative(tree, letter, self.definitions)

    @cached_property
    def slopes(self) -> tuple[Expression, Expression]:
        """The derivatives of F."""
        return self.slope(self.tree, "x"), self.slope(self.tree, "y")

    @cached_property
    def polynomial(self) -> Coefficients | None:
        """F as a polynomial; None where it is none."""
        return polynomial(self.tree, self.definitions)

    @cached_property
    def turning(self) -> Rules | None:
        """The same without lines along the axes, which have no turns; None where that is all."""
        if self.polynomial is None:
            return self
        part = without_lines(self.polynomial)
        if part == self.polynomial:
            return self
        if max(map(sum, part)) == 0:
            return None
        return Rules(written(part), self.definitions, self.unit)

    def pair(self, first: Expression, second: Expression) -> Pair:
        """Two functions with their slopes."""
        trees = [first, second]
        trees += [self.slope(tree, letter) for tree in (first, second) for letter in PLANE]
        return Pair.of([self.plan(tree) for tree in trees], self.unit)

    def along(self, letter: str, at: Fraction | float) -> Program:
        """F with one coordinate fixed, as a program of the other."""
        other = "x" if letter == "y" else "y"
        value = Definition(None, number(Fraction(at)))
        return program(self.tree, (other,), extended(self.definitions, {letter: value}))


def rules_of(lane: ResolvedLane) -> Rules:
    """The equation of a relation, without its denominators."""
    statement = lane.statement
    assert isinstance(statement, RelationStatement) and statement.equation is not None
    (difference,) = differences(statement.equation)
    return Rules(plain(difference, lane.definitions), lane.definitions, lane.unit)


def is_polynomial(lane: ResolvedLane) -> bool:
    """Whether a relation is all that a polynomial is 0 on: without denominators and conditions."""
    statement = lane.statement
    assert isinstance(statement, RelationStatement) and statement.equation is not None
    (difference,) = differences(statement.equation)
    alone = len(statement.comparisons) == 1
    return alone and polynomial(difference, lane.definitions) is not None


def side_rules(lane: ResolvedLane) -> list[Rules]:
    """All comparisons of a relation or a region as equations, each once."""
    statement = lane.statement
    assert isinstance(statement, RelationStatement)
    trees = [
        plain(tree, lane.definitions) for one in statement.comparisons for tree in differences(one)
    ]
    return [Rules(tree, lane.definitions, lane.unit) for tree in dict.fromkeys(trees)]


def heights(
    rules: Rules, ends: tuple[float, float], x: float, budget: Budget
) -> tuple[list[float], bool]:
    """The y between two ends at which an equation holds over an x, from below; whether all."""
    plan = rules.along("x", Fraction(x))
    path = find_zeros(plan, rules.unit, End.at(ends[0]), End.at(ends[1]), budget)
    return [mark.x for mark in path.landmarks], path.complete and not path.zero


def may_pass(rules: Rules, mark: Landmark) -> bool:
    """Whether a border may pass through a landmark."""
    around = [
        between(np.array([at - off]), np.array([at + off]))
        for at, off in ((mark.x, mark.radius), (mark.y, mark.y_radius))
    ]
    return bool(box_function(rules.plan(rules.tree), rules.unit)(*around).may_be_zero[0])


def landmark(
    kind: Kind, one: Zero, certainty: Certainty = Certainty.PROVEN, **more: float
) -> Landmark:
    """A common zero as a landmark."""
    radius, y_radius = one.radii
    return Landmark(
        kind,
        _clean(one.x, radius),
        _clean(one.y, y_radius),
        certainty,
        radius=radius,
        y_radius=y_radius,
        low=one.around[0],
        high=one.around[1],
        method=Method.ELIMINATION if one.by_elimination else Method.PAIR,
        pair=None if one.of is None else Common(*one.of, *one.around),
        **more,  # type: ignore[arg-type]
    )


def _clean(value: float, radius: float) -> float:
    """The simplest number within the error, where one is a short decimal."""
    for digits in (0, 1, 2, 3, 6):
        near = round(value, digits)
        if abs(near - value) <= radius:
            return near + 0.0
    return value
