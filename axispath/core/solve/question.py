"""What is asked: an equation with its unknown, resolved in a sheet."""

from __future__ import annotations

import itertools
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.program import Definition, NotComputable, Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.equation import parse_equation
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.tree import (
    Call,
    Comparison,
    Expression,
    Negation,
    Sum,
)
from axispath.core.language.walking import free_names
from axispath.core.search.line import Difference
from axispath.core.sheet.calculating import found_from
from axispath.core.sheet.dependencies import used_names
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.sheet.sliders import is_slider


class Unclear(EditRefused):
    """Which name is the unknown is for the student to say; ``choices`` are those that it may be."""

    def __init__(self, message: str, choices: tuple[str, ...]) -> None:
        super().__init__(message)
        self.choices = choices


@dataclass(frozen=True)
class Question:
    """An equation or inequality in one unknown.

    ``pair`` tells that two curves y = … were given, so that solutions are points.
    """

    text: str
    comparison: Comparison
    unknown: str
    unit: AngleUnit
    definitions: Mapping[str, Definition]
    pair: bool = False

    @property
    def is_equation(self) -> bool:
        """Whether the two sides are to be equal."""
        return self.comparison.signs == ("=",)

    @cached_property
    def sides(self) -> tuple[Program, ...]:
        """The sides as programs of the unknown."""
        return tuple(self.plan(side) for side in self.comparison.operands)

    @cached_property
    def differences(self) -> tuple[Program, ...]:
        """For each sign, what is on its left less what is on its right."""
        return tuple(self.plan(d) for d in self.difference_trees)

    @property
    def difference_trees(self) -> tuple[Expression, ...]:
        """The same as trees."""
        operands = self.comparison.operands
        return tuple(Sum((left, Negation(right))) for left, right in itertools.pairwise(operands))

    def heights(self, index: int, x: float) -> tuple[float, float]:
        """The two sides of a sign at a number, in floats."""
        left, right = self.sides[index : index + 2]
        return float_value(left, self.unit, x), float_value(right, self.unit, x)

    def plan(self, tree: Expression) -> Program:
        """A tree as a program of the unknown, which hides a value of that name everywhere."""
        return program(tree, (self.unknown,), self.definitions, everywhere=True)

    def difference(self, index: int) -> Difference:
        """The difference at one sign, for a search along the unknown."""
        tree = self.difference_trees[index]
        return Difference(tree, self.unknown, self.definitions, self.unit)


def ask(document: Document, text: str, unknown: str = "") -> Question:
    """Read an equation in a sheet.

    Raises EditRefused, or Unclear where it is not plain which name is the unknown.
    """
    sheet = resolve(document)
    definitions = sheet.lanes[0].definitions if sheet.lanes else {}
    try:
        text = written(text)
        # The unknown is known as a word, as the argument of a lane is.
        scope = scope_of(document.lanes).with_values(("x", *([unknown] if unknown else [])))
        comparison, pair = parse_equation(text, scope)
    except LanguageError as error:
        raise EditRefused(error.message, error.start, error.end, error.mend) from error
    free, sliders = _names(comparison, definitions, list(sheet))
    found = _unknown(free, sliders, unknown, text)
    for side in comparison.operands:
        name = found_from(side, found, definitions)
        if name is not None:
            raise EditRefused(
                f"{name} is worked out from {found} on the page Working, so this cannot be solved "
                f"for {found} here: write it as equations there."
            )
    question = Question(text.strip(), comparison, found, document.unit, definitions, pair)
    try:
        _ = question.sides, question.differences
    except NotComputable as error:
        raise EditRefused(str(error)) from error
    return question


def _names(
    comparison: Comparison, definitions: Mapping[str, Definition], lanes: list[ResolvedLane]
) -> tuple[list[str], list[str]]:
    """The names without a value, and the sliders that the sides depend on."""
    free: dict[str, None] = {}
    pending = []
    for side in comparison.operands:
        for node in free_names(side):
            if isinstance(node, Call):
                if node.name not in definitions:
                    raise EditRefused(f"{node.name} is not a function here.", *node.place)
                pending.append(node.name)
            elif node.name in definitions:
                if definitions[node.name].parameters is not None:
                    message = f"{node.name} is a function here: write {node.name}(x)."
                    raise EditRefused(message, *node.place)
                pending.append(node.name)
            else:
                free[node.name] = None
    seen: dict[str, None] = {}
    while pending:
        name = pending.pop()
        if name in seen or name not in definitions:
            continue
        seen[name] = None
        pending += [used for used, _ in used_names(definitions[name])]
    missing = {name for lane in lanes if lane.name in seen for name in lane.missing}
    for name in sorted(missing):
        free[name] = None
    wrong = [lane.name for lane in lanes if lane.name in seen and lane.error is not None]
    if wrong:
        raise EditRefused(f"{wrong[0]} is not understood on the sheet, so this cannot be solved.")
    sliders = [lane.name for lane in lanes if is_slider(lane) and lane.name in seen]
    return list(free), [name for name in sliders if name]


def _unknown(free: list[str], sliders: list[str], wanted: str, text: str) -> str:
    if wanted:
        if wanted not in (*free, *sliders):
            raise EditRefused(f"{wanted} does not occur in this equation.")
        without = [name for name in free if name != wanted]
        if without:
            raise Unclear(f"{without[0]} has no value; give it one, or solve for it.", tuple(free))
        return wanted
    if len(free) == 1:
        return free[0]
    if free:
        listed = ", ".join(free)
        raise Unclear(f"Which is the unknown: {listed}? The others need values.", tuple(free))
    if sliders:
        raise Unclear("Every name here has a value. Which one is to be found?", tuple(sliders))
    raise EditRefused("There is no unknown here: nothing on either side can change.", 0, len(text))
