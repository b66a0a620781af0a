"""Derivatives of derivatives, however they are written: against mpmath's differences."""

import itertools

import mpmath

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.refused import EditRefused
from tests.case import Case
from tests.core.test_working import at, results, worked

# Formulas of x, and what they are.
INNER = {
    "x^3": lambda x: x**3,
    "sin x": mpmath.sin,
    "x e^x": lambda x: x * mpmath.exp(x),
    "1/(x^2 + 1)": lambda x: 1 / (x**2 + 1),
}
# Lines with E for the formula in them, and what they are of the formula.
WAYS = {
    "y = derivative(derivative(E for x) for x)": lambda f, x: mpmath.diff(f, x, 2),
    "y = derivative(derivative(derivative(E for x) for x) for x)": lambda f, x: mpmath.diff(
        f, x, 3
    ),
    "y = derivative(x derivative(E for x) for x)": lambda f, x: (
        mpmath.diff(f, x) + x * mpmath.diff(f, x, 2)
    ),
    "y = derivative((derivative(E for x))^2 for x)": lambda f, x: (
        2 * mpmath.diff(f, x) * mpmath.diff(f, x, 2)
    ),
    "y = x derivative(E for x)": lambda f, x: x * mpmath.diff(f, x),
}
PLACES = (-1.25, 0.5, 2)


class Nested(Case):
    def test_as_lanes(self):
        for (inner, truth), (way, whole) in itertools.product(INNER.items(), WAYS.items()):
            line = way.replace("E", inner)
            with self.subTest(line=line):
                sheet = apply(Document(), AddLane(text=line))
                for x in PLACES:
                    wanted = float(whole(truth, mpmath.mpf(x)))
                    self.assertAlmostEqual(at(sheet, "f", x), wanted, 6)

    def test_functions_that_are_derivatives_have_derivatives(self):
        sheet = Document()
        for line in ("g(x) = derivative(x^4 for x)", "h(x) = g'(x)", "k(x) = h'(x) + g(1)"):
            sheet = apply(sheet, AddLane(text=line))
        self.assertEqual([at(sheet, name, 2) for name in "ghk"], [32, 48, 52])

    def test_at_a_place_and_by_name_in_calculations(self):
        sheet = worked(
            "derivative(derivative(derivative(x^4 for x) for x) for x = 2)",
            "derivative(derivative(t^3 for t = x) for x = 2)",
            "d = derivative(x^3 for x)",
            "derivative(d for x = 5)",
            "derivative(x d for x = 1)",
        )
        found = [result.shown for result in results(sheet)]
        self.assertEqual([found[k] for k in (0, 1, 3, 4)], ["48", "12", "30", "9"])

    def test_of_a_taylor_polynomial_nothing_wrong_is_said(self):
        sheet = worked("p = taylor(sin x for x = 0, 3)", "derivative(p for x)")
        self.assertIn("cannot be written down", results(sheet)[1].why)
        with self.assertRaises(EditRefused):
            apply(Document(), AddLane(text="y = derivative(taylor(sin x for x = 0, 3) for x)"))

    def test_long_chains_of_names_and_deep_calls_are_seen_once(self):
        """Each name stands twice in the next, and each call within the one before."""
        sheet = apply(Document(), AddLane(text="f(x) = x/2 + 1"))
        lines = ["a_0 = 1", *(f"a_{k} = a_{k - 1}/2 + a_{k - 1}/2" for k in range(1, 40))]
        deep = "f(" * 30 + "a_39" + ")" * 30
        for line in (*lines, f"y = derivative(x^2 a_39 + {deep} for x)"):
            sheet = apply(sheet, AddLane(text=line))
        self.assertAlmostEqual(at(sheet, "g", 3), 6, 12)
