"""Landmarks against values from elsewhere: exact forms, mpmath, published problems."""

import math

import mpmath
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from axispath.core.arithmetic.floats import float_function, float_value
from axispath.core.arithmetic.interval import End
from axispath.core.search.find import find_zeros
from axispath.core.search.landmark import BREAKS, Certainty, Kind, Method, Reason, Stretch
from tests.case import Case
from tests.core.hard import HARD
from tests.core.helpers import DEGREE, RADIAN, path, plan, read
from tests.core.hunting import disagreements, random_line
from tests.core.published import SMALLEST, zero_problems

PI = math.pi

# Line, interval, zeros, extrema. Exact forms, but for those marked.
KNOWN = [
    ("x^2 - x - 3", -10, 10, [(1 - 13**0.5) / 2, (1 + 13**0.5) / 2], [0.5]),
    ("(x - 1)^2 - 3", -10, 10, [1 - 3**0.5, 1 + 3**0.5], [1]),
    ("x^3 - 2x", -10, 10, [-(2**0.5), 0, 2**0.5], [-((2 / 3) ** 0.5), (2 / 3) ** 0.5]),
    (
        "2 sin(3x)",
        -2,
        4.5,
        [k * PI / 3 for k in range(-1, 5)],
        [(k + 0.5) * PI / 3 for k in range(-2, 4)],
    ),
    (
        "sin(x^2)",
        0.5,
        10,
        [(k * PI) ** 0.5 for k in range(1, 32)],
        [((k + 0.5) * PI) ** 0.5 for k in range(32)],
    ),
    ("(x - 1)^2", -10, 10, [1], [1]),
    ("(x - 1)^2 + 10^-6", -10, 10, [], [1]),
    ("(x - 1)^2 - 10^-6", -10, 10, [0.999, 1.001], [1]),
    ("(x - 2)(x - 2.0001)", -10, 10, [2, 2.0001], [2.00005]),
    ("(x - 3)^3", -10, 10, [3], []),
    ("x^4", -10, 10, [0], [0]),
    ("(x - 0.1)^2", -3, 3, [0.1], [0.1]),
    ("2.6", 0, 24, [], []),
    ("1000000x - 1", -1e6, 1e6, [1e-6], []),
    ("cos x - x", -10, 10, [0.73908513321516064166], []),  # the Dottie number, OEIS A003957
    (
        "x^3 - 2x - 5",
        -10,
        10,
        [2.0945514815423265915],
        [-((2 / 3) ** 0.5), (2 / 3) ** 0.5],
    ),  # Wallis, OEIS A007493
    ("x e^x - 1", -10, 10, [0.56714329040978387300], [-1]),  # omega, OEIS A030178
    ("arctan(100(x - 1))", -10, 10, [1], []),
    ("3.1 + 1.4 sin(2π(x - 2)/12.4)", 0, 24, [], [5.1, 11.3, 17.5, 23.7]),
]


