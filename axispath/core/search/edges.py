"""The ends of the interval that is looked at, as places to cut at."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import less
from axispath.core.arithmetic.rationals import Exact
from axispath.core.search.cuts import Cut, floats_around
from axispath.core.search.pieces import Cutter

SHORT = 2**20  # denominators of view limits that are worth exact arithmetic


def edge(cutter: Cutter, end: End) -> Cut:
    """The end of the interval that is looked at."""
    low, high = floats_around(end.ball)
    cut = Cut(end.ball, low, high, end, of=None if end.plan is None else less(end.plan))
    exact = end.exact
    if exact is None and end.ball.is_exact():
        place = Fraction(low)
        exact = Exact(place) if place.denominator <= SHORT else None
    if exact is not None and cutter.prepared.guards:
        cutter.place_exactly(cut, exact)
    return cut
