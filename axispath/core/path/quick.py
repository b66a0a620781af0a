"""Landmarks in floating point, for as long as something moves; nothing here is proved."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.floats import FloatFunction
from axispath.core.arithmetic.places import uneven
from axispath.core.search.landmark import Certainty, Kind, Landmark, Method, Path

SAMPLES = 600
HALVINGS = 26  # of a 600th of the interval: ten digits of it
THIRDS = 12  # then a parabola; a turning point is known to half the digits only
Floats = NDArray[np.float64]


def quick_path(function: FloatFunction, low: float, high: float) -> Path:
    """Sign changes and turning points that a sampling sees. May miss some."""
    x = low + (high - low) * uneven(SAMPLES)
    y = function(x)
    with np.errstate(all="ignore"):
        marks = [*_zeros(function, x, y), *_turning(function, x, y)]
    marks.sort(key=lambda mark: mark.x)
    return Path(low, high, tuple(marks), (), (), (), (), proven=False)


def _mark(kind: Kind, x: float, y: float) -> Landmark:
    return Landmark(kind, float(x), float(y), Certainty.APPROACHED, method=Method.SCAN)


def _zeros(function: FloatFunction, x: Floats, y: Floats) -> list[Landmark]:
    at = np.flatnonzero(np.sign(y[:-1]) * np.sign(y[1:]) < 0)
    low, high, below = x[at], x[at + 1], y[at]
    height = np.abs(y[at]) + np.abs(y[at + 1])
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        same = np.sign(function(middle)) == np.sign(below)
        low, high = np.where(same, middle, low), np.where(same, high, middle)
    left, right = function(low), function(high)
    found = low - left * (high - low) / (right - left)  # straight as the curve is by now
    found = np.where((found >= low) & (found <= high), found, (low + high) / 2)
    # At a pole or a jump the signs change too, but the values do not become small.
    small = np.abs(function(found)) <= 1e-6 * height
    exact = x[np.flatnonzero(y == 0)]
    return [_mark(Kind.ZERO, place, 0.0) for place in (*found[small], *exact[:50])]


def _turning(function: FloatFunction, x: Floats, y: Floats) -> list[Landmark]:
    before, here, after = y[:-2], y[1:-1], y[2:]
    up = np.flatnonzero((here > before) & (here >= after)) + 1
    down = np.flatnonzero((here < before) & (here <= after)) + 1
    at = np.concatenate([up, down])
    sign = np.concatenate([np.ones(len(up)), -np.ones(len(down))])
    low, high = x[at - 1], x[at + 1]
    for _ in range(THIRDS):
        third = (high - low) / 3
        left, right = low + third, high - third
        values = function(np.concatenate([left, right]))
        rises = sign * values[: len(at)] < sign * values[len(at) :]
        low, high = np.where(rises, left, low), np.where(rises, high, right)
    place = _vertex(function, low, high)
    height = function(place)
    calm = np.abs(height - y[at]) <= np.abs(y[at] - y[at - 1]) + np.abs(y[at] - y[at + 1])
    kinds = [Kind.MAXIMUM] * len(up) + [Kind.MINIMUM] * len(down)
    return [
        _mark(kind, p, h) for kind, p, h, ok in zip(kinds, place, height, calm, strict=True) if ok
    ]


def _vertex(function: FloatFunction, low: Floats, high: Floats) -> Floats:
    """Where the parabola through the ends and the middle of each bracket turns."""
    middle, half = (low + high) / 2, (high - low) / 2
    values = function(np.concatenate([low, middle, high])).reshape(3, -1)
    bend = values[0] - 2 * values[1] + values[2]
    shift = half * (values[0] - values[2]) / (2 * bend)
    found: Floats = middle + np.where(np.abs(shift) <= half, shift, 0.0)
    return found
