"""What a fit comes to."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


class CannotFit(Exception):
    """There is no fit, in a sentence."""


@dataclass(frozen=True, slots=True)
class Valley:
    """Another minimum of the sum of squares, and how many times the sum it has."""

    parameters: tuple[float, ...]
    ratio: float


@dataclass(frozen=True, eq=False)
class Result:
    """The parameters that make the sum of squares least.

    ``root`` is a matrix with ``root @ root.T`` the covariance of the parameters for residuals of
    standard deviation 1; ``held`` are numbers of parameters that were not free. ``centred`` says
    whether r² compares with the mean, else with 0. ``settled`` is False where the search has not.
    """

    names: tuple[str, ...]
    parameters: Floats
    root: Floats
    held: tuple[int, ...]
    x: Floats
    y: Floats
    weights: Floats
    residuals: Floats
    centred: bool
    settled: bool = True
    valley: Valley | None = None
    notes: tuple[str, ...] = ()

    @property
    def count(self) -> int:
        """Points that were fitted."""
        return len(self.x)

    @property
    def freedom(self) -> int:
        """Points less free parameters."""
        return self.count - (len(self.names) - len(self.held))

    @cached_property
    def squares(self) -> float:
        """The weighted sum of squared residuals."""
        return math.fsum((self.weights * self.residuals**2).tolist())

    @property
    def deviation(self) -> float:
        """The residual standard deviation; NaN without degrees of freedom."""
        return math.sqrt(self.squares / self.freedom) if self.freedom > 0 else math.nan

    @cached_property
    def errors(self) -> Floats:
        """The standard errors of the parameters; 0 for those that were held."""
        found: Floats = self.deviation * np.sqrt((self.root**2).sum(axis=1))
        return found

    @cached_property
    def explained(self) -> float:
        """r²: the part of the squares that the curve takes away; NaN where y does not vary."""
        total = math.fsum((self.weights * (self.y - self._level) ** 2).tolist())
        return 1 - self.squares / total if total > 0 else math.nan

    @property
    def _level(self) -> float:
        if not self.centred:
            return 0.0
        return math.fsum((self.weights * self.y).tolist()) / math.fsum(self.weights.tolist())

    def spread(self, design: Floats) -> Floats:
        """The standard error of the curve where these are the derivatives by the parameters."""
        found: Floats = self.deviation * np.sqrt(((design @ self.root) ** 2).sum(axis=1))
        return found

    def interval(self, level: float = 0.95) -> float:
        """How many standard errors to each side hold so much: Student's t."""
        from scipy.stats import t

        return float(t.ppf((1 + level) / 2, self.freedom)) if self.freedom > 0 else math.nan
