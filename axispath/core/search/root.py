"""One isolated zero of one level of a tower, narrowed by interval Newton.

Moore (1966), Interval Analysis; Kearfott (1996), Rigorous Global Search, chapter 1: with a
bracket X whose ends differ in sign, X and m − F(m)/F'(X) both contain the zero.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from math import comb

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.search.tower import LADDER, Tower, sign

MAX_STEPS = 400
FLOAT_STEPS = 60
POLYNOMIAL_STEPS = 12
LONG = 2.0**-6


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

    def holds(self, place: arb) -> bool:
        """Whether a place lies in the bracket in which the zero is the only one."""
        return bool(place >= self.low and place <= self.high)

    @property
    def x(self) -> float:
        """The nearest float64."""
        return float(self.ball.mid())


def bracketed(tower: Tower, level: int, low: arb, high: arb, sign_low: int) -> Root:
    """The only zero of ``level`` between ``low`` and ``high``, whose signs differ."""
    with precision(LADDER[1]):
        ball = low.union(high)
    root = Root(level, ball, float(low.mid()), float(high.mid()))
    narrow(tower, root, LADDER[1], sign_low, (low.lower(), high.upper()))
    return root


Ends = tuple[arb, arb]
"""Both ends of a bracket, exactly. A ball around them is wider by up to 2⁻³⁰ of its radius, and may
hold a neighbouring zero too.
"""


def narrow(tower: Tower, root: Root, bits: int, sign_low: int, ends: Ends | None = None) -> None:
    """Narrow the ball of a simple root to about ``bits`` of working precision."""
    level, wide = root.level, root.ball
    low, high = ends or (wide.lower(), wide.upper())
    if not root.bits:
        low, high = _close_in(tower, level, (low, high), sign_low, bits)
    with precision(bits):
        # Next to 0 relative precision has no end, so the bracket's width sets a floor.
        scale = max(abs(root.x), (root.high - root.low) * 2.0**-20)
        fine = arb(scale) * arb(2) ** (40 - bits)
        wide = low.union(high)
        for _ in range(MAX_STEPS):
            if wide.rad() <= fine:
                break
            newton = _newton(tower, level, wide)
            if newton is None:
                low, high = _cut(tower, level, (low, high), sign_low)
            elif newton.overlaps(wide):
                low, high = _common((low, high), newton)
            else:
                break  # contradictory enclosures: left wide, and so reported as open
            closer = low.union(high)
            if closer.rad() > wide.rad() * 0.9:
                break
            wide = closer
    root.ball, root.bits = wide, bits


def _common(ends: Ends, ball: arb) -> Ends:
    """The part of a bracket that a ball holds; all of it where that is less than a place."""
    low, high = ends
    inner = max(low, ball.lower(), key=arb.mid), min(high, ball.upper(), key=arb.mid)
    return inner if inner[0].mid() <= inner[1].mid() else ends


def _newton(tower: Tower, level: int, wide: arb) -> arb | None:
    """m − F(m)/F'(X); None where the slope may be 0."""
    slope = tower.true_levels(wide, level + 2)[level + 1]
    if slope != 0:
        middle = arb(wide.mid())
        return middle - tower.true_levels(middle, level + 1)[level] / slope
    return None


def _close_in(tower: Tower, level: int, ends: Ends, sign_low: int, bits: int) -> Ends:
    """A tight bracket of the zero, guessed in floating point and then proved.

    Each guess solves the Taylor polynomial around the last one. Nothing guessed is believed
    until interval Newton maps the tight ball into itself, or the signs at its ends differ.
    """
    low, high = (float(end) for end in ends)
    width = high - low
    x = (low + high) / 2
    with precision(LADDER[0]):
        for _ in range(FLOAT_STEPS):
            slopes = _slopes(tower, level, x)
            if slopes[0] * sign_low > 0:
                low = x
            else:
                high = x
            step = _small_zero(slopes, low - x, high - x)
            if _is_close(slopes, step, x, width):
                x += step
                break
            x = x + step if low < x + step < high else (low + high) / 2
    for room in (2.0**-44, 2.0**-36, 2.0**-26):
        reach = max(abs(x), width * 2.0**-10) * room
        left, right = x - reach, x + reach
        if not (arb(left) >= ends[0] and arb(right) <= ends[1]):
            continue
        tight = arb(left).union(arb(right))
        with precision(bits):
            mapped = _newton(tower, level, tight)
        if mapped is not None and tight.contains_interior(mapped):
            return mapped.lower(), mapped.upper()
        signs = tower.sign_at(level, left), tower.sign_at(level, right)
        if signs == (sign_low, -sign_low):
            return arb(left), arb(right)
    return ends


def _is_close(slopes: list[float], step: float, x: float, width: float) -> bool:
    """Whether what a Taylor polynomial leaves out moves its zero by less than floats can tell."""
    if abs(step) <= abs(x) * 1e-11 + width * 1e-15:
        return True
    # A long step has an error of its own in floats, whatever the polynomial leaves out.
    if math.isnan(step) or not slopes[1] or abs(step) > abs(x + step) * LONG:
        return False
    left_out = max(abs(c * step**k / slopes[1]) for k, c in enumerate(slopes[-2:], len(slopes) - 2))
    return left_out <= abs(x) * 1e-16 + width * 1e-22


def _slopes(tower: Tower, level: int, x: float) -> list[float]:
    """Taylor coefficients of a level at x, in floating point."""
    found = tower.coefficients_from(level, arb(x))
    return [float(found[k].mid()) * comb(k, level) for k in range(level, len(found))]


def _small_zero(coefficients: list[float], low: float, high: float) -> float:
    """A zero of a polynomial between ``low`` and ``high`` by Newton, NaN if none is met."""
    h, room = 0.0, (high - low) * 1e-12
    for _ in range(POLYNOMIAL_STEPS):
        value = slope = 0.0
        for c in reversed(coefficients):
            slope = slope * h + value
            value = value * h + c
        if not slope:
            return math.nan
        step = value / slope
        h -= step
        if not low - room <= h <= high + room:
            return math.nan
        if abs(step) <= 1e-15 * abs(h):
            break
    return h


def _cut(tower: Tower, level: int, ends: Ends, sign_low: int) -> Ends:
    """The part of a bracket that holds the sign change, cut where the sign is known."""
    low, high = ends
    for fraction in (0.5, 0.4, 0.6):
        place = arb((low + (high - low) * arb(fraction)).mid())
        found = sign(tower.level(level, place))
        if found:
            return (place, high) if found == sign_low else (low, place)
    return ends


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
    return tower.far_sign(root.ball) if level == 0 else 0
