"""Eigenvalues and eigenvectors: exact where they are roots of factors up to degree two."""

from __future__ import annotations

import math
from fractions import Fraction
from typing import Any

from flint import acb, acb_mat

from axispath.core.quantities.elimination import (
    balls_of,
    fractions_of,
    is_exact,
    null_space,
    square,
)
from axispath.core.quantities.polynomials import ordered_zeros, polynomial_zeros
from axispath.core.quantities.scalars import (
    TooWide,
    add,
    divide,
    is_real,
    known,
    multiply,
    simplified,
    subtract,
)
from axispath.core.quantities.surds import NotExact, Surd
from axispath.core.quantities.values import Grid, NoResult, Scalar

MOST_ROWS = 30


def eigenvalues(grid: Grid) -> list[Scalar]:
    """All eigenvalues, as often as they count: the real ones in order, then the others."""
    size = square(grid, "an eigenvalue").size[0]
    if size > MOST_ROWS:
        raise NoResult(f"eigenvalues are found for up to {MOST_ROWS} rows, and this has {size}")
    fractions = fractions_of(grid)
    if fractions is not None:
        c = fractions.charpoly().coeffs()
        return polynomial_zeros([Fraction(int(q.p), int(q.q)) for q in c])
    if size == 2 and is_exact(grid):
        try:
            return _of_two(grid)
        except NotExact:
            pass
    try:
        found: list[Any] = acb_mat(balls_of(grid)).eig(multiple=True)
    except (ValueError, ZeroDivisionError):
        raise TooWide from None
    return ordered_zeros([simplified(one) for one in found])


def _of_two(grid: Grid) -> list[Scalar]:
    ((a, b), (c, d)) = grid.rows
    half = Surd.of(Fraction(1, 2))
    middle, apart = multiply(add(a, d), half), multiply(subtract(a, d), half)
    under = add(multiply(apart, apart), multiply(b, c))
    if not isinstance(under, Surd):
        raise NotExact
    root = under.square_root()
    return ordered_zeros([subtract(middle, root), add(middle, root)])


def eigenvectors(grid: Grid) -> Grid:
    """Independent eigenvectors as columns, by the order of the eigenvalues.

    Raises NoResult where there are fewer than rows: the matrix is defective.
    """
    values = eigenvalues(grid)
    size = grid.size[0]
    # A zero that counts more than once is the same object as often.
    distinct = list({v if isinstance(v, Surd) else id(v): v for v in values}.values())
    if not (is_exact(grid) and all(isinstance(value, Surd) for value in values)):
        if fractions_of(grid) is not None and len(distinct) < size:
            raise NoResult("eigenvectors are not found where inexact eigenvalues are repeated")
        return _enclosed(grid)
    found: list[tuple[Scalar, ...]] = []
    for value in distinct:
        found += map(_scaled, null_space(_less(grid, value)))
    if len(found) < size:
        count = (
            "one independent eigenvector"
            if len(found) == 1
            else (f"{len(found)} independent eigenvectors")
        )
        raise NoResult(f"this matrix is defective: it has only {count}, for {size} rows")
    return Grid(tuple(zip(*found, strict=True)))


def _less(grid: Grid, value: Scalar) -> Grid:
    return Grid(
        tuple(
            tuple(subtract(one, value) if i == k else one for k, one in enumerate(row))
            for i, row in enumerate(grid.rows)
        )
    )


def _scaled(vector: tuple[Scalar, ...]) -> tuple[Scalar, ...]:
    """A vector of fractions in whole numbers, without a common factor."""
    values = [one.rational if isinstance(one, Surd) else None for one in vector]
    known = [value for value in values if value is not None]
    if len(known) < len(values):
        return vector
    bottom = math.lcm(*(value.denominator for value in known))
    share = math.gcd(*(int(value * bottom) for value in known)) or 1
    return tuple(Surd.of(value * bottom / share) for value in known)


def _enclosed(grid: Grid) -> Grid:
    matrix: Any = acb_mat(balls_of(grid))
    try:
        values, vectors = matrix.eig(right=True)
    except (ValueError, ZeroDivisionError):
        raise TooWide from None
    # A simple eigenvalue of a real matrix whose enclosure meets the real axis is real: else its
    # conjugate were a second one in the enclosure. It has a real vector.
    real = all(map(is_real, grid.entries))
    rows = vectors.tolist()
    found: list[tuple[Scalar, tuple[Scalar, ...]]] = []
    for k, value in enumerate(values):
        column: list[Scalar] = [row[k] for row in rows]
        lead = max(column, key=lambda one: float(abs(known(one)).mid()))  # type: ignore[arg-type]
        scaled = tuple(divide(one, lead) for one in column)
        if real and value.imag.contains(0):
            value = value.real
            scaled = tuple(one.real if isinstance(one, acb) else one for one in scaled)
        found.append((value, scaled))
    places = {id(value): k for k, (value, _) in enumerate(found)}
    ordered = ordered_zeros([value for value, _ in found])
    return Grid(tuple(zip(*(found[places[id(v)]][1] for v in ordered), strict=True)))
