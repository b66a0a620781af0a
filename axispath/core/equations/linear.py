"""Linear systems as rows of numbers, and their solutions by the reduced echelon form."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from axispath.core.arithmetic.patience import time_check
from axispath.core.calculation.calculate import Calculator
from axispath.core.language.tree import Expression, Name, Negation, Product, Quotient, Sum
from axispath.core.language.walking import free_names
from axispath.core.quantities.elimination import echelon
from axispath.core.quantities.grids import scalar
from axispath.core.quantities.scalars import TooWide, is_zero, negate, subtract
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, NoResult, Scalar, Value

MOST_TRIED = 40_000  # sets of rows, smaller ones first, before rows are taken away one by one


@dataclass(frozen=True, slots=True)
class LinearSystem:
    """A matrix with the right-hand sides as its last column, and what its columns belong to."""

    unknowns: tuple[str, ...]
    grid: Grid


@dataclass(frozen=True, slots=True)
class LinearSolution:
    """``values`` give each unknown as a constant and its share of the ``free`` ones.

    ``contradiction`` is the row of the echelon form that says 0 = something else.
    """

    kind: Literal["one", "none", "many"]
    values: tuple[tuple[str, Scalar, tuple[Scalar, ...]], ...] = ()
    free: tuple[str, ...] = ()
    contradiction: Scalar | None = None


def row_of(
    both: Expression,
    unknowns: Sequence[str],
    calculator: Calculator,
    names: Mapping[str, Value] | None = None,
) -> tuple[Scalar, ...]:
    """The coefficients of what is to be 0, and the right-hand side; ``names`` are known values."""
    numbers = {**(names or {}), **dict.fromkeys(unknowns, Surd.of(0))}
    constant = _number(calculator, both, numbers)
    row = [
        subtract(_number(calculator, both, {**numbers, one: Surd.of(1)}), constant)
        for one in unknowns
    ]
    return (*row, negate(constant))


def _number(calculator: Calculator, node: Expression, names: Mapping[str, Value]) -> Scalar:
    return scalar(calculator.result(node, names).value, "what is in an equation")


def linear(node: Expression, letters: set[str]) -> bool:
    """Whether letters are only added, and multiplied or divided by what has none."""
    if not any(one.name in letters for one in free_names(node)):
        return True
    match node:
        case Name():
            return True
        case Negation(operand):
            return linear(operand, letters)
        case Sum(terms):
            return all(linear(term, letters) for term in terms)
        case Product(left, right):
            bare = [part for part in (left, right) if not _has(part, letters)]
            return len(bare) == 1 and linear(left, letters) and linear(right, letters)
        case Quotient(top, bottom):
            return not _has(bottom, letters) and linear(top, letters)
    return False


def _has(node: Expression, letters: set[str]) -> bool:
    return any(one.name in letters for one in free_names(node))


def solved(system: LinearSystem) -> LinearSolution:
    """The solutions, read off the reduced echelon form. Raises NoResult, TooWide."""
    count = len(system.unknowns)
    found = echelon(system.grid, reduced=True, columns=count)
    for row in found.rows[len(found.pivots) :]:
        if not is_zero(row[count]):
            return LinearSolution("none", contradiction=row[count])
    free = [k for k in range(count) if k not in found.pivots]
    values = []
    for row, pivot in zip(found.rows, found.pivots, strict=False):
        shares = tuple(negate(row[k]) for k in free)
        values.append((system.unknowns[pivot], row[count], shares))
    names = tuple(system.unknowns[k] for k in free)
    return LinearSolution("many" if free else "one", tuple(values), names)


def impossible(rows: Sequence[tuple[Scalar, ...]], names: tuple[str, ...]) -> bool:
    """Whether rows surely have no common solution."""
    try:
        return bool(rows) and solved(LinearSystem(names, Grid(tuple(rows)))).kind == "none"
    except (TooWide, NoResult):
        return False


def smallest(rows: list[tuple[Scalar, ...]], names: tuple[str, ...]) -> list[int]:
    """The smallest set of rows that contradict each other, as far as sets can be tried.

    Where there are too many sets, one is read off the rows that come to 0 = something else, and its
    rows are taken away one by one as long as what is left is impossible: then none of those left
    can be missed (J. W. Chinneck and E. W. Dravnieks 1991, ORSA Journal on Computing 3).
    """
    check = time_check()
    masks = [_mask(row[: len(names)]) for row in rows]
    tried = 0
    for size in range(1, len(rows)):
        tried += math.comb(len(rows), size)
        if tried > MOST_TRIED:
            break
        for chosen in itertools.combinations(range(len(rows)), size):
            # In a contradiction every unknown cancels, so that none stands in one row only.
            if _single(masks[k] for k in chosen):
                continue
            if check is not None:
                check()
            if impossible([rows[k] for k in chosen], names):
                return list(chosen)
    kept = _combined(rows, names)
    for k in list(kept):
        if check is not None:
            check()
        rest = [i for i in kept if i != k]
        if impossible([rows[i] for i in rest], names):
            kept = rest
    return kept


def _mask(numbers: Sequence[Scalar]) -> int:
    """The places of numbers that are not 0, as bits."""
    return sum(1 << k for k, one in enumerate(numbers) if not _zero(one))


def _zero(one: Scalar) -> bool:
    try:
        return is_zero(one)
    except TooWide:
        return False


def _single(masks: Iterable[int]) -> bool:
    """Whether some bit is set in one mask and no other."""
    once = more = 0
    for mask in masks:
        more |= once & mask
        once |= mask
    return bool(once & ~more)


def _combined(rows: list[tuple[Scalar, ...]], names: tuple[str, ...]) -> list[int]:
    """The rows of which a sum with factors says 0 = something else; all where none is found."""
    count = len(names)
    unit = [tuple(Surd.of(int(i == k)) for k in range(len(rows))) for i in range(len(rows))]
    grid = Grid(tuple((*row, *one) for row, one in zip(rows, unit, strict=True)))
    try:
        found = echelon(grid, reduced=False, columns=count)
    except (TooWide, NoResult):
        return list(range(len(rows)))
    sets = [
        [k for k, factor in enumerate(row[count + 1 :]) if not _zero(factor)]
        for row in found.rows[len(found.pivots) :]
        if not _zero(row[count])
    ]
    return min(sets, key=len, default=list(range(len(rows))))
