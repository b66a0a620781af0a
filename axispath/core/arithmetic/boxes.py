"""Interval arithmetic on whole arrays of boxes, for pictures in the plane that are proved.

Each result is an interval that surely holds every value that the formula takes on the box: bounds
are rounded outwards by a last place where IEEE 754 rounds correctly, and by ``LIBRARY`` where a
function of the library is only known to be close (R. E. Moore, R. B. Kearfott and M. J. Cloud 2009,
Introduction to Interval Analysis). Functions without a rule here are enclosed one box after the
other by the balls of the catalogue.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axispath.core.arithmetic.program import Operation

Floats = NDArray[np.float64]
LIBRARY = 8 * float(np.finfo(np.float64).eps)  # how far off library functions may be, relatively
TINY = 1e-300
LONGEST = 746.0  # no logarithm of a float is larger
NOWHERE, SOMEWHERE, THROUGHOUT = 0, 1, 2


@dataclass(frozen=True, slots=True)
class Boxes:
    """Intervals, element by element; ``state`` says where on each box there is a value.

    NOWHERE; SOMEWHERE, perhaps; or THROUGHOUT, and then the formula is continuous on the box.
    """

    low: Floats
    high: Floats
    state: NDArray[np.int8]

    @property
    def may_be_zero(self) -> NDArray[np.bool_]:
        """Whether 0 may be among the values."""
        return (self.state > NOWHERE) & (self.low <= 0) & (self.high >= 0)

    @property
    def has_no_zero(self) -> NDArray[np.bool_]:
        """Whether there is a value throughout, and it is never 0."""
        found: NDArray[np.bool_] = (self.state == THROUGHOUT) & ((self.low > 0) | (self.high < 0))
        return found


def between(low: Floats, high: Floats) -> Boxes:
    """All values between two arrays of bounds."""
    return Boxes(low, high, np.full(np.shape(low), THROUGHOUT, dtype=np.int8))


def single(low: float, high: float, state: int = THROUGHOUT) -> Boxes:
    """One interval for all boxes."""
    return Boxes(np.float64(low), np.float64(high), np.int8(state))  # type: ignore[arg-type]


def of_number(value: Fraction) -> Boxes:
    """The interval of an exact number."""
    try:
        near = float(value)
    except OverflowError:
        near = np.inf if value > 0 else -np.inf
    if np.isfinite(near) and Fraction(near) == value:
        return single(near, near)
    return single(float(np.nextafter(near, -np.inf)), float(np.nextafter(near, np.inf)))


def of_ball(value: arb) -> Boxes:
    """The interval of a ball."""
    if not value.is_finite():
        return single(-np.inf, np.inf, SOMEWHERE)
    low, high = float(value.lower()), float(value.upper())
    return single(float(np.nextafter(low, -np.inf)), float(np.nextafter(high, np.inf)))


def outwards(low: Floats, high: Floats, state: Any, error: float = 0.0) -> Boxes:
    """Bounds rounded outwards; where one is not a number, nothing is known."""
    if error:
        low, high = low - error * np.abs(low) - TINY, high + error * np.abs(high) + TINY
    else:
        low, high = np.nextafter(low, -np.inf), np.nextafter(high, np.inf)
    low = np.where(np.isnan(low), -np.inf, low)
    high = np.where(np.isnan(high), np.inf, high)
    return Boxes(low, high, np.asarray(state, dtype=np.int8))


def least(*parts: Boxes) -> NDArray[np.int8]:
    """The least that holds of several."""
    state = parts[0].state
    for part in parts[1:]:
        state = np.minimum(state, part.state)
    return state


def add(a: Boxes, b: Boxes) -> Boxes:
    """Sums."""
    return outwards(a.low + b.low, a.high + b.high, least(a, b))


def subtract(a: Boxes, b: Boxes) -> Boxes:
    """Differences."""
    return outwards(a.low - b.high, a.high - b.low, least(a, b))


def _negate(a: Boxes) -> Boxes:
    return Boxes(-a.high, -a.low, a.state)


def multiply(a: Boxes, b: Boxes) -> Boxes:
    """Products; of an interval with itself its square."""
    if a is b:
        return whole_power(a, 2)
    products = [p * q for p in (a.low, a.high) for q in (b.low, b.high)]
    # 0 times what grows without end is 0: every single value is finite.
    products = [np.where(np.isnan(p), 0.0, p) for p in products]
    return outwards(_smallest(products), _largest(products), least(a, b))


def _divide(a: Boxes, b: Boxes) -> Boxes:
    quotients = [p / q for p in (a.low, a.high) for q in (b.low, b.high)]
    quotients = [np.where(np.isnan(p), 0.0, p) for p in quotients]
    found = outwards(_smallest(quotients), _largest(quotients), least(a, b))
    through = (b.low <= 0) & (b.high >= 0)
    state = np.where(through, np.minimum(found.state, SOMEWHERE), found.state)
    state = np.where((b.low == 0) & (b.high == 0), NOWHERE, state)
    return Boxes(
        np.where(through, -np.inf, found.low),
        np.where(through, np.inf, found.high),
        state.astype(np.int8),
    )


def _smallest(parts: list[Floats]) -> Floats:
    return np.minimum(np.minimum(parts[0], parts[1]), np.minimum(parts[2], parts[3]))


def _largest(parts: list[Floats]) -> Floats:
    return np.maximum(np.maximum(parts[0], parts[1]), np.maximum(parts[2], parts[3]))


def whole_power(base: Boxes, n: int) -> Boxes:
    """Powers by a whole number."""
    if n == 0:
        return Boxes(np.ones_like(base.low), np.ones_like(base.low), base.state)
    if n == 1:
        return base
    if n < 0:
        return _divide(single(1.0, 1.0), whole_power(base, -n))
    first, last = np.power(base.low, float(n)), np.power(base.high, float(n))
    error = 0.0 if n == 2 else LIBRARY
    if n % 2:
        return outwards(first, last, base.state, error)
    through = (base.low <= 0) & (base.high >= 0)
    found = outwards(np.minimum(first, last), np.maximum(first, last), base.state, error)
    return Boxes(np.where(through, 0.0, np.maximum(found.low, 0)), found.high, found.state)


def odd_root(base: Boxes, n: int) -> Boxes:
    """Odd roots."""

    def root(x: Floats) -> Floats:
        return np.sign(x) * np.power(np.abs(x), 1 / n)

    # 1/n is rounded, and a power turns that into the logarithm of its base times as much.
    return outwards(root(base.low), root(base.high), base.state, LIBRARY * (1 + LONGEST / n))


def _power(base: Boxes, exponent: Boxes) -> Boxes:
    above = base.low > 0
    inside = np.where(above, base.low, 1.0), np.where(above, base.high, 1.0)
    corners = [np.power(p, q) for p in inside for q in (exponent.low, exponent.high)]
    # On each side of base 1 and exponent 0 a power is monotone in both.
    found = outwards(_smallest(corners), _largest(corners), least(base, exponent), LIBRARY)
    low = np.where(above, np.maximum(found.low, 0), -np.inf)
    high = np.where(above, found.high, np.inf)
    ends = np.abs(np.log(inside[0])), np.abs(np.log(inside[1]))
    off = LIBRARY * np.maximum(*ends) * np.maximum(np.abs(exponent.low), np.abs(exponent.high))
    low = np.where(above, low - np.abs(low) * off, low)
    high = np.where(above, high + high * off, high)
    state = np.where(above, found.state, np.minimum(found.state, SOMEWHERE))
    return Boxes(low, high, state.astype(np.int8))


def _given(value: Boxes, other: Boxes) -> Boxes:
    return Boxes(value.low, value.high, least(value, other))


def choose(sign: str, left: Boxes, right: Boxes, value: Boxes, rest: Boxes) -> Boxes:
    """The value of the first case that holds."""
    yes, no = _COMPARED[sign](left, right)
    low = np.where(yes, value.low, np.where(no, rest.low, np.minimum(value.low, rest.low)))
    high = np.where(yes, value.high, np.where(no, rest.high, np.maximum(value.high, rest.high)))
    both = np.where(np.maximum(value.state, rest.state) > NOWHERE, SOMEWHERE, NOWHERE)
    state = np.where(yes, value.state, np.where(no, rest.state, both))
    known = ~np.isnan(low) & ~np.isnan(high)
    low, high = np.where(known, low, -np.inf), np.where(known, high, np.inf)
    sides = least(left, right)
    return Boxes(low, high, np.minimum(state, sides).astype(np.int8))


def restrict(side: str, value: Boxes, x: Boxes, end: Boxes) -> Boxes:
    """A value where a bound of its domain holds."""
    sign = {"above": ">", "at or above": ">=", "below": "<", "at or below": "<="}[side]
    yes, no = _COMPARED[sign](x, end)
    state = np.where(no, NOWHERE, np.where(yes, value.state, np.minimum(value.state, SOMEWHERE)))
    return Boxes(value.low, value.high, np.minimum(state, least(x, end)).astype(np.int8))


Truths = tuple[NDArray[np.bool_], NDArray[np.bool_]]


def _below(a: Boxes, b: Boxes) -> Truths:
    return a.high < b.low, a.low >= b.high


def _up_to(a: Boxes, b: Boxes) -> Truths:
    return a.high <= b.low, a.low > b.high


def _same(a: Boxes, b: Boxes) -> Truths:
    apart = (a.high < b.low) | (a.low > b.high)
    return (a.low == a.high) & (b.low == b.high) & (a.low == b.low), apart


_COMPARED: dict[str, Callable[[Boxes, Boxes], Truths]] = {
    "<": _below,
    "<=": _up_to,
    ">": lambda a, b: _below(b, a),
    ">=": lambda a, b: _up_to(b, a),
    "=": _same,
    "!=": lambda a, b: _same(a, b)[::-1],
}


def quartered(boxes: Floats) -> Floats:
    """Each rectangle (left, right, bottom, top) as four."""
    x = (boxes[:, 0] + boxes[:, 1]) / 2
    y = (boxes[:, 2] + boxes[:, 3]) / 2
    low_x, high_x, low_y, high_y = boxes.T
    parts = [
        (low_x, x, low_y, y),
        (x, high_x, low_y, y),
        (low_x, x, y, high_y),
        (x, high_x, y, high_y),
    ]
    return np.concatenate([np.stack(part, axis=1) for part in parts])


OPERATIONS: dict[str, Operation] = {
    "add": add,
    "subtract": subtract,
    "multiply": multiply,
    "negate": _negate,
    "divide": _divide,
    "power": _power,
    "given": _given,
}


def halved(boxes: Floats, letter: int) -> Floats:
    """Each rectangle as two, cut across x (0) or y (1)."""
    first, second = boxes.copy(), boxes.copy()
    middle = (boxes[:, 2 * letter] + boxes[:, 2 * letter + 1]) / 2
    first[:, 2 * letter + 1] = middle
    second[:, 2 * letter] = middle
    return np.concatenate([first, second])
