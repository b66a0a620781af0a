"""A curve piece by piece as polynomials with a bound of what they leave out.

On a piece about a middle m that holds as far as h the coordinates are Σ cₖ uᵏ + e, u = (t − m)/h,
where the cₖ are float64 and every e is within a bound that holds what Taylor's remainder, the radii
of the enclosures and the rounding of float64 can come to (R. E. Moore, R. B. Kearfott
and M. J. Cloud 2009, Introduction to Interval Analysis, chapter 9; K. Makino and M. Berz 1996, on
Taylor models). So whole arrays of pieces can be worked on at once, and what is found holds for the
true curve.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.catalogue.balls import MAX_ORDER, OutsideDomain
from axispath.core.search.budget import Budget
from axispath.core.sheet.curve import Curve

TERMS = MAX_ORDER - 1
BITS = 64
MARGIN = 0.2  # of half a piece, beyond its ends, for which its polynomials hold as well
GOOD = 1e-7  # of the size of the curve, or of its own, that a polynomial may be off by
SLACK = 2.0**-44  # of all magnitudes together: more than rounding comes to
ROWS = 256  # pieces that are compared with all others at once
NARROWEST = 2.0**-24  # of the whole range

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Pieces:
    """``count`` pieces: their middles, how far they hold (``reach``), and which part of that is
    theirs (``half``); everything below is in units of the reach.

    ``c`` has the shape (count, 2, TERMS): coefficients of x and y; ``error`` and ``slope_error``
    (count, 2) bound what values and slopes are off by, ``size`` and ``slope_size`` are their
    magnitudes. ``owner`` says which stretch each is of.
    """

    middle: Floats
    reach: Floats
    half: Floats
    c: Floats
    error: Floats
    slope_error: Floats
    owner: NDArray[np.int64]

    @property
    def count(self) -> int:
        """How many there are."""
        return len(self.middle)

    @cached_property
    def size(self) -> Floats:
        """No value comes to more, nor anything it is computed from."""
        total: Floats = np.abs(self.c).sum(axis=2)
        return total

    @cached_property
    def slope_size(self) -> Floats:
        """The same of slopes."""
        total: Floats = (np.abs(self.c) * np.arange(TERMS)).sum(axis=2)
        return total

    @cached_property
    def boxes(self) -> Floats:
        """left, right, bottom and top of each, shape (count, 4)."""
        powers = self.half[:, None, None] ** np.arange(1, TERMS)
        reach = (np.abs(self.c[:, :, 1:]) * powers).sum(axis=2) + self.error + SLACK * self.size
        low, high = self.c[:, :, 0] - reach, self.c[:, :, 0] + reach
        return np.stack([low[:, 0], high[:, 0], low[:, 1], high[:, 1]], axis=1)

    def near(self, other: Pieces) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
        """The pairs of pieces of this and another curve whose boxes meet."""
        found: list[tuple[NDArray[np.int64], NDArray[np.int64]]] = []
        for start in range(0, self.count, ROWS):
            a, b = self.boxes[start : start + ROWS, None], other.boxes[None]
            met = (a[..., 0] <= b[..., 1]) & (a[..., 1] >= b[..., 0])
            met &= (a[..., 2] <= b[..., 3]) & (a[..., 3] >= b[..., 2])
            i, j = np.nonzero(met)
            found.append(((i + start).astype(np.int64), j.astype(np.int64)))
        empty = np.empty(0, dtype=np.int64)
        return (
            np.concatenate([i for i, _ in found] or [empty]),
            np.concatenate([j for _, j in found] or [empty]),
        )

    def at(self, index: NDArray[np.int64], u: Floats) -> Floats:
        """The parameter at a place of each piece."""
        return self.middle[index] + self.reach[index] * u


def modelled(
    curve: Curve, stretches: list[tuple[float, float]], size: float, budget: Budget
) -> tuple[Pieces, list[tuple[float, float]]]:
    """Polynomials for each of the stretches, in order, and the parts that have none."""
    found: list[_Piece] = []
    bad: list[tuple[float, float]] = []
    whole = max((high for _, high in stretches), default=0.0) - min(
        (low for low, _ in stretches), default=0.0
    )
    for owner, (low, high) in enumerate(stretches):
        stack = [(low, high)]
        while stack:
            start, stop = stack.pop()
            if budget.spent:
                bad.append((start, stop))
                continue
            budget.spend(4)
            piece = _piece(curve, start, stop, owner, size)
            if piece is not None:
                found.append(piece)
            elif stop - start <= whole * NARROWEST:
                bad.append((start, stop))
            else:
                middle = start + (stop - start) / 2
                stack += [(middle, stop), (start, middle)]
    return _together(found), bad


@dataclass(frozen=True)
class _Piece:
    middle: float
    reach: float
    half: float
    c: Floats
    error: tuple[float, float]
    slope_error: tuple[float, float]
    owner: int


def _piece(curve: Curve, low: float, high: float, owner: int, size: float) -> _Piece | None:
    middle = low + (high - low) / 2
    half = max(high - middle, middle - low)
    for reach in (half * (1 + MARGIN), half):
        rows = [_row(balls, middle, reach) for balls in curve.balls]
        known = [row for row in rows if row is not None]
        if len(known) == 2:
            if any(error > GOOD * max(size, abs(c[0])) for c, error, _ in known):
                return None
            c = np.array([row[0] for row in known])
            errors = (known[0][1], known[1][1])
            slopes = (known[0][2], known[1][2])
            return _Piece(middle, reach, half / reach, c, errors, slopes, owner)
    return None


def _row(
    balls: BallFunction, middle: float, reach: float
) -> tuple[list[float], float, float] | None:
    """Coefficients of one coordinate, and what values and slopes are off by at most."""
    with precision(BITS):
        try:
            at = balls.taylor(arb(middle), TERMS)
            rest = balls.taylor(arb(middle, reach), MAX_ORDER)[TERMS]
        except OutsideDomain:
            return None
        scaled = [ball * arb(reach) ** k for k, ball in enumerate(at)]
        left = abs(rest) * arb(reach) ** TERMS
        if not (left.is_finite() and all(c.is_finite() for c in scaled)):
            return None
        error = float(left.abs_upper())
    c = [float(k.mid()) for k in scaled]
    off = [float(ball.rad()) + SLACK * abs(k) for ball, k in zip(scaled, c, strict=True)]
    slope = TERMS * error + sum(k * part for k, part in enumerate(off))
    return c, (error + sum(off)) * (1 + SLACK), slope * (1 + SLACK)


def _together(found: list[_Piece]) -> Pieces:
    def column(name: str) -> Floats:
        return np.array([getattr(piece, name) for piece in found], dtype=np.float64)

    shape = (len(found), 2)
    return Pieces(
        column("middle"),
        column("reach"),
        column("half"),
        column("c").reshape(*shape, TERMS),
        column("error").reshape(shape),
        column("slope_error").reshape(shape),
        np.array([piece.owner for piece in found], dtype=np.int64),
    )


def shifted(c: Floats, by: Floats) -> Floats:
    """Polynomials about places that lie ``by`` from their middles: (n, 2, TERMS) and (n,)."""
    found = c.copy()
    step = by[:, None]
    for low in range(TERMS - 1):
        for k in range(TERMS - 2, low - 1, -1):
            found[:, :, k] += step * found[:, :, k + 1]
    return found
