"""Two equations in two unknowns: all solutions against resultants, and their exact forms."""

import math
import random

import sympy

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.path.labels import keyed
from axispath.core.path.lanes import Effort
from axispath.core.path.relations.forms import both_of, pair_forms
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.several import system_words
from axispath.core.solve.system import solve_system
from tests.case import Case
from tests.core.planes import VIEW, met, path_of
from tests.core.resultants import X, Y, common_zeros, typed

SYSTEMS = (
    ("x**2 + y**2 - 25", "x + y - 7"),
    ("x**2 + y**2 - 20", "x*y - 8"),
    ("x**2 + y**2 - 4", "x - 3"),
    ("x - y**2", "y - x**2 - x*y"),
    ("x**2 - y**2 - 3", "x*y - 2"),
    ("x**3 + y**3 - 9", "x + y - 3"),
    ("x**2 + 4*y**2 - 4", "4*x**2 + y**2 - 4"),
    ("x - 2", "x**2 + y**2 - 13"),
    ("2*x + 3*y - 6", "x - y - 1"),
    ("2*x + 3*y - 6", "4*x + 6*y - 5"),
    ("x**2 + y**2 - 9", "y - x**2 + 4"),
    ("x**2 + y**2 - 1", "(x - 2)**2 + y**2 - 2"),
    ("x*y - 1", "x**2 + y**2 - 3"),
    ("y**2 - x**3 + x", "x + y - 1"),
    ("y**2 - x**3 + 3*x - 1", "x**2 + y**2 - 4"),
    ("x**3 - 3*x*y**2 - 2", "3*x**2*y - y**3 - 1"),
    ("x**2*y - 2", "x*y**2 - 3"),
    ("x**3 + y**3 - 3*x*y - 1/7", "x - 2*y + 1/3"),
    ("x**4 + y**4 - 16", "x**2 - y"),
    ("x**4 + y**4 - 4*x*y - 1", "x**2 + 3*y**2 - 3"),
    ("(x**2 + y**2)**2 - 9*(x**2 - y**2)", "x - 3*y + 1"),
    ("(x**2 + y**2)**2 - 9*(x**2 - y**2)", "x**2 + y**2 - 4"),
    ("(x**2 + y**2 - 2*x)**2 - (x**2 + y**2)", "y - x - 1/5"),
    ("x**2/25 + y**2/4 - 1", "y**2 - x + 2"),
    ("x**5 - y - 1", "y**5 - x - 1/2"),
    ("x**2 - 2*y**2 - 1", "x**2 + x*y - 5"),
    ("x**3*y - x*y**3 - 3", "x**2 + y**2 - 9"),
    ("y - x**3 + 3*x", "x - y**3 + 3*y"),
    ("x**2 + y**2 + x*y - 7", "x**2 - y**2 + 2*x - 1"),
    ("144*(x**4 + y**4) - 225*(x**2 + y**2) + 350*x**2*y**2 + 81", "7*x - 5*y + 1/9"),
    ("x**6 + y**6 - 12", "x*y**2 - 1"),
)


def _rounded(place):
    return [round(part, 9) for part in place]


class Meeting(Case):
    def test_all_solutions_against_resultants(self):
        for pair in SYSTEMS:
            both = [sympy.sympify(side, locals={"x": X, "y": Y}) for side in pair]
            with self.subTest(pair):
                path = met(*map(typed, both))
                self.assertTrue(path.complete, path.open)
                found = sorted(((m.x, m.y) for m in path.landmarks), key=_rounded)
                wanted = sorted(common_zeros(*both), key=_rounded)
                self.assertEqual(len(found), len(wanted), (found, wanted))
                for place, known in zip(found, wanted, strict=True):
                    self.assertAlmostEqual(place[0], known[0], 11)
                    self.assertAlmostEqual(place[1], known[1], 11)

    def test_with_functions_and_curves(self):
        path = met("x^2 + y^2 = 20", "f(x) = x^2 - 8")
        for mark in path.landmarks:
            self.assertAlmostEqual(mark.x**2 + mark.y**2, 20, 9)
        self.assertEqual(len(path.landmarks), 4)
        path = met("x y = 1", "C(t) = (2cos t, 2sin t)")
        self.assertEqual(len(path.landmarks), 4)
        for mark in path.landmarks:
            self.assertAlmostEqual(mark.x * mark.y, 1, 9)

    def test_what_has_a_curve_in_common(self):
        for first, second, equation, whole, points in (
            ("x + y = 1", "2x + 2y = 2", "x + y − 1 = 0", 3, []),
            ("x y = 0", "x = 0", "x = 0", 2, []),
            ("x = 2", "x^2 = 4", "x − 2 = 0", 1, []),
            ("x (y - 1) = 0", "x (y - x) = 0", "x = 0", 0, [(1, 1)]),
            ("x y = 0", "x (y - x) = 0", "x = 0", 0, []),
        ):
            with self.subTest(first, second=second):
                path = met(first, second)
                self.assertTrue(path.complete)
                self.assertEqual((path.shared.equation, path.shared.whole), (equation, whole))
                self.assertEqual([(m.x, m.y) for m in path.landmarks], points)

    def test_what_may_have_one_is_open_and_ends(self):
        self.assertFalse(met("y/x = 1", "2y/x = 2").complete)
        self.assertFalse(met("x^2 + y^2 = 1 and x > 0", "x^2 + y^2 = 1").complete)

    def test_touching_however_often(self):
        """Two circles, lines and parabolas that touch, at places made up."""
        chance = random.Random(11)
        for _ in range(12):
            a, b, r, s = (
                chance.randint(-2, 2),
                chance.randint(-2, 2),
                *chance.sample((1, 2, 3), 2),
            )
            circle = f"(x - ({a}))^2 + (y - ({b}))^2 = {r**2}"
            for line, at in (
                (f"(x - ({a + r + s}))^2 + (y - ({b}))^2 = {s**2}", (a + r, b)),
                (f"(x - ({a + r - s}))^2 + (y - ({b}))^2 = {s**2}", (a + r, b)),
                (f"x = {a + r}", (a + r, b)),
                (f"3x + 4y = {3 * a + 4 * b + 5 * r}", (a + 3 * r / 5, b + 4 * r / 5)),
                (f"(x - ({a}))^4 + (y - ({b}))^4 = {r**4} and x > {a}", (a + r, b)),
            ):
                with self.subTest(circle, line=line):
                    path = met(circle, line)
                    self.assertTrue(path.complete, path.open)
                    self.assertTrue(any(math.dist((m.x, m.y), at) < 1e-12 for m in path.landmarks))
                    if "4y" in line or "^4" not in line:
                        self.assertEqual(len(path.landmarks), 1)


