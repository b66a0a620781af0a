"""Conics by their equations: what they are called, and their centre, axes, foci and asymptotes.

The coefficients of A x² + B x y + C y² + D x + E y + F are exact fractions, so that the kind is
decided exactly, by B² − 4AC and the determinant of the form (J. D. Lawrence 1972, A Catalog of
Special Plane Curves, chapter 3).
"""

from __future__ import annotations

import math
from fractions import Fraction

from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.language.numbers import MINUS, decimal


def described(found: Coefficients, digits: int) -> str:
    """What a conic is, with its measures; empty where it is none that has a name here."""
    a, b, c = (found.get(k, Fraction(0)) for k in ((2, 0), (1, 1), (0, 2)))
    d, e, f = (found.get(k, Fraction(0)) for k in ((1, 0), (0, 1), (0, 0)))
    if not (a or b or c):
        return _line(d, e, f, digits)
    form = a * (4 * c * f - e * e) - b * (2 * b * f - d * e) / 2 + d * (b * e - 2 * c * d) / 2
    kind = b * b - 4 * a * c
    if kind:
        return _central(a, b, c, d, e, f, form, kind, digits)
    return _parabola(a, b, c, d, e, f, digits) if form else ""


def _line(d: Fraction, e: Fraction, f: Fraction, digits: int) -> str:
    if not e and d:
        return f"a vertical line, x = {_written(-f / d, digits)}"
    if not d and e:
        return f"a level line, y = {_written(-f / e, digits)}"
    return f"a straight line of slope {_written(-d / e, digits)}" if e else ""


def _central(
    a: Fraction,
    b: Fraction,
    c: Fraction,
    d: Fraction,
    e: Fraction,
    f: Fraction,
    form: Fraction,
    kind: Fraction,
    digits: int,
) -> str:
    x, y = (2 * c * d - b * e) / kind, (2 * a * e - b * d) / kind
    centre = f"({_written(x, digits)}, {_written(y, digits)})"
    level = f + (d * x + e * y) / 2  # of the equation at its centre
    if level == 0:
        return f"two lines that cross at {centre}" if kind > 0 else f"the single point {centre}"
    if a == c and not b:
        square = -level / a
        return f"a circle, centre {centre}, radius {_root(square, digits)}" if square > 0 else ""
    # The squares of the half-axes, along the directions of the form.
    spread = math.hypot(float(a - c), float(b))
    ends = [(float(a + c) + sign * spread) / 2 for sign in (-1, 1)]
    angle = math.atan2(float(b), float(a - c)) / 2
    if not b:
        exact = sorted((-level / a, -level / c), reverse=True)
        lengths = [_root(abs(value), digits) for value in exact]
        squares = [float(value) for value in exact]
        along = 0.0 if -level / a >= -level / c else math.pi / 2
    else:
        squares = sorted((-float(level) / end for end in ends), reverse=True)
        lengths = [decimal(math.sqrt(abs(value)), digits) for value in squares]
        along = angle if -float(level) / ends[1] >= -float(level) / ends[0] else angle + math.pi / 2
    if squares[0] < 0:
        return ""
    reach = math.sqrt(squares[0] - squares[1])
    foci = _pair(x, y, reach, along, digits)
    if kind < 0:
        return f"an ellipse, centre {centre}, half-axes {lengths[0]} and {lengths[1]}, foci {foci}"
    lines = _asymptotes(a, b, c, kind, x, y, digits)
    measures = f"half-axes {lengths[0]} and {lengths[1]}, foci {foci}, asymptotes {lines}"
    return f"a hyperbola, centre {centre}, {measures}"


def _asymptotes(
    a: Fraction, b: Fraction, c: Fraction, kind: Fraction, x: Fraction, y: Fraction, digits: int
) -> str:
    """The lines through the centre on which the squares alone add up to 0."""
    if not c:
        return f"x = {_written(x, digits)} and {_through(-a / b, x, y, digits)}"
    root = math.isqrt(kind.numerator), math.isqrt(kind.denominator)
    exact = root[0] ** 2 == kind.numerator and root[1] ** 2 == kind.denominator
    width = Fraction(*root) if exact else Fraction(math.sqrt(kind))
    slopes = [(-b + sign * width) / (2 * c) for sign in (-1, 1)]
    return " and ".join(_through(slope, x, y, digits) for slope in sorted(slopes))


def _through(slope: Fraction, x: Fraction, y: Fraction, digits: int) -> str:
    """A line by its slope and a point on it, as y = m x + c."""
    level = y - slope * x
    shown = _written(abs(level), digits)
    if not slope:
        return f"y = {_written(level, digits)}"
    factor = {1: "", -1: MINUS}.get(slope, f"{_written(slope, digits)} ")  # type: ignore[call-overload]
    if shown == "0":
        return f"y = {factor}x"
    return f"y = {factor}x {MINUS if level < 0 else '+'} {shown}"


def _parabola(
    a: Fraction, b: Fraction, c: Fraction, d: Fraction, e: Fraction, f: Fraction, digits: int
) -> str:
    if b:
        return "a parabola"
    if a:  # a x² + d x + e y + f = 0
        x = -d / (2 * a)
        y = (d * d / (4 * a) - f) / e
        focus = x, y - e / (4 * a)
    else:
        y = -e / (2 * c)
        x = (e * e / (4 * c) - f) / d
        focus = x - d / (4 * c), y
    places = [f"({_written(p, digits)}, {_written(q, digits)})" for p, q in ((x, y), focus)]
    return f"a parabola, vertex {places[0]}, focus {places[1]}"


def _pair(x: Fraction, y: Fraction, reach: float, angle: float, digits: int) -> str:
    across, upwards = reach * math.cos(angle), reach * math.sin(angle)
    noise = 1e-14 * (1 + abs(reach))
    places = []
    for sign in (-1, 1):
        p, q = float(x) + sign * across, float(y) + sign * upwards
        places.append(f"({decimal(p, digits, noise)}, {decimal(q, digits, noise)})")
    return " and ".join(places)


def _written(value: Fraction, digits: int) -> str:
    """A fraction as such where that is short, else its decimal."""
    if value.denominator == 1 and abs(value.numerator) < 10**digits:
        return str(value).replace("-", MINUS)
    if value.denominator <= 64 and value.denominator not in (2, 4, 5, 8, 10, 20, 25, 40, 50):
        return str(value).replace("-", MINUS)
    return decimal(float(value), digits)


def _root(square: Fraction, digits: int) -> str:
    """√ of a fraction: exactly where that is a fraction, else with its root sign."""
    top, bottom = math.isqrt(square.numerator), math.isqrt(square.denominator)
    if top * top == square.numerator and bottom * bottom == square.denominator:
        return _written(Fraction(top, bottom), digits)
    shown = decimal(math.sqrt(square), digits)
    return f"√{square} = {shown}" if square.denominator == 1 else shown