class Known(Case):
    def test_all_landmarks_and_no_others(self):
        for line, low, high, zeros, extrema in KNOWN:
            with self.subTest(line):
                found = path(line, low, high)
                self.assertTrue(found.complete, found.open)
                self._same([m.x for m in found.of(Kind.ZERO)], zeros)
                self._same([m.x for m in found.of(Kind.MAXIMUM, Kind.MINIMUM)], extrema)
                f = float_function(plan(line), RADIAN)
                for mark in found.of(Kind.MAXIMUM, Kind.MINIMUM):
                    beside = f(np.array([mark.x - 1e-3, mark.x + 1e-3])) - mark.y
                    self.assertTrue((beside < 0).all() == (mark.kind is Kind.MAXIMUM), mark)

    def _same(self, found, wanted):
        self.assertEqual(len(found), len(wanted), found)
        for x, true in zip(found, wanted, strict=True):
            self.assertLessEqual(abs(x - true), 4 * math.ulp(max(abs(true), 1e-3)))

    def test_hard_cases_come_out_right(self):
        for line, low, high, wanted in HARD:
            with self.subTest(line):
                found = path(line, low, high, budget=40_000)
                self.assertTrue(found.complete, found.open)
                for kind, places in wanted.items():
                    marks = [m.x for m in found.of(Kind(kind))]
                    true = sorted(float(x) for x in places)
                    self.assertEqual(len(marks), len(true), (kind, marks))
                    for x, place in zip(marks, true, strict=True):
                        self.assertLessEqual(abs(x - place), 4 * math.ulp(max(abs(place), 1e-3)))

    def test_what_happens_on_the_sides_of_a_break(self):
        inf = math.inf
        for line, x, left, right, y in [
            ("1/(x - 1)", 1, -inf, inf, None),
            ("1/x^2", 0, inf, inf, None),
            ("(x^2 - 1)/(x - 1)", 1, 2, 2, 2),
            ("sin(x)/x", 0, 1, 1, 1),
            ("(1 - cos x)/x^2", 0, 0.5, 0.5, 0.5),
            ("floor(x)", 1, 0, 1, 1),
            ("ceil(x)", 1, 1, 2, 1),
            ("e^(1/x)", 0, 0, inf, None),
            ("arctan(1/x)", 0, -PI / 2, PI / 2, None),
            ("|x^2 - 2|/(x^2 - 2)", 2**0.5, -1, 1, None),
            ("|x - 2|", 2, 0, 0, 0),
            ("ln x", 0, None, -inf, None),
            ("x^x", 0, None, 1, None),
            ("(sin(x) - x)/x^3", 0, -1 / 6, -1 / 6, -1 / 6),
            ("(√(1 + x) - 1)/x", 0, 0.5, 0.5, 0.5),
            ("(x^3 - 8)/(x - 2)", 2, 12, 12, 12),
            ("tan(x)", PI / 2, inf, -inf, None),
            ("sin(2x)/cos(x)", PI / 2, 2, 2, 2),
        ]:
            with self.subTest(line):
                marks = path(line, -3, 3, budget=6000).of(*BREAKS)
                mark = min(marks, key=lambda m, x=x: abs(m.x - x))
                self.assertAlmostEqual(mark.x, x, 14)
                for found, true in ((mark.left, left), (mark.right, right)):
                    self.assertTrue(math.isnan(found) if true is None else _near(found, true))
                if y is not None:
                    self.assertAlmostEqual(mark.y, y, 12)

    def test_the_largest_and_smallest_values_are_told_apart(self):
        marks = {round(m.x, 6): m for m in path("x^3 - 3x", -1.5, 3).landmarks}
        self.assertFalse(marks[-1].whole)  # the right end is higher
        self.assertTrue(marks[1].whole)
        self.assertFalse(any(m.whole for m in path("1/x + x", -3, 3).landmarks))

    def test_stretches_of_zero_and_level_ones(self):
        found = path("|x| + x", -2, 2)
        self.assertEqual([(s.low, s.high) for s in found.zero], [(-2, 0)])
        self.assertEqual(path("√(0x)", -3, 3).zero, (Stretch(-3, 3),))
        found = path("(x - x)/(x + 2)", -3, 3)
        self.assertEqual([m.x for m in found.of(Kind.HOLE)], [-2])
        self.assertEqual([(s.low, s.high) for s in found.zero], [(-3, -2), (-2, 3)])
        found = path("|x - 1| + |x + 1|", -3, 3)
        self.assertEqual([(s.low, s.high) for s in found.flat], [(-1, 1)])

    def test_alternate_extrema_are_maxima_and_minima(self):
        kinds = [m.kind for m in path("sin x", 0, 20).of(Kind.MAXIMUM, Kind.MINIMUM)]
        self.assertEqual(kinds, [Kind.MAXIMUM, Kind.MINIMUM] * 3)

    def test_degrees(self):
        found = path("sin x", -10, 400, DEGREE)
        self.assertEqual([m.x for m in found.of(Kind.ZERO)], [0, 180, 360])
        self.assertEqual([m.x for m in found.of(Kind.MAXIMUM, Kind.MINIMUM)], [90, 270])

        poles = path("tan x", -100, 300, DEGREE).of(Kind.POLE)
        self.assertEqual([m.x for m in poles], [-90, 90, 270])

    def test_spans_tell_sign_and_direction(self):
        spans = path("x^2 - 1", -3, 3).spans
        self.assertEqual(
            [(s.sign, s.direction) for s in spans], [(1, -1), (-1, -1), (-1, 1), (1, 1)]
        )
        self.assertEqual({s.bend for s in spans}, {1})

    def test_a_zero_at_the_end_of_a_closed_domain_counts(self):
        end = End(_two_pi(), closed=True, of_domain=True)
        closed = find_zeros(plan("sin x"), RADIAN, End.at(1), end)
        self.assertEqual(
            [round(m.x, 12) for m in closed.landmarks], [round(PI, 12), round(2 * PI, 12)]
        )
        end = End(_two_pi(), closed=False, of_domain=True)
        half_open = find_zeros(plan("sin x"), RADIAN, End.at(1), end)
        self.assertEqual(len(half_open.landmarks), 1)


def _near(found, true):
    return found == true or abs(found - true) < 1e-12


def _two_pi():
    from flint import arb

    from axispath.core.arithmetic.balls import precision

    with precision(200):
        return 2 * arb.pi()


