"""Arithmetic of lists and matrices: element by element, and products of matrices."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from axispath.core.quantities.elimination import (
    MOST_EXACT,
    balls_of,
    fractions_of,
    from_balls,
    from_fractions,
    identity,
    inverse,
    is_exact,
    square,
)
from axispath.core.quantities.scalars import (
    add,
    divide,
    multiply,
    negate,
    subtract,
    to_power,
)
from axispath.core.quantities.surds import MOST_BITS, ZERO, Surd
from axispath.core.quantities.values import (
    Formula,
    Grid,
    Items,
    NoResult,
    Parts,
    Scalar,
    Undefined,
    Value,
    called,
)

MOST_ENTRIES = 90_000
FEW = 60  # products of single numbers that are carried out one by one
MOST_EXACT_WORK = 40_000  # products of single numbers
LARGEST_POWER = 10_000
Work = Callable[..., Scalar]


def each(work: Work, *given: Value) -> Value:
    """``work`` on numbers, or element by element on lists of one length, matrices of one size."""
    grids = [value for value in given if isinstance(value, Grid)]
    lists = [value for value in given if isinstance(value, Items)]
    for value in given:
        if isinstance(value, Formula | Parts):
            raise NoResult(f"{called(value)} cannot be computed with")
    if grids and lists:
        raise NoResult(
            f"{called(lists[0])} and {called(grids[0])} do not fit: a column is written [1; 2; 3]"
        )
    if grids:
        if len({grid.size for grid in grids}) > 1:
            raise NoResult(f"matrices of {grids[0].shape} and {grids[1].shape} do not fit")
        height, width = grids[0].size
        return Grid(
            tuple(
                tuple(work(*[_entry(value, i, k) for value in given]) for k in range(width))
                for i in range(height)
            )
        )
    if lists:
        if len({len(one) for one in lists}) > 1:
            few, many = sorted({len(one) for one in lists})[:2]
            raise NoResult(f"lists of {few} and of {many} values cannot be combined")
        count = len(lists[0])
        return Items(tuple(work(*[_item(value, k) for value in given]) for k in range(count)))
    return work(*given)


def _entry(value: Value, i: int, k: int) -> Scalar:
    if isinstance(value, Grid):
        return value.rows[i][k]
    assert not isinstance(value, Items | Formula | Parts)
    return value


def _item(value: Value, k: int) -> Scalar:
    if isinstance(value, Items):
        return value.values[k]
    assert not isinstance(value, Grid | Formula | Parts)
    return value


def scalar(value: Value, what: str) -> Scalar:
    """A number. Raises NoResult for lists and matrices."""
    if isinstance(value, Items | Grid | Formula | Parts):
        raise NoResult(f"{what} has to be a number, not {called(value)}")
    return value


def sum_of(left: Value, right: Value) -> Value:
    """A sum. A number and a matrix are not added."""
    _refuse_mixed(left, right, "added")
    return each(add, left, right)


def difference(left: Value, right: Value) -> Value:
    """A difference."""
    _refuse_mixed(left, right, "subtracted")
    return each(subtract, left, right)


def _refuse_mixed(left: Value, right: Value, done: str) -> None:
    if isinstance(left, Grid) != isinstance(right, Grid):
        grid, other = (left, right) if isinstance(left, Grid) else (right, left)
        if not isinstance(other, Items | Formula | Parts):
            raise NoResult(
                f"{called(other)} and {called(grid)} cannot be {done}; "
                "a number on the diagonal is written 3·identity(2)"
            )


def product(left: Value, right: Value) -> Value:
    """A product: of matrices by rows and columns, of lists element by element.

    Beside a matrix a list is a column on its right and a row on its left, and stays a list.
    """
    if isinstance(left, Grid) and isinstance(right, Grid):
        return _matrix_product(left, right)
    for one, other in ((left, right), (right, left)):
        if isinstance(one, Grid) and isinstance(other, Items) and not other.values:
            raise NoResult(f"{called(one)} and an empty list do not fit")
    if isinstance(left, Grid) and isinstance(right, Items):
        found = _matrix_product(left, column_of(right, "a product"))
        return Items(tuple(row[0] for row in found.rows))
    if isinstance(left, Items) and isinstance(right, Grid):
        return Items(_matrix_product(Grid((left.values,)), right).rows[0])
    return each(multiply, left, right)


def _matrix_product(left: Grid, right: Grid) -> Grid:
    height, inner = left.size
    if inner != right.size[0]:
        raise NoResult(
            f"{left.shape} times {right.shape} does not fit: the first needs as many columns as "
            "the second has rows"
        )
    width = right.size[1]
    for grid in (left, right):
        for row in grid.rows:
            if any(isinstance(value, Undefined) for value in row):
                raise NoResult("a number of a matrix is missing")
    work = height * inner * width
    exact = _exact_product(left, right) if work > FEW else None
    if exact is not None:
        return exact
    if work > MOST_EXACT_WORK or not (is_exact(left) and is_exact(right)):
        first: Any = balls_of(left)
        second: Any = balls_of(right)
        return from_balls(first * second)
    columns = tuple(zip(*right.rows, strict=True))
    return Grid(tuple(tuple(dot(row, column) for column in columns) for row in left.rows))


def _exact_product(left: Grid, right: Grid) -> Grid | None:
    """The product of fractions by the library; None where there are others, or it is too long."""
    if max(*left.size, *right.size) > MOST_EXACT:
        return None
    first, second = fractions_of(left), fractions_of(right)
    if first is None or second is None:
        return None
    found = from_fractions(first * second)
    longest = max(map(bits_of, found.entries))
    return found if longest <= MOST_BITS else from_balls(balls_of(left) * balls_of(right))


def bits_of(value: Scalar) -> int:
    """How long the numerator or denominator of an exact number is."""
    terms = value.terms if isinstance(value, Surd) else ()
    return max(
        (max(q.numerator.bit_length(), q.denominator.bit_length()) for _, q in terms), default=0
    )


def dot(left: tuple[Scalar, ...], right: tuple[Scalar, ...]) -> Scalar:
    """The sum of products."""
    total: Scalar = ZERO
    for a, b in zip(left, right, strict=True):
        total = add(total, multiply(a, b))
    return total


def quotient(top: Value, bottom: Value) -> Value:
    """A quotient by numbers or lists."""
    if isinstance(bottom, Grid):
        raise NoResult("nothing is divided by a matrix: multiply by its inverse, A^-1")
    return each(divide, top, bottom)


def opposite(value: Value) -> Value:
    """The opposite."""
    return each(negate, value)


def power(base: Value, exponent: Value) -> Value:
    """A power: of a matrix by whole numbers."""
    if isinstance(exponent, Grid):
        raise NoResult("a matrix cannot be an exponent; A^T is transpose(A) where T is a name")
    if not isinstance(base, Grid):
        return each(to_power, base, exponent)
    found = exponent.rational if isinstance(exponent, Surd) else None
    if found is None or found.denominator != 1 or abs(found) > LARGEST_POWER:
        raise NoResult(f"a power of a matrix is a whole number, up to {LARGEST_POWER} here")
    square(base, "a power")
    n = int(found)
    if n < 0:
        base, n = inverse(base), -n
    result = identity(base.size[0])
    while n:
        result = _matrix_product(result, base) if n & 1 else result
        n >>= 1
        base = _matrix_product(base, base) if n else base
    return result


def transposed(grid: Grid) -> Grid:
    """Rows and columns exchanged."""
    return Grid(tuple(zip(*grid.rows, strict=True)))


def sized(height: int, width: int) -> None:
    """Refuse a matrix that is larger than any here."""
    if height < 1 or width < 1:
        raise NoResult("a matrix has at least one row and one column")
    if height * width > MOST_ENTRIES:
        raise NoResult(f"a matrix of {height} × {width} is too large; 300 × 300 are possible")


def matrix_of(value: Value, what: str) -> Grid:
    """A matrix; a list is its one row. Raises NoResult for others."""
    if isinstance(value, Grid):
        return value
    if isinstance(value, Items) and len(value):
        return Grid((value.values,))
    raise NoResult(f"{what} needs a matrix, such as [1, 2; 3, 4], not {called(value)}")


def column_of(value: Value, what: str) -> Grid:
    """A matrix; a list is its one column. Raises NoResult for others."""
    if isinstance(value, Items) and value.values:
        return Grid(tuple((entry,) for entry in value.values))
    return matrix_of(value, what)


def vector_of(value: Value, what: str) -> tuple[Scalar, ...]:
    """The numbers of a vector: a list, one row or one column. Raises NoResult for others."""
    if isinstance(value, Items):
        return value.values
    if isinstance(value, Grid) and 1 in value.size:
        return value.entries
    raise NoResult(f"{what} needs vectors, such as [1, 2, 3], not {called(value)}")


def like(value: Value, entries: tuple[Scalar, ...]) -> Value:
    """Numbers as a vector of the same kind as another."""
    if isinstance(value, Grid) and value.size[1] == 1:
        return Grid(tuple((entry,) for entry in entries))
    return Grid((entries,)) if isinstance(value, Grid) else Items(entries)
