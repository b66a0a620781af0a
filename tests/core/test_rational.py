"""Zeros of quotients of polynomials: as they were put in, and by mpmath at 50 digits."""

import math
from fractions import Fraction

import mpmath
from hypothesis import given, settings
from hypothesis import strategies as st

from axispath.core.arithmetic.guessing import MOST_PARTS, fraction_near
from axispath.core.search.landmark import Kind
from tests.case import Case
from tests.core.helpers import path

ROOT = st.integers(-7, 7)


def product(roots):
    """A product of linear factors as it is typed."""
    factors = [f"(x - {root})" if root >= 0 else f"(x + {-root})" for root in roots]
    return "".join(factors) or "1"


class Rational(Case):
    @settings(max_examples=80, deadline=None)
    @given(st.lists(ROOT, max_size=5), st.lists(ROOT, max_size=3))
    def test_zeros_and_poles_are_those_put_in(self, above, below):
        found = path(f"{product(above)}/({product(below)})", -8.5, 8.5)
        zeros, poles, holes = set(), set(), set()
        for root in {*above, *below}:
            order = above.count(root) - below.count(root)
            (zeros if order > 0 else poles if order < 0 else holes).add(root)
            if order > 0 and root in below:
                zeros.discard(root)
                holes.add(root)
        self.assertTrue(found.complete)
        self.assertEqual({mark.x for mark in found.of(Kind.ZERO)}, zeros)
        self.assertEqual({mark.x for mark in found.of(Kind.POLE)}, poles)
        self.assertEqual({mark.x for mark in found.of(Kind.HOLE)}, holes)

    @settings(max_examples=80, deadline=None)
    @given(st.lists(st.integers(-9, 9), min_size=3, max_size=7))
    def test_turning_points_of_polynomials(self, coefficients):
        """Against the zeros of the slope by mpmath, simple ones."""
        if coefficients[0] == 0:
            return
        degree = len(coefficients) - 1
        line = " + ".join(f"({c})x^{degree - k}" for k, c in enumerate(coefficients))
        found = path(line, -50, 50)
        slope = [c * (degree - k) for k, c in enumerate(coefficients[:-1])]
        with mpmath.workdps(50):
            roots = mpmath.polyroots(slope, maxsteps=500, extraprec=400) if degree > 1 else []
            real = [root.real for root in roots if abs(root.imag) < mpmath.mpf(10) ** -20]
            apart = [min((abs(a - b) for b in roots if b is not a), default=1) for a in roots]
        if apart and min(apart) < 1e-6:
            return  # zeros of higher order: mpmath has few digits of them
        turning = [mark.x for mark in found.of(Kind.MAXIMUM, Kind.MINIMUM)]
        self.assertEqual(len(turning), len(real), line)
        for x, root in zip(turning, sorted(real), strict=True):
            self.assertLess(abs(x - float(root)), 1e-12 * (1 + abs(x)))

    def test_what_touches_and_what_is_cut_away(self):
        found = path("(x - 1)^2 (x + 2)^3/(x + 2)", -5, 5)
        self.assertEqual([mark.x for mark in found.of(Kind.ZERO)], [1])
        self.assertEqual([mark.x for mark in found.of(Kind.HOLE)], [-2])
        found = path("1/(x^2 - 4)", -10, 10)
        self.assertEqual(
            [(m.kind, m.x, m.y) for m in found.of(Kind.MAXIMUM)], [(Kind.MAXIMUM, 0, -0.25)]
        )
        left, right = found.of(Kind.POLE)
        self.assertEqual((left.left, left.right), (math.inf, -math.inf))
        self.assertEqual((right.left, right.right), (-math.inf, math.inf))


class FractionNear(Case):
    @given(st.fractions(-50, 50, max_denominator=MOST_PARTS))
    def test_a_fraction_is_found_again(self, value):
        near = fraction_near(float(value), abs(float(value)) * 1e-12 + 1e-15, MOST_PARTS)
        self.assertEqual(near, value)

    @given(st.floats(-50, 50))
    def test_it_is_the_nearest_one_or_none(self, x):
        off = abs(x) * 1e-12 + 1e-300
        nearest = Fraction(x).limit_denominator(MOST_PARTS)
        wanted = nearest if abs(float(nearest) - x) <= off else None
        self.assertEqual(fraction_near(x, off, MOST_PARTS), wanted)
