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

from axispath.core import catalogue
from axispath.core.arithmetic.program import Bound, Operation, Program, Step, bind
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain, head

Floats = NDArray[np.float64]
LIBRARY = 8 * float(np.finfo(np.float64).eps)  # how far off library functions may be, relatively
TINY = 1e-300
FAR = 1e9  # beyond which sine and cosine are just between −1 and 1
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


def box_function(plan: Program, unit: AngleUnit) -> Callable[..., Boxes]:
    """A program as a function of Boxes, one for each of its inputs."""
    bound = bound_to_boxes(plan, unit)

    def function(*inputs: Boxes) -> Boxes:
        with np.errstate(all="ignore"):
            found = bound.run(*inputs)
        shape = inputs[0].low.shape
        low, high, state = (np.broadcast_to(a, shape) for a in (found.low, found.high, found.state))
        return Boxes(low, high, state)

    return function


def bound_to_boxes(plan: Program, unit: AngleUnit) -> Bound:
    """A program bound to this arithmetic."""
    with np.errstate(all="ignore"):
        return bind(plan, lambda step: operation(step, unit))


def between(low: Floats, high: Floats) -> Boxes:
    """All values between two arrays of bounds."""
    return Boxes(low, high, np.full(np.shape(low), THROUGHOUT, dtype=np.int8))


def operation(step: Step, unit: AngleUnit) -> Operation:
    """How this arithmetic carries out a step."""
    detail = step.detail
    match step.operation:
        case "number":
            return lambda: _number(detail)
        case "constant":
            return lambda: _ball(catalogue.CONSTANTS[detail].ball())
        case "whole power":
            return lambda base: _whole_power(base, detail)
        case "root power":
            return lambda base: _whole_power(_odd_root(base, detail.denominator), detail.numerator)
        case "undefined":
            return lambda: _single(np.nan, np.nan, NOWHERE)
        case "choose":
            return lambda left, right, value, rest: _choose(detail, left, right, value, rest)
        case "restrict":
            return lambda value, x, end: _restrict(detail[0], value, x, end)
        case "apply":
            return _applied(catalogue.ENTRIES[detail], detail, unit)
    return _OPERATIONS[step.operation]


def _single(low: float, high: float, state: int = THROUGHOUT) -> Boxes:
    return Boxes(np.float64(low), np.float64(high), np.int8(state))  # type: ignore[arg-type]


def _number(value: Fraction) -> Boxes:
    try:
        near = float(value)
    except OverflowError:
        near = np.inf if value > 0 else -np.inf
    if np.isfinite(near) and Fraction(near) == value:
        return _single(near, near)
    return _single(float(np.nextafter(near, -np.inf)), float(np.nextafter(near, np.inf)))


def _ball(value: arb) -> Boxes:
    if not value.is_finite():
        return _single(-np.inf, np.inf, SOMEWHERE)
    low, high = float(value.lower()), float(value.upper())
    return _single(float(np.nextafter(low, -np.inf)), float(np.nextafter(high, np.inf)))


def _outwards(low: Floats, high: Floats, state: Any, error: float = 0.0) -> Boxes:
    """Bounds rounded outwards; where one is not a number, nothing is known."""
    if error:
        low, high = low - error * np.abs(low) - TINY, high + error * np.abs(high) + TINY
    else:
        low, high = np.nextafter(low, -np.inf), np.nextafter(high, np.inf)
    low = np.where(np.isnan(low), -np.inf, low)
    high = np.where(np.isnan(high), np.inf, high)
    return Boxes(low, high, np.asarray(state, dtype=np.int8))


def _least(*parts: Boxes) -> NDArray[np.int8]:
    state = parts[0].state
    for part in parts[1:]:
        state = np.minimum(state, part.state)
    return state


def add(a: Boxes, b: Boxes) -> Boxes:
    """Sums."""
    return _outwards(a.low + b.low, a.high + b.high, _least(a, b))


def subtract(a: Boxes, b: Boxes) -> Boxes:
    """Differences."""
    return _outwards(a.low - b.high, a.high - b.low, _least(a, b))


def _negate(a: Boxes) -> Boxes:
    return Boxes(-a.high, -a.low, a.state)