class Exactly(Case):
    def forms(self, path):
        wanted = [both for key, mark in keyed("R", path) if (both := both_of(key, mark))]
        found = pair_forms(AngleUnit.RADIAN, tuple(wanted))
        return {(form.x, form.y) for form in found.values() if form.x or form.y}

    def test_coordinates_by_hand(self):
        root = sympy.sqrt(5)
        self.assertEqual(
            self.forms(path_of("y > x^2 and y < x + 1")),
            {("(1−√5)/2", "(3−√5)/2"), ("(1+√5)/2", "(3+√5)/2")},
        )
        self.assertEqual(sympy.expand(((1 + root) / 2) ** 2 - (3 + root) / 2), 0)
        self.assertEqual(
            self.forms(met("x^2 + y^2 = 5", "x^2 - y^2 = 1")),
            {(f"{a}√3", f"{b}√2") for a in ("", "−") for b in ("", "−")},
        )
        self.assertIn(("−2√5", ""), self.forms(path_of("x^2 + y^2 = 20")))

    def test_what_is_near_but_not_the_same_is_not_claimed(self):
        self.assertEqual(self.forms(met("x^2 = 2.0000000000001", "y = x")), set())


class Systems(Case):
    """Two unknowns as they are typed in Solve."""

    def solved(self, text):
        return solve_system(Document(view=VIEW), text, Effort(evaluations=20_000))

    def test_two_equations_in_any_form_and_order(self):
        for text, wanted in (
            ("x^2 + y^2 = 25, x + y = 7", [(3, 4), (4, 3)]),
            ("x + y = 7; x^2 + y^2 = 25", [(3, 4), (4, 3)]),
            ("2x + 3y = 6 and x - y = 1", [(1.8, 0.8)]),
            ("x^2 + y^2 = 20, y = 2x", [(-2, -4), (2, 4)]),
            ("x^2 + y^2 = 25, x + y = 7, x > 3.5", [(4, 3)]),
            ("x^2 + y^2 = 4, x = 5", []),
        ):
            with self.subTest(text):
                found = self.solved(text)
                self.assertTrue(found.path.complete)
                places = sorted((round(m.x, 9), round(m.y, 9)) for m in found.path.landmarks)
                self.assertEqual(places, wanted)
                self.assertTrue(all(r < 1e-12 for r in found.residuals))

    def test_what_is_no_system_is_left_to_others(self):
        for text in ("x^2 = 4", "x^2 = 4 and x > 0", "y = x, y = x^2", "1 < x < 3"):
            self.assertIsNone(self.solved(text), text)

    def test_what_cannot_be_solved_is_told(self):
        for text, told in (
            ("x + y = 1, x - y = 2, x = 4", "3 equations"),
            ("y > x, x > 1", "0 equations"),
            ("x + y = 1, a x = 2", "equations in x and y"),
            ("x + y = 1, x - y = 2, z", "these are|inequalities|not understood|name"),
        ):
            with self.subTest(text), self.assertRaisesRegex(EditRefused, told):
                self.solved(text)

    def test_the_same_twice_is_never_called_solved(self):
        path = self.solved("x + y = 1, 2x + 2y = 2").path
        self.assertEqual(path.shared.whole, 3)
        self.assertIn("Infinitely many", system_words(path, False)[0])
        self.assertNotIn("Nothing missed", " ".join(system_words(path, False)))
