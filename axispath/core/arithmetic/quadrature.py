"""Integrals of a formula between two numbers, enclosed, for many numbers one after the other.

The line is halved into dyadic cells until on each of them a Taylor polynomial about its middle is
known with a bound for its rest, by which the formula and the integral are enclosed (G. F. Corliss
and L. B. Rall 1987, Adaptive, self-validating numerical quadrature). Cells are kept: another end of
the integral needs a polynomial at one place more. Where no cell however small will do, the formula
has no value, jumps, or is without bounds, and the integral over it is not known.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Protocol

import numpy as np
from flint import arb, arb_series
from numpy.typing import NDArray

from axispath.core.arithmetic.patience import time_check
from axispath.core.catalogue.balls import NAN, Ball, OutsideDomain, head, precision

BITS = 128
TERMS = 16
FINE = 2.0**-68  # of the largest value on a cell, for its rest
SMALLEST = -44  # of cells, as a power of 2
LARGEST = 24
MOST_LEAVES = 2_000  # of one cell
FEW = 8  # numbers that are looked at one by one
Cell = tuple[int, int]
"""Half its width as a power of 2, and which one it is: [2k·2ⁿ, 2(k + 1)·2ⁿ]."""


@dataclass(frozen=True, slots=True)
class Leaf:
    """A cell on which the formula is a polynomial about the middle, but for an error."""

    middle: float
    half: float
    terms: tuple[arb, ...]  # of the integral from the middle on, from the first power on
    error: arb  # of the formula, for each unit of length

    def to(self, x: arb) -> arb:
        """The integral from the middle to a place of the cell."""
        off = x - arb(self.middle)
        total = arb(0)
        for term in reversed(self.terms):
            total = (total + term) * off
        return total + self.error * off


class Expandable(Protocol):
    """A function that can be enclosed together with its derivatives: see BallFunction."""

    def value(self, x: arb) -> arb:
        """An enclosure over a box. Raises OutsideDomain where it surely has no value."""

    def series(self, x: arb, length: int) -> Ball:
        """Taylor coefficients over a box, or one number where it is constant."""

    def along(self, x: arb_series) -> Ball:
        """The function of a power series."""


@dataclass(frozen=True)
class Table:
    """Cells in order, as arrays: where each begins, its polynomial, and what lies before it.

    Between cells of different ``part`` there is one over which nothing is known.
    """

    left: NDArray[np.float64]
    middle: NDArray[np.float64]
    terms: NDArray[np.float64]
    before: NDArray[np.float64]
    part: NDArray[np.float64]

    @staticmethod
    def of(rows: list[tuple[float, Leaf | None]]) -> Table:
        """From where cells begin, and what is known of each."""
        count = len(rows)
        left, middle = np.empty(count), np.zeros(count)
        terms, before, part = np.zeros((TERMS, count)), np.zeros(count), np.empty(count)
        total, number = 0.0, 0
        for k, (start, leaf) in enumerate(rows):
            left[k] = start
            if leaf is None:
                number += 1
                part[k], before[k] = np.nan, np.nan
                continue
            part[k], middle[k] = number, leaf.middle
            terms[: len(leaf.terms), k] = [float(term.mid()) for term in leaf.terms]
            first, last = (leaf.to(arb(leaf.middle + side * leaf.half)) for side in (-1, 1))
            before[k] = total - float(first.mid())
            total += float((last - first).mid())
        return Table(left, middle, terms, before, part)

    def at(self, x: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """The integral up to each place from where its part begins, and which part that is."""
        k = np.clip(np.searchsorted(self.left, x, side="right") - 1, 0, len(self.left) - 1)
        off = x - self.middle[k]
        total = np.zeros(x.shape)
        for row in self.terms[::-1]:
            total = (total + row[k]) * off
        return self.before[k] + total, self.part[k]


@dataclass
class Quadrature:
    """The integrals of one function; who asks holds the lock of the library by ``precision``."""

    function: Expandable
    cells: dict[Cell, Leaf | type[OutsideDomain] | None] = field(default_factory=dict)
    whole: dict[Cell, tuple[arb, int]] = field(default_factory=dict)

    def between(self, low: arb, high: arb) -> arb:
        """The integral from ``low`` to ``high``. Raises OutsideDomain where it surely has none."""
        with precision(BITS):
            if low.is_exact() and high.is_exact() and low == high:
                return arb(0) * self._at(low)
            start, end = float(low.mid()), float(high.mid())
            if not (math.isfinite(start) and math.isfinite(end)):
                return NAN
            total = self._exactly(min(start, end), max(start, end))
            turned = 1 if start <= end else -1
            for place, ball, sign in ((start, low, -turned), (end, high, turned)):
                off = ball - arb(place)
                if not off.is_zero():
                    total += off * self._at(ball.union(arb(place))) * sign
            return total if start <= end else -total

    def floats(self, low: NDArray[np.float64], high: NDArray[np.float64]) -> NDArray[np.float64]:
        """The same for float64 numbers: NaN where there is none, or it is not known."""
        a, b = np.broadcast_arrays(np.asarray(low, float), np.asarray(high, float))
        if a.size <= FEW:
            pairs = zip(a.ravel().tolist(), b.ravel().tolist(), strict=True)
            return np.array([self._float(*pair) for pair in pairs]).reshape(a.shape)
        places = np.concatenate([a.ravel(), b.ravel()])
        places = places[np.isfinite(places) & (np.abs(places) < 2.0**LARGEST)]
        if not places.size:
            return np.full(a.shape, np.nan)
        with precision(BITS):
            table = self._table(float(places.min()), float(places.max()))
        (from_a, part_a), (from_b, part_b) = (table.at(places) for places in (a, b))
        return np.where(part_a == part_b, from_b - from_a, np.nan)

    def _table(self, low: float, high: float) -> Table:
        """The cells between two places, in order."""
        rows: list[tuple[float, Leaf | None]] = []

        def listed(cell: Cell) -> None:
            level, k = cell
            left, right = math.ldexp(2 * k, level), math.ldexp(2 * (k + 1), level)
            if high < left or low > right:
                return
            try:
                leaf = self._leaf(cell)
            except OutsideDomain:
                rows.append((left, None))
                return
            if leaf is not None:
                rows.append((left, leaf))
            elif level <= SMALLEST or self._takes_too_much(cell):
                rows.append((left, None))
            else:
                listed((level - 1, 2 * k))
                listed((level - 1, 2 * k + 1))

        for k in (-1, 0):
            listed((math.frexp(max(abs(low), abs(high), 1.0))[1] - 1, k))
        return Table.of(rows)

    def _takes_too_much(self, cell: Cell) -> bool:
        try:
            return self._whole(cell)[1] > MOST_LEAVES
        except OutsideDomain:  # a part of it has no value, others may have one
            return False

    def _float(self, low: float, high: float) -> float:
        if not (math.isfinite(low) and math.isfinite(high)):
            return math.nan
        try:
            found = self.between(arb(low), arb(high))
        except OutsideDomain:
            return math.nan
        return float(found.mid()) if found.is_finite() else math.nan

    def _at(self, x: arb) -> arb:
        return head(self.function.value(x))

    def _exactly(self, low: float, high: float) -> arb:
        """Over an interval with floats as ends."""
        size = max(abs(low), abs(high), 1.0)
        level = math.frexp(size)[1]
        if level > LARGEST:
            return NAN
        total = arb(0)
        for k in (-1, 0):
            total += self._part((level - 1, k), low, high)
            if not total.is_finite():
                break
        return total

    def _part(self, cell: Cell, low: float, high: float) -> arb:
        """Of a cell, what lies between two places."""
        level, k = cell
        left, right = math.ldexp(2 * k, level), math.ldexp(2 * (k + 1), level)
        if high <= left or low >= right:
            return arb(0)
        if low <= left and right <= high:
            return self._whole(cell)[0]
        leaf = self._leaf(cell)
        if leaf is not None:
            return leaf.to(arb(min(high, right))) - leaf.to(arb(max(low, left)))
        if level <= SMALLEST:
            return NAN
        return self._part((level - 1, 2 * k), low, high) + self._part(
            (level - 1, 2 * k + 1), low, high
        )

    def _whole(self, cell: Cell) -> tuple[arb, int]:
        """The integral over all of a cell, and on how many leaves; NaN where these are too many."""
        if cell not in self.whole:
            self.whole[cell] = self._summed(cell)
        return self.whole[cell]

    def _summed(self, cell: Cell) -> tuple[arb, int]:
        level, k = cell
        leaf = self._leaf(cell)
        if leaf is not None:
            right, left = (leaf.to(arb(leaf.middle + side * leaf.half)) for side in (1, -1))
            return right - left, 1
        if level <= SMALLEST:
            return NAN, 1
        total, leaves = self._whole((level - 1, 2 * k))
        if leaves <= MOST_LEAVES:  # even where nothing is known of it: the rest may have no value
            second, more = self._whole((level - 1, 2 * k + 1))
            total, leaves = total + second, leaves + more
        return (total, leaves) if leaves <= MOST_LEAVES else (NAN, leaves)

    def _leaf(self, cell: Cell) -> Leaf | None:
        """A cell with its polynomial; None where it has to be halved."""
        if cell not in self.cells:
            check = time_check()
            if check is not None:
                check()
            try:
                self.cells[cell] = self._expanded(cell)
            except OutsideDomain:
                self.cells[cell] = OutsideDomain
        found = self.cells[cell]
        if found is OutsideDomain:
            raise OutsideDomain
        assert found is None or isinstance(found, Leaf)
        return found

    def _expanded(self, cell: Cell) -> Leaf | None:
        level, k = cell
        half = math.ldexp(1.0, level)
        middle = math.ldexp(2 * k + 1, level)
        around = self._series(arb(middle, half), TERMS + 1)
        if level <= SMALLEST and around[0].is_finite():  # a kink, or an end of the domain
            return Leaf(middle, half, (around[0],), arb(0))
        if not all(part.is_finite() for part in around):
            return None
        terms = self._series(arb(middle), TERMS)
        if not all(part.is_finite() for part in terms):
            return None
        rest = around[TERMS] * arb(half) ** TERMS
        bound = arb(0, float(abs(rest).upper()))
        size = float(abs(around[0]).upper())
        if not float(abs(rest).upper()) <= FINE * size:
            return None
        return Leaf(middle, half, tuple(term / (n + 1) for n, term in enumerate(terms)), bound)

    def _series(self, x: arb, length: int) -> list[arb]:
        """Taylor coefficients over a box; a constant formula has none but the first."""
        found = self.function.series(x, length)
        if isinstance(found, arb_series):
            return [found[n] for n in range(length)]
        return [found, *[arb(0)] * (length - 1)]

    def along(self, low: Ball, high: Ball) -> Ball:
        """The integral between two ends, which may be power series."""
        result: Ball = self.between(head(low), head(high))
        for end, sign in ((high, 1), (low, -1)):
            if isinstance(end, arb_series):
                steep = self.function.along(end) * end.derivative() * sign
                result = result + steep.integral()
        return result
