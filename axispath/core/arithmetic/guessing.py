"""Simple exact numbers next to a place that is known by an enclosure."""

from __future__ import annotations

import math
from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.rationals import Exact
from axispath.core.catalogue.balls import precision

MOST_PARTS = 10_000  # largest denominator of a place that is guessed
MOST_OF_TURN = 360  # largest denominator of a guessed multiple of π


def fraction_near(x: float, off: float, most: int) -> Fraction | None:
    """The fraction with a denominator up to ``most`` that lies at most ``off`` from x, if any.

    Where so little off it can only be a convergent of x (Legendre 1798, Essai sur la théorie des
    nombres), which floats tell.
    """
    if not math.isfinite(x):
        return None
    if off * most * most * 2 >= 1:
        found = Fraction(x).limit_denominator(most)
        return found if abs(float(found) - x) <= off else None
    before, last = (0, 1), (1, 0)
    rest = x
    while True:
        whole = math.floor(rest)
        top, bottom = whole * last[0] + before[0], whole * last[1] + before[1]
        if bottom > most:
            return None
        if abs(top / bottom - x) <= off:
            return Fraction(top, bottom)
        if rest == whole:
            return None
        rest = 1 / (rest - whole)
        before, last = last, (top, bottom)


def guess(ball: arb, degrees: bool = False) -> list[Exact]:
    """Simple exact numbers that lie in the ball, the simplest first."""
    x, radius = float(ball.mid()), float(ball.rad())
    off = max(abs(x), 1e-300) * 1e-12 + radius
    near = []
    if (simple := fraction_near(x, off, MOST_PARTS)) is not None:
        near.append(Exact(simple))
    if not degrees:
        turns = fraction_near(x / math.pi, off / math.pi, MOST_OF_TURN)
        if turns is not None:
            near.append(Exact(Fraction(0), turns))
    found = []
    for candidate in near:
        with precision(400):
            if ball.overlaps(candidate.ball):
                found.append(candidate)
    return found
