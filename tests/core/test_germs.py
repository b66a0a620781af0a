"""Exact places, quotients of polynomials and one-sided limits, against SymPy."""

import random
from fractions import Fraction

import sympy
from flint import fmpq_poly
from hypothesis import given, settings
from hypothesis import strategies as st

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.exact import exact_form
from axispath.core.arithmetic.guessing import guess
from axispath.core.arithmetic.identity import flat_levels, lowest_terms
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.search.landmark import BREAKS
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN, path, plan

FRACTIONS = st.fractions(-20, 20, max_denominator=40)
X = sympy.Symbol("x")


class ExactNumbers(Case):
    LINES = (
        "x + 2π", "3x/4 - π/6", "x^2 - 1", "sin(x)", "cos(2x)", "tan(x)", "√x", "|x - 1|",
        "floor(x)", "max(x, 1/2)", "ln(x)", "e^(x - x)", "1 if x < 1, x otherwise", "x/π",
    )  # fmt: skip

    def test_whatever_has_an_exact_value_has_the_one_sympy_finds(self):
        chance = random.Random(5)
        known = 0
        for line in self.LINES:
            for _ in range(25):
                a = Fraction(chance.randint(-12, 12), chance.choice([1, 2, 3, 6]))
                place = Exact(a) if chance.random() < 0.5 else Exact(Fraction(0), a)
                value = exact_registers(plan(line), RADIAN, place)[plan(line).result]
                if value is None:
                    continue
                known += 1
                symbol = sympy.Rational(place.rational) + sympy.Rational(place.turns) * sympy.pi
                wanted = exact_form(plan(line), RADIAN, symbol)
                told = sympy.Rational(value.rational) + sympy.Rational(value.turns) * sympy.pi
                self.assertEqual(sympy.simplify(wanted - told), 0, f"{line} at {place}")
        self.assertGreater(known, 120)

    @given(FRACTIONS, FRACTIONS)
    def test_the_sign_is_that_of_the_number(self, rational, turns):
        number = Exact(rational, turns)
        true = sympy.sign(sympy.Rational(rational) + sympy.Rational(turns) * sympy.pi)
        self.assertEqual(number.sign(), int(true))
        self.assertEqual(number.is_zero, rational == turns == 0)

    @given(FRACTIONS)
    def test_a_simple_place_is_guessed_from_a_narrow_ball(self, fraction):
        for number in (Exact(fraction), Exact(Fraction(0), fraction)):
            with precision(120):
                self.assertIn(number, guess(number.ball) if number.turns or fraction else [number])

    def test_degrees_have_their_own_exact_sines(self):
        (_, value) = exact_registers(plan("sin(x)"), DEGREE, Exact(Fraction(150)))
        self.assertEqual(value, Exact(Fraction(1, 2)))


class Quotients(Case):
    POLYNOMIALS = st.lists(st.integers(-5, 5), min_size=1, max_size=4)

    @given(POLYNOMIALS, POLYNOMIALS, POLYNOMIALS)
    @settings(max_examples=80, deadline=None)
    def test_lowest_terms_are_those_of_sympy(self, top, bottom, common):
        def line(p):
            return "+".join(f"({c})x^{k}" if k else f"({c})" for k, c in enumerate(p))

        parts = [f"(({line(p)})*({line(common)}))" for p in (top, bottom)]
        found = lowest_terms(plan("/".join(parts)))
        below = sympy.Poly(bottom[::-1], X) * sympy.Poly(common[::-1], X)
        if below.is_zero:
            self.assertIsNone(found)
            return
        wanted = sympy.cancel(sympy.Poly(top[::-1], X) / sympy.Poly(bottom[::-1], X))
        mine = _sympy(found[0]) / _sympy(found[1])
        self.assertEqual(sympy.simplify(mine - wanted), 0)

    def test_what_is_straight_level_or_zero(self):
        for line, levels in (
            ("x - x", {0, 1, 2}),
            ("(x + 1)^2 - x^2 - 2x", {1, 2}),
            ("(x^2 - 1)/(x - 1)", {2}),
            ("x^2", set()),
            ("sin(x)^2 + cos(x)^2", {1, 2}),
            ("x + cosh(x)^2 - sinh(x)^2", {2}),
            ("sin(x)", set()),
        ):
            self.assertEqual(flat_levels(plan(line), RADIAN, lambda: {0, 1, 2}), levels, line)


def _sympy(poly: fmpq_poly):
    return sum(sympy.Rational(int(c.p), int(c.q)) * X**k for k, c in enumerate(poly.coeffs()))


class OneSidedLimits(Case):
    PARTS = (
        *("sin(x)", "x", "√x", "x ln x", "e^x - 1", "1 - cos(x)", "ln(1 + x)", "x^2", "x^(1/3)"),
    )

    def test_they_are_those_of_sympy(self):
        chance = random.Random(8)
        symbol = sympy.Symbol("x", positive=True)
        checked = 0
        for _ in range(60):
            first, second, below = (chance.choice(self.PARTS) for _ in range(3))
            if below in (first, second):
                continue
            line = f"({first})*({second})/({below})"
            try:
                true = sympy.limit(exact_form(plan(line), RADIAN, symbol), symbol, 0, "+")
            except (NotImplementedError, ValueError):
                continue
            marks = [m for m in path(line, -0.5, 1).of(*BREAKS) if m.x == 0]
            self.assertEqual(len(marks), 1, line)
            if true.is_finite:
                self.assertAlmostEqual(marks[0].right, float(true), 12, line)
            else:
                self.assertEqual(marks[0].right, float(true), line)
            checked += 1
        self.assertGreater(checked, 30)
