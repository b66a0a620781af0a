"""Whatever is said with certainty, against values and sets known by hand or from mpmath."""

import itertools
import math
import random
import unittest
from fractions import Fraction

import numpy as np
from mpmath import mp, mpf

from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.interval import End
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import Effort, path_of
from axispath.core.path.survey import crossings
from axispath.core.search.budget import Budget
from axispath.core.search.exact_forms import asked_for, asymptotes, exact_forms
from axispath.core.search.find import find_path
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document, Lane, View
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.resolve import resolve
from axispath.core.solve.answer import answer
from axispath.core.solve.question import ask
from axispath.core.solve.words import verdict
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN, path, plan

EFFORT = Effort(evaluations=20_000)
LINE = ("-∞", "∞")

# A question, its interval, the lanes of its sheet, and the set in words.
INEQUALITIES = [
    # Borders far out on the whole line.
    ("x > 100", *LINE, (), "(100, ∞)"),
    ("x >= -4000", *LINE, (), "[−4000, ∞)"),
    ("x^2 - 50x + 600 > 0", *LINE, (), "(−∞, 20) ∪ (30, ∞)"),
    ("x^2 - 50x + 600 <= 0", *LINE, (), "[20, 30]"),
    ("1/x <= 0.01", *LINE, (), "(−∞, 0) ∪ [100, ∞)"),
    ("1/x > 0.0001", *LINE, (), "(0, 10000)"),
    ("|x - 20| > x - 20", *LINE, (), "(−∞, 20)"),
    ("|x - 20| >= 5", *LINE, (), "(−∞, 15] ∪ [25, ∞)"),
    ("√x < 10", *LINE, (), "[0, 100)"),
    ("√(x - 20) >= 0", *LINE, (), "[20, ∞)"),
    ("ln x > 5", *LINE, (), f"({math.exp(5):.6g}, ∞)"),
    ("2^x <= 1024", *LINE, (), "(−∞, 10]"),
    ("x^3 > 8000", *LINE, (), "(20, ∞)"),
    ("(x - 16)(x + 16) < 0", *LINE, (), "(−16, 16)"),
    ("16 <= x", *LINE, (), "[16, ∞)"),
    ("(x - 17)^2 <= 0", *LINE, (), "{17}"),
    ("(x + 300)^2 > 0", *LINE, (), "(−∞, −300) ∪ (−300, ∞)"),
    ("50 < x <= 60", *LINE, (), "(50, 60]"),
    ("x - 10^6 < 0", *LINE, (), "(−∞, 1000000)"),
    ("1/(x - 40) < 1/(x - 30)", *LINE, (), "(30, 40)"),
    # Ends of the interval at which something happens.
    ("floor(x) <= 2", "0", "3", (), "[0, 3)"),
    ("ceil(x) = 1", "0", "1", (), None),
    ("ceil(x) < 1", "0", "1", (), "{0}"),
    ("sin(x)/x > 0", "0", "3", (), "(0, 3]"),
    ("sign(x) < 1", "0", "5", (), "{0}"),
    ("sign(x) >= 0", "-5", "0", (), "{0}"),
    ("1/x > 0", "0", "1", (), "(0, 1]"),
    ("x/x > 0", "0", "1", (), "(0, 1]"),
    ("√(x/x) < 9", "-1", "1", (), "[−1, 0) ∪ (0, 1]"),
    ("|x/x| > 0", "-1", "1", (), "[−1, 0) ∪ (0, 1]"),
    ("√(x^2/x) < 1", "-2", "2", (), "(0, 1)"),
    ("ln x <= 0", "0", "1", (), "(0, 1]"),
    ("tan x > 0", "0", "π/2", (), "(0, 1.5708)"),
    ("mod(x, 1) < 1/2", "0", "1", (), "[0, 0.5) ∪ {1}"),
    # A value at one place alone, and isolated places of the domain.
    ("f(x) > 4", "-3", "3", ("f(x) = 5 if x = 1, x^2 otherwise",), "[−3, −2) ∪ {1} ∪ (2, 3]"),
    ("f(x) < 1", "-3", "3", ("f(x) = 5 if x = 0, x^2 otherwise",), "(−1, 0) ∪ (0, 1)"),
    ("f(x) <= 0", "-3", "3", ("f(x) = 0 if x = 2, x^2 otherwise",), "{0} ∪ {2}"),
    ("√(x - 1) >= √(1 - x)", "-5", "5", (), "{1}"),
    ("√(cos x - 1) >= 0", "-1", "1", (), "{0}"),
    ("√(-x^2) >= 0", "-1", "1", (), "{0}"),
    ("√(x - 1) >= 0", "-5", "1", (), "{1}"),
    ("√(x - 1) >= 0", "-5", "5", (), "[1, 5]"),
    # Ends of a domain inside the interval.
    ("f(x) < 1", "-5", "5", ("f(x) = x for 0 < x < 2",), "(0, 1)"),
    ("f(x) < 1", "-5", "5", ("f(x) = x for 0 <= x < 2",), "[0, 1)"),
    ("f(x) > 1", "-5", "5", ("f(x) = x for 0 <= x < 2",), "(1, 2)"),
    ("f(x) > 1", "-5", "5", ("f(x) = x for 0 <= x <= 2",), "(1, 2]"),
    ("f(x) > 1", *LINE, ("f(x) = x for x > 20",), "(20, ∞)"),
    # Cases without “otherwise”.
    ("f(x) < 1", "-5", "5", ("f(x) = x if 0 < x < 2",), "(0, 1)"),
    ("f(x) >= 0", "-5", "5", ("f(x) = x if x <= 1",), "[0, 1]"),
    ("f(x) >= 0", "-5", "5", ("f(x) = x if x < 1",), "[0, 1)"),
    ("f(x) > 0", *LINE, ("f(x) = 1 if x > 30, -1 if x < 20",), "(30, ∞)"),
]

