"""One isolated zero of one level of a tower, narrowed by interval Newton.

Moore (1966), Interval Analysis; Kearfott (1996), Rigorous Global Search, chapter 1: with a
bracket X whose ends differ in sign, X and m − F(m)/F'(X) both contain the zero.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.path.tower import LADDER, Tower, sign

MAX_STEPS = 400
FLOAT_STEPS = 60


@dataclass
class Root:
    """A zero of level ``level`` inside ``ball``, the only one in [``low``, ``high``].

    ``crosses`` tells whether the level changes sign there. ``multiple`` marks a zero that
    no sign change proves: the levels below it touch zero there too.
    """

    level: int
    ball: arb
    low: float
    high: float
    crosses: bool = True
    multiple: bool = False
    bits: int = 0

    @property
    def narrow(self) -> bool:
        """Whether the place is known to float64 precision, give or take some digits."""
        width = self.high - self.low
        return bool(self.ball.rad() <= max(abs(self.x) * 1e-14, width * 1e-14))

    @property
    def x(self) -> float:
        """The nearest float64."""
        return float(self.ball.mid())


def bracketed(tower: Tower, level: int, low: arb, high: arb, sign_low: int) -> Root:
    """The only zero of ``level`` between ``low`` and ``high``, whose signs differ."""
    with precision(LADDER[1]):
        ball = low.union(high)
    root = Root(level, ball, float(low.mid()), float(high.mid()))
    narrow(tower, root, LADDER[1], sign_low)
    return root


def narrow(tower: Tower, root: Root, bits: int, sign_low: int) -> None:
    """Narrow the ball of a simple root to about ``bits`` of working precision."""
    level, wide = root.level, root.ball
    if not root.bits:
        wide = _close_in(tower, level, wide, sign_low)
    with precision(bits):
        # Next to 0 relative precision has no end, so the bracket's width sets a floor.
        scale = max(abs(root.x), (root.high - root.low) * 2.0**-20)
        fine = arb(scale) * arb(2) ** (40 - bits)
        for _ in range(MAX_STEPS):
            if wide.rad() <= fine:
                break
            middle = arb(wide.mid())
            slope = tower.levels(wide, level + 2)[level + 1]
            at_middle = tower.level(level, middle) if slope != 0 else slope
            if slope != 0:
                closer = (middle - at_middle / slope).intersection(wide)
            else:
                closer = _cut(tower, level, wide, sign_low)
            if closer.rad() > wide.rad() * 0.9:
                break
            wide = closer
    root.ball, root.bits = wide, bits


def _close_in(tower: Tower, level: int, wide: arb, sign_low: int) -> arb:
    """A tight bracket around the zero: found in floating point, then proved by its signs.

    Newton steps, kept inside the bracket by bisection; nothing found here is believed
    until the signs at both ends of the tight bracket have been enclosed.
    """
    low, high = float(wide.lower()), float(wide.upper())
    width = high - low
    x = (low + high) / 2
    with precision(LADDER[0]):
        for _ in range(FLOAT_STEPS):
            levels = tower.levels(arb(x), level + 2)
            value, slope = float(levels[level].mid()), float(levels[level + 1].mid())
            if value * sign_low > 0:
                low = x
            else:
                high = x
            closer = x - value / slope if slope else math.nan
            if not low < closer < high:
                closer = (low + high) / 2
            step, x = abs(closer - x), closer
            if step <= abs(x) * 1e-13 + width * 1e-16:
                break
    for room in (2.0**-44, 2.0**-36, 2.0**-26):
        reach = max(abs(x), width * 2.0**-10) * room
        left, right = x - reach, x + reach
        if wide.contains(arb(left)) and wide.contains(arb(right)):
            signs = tower.sign_at(level, left), tower.sign_at(level, right)
            if signs == (sign_low, -sign_low):
                return arb(left).union(arb(right))
    return wide


def _cut(tower: Tower, level: int, wide: arb, sign_low: int) -> arb:
    """The part of ``wide`` that holds the sign change, cut where the sign is known."""
    low, high = arb(wide.lower()), arb(wide.upper())
    for fraction in (0.5, 0.4, 0.6):
        place = arb((low + (high - low) * arb(fraction)).mid())
        found = sign(tower.level(level, place))
        if found:
            return place.union(high) if found == sign_low else low.union(place)
    return wide


def sharpen(tower: Tower, root: Root, bits: int) -> arb:
    """The ball of a root for work at ``bits``."""
    if root.bits < bits and not root.multiple:
        narrow(tower, root, bits, tower.sign_at(root.level, root.low))
    return root.ball


def sign_at_root(tower: Tower, level: int, root: Root) -> int:
    """The sign of a lower level at a root, 0 where it cannot be told from zero."""
    for bits in LADDER:
        ball = sharpen(tower, root, max(bits, LADDER[1]))
        with precision(bits):
            found = sign(tower.level(level, ball))
        if found:
            return found
    return 0