def multiply(a: Boxes, b: Boxes) -> Boxes:
    """Products; of an interval with itself its square."""
    if a is b:
        return _whole_power(a, 2)
    products = [p * q for p in (a.low, a.high) for q in (b.low, b.high)]
    # 0 times what grows without end is 0: every single value is finite.
    products = [np.where(np.isnan(p), 0.0, p) for p in products]
    return _outwards(_smallest(products), _largest(products), _least(a, b))


def _divide(a: Boxes, b: Boxes) -> Boxes:
    quotients = [p / q for p in (a.low, a.high) for q in (b.low, b.high)]
    quotients = [np.where(np.isnan(p), 0.0, p) for p in quotients]
    found = _outwards(_smallest(quotients), _largest(quotients), _least(a, b))
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


def _whole_power(base: Boxes, n: int) -> Boxes:
    if n == 0:
        return Boxes(np.ones_like(base.low), np.ones_like(base.low), base.state)
    if n == 1:
        return base
    if n < 0:
        return _divide(_single(1.0, 1.0), _whole_power(base, -n))
    first, last = np.power(base.low, float(n)), np.power(base.high, float(n))
    error = 0.0 if n == 2 else LIBRARY
    if n % 2:
        return _outwards(first, last, base.state, error)
    through = (base.low <= 0) & (base.high >= 0)
    found = _outwards(np.minimum(first, last), np.maximum(first, last), base.state, error)
    return Boxes(np.where(through, 0.0, np.maximum(found.low, 0)), found.high, found.state)


def _odd_root(base: Boxes, n: int) -> Boxes:
    def root(x: Floats) -> Floats:
        return np.sign(x) * np.power(np.abs(x), 1 / n)

    return _outwards(root(base.low), root(base.high), base.state, LIBRARY)


def _power(base: Boxes, exponent: Boxes) -> Boxes:
    above = base.low > 0
    inside = np.where(above, base.low, 1.0), np.where(above, base.high, 1.0)
    corners = [np.power(p, q) for p in inside for q in (exponent.low, exponent.high)]
    # On each side of base 1 and exponent 0 a power is monotone in both.
    found = _outwards(_smallest(corners), _largest(corners), _least(base, exponent), LIBRARY)
    low = np.where(above, np.maximum(found.low, 0), -np.inf)
    high = np.where(above, found.high, np.inf)
    ends = np.abs(np.log(inside[0])), np.abs(np.log(inside[1]))
    off = LIBRARY * np.maximum(*ends) * np.maximum(np.abs(exponent.low), np.abs(exponent.high))
    low = np.where(above, low - np.abs(low) * off, low)
    high = np.where(above, high + high * off, high)
    state = np.where(above, found.state, np.minimum(found.state, SOMEWHERE))
    return Boxes(low, high, state.astype(np.int8))


def _given(value: Boxes, other: Boxes) -> Boxes:
    return Boxes(value.low, value.high, _least(value, other))


def _choose(sign: str, left: Boxes, right: Boxes, value: Boxes, rest: Boxes) -> Boxes:
    yes, no = _COMPARED[sign](left, right)
    low = np.where(yes, value.low, np.where(no, rest.low, np.minimum(value.low, rest.low)))
    high = np.where(yes, value.high, np.where(no, rest.high, np.maximum(value.high, rest.high)))
    both = np.where(np.maximum(value.state, rest.state) > NOWHERE, SOMEWHERE, NOWHERE)
    state = np.where(yes, value.state, np.where(no, rest.state, both))
    known = ~np.isnan(low) & ~np.isnan(high)
    low, high = np.where(known, low, -np.inf), np.where(known, high, np.inf)
    sides = _least(left, right)
    return Boxes(low, high, np.minimum(state, sides).astype(np.int8))


def _restrict(side: str, value: Boxes, x: Boxes, end: Boxes) -> Boxes:
    sign = {"above": ">", "at or above": ">=", "below": "<", "at or below": "<="}[side]
    yes, no = _COMPARED[sign](x, end)
    state = np.where(no, NOWHERE, np.where(yes, value.state, np.minimum(value.state, SOMEWHERE)))
    return Boxes(value.low, value.high, np.minimum(state, _least(x, end)).astype(np.int8))


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


def _rising(work: Callable[[Floats], Floats], a: Boxes) -> Boxes:
    return _outwards(work(a.low), work(a.high), a.state, LIBRARY)