class Certainties(Case):
    def test_what_is_proven_exact_and_approached(self):
        for line, low, high, certainty in [
            ("x^2 - 2", 0, 3, Certainty.PROVEN),
            ("x^2 - 4", 0, 3, Certainty.EXACT),
            ("(x - 1/3)^2", 0, 3, Certainty.EXACT),
            ("(x - √2)^2", 0, 3, Certainty.PROVEN),  # a factor crosses
            ("1 + sin x", -3, 3, Certainty.EXACT),  # sin(−π/2) is −1
            ("1 + sin(x + √2)", -4, 0, Certainty.APPROACHED),
        ]:
            with self.subTest(line):
                (mark,) = path(line, low, high).of(Kind.ZERO)
                self.assertEqual(mark.certainty, certainty)

    def test_the_bracket_holds_the_true_place(self):
        (mark,) = path("e^x - 3", -5, 5).of(Kind.ZERO)
        true = mpmath.log(3)
        self.assertLess(mark.low, true)
        self.assertGreater(mark.high, true)
        self.assertEqual(mark.x, float(true))

    def test_where_something_is_not_handled_it_stays_open(self):
        for line, low, high, place in [
            ("1/(1 + x ln x)", 0, 2, 0),
            ("sin(ln x)", -1, 1, 0),
            ("gamma(sin(1/x))", -1, 1, 0),
        ]:
            with self.subTest(line):
                found = path(line, low, high, budget=2000)
                self.assertFalse(found.complete)
                self.assertTrue(any(o.low <= place <= o.high for o in found.open), found.open)

    def test_a_wild_place_leaves_the_rest_settled(self):
        found = path("x sin(1/x)", -1, 1, budget=3000)
        self.assertFalse(found.complete)
        zeros = [m.x for m in found.of(Kind.ZERO) if m.x > 0.05]
        wanted = [1 / (k * PI) for k in range(6, 0, -1)]
        self.assertEqual([round(x, 12) for x in zeros], [round(x, 12) for x in wanted])
        self.assertTrue(all(abs(o.low) < 0.05 and abs(o.high) < 0.05 for o in found.open))

    def test_a_pole_is_no_zero(self):
        self.assertEqual(path("1/x", -1, 1).of(Kind.ZERO), ())
        self.assertEqual(len(path("tan x", -4, 4).of(Kind.ZERO)), 3)

    def test_undefined_stretches(self):
        found = path("√x", -4, -1)
        self.assertEqual([(s.low, s.high) for s in found.undefined], [(-4, -1)])
        self.assertIn("not negative", found.undefined[0].why)
        self.assertEqual(found.spans, ())

    def test_a_single_place_at_which_a_function_lives(self):
        found = path("√(x^(2/3) + floor(x))", -3, -0.5)
        self.assertEqual([(s.low, s.high) for s in found.undefined], [(-3, -1), (-1, -0.5)])
        self.assertEqual([m.x for m in found.of(Kind.ZERO, Kind.END)], [-1, -1])

    def test_a_small_budget_leaves_the_rest_open(self):
        found = path("sin(1000x)", -10, 10, budget=200)
        self.assertFalse(found.complete)
        self.assertEqual({o.reason for o in found.open}, {Reason.BUDGET})

    def test_zero_throughout(self):
        found = path("0x", -2, 2)
        self.assertEqual([(s.low, s.high) for s in found.zero], [(-2, 2)])
        self.assertEqual(found.of(Kind.ZERO), ())


class Published(Case):
    def test_the_zeros_of_alefeld_potra_and_shi(self):
        problems = list(zero_problems())
        self.assertEqual(len(problems), 154)
        for name, line, theirs, low, high, root in problems:
            with self.subTest(name, line=line):
                f = float_function(plan(line), RADIAN)
                for x in np.linspace(low, high, 7)[1:-1]:  # the line says what they say
                    wanted = float(theirs(x))
                    self.assertAlmostEqual(f(np.array([x]))[0], wanted, delta=1e-9 * abs(wanted))
                found = path(line, low, high, budget=20_000)
                zeros = found.of(Kind.ZERO)
                self.assertEqual(len([m for m in zeros if abs(m.x - root) < 1e-7]), 1, zeros)
                self.assertEqual(found.open, ())
                for mark in zeros:
                    self.assertTrue(_crosses(theirs, mark.x, low, high), mark)

    def test_the_smallest_values_of_published_functions(self):
        for line, low, high, place, height in SMALLEST:
            with self.subTest(line):
                ends = [float_value(plan(end), RADIAN, 0.0) for end in (low, high)]
                found = path(line, *ends, budget=40_000)
                self.assertTrue(found.complete, found.open)
                best = [m for m in found.of(Kind.MINIMUM) if m.whole]
                self.assertAlmostEqual(min(m.y for m in best), height, delta=6e-5 * max(1, -height))
                if place is not None:
                    self.assertAlmostEqual(best[0].x, place, delta=5e-4)


