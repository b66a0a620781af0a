"""The three arithmetics against mpmath at 50 digits, which shares no code with them."""

import math
import random

import mpmath
import numpy as np
from flint import arb, arb_series
from hypothesis import given
from hypothesis import strategies as some

from axispath.core import catalogue
from axispath.core.arithmetic.balls import BallFunction, box, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_function, float_value
from axispath.core.arithmetic.program import Definition, NotComputable, TooLarge
from axispath.core.arithmetic.rationals import exact_value
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.landmark import Kind
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN, path, plan, read

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
    ("sec(x)", mpmath.sec, [(-1.5, 1.5), (2, 4)]),
    ("csc(x)", mpmath.csc, [(0.001, 3.1)]),
    ("cot(x)", mpmath.cot, [(0.001, 3.1)]),
    ("arcsec(x)", mpmath.asec, [(1.000001, 1.001), (2, 100), (-100, -2)]),
    ("arccsc(x)", mpmath.acsc, [(1.000001, 1.001), (2, 100), (-100, -2)]),
    ("arccot(x)", lambda x: mpmath.pi / 2 - mpmath.atan(x), [(-10, 10), (1e5, 1e6)]),
    ("arctan2(x, -1)", lambda x: mpmath.atan2(x, -1), [(0.001, 10), (-10, -0.001)]),
    ("sinh(x)", mpmath.sinh, [(-10, 10), (-1e-6, 1e-6)]),
    ("cosh(x)", mpmath.cosh, [(-10, 10)]),
    ("tanh(x)", mpmath.tanh, [(-10, 10), (-1e-6, 1e-6)]),
    ("arsinh(x)", mpmath.asinh, [(-10, 10), (1e5, 1e6)]),
    ("arcosh(x)", mpmath.acosh, [(1.0001, 2), (2, 1e6)]),
    ("artanh(x)", mpmath.atanh, [(-0.999, 0.999)]),
    ("gamma(x)", mpmath.gamma, [(0.1, 20), (-4.9, -4.1)]),
    ("erf(x)", mpmath.erf, [(-3, 3), (-1e-6, 1e-6)]),
    ("normalpdf(x)", mpmath.npdf, [(-30, 30)]),
    ("normalcdf(x)", mpmath.ncdf, [(-30, -5), (-5, 5)]),
    ("normalcdf(x, 2, 3)", lambda x: mpmath.ncdf(x, 2, 3), [(-9, 12)]),
    ("polygamma(2, x)", lambda x: mpmath.polygamma(2, x), [(0.1, 20), (-4.9, -4.1)]),
    ("mean(x, 1, x^2)", lambda x: (x + 1 + x * x) / 3, [(0.1, 9)]),
    ("median(x, 3, x + 4)", lambda x: sorted((x, 3, x + 4))[1], [(-9, 9)]),
    ("min(x, 2 - x)", lambda x: min(x, 2 - x), [(-3, 0.9), (1.1, 4)]),
    ("variance(x, 2x, 7)", lambda x: _variance(x, 2 * x, 7), [(10, 99), (-9, 1)]),
    ("deviation(x, 2x, 7)", lambda x: mpmath.sqrt(_variance(x, 2 * x, 7)), [(10, 99), (-9, 1)]),
    ("round(x, 2)", lambda x: mpmath.floor(x * 100 + 0.5) / 100, [(0.1, 1)]),
    ("max(x, 1)", lambda x: max(x, 1), [(-3, 0.9), (1.1, 4)]),
    ("mod(x, 3)", lambda x: x - 3 * mpmath.floor(x / 3), [(0.1, 2.9), (7, 8)]),
    ("floor(x)", mpmath.floor, [(0.1, 0.9), (-3.9, -3.1)]),
]
WHOLE = [
    ("x!", mpmath.factorial, range(0, 171)),
    ("binomial(50, x)", lambda k: mpmath.binomial(50, k), range(0, 51)),
    ("gcd(x, 84)", lambda n: math.gcd(int(n), 84), range(-40, 200)),
    ("lcm(x, 6)", lambda n: math.lcm(int(n), 6), range(-40, 200)),
    ("ceil(x/4)", lambda n: mpmath.ceil(n / 4), range(-20, 20)),
    ("sign(x)", mpmath.sign, range(-3, 4)),
    ("round(x/2)", lambda n: mpmath.sign(n) * mpmath.floor(abs(n) / 2 + 0.5), range(-9, 9)),
]
ULPS = 4


