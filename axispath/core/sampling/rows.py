"""Functions that are sampled together: one, or one in many states of what moves it."""

from __future__ import annotations

from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import BallFunction
from axispath.core.arithmetic.floats import FloatFunction

Floats = NDArray[np.float64]
Index = NDArray[np.int64]


class Rows(Protocol):
    """So many functions of x, one a row."""

    @property
    def count(self) -> int:
        """How many."""

    def grid(self, x: Floats) -> Floats:
        """All functions at the same places, shape (count, places)."""

    def at(self, x: Floats, row: Index) -> Floats:
        """At each place the function of that row."""

    def balls(self, row: int) -> BallFunction:
        """One of the functions on boxes."""


class OneRow:
    """A single function."""

    count = 1

    def __init__(self, function: FloatFunction, balls: BallFunction) -> None:
        self.function = function
        self._balls = balls

    def grid(self, x: Floats) -> Floats:
        """The function at some places."""
        return self.function(x)[None]

    def at(self, x: Floats, row: Index) -> Floats:
        """The same, of any shape."""
        return self.function(x)

    def balls(self, row: int) -> BallFunction:
        """The function on boxes."""
        return self._balls
