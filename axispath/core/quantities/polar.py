"""Angles of complex numbers, and numbers on the unit circle: exact at multiples of 15° and 18°."""

from __future__ import annotations

from fractions import Fraction

from flint import acb, arb

from axispath.core.quantities.scalars import (
    TooWide,
    absolute,
    complex_of,
    divide,
    known,
    multiply,
    real_ball,
    to_power,
)
from axispath.core.quantities.surds import IMAGINARY, PI, ZERO, NotExact, Surd
from axispath.core.quantities.values import NoResult, Scalar, Undefined

HALF_TURN = 180


def _root(value: Fraction | int) -> Surd:
    return Surd.of(value).square_root()


_QUARTER = Surd.of(Fraction(1, 4))
_SINES = {
    0: ZERO,
    15: (_root(6) - _root(2)) * _QUARTER,
    18: (_root(5) - Surd.of(1)) * _QUARTER,
    30: Surd.of(Fraction(1, 2)),
    45: _root(Fraction(1, 2)),
    54: (_root(5) + Surd.of(1)) * _QUARTER,
    60: _root(Fraction(3, 4)),
    75: (_root(6) + _root(2)) * _QUARTER,
    90: Surd.of(1),
}
"""Sines by whole degrees up to 90, where they are sums of square roots."""
_TANGENTS = {
    angle: sine / _SINES[90 - angle]
    for angle, sine in _SINES.items()
    if angle < 90 and 90 - angle in _SINES
}


def exact_sine(degrees: Fraction) -> Surd:
    """The sine of an angle in degrees. Raises NotExact where it is no sum of square roots."""
    angle = degrees % 360
    sign = 1
    if angle >= HALF_TURN:
        angle, sign = angle - HALF_TURN, -1
    angle = min(angle, HALF_TURN - angle)
    if angle.denominator != 1 or int(angle) not in _SINES:
        raise NotExact
    sine = _SINES[int(angle)]
    return sine if sign > 0 else -sine


def exact_angle(value: Surd, table: str) -> Fraction:
    """The angle in degrees whose sine or tangent this is, −90 to 90. Raises NotExact."""
    known_ones = _SINES if table == "sine" else _TANGENTS
    for angle, found in known_ones.items():
        if found == value:
            return Fraction(angle)
        if found == -value:
            return Fraction(-angle)
    raise NotExact


def in_degrees(angle: Surd, degrees: bool) -> Fraction:
    """An exact angle in degrees. Raises NotExact where it is no fraction of a turn."""
    if degrees:
        value = angle.rational
        if value is None:
            raise NotExact
        return value
    if angle.is_zero:
        return Fraction(0)
    if len(angle.terms) != 1 or angle.terms[0][0] != (0, 1, 1):
        raise NotExact
    return angle.terms[0][1] * HALF_TURN


def of_degrees(angle: Fraction, degrees: bool) -> Surd:
    """An angle given in degrees, in the unit that is wanted."""
    return Surd.of(angle) if degrees else PI * Surd.of(angle / HALF_TURN)


def turned(angle: Scalar, degrees: bool) -> Scalar:
    """cos + i sin of a real angle."""
    if isinstance(angle, Surd) and angle.is_real:
        try:
            turn = in_degrees(angle, degrees)
            return exact_sine(turn + 90) + IMAGINARY * exact_sine(turn)
        except NotExact:
            pass
    ball = real_ball(angle, "an angle")
    sine, cosine = (ball / HALF_TURN).sin_cos_pi() if degrees else ball.sin_cos()
    return acb(cosine, sine)


def angle_of(z: Scalar, degrees: bool) -> Scalar:
    """The argument, above −180° and up to 180°; 0 has none."""
    if isinstance(z, Undefined):
        return z
    if isinstance(z, Surd):
        if z.is_zero:
            return Undefined("0 has no angle")
        try:
            return of_degrees(_exact_argument(z), degrees)
        except NotExact:
            pass
    ball = complex_of(known(z))
    if ball.imag.contains(0) and not (ball.imag.is_zero() or ball.real > 0):
        raise TooWide  # the cut of the angle runs through the enclosure
    angle = ball.arg()
    return angle * HALF_TURN / arb.pi() if degrees else angle


def _exact_argument(z: Surd) -> Fraction:
    real, imaginary = z.parts
    if real.is_zero:
        return Fraction(90 * imaginary.sign())
    angle = exact_angle(imaginary / real, "tangent")
    if real.sign() > 0:
        return angle
    return angle + HALF_TURN if imaginary.sign() >= 0 else angle - HALF_TURN


def principal_root(z: Scalar, n: int) -> Scalar:
    """The n-th root with a share of the angle: the one nearest to the positive real axis."""
    if n < 1:
        raise NoResult("the number of roots is at least 1")
    if isinstance(z, Surd) and z.is_zero:
        return z
    size = to_power(absolute(z), Surd.of(Fraction(1, n)))
    share = divide(angle_of(z, degrees=True), Surd.of(n))
    return multiply(size, turned(share, degrees=True))
