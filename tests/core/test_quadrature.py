"""Functions that are integrals: values against mpmath, landmarks by the theorem of calculus."""

import unittest

import numpy as np
from flint import arb
from mpmath import mp

from axispath.core.arithmetic.balls import BallFunction
from axispath.core.arithmetic.floats import float_function
from axispath.core.catalogue.balls import OutsideDomain, precision
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN, path, plan

# What is integrated as it is typed, the same for mpmath, and places to integrate from and to.
KNOWN = (
    ("t^2 - 3t", lambda t: t**2 - 3 * t, 1, (-4, 0, 2.5, 9)),
    ("sin(t^2)", lambda t: mp.sin(t**2), 0, (-3, 0.1, 2, 7.25)),
    ("e^(-t^2)", lambda t: mp.exp(-(t**2)), 0, (-5, -0.3, 1, 6)),
    ("1/(1 + t^2)", lambda t: 1 / (1 + t**2), -1, (-20, 0, 3, 50)),
    ("ln(t)", mp.log, 1, (0.001, 0.5, 2, 40)),
    ("1/t", lambda t: 1 / t, 1, (0.01, 0.5, 3, 100)),
    ("√t", mp.sqrt, 1, (0.01, 0.5, 3, 10)),
    ("|t - 1/3|", lambda t: abs(t - mp.mpf(1) / 3), 0, (-2, 0.3, 1, 4)),
    ("max(t, 1 - t)", lambda t: max(t, 1 - t), 0, (-2, 0.5, 1, 4)),
    ("arctan(t) t", lambda t: mp.atan(t) * t, 0, (-7, 0.5, 3, 30)),
    ("tanh(3t)", lambda t: mp.tanh(3 * t), -1, (-7, 0.5, 3, 10)),
    ("t^t", lambda t: t**t, 1, (0.125, 0.5, 2, 3)),
)


def between(inner, low, high):
    """mpmath's, with the bends that are in these as ends."""
    bends = [mp.mpf(1) / 3, mp.mpf("0.5")]
    first, last = sorted((mp.mpf(low), mp.mpf(high)))
    places = [first, *(b for b in bends if first < b < last), last]
    found = mp.quad(inner, mp.linspace(first, last, 9) if len(places) == 2 else places)
    return found if low <= high else -found


class Quadrature(Case):
    def test_values_against_mpmath(self):
        mp.dps = 30
        for text, inner, start, places in KNOWN:
            line = plan(f"integral({text} for t = {start} to x)")
            balls, floats = BallFunction(line, RADIAN), float_function(line, RADIAN)
            drawn = floats(np.array([*places] * 4, dtype=float))
            for k, at in enumerate(places):
                with self.subTest(text, to=at):
                    wanted = between(inner, start, at)
                    with precision(106):
                        found = balls.value(arb(at))
                        self.assertTrue(found.overlaps(arb(mp.nstr(wanted, 25)) + arb(0, 1e-18)))
                        self.assertLess(float(found.rad()), 1e-17 * (1 + abs(wanted)))
                    self.assertAlmostEqual(drawn[k], float(wanted), delta=1e-13 * (1 + abs(wanted)))

    def test_slopes_are_the_formula_at_the_ends(self):
        """d/dx of ∫ from x to x² of e^(−t²) is 2x e^(−x⁴) − e^(−x²)."""
        balls = BallFunction(plan("integral(e^(-t^2) for t = x to x^2)"), RADIAN)
        with precision(106):
            for at in (-1.5, 0.0, 0.3, 2.0):
                slope = balls.taylor(arb(at), 3)[1]
                x = arb(at)
                self.assertTrue(slope.overlaps(2 * x * (-(x**4)).exp() - (-(x * x)).exp()))

    def test_angles_are_those_of_the_sheet(self):
        line = plan("integral(cos(t) for t = 0 to x)")
        floats = float_function(line, DEGREE)
        self.assertAlmostEqual(float(floats(np.array([90.0]))[0]), float(180 / mp.pi), 10)

    def test_there_is_none_over_a_gap(self):
        for text, start, at in (("ln(t)", 1, -1), ("√(t)", 1, -2), ("√(t^2 - 1)", 2, -2)):
            line = plan(f"integral({text} for t = {start} to x)")
            with precision(106), self.assertRaises(OutsideDomain):
                BallFunction(line, RADIAN).value(arb(at))
            places = np.linspace(at, start, 40)
            self.assertTrue(np.isnan(float_function(line, RADIAN)(places)[0]))
        line = plan("integral(1/t for t = 1 to x)")
        with precision(106):
            self.assertFalse(BallFunction(line, RADIAN).value(arb(-1)).is_finite())
        self.assertTrue(np.isnan(float_function(line, RADIAN)(np.linspace(-2, -0.5, 30))).all())

    def test_landmarks_are_proved_from_what_is_integrated(self):
        found = path("integral(t^2 - 1 for t = -1 to x)", -4, 4)
        self.assertTrue(found.complete)
        self.assertEqual([m.x for m in found.of(Kind.ZERO)], [-1.0, 2.0])
        self.assertEqual([m.x for m in found.of(Kind.MAXIMUM, Kind.MINIMUM)], [-1.0, 1.0])
        self.assertEqual([m.x for m in found.of(Kind.INFLECTION)], [0.0])
        waves = path("integral(sin(t^2) for t = 0 to x)", -3, 3)
        self.assertTrue(waves.complete)
        turns = [m.x**2 / float(mp.pi) for m in waves.of(Kind.MAXIMUM, Kind.MINIMUM)]
        self.assertEqual([round(k, 9) for k in turns], [2, 1, 1, 2])

    def test_lanes(self):
        document = apply(Document(), AddLane(text="a = 2"))
        for line in ("F(x) = integral(a ln(t) for t = 1 to x)", "F(x)", "F'(x)"):
            document = apply(document, AddLane(text=line))
        for lane in resolve(document).lanes[1:]:
            self.assertEqual((lane.error, lane.kind.key), (None, "function"))
        slope = resolve(document).lanes[-1]
        self.assertAlmostEqual(float(slope.floats(np.array([3.0]))[0]), 2 * np.log(3), 12)
        with self.assertRaises(EditRefused):
            apply(document, AddLane(text="G(x) = integral(x t for t = 0 to x)"))
        with self.assertRaises(EditRefused):
            apply(document, AddLane(text="G(x) = integral(e^(-t) for t = x to ∞)"))

    def test_what_was_asked_before_changes_nothing(self):
        text = "integral(sin(3t)/(2 + cos(t)) for t = 0 to x)"
        places = np.linspace(-9, 9, 301)
        first = float_function(plan(text), RADIAN)(places)
        other = float_function(plan(text), RADIAN)
        other(places[::-1] * 3)
        self.assertTrue((other(places) == first).all())


if __name__ == "__main__":
    unittest.main()
