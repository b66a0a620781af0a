"""Other forms: equal by SymPy and at exact points, undefined where they say, true as they tell."""

import random
import re
import unittest
from fractions import Fraction

import sympy

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.rationals import exact_value
from axispath.core.forms import forms_of
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.refused import EditRefused
from tests.case import Case

LINE = Scope(catalogue.VOCABULARY, {}, frozenset("x"), {}, frozenset(), frozenset())
PLACES = [Fraction(k, 6) for k in range(-40, 41)]
X = sympy.Symbol("x")
DERIVED = {
    "derivative": lambda f: sympy.diff(f, X),
    "second derivative": lambda f: sympy.diff(f, X, 2),
}


def plan(text):
    return program(parse_expression(text, LINE))


def forms(text):
    return {form.name: form for form in forms_of(plan(text), "x", text)}


def random_function(lot):
    """A polynomial or a quotient whose factors are known, as text and for SymPy."""

    def factor():
        a, b, c = lot.randint(1, 3), lot.randint(-4, 4), lot.randint(-3, 3)
        linear = f"({a}x + {b})", a * X + b
        square = f"({a}x^2 + {b}x + {c})", a * X**2 + b * X + c
        return lot.choice([linear, linear, square])

    def some(most):
        text, value = str(lot.randint(1, 4)), sympy.Integer(1)
        value *= int(text)
        for _ in range(lot.randint(1, most)):
            part, worth = factor()
            n = lot.choice([1, 1, 2])
            text, value = f"{text} {part}^{n}", value * worth**n
        return text, value

    above, top = some(3)
    if lot.random() < 0.4:
        return f"{above} + {lot.randint(0, 3)}", None
    below, bottom = some(2)
    shared, common = factor() if lot.random() < 0.4 else ("1", 1)
    if bottom == 0 or common == 0:
        return above, top
    return f"({above} * {shared})/({below} * {shared})", top / bottom


class Forms(Case):
    def test_forms_are_equal_wherever_both_have_a_value(self):
        lot = random.Random(37)
        count = 0
        for _ in range(40):
            text, _ = random_function(lot)
            before = plan(text)
            shown = forms(text)
            count += len(shown)
            function = sympy.sympify(re.sub(r"(?<=[\dx)]) ?(?=[(x])", "*", text.replace("^", "**")))
            for form in shown.values():
                if "sqrt" in form.text:
                    other = form.text.replace("^", "**").replace(") (", ")*(")
                    other = re.sub(r"(\d|\)) (?=sqrt|x|\()", r"\1*", other)
                    self.assertEqual(sympy.expand(sympy.sympify(other) - function), 0, text)
                    continue
                wanted = DERIVED.get(form.name)
                with self.subTest(text=text, form=form.text):
                    after = plan(form.text)
                    if form.name == "antiderivative":
                        slope = forms(form.text)["derivative"].text
                        after = plan(slope)
                    for place in PLACES[::7]:
                        own, other = exact_value(before, place), exact_value(after, place)
                        if wanted is not None and own is not None:
                            own = Fraction(str(wanted(function).subs(X, sympy.Rational(place))))
                        if own is not None:
                            self.assertEqual(own, other, place)
        self.assertGreater(count, 150)

    def test_a_condition_names_every_place_that_is_left_out(self):
        for text, holes in (
            ("(x^2 - 1)/(x - 1)", "for x ≠ 1"),
            ("(x^3 - x)/(x^2 - x)", "for x ≠ 0, 1"),
            ("x^2/x + (x - 2)/(2x - 4)", "for x ≠ 0, 2"),
            ("(x + 1)(x - 3)/(x - 3)^2", ""),  # a pole stays a pole
            ("x^0 + x", "for x ≠ 0"),
            ("x^2 - 1", ""),
        ):
            with self.subTest(text):
                conditions = {form.condition for form in forms(text).values()}
                self.assertEqual(conditions, {holes})

    def test_where_holes_are_no_fractions_nothing_is_offered(self):
        self.assertEqual(forms("(x^2 - 2)x/(x^2 - 2)"), {})

    def test_what_is_told_is_so(self):
        self.assertEqual(forms("x^3 - 3x + 2")["in factors"].tells, "zeros at x = −2, 1 (double)")
        vertex = forms("2x^2 - 8x + 3")["vertex form"]
        self.assertEqual(vertex.tells, "lowest point (2, −5); symmetric about x = 2")
        self.assertEqual(forms("(x^2 + 1)/(x - 2)")["divided out"].tells, "asymptote y = x + 2")
        poles = forms("1/x + 1/(x + 1)")["one fraction"].tells
        self.assertEqual(poles, "zeros at x = −1/2; poles at x = −1, 0")
        # What would be a zero or the lowest point is a hole.
        self.assertEqual(forms("x^3(x - 1)/x")["in factors"].tells, "zeros at x = 1")
        self.assertEqual(forms("((x - 1)^2 + 1)(x - 1)/(x - 1)")["vertex form"].tells, "")

    def test_partial_fractions_add_up(self):
        for text in ("1/(x^2 - 1)", "(x + 3)/((x - 1)^2 (x^2 + 1))", "x^5/((x + 2)^3 (2x - 1))"):
            whole, parts = plan(text), plan(forms(text)["partial fractions"].text)
            for place in PLACES:
                self.assertEqual(exact_value(whole, place), exact_value(parts, place), place)

    def test_other_functions_have_none(self):
        for text in ("sin x", "2^x", "|x|", "√x", "x^30", "x^2.5", "max(x, 1)"):
            self.assertEqual(forms(text), {})


class Verbs(Case):
    def test_a_form_is_drawn_by_its_verb(self):
        for line, wanted in (
            ("factor x^2 - 4", "(x - 2) (x + 2)"),
            ("factorise x^2 - 5x + 6", "(x - 3) (x - 2)"),
            ("factor(x^2 - 2)", "(x - sqrt(2)) (x + sqrt(2))"),
            ("expand (x + 1)^3", "x^3 + 3 x^2 + 3 x + 1"),
            ("complete the square x^2 + 4x + 1", "(x + 2)^2 - 3"),
            ("partial fractions of 1/(x^2 - 1)", "1 / (2 (x - 1)) - 1 / (2 (x + 1))"),
            ("simplify (x^2 - 1)/(x - 1)", "(x^2 - 1)/(x - 1)"),  # the hole stays
        ):
            with self.subTest(line):
                sheet = apply(Document(), AddLane(text=line))
                self.assertEqual([lane.text for lane in sheet.lanes], [wanted])

    def test_the_verbs_are_names_too(self):
        for line in ("factor = 5", "expand = 3", "reduce(x) = x^2"):
            sheet = apply(Document(), AddLane(text=line))
            self.assertEqual([lane.text for lane in sheet.lanes], [line])

    def test_what_has_no_such_form_is_said(self):
        for line in ("factor x^2 + 1", "expand sin x", "factor x"):
            with self.subTest(line), self.assertRaisesRegex(EditRefused, "There is nothing to"):
                apply(Document(), AddLane(text=line))


if __name__ == "__main__":
    unittest.main()
