"""Curves F(x, y) = 0 of polynomials next to a point where they are not smooth, exactly.

Within a circle about the point on which, and inside of which, no part of the curve touches a
circle about it, every branch goes straight out: there are as many half-branches as zeros on that
circle. How small it has to be tell the resultants of F and x F_y − y F_x (J. Milnor 1968, Singular
Points of Complex Hypersurfaces, § 2; D. Cox, J. Little and D. O'Shea 2015, Ideals, Varieties, and
Algorithms, chapter 3).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from flint import arb, fmpq, fmpq_mpoly, fmpq_poly

from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.catalogue.balls import precision
from axispath.core.plane.polynomials import RING, each_once, in_ring

DEGREE = 12  # of polynomials that are looked at
BITS = 200
CLOSER = Fraction(1, 2**12)  # of the circle, on which directions are compared


@dataclass(frozen=True, slots=True)
class Branches:
    """How a curve is at a point: ``half`` branches end there. ``sharp`` where two do, in one and
    the same direction: a cusp. Where two go on straight, ``tangent`` is (0, 1) for an upright line,
    (1, 0) for a level one, (1, 1) for any other, and None where that is not known.
    """

    half: int
    sharp: bool
    tangent: tuple[int, int] | None = None


def branches_at(found: Coefficients, x: Fraction, y: Fraction) -> Branches | None:
    """The branches of a curve at a point of it; None where that would take too long."""
    if max(i + j for i, j in found) > DEGREE:
        return None
    part, _ = each_once(_moved(found, x, y))
    turning = _turning(part)
    # Whole circles about the point do not come near it.
    common = part if turning.is_zero() else part.gcd(turning)
    if not common.is_constant():
        part = part // common
        turning = _turning(part)
    if part.is_constant():
        return Branches(0, False)
    radius = _radius(part, turning)
    angles = _zeros_on_circle(part, radius)
    if len(angles) != 2:
        return Branches(len(angles), False)
    one, other = _zeros_on_circle(part, radius * CLOSER)
    sharp = math.cos(one - other) > 0
    return Branches(2, sharp, None if sharp else _tangent(part))


def _tangent(part: fmpq_mpoly) -> tuple[int, int] | None:
    """The direction of the only line that the lowest powers vanish on, with real coefficients."""
    least = min(int(i + j) for i, j in part.monoms())
    lowest = {int(j): c for (i, j), c in part.to_dict().items() if int(i + j) == least}
    slopes = fmpq_poly([lowest.get(j, fmpq(0)) for j in range(least + 1)])
    upright = slopes.degree() < least
    with precision(BITS):
        roots = _real_roots(slopes) if slopes.degree() > 0 else []
    if len(roots) + upright != 1:
        return None
    if upright:
        return (0, 1)
    return (1, 0) if slopes(0) == 0 else (1, 1)


def alone_within(found: Coefficients, letter: str, x: Fraction, y: Fraction) -> Fraction | None:
    """A distance from a point of a curve within which its slope along ``letter`` is 0 on it at most
    at the point itself; None where that would take too long, or it is 0 on a whole part of it.
    """
    if max(i + j for i, j in found) > DEGREE:
        return None
    moved = _moved(found, x, y)
    slope = moved.derivative(letter)
    if slope.is_zero() or not moved.gcd(slope).is_constant():
        return None
    return _radius(moved, slope)


def _moved(found: Coefficients, x: Fraction, y: Fraction) -> fmpq_mpoly:
    """The polynomial with a point in the place of 0."""
    xs, ys = (
        RING.from_dict({powers: fmpq(1), (0, 0): fmpq(at.numerator, at.denominator)})
        for powers, at in (((1, 0), x), ((0, 1), y))
    )
    return in_ring(found).compose(xs, ys)


def _turning(part: fmpq_mpoly) -> fmpq_mpoly:
    """What is 0 where the curve touches a circle about 0."""
    x, y = RING.gens()
    return x * part.derivative("y") - y * part.derivative("x")


def _radius(part: fmpq_mpoly, turning: fmpq_mpoly) -> Fraction:
    """How far from 0 two polynomials without a common factor have no common zero but 0 itself."""
    least = Fraction(1)
    for kept, gone in ((0, "y"), (1, "x")):
        rest = part.resultant(turning, gone)
        line: dict[int, fmpq] = {}
        for powers, value in rest.to_dict().items():
            line[int(powers[kept])] = value
        lowest = min(line)
        ordered = [line.get(k, fmpq(0)) for k in range(lowest, max(line) + 1)]
        with precision(BITS):
            for root in _real_roots(fmpq_poly(ordered)):
                near = float(abs(root).lower())
                least = min(least, Fraction(math.ldexp(0.5, math.frexp(near)[1] - 2)))
    return least


def _zeros_on_circle(part: fmpq_mpoly, radius: Fraction) -> list[float]:
    """The angles at which a curve meets a circle about 0, each once.

    With u = tan(φ/2) the circle is ((1 − u²), 2u) / (1 + u²), and what is 0 a polynomial of u.
    """
    r = fmpq(radius.numerator, radius.denominator)
    degree = part.total_degree()
    across, up, below = fmpq_poly([1, 0, -1]), fmpq_poly([0, 2]), fmpq_poly([1, 0, 1])
    total, behind = fmpq_poly([0]), fmpq(0)
    for (i, j), value in part.to_dict().items():
        i, j = int(i), int(j)
        total += value * r ** (i + j) * across**i * up**j * below ** (degree - i - j)
        if not j:
            behind += value * (-r) ** i
    angles = [math.pi] if behind == 0 else []
    with precision(BITS):
        return [*angles, *(2 * math.atan(float(root.mid())) for root in _real_roots(total))]


def _real_roots(found: fmpq_poly) -> list[arb]:
    """The real roots of a polynomial, each once."""
    whole = found.numer()
    slope = whole.derivative()
    whole = whole // whole.gcd(slope) if slope else whole
    roots: Any = whole.complex_roots()
    return [root.real for root, _ in roots if root.imag.contains(0)]
