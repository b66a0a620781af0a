"""A function together with its derivatives, and the signs they have."""

from __future__ import annotations

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.catalogue.balls import MAX_ORDER, NAN, OutsideDomain
from axispath.core.search.budget import Budget
from axispath.core.search.scaled import ScaledFunction

FACTORIALS = (1, 1, 2, 6, 24, 120, 720, 5040)
LADDER = (53, 96, 320)  # precisions tried in turn before a sign is given up
FAR = (1200, 5000)  # and for the function itself, where it would be taken for 0
SIGNS_AT_ONCE = 4


class Tower:
    """Level k is the k-th derivative. Counts its evaluations against a budget.

    ``levels`` and ``sign_at`` may leave out a positive factor, the same for all levels at one
    x; ``true_levels`` does not.
    """

    def __init__(self, function: ScaledFunction, budget: Budget) -> None:
        self.function = function
        self.true: BallFunction = function.true
        self.budget = budget
        self._signs: dict[float, list[int]] = {}

    @property
    def scaled(self) -> bool:
        """Whether a factor is left out that is not the same at all x."""
        return self.function.scaled

    def levels(self, x: arb, count: int) -> list[arb]:
        """Enclosures of levels 0 to ``count`` − 1 over ``x``, up to a positive factor."""
        self.budget.spend()
        coefficients = self.function.taylor(x, count)
        return [c * f for c, f in zip(coefficients, FACTORIALS, strict=False)]

    def coefficients(self, x: arb) -> list[arb]:
        """As many Taylor coefficients as there are, up to a positive factor."""
        self.budget.spend()
        return self.function.taylor(x, MAX_ORDER)

    def coefficients_from(self, level: int, x: arb) -> list[arb]:
        """Taylor coefficients that may be used together from a level on."""
        self.budget.spend()
        return self.function.from_level(level, x, MAX_ORDER)

    def true_levels(self, x: arb, count: int) -> list[arb]:
        """Enclosures of levels 0 to ``count`` − 1 over ``x``."""
        self.budget.spend()
        coefficients = self.true.taylor(x, count)
        return [c * f for c, f in zip(coefficients, FACTORIALS, strict=False)]

    def level(self, k: int, x: arb) -> arb:
        """Level ``k`` up to a positive factor; NaN where the function is surely undefined."""
        try:
            if k == 0:
                self.budget.spend()
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
        return self.far_sign(arb(x)) if k == 0 else 0

    def far_sign(self, x: arb) -> int:
        """The sign of the function all over ``x`` with very many bits, 0 where it may be zero.

        What comes as near to 0 as erf(16) to 1 takes hundreds of them to be told apart.
        """
        for bits in FAR:
            self.budget.spend()
            with precision(bits):
                try:
                    found = sign(self.true.value(x))
                except OutsideDomain:
                    return 0
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
