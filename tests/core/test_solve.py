"""Solve against independent values, and what it says where there is nothing to find."""

import itertools
import math

from hypothesis import given
from hypothesis import strategies as st
from mpmath import mp

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.path.lanes import Effort
from axispath.core.search.landmark import Certainty
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.answer import answer
from axispath.core.solve.general import general_solution
from axispath.core.solve.methods import METHODS, run
from axispath.core.solve.question import Unclear, ask
from axispath.core.solve.sets import Interval, common, united, written
from tests.case import Case
from tests.core import equations


def sheet(*lines, unit=AngleUnit.RADIAN):
    document = Document(unit=unit)
    for line in lines:
        document = apply(document, AddLane(text=line))
    return document


SHEET = sheet("f(x) = x^2 - 3", "g(x) = x + 2", "a = 2")


def solved(line, low="", high="", document=SHEET, unknown=""):
    question = ask(document, line, unknown)
    ends = [typed_end(document, text) if text else None for text in (low, high)]
    return answer(question, *ends, Effort(60_000))


class Solutions(Case):
    def test_all_solutions_and_no_others(self):
        self.assertGreaterEqual(len(equations.SOLVED), 50)
        for line, low, high, wanted in equations.SOLVED:
            with self.subTest(line):
                found = solved(line, low, high)
                places = [solution.mark.x for solution in found.solutions]
                self.assertEqual(len(places), len(wanted), places)
                for place, exact in zip(places, wanted, strict=True):
                    self.assertLessEqual(
                        abs(place - exact), 4e-16 * abs(exact) + mp.mpf(10) ** -300
                    )
                self.assertTrue(found.complete, found.open)
                sure = {solution.mark.certainty for solution in found.solutions}
                self.assertLessEqual(sure, {Certainty.PROVEN, Certainty.EXACT})

    def test_none_is_an_answer_with_the_nearest_miss(self):
        for line, low, high, apart in equations.NONE:
            with self.subTest(line):
                found = solved(line, low, high)
                self.assertEqual(found.solutions, ())
                self.assertTrue(found.complete)
                self.assertAlmostEqual(found.nearest.apart, apart, 9)

    def test_always_is_an_answer(self):
        for line, low, high in equations.ALWAYS:
            with self.subTest(line):
                self.assertTrue(solved(line, low, high).always)
        self.assertTrue(solved("x + 1 = 1 + x").everywhere)
        (stretch,) = solved("floor(x) = 2", "-9", "9").always
        self.assertEqual(stretch, Interval(2.0, 3.0, True, False))

    def test_hundreds_of_solutions(self):
        for line, low, high, count in equations.MANY:
            with self.subTest(line):
                found = solved(line, low, high)
                self.assertEqual(len(found.solutions), count)
                self.assertTrue(found.complete)

    def test_what_cannot_be_settled_is_named(self):
        found = solved("sin(1/x) = 0", "-1", "1")
        self.assertFalse(found.complete)
        self.assertTrue(all(-0.1 < item.low <= item.high < 0.1 for item in found.open))

    def test_degrees(self):
        found = solved("tan x = 5/8", "0", "360", sheet(unit=AngleUnit.DEGREE))
        wanted = float(mp.degrees(mp.atan(mp.mpf(5) / 8)))
        places = [solution.mark.x for solution in found.solutions]
        self.assertEqual(len(places), 2)
        self.assertAlmostEqual(places[0], wanted, 12)
        self.assertAlmostEqual(places[1], wanted + 180, 12)

    @given(st.lists(st.integers(-50, 50), min_size=1, max_size=5, unique=True), st.integers(1, 9))
    def test_products_of_factors_on_the_whole_line(self, places, factor):
        line = " ".join(f"(x - ({place}))" for place in places)
        found = solved(f"{factor} {line} = 0")
        self.assertEqual([s.mark.x for s in found.solutions], sorted(places))
        self.assertTrue(found.complete)

    def test_a_slider_can_be_the_unknown(self):
        document = sheet("a = 1", "h(x) = a x^2 + 1")
        (one,) = solved("h(2) = 9", document=document, unknown="a").solutions
        self.assertEqual(one.mark.x, 2.0)


