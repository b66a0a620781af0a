"""A function together with its derivatives, and the signs they have."""

from __future__ import annotations

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.catalogue.balls import NAN, OutsideDomain

FACTORIALS = (1, 1, 2, 6, 24, 120, 720, 5040)
LADDER = (53, 128, 320)  # precisions tried in turn before a sign is given up


class Tower:
    """Level k is the k-th derivative. Counts its evaluations against a budget."""

    def __init__(self, function: BallFunction, evaluations: int) -> None:
        self.function = function
        self.left = evaluations

    def levels(self, x: arb, count: int) -> list[arb]:
        """Enclosures of levels 0 to ``count`` − 1 over ``x``."""
        self.left -= 1
        coefficients = self.function.taylor(x, count)
        return [c * f for c, f in zip(coefficients, FACTORIALS, strict=False)]

    def level(self, k: int, x: arb) -> arb:
        """An enclosure of level ``k``; NaN where the function is surely undefined."""
        try:
            if k == 0:
                self.left -= 1
                return self.function.value(x)
            return self.levels(x, k + 1)[k]
        except OutsideDomain:
            return NAN

    def sign_at(self, k: int, x: float) -> int:
        """The sign of level ``k`` at a number, 0 where it cannot be told from zero."""
        for bits in LADDER:
            with precision(bits):
                found = sign(self.level(k, arb(x)))
            if found:
                return found
        return 0


def sign(value: arb) -> int:
    """1 or −1 where sure, else 0."""
    if value > 0:
        return 1
    return -1 if value < 0 else 0
