"""Functions of single numbers carried over arrays, and floats right to the last digits by balls.

Slower than NumPy, about a microsecond or two a value; for functions whose float formulas lose
digits and for which NumPy has none.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from flint import arb

from axispath.core.catalogue.balls import Ball, OutsideDomain, head, precision

BITS = 120


def elementwise(one: Callable[..., float]) -> Callable[..., Any]:
    """A function of numbers as one of float64 arrays of any shape."""

    def values(*given: Any) -> Any:
        # Without the conversion these would be Python's numbers, which NumPy cannot go on from.
        return np.asarray(np.frompyfunc(one, len(given), 1)(*given), dtype=np.float64)[()]

    return values


def through_balls(ball: Callable[..., Ball]) -> Callable[..., Any]:
    """The float function of a ball function: NaN where undefined."""

    def one(*given: float) -> float:
        if not all(np.isfinite(given)):
            return float("nan")
        try:
            with precision(BITS):
                value = head(ball(*[arb(float(x)) for x in given]))
        except OutsideDomain:
            return float("nan")
        return float(value.mid()) if value.is_finite() else float("nan")

    return elementwise(one)