# An equation, its interval, the lanes, and its solutions as mpmath evaluates them.
EQUATIONS = [
    ("(x^2 - 256)/(x - 16) = 30", *LINE, (), ["14"]),
    ("3^x = 81", *LINE, (), ["4"]),
    ("e^x = 5x", *LINE, (), ["-lambertw(mpf(-1)/5)", "-lambertw(mpf(-1)/5, -1)"]),
    ("cosh x = 2", *LINE, (), ["-acosh(2)", "acosh(2)"]),
    ("sin x = x", *LINE, (), ["0"]),
    ("tan x = x", "-4", "4", (), ["0"]),
    ("e^x = x + 1", *LINE, (), ["0"]),
    ("2^x = 1024", *LINE, (), ["10"]),
    ("ln x = 5", *LINE, (), ["exp(5)"]),
    ("x! = 120", "0", "10", (), ["5"]),
    ("√(x - 1) = √(1 - x)", "-5", "5", (), ["1"]),
    ("√(cos x - 1) = 0", "-1", "1", (), ["0"]),
    ("√(x - 1) = 0", "-5", "1", (), ["1"]),
    ("√(x - 20) = √(20 - x)", *LINE, (), ["20"]),
    ("f(x) = 5", "-3", "3", ("f(x) = 5 if x = 1, x^2 otherwise",), ["-sqrt(5)", "1", "sqrt(5)"]),
    ("max(x, x) = 1/2", "-3", "3", (), ["mpf(1)/2"]),
    ("x^3 = 10^9", *LINE, (), ["1000"]),
    ("(x - 100)^2 = 0", *LINE, (), ["100"]),
    ("sin x = 1/2", "0", "2π", (), ["pi/6", "5*pi/6"]),
    ("sinx = 1/2", "0", "3", (), ["pi/6", "5*pi/6"]),
    ("2sinx = 1", "0", "3", (), ["pi/6", "5*pi/6"]),
    ("xe^x = 1", *LINE, (), ["lambertw(1)"]),
    ("sin(πx) = 1/2", "0", "1", (), ["mpf(1)/6", "mpf(5)/6"]),
    ("ax = 6", *LINE, ("a = 2",), ["3"]),
    ("e^x = ex", *LINE, (), ["1"]),
    ("tanh(1/x) = 1/2", *LINE, (), ["1/atanh(mpf(1)/2)"]),
]

