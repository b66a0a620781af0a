"""The three arithmetics against mpmath at 50 digits, which shares no code with them."""

import math
import random
import unittest

import mpmath
import numpy as np
from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import BallFunction, box, precision
from axispath.core.arithmetic.floats import float_function, float_value
from axispath.core.arithmetic.program import TooLarge, program
from axispath.core.arithmetic.rationals import exact_value
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.catalogue.balls import OutsideDomain
from tests.core.helpers import DEGREE, RADIAN, plan, read

mpmath.mp.dps = 50

# Line, the same in mpmath, and stretches of x, up to where the function breaks.
REFERENCES = [
    ("sin(x)", mpmath.sin, [(-10, 10), (1e5, 1e6), (-1e-8, 1e-8)]),
    ("cos(x)", mpmath.cos, [(-10, 10), (1e5, 1e6)]),
    ("tan(x)", mpmath.tan, [(-1.5, 1.5), (1.5707, 1.5707963), (1e3, 1e4)]),
    ("arcsin(x)", mpmath.asin, [(-1, 1), (0.999999, 1)]),
    ("arccos(x)", mpmath.acos, [(-1, 1), (0.999999, 1)]),
    ("arctan(x)", mpmath.atan, [(-10, 10), (1e8, 1e9)]),
    ("exp(x)", mpmath.exp, [(-20, 20), (600, 700)]),
    ("ln(x)", mpmath.log, [(1e-300, 1e-290), (0.9, 1.1), (1, 1e6)]),
    ("log(x)", mpmath.log10, [(1e-12, 1), (0.99, 1.01), (1, 1e9)]),
    ("log_2(x)", lambda x: mpmath.log(x, 2), [(1e-12, 1), (1, 1e9)]),
    ("sqrt(x)", mpmath.sqrt, [(0, 1e-12), (0, 100)]),
    ("cbrt(x)", lambda x: _root(x, 3), [(-1e-9, 1e-9), (-1000, 1000)]),
    ("root(5, x)", lambda x: _root(x, 5), [(-1e-200, 1e-200), (-1000, 1000)]),
    ("root(4, x)", lambda x: mpmath.root(x, 4), [(0, 1e-12), (0, 1e9)]),
    ("x^(1/7)", lambda x: _root(x, 7), [(-1e20, 1e20)]),
    ("|x|", abs, [(-3, 3)]),
    ("x^5", lambda x: x**5, [(-10, 10)]),
    ("x^-3", lambda x: x**-3, [(0.001, 0.01), (-10, -1)]),
    ("2.5^x", lambda x: mpmath.mpf("2.5") ** x, [(-20, 20)]),
]
ULPS = 4


def _slope(reference, x):
    with mpmath.workdps(100):
        step = abs(x) * mpmath.mpf("1e-22")
        return (reference(x + step) - reference(x - step)) / (2 * step)


def _root(x, n):
    return mpmath.sign(x) * mpmath.root(abs(x), n)


def _places(stretches, count):
    chance = random.Random(7)
    return [chance.uniform(*stretch) for stretch in stretches for _ in range(count)]


