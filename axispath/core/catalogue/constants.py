"""Named numbers."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from flint import arb


@dataclass(frozen=True, slots=True)
class ConstantEntry:
    """A constant: canonical name, its float64 value, and an enclosure at the current precision."""

    name: str
    summary: str
    value: float
    ball: Callable[[], arb]
    exact: Callable[[Any], Any]


CONSTANTS = (
    ConstantEntry(
        "π", "Half the turn of a circle over its radius.", math.pi, arb.pi, lambda sp: sp.pi
    ),
    ConstantEntry("e", "The base of the natural logarithm.", math.e, arb.const_e, lambda sp: sp.E),
    ConstantEntry(
        "τ",
        "A whole turn in radians: 2π.",
        math.tau,
        lambda: arb(2) * arb.pi(),
        lambda sp: 2 * sp.pi,
    ),
    ConstantEntry(
        "φ",
        "The golden ratio.",
        (1 + math.sqrt(5)) / 2,
        lambda: (arb(1) + arb(5).sqrt()) / arb(2),
        lambda sp: sp.GoldenRatio,
    ),
)