# No solutions, and where the sides come closest or what they tend to.
NONE = [
    ("(x - 100)^2 = -1", *LINE, "closest at x = 100, 1 apart"),
    ("(x + 5000)^2 = -3", *LINE, "closest at x = −5000, 3 apart"),
    ("(x^2 - 256)/(x - 16) = 32", *LINE, "never meet"),
    ("e^x = 0", *LINE, "ever closer towards −∞"),
    ("x/(x - 1) = 1/(x - 1)", *LINE, "1 apart"),
    ("arctan x = 2", *LINE, "towards ∞"),
    ("cosh x = 1/2", *LINE, "closest at x = 0, 0.5 apart"),
    ("1/x = 0", *LINE, "ever closer towards"),
]

# The sides are the same: wherever both are defined, or on some stretches.
ALWAYS = [
    ("√(x + 1) = √(x + 1)", "-5", "5"),
    ("sin(x)^2 + cos(x)^2 = 1", *LINE),
    ("cosh(x)^2 - sinh(x)^2 = 1", *LINE),
    ("sin(2x) = 2 sin(x) cos(x)", *LINE),
    ("cos(2x) = 1 - 2 sin(x)^2", *LINE),
    ("ln(x^2) = 2 ln|x|", "-5", "5"),
    ("(x + 1)^3 = x^3 + 3x^2 + 3x + 1", *LINE),
    ("|x - 20| = |20 - x|", *LINE),
    ("x/x = 1", *LINE),
    ("e^(2x) = (e^x)^2", *LINE),
    ("sin(x + π) = -sin(x)", *LINE),
    ("tan(x) = sin(x)/cos(x)", "-1", "1"),
    ("arcsin(sin x) = x", "-1", "1"),
]
STRETCHES = [
    ("|x - 20| = x - 20", *LINE, "[20, ∞)"),
    ("√(x^2) = x", "-5", "5", "[0, 5]"),
    ("ceil(x) = 1", "0", "1", "(0, 1]"),
    ("floor(x) = 2", *LINE, "[2, 3)"),
    ("sign(x) = 1", "-5", "5", "(0, 5]"),
    ("round(x) = 2", *LINE, "[1.5, 2.5)"),
    ("max(x, 1) = 1", "-5", "5", "[−5, 1]"),
]


def told(text, low, high, lanes=(), unit=RADIAN, effort=EFFORT):
    """The answer to a question, and what is said of it."""
    document = Document(
        lanes=tuple(Lane(id=f"l{k}", text=line) for k, line in enumerate(lanes)), unit=unit
    )
    question = ask(document, text, "")
    ends = [None if e.strip("-") == "∞" else typed_end(document, e) for e in (low, high)]
    found = answer(question, *ends, effort)
    return found, verdict(question, found, 6)


def known(text):
    """A number written for mpmath."""
    names = ("pi", "sqrt", "log", "exp", "lambertw", "acosh", "atanh", "mpf")
    return mp.mpmathify(eval(text, {}, {name: getattr(mp, name) for name in names}))


class Solving(Case):
    def test_solution_sets(self):
        for text, low, high, lanes, wanted in INEQUALITIES:
            with self.subTest(text, lanes=lanes):
                found, words = told(text, low, high, lanes)
                self.assertTrue(found.complete, words)
                if wanted is not None:
                    self.assertIn(f"{wanted}.", words[0])

    def test_solutions(self):
        for text, low, high, lanes, wanted in EQUATIONS:
            with self.subTest(text):
                found, words = told(text, low, high, lanes)
                self.assertTrue(found.complete, words)
                self.assertEqual(len(found.solutions), len(wanted), words)
                for solution, value in zip(found.solutions, map(known, wanted), strict=True):
                    error = abs(mpf(solution.mark.x) - value)
                    self.assertLessEqual(error, 2e-16 * max(1, abs(value)))

    def test_no_solutions(self):
        for text, low, high, near in NONE:
            with self.subTest(text):
                found, words = told(text, low, high)
                self.assertTrue(found.complete, words)
                self.assertFalse(found.solutions)
                self.assertIn(near, words[0])

    def test_what_is_the_same_is_true_everywhere(self):
        for text, low, high in ALWAYS:
            with self.subTest(text):
                found, words = told(text, low, high)
                self.assertTrue(found.everywhere, words)
                self.assertEqual(found.solutions, ())

    def test_what_is_the_same_on_stretches(self):
        for text, low, high, wanted in STRETCHES:
            with self.subTest(text):
                found, words = told(text, low, high)
                self.assertTrue(found.complete, words)
                self.assertIn(wanted, words[0])

    def test_a_solution_at_one_place_beside_a_stretch(self):
        found, words = told("f(x) = x", "-3", "3", ("f(x) = x if x >= 1, 0 otherwise",))
        self.assertEqual([s.mark.x for s in found.solutions], [0])
        self.assertIn("[1, 3]", words[0])


