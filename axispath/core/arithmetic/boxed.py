"""Programs and the functions of the catalogue on whole arrays of boxes.

Monotone stretches are taken at their ends; a function without a rule here is enclosed one box after
the other by its balls.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axispath.core import catalogue
from axispath.core.arithmetic.boxes import (
    LIBRARY,
    NOWHERE,
    OPERATIONS,
    SOMEWHERE,
    Boxes,
    Floats,
    choose,
    least,
    multiply,
    odd_root,
    of_ball,
    of_number,
    outwards,
    restrict,
    single,
    whole_power,
)
from axispath.core.arithmetic.program import Bound, Operation, Program, Step, bind
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain, head

FAR = 1e9  # beyond which sine and cosine are just between −1 and 1


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


def operation(step: Step, unit: AngleUnit) -> Operation:
    """How this arithmetic carries out a step."""
    detail = step.detail
    match step.operation:
        case "number":
            return lambda: of_number(detail)
        case "constant":
            return lambda: of_ball(catalogue.CONSTANTS[detail].ball())
        case "whole power":
            return lambda base: whole_power(base, detail)
        case "root power":
            return lambda base: whole_power(odd_root(base, detail.denominator), detail.numerator)
        case "undefined":
            return lambda: single(np.nan, np.nan, NOWHERE)
        case "choose":
            return lambda left, right, value, rest: choose(detail, left, right, value, rest)
        case "restrict":
            return lambda value, x, end: restrict(detail[0], value, x, end)
        case "apply":
            return _applied(catalogue.ENTRIES[detail], detail, unit)
        case "integral":  # of which nothing is said on boxes
            return lambda low, high: single(-np.inf, np.inf, SOMEWHERE)
    return OPERATIONS[step.operation]


def _rising(work: Callable[[Floats], Floats], a: Boxes) -> Boxes:
    return outwards(work(a.low), work(a.high), a.state, LIBRARY)


def _within(a: Boxes, low: float, high: float, closed: bool = True) -> Boxes:
    """What lies in a domain; the state tells whether that is all."""
    beyond = (a.low > high) | (a.high < low) if closed else (a.low >= high) | (a.high <= low)
    over = (a.low < low) | (a.high > high) if closed else (a.low <= low) | (a.high >= high)
    state = np.where(over, np.minimum(a.state, SOMEWHERE), a.state)
    state = np.where(beyond, NOWHERE, state).astype(np.int8)
    return Boxes(np.clip(a.low, low, high), np.clip(a.high, low, high), state)


def _wave(work: Callable[[Floats], Floats], top: float, bottom: float) -> Callable[[Boxes], Boxes]:
    """The sine or cosine, which is largest and smallest in a place and whole turns from it."""

    def carried_out(a: Boxes) -> Boxes:
        first, last = work(a.low), work(a.high)
        found = outwards(np.minimum(first, last), np.maximum(first, last), a.state, LIBRARY)
        wide = np.maximum(np.abs(a.low), np.abs(a.high))
        far = ~(wide < FAR)
        error = LIBRARY + LIBRARY * np.where(far, 0.0, wide)
        low = np.where(_passes(a, bottom, error) | far, -1.0, np.maximum(found.low, -1.0))
        high = np.where(_passes(a, top, error) | far, 1.0, np.minimum(found.high, 1.0))
        return Boxes(low, high, a.state)

    return carried_out


def _passes(a: Boxes, place: float, error: Floats) -> NDArray[np.bool_]:
    """Whether an interval may hold a place, or one a whole number of turns from it."""
    turn = 2 * np.pi
    k = np.ceil((a.low - error - place) / turn)
    return place + k * turn <= a.high + error


def _tangent(a: Boxes) -> Boxes:
    wide = np.maximum(np.abs(a.low), np.abs(a.high))
    error = LIBRARY + LIBRARY * np.minimum(wide, FAR)
    k = np.ceil((a.low - error - np.pi / 2) / np.pi)
    pole = (np.pi / 2 + k * np.pi <= a.high + error) | ~(wide < FAR)
    first, last = np.tan(a.low), np.tan(a.high)
    # Close to a pole an error of the argument is magnified by the slope.
    slope = 1 + np.maximum(first * first, last * last)
    low, high = first - error * slope, last + error * slope
    found = outwards(low, high, a.state)
    state = np.where(pole, np.minimum(a.state, SOMEWHERE), a.state).astype(np.int8)
    return Boxes(np.where(pole, -np.inf, found.low), np.where(pole, np.inf, found.high), state)


def _logarithm(work: Callable[[Floats], Floats]) -> Callable[[Boxes], Boxes]:
    def carried_out(a: Boxes) -> Boxes:
        part = _within(a, 0.0, np.inf, closed=False)
        found = outwards(work(part.low), work(part.high), part.state, LIBRARY)
        return Boxes(found.low - LIBRARY, found.high + LIBRARY, found.state)

    return carried_out


def _root(a: Boxes) -> Boxes:
    part = _within(a, 0.0, np.inf)
    found = outwards(np.sqrt(part.low), np.sqrt(part.high), part.state)
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
    found = outwards(np.exp(a.low), np.exp(a.high), a.state)
    error = LIBRARY * (1 + wide)
    low = np.maximum(found.low - error * np.abs(found.low), 0.0)
    return Boxes(low, found.high + error * found.high, a.state)


def _inverse(work: Callable[[Floats], Floats], falling: bool) -> Callable[[Boxes], Boxes]:
    def carried_out(a: Boxes) -> Boxes:
        part = _within(a, -1.0, 1.0)
        first, last = work(part.low), work(part.high)
        if falling:
            first, last = last, first
        return outwards(first - LIBRARY, last + LIBRARY, part.state, LIBRARY)

    return carried_out


def _smaller(*parts: Boxes) -> Boxes:
    low, high = parts[0].low, parts[0].high
    for part in parts[1:]:
        low, high = np.minimum(low, part.low), np.minimum(high, part.high)
    return Boxes(low, high, least(*parts))


def _larger(*parts: Boxes) -> Boxes:
    low, high = parts[0].low, parts[0].high
    for part in parts[1:]:
        low, high = np.maximum(low, part.low), np.maximum(high, part.high)
    return Boxes(low, high, least(*parts))


_RULES: dict[str, Callable[..., Boxes]] = {
    "sin": _wave(np.sin, np.pi / 2, -np.pi / 2),
    "cos": _wave(np.cos, 0.0, np.pi),
    "tan": _tangent,
    "arcsin": _inverse(np.arcsin, False),
    "arccos": _inverse(np.arccos, True),
    "arctan": lambda a: _rising(np.arctan, a),
    "exp": _exponential,
    "ln": _logarithm(np.log),
    "log": _logarithm(np.log10),
    "sqrt": _root,
    "cbrt": lambda a: odd_root(a, 3),
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
_DEGREE = of_ball(arb.pi() / 180)
_TURN = of_ball(180 / arb.pi())


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
    state = np.atleast_1d(least(*parts)).copy()
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
