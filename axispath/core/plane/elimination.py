"""All common points of two polynomials of the plane, exactly, however they touch.

Along a direction in which both keep their degree, the resultant is 0 over just the common points;
over a root of it the first subresultant that does not vanish there is the greatest common divisor
of both along the line, and where that is a power of one linear factor there is a single common
point on the line, and it is real (D. Cox, J. Little and D. O'Shea 2015, Ideals, Varieties, and
Algorithms, chapter 3; S. Basu, R. Pollack and M.-F. Roy 2006, Algorithms in Real Algebraic
Geometry, chapters 4 and 8). Directions are tried until each line holds one point at most.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from flint import arb, fmpq, fmpq_mat, fmpq_mpoly, fmpq_poly

from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.catalogue.balls import precision
from axispath.core.plane.polynomials import RING, in_ring, value_at

MOST = 36  # of the product of both degrees
DIRECTIONS = (0, 1, -1, 2, -2, 3, -3, 5, -5, 7)
BITS = 400
GROWTH = 2  # of the bits, where more are wanted
MOST_BITS = 6400
LOOKS = 16  # along each side of a rectangle, for a curve in it


Columns = tuple[list[fmpq_poly], list[fmpq_poly]]
"""Two polynomials by the powers of y, each with a polynomial of x."""


@dataclass(frozen=True, slots=True)
class CommonPoint:
    """A point at which two polynomials are 0, as the nearest floats and how far they may be off."""

    x: float
    y: float
    radius: float
    y_radius: float


def common_points(first: Coefficients, second: Coefficients) -> tuple[CommonPoint, ...] | None:
    """All real common points; None where both have a whole curve in common, or it is too much."""
    if not first or not second:
        return None
    f, g = (in_ring(part) for part in (first, second))
    if f.total_degree() * g.total_degree() > MOST or not f.gcd(g).is_constant():
        return None
    if f.is_constant() or g.is_constant():
        return ()
    for step in DIRECTIONS:
        found = _along(f, g, step)
        if found is not None:
            return found
    return None


def seen_within(curve: Coefficients, rectangle: tuple[float, float, float, float]) -> bool:
    """Whether a curve surely has points in a rectangle: its polynomial has both signs there."""
    left, right, bottom, top = (Fraction(end) for end in rectangle)
    signs = set()
    for i, j in itertools.product(range(LOOKS + 1), repeat=2):
        x, y = left + (right - left) * i / LOOKS, bottom + (top - bottom) * j / LOOKS
        value = value_at(curve, x, y)
        signs.add((value > 0) - (value < 0))
        if {1, -1} <= signs:
            return True
    return False


def _along(f: fmpq_mpoly, g: fmpq_mpoly, step: int) -> tuple[CommonPoint, ...] | None:
    """The common points by lines x + step y = u; None where a line holds several."""
    x, y = RING.gens()
    turned = [part.compose(x - step * y, y) for part in (f, g)]
    columns = _by_y(turned[0]), _by_y(turned[1])
    if any(len(column) > 1 and column[-1].degree() > 0 for column in columns):
        return None  # a highest power of y that may vanish
    if any(len(column) == 1 for column in columns):
        return None
    found = []
    for factor in _factors(_determinant(columns, 0, 0)):
        own = _on_lines(factor, columns, step)
        if own is None:
            return None
        found += own
    return tuple(sorted(found, key=lambda one: (one.x, one.y)))


def _by_y(part: fmpq_mpoly) -> list[fmpq_poly]:
    """The coefficients of the powers of y, from the lowest, as polynomials of x."""
    rows: dict[int, dict[int, fmpq]] = {}
    for powers, value in part.to_dict().items():
        rows.setdefault(int(powers[1]), {})[int(powers[0])] = value
    return [
        fmpq_poly([row.get(k, fmpq(0)) for k in range(max(row) + 1)] if row else [0])
        for row in (rows.get(j, {}) for j in range(max(rows) + 1))
    ]


def _determinant(columns: Columns, order: int, power: int) -> fmpq_poly:
    """The coefficient of y^power in the subresultant of an order, by values and interpolation."""
    f, g = columns
    m, n = len(f) - 1, len(g) - 1
    rows = m + n - 2 * order
    degree = sum(max((c.degree() for c in part), default=0) * k for part, k in ((f, n), (g, m)))
    places = [fmpq(k) for k in range(max(degree, 0) + 1)]
    values = []
    for at in places:
        a, b = ([coefficient(at) for coefficient in part] for part in (f, g))
        entries = []
        for part, top, times in ((a, m, n - order), (b, n, m - order)):
            for shift in range(times - 1, -1, -1):
                # Columns are powers of y from the highest; the last one that of ``power``.
                powers = [*range(m + n - order - 1, order, -1), power]
                entries.append(
                    [part[p - shift] if 0 <= p - shift <= top else fmpq(0) for p in powers]
                )
        values.append(fmpq_mat(entries).det() if rows else fmpq(1))
    return _through(places, values)


def _through(places: list[fmpq], values: list[fmpq]) -> fmpq_poly:
    """The polynomial through points, by Newton's divided differences."""
    table = list(values)
    for k in range(1, len(places)):
        for i in range(len(places) - 1, k - 1, -1):
            table[i] = (table[i] - table[i - 1]) / (places[i] - places[i - k])
    found = fmpq_poly([0])
    for at, value in zip(reversed(places), reversed(table), strict=True):
        found = found * fmpq_poly([-at, 1]) + fmpq_poly([value])
    return found


