"""The equations of a block, read with the names that they share.

Every name that nothing else defines is an unknown. Letters that are also units or constants are
settled for the whole block: a letter that somewhere stands as a name is one everywhere.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import partial

from axispath.core import catalogue
from axispath.core.language.errors import LanguageError, mended
from axispath.core.language.formula import end_at, read_formula
from axispath.core.language.measured import ends_in_unit, only_behind_numbers
from axispath.core.language.scope import Scope
from axispath.core.language.spelling import nearest_unit
from axispath.core.language.tokens import Token, outside_brackets, tokenise
from axispath.core.language.tree import (
    Comparison,
    Constant,
    Converted,
    Expression,
    Name,
    Pair,
    Power,
    Product,
    Quotient,
    UnitOf,
)
from axispath.core.language.vocabulary import Vocabulary
from axispath.core.language.walking import free_names, walk
from axispath.core.memory import remembered

MOST_EQUATIONS = 60
AMOUNT = re.compile(r"[-−+]?\s*[\d.]+(?:e[-+]?\d+)?\s*([^\W\d]\w*)", re.IGNORECASE)
LONGEST_PRODUCT = 3  # letters that are written side by side
_LINES = catalogue.LINE_VOCABULARY
# Without the constants of nature: which of them are meant is seen from the whole block.
_OPEN = Vocabulary(
    _LINES.functions, catalogue.VOCABULARY.constants, _LINES.yielding, _LINES.is_unit, _LINES.units
)


@dataclass(frozen=True, slots=True)
class Equation:
    """One equation by its ``number``, counted from 1, as typed and as read."""

    number: int
    text: str
    left: Expression
    right: Expression

    @property
    def comparison(self) -> Comparison:
        """Both sides, to be written."""
        return Comparison((self.left, self.right), ("=",))

    @property
    def names(self) -> frozenset[str]:
        """The names on both sides, without functions."""
        sides = (self.left, self.right)
        return frozenset(n.name for s in sides for n in free_names(s) if isinstance(n, Name))


@dataclass(frozen=True, slots=True)
class Wrong:
    """A line that cannot be read, and why."""

    number: int
    text: str
    error: LanguageError


@dataclass(frozen=True, slots=True)
class Reading:
    """How a letter was read, in words; ``other`` is how it is read instead: “name” or “unit”."""

    letter: str
    taken: str
    other: str


@dataclass(frozen=True, slots=True)
class Block:
    """The equations of a block; ``unknowns`` are the names in them that nothing else defines."""

    equations: tuple[Equation, ...]
    wrong: tuple[Wrong, ...]
    unknowns: tuple[str, ...]
    readings: tuple[Reading, ...]
    measured: bool
    left: int = 0  # lines beyond the most that a block can have

    @property
    def count(self) -> int:
        """How many lines it has."""
        return len(self.equations) + len(self.wrong)


Letters = tuple[tuple[str, str], ...]
"""How letters are read by choice: as a “name” or as a “unit” or constant."""


def lines_of(text: str) -> list[str]:
    """The lines of a block that are not empty; a semicolon parts lines too."""
    found: list[str] = []
    for line in text.split("\n"):
        parts, depth, start = [], 0, 0
        for at, sign in enumerate(line):
            depth += (sign in "([") - (sign in ")]")
            if sign == ";" and depth <= 0:
                parts.append(line[start:at])
                start = at + 1
        found += [part.strip() for part in (*parts, line[start:]) if part.strip()]
    return found


@remembered(512)
def claimed(text: str, letters: Letters = ()) -> frozenset[str]:
    """The names that a block may find: all names in it, whatever the sheet defines."""
    return _Reader(text, Scope(_OPEN), letters).candidates


def read_block(
    text: str, scope: Scope, known: frozenset[str], letters: Letters = (), first: int = 1
) -> Block:
    """Read a block. ``known`` are the values that something else defines. Never fails.

    The equations are counted from ``first`` on; what is beyond the most that are possible is left.
    """
    return _Reader(text, replace(scope, values=known), letters).block(first)


class _Reader:
    def __init__(self, text: str, scope: Scope, letters: Letters) -> None:
        lines = lines_of(text)
        self.lines, self.left = lines[:MOST_EQUATIONS], len(lines[MOST_EQUATIONS:])
        self.chosen = dict(letters)
        self.scope = scope
        self.open = replace(scope, vocabulary=_OPEN)
        first = [self._try(line, self.open) for line in self.lines]
        sides: list[Expression] = [side for both in first if both is not None for side in both]
        nodes = [node for side in sides for node in walk(side)]
        units = [node.symbol for node in nodes if isinstance(node, UnitOf)]
        self.doubtful = all(len(symbol) == 1 for symbol in units)
        # 5t is a factor times t where nothing else looks like an amount: t = 3 s, 9.81 m/s^2.
        bare = self.doubtful and not any(map(_looks_measured, nodes)) and not self._amounts()
        self.measured = bool(units) and not bare
        self.factors = set(units) if bare else set()
        named = {n.name for side in sides for n in free_names(side) if isinstance(n, Name)}
        named |= {letter for letter, how in letters if how == "name"}
        named |= set(units) - {one for one, how in letters if how == "unit"} if bare else set()
        alone = {side.name for side in sides if isinstance(side, Name)}
        self.constants = {name for name in named - alone if self._is_constant(name)}
        named -= self.constants
        products = {name for name in named - alone if self._is_product(name, named)}
        self.candidates = frozenset(named - products)

    def _is_constant(self, name: str) -> bool:
        if name not in catalogue.PHYSICAL or name in self.scope.values:
            return False
        return self.chosen.get(name, "unit" if self.measured else "") == "unit" or len(name) > 1

    def _is_product(self, name: str, named: Iterable[str]) -> bool:
        """Whether a word is letters side by side that are names by themselves: ma for m a."""
        others = {*named, *self.constants, *self.scope.values}
        short = 1 < len(name) <= LONGEST_PRODUCT and name.isalpha()
        return short and all(letter in others for letter in name)

    def _scope(self, unknowns: frozenset[str], line: str) -> Scope:
        as_units = {letter for letter, how in self.chosen.items() if how == "unit"}
        if self.measured and not self.doubtful:
            as_units |= {letter for letter in _amounts(line) if letter not in self.chosen}
        values = self.scope.values | unknowns
        inner = self.scope.with_values(tuple(sorted(values)))
        return replace(inner, vocabulary=_LINES, measured=self.measured, units=frozenset(as_units))

    def _amounts(self) -> set[str]:
        """The letters behind a number that are all of one side beside it, in any line."""
        return {letter for line in self.lines for letter in _amounts(line)}

    def _try(self, line: str, scope: Scope) -> tuple[Expression, Expression] | None:
        try:
            return _sides(line, scope)
        except LanguageError:
            return None

    def block(self, first: int) -> Block:
        unknowns = self.candidates - self.scope.values - set(self.scope.functions)
        equations: list[Equation] = []
        wrong: list[Wrong] = []
        for number, line in enumerate(self.lines, first):
            try:
                scope = self._scope(unknowns, line)
                left, right = mended(line, partial(_sides, scope=scope))
                equations.append(Equation(number, line, left, right))
            except LanguageError as error:
                wrong.append(Wrong(number, line, error))
        used = {name for one in equations for name in one.names}
        found = tuple(sorted(unknowns & used))
        readings = self._readings(equations)
        more = readings, self.measured, self.left
        return Block(tuple(equations), tuple(wrong), found, *more)

    def _readings(self, equations: list[Equation]) -> tuple[Reading, ...]:
        found: dict[str, Reading] = {}
        for equation in equations:
            for side in (equation.left, equation.right):
                for node in walk(side):
                    reading = self._reading(node)
                    if reading is not None:
                        found.setdefault(reading.letter, reading)
        sides = [side for equation in equations for side in (equation.left, equation.right)]
        for word in sorted(self.candidates - self.scope.values):
            near = nearest_unit(word, _LINES)
            if near and only_behind_numbers(word, sides):
                taken = f"{word} is an unknown here: is the unit {near} meant?"
                found[word] = Reading(word, taken, "")
        return tuple(found[letter] for letter in sorted(found))

    def _reading(self, node: Expression) -> Reading | None:
        """What is said of a letter that could be read in another way."""
        match node:
            case Constant(name) if name in catalogue.PHYSICAL:
                taken = f"{name} is the {catalogue.PHYSICAL[name].name}"
                return Reading(name, taken, "name" if len(name) == 1 else "")
            case UnitOf(symbol) if len(symbol) == 1:
                unit = catalogue.unit_of(symbol)
                if unit is not None and (self.doubtful or symbol in self.candidates):
                    return Reading(symbol, f"{symbol} behind a number is the {unit.name}", "name")
            case Name(name) if len(name) == 1 and (self.measured or name in self.factors):
                unit = catalogue.unit_of(name)
                if unit is not None:
                    return Reading(name, f"{name} is a name here, not the {unit.name}", "unit")
        return None


def _amounts(line: str) -> set[str]:
    """The letters behind a number that are all of one side beside it: t = 5 s."""
    found = (AMOUNT.fullmatch(side.strip()) for side in line.split("="))
    return {one[1] for one in found if one is not None and _LINES.is_unit(one[1])}


def _looks_measured(node: Expression) -> bool:
    """Whether units stand side by side, or one below the other."""
    match node:
        case Product(left, right) | Quotient(left, right):
            unit = right.base if isinstance(right, Power) else right
            return isinstance(unit, UnitOf) and ends_in_unit(left)
        case Converted():
            return True
    return False


def _sides(line: str, scope: Scope) -> tuple[Expression, Expression]:
    tokens = tokenise(line)
    at = _sign_of(line, tokens)
    if at == 0 or at == len(tokens) - 2:
        empty = "left" if at == 0 else "right"
        token = tokens[at]
        raise LanguageError(
            f"The {empty} side of this equation is missing.", token.start, token.end
        )
    left = read_formula(line, [*tokens[:at], end_at(tokens[at])], scope)
    right = read_formula(line, tokens[at + 1 :], scope)
    for side in (left, right):
        if any(isinstance(node, Pair) for node in walk(side)):
            raise LanguageError("Equations are about numbers, not points.", 0, len(line))
    return left, right


def _sign_of(line: str, tokens: list[Token]) -> int:
    signs = [index for index, token in outside_brackets(tokens) if token.text in ("=", "==")]
    if len(signs) == 1:
        return signs[0]
    if signs:
        place = tokens[signs[1]]
        raise LanguageError(
            "One line holds one equation, with one equals sign.", place.start, place.end
        )
    if any(token.text in ("<", ">", "<=", ">=", "!=") for token in tokens):
        raise LanguageError("A block holds equations; bounds are written beside an unknown.", 0, 1)
    raise LanguageError(
        "There is no equals sign: an equation has two sides, such as load = 4 rope.", 0, len(line)
    )