def _slope(reference, x):
    with mpmath.workdps(100):
        step = abs(x) * mpmath.mpf("1e-22")
        return (reference(x + step) - reference(x - step)) / (2 * step)


def _variance(*values):
    mean = mpmath.fsum(values) / len(values)
    return mpmath.fsum((v - mean) ** 2 for v in values) / (len(values) - 1)


def _root(x, n):
    return mpmath.sign(x) * mpmath.root(abs(x), n)


def _places(stretches, count):
    chance = random.Random(7)
    return [chance.uniform(*stretch) for stretch in stretches for _ in range(count)]


# What is enclosed by its values at both ends, and between which ends it is tried.
HYPERBOLIC = {
    "tanh": (mpmath.tanh, -6, 6),
    "arsinh": (mpmath.asinh, -6, 6),
    "arcosh": (mpmath.acosh, 1.001, 9),
    "artanh": (mpmath.atanh, -0.99, 0.99),
}


class AgainstMpmath(Case):
    def test_floats_are_within_four_units_in_the_last_place(self):
        for line, reference, stretches in REFERENCES:
            x = np.array(_places(stretches, 1000 // len(stretches)))
            values = float_function(plan(line), RADIAN)(x)
            for place, value in zip(x, values, strict=True):
                true = reference(mpmath.mpf(float(place)))
                error = abs(mpmath.mpf(float(value)) - true)
                self.assertLessEqual(error, ULPS * math.ulp(float(true)), f"{line} at {place!r}")

    def test_functions_of_whole_numbers(self):
        for line, reference, places in WHOLE:
            function = BallFunction(plan(line), RADIAN)
            for n in places:
                true = mpmath.mpf(reference(mpmath.mpf(n)))
                self.assertEqual(float_value(plan(line), RADIAN, n), float(true), f"{line} at {n}")
                with precision(400):
                    self.assertTrue(function.value(arb(n)).contains(arb(str(true))) or n > 30)

    def test_halves_go_away_from_zero_as_they_were_typed(self):
        for text, rounded in (("2.675", 2.68), ("-2.675", -2.68), ("1.005", 1.01), ("0.5", 1)):
            places = 0 if text == "0.5" else 2
            self.assertEqual(float_value(plan(f"round({text}, {places})"), RADIAN, 0.0), rounded)
        self.assertEqual(float_value(plan("round(2.67499, 2)"), RADIAN, 0.0), 2.67)

    def test_a_jump_is_never_enclosed_as_if_it_were_none(self):
        for line in ("floor(x)", "ceil(x)", "round(x - 1/2)", "sign(x - 2)", "mod(x, 2)", "x!"):
            value = BallFunction(plan(line), RADIAN).value(box(1.9, 2.1))
            self.assertFalse(value.is_finite(), line)

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

    @given(
        some.sampled_from(sorted(HYPERBOLIC)),
        some.tuples(some.floats(0, 1), some.floats(0, 1)),
        some.floats(0, 1),
    )
    def test_wide_boxes_enclose_the_derivatives_of_hyperbolic_functions(self, name, ends, where):
        of, low, high = HYPERBOLIC[name]
        a, b = sorted(low + share * (high - low) for share in ends)
        with precision(53):
            found = catalogue.ENTRIES[name].ball(arb_series([box(a, b), arb(1)], 4))
        at = mpmath.mpf(a) + mpmath.mpf(where) * (mpmath.mpf(b) - mpmath.mpf(a))
        for k, wanted in enumerate(mpmath.taylor(of, at, 3)):
            if found[k].is_finite():
                self.assertTrue(found[k].overlaps(arb(mpmath.nstr(wanted, 40), 1e-30)))

    def test_inverses_of_hyperbolic_functions_are_searched_whole(self):
        # At the zeros of x³ − x, and where 3x² = 1; arsinh rises.
        found = path("arsinh(x^3 - x)", -10, 10)
        self.assertTrue(found.complete)
        zeros = [one.x for one in found.landmarks if one.kind is Kind.ZERO]
        self.assertEqual([round(x, 12) for x in zeros], [-1, 0, 1])
        turns = [one.x for one in found.landmarks if one.kind in (Kind.MAXIMUM, Kind.MINIMUM)]
        inner = [x for x in turns if abs(x) < 9]
        self.assertEqual([round(x, 12) for x in inner], [round(s / 3**0.5, 12) for s in (-1, 1)])

    def test_every_entry_has_the_derivative_it_states(self):
        checked = 0
        for name, entry in catalogue.ENTRIES.items():
            if name == "degrees" or not entry.derivatives:
                continue
            # A place where every function of the catalogue is smooth, or one of its own.
            given = {"n": 3.0, "b": 3.0, "x": 0.4, "y": 0.3, "a": 7.3}
            given |= {"mean": 0.2, "deviation": 1.3, "places": 1.0}
            if name in ("arcsec", "arccsc", "arcosh"):
                given["x"] = 1.7
            given = {k: given[k] for k in entry.word.arguments}
            call = "log_b(x)" if name == "log_base" else f"{name}({', '.join(given)})"
            for argument, text in zip(given, entry.derivatives, strict=True):
                if argument == "n" or not text:
                    continue
                with self.subTest(f"d {name} / d {argument}"):
                    function, stated = (
                        program(read(line, values=given).body, tuple(given))
                        for line in (call, text)
                    )
                    step = 1e-5
                    up, down = ({**given, argument: given[argument] + s} for s in (step, -step))
                    change = float_value(function, RADIAN, *up.values())
                    change -= float_value(function, RADIAN, *down.values())
                    slope = float_value(stated, RADIAN, *given.values())
                    room = 1e-8 * max(1, abs(slope))
                    self.assertAlmostEqual(change / (2 * step), slope, delta=5 * room)
                    checked += 1
        self.assertGreaterEqual(checked, 35)


class Derivatives(Case):
    LINES = (
        "x^3 - 2x",
        "x sin(x)",
        "variance(x, x^2, 3) + deviation(2x, 1, x^3)",
        "median(x, x^2, 3)",
        "digamma(x + 3)",
        "x^2/(1 + x)",
        "2^x",
        "x^x",
        "(x^2 + 1)^2.5",
        "x^(1/3)",
        "√(1 + x^2)",
        "e^(-x^2)",
        "ln(x)/x",
        "x^2 if x < 1, 2x otherwise",
        "sum(x^k/k! for k = 0 to 6)",
        "|x - 3|",
        "arctan2(x, 2)",
        "max(x, x^2, 0.1)",
        "product(x, x + 1, 3)",
        "mean([x, x^3, 2])",
        "round(x)",
        "normalcdf(2x)",
    )

    def test_primes_against_the_series_of_the_ball_arithmetic(self):
        for line in self.LINES:
            for unit in (RADIAN, DEGREE):
                definition = read(f"f(x) = {line}")
                known = {"f": Definition(definition.parameters, definition.body, None)}
                taylor = BallFunction(plan(line), unit).taylor(arb(0.7), 3)
                for order, factor in ((1, 1), (2, 2)):
                    call = read("f" + "'" * order + "(x)", functions={"f": 1}).body
                    found = float_value(program(call, ("x",), known), unit, 0.7)
                    wanted = float(taylor[order].mid()) * factor
                    self.assertAlmostEqual(found, wanted, delta=1e-9 * (1 + abs(wanted)), msg=line)

    def test_a_derivative_is_undefined_where_the_function_is(self):
        known = {"f": Definition(("x",), read("ln x").body, None)}
        slope = program(read("f'(x)", functions={"f": 1}).body, ("x",), known)
        self.assertEqual(float_value(slope, RADIAN, 2), 0.5)
        self.assertTrue(math.isnan(float_value(slope, RADIAN, -2)))


class Degrees(Case):
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


class Undefined(Case):
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
            ("x!", 2.5, "whole and not negative"),
            ("gamma(x)", -2, "not 0"),
            ("arcsec x", 0.5, "at least 1"),
            ("arcosh x", 0.5, "at least 1"),
            ("artanh x", 1, "between −1 and 1"),
            ("mod(3, x)", 0, "divisor is not 0"),
            ("arctan2(x, x)", 0, "not the origin"),
            ("gcd(x, 2)", 1.5, "whole"),
            ("1 if x > 0", -1, "none of its cases"),
            ("1/x if x > -5, 2 otherwise", 0, "divides by 0"),
        ]:
            with self.subTest(f"{line} at {x}"):
                self.assertFalse(math.isfinite(float_value(plan(line), RADIAN, x)))
                self.assertIn(reason, why_undefined(plan(line), RADIAN, x))
        self.assertIsNone(why_undefined(plan("x^2"), RADIAN, 3))

    def test_nothing_makes_an_undefined_part_disappear(self):
        lines = ("0 ln x", "(x - x) ln x", "ln(x)^0", "round(x/9) ln(x)", "min(ln x, 3)")
        for line in lines:
            function = BallFunction(plan(line), RADIAN)
            with self.subTest(line):
                self.assertFalse(function.value(box(-1, 1)).is_finite())
                self.assertFalse(function.taylor(box(-1, 1), 3)[0].is_finite())
                found = path(line, -1, 1)
                self.assertEqual([s for s in found.spans if s.low < 0], [])
                self.assertEqual([s for s in found.zero if s.low < -1e-6], [])
                with self.assertRaises(OutsideDomain):
                    BallFunction(plan("ln x"), RADIAN).value(box(-2, -1))

    def test_balls_never_claim_a_value_where_there_may_be_none(self):
        for line, low, high in [("1/x", -1, 1), ("ln x", -1, 1), ("tan x", 1, 2), ("√x", -1, 1)]:
            value = BallFunction(plan(line), RADIAN).value(box(low, high))
            self.assertFalse(value.is_finite(), line)
        with self.assertRaises(OutsideDomain):
            BallFunction(plan("ln x"), RADIAN).value(box(-3, -2))


class Cost(Case):
    def test_towers_of_powers_answer_at_once(self):
        self.assertEqual(float_value(plan("9^9^9^9^9"), RADIAN, 0), math.inf)
        self.assertIsNone(exact_value(plan("9^9^9"), 0))
        with self.assertRaises(TooLarge):
            plan("x^99999999999")

    def test_long_lists_and_sums_are_refused_before_they_are_computed(self):
        for line in (
            "sum(k for k = 1 to 10^9)",
            "sum(steps(0, 1, 10^-7))",
            "max(spread(0, 1, 10^6))",
        ):
            with self.assertRaises(TooLarge):
                plan(line)
        for line, told in [
            ("[1, 2] + [1, 2, 3]", "Lists of 2 and of 3"),
            ("sum([])", "at least one value"),
            ("sum(k for k = 1 to x)", "fixed number"),
            ("sum(k for k = 1 to 2.5)", "whole number to a whole number"),
            ("spread(0, 1, 1)", "2 or more"),
            ("steps(0, 1, 0)", "must not be 0"),
            ("1 if [1, 2] > 0, 2 otherwise", "one number is needed"),
        ]:
            with self.subTest(line), self.assertRaisesRegex(NotComputable, told):
                plan(line)

    def test_long_chains_need_no_recursion(self):
        line = "+".join(["x"] * 900)
        self.assertEqual(float_value(plan(line), RADIAN, 1), 900)
        self.assertEqual(float_value(plan("*".join(["x"] * 900)), RADIAN, 1), 1)