DOMAINS = [
    ("", -10, 10, True, True),
    (" for -2 <= x <= 3", -2, 3, True, True),
    (" for -2 < x < 3", -2, 3, False, False),
    (" for -2 <= x < 3", -2, 3, True, False),
    (" for x > -2", -2, 10, False, True),
]
RULES = [
    ("x^3 - 7x + 1", lambda x: x**3 - 7 * x + 1, lambda x: 3 * x**2 - 7),
    ("x^2", lambda x: x**2, lambda x: 2 * x),
    ("x", lambda x: x, lambda x: mpf(1)),
    ("e^x", mp.exp, mp.exp),
    ("cos x", mp.cos, lambda x: -mp.sin(x)),
    ("x^2 - x - 1", lambda x: x**2 - x - 1, lambda x: 2 * x - 1),
]


def lane_path(line, order=()):
    """The path of a lane in the view ±10, after others have been asked for."""
    for earlier in (*order, line):
        (lane,) = resolve(Document(lanes=(Lane(id="l", text=earlier),))).shown(SEARCHED)
        found = path_of(lane, -10.0, 10.0, EFFORT)
    return found


class Domains(Case):
    def test_ends_and_greatest_values_belong_to_the_domain(self):
        """Each function under each kind of domain, the others asked for before, in any order."""
        chance = random.Random(5)
        for rule, value, slope in RULES:
            lines = [rule + domain for domain, *_ in DOMAINS]
            for line, (domain, low, high, low_closed, high_closed) in zip(
                lines, DOMAINS, strict=True
            ):
                order = chance.sample(lines, len(lines))
                with self.subTest(line, order=order):
                    found = lane_path(line, order)
                    has_low, has_high = domain != "", domain not in ("", " for x > -2")
                    ends = [m for m in found.landmarks if m.kind is Kind.END]
                    wanted = [(low, low_closed)] * has_low + [(high, high_closed)] * has_high
                    self.assertEqual([(m.x, m.closed) for m in ends], wanted)
                    for end in ends:
                        if end.closed:
                            self.assertAlmostEqual(end.y, float(value(mpf(end.x))), 12)
                    self._turning(found, slope, low, high, low_closed, high_closed, domain)

    def _turning(self, found, slope, low, high, low_closed, high_closed, domain):
        inside = [m.x for m in found.landmarks if m.kind in (Kind.MAXIMUM, Kind.MINIMUM)]
        for x in inside:
            at_end = (x == low and low_closed and domain) or (x == high and high_closed and domain)
            self.assertTrue(at_end or abs(slope(mpf(x))) < 1e-12, x)
        grid = [low + (high - low) * mpf(k) / 997 for k in range(998)]
        changes = sum(slope(a) * slope(b) < 0 for a, b in itertools.pairwise(grid))
        ends = [x for x in inside if x in (low, high)]
        self.assertEqual(len(inside) - len(ends), changes)


MEETINGS = [
    ("x for x >= 0", "2x for x > 0", [], 0),
    ("x for x >= 0", "2x for x >= 0", [(0, 0)], 0),
    ("x^2 for x <= 1", "x for x >= 1", [(1, 1)], 0),
    ("x^2 for x < 1", "x for x >= 1", [], 0),
    ("x^2 for x <= 1", "x for x > 1", [], 0),
    ("x^2 for 0 <= x <= 2", "2 - x for 1 <= x <= 3", [(1, 1)], 0),
    ("x^2 for 0 <= x <= 2", "2 - x for 1 < x <= 3", [], 0),
    ("x", "x^2/x", [], 2),
    ("x^2", "x^2", [], 1),
    ("x", "x", [], 1),
    ("x for x >= 0", "x for x <= 0", [(0, 0)], 0),
    ("x for x > 0", "x for x < 0", [], 0),
    ("|x|", "x", [], 1),
    ("sin x for 0 <= x <= 3", "sin x for 2 <= x <= 4", [], 1),
]


