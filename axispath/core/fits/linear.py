"""Linear least squares by QR with refinement of the residuals, and polynomials on a scaled axis.

The matrix is scaled by columns and factored by Householder's reflections (G. H. Golub and C. F. Van
Loan 2013, Matrix Computations, section 5.3); the solution is refined with residuals in longer
numbers (Å. Björck 1967, Iterative refinement of linear least squares solutions I). Polynomials are
fitted in Chebyshev's polynomials of x moved and scaled to [−1, 1], and written out exactly.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.polynomial import product
from axispath.core.fits.result import CannotFit

Floats = NDArray[np.float64]
REFINED = 4
SINGULAR = 1e-13  # of the largest diagonal, below which columns are dependent


@dataclass(frozen=True, slots=True)
class Solution:
    """Coefficients, and ``root`` with ``root @ root.T`` their covariance for spread 1.

    ``fitted`` are the values at the points where they are known better than from coefficients.
    """

    coefficients: Floats
    root: Floats
    long: NDArray[np.longdouble] | None = None  # the coefficients with more digits
    fitted: Floats | None = None


def solve(design: Floats, y: Floats) -> Solution:
    """Coefficients c that make |design c − y| least. Raises CannotFit where they are not unique."""
    size = np.sqrt((design**2).sum(axis=0))
    if not (size > 0).all() or not np.isfinite(size).all():
        raise CannotFit("a coefficient has no effect on any point, or one without bounds")
    scale = np.exp2(np.round(np.log2(size)))  # by powers of 2, which round nothing
    scaled = design / scale
    q, r = np.linalg.qr(scaled)
    diagonal = np.abs(np.diag(r))
    if diagonal.min() <= SINGULAR * diagonal.max():
        raise CannotFit("the points do not tell the coefficients apart: the matrix is singular")
    wide = scaled.astype(np.longdouble)
    found = np.linalg.solve(r, q.T @ y).astype(np.longdouble)
    for _ in range(REFINED):
        rest = (y - wide @ found).astype(np.float64)
        found = found + np.linalg.solve(r, q.T @ rest)
    inverse = np.linalg.inv(r)
    long = found / scale
    return Solution(long.astype(np.float64), inverse / scale[:, None], long)


def polynomial(x: Floats, y: Floats, weights: Floats, degree: int) -> Solution:
    """Coefficients of 1, x, x², … up to a degree."""
    low, high = float(x.min()), float(x.max())
    if not low < high and degree:
        raise CannotFit("all points have the same x")
    middle, half = (low + high) / 2, (high - low) / 2 or 1.0
    scaled = (x - middle) / half
    basis: Floats = np.polynomial.chebyshev.chebvander(scaled, degree).astype(np.float64)
    root = np.sqrt(weights)
    found = solve(basis * root[:, None], y * root)
    written = _written_out(Fraction(middle), Fraction(half), degree)
    assert found.long is not None
    long = [Fraction(*value.as_integer_ratio()) for value in found.long]
    exact = [
        sum((part * c for part, c in zip(row, long, strict=True)), Fraction(0)) for row in written
    ]
    table = np.array([[float(value) for value in row] for row in written])
    # Far from 0 powers of x lose all digits of what is left: the values are those of the basis.
    fitted = (basis.astype(np.longdouble) @ found.long).astype(np.float64)
    return Solution(np.array([float(value) for value in exact]), table @ found.root, fitted=fitted)


def _written_out(middle: Fraction, half: Fraction, degree: int) -> list[list[Fraction]]:
    """How much of each power of x is in each polynomial of Chebyshev's: rows are powers."""
    one = [Fraction(1)]
    line = [-middle / half, 1 / half]
    known = [one, line]
    while len(known) <= degree:
        doubled = [2 * value for value in product(line, known[-1])]
        less = known[-2] + [Fraction(0)] * (len(doubled) - len(known[-2]))
        known.append([a - b for a, b in zip(doubled, less, strict=True)])
    return [
        [part[power] if power < len(part) else Fraction(0) for part in known[: degree + 1]]
        for power in range(degree + 1)
    ]
