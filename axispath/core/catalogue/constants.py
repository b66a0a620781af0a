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
    ConstantEntry("τ", "A whole turn in radians: 2π.", math.tau, lambda: arb(2) * arb.pi()),
    ConstantEntry(
        "φ", "The golden ratio.", (1 + math.sqrt(5)) / 2, lambda: (arb(1) + arb(5).sqrt()) / arb(2)
    ),
)