class Crossings(Case):
    def test_lanes_meet_where_both_live_in_either_order(self):
        for one, other, wanted, stretches in MEETINGS:
            for pair in ((one, other), (other, one)):
                with self.subTest(pair):
                    lanes = tuple(Lane(id=f"l{k}", text=t) for k, t in enumerate(pair))
                    found = crossings(
                        resolve(Document(lanes=lanes)).shown(SEARCHED), View(), EFFORT
                    )
                    marks = [(m.x, m.y) for c in found for m in c.path.landmarks]
                    self.assertEqual(marks, wanted)
                    self.assertEqual(sum(len(c.path.zero) for c in found), stretches)
                    self.assertTrue(all(c.path.complete for c in found))


class Cases(Case):
    def test_the_last_case_has_an_end(self):
        found = path("x if x <= 1", -5, 5)
        self.assertEqual([(m.x, m.closed) for m in found.of(Kind.END)], [(1, True)])
        self.assertEqual([m.x for m in found.of(Kind.MAXIMUM)], [1])

    def test_an_end_that_does_not_belong_is_no_maximum(self):
        found = path("x^3 - 3x if x < 3", -5, 5)
        self.assertEqual([(m.x, m.closed) for m in found.of(Kind.END)], [(3, False)])
        highest = [m for m in found.of(Kind.MAXIMUM) if m.whole]
        self.assertEqual(highest, [])

    def test_both_ends(self):
        for line, low_closed, high_closed in (
            ("x if 0 < x < 2", False, False),
            ("x if 0 <= x < 2", True, False),
            ("x if 0 < x <= 2", False, True),
            ("x if 0 <= x <= 2", True, True),
        ):
            with self.subTest(line):
                ends = path(line, -5, 5).of(Kind.END)
                self.assertEqual(
                    [(m.x, m.closed) for m in ends], [(0, low_closed), (2, high_closed)]
                )


FORMS = {
    "√2": "sqrt(2)",
    "√3": "sqrt(3)",
    "π/2": "pi/2",
    "ln(3)/2": "log(3)/2",
    "ln 3": "log(3)",
    "√2 + √3": "sqrt(2)+sqrt(3)",
    "1 + √5": "1+sqrt(5)",
    "π/6": "pi/6",
    "2^(1/4)": "mpf(2)**(mpf(1)/4)",
}
PLACES = [
    ("|x - ({})|", Kind.KINK),
    ("1/(x - ({}))", Kind.POLE),
    ("√(x - ({}))", Kind.END),
    ("x - ({})", Kind.ZERO),
    ("(x^2 - 4)/(x - 2) if x < {0}, 0 otherwise", Kind.JUMP),
]


def exact_of(line, kind, unit=RADIAN):
    """The exact forms of the landmarks of a kind, by SymPy's spelling, None where there is none."""
    program_, found = plan(line), path(line, -5, 5, unit)
    marks = found.of(kind)
    asked = tuple(asked_for(str(k), mark) for k, mark in enumerate(marks))
    told = exact_forms(program_, unit, asked)
    return [told[str(k)].x if str(k) in told else "" for k in range(len(marks))], marks