class AgainstMpmath(unittest.TestCase):
    def test_floats_are_within_four_units_in_the_last_place(self):
        for line, reference, stretches in REFERENCES:
            x = np.array(_places(stretches, 1000 // len(stretches)))
            values = float_function(plan(line), RADIAN)(x)
            for place, value in zip(x, values, strict=True):
                true = reference(mpmath.mpf(float(place)))
                error = abs(mpmath.mpf(float(value)) - true)
                self.assertLessEqual(error, ULPS * math.ulp(float(true)), f"{line} at {place!r}")

    def test_balls_contain_the_value_and_the_slope(self):
        for line, reference, stretches in REFERENCES:
            function = BallFunction(plan(line), RADIAN)
            for place in _places(stretches, 12):
                with precision(120), self.subTest(f"{line} at {place!r}"):
                    value, slope = function.taylor(arb(place), 2)
                    true = reference(mpmath.mpf(place))
                    self._contains(value, true)
                    if place not in (0, 1, -1):
                        self._contains(slope, _slope(reference, mpmath.mpf(place)), 1e-20)

    def _contains(self, ball, true, slack=1e-48):
        middle = mpmath.mpf(ball.mid().str(60, radius=False))
        room = mpmath.mpf(float(ball.rad())) + slack * (1 + abs(true))
        self.assertLessEqual(abs(middle - true), room)
        self.assertLess(float(ball.rad()), 1e-20 * (1 + abs(float(true))))

    def test_a_box_encloses_every_value_on_it(self):
        chance = random.Random(3)
        for line, _, stretches in REFERENCES:
            function, floats = BallFunction(plan(line), RADIAN), float_function(plan(line), RADIAN)
            for _ in range(20):
                low, high = sorted(chance.uniform(*stretches[0]) for _ in range(2))
                with precision(53):
                    enclosure = function.value(box(low, high))
                inside = floats(np.linspace(low, high, 50))
                if enclosure.is_finite():
                    bottom, top = float(enclosure.lower()), float(enclosure.upper())
                    slack = 1e-14 * (1 + abs(bottom) + abs(top))
                    self.assertGreaterEqual(inside.min(), bottom - slack, line)
                    self.assertLessEqual(inside.max(), top + slack, line)

    def test_every_entry_has_the_derivative_it_states(self):
        for name, entry in catalogue.ENTRIES.items():
            arguments = entry.word.arguments
            if name == "degrees":
                continue
            # The second place lies where every function of the catalogue is smooth.
            given = {"n": 3.0, "b": 3.0, "x": 0.4}
            call = "log_b(x)" if name == "log_base" else f"{name}({', '.join(arguments)})"
            for argument, text in zip(arguments, entry.derivatives, strict=True):
                if argument == "n":
                    continue
                with self.subTest(f"d {name} / d {argument}"):
                    line = {k: v for k, v in given.items() if k in arguments}
                    fixed = program(read(call, values=arguments).body, tuple(line))
                    stated = program(read(text, values=arguments).body, tuple(line))
                    step = 1e-5
                    up, down = ({**line, argument: line[argument] + s} for s in (step, -step))
                    change = float_value(fixed, RADIAN, *up.values())
                    change -= float_value(fixed, RADIAN, *down.values())
                    self.assertAlmostEqual(
                        change / (2 * step), float_value(stated, RADIAN, *line.values()), 7
                    )


class Degrees(unittest.TestCase):
    def test_exact_at_the_angles_of_the_unit_circle(self):
        for line, value in [
            ("sin 180", 0),
            ("sin 30", 0.5),
            ("cos 90", 0),
            ("cos 60", 0.5),
            ("tan 45", 1),
            ("tan 180", 0),
            ("sin -90", -1),
            ("arcsin 1", 90),
            ("arctan 1", 45),
            ("sin 30°", 0.5),
            ("sin 36000000030", 0.5),
        ]:
            with self.subTest(line):
                self.assertAlmostEqual(float_value(plan(line), DEGREE, 0), value, delta=2e-15)
        self.assertEqual(float_value(plan("sin 180"), DEGREE, 0), 0)

    def test_tangent_of_a_right_angle_is_undefined(self):
        self.assertTrue(math.isnan(float_value(plan("tan 90"), DEGREE, 0)))
        with self.assertRaises(OutsideDomain):
            BallFunction(plan("tan x"), DEGREE).value(arb(90))


class Undefined(unittest.TestCase):
    def test_nothing_outside_the_domain_and_a_reason(self):
        for line, x, reason in [
            ("ln x", -1, "ln is defined only where the number is above 0"),
            ("ln x", 0, "ln is defined only"),
            ("1/x", 0, "divides by 0"),
            ("1/(1/x)", 0, "divides by 0"),
            ("√x", -1, "not negative"),
            ("arcsin x", 1.5, "between −1 and 1"),
            ("x^0.5", -1, "negative number has no such power"),
            ("x^-2", 0, "no negative power"),
            ("0^x", 0, "0 has no such power"),
            ("root(2, x)", -4, "even root"),
            ("root(2.5, x)", 4, "index is whole"),
            ("exp(exp(x))", 10, "too large"),
            ("log_1(x)", 4, "base is not 1"),
        ]:
            with self.subTest(f"{line} at {x}"):
                self.assertFalse(math.isfinite(float_value(plan(line), RADIAN, x)))
                self.assertIn(reason, why_undefined(plan(line), RADIAN, x))
        self.assertIsNone(why_undefined(plan("x^2"), RADIAN, 3))

    def test_balls_never_claim_a_value_where_there_may_be_none(self):
        for line, low, high in [("1/x", -1, 1), ("ln x", -1, 1), ("tan x", 1, 2), ("√x", -1, 1)]:
            value = BallFunction(plan(line), RADIAN).value(box(low, high))
            self.assertFalse(value.is_finite(), line)
        with self.assertRaises(OutsideDomain):
            BallFunction(plan("ln x"), RADIAN).value(box(-3, -2))


class Cost(unittest.TestCase):
    def test_towers_of_powers_answer_at_once(self):
        self.assertEqual(float_value(plan("9^9^9^9^9"), RADIAN, 0), math.inf)
        self.assertIsNone(exact_value(plan("9^9^9"), 0))
        with self.assertRaises(TooLarge):
            plan("x^99999999999")

    def test_long_chains_need_no_recursion(self):
        line = "+".join(["x"] * 900)
        self.assertEqual(float_value(plan(line), RADIAN, 1), 900)
        self.assertEqual(float_value(plan("*".join(["x"] * 900)), RADIAN, 1), 1)
