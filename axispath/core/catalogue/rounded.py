"""Float values that are right to the last digits, by way of balls.

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

    def values(*given: Any) -> Any:
        return np.asarray(np.frompyfunc(one, len(given), 1)(*given), dtype=np.float64)[()]

    return values