class ExactForms(Case):
    def test_near_misses_have_none(self):
        """A number within 10⁻¹² of a famous one is not that number, at every kind of landmark."""
        chance = random.Random(3)
        for name, value in FORMS.items():
            for shape, kind in PLACES:
                digits = mp.nstr(known(value), 13, strip_zeros=False)
                last = str((int(digits[-1]) + chance.randint(2, 8)) % 10)
                line = shape.format(digits[:-1] + last)
                with self.subTest(line, near=name):
                    forms, marks = exact_of(line, kind)
                    self.assertEqual(len(marks), 1)
                    self.assertNotIn("√", "".join(forms))
                    self.assertNotIn("π", "".join(forms))
                    self.assertNotIn("ln", "".join(forms))

    def test_surds_next_to_each_other(self):
        for line, kind in (
            ("√(x^2 - 2 - 10^-13)", Kind.END),
            ("√(x^2 - 2 - 10^-13)", Kind.ZERO),
            ("x^2 - 2 - 10^-13", Kind.ZERO),
            ("1/(x^2 - 3 + 10^-12)", Kind.POLE),
            ("|x^2 - 5 - 10^-13|", Kind.KINK),
            ("|x - 1.5707963267948|", Kind.KINK),
            ("tan(x + 10^-13)", Kind.POLE),
        ):
            with self.subTest(line):
                forms, marks = exact_of(line, kind)
                self.assertTrue(marks)
                self.assertEqual("".join(forms), "")

    def test_true_forms_are_found_at_every_kind_of_landmark(self):
        for line, kind, count in (
            ("x^4 - 2", Kind.ZERO, 2),
            ("x^2 - 2", Kind.ZERO, 2),
            ("1/(x^2 - 2)", Kind.POLE, 2),
            ("|x^2 - 2|", Kind.KINK, 2),
            ("√(x^2 - 2)", Kind.END, 2),
            ("e^(2x) - 3", Kind.ZERO, 1),
            ("2^x - 3", Kind.ZERO, 1),
        ):
            with self.subTest(line, kind=kind):
                forms, marks = exact_of(line, kind)
                self.assertEqual(len(forms), count)
                self.assertNotIn("", forms)
                for form, mark in zip(forms, marks, strict=True):
                    self.assertAlmostEqual(_value(form), mark.x, 14)


def _value(form):
    """What a written exact form is, read by the application's own language."""
    text = form.replace("−", "-").replace("·", "*")
    return float_value(plan(text), RADIAN, 0.0)


POLES = [
    *((f"{name}(π/2 + {k}π)", RADIAN) for name in ("tan", "sec") for k in (-1, 0, 2)),
    *((f"{name}({k}π)", RADIAN) for name in ("cot", "csc") for k in (-2, 0, 3)),
    *((f"{name}({90 + 180 * k}°)", RADIAN) for name in ("tan", "sec") for k in (-1, 0, 2)),
    *((f"{name}({90 + 180 * k})", DEGREE) for name in ("tan", "sec") for k in (-1, 0, 2)),
    *((f"{name}({180 * k})", DEGREE) for name in ("cot", "csc") for k in (-1, 0, 2)),
]
VALUES = [
    ("x^-3", 1e-300, math.inf, RADIAN),
    ("sum(x^k/k! for k = 0 to 5)", 0.0, 1.0, RADIAN),
    ("sum(x^k for k = 0 to 3)", -2.0, -5.0, RADIAN),
    (
        "sum(x^k/k! for k = 0 to 5)",
        -1.0,
        float(sum(Fraction((-1) ** k, math.factorial(k)) for k in range(6))),
        RADIAN,
    ),
]


class Numbers(Case):
    def test_poles_have_no_value(self):
        for line, unit in POLES:
            with self.subTest(line, unit=unit):
                self.assertTrue(math.isnan(float_value(plan(line), unit, 0.0)))

    def test_values(self):
        for line, x, wanted, unit in VALUES:
            with self.subTest(line):
                found = float_value(plan(line), unit, x)
                self.assertTrue(found == wanted or abs(found - wanted) < 1e-15 * abs(wanted), found)

    def test_cotangent_in_degrees_near_its_poles(self):
        chance = random.Random(9)
        for _ in range(60):
            x = chance.choice([-1, 1]) * chance.uniform(1, 10) * 10.0 ** chance.randint(-12, 0)
            found = float_value(plan("cot x"), DEGREE, x)
            wanted = float(mp.cot(mpf(x) * mp.pi / 180))
            with self.subTest(x):
                self.assertLessEqual(abs(found - wanted), 4 * math.ulp(wanted))

    def test_derivatives_at_a_kink_or_a_jump_have_no_value(self):
        for rule in (
            "-x if x < 0, x otherwise",
            "max(x, -x)",
            "median(x, -x, 2x)",
            "|x|",
            "√(x^2)",
            "sign(x)",
            "floor(x)",
            "min(x, 0)",
            "x |x - 0| / x",
            "1 if x > 0, 0 otherwise",
        ):
            with self.subTest(rule):
                self.assertTrue(math.isnan(self.slope(rule, 0.0)), self.slope(rule, 0.0))

    def test_derivatives_where_the_bend_is_smooth(self):
        for rule, x, wanted in (
            ("x |x|", 0.0, 0.0),
            ("|x|^2", 0.0, 0.0),
            ("|x|^3", 0.0, 0.0),
            ("x^2 if x < 0, x^3 otherwise", 0.0, 0.0),
            ("max(x^2, -x^2)", 0.0, 0.0),
            ("|x|", 3.0, 1.0),
            ("|x|", -3.0, -1.0),
            ("x |x|", -2.0, 4.0),
        ):
            with self.subTest(rule, x=x):
                self.assertEqual(self.slope(rule, x), wanted)

    def slope(self, rule, x):
        lanes = (Lane(id="f", text=f"f(x) = {rule}"), Lane(id="g", text="g(x) = f'(x)"))
        lane = resolve(Document(lanes=lanes)).lane("g")
        return float(lane.floats(np.array([x]))[0])


