"""The ends of an interval of x."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass, field, replace

from flint import arb

from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact


@dataclass(frozen=True, slots=True)
class End:
    """One end of an interval.

    ``ball`` encloses the true end at high precision; ``of_domain`` tells the end of a
    function's domain from the edge of what is looked at; ``exact`` is the end itself where it
    is a simple number, and ``plan`` the formula it is written as.
    """

    ball: arb
    closed: bool = True
    of_domain: bool = False
    exact: Exact | None = None
    plan: Program | None = field(default=None, compare=False, repr=False)

    @staticmethod
    def at(x: float) -> End:
        """An edge at a number."""
        return End(arb(x))

    @property
    def key(self) -> Hashable:
        """All of the end, for memories: two ends at the same float64 may differ in the rest."""
        middle, radius = self.ball.mid(), self.ball.rad()
        return (*_digits(middle), *_digits(radius), self.closed, self.of_domain, self.exact)

    @property
    def x(self) -> float:
        """The nearest float64."""
        return float(self.ball.mid())

    def within(self, other: End, side: int) -> End:
        """The one of two ends that leaves less: of two lower ends (1) or two upper ones (−1)."""
        if self.ball > other.ball or self.ball < other.ball:
            return self if (self.ball > other.ball) == (side > 0) else other
        # The same place, as far as can be told: it belongs to both only where both include it.
        known = self if self.exact is not None else other
        closed = self.belongs and other.belongs
        return replace(known, closed=closed, of_domain=self.of_domain or other.of_domain)

    @property
    def belongs(self) -> bool:
        """Whether the end is part of the interval: the edge of what is looked at always is."""
        return self.closed or not self.of_domain


def _digits(ball: arb) -> tuple[int, int]:
    mantissa, exponent = ball.man_exp()
    return int(mantissa), int(exponent)