def _within(a: Boxes, low: float, high: float, closed: bool = True) -> Boxes:
    """What lies in a domain; the state tells whether that is all."""
    beyond = (a.low > high) | (a.high < low) if closed else (a.low >= high) | (a.high <= low)
    over = (a.low < low) | (a.high > high) if closed else (a.low <= low) | (a.high >= high)
    state = np.where(over, np.minimum(a.state, SOMEWHERE), a.state)
    state = np.where(beyond, NOWHERE, state).astype(np.int8)
    return Boxes(np.clip(a.low, low, high), np.clip(a.high, low, high), state)


def _sine(a: Boxes) -> Boxes:
    first, last = np.sin(a.low), np.sin(a.high)
    found = _outwards(np.minimum(first, last), np.maximum(first, last), a.state, LIBRARY)
    far = ~(np.maximum(np.abs(a.low), np.abs(a.high)) < FAR)
    error = LIBRARY + LIBRARY * np.where(far, 0.0, np.maximum(np.abs(a.low), np.abs(a.high)))
    top = _passes(a, np.pi / 2, error) | far
    bottom = _passes(a, -np.pi / 2, error) | far
    low = np.where(bottom, -1.0, np.maximum(found.low, -1.0))
    high = np.where(top, 1.0, np.minimum(found.high, 1.0))
    return Boxes(low, high, a.state)


def _passes(a: Boxes, place: float, error: Floats) -> NDArray[np.bool_]:
    """Whether an interval may hold a place, or one a whole number of turns from it."""
    turn = 2 * np.pi
    k = np.ceil((a.low - error - place) / turn)
    return place + k * turn <= a.high + error


def _cosine(a: Boxes) -> Boxes:
    quarter = _outwards(a.low + np.pi / 2, a.high + np.pi / 2, a.state, LIBRARY)
    return _sine(quarter)


def _tangent(a: Boxes) -> Boxes:
    wide = np.maximum(np.abs(a.low), np.abs(a.high))
    error = LIBRARY + LIBRARY * np.minimum(wide, FAR)
    k = np.ceil((a.low - error - np.pi / 2) / np.pi)
    pole = (np.pi / 2 + k * np.pi <= a.high + error) | ~(wide < FAR)
    first, last = np.tan(a.low), np.tan(a.high)
    # Close to a pole an error of the argument is magnified by the slope.
    slope = 1 + np.maximum(first * first, last * last)
    low, high = first - error * slope, last + error * slope
    found = _outwards(low, high, a.state)
    state = np.where(pole, np.minimum(a.state, SOMEWHERE), a.state).astype(np.int8)
    return Boxes(np.where(pole, -np.inf, found.low), np.where(pole, np.inf, found.high), state)


def _logarithm(work: Callable[[Floats], Floats]) -> Callable[[Boxes], Boxes]:
    def carried_out(a: Boxes) -> Boxes:
        part = _within(a, 0.0, np.inf, closed=False)
        found = _outwards(work(part.low), work(part.high), part.state, LIBRARY)
        return Boxes(found.low - LIBRARY, found.high + LIBRARY, found.state)

    return carried_out


def _root(a: Boxes) -> Boxes:
    part = _within(a, 0.0, np.inf)
    found = _outwards(np.sqrt(part.low), np.sqrt(part.high), part.state)
    return Boxes(np.maximum(found.low, 0.0), found.high, found.state)


def _absolute(a: Boxes) -> Boxes:
    through = (a.low <= 0) & (a.high >= 0)
    low = np.minimum(np.abs(a.low), np.abs(a.high))
    return Boxes(np.where(through, 0.0, low), np.maximum(np.abs(a.low), np.abs(a.high)), a.state)


def _stepped(work: Callable[[Floats], Floats]) -> Callable[[Boxes], Boxes]:
    def carried_out(a: Boxes) -> Boxes:
        low, high = work(a.low), work(a.high)
        state = np.where(low == high, a.state, np.minimum(a.state, SOMEWHERE)).astype(np.int8)
        return Boxes(low, high, state)

    return carried_out


def _exponential(a: Boxes) -> Boxes:
    wide = np.minimum(np.maximum(np.abs(a.low), np.abs(a.high)), 800)
    found = _outwards(np.exp(a.low), np.exp(a.high), a.state)
    error = LIBRARY * (1 + wide)
    low = np.maximum(found.low - error * np.abs(found.low), 0.0)
    return Boxes(low, found.high + error * found.high, a.state)


