"""Relations ready to compute: differences of their sides, their slopes, and what has to hold."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import Boxes
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.comparing import COMPARED
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.floats import bound_to_floats
from axispath.core.arithmetic.fraction import numerator
from axispath.core.arithmetic.program import Bound, NotComputable, Program
from axispath.core.arithmetic.simplest import number, sum_of
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tree import (
    Comparison,
    Condition,
    Expression,
    OfRelation,
    RelationStatement,
)
from axispath.core.language.walking import differences
from axispath.core.memory import Memory
from axispath.core.plane.plain import PLANE, plain
from axispath.core.sheet.resolve import ResolvedLane

Floats = NDArray[np.float64]
Truth = NDArray[np.bool_]
Rule = int | tuple[str, tuple["Rule", ...]]
"""A comparison by its number, or several joined by “and” or “or”."""


@dataclass(frozen=True)
class Side:
    """One comparison: the left less the right as a program of x and y, and the sign.

    ``plain`` is the same without its denominators: it is 0 wherever the difference is.
    """

    plan: Program
    sign: str
    plain: Program
    slopes: tuple[Program, Program] | None
    unit: AngleUnit

    @cached_property
    def whole(self) -> Callable[[Boxes, Boxes], Boxes]:
        """The difference itself on boxes."""
        return box_function(self.plan, self.unit)

    @cached_property
    def boxes(self) -> tuple[Callable[[Boxes, Boxes], Boxes], ...]:
        """Value and slopes on boxes; the slopes are missing where no rule gives them."""
        plans = (self.plain, *(self.slopes or ()))
        return tuple(box_function(plan, self.unit) for plan in plans)

    def values(self, x: Floats, y: Floats) -> Floats:
        """The left less the right at places; NaN where it has no value."""
        return _floats(self._bound[0], x, y)

    def plain_values(self, x: Floats, y: Floats) -> Floats:
        """The same without denominators."""
        return _floats(self._bound[1], x, y)

    @cached_property
    def _bound(self) -> tuple[Bound, Bound]:
        return bound_to_floats(self.plan, self.unit), bound_to_floats(self.plain, self.unit)

    def holds(self, x: Floats, y: Floats) -> Truth:
        """Whether the comparison holds at places, as floats tell."""
        values = self.values(x, y)
        with np.errstate(invalid="ignore"):
            found: Truth = COMPARED[self.sign](values, 0)
        return found

    def known(self, found: Boxes) -> tuple[Truth, Truth]:
        """Whether the comparison surely holds, and surely does not, with these differences."""
        low, high, throughout = found.low, found.high, found.state == 2
        yes, no = {
            "<": (high < 0, low >= 0),
            "<=": (high <= 0, low > 0),
            ">": (low > 0, high <= 0),
            ">=": (low >= 0, high < 0),
            "=": ((low == 0) & (high == 0), (low > 0) | (high < 0)),
        }[self.sign]
        return yes & throughout, no | (found.state == 0)


@dataclass(frozen=True)
class Relation:
    """``curve`` is the equation, if there is one; ``rule`` is what has to hold besides it."""

    sides: tuple[Side, ...]
    curve: Side | None
    rule: Rule | None

    def holds(self, x: Floats, y: Floats) -> Truth:
        """Whether all but the equation holds at places, as floats tell."""
        if self.rule is None:
            return np.ones(np.shape(x), dtype=bool)
        return self.ruled([side.holds(x, y) for side in self.sides])

    def holds_at(self, x: float, y: float) -> bool:
        """The same at one place."""
        return bool(self.holds(np.array([x]), np.array([y]))[0])

    def ruled(self, found: list[Truth]) -> Truth:
        """The same from what holds of each comparison."""
        assert self.rule is not None
        return _holds(self.rule, found)


def _holds(rule: Rule, found: list[Truth]) -> Truth:
    if isinstance(rule, int):
        return found[rule]
    word, parts = rule
    truths = [_holds(part, found) for part in parts]
    joined: Truth = np.logical_and.reduce(truths) if word == "and" else np.logical_or.reduce(truths)
    return joined


def known(rule: Rule, yes: list[Truth], no: list[Truth]) -> tuple[Truth, Truth]:
    """Whether a rule surely holds, and surely does not."""
    if isinstance(rule, int):
        return yes[rule], no[rule]
    word, parts = rule
    found = [known(part, yes, no) for part in parts]
    all_yes, all_no = [y for y, _ in found], [n for _, n in found]
    if word == "and":
        return np.logical_and.reduce(all_yes), np.logical_or.reduce(all_no)
    return np.logical_or.reduce(all_yes), np.logical_and.reduce(all_no)


_relations: Memory[Relation] = Memory(200)


def relation_of(lane: ResolvedLane) -> Relation:
    """The relation that a lane is."""
    statement = lane.statement
    assert isinstance(statement, RelationStatement)
    key = (statement, lane.programs, lane.unit)
    return _relations.found(key, lambda: _relation(lane, statement))


def _relation(lane: ResolvedLane, statement: RelationStatement) -> Relation:
    sides: list[Side] = []
    curve = None
    rules = []
    for condition in (statement.condition, statement.within):
        rule = None if condition is None else _rule(lane, condition, sides)
        if rule is not None:
            rules.append(rule)
    if statement.equation is not None:
        (difference,) = differences(statement.equation)
        curve = _side(lane, difference, "=")
    rule = None
    if rules:
        rule = rules[0] if len(rules) == 1 else ("and", tuple(rules))
    return Relation(tuple(sides), curve, rule)


def _rule(lane: ResolvedLane, condition: Condition, sides: list[Side]) -> Rule | None:
    """The rule of a condition without its equation; None where nothing is left."""
    if isinstance(condition, Comparison):
        if "=" in condition.signs:
            return None
        numbers = []
        for difference, sign in zip(differences(condition), condition.signs, strict=True):
            numbers.append(len(sides))
            sides.append(_side(lane, difference, sign))
        return numbers[0] if len(numbers) == 1 else ("and", tuple(numbers))
    if isinstance(condition, OfRelation):
        return _rule(lane, condition.condition, sides)
    rules = [r for part in condition.parts if (r := _rule(lane, part, sides)) is not None]
    if not rules:
        return None
    return rules[0] if len(rules) == 1 else (condition.word, tuple(rules))


def level_of(lane: ResolvedLane, level: float, sign: str) -> Side:
    """A function of x and y compared with a level."""
    assert lane.statement is not None
    return _side(lane, sum_of([lane.statement.body, number(-Fraction(level))]), sign)


def _side(lane: ResolvedLane, difference: Expression, sign: str) -> Side:
    plan = program(difference, PLANE, lane.definitions)
    top = plain(difference, lane.definitions) if sign == "=" else numerator(difference)
    slopes = None
    try:
        both = [derivative(top, letter, lane.definitions) for letter in PLANE]
        first, second = (program(slope, PLANE, lane.definitions) for slope in both)
        slopes = first, second
    except NotComputable:
        pass  # boxes of values alone
    return Side(plan, sign, program(top, PLANE, lane.definitions), slopes, lane.unit)


def _floats(bound: Bound, x: Floats, y: Floats) -> Floats:
    with np.errstate(all="ignore"):
        found = np.asarray(bound.run(x, y), dtype=np.float64)
    return found if found.shape == np.shape(x) else np.full(np.shape(x), found)
