"""Rows added, scaled and exchanged: echelon forms, determinants, inverses, solutions.

Exact numbers are eliminated exactly, fractions by a library's matrices; enclosures so that every
result holds what the true one is (G. Alefeld and J. Herzberger 1983, Introduction to Interval
Computations, chapter 15, done by the library). A pivot that an enclosure cannot tell from 0 asks
for more digits.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from flint import acb_mat, arb_mat, fmpq, fmpq_mat

from axispath.core.quantities.scalars import (
    absolute,
    divide,
    enclosed,
    is_real,
    is_zero,
    known,
    multiply,
    negate,
    simplified,
    subtract,
)
from axispath.core.quantities.surds import ZERO, Surd
from axispath.core.quantities.values import Grid, Measured, NoResult, Scalar, Undefined

ONE = Surd.of(1)
MOST_EXACT = 30  # rows up to which fractions are worth their length
MOST_INVERTED = 200
SINGULAR = "this matrix is singular: its determinant is 0, so it has no inverse"

Rows = list[list[Scalar]]


@dataclass(frozen=True, slots=True)
class Echelon:
    """Rows in echelon form; ``pivots`` are the columns of the leading numbers.

    ``factor`` is the determinant of all operations, for the determinant of what was reduced.
    """

    rows: tuple[tuple[Scalar, ...], ...]
    pivots: tuple[int, ...]
    factor: Scalar


def defined(grid: Grid) -> Grid:
    """The matrix itself. Raises NoResult where one of its numbers is missing."""
    for row in grid.rows:
        for value in row:
            if isinstance(value, Undefined):
                raise NoResult(f"a number of this matrix is missing: {value.why}")
            if isinstance(value, Measured):
                raise NoResult("matrices of quantities are only added and multiplied")
    return grid


def square(grid: Grid, what: str) -> Grid:
    """The matrix itself. Raises NoResult where it is not square."""
    if not grid.is_square:
        raise NoResult(f"{what} belongs to a square matrix, and this one is {grid.shape}")
    return defined(grid)


def fractions_of(grid: Grid) -> fmpq_mat | None:
    """A matrix of fractions for the library; None where there are other numbers."""
    found: list[list[fmpq]] = []
    for row in grid.rows:
        line = []
        for value in row:
            rational = value.rational if isinstance(value, Surd) else None
            if rational is None:
                return None
            line.append(fmpq(rational.numerator, rational.denominator))
        found.append(line)
    return fmpq_mat(found)


def from_fractions(matrix: fmpq_mat) -> Grid:
    """A matrix of the library as one of ours."""
    return Grid(
        tuple(tuple(Surd.of(Fraction(int(q.p), int(q.q))) for q in row) for row in matrix.tolist())
    )


def balls_of(grid: Grid) -> arb_mat | acb_mat:
    """A matrix of enclosures for the library."""
    rows: list[list[Any]] = [[enclosed(known(v)) for v in row] for row in grid.rows]
    real = all(map(is_real, grid.entries))
    return arb_mat(rows) if real else acb_mat(rows)


def from_balls(matrix: arb_mat | acb_mat) -> Grid:
    """Enclosures of the library as one of our matrices."""
    return Grid(tuple(tuple(simplified(value) for value in row) for row in matrix.tolist()))


def is_exact(grid: Grid) -> bool:
    """Whether all numbers are exact."""
    return all(isinstance(value, Surd) for value in grid.entries)


def echelon(grid: Grid, reduced: bool, columns: int | None = None) -> Echelon:
    """The echelon form by rows, with pivots in the first ``columns``; all by default."""
    rows: Rows = [list(row) for row in defined(grid).rows]
    height, width = grid.size
    pivots: list[int] = []
    factor: Scalar = ONE
    for column in range(width if columns is None else columns):
        top = len(pivots)
        if top == height:
            break
        at = _pivot(rows, top, column)
        if at is None:
            continue
        if at != top:
            rows[top], rows[at] = rows[at], rows[top]
            factor = negate(factor)
        lead = rows[top][column]
        if reduced:
            factor = multiply(factor, lead)
            rows[top] = [divide(value, lead) for value in rows[top]]
            lead = ONE
        for k in range(0 if reduced else top + 1, height):
            if k != top and not is_zero(rows[k][column]):
                share = divide(rows[k][column], lead)
                rows[k] = _less(rows[k], share, rows[top], column)
        pivots.append(column)
    return Echelon(tuple(map(tuple, rows)), tuple(pivots), factor)


def _less(row: list[Scalar], share: Scalar, top: list[Scalar], column: int) -> list[Scalar]:
    found = [subtract(a, multiply(share, b)) for a, b in zip(row, top, strict=True)]
    found[column] = ZERO  # what an enclosure of 0 cannot say
    return found


def _pivot(rows: Rows, top: int, column: int) -> int | None:
    """The row to bring up: the first exact number that is not 0, else what is farthest from 0."""
    there = [k for k in range(top, len(rows)) if not _surely_zero(rows[k][column])]
    if not there:
        return None
    exact = [k for k in there if isinstance(rows[k][column], Surd)]
    if exact:
        return exact[0]
    best = max(there, key=lambda k: _size(rows[k][column]))
    is_zero(rows[best][column])  # or more digits are needed
    return best


def _surely_zero(value: Scalar) -> bool:
    if isinstance(value, Surd):
        return value.is_zero
    return not isinstance(value, Undefined | Measured) and bool(value.is_zero())


def _size(value: Scalar) -> float:
    return 0.0 if isinstance(value, Undefined | Surd | Measured) else float(abs(value).mid())


def determinant(grid: Grid) -> Scalar:
    """The determinant."""
    square(grid, "a determinant")
    fractions = fractions_of(grid)
    if fractions is not None:
        whole = fractions.det()
        return Surd.of(Fraction(int(whole.p), int(whole.q)))
    if not is_exact(grid) or grid.size[0] > MOST_EXACT:
        return simplified(balls_of(grid).det())
    found = echelon(grid, reduced=False)
    if len(found.pivots) < grid.size[0]:
        return ZERO
    value: Scalar = found.factor
    for k, row in enumerate(found.rows):
        value = multiply(value, row[k])
    return value


def inverse(grid: Grid) -> Grid:
    """The inverse. Raises NoResult where there is none."""
    if grid.size[0] > MOST_INVERTED:
        raise NoResult(
            f"an inverse of {grid.shape} is too large: up to {MOST_INVERTED} rows are inverted, "
            "and solution(A, b) solves for up to 300"
        )
    return solution(square(grid, "an inverse"), identity(grid.size[0]))


def solution(grid: Grid, right: Grid) -> Grid:
    """X with grid · X = right, of a square matrix. Raises NoResult where it is singular."""
    size = square(grid, "one solution").size[0]
    if right.size[0] != size:
        raise NoResult(f"{grid.shape} and {right.shape} do not fit: they need equally many rows")
    fractions, sides = fractions_of(grid), fractions_of(right)
    try:
        if fractions is not None and sides is not None and size <= MOST_EXACT:
            return from_fractions(fractions.solve(sides))
        if not (is_exact(grid) and is_exact(right)) or size > MOST_EXACT:
            left: Any = balls_of(grid)
            other: Any = balls_of(right)
            if isinstance(left, acb_mat) or isinstance(other, acb_mat):
                left, other = acb_mat(left), acb_mat(other)
            return from_balls(left.solve(other))
    except ZeroDivisionError:
        if fractions is not None and fractions.det() == 0:
            raise NoResult(SINGULAR) from None
        if is_zero(determinant(grid)):
            raise NoResult(SINGULAR) from None
        raise
    found = echelon(beside(grid, right), reduced=True, columns=size)
    if len(found.pivots) < size:
        raise NoResult(SINGULAR)
    return Grid(tuple(row[size:] for row in found.rows))


def rank(grid: Grid) -> int:
    """How many rows are independent."""
    fractions = fractions_of(defined(grid))
    return fractions.rank() if fractions is not None else len(echelon(grid, False).pivots)


def size_squared(value: Scalar) -> Scalar:
    """|z|² of a number."""
    if is_real(value):
        return multiply(value, value)
    size = absolute(value)
    return multiply(size, size)


def identity(size: int) -> Grid:
    """The identity matrix."""
    return Grid(tuple(tuple(ONE if i == k else ZERO for k in range(size)) for i in range(size)))


def beside(left: Grid, right: Grid) -> Grid:
    """Two matrices with equally many rows side by side."""
    if left.size[0] != right.size[0]:
        raise NoResult(f"{left.shape} and {right.shape} do not fit side by side")
    return Grid(tuple((*a, *b) for a, b in zip(left.rows, right.rows, strict=True)))


def null_space(grid: Grid) -> list[tuple[Scalar, ...]]:
    """Independent solutions of grid · x = 0, one for each column without a pivot."""
    found = echelon(grid, reduced=True)
    width = grid.size[1]
    free = [k for k in range(width) if k not in found.pivots]
    basis = []
    for k in free:
        vector: list[Scalar] = [ZERO] * width
        vector[k] = ONE
        for row, pivot in zip(found.rows, found.pivots, strict=False):
            vector[pivot] = negate(row[k])
        basis.append(tuple(vector))
    return basis
