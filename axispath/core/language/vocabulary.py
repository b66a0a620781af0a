"""The words that every sheet understands, as far as reading and writing them goes.

The catalogue fills a vocabulary; the language only looks words up in it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from enum import Enum

IMAGINARY_UNIT = "i"  # where complex numbers are read; it yields to a name of the sheet


class Shape(Enum):
    """How an applied function looks in writing."""

    WORD = "sin(x)"
    ROOT = "√x"
    INDEXED_ROOT = "ⁿ√x"
    BARS = "|x|"
    BASE = "log₂(x)"
    DEGREES = "x°"
    FACTORIAL = "x!"
    FLOOR = "⌊x⌋"
    CEILING = "⌈x⌉"
    TRANSPOSED = "Aᵀ"
    ENTRYWISE = "A ∘ B"


@dataclass(frozen=True, slots=True)
class Word:
    """A function: canonical name, argument names, other spellings, the name of its inverse."""

    name: str
    arguments: tuple[str, ...] = ("x",)
    spellings: tuple[str, ...] = ()
    inverse: str | None = None
    shape: Shape = Shape.WORD
    optional: int = 0  # so many arguments at the end may be left out
    many: bool = False  # the last argument may be repeated, or be a list
    yields: bool = False  # to a name of the sheet; without brackets only before a name
    runs: str = ""  # what is said of the letter in a formula: “= to”, “to”, “=”, or “-” for nothing

    @property
    def signature(self) -> str:
        """How a call looks, such as ``round(x, places)``."""
        return f"{self.name}({', '.join(self.arguments)}{', …' if self.many else ''})"


def _no_unit(word: str) -> bool:
    return False


@dataclass(frozen=True, slots=True)
class Vocabulary:
    """Functions and constants by every spelling of theirs."""

    functions: dict[str, Word] = field(default_factory=dict)
    constants: dict[str, str] = field(default_factory=dict)
    yielding: frozenset[str] = frozenset()  # constants that a name of the sheet takes precedence of
    is_unit: Callable[[str], bool] = _no_unit
    units: tuple[str, ...] = ()  # spellings without prefixes, to find what was meant

    def for_lines(self) -> Vocabulary:
        """These words, with i."""
        known = {**self.constants, IMAGINARY_UNIT: IMAGINARY_UNIT}
        yielding = self.yielding | {IMAGINARY_UNIT}
        return Vocabulary(self.functions, known, yielding, self.is_unit, self.units)

    def measured(
        self, constants: Iterable[str], is_unit: Callable[[str], bool], units: Iterable[str]
    ) -> Vocabulary:
        """These words, with constants of nature and units."""
        more = frozenset(constants)
        known = {**self.constants, **{name: name for name in more}}
        return Vocabulary(self.functions, known, more, is_unit, tuple(units))

    @staticmethod
    def of(words: Iterable[Word], constants: dict[str, str]) -> Vocabulary:
        """A vocabulary of ``words``; ``constants`` maps spellings to canonical names."""
        functions = {spelling: word for word in words for spelling in (word.name, *word.spellings)}
        return Vocabulary(functions, constants)
