"""One fit: from a formula and points to the best parameters, and how sure they are."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from axispath.core.fits.linear import polynomial, solve
from axispath.core.fits.result import CannotFit, Result
from axispath.core.fits.search import Problem, best, covariance
from axispath.core.fits.shape import Shape
from axispath.core.fits.sharp import sharpened

Floats = NDArray[np.float64]
MOST_PARAMETERS = 12
LOST = 1e-3  # of what is left, by which a written curve may be off without a word
SEEN = 1e-7  # and of the range of y


def fit(
    shape: Shape,
    x: Floats,
    y: Floats,
    weights: Floats | None = None,
    starts: Sequence[Floats] = (),
    held: Mapping[str, float] | None = None,
    own: bool = False,
    degree: int | None = None,
) -> Result:
    """The best parameters of a formula for points; ``held`` ones keep their value.

    ``starts`` are whole sets of parameters to begin with, ``own`` where a student typed them, so
    that no others are tried. ``degree`` is that of a polynomial whose parameters are the
    coefficients of 1, x, x², … Raises CannotFit with the reason where there is no fit.
    """
    x, y, weights = _there(x, y, weights)
    given = dict(held or {})
    fixed = {k: given[name] for k, name in enumerate(shape.names) if name in given}
    count = len(shape.names) - len(fixed)
    if len(shape.names) > MOST_PARAMETERS:
        raise CannotFit(f"a formula can have {MOST_PARAMETERS} coefficients")
    if len(x) < max(count, 1):
        raise CannotFit(f"{_points(len(x))} cannot settle {count} coefficients")
    notes: list[str] = []
    settled, valley, residuals, known = True, None, None, None
    if degree is not None and not fixed:
        found = polynomial(x, y, weights, degree)
        parameters, root, known = found.coefficients, found.root, found.fitted
    elif not count:
        parameters = np.array([fixed[k] for k in range(len(shape.names))])
        root = np.zeros((len(parameters), 0))
    else:
        problem = Problem(shape, x, y, weights, fixed)
        if all(k in shape.linear for k in problem.free):
            start = np.zeros(count)
            least = solve(-problem.slopes(start), problem.residuals(start))
            free, part = least.coefficients, least.root
        else:
            begun = [np.array([one[k] for k in problem.free]) for one in starts]
            free, settled, valley = best(problem, begun, own)
            sharp = sharpened(problem, free)
            if sharp is not None:
                free, residuals = sharp
            try:
                part = covariance(problem, free).root
            except (CannotFit, np.linalg.LinAlgError):
                part = np.full((count, 1), math.nan)
                notes.append(
                    "the points hardly tell these coefficients apart, so they have no errors"
                )
        parameters = problem.whole(free)
        root = np.zeros((len(parameters), part.shape[1]))
        root[problem.free] = part
    fitted = shape.values(x, parameters)
    rest = y - fitted if residuals is None else residuals / np.sqrt(weights)
    if known is not None:
        rest = y - known
        lost = float(np.abs(fitted - known).max())
        if lost > LOST * math.sqrt(float((rest**2).mean())) and lost > SEEN * float(np.ptp(y)):
            middle = float(f"{x.mean():.3g}")
            notes.append(
                "so far from 0 the powers of x lose digits, and the curve as it is written is off "
                f"by up to {lost:.2g}: fit on a column x − {middle:.12g} instead"
            )
    if not np.isfinite(fitted).all():
        raise CannotFit("the formula has no value at some of the points")
    constant = _has_constant(shape, x, parameters)
    if not constant:
        notes.append("r² compares with y = 0, since the formula cannot be a constant")
    elif not shape.is_linear:
        notes.append("r² compares with the mean alone: near 1 it does not make a formula right")
    if len(x) == count and count:
        notes.append("as many points as coefficients: the curve goes through all, errors unknown")
    return Result(
        shape.names,
        parameters,
        root,
        tuple(fixed),
        x,
        y,
        weights,
        rest,
        constant,
        settled,
        valley,
        tuple(notes),
    )


def _points(count: int) -> str:
    return "no point" if not count else "1 point" if count == 1 else f"{count} points"


def _there(x: Floats, y: Floats, weights: Floats | None) -> tuple[Floats, Floats, Floats]:
    """The points that have both numbers, and a weight above 0."""
    given = np.ones(len(x)) if weights is None else weights
    there = np.isfinite(x) if x.ndim == 1 else np.isfinite(x).all(axis=1)
    kept = there & np.isfinite(y) & np.isfinite(given) & (given > 0)
    return x[kept], y[kept], given[kept]


def _has_constant(shape: Shape, x: Floats, parameters: Floats) -> bool:
    """Whether the formula can be raised as a whole, as by a constant term."""
    design = shape.design(x, parameters)
    if not design.size or not np.isfinite(design).all():
        return False
    one = np.ones(len(x))
    found = np.linalg.lstsq(design, one, rcond=None)[0]
    return bool(np.abs(design @ found - one).max() < 1e-6)
