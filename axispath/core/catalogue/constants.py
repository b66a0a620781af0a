"""Named numbers."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from flint import arb


@dataclass(frozen=True, slots=True)
class ConstantEntry:
    """A constant: canonical name, its float64 value, and an enclosure at the current precision."""

    name: str
    summary: str
    value: float
    ball: Callable[[], arb]


CONSTANTS = (
    ConstantEntry("π", "Half the turn of a circle over its radius.", math.pi, arb.pi),
    ConstantEntry("e", "The base of the natural logarithm.", math.e, arb.const_e),
)
