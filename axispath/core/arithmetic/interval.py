"""The ends of an interval of x."""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb

from axispath.core.arithmetic.rationals import Exact


@dataclass(frozen=True, slots=True)
class End:
    """One end of an interval.

    ``ball`` encloses the true end at high precision; ``of_domain`` tells the end of a
    function's domain from the edge of what is looked at; ``exact`` is the end itself where it
    is a simple number.
    """

    ball: arb
    closed: bool = True
    of_domain: bool = False
    exact: Exact | None = None

    @staticmethod
    def at(x: float) -> End:
        """An edge at a number."""
        return End(arb(x))

    @property
    def x(self) -> float:
        """The nearest float64."""
        return float(self.ball.mid())