def _crosses(function, x, low, high):
    """Whether the sign changes at x, or the value there is as good as 0."""
    step = max(abs(x) * 1e-9, 1e-9)
    before, after = function(max(x - step, low)), function(min(x + step, high))
    return before * after <= 0


COEFFICIENTS = st.integers(-9, 9)
SMOOTH = st.recursive(
    st.one_of(st.just("x"), st.integers(-5, 5).map(str)),
    lambda inner: st.one_of(
        st.tuples(inner, st.sampled_from(["+", "-", "*"]), inner).map(
            lambda t: f"({t[0]}){t[1]}({t[2]})"
        ),
        st.tuples(st.sampled_from(["sin", "cos", "exp", "arctan"]), inner).map(
            lambda t: f"{t[0]}({t[1]})"
        ),
        inner.map(lambda t: f"({t})^2"),
    ),
    max_leaves=6,
)


class Searches(Case):
    def test_a_root_at_an_exact_zero_is_no_false_alarm(self):
        # The float of sin(π + 0) is 1.2e-16, and its cube root is not small.
        found = disagreements("cbrt(sin((π)+(x)))", -3, 3, 4001)
        self.assertEqual(found.faults, [])

    @given(st.lists(st.integers(-40, 40), min_size=1, max_size=6))
    @settings(max_examples=60, deadline=None)
    def test_polynomials_have_the_zeros_they_were_made_from(self, tenths):
        line = "*".join(f"(x - {t / 10})" if t >= 0 else f"(x + {-t / 10})" for t in tenths)
        found = path(line, -5, 5)
        self.assertTrue(found.complete)
        wanted = sorted({t / 10 for t in tenths})
        zeros = [m.x for m in found.of(Kind.ZERO)]
        self.assertEqual(len(zeros), len(wanted), (zeros, wanted))
        for x, true in zip(zeros, wanted, strict=True):
            self.assertAlmostEqual(x, true, 13)

    @given(st.randoms(use_true_random=False))
    @settings(max_examples=300, deadline=None)
    def test_random_functions_with_breaks_agree_with_a_scan(self, chance):
        line = random_line(chance)
        found = disagreements(line, -3.1, 3.3, samples=4001, budget=1500)
        self.assertEqual(found.faults if found else [], [], line)

    @given(SMOOTH)
    @settings(max_examples=150, deadline=None)
    def test_a_dense_scan_finds_no_sign_change_that_the_path_lacks(self, line):
        found = path(line, -3.1, 3.3, budget=3000)
        x = np.linspace(-3.1, 3.3, 4001)
        y = float_function(plan(line), RADIAN)(x)
        # Next to a multiple zero the sign of a float is noise.
        y[np.abs(y) < 1e-10] = 0
        at = np.flatnonzero(np.sign(y[:-1]) * np.sign(y[1:]) < 0)
        zeros = np.array([m.x for m in found.of(Kind.ZERO)])
        for left, right in zip(x[at], x[at + 1], strict=True):
            if any(o.low <= right and o.high >= left for o in found.open):
                continue
            inside = ((zeros >= left) & (zeros <= right)).sum()
            self.assertEqual(inside % 2, 1, f"{line}: {inside} zeros in [{left}, {right}]")

    @given(SMOOTH)
    @settings(max_examples=100, deadline=None)
    def test_every_zero_claimed_is_one(self, line):
        f = BIG(line)
        for mark in path(line, -3.1, 3.3, budget=3000).of(Kind.ZERO):
            if mark.method is Method.CROSSING:
                before, after = f(mpmath.mpf(mark.low)), f(mpmath.mpf(mark.high))
                self.assertLess(before * after, 0, f"{line} at {mark}")
            else:
                self.assertLess(abs(f(mpmath.mpf(mark.x))), 1e-12, f"{line} at {mark}")


def BIG(line):
    """The line as a function of mpmath numbers, by a walk over the tree of its own."""
    from axispath.core.language import tree as t

    def value(node, x):
        match node:
            case t.Number(text):
                return mpmath.mpf(text)
            case t.Name():
                return x
            case t.Negation(operand):
                return -value(operand, x)
            case t.Sum(terms):
                return mpmath.fsum(value(term, x) for term in terms)
            case t.Product(left, right):
                return value(left, x) * value(right, x)
            case t.Power(base, exponent):
                return value(base, x) ** int(value(exponent, x))
            case t.Apply(name, (argument,)):
                real = {"arctan": mpmath.atan}.get(name) or getattr(mpmath, name)
                return real(value(argument, x))
        raise AssertionError(node)

    body = read(line).body
    return lambda x: value(body, x)
