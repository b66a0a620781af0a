"""Extreme values of linear expressions on linear regions, against SciPy's linprog."""

import random
from fractions import Fraction

from scipy.optimize import linprog

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.largest import largest
from tests.case import Case


def asked(region, text):
    return largest(apply(Document(), AddLane(text=region)), text)


class Largest(Case):
    def test_against_linprog(self):
        chance = random.Random(11)
        for _ in range(24):
            rows = [
                (chance.randint(-5, 5), chance.randint(-5, 5), chance.randint(-3, 15))
                for _ in range(4)
            ]
            rows = [(a or 1, b, c) for a, b, c in rows]
            aim = chance.randint(-4, 4), chance.randint(-4, 4) or 1
            line = " and ".join(f"({a}) x + ({b}) y <= {c}" for a, b, c in rows)
            form = f"({aim[0]}) x + ({aim[1]}) y"
            for word, sign in (("largest", -1), ("smallest", 1)):
                with self.subTest(line, form=form, word=word):
                    other = linprog(
                        [sign * v for v in aim],
                        A_ub=[row[:2] for row in rows],
                        b_ub=[row[2] for row in rows],
                        bounds=[(None, None)] * 2,
                    )
                    found = asked(line, f"{word} {form} in R")
                    if other.status == 2:
                        self.assertTrue(found.empty)
                    elif other.status == 3:
                        self.assertEqual((found.places, found.empty), ((), False))
                    else:
                        self.assertAlmostEqual(float(found.value), sign * other.fun, 7)
                        self.assertTrue(found.reached)

    def test_a_school_book_example(self):
        region = "2x + y <= 10 and x + 3y <= 15 and x >= 0 and y >= 0"
        found = asked(region, "maximum of 3x + 2y in R?")
        self.assertEqual((found.places, found.value), (((Fraction(3), Fraction(4)),), 17))
        found = asked(region, "min 3x + 2y on R")
        self.assertEqual((found.places, found.value), (((Fraction(0), Fraction(0)),), 0))
        found = asked(region, "largest 2x + y in R")  # along an edge
        self.assertEqual(len(found.places), 2)

    def test_borders_that_do_not_belong_and_strips(self):
        found = asked("x >= 0 and y >= 0 and x + y < 4", "largest x + y in R")
        self.assertEqual((found.value, found.reached), (4, False))
        found = asked("1 <= y <= 3", "largest 2y in R")
        self.assertEqual((found.value, found.reached), (6, True))
        self.assertEqual(asked("1 <= y <= 3", "largest x in R").places, ())
        self.assertTrue(asked("y > 1 and y < 1", "largest y in R").empty)

    def test_what_it_cannot_do_is_told(self):
        for region, text, told in (
            ("x^2 + y^2 < 4", "largest x in R", "not made of linear"),
            ("y > 0 or x > 0", "largest x in R", "joined by"),
            ("y > 0", "largest x y in R", "not linear"),
            ("y > 0", "largest x in S", "no region"),
            ("y > 0", "largest q x in R", "q"),
        ):
            with self.subTest(text), self.assertRaisesRegex(EditRefused, told):
                asked(region, text)
        self.assertIsNone(asked("y > 0", "x^2 = 4"))
