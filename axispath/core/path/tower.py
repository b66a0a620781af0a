"""A function together with its derivatives, and the signs they have."""

from __future__ import annotations

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.catalogue.balls import NAN, OutsideDomain

FACTORIALS = (1, 1, 2, 6, 24, 120, 720, 5040)
LADDER = (53, 96, 320)  # precisions tried in turn before a sign is given up
SIGNS_AT_ONCE = 4


class Tower:
    """Level k is the k-th derivative. Counts its evaluations against a budget."""

    def __init__(self, function: BallFunction, evaluations: int) -> None:
        self.function = function
        self.left = evaluations
        self._signs: dict[float, list[int]] = {}

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
        # Neighbouring boxes ask for the same place, and every level of a chain does.
        known = self._signs.get(x)
        if known is None:
            known = self._signs[x] = self._first_signs(x)
        if k < len(known) and known[k]:
            return known[k]
        for bits in LADDER[1:] if k < len(known) else LADDER:
            with precision(bits):
                found = sign(self.level(k, arb(x)))
            if found:
                return found
        return 0

    def _first_signs(self, x: float) -> list[int]:
        with precision(LADDER[0]):
            try:
                return [sign(value) for value in self.levels(arb(x), SIGNS_AT_ONCE)]
            except OutsideDomain:
                return [0] * SIGNS_AT_ONCE


def sign(value: arb) -> int:
    """1 or −1 where sure, else 0."""
    if value > 0:
        return 1
    return -1 if value < 0 else 0
