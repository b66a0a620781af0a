"""Functions that are computed on lines alone: of lists, matrices and complex numbers.

They have no value for an x, so they take no part in plots; their words yield to names of a sheet.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from axispath.core.language.vocabulary import Word
from axispath.core.quantities.values import Value


@dataclass(frozen=True, slots=True)
class Calculated:
    """A function of values of any kind.

    ``work`` maps these to a value, raises NoResult with a sentence where there is none, and TooWide
    where enclosures do not suffice; with ``angles`` it is told first whether angles are in degrees.
    ``solves`` marks those whose first argument is inverted in effect.
    """

    word: Word
    summary: str
    example: str
    work: Callable[..., Value]
    angles: bool = False
    solves: bool = False


def word(name: str, *arguments: str, **more: object) -> Word:
    """A word that yields to names of the sheet."""
    return Word(name, arguments, yields=True, **more)  # type: ignore[arg-type]
