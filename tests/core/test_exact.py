"""Exact forms against balls at 60 digits: two arithmetics that share no code."""

import random
from fractions import Fraction

import sympy
from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.exact import NotExact, exact_form
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.exact_forms import asked_for, asymptotes, exact_forms
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN, path, plan, read

KNOWN = [
    ("sin(π/6)", "1/2"),
    ("cos(π/12)", "sqrt(2)/4 + sqrt(6)/4"),
    ("sqrt(8)", "2*sqrt(2)"),
    ("1/3 + 1/6", "1/2"),
    ("ln(e^2)", "2"),
    ("log(1000)", "3"),
    ("(-8)^(1/3)", "-2"),
    ("arctan(1)", "pi/4"),
    ("sum(1/k for k = 1 to 4)", "25/12"),
    ("5!/3", "40"),
    ("|2 - π|", "-2 + pi"),
    ("1 if π > 3, 0 otherwise", "1"),
    ("median(1/2, 3, √2)", "sqrt(2)"),
    ("φ^2", "GoldenRatio**2"),
    ("round(2.345, 1)", "23/10"),
]
SKIPPED = ("steps", "spread")


class Exact(Case):
    def test_known_forms(self):
        for line, form in KNOWN:
            with self.subTest(line):
                found = exact_form(plan(line), RADIAN, Fraction(0))
                self.assertEqual(sympy.simplify(found - sympy.sympify(form)), 0, found)

    def test_degrees(self):
        for line, form in [
            ("sin 30", "1/2"),
            ("arccos 0", "90"),
            ("tan 45", "1"),
            ("sin 30°", "1/2"),
        ]:
            self.assertEqual(exact_form(plan(line), DEGREE, Fraction(0)), sympy.sympify(form))

    def test_every_entry_agrees_with_its_ball(self):
        chance = random.Random(11)
        checked = 0
        for name, entry in catalogue.ENTRIES.items():
            if name in SKIPPED:
                continue
            arguments = entry.word.arguments
            call = {"log_base": "log_b(x)", "degrees": "x°"}.get(
                name
            ) or f"{name}({', '.join(arguments)})"
            line = program(read(call, values=arguments).body, arguments)
            for _ in range(8):
                given = [
                    Fraction(chance.randint(-30, 40), chance.choice([1, 1, 4, 7]))
                    for _ in arguments
                ]
                with self.subTest(f"{call} at {given}"):
                    checked += self.compare(line, given)
        self.assertGreater(checked, 150)

    def compare(self, line, given):
        """1 where both arithmetics have a value, and it is the same; 0 where neither has."""
        with precision(260):
            ball = self.ball(line, given)
            try:
                form = exact_form(line, RADIAN, *given)
            except NotExact:
                self.assertTrue(ball is None or not ball.is_finite(), ball)
                return 0
            if ball is None or not ball.is_finite():
                self.fail(f"the ball says undefined, the exact form says {form}")
            digits = str(sympy.re(form.evalf(60)))
            self.assertLess(float(abs(ball - arb(digits))), 1e-40 * (1 + abs(float(ball.mid()))))
        return 1

    def ball(self, line, given):
        from axispath.core.arithmetic.balls import operations
        from axispath.core.arithmetic.program import bind

        try:
            inputs = [arb(x.numerator) / x.denominator for x in given]
            return bind(line, operations(line, RADIAN)).run(*inputs)
        except OutsideDomain:
            return None

    def test_what_has_no_exact_value_says_so(self):
        for line in ("1/0", "ln(-1)", "√(-2)", "9^9^9", "tan(π/2)", "1 if 1 > 2"):
            with self.subTest(line), self.assertRaises(NotExact):
                exact_form(plan(line), RADIAN, Fraction(0))

    def test_functions_of_the_sheet_stay_exact(self):
        function = BallFunction(plan("x^2/3"), RADIAN)
        self.assertTrue(function.value(arb(2)).contains(arb(4) / 3))
        self.assertEqual(exact_form(plan("x^2/3"), RADIAN, Fraction(2)), sympy.Rational(4, 3))


class Landmarks(Case):
    def forms(self, line, low=-10, high=10):
        found = path(line, low, high)
        asked = tuple(asked_for(f"{m.kind}:{k}", m) for k, m in enumerate(found.landmarks))
        forms = exact_forms(plan(line), RADIAN, asked).values()
        return [form.x for form in forms if form.x], [form.y for form in forms if form.y]

    def test_forms_are_the_known_ones(self):
        self.assertEqual(self.forms("x^2 - 5")[0], ["\u2212√5", "√5"])
        self.assertEqual(self.forms("x^2 - x - 1")[0], ["(1\u2212√5)/2", "(1+√5)/2"])
        self.assertEqual(self.forms("e^x - 2")[0], ["ln(2)"])
        self.assertEqual(self.forms("sin(x) - 1/2", 0, 1)[0], ["π/6"])
        self.assertEqual(self.forms("16x - 3")[0], [])  # 0.1875 says it all
        self.assertEqual(self.forms("3x - 1")[0], ["1/3"])
        self.assertIn("1/e", self.forms("x ln x", 0.01, 3)[0])

    def test_what_is_only_near_a_form_is_not_given_it(self):
        # Next to √2 within 10⁻¹⁴, but not it.
        self.assertEqual(self.forms("x^2 - 2 - 10^-14", 0, 3)[0], [])
        self.assertEqual(self.forms("cos(x) - x", 0.1, 1.5)[0], [])

    def test_asymptotes(self):
        for line, wanted in (
            ("(x^2 - 1)/(x - 2)", ("y = x+2",)),
            ("arctan(x)", ("y = π/2 to the right", "y = \u2212π/2 to the left")),
            ("x^x", ()),
            ("e^x", ("y = 0 to the left",)),
            ("sin x", ()),
            ("x^2", ()),
            ("(2x + 1)/(x - 3)", ("y = 2",)),
        ):
            self.assertEqual(asymptotes(plan(line), RADIAN), wanted, line)
