"""Row reduction step by step: each operation by itself, in words and in the notation of rows."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from axispath.core.quantities.elimination import defined
from axispath.core.quantities.scalars import (
    add,
    divide,
    is_zero,
    multiply,
    negate,
    sign,
    subtract,
)
from axispath.core.quantities.surds import ZERO, Surd
from axispath.core.quantities.values import Grid, Scalar

MOST_ROWS = 12
ONE = Surd.of(1)
LOWERED = str.maketrans("0123456789", "₀₁₂₃₄₅₆₇₈₉")
Writer = Callable[[Scalar], str]


@dataclass(frozen=True, slots=True)
class RowOperation:
    """Row ``row`` becomes ``scale`` times itself plus ``factor`` times row ``other``.

    Rows count from 0. Where ``exchanged``, the two rows change places.
    """

    row: int
    other: int = -1
    scale: Scalar = ONE
    factor: Scalar = ZERO
    exchanged: bool = False

    def applied(self, grid: Grid) -> Grid:
        """The matrix after it."""
        rows = list(grid.rows)
        if self.exchanged:
            rows[self.row], rows[self.other] = rows[self.other], rows[self.row]
            return Grid(tuple(rows))
        scaled = [multiply(self.scale, value) for value in rows[self.row]]
        if self.other >= 0:
            taken = zip(scaled, rows[self.other], strict=True)
            scaled = [add(value, multiply(self.factor, one)) for value, one in taken]
        rows[self.row] = tuple(scaled)
        return Grid(tuple(rows))

    def words(self, write: Writer) -> str:
        """What is done, as a sentence."""
        row, other = self.row + 1, self.other + 1
        if self.exchanged:
            return f"Exchange rows {row} and {other}."
        if self.other < 0:
            return f"Multiply row {row} by {write(self.scale)}."
        if self.scale == ONE and _negative(self.factor):
            return f"Subtract {_times(write(negate(self.factor)))}row {other} from row {row}."
        if self.scale == ONE:
            return f"Add {_times(write(self.factor))}row {other} to row {row}."
        return (
            f"Multiply row {row} by {write(self.scale)} and add {_times(write(self.factor))}"
            f"row {other}."
        )

    def notation(self, write: Writer) -> str:
        """The same in the notation of rows: R₂ ← R₂ − 3 R₁."""
        row, other = _row(self.row), _row(self.other)
        if self.exchanged:
            return f"{row} ↔ {other}"
        first = f"{_coefficient(write(self.scale))}{row}"
        if self.other < 0:
            return f"{row} ← {first}"
        negative = _negative(self.factor)
        size = write(negate(self.factor) if negative else self.factor)
        return f"{row} ← {first} {'−' if negative else '+'} {_coefficient(size)}{other}"


def _row(k: int) -> str:
    return f"R{str(k + 1).translate(LOWERED)}"


def _times(text: str) -> str:
    return "" if text == "1" else f"{text} times "


def _coefficient(text: str) -> str:
    if text == "1":
        return ""
    return f"({text}) " if " " in text or "/" in text else f"{text} "


def _negative(value: Scalar) -> bool:
    return isinstance(value, Surd) and value.is_real and sign(value) < 0


def reduction(
    grid: Grid, reduced: bool, columns: int | None = None
) -> list[tuple[RowOperation, Grid]]:
    """The steps to the echelon form, or to the reduced one, with the matrix after each.

    Pivots stand in the first ``columns``. A row that begins with 1 is preferred as pivot, which
    keeps fractions away as long as possible.
    """
    found: list[tuple[RowOperation, Grid]] = []
    now = defined(grid)

    def done(operation: RowOperation) -> Grid:
        after = operation.applied(now)
        found.append((operation, after))
        return after

    height, width = grid.size
    top = 0
    for column in range(width if columns is None else columns):
        there = [k for k in range(top, height) if not is_zero(now.rows[k][column])]
        if not there:
            continue
        pivot = next((k for k in there if now.rows[k][column] == ONE), there[0])
        if pivot != top and (now.rows[pivot][column] == ONE or there[0] != top):
            now = done(RowOperation(top, pivot, exchanged=True))
        lead = now.rows[top][column]
        if reduced and lead != ONE:
            now = done(RowOperation(top, scale=divide(ONE, lead)))
            lead = ONE
        for k in range(0 if reduced else top + 1, height):
            if k != top and not is_zero(now.rows[k][column]):
                share = negate(divide(now.rows[k][column], lead))
                now = done(RowOperation(k, top, factor=share))
        top += 1
        if top == height:
            break
    return found


def form_of(grid: Grid, columns: int | None = None) -> str:
    """Whether a matrix is in echelon form, or in the reduced one; empty where it is in neither."""
    last, reduced = -1, True
    ended = False
    width = grid.size[1] if columns is None else columns
    for i, row in enumerate(grid.rows):
        lead = next((k for k in range(width) if not is_zero(row[k])), None)
        if lead is None:
            ended = True
            continue
        if ended or lead <= last:
            return ""
        alone = all(is_zero(other[lead]) for j, other in enumerate(grid.rows) if j != i)
        reduced = reduced and alone and is_zero(subtract(row[lead], ONE))
        last = lead
    return "reduced echelon form" if reduced else "echelon form"
