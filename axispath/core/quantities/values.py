"""What calculations work on: numbers, lists, matrices, and formulas that stand for themselves."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from flint import acb, arb

from axispath.core.language.tree import Expression
from axispath.core.quantities.dimensions import Dimension
from axispath.core.quantities.surds import Surd


class NoResult(ArithmeticError):
    """There is no result; the message is a sentence for a student."""


@dataclass(frozen=True, slots=True)
class Undefined:
    """A number that is not there, and why: a place of a list may have none."""

    why: str


@dataclass(frozen=True, slots=True)
class Measured:
    """A number of the SI's units of a dimension; ``shown_in`` are units that were asked for.

    These are a text, what one of them is in the SI, and where its zero lies.
    """

    value: Surd | arb | acb
    dimension: Dimension
    shown_in: tuple[str, Fraction, Fraction] | None = None


Scalar = Surd | arb | acb | Undefined | Measured
"""An exact number, or an enclosure of one at the working precision, complex where it is acb."""


@dataclass(frozen=True, slots=True)
class Items:
    """A list of numbers."""

    values: tuple[Scalar, ...]

    def __len__(self) -> int:
        return len(self.values)


@dataclass(frozen=True, slots=True)
class Grid:
    """A matrix: rows of equal length, at least one of at least one number."""

    rows: tuple[tuple[Scalar, ...], ...]

    @property
    def size(self) -> tuple[int, int]:
        """How many rows and columns it has."""
        return len(self.rows), len(self.rows[0])

    @property
    def shape(self) -> str:
        """Its size in words: 2 × 3."""
        return f"{self.size[0]} × {self.size[1]}"

    @property
    def entries(self) -> tuple[Scalar, ...]:
        """All its numbers, row by row."""
        return tuple(entry for row in self.rows for entry in row)

    @property
    def is_square(self) -> bool:
        """Whether it has as many rows as columns."""
        return self.size[0] == self.size[1]


@dataclass(frozen=True, slots=True)
class Formula:
    """A formula in a letter, such as a derivative or a Taylor polynomial."""

    expression: Expression
    variable: str


@dataclass(frozen=True, slots=True)
class Parts:
    """Several results with their names, such as the factors of a matrix."""

    named: tuple[tuple[str, Value], ...]


Value = Scalar | Items | Grid | Formula | Parts


def called(value: Value) -> str:
    """What a sentence calls a value: a number, a list of 3 values, a 2 × 2 matrix."""
    match value:
        case Items(values):
            return f"a list of {len(values)} values"
        case Grid():
            return f"a {value.shape} matrix"
        case Formula(_, variable):
            return f"a formula in {variable}"
        case Parts():
            return "several results"
        case acb():
            return "a complex number"
        case Surd() if not value.is_real:
            return "a complex number"
        case Measured():
            return "a quantity"
    return "a number"