ASYMPTOTES = [
    ("√(x^2 + 1)", ("y = x to the right", "y = −x to the left")),
    ("x + sin(x)/x", ("y = x",)),
    ("1/x", ("y = 0",)),
    ("(2x^2 + 1)/(x - 3)", ("y = 2(x + 3)",)),
    ("arctan x", ("y = π/2 to the right", "y = −π/2 to the left")),
    ("e^x", ("y = 0 to the left",)),
    ("2x + 3", ()),
    ("x^2/x", ()),
    ("5", ()),
    ("x^2", ()),
    ("|x|", ()),
    ("sin x", ()),
    ("x + 1 + 1/x", ("y = x + 1",)),
]


class Asymptotes(Case):
    def test_lines_that_are_approached_and_not_met(self):
        for line, wanted in ASYMPTOTES:
            with self.subTest(line):
                found = asymptotes(plan(line), RADIAN)
                self.assertEqual(
                    {f.replace(" ", "") for f in found}, {w.replace(" ", "") for w in wanted}
                )


SETTLED = [
    ("1/(sin x - 1)", -8, 8, RADIAN),
    ("1/(sin x - 1)", -400, 400, DEGREE),
    ("cos(x)/(1 - sin x)", -8, 8, RADIAN),
    ("cos(x)/(1 - sin x)", -400, 400, DEGREE),
    ("floor(x)/x", -5, 5, RADIAN),
    ("arcsin(sin x)", -8, 8, RADIAN),
    ("arccos(cos x)", -8, 8, RADIAN),
    ("tanh(1/x)", -5, 5, RADIAN),
    ("x!", 0, 6, RADIAN),
    ("1/(1 - cos x)", -8, 8, RADIAN),
    ("sin(2x)/cos x", -5, 5, RADIAN),
    ("(1 - cos x)/x^2", -5, 5, RADIAN),
    ("e^(-1/x^2)", -2, 2, RADIAN),
]


class Settled(Case):
    def test_nothing_stays_open(self):
        for line, low, high, unit in SETTLED:
            with self.subTest(line, unit=unit):
                found = path(line, low, high, unit, budget=20_000)
                self.assertEqual(found.open, ())

    def test_a_search_keeps_to_its_budget(self):
        for line in (
            "round(x) - 2",
            "sin(1/x)",
            "floor(x^3)",
            "x! - 5040",
            "tan(x^2)",
            "mod(x, x)",
        ):
            with self.subTest(line):
                budget = Budget(2000)
                find_path(plan(line), RADIAN, End.at(-30), End.at(30), budget)
                self.assertGreater(budget.left, -2000)

    def test_derivatives_of_kinks(self):
        lanes = (Lane(id="f", text="f(x) = |x|"), Lane(id="g", text="g(x) = f'(x)"))
        lane = resolve(Document(lanes=lanes)).lane("g")
        found = path_of(lane, -5.0, 5.0, EFFORT)
        self.assertTrue(found.complete)
        self.assertEqual([m.x for m in found.of(Kind.JUMP)], [0])


if __name__ == "__main__":
    unittest.main()
