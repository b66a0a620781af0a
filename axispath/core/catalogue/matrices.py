"""Matrices and vectors."""

from __future__ import annotations

from fractions import Fraction

import numpy as np

from axispath.core.catalogue.calculated import Calculated, word
from axispath.core.language.vocabulary import Shape
from axispath.core.quantities import decompositions, eigen
from axispath.core.quantities import elimination as rows_of
from axispath.core.quantities.grids import (
    column_of,
    dot,
    each,
    matrix_of,
    scalar,
    sized,
    transposed,
    vector_of,
)
from axispath.core.quantities.scalars import add, multiply, subtract, to_power, whole
from axispath.core.quantities.surds import ZERO, Surd
from axispath.core.quantities.values import Grid, Items, NoResult, Scalar, Value

FINEST = 10_000  # parts of 1 in which random numbers are drawn


def _transposed(value: Value) -> Value:
    return transposed(matrix_of(value, "a transposed matrix"))


def _inverse(value: Value) -> Value:
    return rows_of.inverse(matrix_of(value, "an inverse"))


def _determinant(value: Value) -> Value:
    return rows_of.determinant(matrix_of(value, "det"))


def _rank(value: Value) -> Value:
    return Surd.of(rows_of.rank(matrix_of(value, "rank")))


def _trace(value: Value) -> Value:
    grid = rows_of.square(matrix_of(value, "trace"), "a trace")
    total: Scalar = ZERO
    for k, row in enumerate(grid.rows):
        total = add(total, row[k])
    return total


def _count(value: Value, what: str) -> int:
    return whole(scalar(value, what), what)


def _identity(size: Value) -> Value:
    n = _count(size, "the number of rows")
    sized(n, n)
    return rows_of.identity(n)


def _zeros(height: Value, width: Value) -> Value:
    m, n = _count(height, "the number of rows"), _count(width, "the number of columns")
    sized(m, n)
    return Grid(((ZERO,) * n,) * m)


def _diagonal(value: Value) -> Value:
    values = vector_of(value, "diag")
    sized(len(values), len(values))
    return Grid(
        tuple(
            tuple(one if i == k else ZERO for k in range(len(values)))
            for i, one in enumerate(values)
        )
    )


def _random(height: Value, width: Value, seed: Value) -> Value:
    return _drawn(height, width, Fraction(0), Fraction(1), FINEST, seed)


def _random_whole(height: Value, width: Value, low: Value, high: Value, seed: Value) -> Value:
    least = Fraction(_count(low, "the smallest number"))
    most = Fraction(_count(high, "the largest number"))
    if least > most:
        raise NoResult("the smallest number is above the largest")
    return _drawn(height, width, least, most, int(most - least), seed)


def _drawn(
    height: Value, width: Value, low: Fraction, high: Fraction, parts: int, seed: Value
) -> Value:
    m, n = _count(height, "the number of rows"), _count(width, "the number of columns")
    sized(m, n)
    start = _count(seed, "the seed")
    if not 0 <= start < 2**32 or parts >= 2**31:
        raise NoResult("a seed is a whole number from 0 to 4294967295, and numbers up to 10⁹")
    # Of the library's generators the one whose numbers for a seed are promised not to change.
    draw = np.random.RandomState(start)
    step = (high - low) / parts if parts else Fraction(0)
    drawn = draw.randint(0, parts + 1, size=(m, n))
    return Grid(tuple(tuple(Surd.of(low + step * int(k)) for k in row) for row in drawn))


def _norm(value: Value) -> Value:
    entries = value.entries if isinstance(value, Grid) else vector_of(value, "norm")
    squares = tuple(rows_of.size_squared(entry) for entry in entries)
    return to_power(dot(squares, (Surd.of(1),) * len(squares)), Surd.of(Fraction(1, 2)))


def _dot(left: Value, right: Value) -> Value:
    first, second = vector_of(left, "dot"), vector_of(right, "dot")
    if len(first) != len(second):
        raise NoResult(f"vectors of {len(first)} and of {len(second)} numbers do not fit")
    return dot(first, second)


def _cross(left: Value, right: Value) -> Value:
    a, b = vector_of(left, "cross"), vector_of(right, "cross")
    if len(a) != 3 or len(b) != 3:
        raise NoResult("a cross product is of two vectors of three numbers")
    found = tuple(
        subtract(multiply(a[i], b[k]), multiply(a[k], b[i])) for i, k in ((1, 2), (2, 0), (0, 1))
    )
    return Grid(tuple((v,) for v in found)) if isinstance(left, Grid) else Items(found)


def _entrywise(left: Value, right: Value) -> Value:
    return each(multiply, left, right)


def _echelon(value: Value) -> Value:
    return Grid(rows_of.echelon(matrix_of(value, "echelon"), reduced=False).rows)


def _reduced(value: Value) -> Value:
    return Grid(rows_of.echelon(matrix_of(value, "reduced"), reduced=True).rows)


def _row(value: Value, place: Value) -> Value:
    grid = matrix_of(value, "row")
    return Items(grid.rows[_place(place, grid.size[0], "row")])


def _column(value: Value, place: Value) -> Value:
    grid = matrix_of(value, "column")
    k = _place(place, grid.size[1], "column")
    return Items(tuple(row[k] for row in grid.rows))


def _place(value: Value, size: int, what: str) -> int:
    k = _count(value, f"the number of a {what}")
    if not 1 <= k <= size:
        raise NoResult(f"there is no {what} {k}: they go from 1 to {size}")
    return k - 1


