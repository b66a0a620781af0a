"""Areas against integrals that are known in closed form."""

import math
from fractions import Fraction

from hypothesis import given
from hypothesis import strategies as st

from axispath.core.path.area import NoArea, area
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN, plan

KNOWN = (
    ("sin x", 0, math.pi, 2.0, 2.0),
    ("sin x", 0, 2 * math.pi, 0.0, 4.0),
    ("e^(-x^2)", -6, 6, math.sqrt(math.pi) * math.erf(6), None),
    ("1/x", 1, math.e, 1.0, 1.0),
    ("|x|", -1, 2, 2.5, 2.5),
    ("√x", 0, 4, 16 / 3, 16 / 3),
    ("ln x", 1, 5, 5 * math.log(5) - 4, None),
    ("floor x", 0, 3.5, 4.5, 4.5),
    ("x^3 - x", -1, 1, 0.0, 0.5),
    ("sin(50x)", 0, math.pi, 0.0, 2.0),
    ("x^2 if x < 1, 2 - x otherwise", 0, 2, 1 / 3 + 1 / 2, None),
)


class Areas(Case):
    def test_known_integrals_lie_within_the_proven_error(self):
        for line, low, high, signed, whole in KNOWN:
            with self.subTest(line):
                found = area(plan(line), RADIAN, low, high)
                self.assertTrue(found.proven)
                self.assertLess(found.signed_error, 1e-10)
                # The ends of the interval are floats too: that moves the known value a little.
                self.assertAlmostEqual(found.signed, signed, delta=found.signed_error + 4e-15)
                if whole is not None:
                    self.assertAlmostEqual(found.whole, whole, delta=found.whole_error + 4e-15)

    def test_degrees_are_degrees(self):
        found = area(plan("sin x"), DEGREE, 0, 180)
        self.assertAlmostEqual(found.signed, 360 / math.pi, delta=1e-11)

    @given(st.lists(st.integers(-9, 9), min_size=1, max_size=6), st.integers(-4, 3))
    def test_polynomials_exactly(self, coefficients, low):
        line = " + ".join(f"({c}) x^{k}" for k, c in enumerate(coefficients))
        high = low + 2
        exact = sum(
            Fraction(c, k + 1) * (high ** (k + 1) - low ** (k + 1))
            for k, c in enumerate(coefficients)
        )
        found = area(plan(line), RADIAN, low, high)
        self.assertLessEqual(abs(Fraction(found.signed) - exact), Fraction(found.signed_error))

    def test_no_area_is_given_across_a_pole_or_a_gap(self):
        for line, told in (("1/x", "leaves every bound"), ("√(x^2 - 1)", "undefined")):
            with self.assertRaisesRegex(NoArea, told):
                area(plan(line), RADIAN, -2, 2)