class Inequalities(Case):
    def test_solution_sets(self):
        for line, wanted in equations.SETS:
            with self.subTest(line):
                found = solved(line)
                self.assertEqual(written(found.solved, 6), wanted)
                self.assertTrue(found.complete)

    ends = st.tuples(st.integers(-6, 6), st.integers(0, 5), st.booleans(), st.booleans())
    intervals = ends.map(
        lambda e: Interval(e[0], e[0] + e[1], *((e[2], e[3]) if e[1] else (True, True)))
    )

    @given(st.lists(intervals, max_size=6), st.lists(intervals, max_size=6))
    def test_unions_and_intersections_hold_the_right_numbers(self, one, other):
        def holds(parts, x):
            return any(
                (p.low < x or (p.low == x and p.low_closed))
                and (x < p.high or (x == p.high and p.high_closed))
                for p in parts
            )

        both, joined = common(united(one), united(other)), united(one)
        for k in range(-28, 50):
            x = k / 4
            self.assertEqual(holds(joined, x), holds(one, x))
            self.assertEqual(holds(both, x), holds(one, x) and holds(other, x))


class Questions(Case):
    def test_what_cannot_be_asked_gets_a_sentence(self):
        for line, told in (
            ("", "no equation here yet"),
            ("x^2 + 1", "no equals sign"),
            ("x = 1 = 2", "One line holds one equation"),
            ("x = 1, z = 2", "One line holds one equation"),
            ("x == 1", "single equals sign"),
            ("f = 3", "write f"),
            ("1 = 2", "no unknown"),
            ("x ≠ 3", "asks for no solutions"),
            ("1 < x > 0", "one direction"),
            ("sin( = 2", ""),
        ):
            with self.subTest(line), self.assertRaisesRegex(EditRefused, told):
                ask(SHEET, line)

    def test_the_unknown_is_asked_for_only_where_it_is_not_plain(self):
        self.assertEqual(ask(SHEET, "0.4 = 1 - e^(-t/3)").unknown, "t")
        with self.assertRaises(Unclear) as caught:
            ask(SHEET, "k x = 3")
        self.assertEqual(set(caught.exception.choices), {"k", "x"})
        with self.assertRaises(Unclear) as caught:
            ask(SHEET, "a^2 = 4")
        self.assertEqual(caught.exception.choices, ("a",))
        self.assertEqual(ask(SHEET, "a^2 = 4", "a").unknown, "a")


