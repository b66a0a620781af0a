"""Rows of tables are computed at the number that is written, also where a function jumps."""

import math
import random
import unittest
from fractions import Fraction

import numpy as np

from axispath.core.sheet.document import Document, Table
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.resolve import resolve
from axispath.core.table.rows import places
from axispath.core.table.values import column
from tests.case import Case


def away(value, digits=0):
    """Rounded, halves away from 0."""
    size = math.floor(abs(value) * 10**digits + Fraction(1, 2))
    return Fraction(size if value >= 0 else -size) / 10**digits


def mod(a, b):
    return a - b * math.floor(a / b)


# A formula with c for a number, and its exact value at x.
JUMPING = (
    ("floor(c x)", lambda x, c: math.floor(c * x)),
    ("ceil(c x)", lambda x, c: math.ceil(c * x)),
    ("round(c x)", lambda x, c: away(c * x)),
    ("round(x, 1)", lambda x, c: away(x, 1)),
    ("round(c x, 2)", lambda x, c: away(c * x, 2)),
    ("mod(x, c)", lambda x, c: mod(x, c)),
    ("mod(x, 0.1)", lambda x, c: mod(x, Fraction(1, 10))),
    ("sign(x - c)", lambda x, c: (x > c) - (x < c)),
    ("x - floor(x)", lambda x, c: x - math.floor(x)),
    ("1 if x < c, 2 otherwise", lambda x, c: 1 if x < c else 2),
    ("1 if x <= c, 2 otherwise", lambda x, c: 1 if x <= c else 2),
    ("floor(x) + floor(-x)", lambda x, c: math.floor(x) + math.floor(-x)),
    ("x floor(10x)", lambda x, c: x * math.floor(10 * x)),
    ("|floor(c x)|", lambda x, c: abs(math.floor(c * x))),
)
STEPS = ("0.1", "0.2", "0.05", "1/3", "1/7", "1", "0.25", "0.3")
FACTORS = ("1", "10", "3", "0.1", "0.7", "2.5", "7")


class Rows(Case):
    def test_every_row_is_the_value_at_the_number_that_is_meant(self):
        chance = random.Random(12)
        rows = 0
        for form, truth in JUMPING:
            for _ in range(6):
                factor, step = chance.choice(FACTORS), chance.choice(STEPS)
                start = chance.choice(("0", "-1", "0.5", "-2"))
                line = (
                    form.replace("c x", f"{factor} x").replace("c", factor)
                    if "ceil" not in form
                    else form.replace("c x", f"{factor} x")
                )
                document = apply(Document(), AddLane(text=line))
                stop = str(Fraction(start) + 12 * Fraction(step))
                table = Table(start=start, stop=stop, step=step)
                (lane,) = resolve(document)
                x = places(document, table)
                found = column(lane, x)
                with self.subTest(line, start=start, step=step):
                    for k in range(len(x)):
                        wanted = truth(Fraction(start) + k * Fraction(step), Fraction(factor))
                        self.assertAlmostEqual(float(found.values[k]), float(wanted), 12)
                        self.assertEqual(float(found.noise[k]) > 1e-9, False)
                        rows += 1
        self.assertGreater(rows, 800)

    def test_where_the_side_is_not_known_no_value_is_shown(self):
        (lane,) = resolve(apply(Document(), AddLane(text="floor(3x/π)")))
        for k in (1, 2, 4, 5):
            found = column(lane, np.array([k * math.pi / 3]))
            shown = found.shown(0, 6)
            self.assertIn(shown, ("—", str(k)))
            if shown == "—":
                self.assertIn("not settled", found.reason(0))


if __name__ == "__main__":
    unittest.main()
