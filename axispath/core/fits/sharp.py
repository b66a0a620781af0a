"""The last digits of a fit whose residuals are as small as the rounding of its values.

Residuals are taken with balls of many digits, of the numbers as they were typed; steps of Gauss and
Newton with the float matrix then settle digit after digit (Å. Björck 1967).
"""

from __future__ import annotations

from fractions import Fraction

import numpy as np
from flint import arb, fmpq
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import operations, precision
from axispath.core.arithmetic.patience import time_check
from axispath.core.arithmetic.program import bind
from axispath.core.catalogue.balls import OutsideDomain, head
from axispath.core.fits.linear import solve
from axispath.core.fits.result import CannotFit
from axispath.core.fits.search import Problem

Floats = NDArray[np.float64]
BITS = 200
STEPS = 6
SMALL = 1e-8  # of the size of y: residuals below are not those of floats
MOST_POINTS = 500


def sharpened(problem: Problem, free: Floats) -> tuple[Floats, Floats] | None:
    """Free parameters and residuals to the last digit; None where floats do as well."""
    residuals = problem.residuals(free)
    size = float(np.abs(problem.root * problem.y).max())
    if len(problem.x) > MOST_POINTS or not np.sqrt((residuals**2).mean()) < SMALL * size:
        return None
    check = time_check()
    with precision(BITS):
        at = [arb(value) for value in problem.whole(free).tolist()]
        places = problem.x if problem.x.ndim == 2 else problem.x[:, None]
        points = [[_typed(value) for value in row] for row in places.tolist()]
        heights = [_typed(value) for value in problem.y.tolist()]
        plan = problem.shape.plan
        bound = bind(plan, operations(plan, problem.shape.unit))
        rest = residuals
        for _ in range(STEPS):
            if check is not None:
                check()
            try:
                values = [head(bound.run(*point, *at)) for point in points]
            except OutsideDomain:
                return None
            rest = problem.root * np.array(
                [float((y - value).mid()) for y, value in zip(heights, values, strict=True)]
            )
            if not np.isfinite(rest).all():
                return None
            now = np.array([float(at[k].mid()) for k in problem.free])
            try:
                step = solve(-problem.slopes(now), rest).coefficients
            except (CannotFit, np.linalg.LinAlgError):
                return None
            for k, change in zip(problem.free, step.tolist(), strict=True):
                at[k] = (at[k] + arb(change)).mid()
        found = np.array([float(at[k].mid()) for k in problem.free])
    return found, rest


def _typed(value: float) -> arb:
    """The shortest decimal that a float stands for, as somebody typed it."""
    exact = Fraction(repr(value))
    return arb(fmpq(exact.numerator, exact.denominator))
