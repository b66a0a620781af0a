"""Matrices as products: triangles after exchanges of rows, and columns at right angles."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.quantities.elimination import defined, identity, square
from axispath.core.quantities.grids import dot, transposed
from axispath.core.quantities.scalars import (
    absolute,
    add,
    divide,
    is_real,
    is_zero,
    multiply,
    sign,
    subtract,
    to_power,
)
from axispath.core.quantities.surds import ZERO, Surd
from axispath.core.quantities.values import Grid, NoResult, Parts, Scalar

MOST_ROWS = 30
HALF = Surd.of(Fraction(1, 2))


def lu(grid: Grid) -> Parts:
    """P, L and U with grid = P·L·U, by elimination with exchanges of rows."""
    size = square(grid, "such a product").size[0]
    _refuse_large(size)
    upper = [list(row) for row in grid.rows]
    lower = [list(row) for row in identity(size).rows]
    order = list(range(size))
    for k in range(size):
        at = next((i for i in range(k, size) if not is_zero(upper[i][k])), None)
        if at is None:
            continue
        if at != k:
            upper[k], upper[at] = upper[at], upper[k]
            order[k], order[at] = order[at], order[k]
            for j in range(k):
                lower[k][j], lower[at][j] = lower[at][j], lower[k][j]
        for i in range(k + 1, size):
            share = divide(upper[i][k], upper[k][k])
            lower[i][k] = share
            upper[i] = [
                subtract(a, multiply(share, b)) for a, b in zip(upper[i], upper[k], strict=True)
            ]
            upper[i][k] = ZERO
    exchanged = [[Surd.of(1 if order[k] == i else 0) for k in range(size)] for i in range(size)]
    return Parts((("P", _grid(exchanged)), ("L", _grid(lower)), ("U", _grid(upper))))


def qr(grid: Grid) -> Parts:
    """Q and R with grid = Q·R, by Gram and Schmidt; exact where the lengths are roots."""
    columns = [list(column) for column in transposed(defined(grid)).rows]
    _refuse_large(max(grid.size))
    if not all(map(is_real, grid.entries)):
        raise NoResult("such a product is found for real matrices")
    units: list[list[Scalar]] = []
    size = len(columns)
    upper: list[list[Scalar]] = [[ZERO] * size for _ in range(size)]
    for k, column in enumerate(columns):
        rest = column
        for j, unit in enumerate(units):
            upper[j][k] = dot(tuple(unit), tuple(column))
            rest = [subtract(a, multiply(upper[j][k], b)) for a, b in zip(rest, unit, strict=True)]
        squares = dot(tuple(rest), tuple(rest))
        if is_zero(squares):
            raise NoResult("the columns are not independent, so there is no such product")
        upper[k][k] = to_power(squares, HALF)
        units.append([divide(value, upper[k][k]) for value in rest])
    return Parts((("Q", transposed(_grid(units))), ("R", _grid(upper))))


def largest_row(grid: Grid) -> Scalar:
    """The largest sum of absolute values in a row."""
    best: Scalar = ZERO
    for row in defined(grid).rows:
        total: Scalar = ZERO
        for value in row:
            total = add(total, absolute(value))
        best = total if sign(subtract(total, best)) > 0 else best
    return best


def _refuse_large(size: int) -> None:
    if size > MOST_ROWS:
        raise NoResult(f"such a product is found for up to {MOST_ROWS} rows, and this has {size}")


def _grid(rows: list[list[Scalar]] | list[list[Surd]]) -> Grid:
    return Grid(tuple(tuple(row) for row in rows))