def _factors(resultant: fmpq_poly) -> Iterator[fmpq_poly]:
    _, factors = resultant.numer().factor()
    for factor, _ in factors:
        if factor.degree() > 0:
            yield fmpq_poly(factor.coeffs())


def _on_lines(factor: fmpq_poly, columns: Columns, step: int) -> list[CommonPoint] | None:
    """The common points over the real roots of one factor of the resultant."""
    least = min(len(column) for column in columns) - 1
    order = next((k for k in range(1, least) if _determinant(columns, k, k) % factor), least)
    if order < least:
        parts = [_determinant(columns, order, power) for power in (order, order - 1)]
        rest = [_determinant(columns, order, power) for power in range(order - 1)]
        divisor = [*rest, parts[1], parts[0]]
    else:  # the lesser one divides the other there
        divisor = min(columns, key=len)
    if not _is_power(divisor, factor):
        return None
    top, below = divisor[order], divisor[order - 1]
    return list(_places(factor, top, below, order, step))


def _is_power(divisor: list[fmpq_poly], factor: fmpq_poly) -> bool:
    """Whether c_n yⁿ + … is c_n (y − y₀)ⁿ over each root of a factor."""
    order = len(divisor) - 1
    top, below = divisor[order], divisor[order - 1]
    for power in range(order - 1):
        off = order - power
        wanted = math.comb(order, power) * below**off
        if (divisor[power] * top ** (off - 1) * fmpq(order) ** off - wanted) % factor:
            return False
    return True


def _places(
    factor: fmpq_poly, top: fmpq_poly, below: fmpq_poly, order: int, step: int
) -> Iterator[CommonPoint]:
    bits = BITS
    while True:
        with precision(bits):
            found = []
            roots: Any = factor.numer().complex_roots()
            for root, _ in roots:
                if root.imag != 0:
                    continue
                u = root.real
                y = -_value(below, u) / (order * _value(top, u))
                found.append((u - step * y, y))
            if all(part.is_finite() and _fine(part) for both in found for part in both):
                break
        bits *= GROWTH
        if bits > MOST_BITS:
            raise ArithmeticError("a root that no precision tells apart")
    for x, y in found:
        (across, radius), (up, y_radius) = _near(x), _near(y)
        yield CommonPoint(across, up, radius, y_radius)


def _value(part: fmpq_poly, at: arb) -> arb:
    total = arb(0)
    for coefficient in reversed(part.coeffs()):
        total = total * at + arb(coefficient)
    return total


def _fine(part: arb) -> bool:
    return bool(part.rad() <= abs(part.mid()) * arb(2) ** -80 + arb(2) ** -300)


def _near(part: arb) -> tuple[float, float]:
    middle = float(part.mid())
    return middle, float(abs(part - arb(middle)).upper())
