"""Nonlinear least squares: from many starts to the lowest valley, and sharpened there.

Each start is followed by the method of Levenberg and Marquardt as MINPACK has it (J. J. Moré 1978,
The Levenberg-Marquardt Algorithm: Implementation and Theory), with exact derivatives; the result is
sharpened by steps of Gauss and Newton. Parameters that the formula is linear in are solved for at
every start (G. H. Golub and V. Pereyra 1973, The Differentiation of Pseudo-Inverses and Nonlinear
Least Squares Problems Whose Variables Separate), so that only the others have to be guessed.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.patience import time_check
from axispath.core.fits.linear import Solution, solve
from axispath.core.fits.result import CannotFit, Valley
from axispath.core.fits.shape import Shape

Floats = NDArray[np.float64]
EVALUATIONS = 3000
FIRST = 150  # of a start that may not lead to the lowest valley
TIGHT = 3e-16
SHARPER = 12  # steps of Gauss and Newton
SIZES = (0.01, 0.1, 0.3, 1.0, 3.0, 10.0)  # of a parameter, over that of x or one over it
SHARES = (0.05, 0.25, 0.4, 0.5, 0.6, 0.75, 0.95)  # quantiles of x that may be places
PARTS = (3, 4, 6, 8, 12, 20)  # of the reach of x, that may be widths or periods
PRIMES = (2, 3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37)
MOST_TRIED = 500
RANKED_AT = 40  # points at which starts are compared
FOLLOWED = 8  # starts that are followed to their valley
SAME = 1e-6  # relative difference of sums of squares that are one valley
NEARLY = 1.1  # times the least sum that another valley may have to be told of
FLAT = 1e-4  # of the size of the residuals, that the gradient may still have


class Problem:
    """Points, and a formula whose free parameters are looked for."""

    def __init__(
        self, shape: Shape, x: Floats, y: Floats, weights: Floats, held: dict[int, float]
    ) -> None:
        self.shape, self.x, self.y = shape, x, y
        self.root = np.sqrt(weights)
        self.weights = weights
        self.held = held
        self.free = [k for k in range(len(shape.names)) if k not in held]
        self.check = time_check()

    def thinned(self, count: int) -> Problem:
        """The same at no more than so many of the points, evenly from the first to the last."""
        every = np.unique(np.linspace(0, len(self.x) - 1, count).round().astype(int))
        if len(self.x) <= count:
            return self
        return Problem(self.shape, self.x[every], self.y[every], self.weights[every], self.held)

    def whole(self, free: Floats) -> Floats:
        """All parameters."""
        found = np.empty(len(self.shape.names))
        found[self.free] = free
        for k, value in self.held.items():
            found[k] = value
        return found

    def residuals(self, free: Floats) -> Floats:
        """The weighted residuals; NaN where the formula has no value."""
        if self.check is not None:
            self.check()
        return self.root * (self.y - self.shape.values(self.x, self.whole(free)))

    def slopes(self, free: Floats) -> Floats:
        """Their derivatives by the free parameters."""
        return -self.root[:, None] * self.shape.design(self.x, self.whole(free))[:, self.free]

    def squares(self, free: Floats) -> float:
        """The sum of squares; ∞ where the formula has no value somewhere."""
        with np.errstate(all="ignore"):
            found = float((self.residuals(free) ** 2).sum())
        return found if math.isfinite(found) else math.inf

    def with_linear(self, free: Floats) -> Floats:
        """The free parameters with those that it is linear in at their best."""
        linear = [k for k in self.shape.linear if k in self.free]
        if not linear:
            return free
        at = [self.free.index(k) for k in linear]
        start = free.copy()
        start[at] = 0.0
        design = -self.slopes(start)[:, at]
        rest = self.residuals(start)
        if not (np.isfinite(design).all() and np.isfinite(rest).all()):
            return free
        best = np.linalg.lstsq(design, rest, rcond=None)[0]
        start[at] = best
        return start


def best(
    problem: Problem, starts: Sequence[Floats], own: bool
) -> tuple[Floats, bool, Valley | None]:
    """Free parameters with the least sum of squares, whether that is settled, another valley.

    ``starts`` are tried as they are; guesses are added unless the student gave ``own`` ones.
    Raises CannotFit where the formula has no value at the points for any start.
    """
    tried = list(starts) if own else [*starts, *_guesses(problem)]
    few = problem if own else problem.thinned(RANKED_AT)
    ranked: list[tuple[float, Floats]] = []
    for start in tried:
        with np.errstate(all="ignore"):
            better = start if own else few.with_linear(start)
        ranked += [(few.squares(one), one) for one in (start, better)]
    ranked = [one for one in ranked if math.isfinite(one[0])]
    if not ranked:
        raise CannotFit("the formula has no value at the points with any of the starts tried")
    ranked.sort(key=lambda one: one[0])
    valleys: list[tuple[float, Floats, bool]] = []
    for _, start in _different(ranked):
        found, settled = _followed(problem, start, EVALUATIONS if own else FIRST)
        if (squares := problem.squares(found)) < math.inf:
            valleys.append((squares, found, settled))
        if len(valleys) >= FOLLOWED:
            break
    if not valleys:
        raise CannotFit("no start led to a valley of the sum of squares")
    valleys.sort(key=lambda one: one[0])
    least, found, settled = valleys[0]
    if not settled:
        found, settled = _followed(problem, found, EVALUATIONS)
    sharp = _sharpened(problem, found)
    other = next(
        (
            Valley(tuple(problem.whole(at).tolist()), squares / least)
            for squares, at, _ in valleys[1:]
            if least > 0 and least * (1 + SAME) < squares < least * NEARLY
        ),
        None,
    )
    return sharp, settled or _level(problem, sharp), other


def _different(ranked: list[tuple[float, Floats]]) -> Iterator[tuple[float, Floats]]:
    last = math.nan
    for squares, start in ranked:
        if math.isnan(last) or abs(squares - last) > SAME * last:
            yield squares, start
        last = squares


def _followed(problem: Problem, start: Floats, evaluations: int) -> tuple[Floats, bool]:
    from scipy.optimize import least_squares

    def residuals(free: Floats) -> Floats:
        found = problem.residuals(free)
        return np.where(np.isfinite(found), found, 1e150)

    def slopes(free: Floats) -> Floats:
        found = problem.slopes(free)
        return np.where(np.isfinite(found), found, 0.0)

    if len(problem.x) < len(start):
        raise CannotFit("there are fewer points than coefficients")
    with np.errstate(all="ignore"):
        found = least_squares(
            residuals,
            start,
            slopes,
            method="lm",
            x_scale="jac",
            xtol=TIGHT,
            ftol=TIGHT,
            gtol=TIGHT,
            max_nfev=evaluations,
        )
    return found.x, found.status > 0


def _sharpened(problem: Problem, free: Floats) -> Floats:
    """Steps of Gauss and Newton for as long as they make the sum of squares no larger."""
    squares = problem.squares(free)
    for _ in range(SHARPER):
        try:
            step = solve(-problem.slopes(free), problem.residuals(free)).coefficients
        except (CannotFit, np.linalg.LinAlgError):
            return free
        after = free + step
        if not problem.squares(after) <= squares * (1 + 1e-14):
            return free
        size = np.abs(step) <= 1e-15 * np.abs(after)
        free, squares = after, min(squares, problem.squares(after))
        if size.all():
            break
    return free


def _level(problem: Problem, free: Floats) -> bool:
    """Whether the residuals are at right angles to all derivatives, as at a minimum."""
    slopes, residuals = problem.slopes(free), problem.residuals(free)
    sizes = np.sqrt((slopes**2).sum(axis=0)) * math.sqrt(float((residuals**2).sum()))
    with np.errstate(all="ignore"):
        cosine = np.abs(slopes.T @ residuals) / sizes
    return bool((np.nan_to_num(cosine) < FLAT).all())


def _guesses(problem: Problem) -> Iterator[Floats]:
    """Sizes of the parameters that it is not linear in, of both signs; 1 for all others.

    What a number in a formula stands for is not known: a rate, a place on the axis, a width, a
    period. All such sizes are mixed evenly (H. Niederreiter 1992, Random Number Generation and
    Quasi-Monte Carlo Methods, chapter 3).
    """
    free = problem.free
    bent = [free.index(k) for k in free if k not in problem.shape.linear]
    if not bent:
        yield np.ones(len(free))
        return
    x = problem.x.ravel()
    span = float(np.ptp(x)) or 1.0
    sizes = {sign * size * base for size in SIZES for base in (1 / span, 1.0) for sign in (1, -1)}
    sizes |= {float(np.quantile(x, share)) for share in SHARES}
    sizes |= {span / part for part in PARTS} | {2 * math.pi * part / span for part in PARTS}
    ordered = np.array(sorted(sizes))
    steps = np.sqrt(np.array(PRIMES[: len(bent)], dtype=np.float64)) % 1
    for number in range(1, MOST_TRIED + 1):
        start = np.ones(len(free))
        start[bent] = ordered[np.floor((number * steps) % 1 * len(ordered)).astype(int)]
        yield start


def covariance(problem: Problem, free: Floats) -> Solution:
    """The root of the covariance of the free parameters. Raises CannotFit where it has none."""
    return solve(-problem.slopes(free), problem.residuals(free))
