"""What lies close together, comes close to 0, jumps or has no value: families with known truth."""

import math
import random
import unittest
from fractions import Fraction

from axispath.core.search.landmark import Kind
from tests.case import Case
from tests.core.helpers import path, plan

# Functions that are 0 at 0 alone and grow there, so that g(u) is 0 exactly where u is.
AROUND_ZERO = (
    "arsinh({})",
    "1 - e^(-{})",
    "arctan({})",
    "{} e^({})",
    "sinh({})",
    "erf({})",
    "tanh({})",
    "{} (2 + cos({}))",
    "ln(1 + {}^2) {}",
    "{} + {}^3",
)
NEVER_ZERO = (  # strictly below or above 0 everywhere, and as near to it as one likes
    "erf(x) - 1",
    "tanh(x) - 1",
    "1 - e^(-x^2) - 1",
    "1/(1 + e^(-x)) - 1",
    "e^(-x)",
    "e^(-x^2)",
    "erf(x/2) - 1",
    "tanh(2x) - 1",
    "2^(-x)",
    "erf(x + 1) - 1",
    "1 - tanh(x)^2",
    "1/cosh(x)",
)
# u(x) and where it changes its sign between −6 and 6.
CHANGES = (
    ("x", (0,)),
    ("x - 2", (2,)),
    ("2 - x", (2,)),
    ("x^2 - 4", (-2, 2)),
    ("x^3 - x", (-1, 0, 1)),
    ("sin(x)", (-math.pi, 0, math.pi)),
    ("x - √2", (math.sqrt(2),)),
    ("e^x - 1", (0,)),
    ("x (x - 1)^2", (0,)),
    ("ln(x^2 + 1) x", (0,)),
)
ENTIRELY = (  # formulas, and whether they are 0 at a place, have another value or none (None)
    ("|0^x|", lambda x: 0.0 if x > 0 else None),
    ("0^x", lambda x: 0.0 if x > 0 else None),
    ("sign(0^x)", lambda x: 0.0 if x > 0 else None),
    ("|0^(x - 2)|", lambda x: 0.0 if x > 2 else None),
    ("arctan2(0, x)", lambda x: 0.0 if x > 0 else math.pi if x < 0 else None),
    ("sign(arctan2(0, x))", lambda x: 0.0 if x > 0 else 1.0 if x < 0 else None),
    ("arctan2(0, x - 1)", lambda x: 0.0 if x > 1 else math.pi if x < 1 else None),
    ("arctan2(0, -x)", lambda x: 0.0 if x < 0 else math.pi if x > 0 else None),
    ("|arctan2(0, x)|", lambda x: 0.0 if x > 0 else math.pi if x < 0 else None),
    ("0 ln(x)", lambda x: 0.0 if x > 0 else None),
    ("|0 √x|", lambda x: 0.0 if x >= 0 else None),
    ("sign(0/x)", lambda x: 0.0 if x else None),
    ("0 tan(x)", lambda x: 0.0),
    ("0 arcsin(x)", lambda x: 0.0 if abs(x) <= 1 else None),
    ("max(0, 0^x)", lambda x: 0.0 if x > 0 else None),
    ("floor(x) - floor(x)", lambda x: 0.0),
    ("0 floor(1/x)", lambda x: 0.0 if x else None),
    ("|x| - √(x^2)", lambda x: 0.0),
    ("ln(x) - ln(x)", lambda x: 0.0 if x > 0 else None),
    ("arcsin(x) + arccos(x) - π/2", lambda x: 0.0 if abs(x) <= 1 else None),
)


class Close(Case):
    def test_zeros_that_are_close_are_both_found_or_said_to_be_open(self):
        chance = random.Random(3)
        for form in AROUND_ZERO:
            for power in (5, 8, 10, 12):
                at = Fraction(chance.randint(-40, 40), 10)
                gap = Fraction(chance.randint(1, 9), 10**power)
                inner = f"((x - ({float(at)})) (x - ({float(at)}) - {float(gap):.{power}f}))"
                line = form.replace("{}", inner)
                with self.subTest(line):
                    found = path(line, -5, 5, budget=20_000)
                    for true in (at, at + gap):
                        self.assertTrue(self.told(found, float(true)), (float(true), found.open))
                    # Between them the sign is another.
                    middle = float(at + gap / 2)
                    for span in found.spans:
                        if span.low < middle < span.high and span.sign:
                            self.assertEqual(span.sign, -1)

    def told(self, found, true):
        if any(o.low <= true <= o.high for o in found.open):
            return True
        return any(abs(mark.x - true) <= 4e-15 * max(1, abs(true)) for mark in found.of(Kind.ZERO))

    def test_what_only_comes_near_to_zero_has_none(self):
        for line in NEVER_ZERO:
            for low, high in ((-3, 8), (-5, 16), (0, 20), (5, 30)):
                with self.subTest(line, ends=(low, high)):
                    found = path(line, low, high, budget=20_000)
                    self.assertEqual(list(found.of(Kind.ZERO)), [])
                    self.assertEqual(len({span.sign for span in found.spans if span.sign}), 1)


class Jumps(Case):
    def test_an_angle_jumps_where_the_negative_axis_is_crossed(self):
        for inner, places in CHANGES:
            for right in ("-1", "-2.5", "-1 - x^2"):
                line = f"arctan2({inner}, {right})"
                with self.subTest(line):
                    found = path(line, -6, 6, budget=20_000)
                    jumps = [mark.x for mark in found.of(Kind.JUMP)]
                    if found.complete:
                        self.assertEqual(len(jumps), len(places))
                    for x in jumps:
                        self.assertLess(min(abs(x - at) for at in places), 1e-12)
                    for mark in found.of(Kind.INFLECTION, Kind.MINIMUM):
                        self.assertGreater(min(abs(mark.x - at) for at in places), 1e-9)

    def test_what_is_zero_throughout_has_a_value_there_and_it_is_zero(self):
        chance = random.Random(8)
        for line, truth in ENTIRELY:
            with self.subTest(line):
                found = path(line, -5, 5)
                for stretch in found.zero:
                    for _ in range(60):
                        x = chance.uniform(stretch.low, stretch.high)
                        if not any(o.low <= x <= o.high for o in found.open):
                            self.assertEqual(truth(x), 0.0, x)
                for gone in found.undefined:
                    for _ in range(20):
                        x = chance.uniform(gone.low, gone.high)
                        self.assertIsNone(truth(x), x)
                for span in found.spans:
                    x = chance.uniform(span.low, span.high)
                    self.assertIsNotNone(truth(x), x)
                    self.assertEqual((truth(x) > 0) - (truth(x) < 0), span.sign)


class LeftOut(Case):
    def test_arguments_that_are_left_out_have_their_usual_values_in_every_search(self):
        for short, full in (
            ("normalcdf({})", "normalcdf({}, 0, 1)"),
            ("normalcdf({}, 1)", "normalcdf({}, 1, 1)"),
            ("normalpdf({})", "normalpdf({}, 0, 1)"),
            ("round({})", "round({}, 0)"),
        ):
            for inner in ("x", "1/x", "x^2 - 1", "√x", "1/(x - 1)", "sin(x)", "ln x", "e^(-1/x)"):
                with self.subTest(short.format(inner)):
                    one, other = (path(f.format(inner), -4, 4, budget=4000) for f in (short, full))
                    kinds = [[(m.kind, round(m.x, 9)) for m in p.landmarks] for p in (one, other)]
                    self.assertEqual(*kinds)
                    self.assertTrue(plan(short.format(inner)).steps)


if __name__ == "__main__":
    unittest.main()
