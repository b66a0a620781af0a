"""Curves along which a parameter runs: read, ranged, closed, and their landmarks, against known
values and other arithmetic."""

import math
import random
import unittest
from fractions import Fraction

import mpmath
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as some

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.path.curves.measure import measures
from axispath.core.path.curves.round import round_of
from axispath.core.path.curves.search import find_curve
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import Effort
from axispath.core.path.survey import crossings, survey
from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.primitives import Band, Dots, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.search.landmark import Certainty, Kind, Reason
from axispath.core.sheet.curve import curve_of, end_text, range_of, slopes_of
from axispath.core.sheet.document import Document, Table, View
from axispath.core.sheet.edits import (
    AddLane,
    LetRun,
    MoveAlong,
    ReviseLane,
    SetDomain,
    SetTable,
    Slide,
    apply,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.solve.meet import met
from axispath.core.table.closing import closing
from axispath.core.table.columns import heads
from axispath.core.table.kinds.curve import moving_words
from axispath.core.table.words import in_words
from tests.case import Case
from tests.core.hunting_curves import disagreements, random_curve


def sheet(*lines, unit=AngleUnit.RADIAN):
    document = Document(unit=unit)
    for line in lines:
        document = apply(document, AddLane(text=line))
    return document


def lane_of(*lines, unit=AngleUnit.RADIAN):
    return resolve(sheet(*lines, unit=unit)).lanes[-1]


def marks_of(line, budget=40_000, unit=AngleUnit.RADIAN):
    lane = lane_of(line, unit=unit)
    return find_curve(curve_of(lane), slopes_of(lane), range_of(lane), budget)


def measured(line):
    lane = lane_of(line)
    curve, span, slopes = curve_of(lane), range_of(lane), slopes_of(lane)
    path = find_curve(curve, slopes, span, 40_000)
    return measures(curve, slopes, round_of(curve, span), path)


class Lines(Case):
    def test_lines_are_read_as_what_they_are(self):
        for line, kind, letter in (
            ("C(t) = (sin 5t, cos 4t) for 0 <= t <= 2π", "parametric", "t"),
            ("(cos 5t, sin 3t)", "parametric", "t"),
            ("(cos 5v, sin 3v) for 0 <= v <= π", "parametric", "v"),
            ("(cos s, sin s) for s in [0, π]", "parametric", "s"),
            ("K = (3 cos t, t)", "parametric", "t"),
            ("r = 1 + 2 cos(3θ) for 0 <= θ <= 2π", "polar", "θ"),
            ("r(theta) = theta/3", "polar", "θ"),
            ("r = 2 for 0 <= θ <= π", "polar", "θ"),
            ("r = 3", "number", None),
            ("g(θ) = sin θ", "function", "θ"),
            ("(1, 2)", "point", None),
        ):
            with self.subTest(line):
                lane = lane_of(line)
                self.assertEqual(lane.kind.key, kind)
                if letter:
                    self.assertEqual(lane.parameters, (letter,))

    def test_curves_are_named_by_capitals_and_polar_ones_by_r(self):
        lanes = resolve(sheet("(cos t, sin t)", "r = 1", "r = cos θ", "(t, t^2)", "r = sin θ"))
        self.assertEqual([lane.name for lane in lanes], ["A", "r", "r_1", "B", "r_2"])

    def test_coordinates_and_points_of_a_curve_are_used_elsewhere(self):
        lanes = resolve(sheet("C(t) = (3 cos t, t^2)", "P = C(2)", "C_y(3) + 1", "C_x(π)"))
        self.assertEqual([lane.kind.key for lane in lanes][1:], ["point", "value", "value"])
        self.assertEqual((lanes.lanes[2].value, round(lanes.lanes[3].value, 12)), (10.0, -3.0))

    def test_a_new_name_of_a_curve_reaches_who_uses_it(self):
        document = sheet("C(t) = (3 cos t, t^2)", "P = C(2)", "C_y(3) + 1")
        first = document.lanes[0].id
        after = apply(document, ReviseLane(id=first, text="K(t) = (3 cos t, t^2)"))
        self.assertEqual([lane.text for lane in after.lanes[1:]], ["P = K(2)", "K_y(3) + 1"])

    def test_what_is_no_curve_is_refused_with_a_sentence(self):
        for line, told in (
            ("(t, t^2, t^3)", "two coordinates|comma"),
            ("(x, x^2)", "call the parameter t"),
            ("(x, x^2) for 0 <= x <= 1", "call the parameter t"),
            ("C(x) = (x, x^2)", "call the parameter t"),
            ("C(s, t) = (s, t)", "one parameter"),
            ("C(t) = [(t, 1), (2, t)]", "one pair of coordinates"),
            ("(t, t) for 3 <= t <= 1", "domain is empty"),
            ("(t, t) for 1 <= t <= 1", "domain is empty"),
            ("([1, 2], t)", "not lists"),
            ("r(θ) = [1, 2] θ", "gives a list"),
        ):
            with self.subTest(line), self.assertRaisesRegex(EditRefused, told):
                sheet(line)

    def test_a_letter_that_has_a_value_makes_a_point_until_somebody_lets_it_run(self):
        document = sheet("t = 2", "(cos t, sin t)")
        point = resolve(document).lanes[1]
        self.assertEqual(point.kind.key, "point")
        after = apply(document, LetRun(id=point.lane.id, letter="t"))
        self.assertEqual(resolve(after).lanes[1].kind.key, "parametric")
        # Once decided it stays so, whatever is defined later.
        curve = sheet("(cos t, sin t)")
        later = apply(curve, AddLane(text="t = 2"))
        self.assertEqual(resolve(later).lanes[0].kind.key, "parametric")
        with self.assertRaisesRegex(EditRefused, "cannot run"):
            apply(document, LetRun(id=document.lanes[0].id, letter="s"))


class Ranges(Case):
    def test_a_range_that_is_not_written_is_chosen_with_a_reason(self):
        for line, low, high, why in (
            ("(cos 5t, sin 3t)", "0", "2π", "one full period"),
            ("(cos(2t/3), sin(t))", "0", "6π", "one full period"),
            ("(cos(π t), sin(2 π t))", "0", "2", "one full period"),
            ("r = cos 3θ", "0", "π", "one full period"),
            ("r = cos 2θ", "0", "2π", "one full period"),
            ("r = sin(θ/3)", "0", "3π", "one full period"),
            ("(t - sin t, 1 - cos t)", "0", "6π", "three turns"),
            ("(sin t, sin(√2 t))", "0", "20π", "ten turns: its frequencies"),
            ("(sin t, sin(π t))", "0", "20π", "ten turns: its frequencies"),
            ("r = θ/3", "0", "6π", "three turns"),
            ("(t, t^2)", "-10", "10", "nothing in it repeats"),
            ("(√t, t)", "0", "10", "as far as it is defined"),
        ):
            with self.subTest(line):
                span = range_of(lane_of(line))
                self.assertEqual((end_text(span.low), end_text(span.high)), (low, high))
                self.assertIn(why, span.why)

    def test_in_degrees_the_period_is_in_degrees(self):
        span = range_of(lane_of("(cos 5t, sin 3t)", unit=AngleUnit.DEGREE))
        self.assertEqual((end_text(span.low), end_text(span.high)), ("0", "360"))

    def test_the_period_is_that_of_the_motion(self):
        """For whole frequencies a and b the period is 2π over their greatest common divisor."""
        for a in range(1, 9):
            for b in range(1, 9):
                span = range_of(lane_of(f"(sin({a}t), cos({b}t + 1))"))
                turns = Fraction(2, math.gcd(a, b))
                self.assertEqual(span.high.exact.turns, turns, (a, b))

    def test_whether_it_is_closed_is_said(self):
        for line, words, closed, until in (
            ("C(t) = (cos 5t, sin 3t) for 0 <= t <= 2π", "closes after 2π", True, ""),
            ("(cos 5t, sin 3t) for 0 <= t <= 4π", "closes after 2π, drawn 2 times", True, ""),
            ("(cos(t/5), sin t) for 0 <= t <= 2π", "it would close at 10π", False, "10π"),
            ("(sin t, sin(√2 t))", "never closes: its frequencies", False, ""),
            ("(t - sin t, 1 - cos t)", "never closes: it goes on", False, ""),
            ("(cos t, cos 2t)", "to and fro", False, ""),
            ("(t^2 - 1, t^3 - t) for -1 <= t <= 1", "its end is at its start", True, ""),
            ("(t, t^2)", "open: start and end are apart", False, ""),
        ):
            with self.subTest(line):
                found = closing(lane_of(line))
                self.assertIn(words, found.words)
                self.assertEqual((found.closed, found.until), (closed, until))

    def test_an_open_figure_is_closed_by_one_action(self):
        document = sheet("(cos(t/5), sin t) for 0 <= t <= 2π")
        until = closing(resolve(document).lanes[0]).until
        after = apply(document, SetDomain(id=document.lanes[0].id, high=until))
        self.assertEqual(after.lanes[0].text, "(cos(t/5), sin t) for 0 <= t <= 10π")
        self.assertTrue(closing(resolve(after).lanes[0]).closed)

    def test_the_other_end_of_a_chosen_range_stays_where_it_is(self):
        document = sheet("(cos t, sin 2t)")
        after = apply(document, SetDomain(id=document.lanes[0].id, high="π"))
        self.assertEqual(after.lanes[0].text, "(cos t, sin 2t) for 0 <= t <= π")

    def test_the_first_curve_brings_equal_scale_and_a_polar_one_its_grid(self):
        self.assertTrue(sheet("(cos t, sin t)").ground.equal)
        self.assertEqual(sheet("r = cos θ").ground.grid, "polar")
        self.assertEqual(sheet("sin x", "r = cos θ").ground.grid, "fine")
        self.assertFalse(sheet("sin x").ground.equal)


class Figures(Case):
    """Landmarks against known values."""

    def test_crossings_of_figures_of_cosines_by_the_counting_formula(self):
        """x = cos at, y = sin bt with a and b prime to each other crosses itself 2ab − a − b times,
        or (a − 1)(b − 1)/2 times where it runs to and fro (M. G. V. Bogle, J. E. Hearst, V. F. R.
        Jones and L. Stoilov 1994, Lissajous knots)."""
        for a, b in ((1, 2), (3, 2), (2, 3), (5, 3), (5, 4), (4, 5), (7, 5), (9, 8)):
            with self.subTest((a, b)):
                found = marks_of(f"(cos {a}t, sin {b}t)", 200_000)
                self.assertTrue(found.complete)
                count = len(found.of(Kind.CROSSING))
                mirror = curve_of(lane_of(f"(cos {a}t, sin {b}t)")).motion.mirror
                wanted = 2 * a * b - a - b if mirror is None else (a - 1) * (b - 1) // 2
                self.assertEqual(count, wanted)

    def test_crossings_of_a_figure_by_mpmath(self):
        """cos at = cos as and sin bt = sin bs: s = −t + 2πk/a with s = t + 2πm/b, or
        s = t + 2πk/a with bs = π − bt + 2πm."""
        a, b = 5, 3
        wanted = set()
        for k in range(-2 * a, 2 * a + 1):
            for m in range(-2 * b, 2 * b + 1):
                for t, s in (
                    (
                        mpmath.pi * k / a - mpmath.pi * m / b,
                        mpmath.pi * k / a + mpmath.pi * m / b,
                    ),
                    (
                        (mpmath.pi + 2 * mpmath.pi * m) / (2 * b) - mpmath.pi * k / a,
                        (mpmath.pi + 2 * mpmath.pi * m) / (2 * b) + mpmath.pi * k / a,
                    ),
                ):
                    turns = (t - s) / (2 * mpmath.pi)
                    if abs(turns - mpmath.nint(turns)) > mpmath.mpf(10) ** -30:
                        wanted.add(
                            (round(float(mpmath.cos(a * t)), 9), round(float(mpmath.sin(b * t)), 9))
                        )
        wanted = {(x + 0.0, y + 0.0) for x, y in wanted}
        found = marks_of("(cos 5t, sin 3t)")
        places = {(round(m.x, 9) + 0.0, round(m.y, 9) + 0.0) for m in found.of(Kind.CROSSING)}
        self.assertEqual(places, wanted)
        for mark in found.of(Kind.CROSSING):
            self.assertLess(mark.t_radius, 1e-12)

    def test_cusps(self):
        for line, count in (
            ("(cos^3 t, sin^3 t)", 4),
            ("(t - sin t, 1 - cos t)", 4),
            ("(t^2, t^3)", 1),
            ("(2 cos t - cos 2t, 2 sin t - sin 2t)", 1),
            ("r = 1 + cos θ", 1),
        ):
            with self.subTest(line):
                found = marks_of(line)
                cusps = found.of(Kind.CUSP)
                self.assertEqual(len(cusps), count)
                self.assertTrue(all(m.certainty is Certainty.EXACT for m in cusps))
                self.assertTrue(found.complete)
                self.assertEqual(found.of(Kind.CROSSING), ())

    def test_roses_have_their_petals(self):
        """r = cos nθ has n petals for odd n and 2n for even n."""
        for n in range(3, 13):
            with self.subTest(n):
                found = marks_of(f"r = 2 cos({n}θ)", 100_000)
                petals = n if n % 2 else 2 * n
                far = found.of(Kind.FARTHEST)
                self.assertEqual(len(far), petals)
                self.assertTrue(all(abs(math.hypot(m.x, m.y) - 2) < 1e-12 for m in far))
                (pole,) = found.of(Kind.AT_POLE)
                self.assertEqual(1 + len(pole.also), petals)
                self.assertEqual(found.of(Kind.CROSSING), ())
                self.assertTrue(found.complete)

    def test_a_curve_that_begins_at_the_pole_is_there_once(self):
        for line, times in (("r = θ", 1), ("r = sin(2θ)", 4), ("r = 4 sin θ", 1)):
            (pole,) = marks_of(line).of(Kind.AT_POLE)
            self.assertEqual(1 + len(pole.also), times, line)

    def test_a_limacon_crosses_itself_at_the_pole(self):
        found = marks_of("r = 1 + 2 cos θ")
        (pole,) = found.of(Kind.AT_POLE)
        self.assertEqual([round(t / math.pi * 3, 12) for t in (pole.t, *pole.also)], [2, 4])
        self.assertTrue(found.complete)

    def test_a_polar_curve_crosses_itself_away_from_the_pole(self):
        # r(θ) = r(θ + 2π) where cos(θ/2) = 0, that is at θ = π: the place (−1, 0).
        found = marks_of("r = 1 + 2 cos(θ/2)")
        places = [(round(m.x, 10), round(m.y, 10)) for m in found.of(Kind.CROSSING)]
        self.assertIn((-1.0, 0.0), places)
        self.assertTrue(found.complete)

    def test_a_folium_and_other_curves_with_poles(self):
        found = marks_of("(3t/(1 + t^3), 3t^2/(1 + t^3))")
        self.assertTrue(found.complete)
        (upright,) = found.of(Kind.UPRIGHT)
        # x is largest at t = 2^(−1/3): (4^(1/3), 2^(1/3)).
        self.assertAlmostEqual(upright.x, 4 ** (1 / 3), 13)
        self.assertAlmostEqual(upright.y, 2 ** (1 / 3), 13)
        self.assertEqual(len(found.of(Kind.POLE)), 1)
        # The strophoid-like loop of (tan t, sin t) meets itself at the origin, across a pole.
        loop = marks_of("(tan t, sin t)")
        self.assertEqual([(m.t, m.x, m.y) for m in loop.of(Kind.CROSSING)], [(0.0, 0.0, 0.0)])

    def test_a_loop_and_a_lemniscate(self):
        found = marks_of("(t^2 - 1, t^3 - t) for -2 <= t <= 2")
        (cross,) = found.of(Kind.CROSSING)
        self.assertEqual((cross.x, cross.y), (0.0, 0.0))
        self.assertAlmostEqual(abs(cross.t), 1, 12)
        eight = marks_of("(cos t/(1 + sin^2 t), sin t cos t/(1 + sin^2 t))")
        self.assertEqual(len(eight.of(Kind.CROSSING)), 1)
        level = {(round(abs(m.x), 9), round(abs(m.y), 9)) for m in eight.of(Kind.LEVEL)}
        # The lemniscate is highest at (√6/4, √2/4).
        self.assertEqual(level, {(round(6**0.5 / 4, 9), round(2**0.5 / 4, 9))})

    def test_the_outermost_points_are_marked(self):
        found = marks_of("(3 cos t + 1, 2 sin t)")
        named = {word: (mark.x, mark.y) for mark in found.landmarks for word in mark.extremes}
        self.assertEqual(set(named), {"leftmost", "rightmost", "highest", "lowest"})
        self.assertEqual(named["rightmost"], (4.0, 0.0))
        self.assertEqual(named["lowest"], (1.0, -2.0))

    def test_what_repeats_is_listed_once(self):
        once = marks_of("(cos 2t, sin 3t)")
        twice = marks_of("(cos 2t, sin 3t) for 0 <= t <= 4π")
        self.assertEqual(
            [(m.kind, m.t, m.x) for m in once.landmarks],
            [(m.kind, m.t, m.x) for m in twice.landmarks],
        )

    def test_degrees_move_the_parameter_and_not_the_figure(self):
        plain, degrees = (
            marks_of("(cos 3t, sin 2t)"),
            marks_of("(cos 3t, sin 2t)", unit=AngleUnit.DEGREE),
        )
        self.assertEqual(len(plain.landmarks), len(degrees.landmarks))
        for one, other in zip(plain.landmarks, degrees.landmarks, strict=True):
            self.assertEqual(one.kind, other.kind)
            self.assertAlmostEqual(math.degrees(one.t), other.t, 9)

    def test_trouble_is_named_and_ends(self):
        for line, reason in (
            ("(t^2, |t|)", Reason.OVERLAP),  # runs over itself, which no rule here proves
            ("(sin(1/t), t sin(1/t)) for 0 <= t <= 1", None),
        ):
            with self.subTest(line):
                found = marks_of(line, 20_000)
                self.assertFalse(found.complete)
                if reason:
                    self.assertIn(reason, [item.reason for item in found.open])
        nowhere = marks_of("(√(-1 - t^2), t)")
        self.assertEqual(nowhere.landmarks, ())
        self.assertTrue(nowhere.undefined)
        for line in ("(2, 3) for 0 <= t <= 1", "(cos^2 t + sin^2 t, 2t/t)"):
            with self.subTest(line):
                self.assertEqual(marks_of(line).of(Kind.CROSSING), ())

    def test_a_range_of_a_million_turns_is_one_round(self):
        found = marks_of("(cos 3t, sin 2t) for 0 <= t <= 2000000π")
        self.assertTrue(found.complete)
        self.assertAlmostEqual(found.high, 2 * math.pi, 12)


class Sizes(Case):
    """Lengths and areas, against closed forms and mpmath."""

    def test_lengths(self):
        for line, wanted in (
            ("(cos t, sin t)", 2 * math.pi),
            ("(cos^3 t, sin^3 t)", 6),
            ("(t - sin t, 1 - cos t) for 0 <= t <= 2π", 8),
            ("r = 1 + cos θ", 8),
            ("(3 cos t, 2 sin t)", float(4 * 3 * mpmath.ellipe(1 - mpmath.mpf(4) / 9))),
            ("(t, t^2) for 0 <= t <= 1", (2 * 5**0.5 + math.asinh(2)) / 4),
            (
                "r = θ for 0 <= θ <= 2π",
                float(mpmath.quad(lambda a: mpmath.sqrt(a * a + 1), [0, 2 * mpmath.pi])),
            ),
        ):
            with self.subTest(line):
                length = measured(line).length
                self.assertLessEqual(abs(length.value - wanted), length.error + 1e-14 * wanted)
                self.assertLess(length.error, 1e-7 * wanted)

    def test_areas(self):
        for line, wanted in (
            ("(3 cos t, 2 sin t)", 6 * math.pi),
            ("(cos^3 t, sin^3 t)", 3 * math.pi / 8),
            ("(t^2 - 1, t^3 - t) for -1 <= t <= 1", 8 / 15),
            ("(sin t, sin 2t)", 0),
        ):
            with self.subTest(line):
                area = measured(line).area
                self.assertLessEqual(abs(area.value - wanted), area.error + 1e-14)
        for line, wanted in (("r = 1 + cos θ", 1.5 * math.pi), ("r = 2 sin 3θ", math.pi)):
            with self.subTest(line):
                swept = measured(line).swept
                self.assertLessEqual(abs(swept.value - wanted), swept.error + 1e-14)

    def test_what_breaks_has_no_length(self):
        self.assertIsNone(measured("(1/t, t)").length)
        self.assertIsNone(measured("(floor t, t)").length)


class Meeting(Case):
    def met(self, *lines):
        lanes = resolve(sheet(*lines)).shown(SEARCHED)
        (found,) = crossings(lanes, View(), Effort(evaluations=40_000))
        return found.path

    def test_a_circle_and_a_line_whichever_comes_first(self):
        for lines in (("(2cos t, 2sin t)", "y = 1"), ("y = 1", "(2cos t, 2sin t)")):
            path = self.met(*lines)
            self.assertTrue(path.complete)
            places = sorted((m.x, m.y) for m in path.landmarks)
            for (x, y), wanted in zip(places, (-(3**0.5), 3**0.5), strict=True):
                self.assertAlmostEqual(x, wanted, 13)
                self.assertAlmostEqual(y, 1, 13)

    def test_the_domain_of_the_function_counts(self):
        path = self.met("(2cos t, 2sin t)", "f(x) = 1 for x >= 0")
        self.assertEqual([round(m.x, 9) for m in path.landmarks], [round(3**0.5, 9)])

    def test_two_ellipses(self):
        path = self.met("(2cos t, sin t)", "(cos s, 2 sin s)")
        self.assertTrue(path.complete)
        # x²/4 + y² = x² + y²/4 = 1 where x² = y² = 4/5.
        self.assertEqual(len(path.landmarks), 4)
        for mark in path.landmarks:
            self.assertAlmostEqual(abs(mark.x), 2 / 5**0.5, 12)
            self.assertAlmostEqual(abs(mark.y), 2 / 5**0.5, 12)

    def test_a_rose_and_a_circle(self):
        path = self.met("r = 2 cos(3θ)", "r = 1")
        self.assertTrue(path.complete)
        self.assertEqual(len(path.landmarks), 6)
        self.assertTrue(all(abs(math.hypot(m.x, m.y) - 1) < 1e-12 for m in path.landmarks))

    def test_curves_that_share_an_arc_are_named(self):
        path = self.met("(cos t, sin t)", "(cos(2s), sin(2s))")
        self.assertFalse(path.complete)
        self.assertIn(Reason.OVERLAP, [item.reason for item in path.open])

    def test_the_question_may_be_asked_in_words(self):
        document = sheet("C(t) = (2cos t, 2sin t)", "f(x) = 1", "a = 2")
        for text in ("where do C and f meet", "C and f", "f meets C", "Where do f and C meet?"):
            with self.subTest(text):
                found = met(document, text, Effort())
                self.assertEqual((found.first.name, found.second.name), ("C", "f"))
                self.assertEqual(len(found.path.landmarks), 2)
        self.assertIsNone(met(document, "f(x) = 2", Effort()))
        for text, told in (
            ("C and g", "no g"),
            ("C and a", "not two curves"),
            ("C and C", "not two"),
        ):
            with self.subTest(text), self.assertRaisesRegex(EditRefused, told):
                met(document, text, Effort())

    def test_the_answer_does_not_depend_on_what_was_asked_before(self):
        one, other = sheet("(cos 3t, sin 2t)", "x/3"), sheet("(cos 3t, sin 2t + 1)", "x/3")
        first = [repr(survey(d).paths) for d in (one, other)]
        second = [repr(survey(d).paths) for d in (other, one)]
        self.assertEqual(first, second[::-1])


class Properties(Case):
    @settings(max_examples=25, deadline=None)
    @given(some.lists(some.integers(-5, 5), min_size=2, max_size=5))
    def test_the_figure_of_a_function_has_its_landmarks(self, c):
        body = " + ".join(f"({k}) {{v}}^{n}" for n, k in enumerate(c))
        if not any(c[1:]):
            return
        lane = lane_of(f"f(x) = {body.format(v='x')} for -3 <= x <= 3")
        search = SEARCHED[lane.kind.key]
        path = search.path(lane, View(left=-3, right=3), Effort(), 1, None)
        curve = marks_of(f"(t, {body.format(v='t')}) for -3 <= t <= 3")
        zeros = sorted(m.x for m in path.of(Kind.ZERO))
        turning = [m.x for m in path.of(Kind.MAXIMUM, Kind.MINIMUM) if abs(m.x) < 3]
        met = sorted(m.x for m in curve.of(Kind.MEETS_X))
        level = sorted(m.x for m in curve.of(Kind.LEVEL))
        self.assertEqual(len(met), len(zeros))
        np.testing.assert_allclose(met, zeros, atol=1e-9)
        for x in turning:
            self.assertTrue(any(abs(x - one) < 1e-9 for one in level))
        self.assertEqual(curve.of(Kind.CROSSING, Kind.UPRIGHT), ())

    def test_a_polar_curve_has_the_landmarks_of_its_coordinates(self):
        for radius in ("1 + 2 cos(3{v})", "2 + sin(2{v})", "1 + cos {v}", "{v}/4"):
            polar = marks_of(f"r = {radius.format(v='θ')} for 0 <= θ <= 2π")
            r = radius.format(v="t")
            plain = marks_of(f"(({r}) cos t, ({r}) sin t) for 0 <= t <= 2π")
            for kind in (Kind.LEVEL, Kind.UPRIGHT, Kind.CUSP):
                self.assertEqual(
                    [round(m.t, 9) for m in polar.of(kind)],
                    [round(m.t, 9) for m in plain.of(kind)],
                    (radius, kind),
                )

    def test_a_small_hunt_finds_nothing_missed_and_nothing_invented(self):
        chance, looked, settled = random.Random(20), 0, 0
        while looked < 30:
            line = random_curve(chance)
            found = disagreements(line, segments=900, budget=6_000)
            if found is None:
                continue
            looked += 1
            settled += not found.open
            self.assertEqual(found.faults, [], line)
        self.assertGreater(settled, 15)


class Pictures(Case):
    FRAME = Frame(-2, 2, -1.5, 1.5, 800, 600)

    def shapes(self, line, frame=FRAME):
        document = sheet(line)
        return drawn(document, resolve(document).lanes[0], frame)

    def test_a_stroke_follows_the_curve(self):
        for line, curve in (
            ("(cos 40t, sin 39t)", None),
            ("(1.5 cos t, sin t)", lambda x, y: (x / 1.5) ** 2 + y**2 - 1),
        ):
            (stroke,) = (s for s in self.shapes(line) if isinstance(s, Stroke))
            x = stroke.rows[:, 0] * 4 - 2
            y = stroke.rows[:, 1] * 3 - 1.5
            self.assertLess(np.nanmax(np.abs(np.stack([x, y]))), 1.6)
            if curve:
                self.assertLess(np.nanmax(np.abs(curve(x, y))), 1e-5)
                middle = (x[1:] + x[:-1]) / 2, (y[1:] + y[:-1]) / 2
                self.assertLess(np.nanmax(np.abs(curve(*middle))), 4e-3)

    def test_no_stroke_crosses_a_break(self):
        for line in ("(1/t, t)", "(floor(2t)/2, t/4)", "(tan t, sin t)"):
            (stroke,) = self.shapes(line)
            steps = np.hypot(np.diff(stroke.rows[:, 0]) * 800, np.diff(stroke.rows[:, 1]) * 600)
            inside = (np.abs(stroke.rows - 0.5) <= 0.5).all(axis=1)
            both = inside[1:] & inside[:-1]
            self.assertLess(np.nanmax(steps[both]), 30, line)

    def test_a_dense_figure_is_an_even_shade(self):
        shapes = self.shapes("(sin(1000t), cos(999t))")
        band = next(shape for shape in shapes if isinstance(shape, Band))
        rows = band.rows[~np.isnan(band.rows).any(axis=1)]
        # The square from −1 to 1 is filled from side to side.
        self.assertLess(rows[:, 1].min(), 0.18)
        self.assertGreater(rows[:, 3].max(), 0.82)

    def test_negative_distances_are_told_apart(self):
        pale = [s.pale for s in self.shapes("r = 1 + 2 cos(θ)") if isinstance(s, Stroke)]
        self.assertEqual(pale, [False, True, False])

    def test_the_moving_point_is_on_the_curve(self):
        document = sheet("(1.5 cos t, sin t)")
        document = apply(document, Slide(id=document.lanes[0].id, value=math.pi / 2))
        dots = [
            s
            for s in drawn(document, resolve(document).lanes[0], self.FRAME)
            if isinstance(s, Dots)
        ]
        np.testing.assert_allclose(dots[0].rows, [[0.5, (1 + 1.5) / 3]], atol=1e-6)
        self.assertTrue(dots[0].handle)


class Moving(Case):
    def test_the_point_goes_to_where_the_hand_is(self):
        document = sheet("(2 cos t, 2 sin t)")
        place = {"x": 2 * math.cos(1.1), "y": 2 * math.sin(1.1)}
        after = apply(document, MoveAlong(id=document.lanes[0].id, **place))
        self.assertAlmostEqual(after.lanes[0].at, 1.1, 3)
        words = moving_words(resolve(after).lanes[0], 4)
        self.assertRegex(words, r"^t = 1\.1: \(0\.907\d, 1\.78\d\), direction .*, speed 2$")
        line = sheet("f(x) = x")
        with self.assertRaisesRegex(EditRefused, "Only the point of a curve"):
            apply(line, MoveAlong(id=line.lanes[0].id, x=0, y=0))

    def test_a_point_held_outside_a_shorter_range_is_at_its_end(self):
        document = sheet("(2 cos t, 2 sin t) for 0 <= t <= 6")
        document = apply(document, Slide(id=document.lanes[0].id, value=5))
        document = apply(document, SetDomain(id=document.lanes[0].id, high="3"))
        self.assertTrue(moving_words(resolve(document).lanes[0], 4).startswith("t = 3:"))

    def test_a_figure_in_words(self):
        for line, words in (
            (
                "(sin t, sin 2t)",
                "A is a closed curve with 1 crossing of itself, between x = −1 and 1",
            ),
            ("r = 2 cos 3θ", "r is a closed curve with 3 petals"),
            ("(cos^3 t, sin^3 t)", "4 cusps"),
            ("(√(-1 - t^2), t)", "A has no point for any t in its range."),
        ):
            document = sheet(line)
            self.assertIn(words, in_words(document, survey(document)), line)

    def test_a_table_runs_over_the_parameter(self):
        document = sheet("(3 cos t, 2 sin t)", "r = 1 + cos θ")
        document = apply(document, SetTable(table=Table(variable="t")))
        table = document.tables[0]
        self.assertEqual((table.start, table.stop, table.by), ("0", "2π", "count"))
        self.assertEqual([head.text for head in heads(document, table)], ["A_x(t)", "A_y(t)"])
        document = apply(document, SetTable(table=Table(id="b", variable="θ")))
        texts = [head.text for head in heads(document, document.tables[1])]
        self.assertEqual(texts, ["r(θ)", "r(θ) cos(θ)", "r(θ) sin(θ)"])
        self.assertTrue(all(not head.error for head in heads(document, document.tables[1])))


class Counted(Case):
    """How many points two polar curves have in common, however often each passes them."""

    def test_a_point_counts_once(self):
        for one, other, count in (
            ("r = 4cos θ", "r = 4 sin θ", 2),
            ("r = cos(3θ)", "r = sin(3θ)", 4),
            ("r = 2cos θ", "r = 1", 2),
            ("r = 2cos(2θ)", "r = 1", 8),
            ("r = cos(2θ)", "r = sin(2θ)", 9),
            ("r = 2 sin θ", "r = 1", 2),
            ("r = 3cos(3θ)", "r = 3", 3),
            ("r = sin(3θ)", "r = 1/2", 6),
            ("r = 2cos θ", "r = -2cos θ", 1),
            ("r = 1 + sin θ", "r = 1", 2),
        ):
            found = survey(sheet(one, other), Effort(evaluations=60_000))
            (crossing,) = found.crossings
            places = {(round(m.x, 6) + 0.0, round(m.y, 6) + 0.0) for m in crossing.path.landmarks}
            with self.subTest(one, other=other):
                self.assertEqual(len(places), len(crossing.path.landmarks))
                if crossing.path.complete:
                    self.assertEqual(len(places), count)
                self.assertLessEqual(len(places), count)


if __name__ == "__main__":
    unittest.main()
