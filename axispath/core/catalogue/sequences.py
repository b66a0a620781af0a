"""Lists: ordered, cut, joined, changed in one place."""

from __future__ import annotations

import functools
import itertools

from axispath.core.catalogue.calculated import Calculated, word
from axispath.core.quantities.grids import like, matrix_of, scalar, vector_of
from axispath.core.quantities.scalars import add, is_real, sign, subtract, whole
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, Items, NoResult, Scalar, Undefined, Value, called


def ordered(values: tuple[Scalar, ...]) -> list[Scalar]:
    """Real numbers from the smallest on. Raises NoResult, TooWide."""
    for value in values:
        if isinstance(value, Undefined):
            raise NoResult(value.why)
        if not is_real(value):
            raise NoResult("complex numbers have no order")
    return sorted(values, key=functools.cmp_to_key(_compared))


def _compared(left: Scalar, right: Scalar) -> int:
    return sign(subtract(left, right))


def _sorted(value: Value) -> Value:
    return like(value, tuple(ordered(vector_of(value, "sort"))))


def _reversed(value: Value) -> Value:
    return like(value, vector_of(value, "reverse")[::-1])


def _length(value: Value) -> Value:
    return Surd.of(len(vector_of(value, "length")))


def _size(value: Value) -> Value:
    return Items(tuple(Surd.of(n) for n in matrix_of(value, "size").size))


def _joined(*given: Value) -> Value:
    found: list[Scalar] = []
    for value in given:
        found += value.values if isinstance(value, Items) else (scalar(value, "what is joined"),)
    return Items(tuple(found))


def _running_sums(value: Value) -> Value:
    found: list[Scalar] = []
    for one in vector_of(value, "running"):
        found.append(add(found[-1], one) if found else one)
    return like(value, tuple(found))


def _differences(value: Value) -> Value:
    values = vector_of(value, "differences")
    if len(values) < 2:
        raise NoResult("differences need at least two values")
    return Items(tuple(subtract(b, a) for a, b in itertools.pairwise(values)))


def places(value: Value, size: int, what: str) -> list[int]:
    """Places counted from 1, as a list or as one number; from 0 on in the answer."""
    given = value.values if isinstance(value, Items) else (scalar(value, f"the place in {what}"),)
    found = [whole(one, f"a place in {what}") for one in given]
    for place in found:
        if not 1 <= place <= size:
            raise NoResult(f"{what} has places 1 to {size}, not {place}")
    return [place - 1 for place in found]


def section(value: Value, wanted: tuple[Value, ...]) -> Value:
    """An entry, or a section where a place is a list of places."""
    if isinstance(value, Items):
        if len(wanted) != 1:
            raise NoResult("a list has one place for each of its values, such as L[2]")
        at = places(wanted[0], len(value), f"a list of {len(value)} values")
        found = tuple(value.values[k] for k in at)
        return Items(found) if isinstance(wanted[0], Items) else found[0]
    grid = matrix_of(value, "a place in brackets")
    if len(wanted) != 2:
        raise NoResult("a matrix has a row and a column for each of its numbers, such as A[1, 2]")
    rows = places(wanted[0], grid.size[0], f"the rows of a {grid.shape} matrix:")
    columns = places(wanted[1], grid.size[1], f"the columns of a {grid.shape} matrix:")
    if not any(isinstance(one, Items) for one in wanted):
        return grid.rows[rows[0]][columns[0]]
    return Grid(tuple(tuple(grid.rows[i][k] for k in columns) for i in rows))


def _put(value: Value, where: Value, what: Value) -> Value:
    """A copy of a list with other numbers at some places."""
    if isinstance(value, Grid):
        raise NoResult("in a matrix a place is a row and a column: put(A, 1, 2, 7)")
    values = list(vector_of(value, "put"))
    at = places(where, len(values), f"a list of {len(values)} values")
    new = what.values if isinstance(what, Items) else (scalar(what, "what is put in"),) * len(at)
    if len(new) != len(at):
        raise NoResult(f"{len(new)} values do not fit into {len(at)} places")
    for place, one in zip(at, new, strict=True):
        values[place] = one
    return Items(tuple(values))


def _put_in(value: Value, row: Value, column: Value, what: Value) -> Value:
    grid = matrix_of(value, "put")
    height, width = grid.size
    rows = places(row, height, f"the rows of a {grid.shape} matrix:")
    columns = places(column, width, f"the columns of a {grid.shape} matrix:")
    count = len(rows), len(columns)
    if isinstance(what, Grid):
        new = what
    elif isinstance(what, Items):
        new = Grid((what.values,)) if len(rows) == 1 else Grid(tuple((v,) for v in what.values))
    else:
        new = Grid(((scalar(what, "what is put in"),) * count[1],) * count[0])
    if new.size != count:
        raise NoResult(f"{called(what)} does not fit into {count[0]} × {count[1]} places")
    entries = [list(line) for line in grid.rows]
    for i, line in zip(rows, new.rows, strict=True):
        for k, one in zip(columns, line, strict=True):
            entries[i][k] = one
    return Grid(tuple(map(tuple, entries)))


def _put_somewhere(value: Value, *rest: Value) -> Value:
    return _put_in(value, *rest) if len(rest) == 3 else _put(value, *rest)


ENTRIES = (
    Calculated(word("sort", "L"), "A list from the smallest value on.", "sort([3, 1, 2])", _sorted),
    Calculated(word("reverse", "L"), "A list backwards.", "reverse([3, 1, 2])", _reversed),
    Calculated(word("length", "L"), "How many values a list has.", "length([3, 1, 2])", _length),
    Calculated(
        word("size", "A"),
        "How many rows and columns a matrix has, as a list.",
        "size([1, 2, 3; 4, 5, 6])",
        _size,
    ),
    Calculated(
        word("join", "L", "M", many=True),
        "Lists and numbers one after the other.",
        "join([1, 2], [5, 6])",
        _joined,
    ),
    Calculated(
        word("running", "L"),
        "The running sums of a list: the first value, the first two added, and so on.",
        "running([1, 2, 3])",
        _running_sums,
    ),
    Calculated(
        word("differences", "L"),
        "The differences between neighbours of a list.",
        "differences([1, 4, 9])",
        _differences,
    ),
    Calculated(
        word("put", "A", "place", "value", "more", optional=1),
        "A copy with another value at a place: put(L, 2, 7) of a list, put(A, 1, 2, 7) of a matrix "
        "by row and column; places may be stretches, as in put(A, [1 to 2], 3, [8, 9]).",
        "put([3, 1, 2], 2, 7)",
        _put_somewhere,
    ),
)