def _beside(left: Value, right: Value) -> Value:
    return rows_of.beside(matrix_of(left, "beside"), column_of(right, "beside"))


def _solution(left: Value, right: Value) -> Value:
    grid = matrix_of(left, "solution")
    column = column_of(right, "solution")
    found = rows_of.solution(grid, column)
    return found if isinstance(right, Grid) else Items(tuple(row[0] for row in found.rows))


def _eigenvalues(value: Value) -> Value:
    return Items(tuple(eigen.eigenvalues(matrix_of(value, "eigenvalues"))))


def _eigenvectors(value: Value) -> Value:
    return eigen.eigenvectors(matrix_of(value, "eigenvectors"))


def _lu(value: Value) -> Value:
    return decompositions.lu(matrix_of(value, "lu"))


def _qr(value: Value) -> Value:
    return decompositions.qr(matrix_of(value, "qr"))


def _condition(value: Value) -> Value:
    grid = matrix_of(value, "condition")
    return multiply(
        decompositions.largest_row(grid), decompositions.largest_row(rows_of.inverse(grid))
    )


A = ("A",)
ENTRIES = (
    Calculated(
        word("det", *A),
        "The determinant of a square matrix, also written |A|.",
        "det([4, 1; 2, 7])",
        _determinant,
    ),
    Calculated(
        word("inverse", *A),
        "The inverse of a matrix, also A^-1.",
        "inverse([4, 1; 2, 7])",
        _inverse,
        solves=True,
    ),
    Calculated(
        word("transpose", *A, shape=Shape.TRANSPOSED),
        "Rows and columns exchanged, also A^T.",
        "transpose([1, 2; 3, 4])",
        _transposed,
    ),
    Calculated(
        word("entrywise", "A", "B", shape=Shape.ENTRYWISE),
        "The product entry by entry, also A ∘ B; A·B is the product of matrices.",
        "entrywise([1, 2; 3, 4], [5, 6; 7, 8])",
        _entrywise,
    ),
    Calculated(word("rank", *A), "How many rows are independent.", "rank([1, 2; 2, 4])", _rank),
    Calculated(word("trace", *A), "The sum of the diagonal.", "trace([4, 1; 2, 7])", _trace),
    Calculated(
        word("echelon", *A),
        "The row echelon form. Step by step: “Reduce” beside a matrix.",
        "echelon([1, 2, 3; 2, 5, 8])",
        _echelon,
    ),
    Calculated(
        word("reduced", *A),
        "The reduced row echelon form, with a 1 leading each row alone in its column.",
        "reduced([1, 2, 3; 2, 5, 8])",
        _reduced,
    ),
    Calculated(
        word("solution", "A", "b"),
        "The solution X of A·X = b for a square matrix.",
        "solution([2, 1; 1, 3], [3, 5])",
        _solution,
        solves=True,
    ),
    Calculated(
        word("eigenvalues", *A),
        "The eigenvalues of a square matrix, as often as they count.",
        "eigenvalues([2, 1; 1, 2])",
        _eigenvalues,
    ),
    Calculated(
        word("eigenvectors", *A),
        "Eigenvectors of a square matrix as columns, in the order of the eigenvalues.",
        "eigenvectors([2, 1; 1, 2])",
        _eigenvectors,
    ),
    Calculated(
        word("lu", *A),
        "A as a product P·L·U: rows exchanged, a lower and an upper triangle.",
        "lu([2, 1; 6, 5])",
        _lu,
    ),
    Calculated(
        word("qr", *A),
        "A as a product Q·R: columns at right angles of length 1, times an upper triangle.",
        "qr([3, 1; 4, 2])",
        _qr,
    ),
    Calculated(
        word("condition", *A),
        "The condition number: by how much relative errors may grow when A·X = b is solved "
        "(largest row sums of A and of its inverse, multiplied).",
        "condition([1, 2; 3, 4])",
        _condition,
    ),
    Calculated(word("norm", "v"), "The length of a vector, √(v·v).", "norm([3, 4])", _norm),
    Calculated(
        word("dot", "u", "v"), "The dot product of two vectors.", "dot([1, 2], [3, 4])", _dot
    ),
    Calculated(
        word("cross", "u", "v"),
        "The cross product of two vectors in space.",
        "cross([1, 0, 0], [0, 1, 0])",
        _cross,
    ),
    Calculated(word("identity", "n"), "The n × n identity matrix.", "identity(3)", _identity),
    Calculated(word("zeromatrix", "m", "n"), "A matrix of zeros.", "zeromatrix(2, 3)", _zeros),
    Calculated(
        word("diag", "L"), "A matrix with a list on its diagonal.", "diag([1, 2])", _diagonal
    ),
    Calculated(
        word("random", "m", "n", "seed"),
        "An m × n matrix of random numbers between 0 and 1. The same seed gives the same numbers.",
        "random(2, 2, 1)",
        _random,
    ),
    Calculated(
        word("randomwhole", "m", "n", "low", "high", "seed"),
        "An m × n matrix of random whole numbers from low to high.",
        "randomwhole(2, 2, 1, 6, 1)",
        _random_whole,
    ),
    Calculated(word("row", "A", "k"), "The k-th row as a list.", "row([1, 2; 3, 4], 1)", _row),
    Calculated(
        word("column", "A", "k"), "The k-th column as a list.", "column([1, 2; 3, 4], 1)", _column
    ),
    Calculated(
        word("beside", "A", "B"),
        "Two matrices side by side, such as A with the right-hand side of equations.",
        "beside([1, 2; 3, 4], [5; 6])",
        _beside,
    ),
)