def _inverse(work: Callable[[Floats], Floats], falling: bool) -> Callable[[Boxes], Boxes]:
    def carried_out(a: Boxes) -> Boxes:
        part = _within(a, -1.0, 1.0)
        first, last = work(part.low), work(part.high)
        if falling:
            first, last = last, first
        return _outwards(first - LIBRARY, last + LIBRARY, part.state, LIBRARY)

    return carried_out


def _smaller(*parts: Boxes) -> Boxes:
    low, high = parts[0].low, parts[0].high
    for part in parts[1:]:
        low, high = np.minimum(low, part.low), np.minimum(high, part.high)
    return Boxes(low, high, _least(*parts))


def _larger(*parts: Boxes) -> Boxes:
    low, high = parts[0].low, parts[0].high
    for part in parts[1:]:
        low, high = np.maximum(low, part.low), np.maximum(high, part.high)
    return Boxes(low, high, _least(*parts))


_RULES: dict[str, Callable[..., Boxes]] = {
    "sin": _sine,
    "cos": _cosine,
    "tan": _tangent,
    "arcsin": _inverse(np.arcsin, False),
    "arccos": _inverse(np.arccos, True),
    "arctan": lambda a: _rising(np.arctan, a),
    "exp": _exponential,
    "ln": _logarithm(np.log),
    "log": _logarithm(np.log10),
    "sqrt": _root,
    "cbrt": lambda a: _odd_root(a, 3),
    "abs": _absolute,
    "sinh": lambda a: _rising(np.sinh, a),
    "tanh": lambda a: _rising(np.tanh, a),
    "arsinh": lambda a: _rising(np.arcsinh, a),
    "sign": _stepped(np.sign),
    "floor": _stepped(np.floor),
    "ceil": _stepped(np.ceil),
    "min": _smaller,
    "max": _larger,
}
_DEGREE = _ball(arb.pi() / 180)
_TURN = _ball(180 / arb.pi())


def _applied(entry: catalogue.Entry, name: str, unit: AngleUnit) -> Operation:
    rule = _RULES.get(name)
    in_degrees = unit is AngleUnit.DEGREE and entry.angle is not catalogue.Angle.NONE
    if rule is None:
        return lambda *parts: _one_by_one(entry, in_degrees, parts)
    if not in_degrees:
        return rule
    if entry.angle is catalogue.Angle.RESULT:
        return lambda *parts: multiply(rule(*parts), _TURN)
    return lambda *parts: rule(*[multiply(part, _DEGREE) for part in parts])


def _one_by_one(entry: catalogue.Entry, in_degrees: bool, parts: tuple[Boxes, ...]) -> Boxes:
    """By the balls of the catalogue, one box after the other."""
    work = entry.ball
    if in_degrees and entry.angle is catalogue.Angle.ARGUMENT and entry.ball_in_degrees:
        work = entry.ball_in_degrees
    turn = in_degrees and entry.angle is catalogue.Angle.RESULT
    state = np.atleast_1d(_least(*parts)).copy()
    shape = np.broadcast_shapes(*[np.shape(part.low) for part in parts])
    ends = [np.broadcast_to(end, shape).ravel() for p in parts for end in (p.low, p.high)]
    state = np.broadcast_to(state, shape or (1,)).ravel().copy()
    low, high = np.full(state.shape, -np.inf), np.full(state.shape, np.inf)
    for k in np.flatnonzero(state > NOWHERE):
        try:
            given = [arb(float(a[k])).union(arb(float(b[k]))) for a, b in _pairs(ends)]
            found = head(work(*given))
            found = found * (arb(180) / arb.pi()) if turn else found
        except OutsideDomain:
            state[k] = NOWHERE
            continue
        if found.is_finite():
            low[k] = np.nextafter(float(found.lower()), -np.inf)
            high[k] = np.nextafter(float(found.upper()), np.inf)
        else:
            state[k] = SOMEWHERE
    return Boxes(low.reshape(shape), high.reshape(shape), state.reshape(shape))


def _pairs(ends: list[Floats]) -> list[tuple[Floats, Floats]]:
    return list(zip(ends[::2], ends[1::2], strict=True))


_OPERATIONS: dict[str, Operation] = {
    "add": add,
    "subtract": subtract,
    "multiply": multiply,
    "negate": _negate,
    "divide": _divide,
    "power": _power,
    "given": _given,
}