class Methods(Case):
    def test_each_method_finds_the_dottie_number(self):
        wanted = float(mp.findroot(lambda x: mp.cos(x) - x, 0.7))
        question = ask(SHEET, "cos x = x")
        for method, start, second in (
            (METHODS["bisection"], 0.0, 1.0),
            (METHODS["newton"], 1.0, None),
            (METHODS["secant"], 0.0, 1.0),
        ):
            found = run(question, method, start, second)
            self.assertTrue(found.found, found.told)
            self.assertAlmostEqual(found.steps[-1].x, wanted, 14)
        slow = run(question, METHODS["fixed-point"], 1.0, None)
        self.assertAlmostEqual(slow.steps[-1].x, wanted, 8)

    def test_newtons_errors_square_and_bisections_halve(self):
        steps = run(ask(SHEET, "x^2 = 2"), METHODS["newton"], 2.0, None).steps
        errors = [abs(step.x - math.sqrt(2)) for step in steps[:4]]
        for before, after in itertools.pairwise(errors):
            self.assertLess(after, before**2)
        steps = run(ask(SHEET, "x^2 = 2"), METHODS["bisection"], 0.0, 2.0).steps
        for before, after in itertools.pairwise(steps):
            self.assertEqual(after.error, before.error / 2)

    def test_failures_say_how_they_failed(self):
        for line, method, start, second, told in (
            ("x^2 + 1 = 0", METHODS["newton"], 0.0, None, "level"),
            ("arctan x = 0", METHODS["newton"], 2.0, None, "run away"),
            ("ln x = 2", METHODS["newton"], 50.0, None, "leaves the domain"),
            ("x^3 - 2x + 2 = 0", METHODS["newton"], 0.0, None, "circle"),
            ("x = x^2 + 2", METHODS["fixed-point"], 1.0, None, "run away"),
            ("x = √(x - 3)", METHODS["fixed-point"], 4.0, None, "leaves the domain"),
            ("1/x = 0", METHODS["bisection"], -1.0, 2.0, "jump or a pole"),
            ("x^2 = 1", METHODS["secant"], -3.0, 3.0, "level"),
        ):
            with self.subTest(line):
                found = run(ask(SHEET, line), method, start, second)
                self.assertFalse(found.found)
                self.assertIn(told, found.told)

    def test_starts_that_make_no_sense_are_refused(self):
        for line, method, start, second, told in (
            ("x^2 = 2", METHODS["bisection"], 2.0, 3.0, "same sign"),
            ("x^2 = 2", METHODS["secant"], 2.0, 2.0, "two different"),
            ("x^2 = 2", METHODS["fixed-point"], 2.0, None, "alone on one side"),
            ("x^2 < 2", METHODS["newton"], 2.0, None, "inequality"),
        ):
            with self.assertRaisesRegex(EditRefused, told):
                run(ask(SHEET, line), method, start, second)

    def test_every_step_is_worked_out_with_its_numbers(self):
        """What stands left of the equals sign, worked out elsewhere, is what stands right of it."""
        python = str.maketrans("−⁻⁰¹²³⁴⁵⁶⁷⁸⁹", "--0123456789")
        for line, name, start, second in (
            ("x^3 - 2x - 5 = 0", "newton", 2.0, None),
            ("e^x = 3 - x", "newton", -4.0, None),
            ("x^3 - 2x - 5 = 0", "secant", 3.0, -1.0),
            ("x^3 - 2x - 5 = 0", "bisection", -1.0, 3.0),
            ("x = cos(x)", "fixed-point", -1.0, None),
        ):
            way, question = METHODS[name], ask(SHEET, line)
            found = run(question, way, start, second)
            worked = [way.worked(question, found, k) for k in range(len(found.steps))]
            self.assertGreater(sum(map(bool, worked)), 3, name)
            for k, text in enumerate(worked):
                if not text:
                    continue
                plain = text.partition(";")[0].translate(python).replace("×10", "e")
                left, right = plain.split(" = ")
                with self.subTest(text):
                    known = {"cos": math.cos}
                    value = eval(left, known)
                    shown = float(right)
                    self.assertAlmostEqual(value, shown, delta=1e-6 * (1 + abs(value)))
                    reached = found.steps[k + (name in ("newton", "secant"))]
                    reached = reached.value if name == "fixed-point" else reached.x
                    self.assertAlmostEqual(shown, reached, delta=1e-9 * (1 + abs(shown)))
        first = METHODS["newton"].worked(
            ask(SHEET, "x^3 - 2x - 5 = 0"),
            run(ask(SHEET, "x^3 - 2x - 5 = 0"), METHODS["newton"], 2.0, None),
            0,
        )
        self.assertEqual(first, "2 − (−1) / 10 = 2.1")

    def test_the_whole_line_in_degrees_has_what_it_has_in_radians(self):
        degrees = SHEET.model_copy(update={"unit": AngleUnit.DEGREE})
        for line in ("sin x = 1/2", "tan x = 1", "sin(2x) = cos x", "cos(x/2) = 0", "sin x = 2"):
            found = [answer(ask(one, line), None, None) for one in (SHEET, degrees)]
            places = [[s.mark.x for s in one.solutions] for one in found]
            self.assertEqual(len(places[0]), len(places[1]), line)
            for turned, near in zip(*places, strict=True):
                self.assertAlmostEqual(math.degrees(turned), near, 9)
            self.assertEqual(found[0].endless, found[1].endless)


class GeneralSolutions(Case):
    def families(self, line, unit=AngleUnit.RADIAN, high="2π"):
        document = sheet(unit=unit)
        question = ask(document, line)
        found = solved(line, "0", high, document)
        places = tuple(solution.mark.x for solution in found.solutions)
        return general_solution(*question.sides, unit, places, found.low, found.high)

    def test_periodic_equations_in_both_units(self):
        self.assertEqual(self.families("sin x = 1/2").families, ("π/6 + 2πk", "5π/6 + 2πk"))
        self.assertEqual(self.families("sin x = 0").families, ("πk",))
        degrees = self.families("sin x = 1/2", AngleUnit.DEGREE, "360").families
        self.assertEqual(degrees, ("30° + 360°k", "150° + 360°k"))
        self.assertEqual(self.families("tan x = 1").families, ("π/4 + πk",))

    def test_identities_and_what_is_not_periodic(self):
        self.assertTrue(self.families("sin(x)^2 + cos(x)^2 = 1").always)
        self.assertEqual(self.families("cos x = x").families, ())
