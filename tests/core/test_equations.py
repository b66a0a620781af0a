"""Blocks of equations: every solution, in any order; what has none is told, the rest answered."""

import itertools
import random
import re
from fractions import Fraction

import mpmath
import sympy
from flint import arb
from hypothesis import given, settings
from hypothesis import strategies as some
from sympy.parsing import sympy_parser as reading

from axispath.core import catalogue
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import precision
from axispath.core.equations.reading import lines_of, read_block
from axispath.core.equations.solved import System
from axispath.core.equations.solving import solve
from axispath.core.equations.structure import structure_of
from axispath.core.equations.wishes import read_wish
from axispath.core.quantities.scalars import real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, NoResult
from tests.case import Case
from tests.core.blocks_by_elimination import BY_HAND, POLYNOMIAL, TRANSCENDENTAL

DIGITS = 30
PAPER = (
    *reading.standard_transformations,
    reading.implicit_multiplication,
    reading.convert_xor,
)

FUNCTIONS = {name: getattr(sympy, name) for name in ("sin", "cos", "exp", "ln", "E")}


def nothing(name):
    raise NoResult(f"waits for {name}")


def solved(text, wishes=None, letters=()):
    block = read_block(text, catalogue.SCOPE, frozenset(), letters)
    assert not block.wrong, [one.error.message for one in block.wrong]
    system = System(block.equations, block.unknowns)
    return solve(system, wishes or {}, nothing, {}, AngleUnit.RADIAN)


def numbers(solution, names=None):
    """The values of a solution in units of the SI, at 50 digits."""
    found = {}
    for name, value in solution.values.items():
        bare = value.value if isinstance(value, Measured) else value
        with precision(300):
            ball = real_ball(bare)
            found[name] = mpmath.mpf(ball.mid().str(60, radius=False))
    return found if names is None else {name: found[name] for name in names}


def close(one, other):
    return all(
        abs(one[k] - other[k]) <= mpmath.mpf(10) ** -DIGITS * (1 + abs(other[k])) for k in other
    )


def orders(text):
    lines = lines_of(text)
    yield lines
    for seed in (1, 2):
        mixed = list(lines)
        random.Random(seed).shuffle(mixed)
        yield mixed


def sides(text):
    """The equations for SymPy: left less right, and the letters in them."""
    lines = lines_of(text)
    names = sorted({n for line in lines for n in re.findall(r"[A-Za-z]\w*", line)} - set(FUNCTIONS))
    letters = {name: sympy.Symbol(name, real=True) for name in names}
    read = []
    for line in lines:
        # A letter behind a number or another letter is a factor.
        halves = [re.sub(r"(\d)([A-Za-z])", r"\1 \2", half) for half in line.split("=")]
        words = {**letters, **FUNCTIONS}
        left, right = (
            reading.parse_expr(half, local_dict=words, transformations=PAPER) for half in halves
        )
        read.append(left - right)
    return read, letters


class EveryBlock(Case):
    def setUp(self):
        working = mpmath.workdps(60)
        working.__enter__()
        self.addCleanup(working.__exit__, None, None, None)

    def all_in_three_orders(self, text, wanted):
        for lines in orders(text):
            found = solved("\n".join(lines))
            self.assertFalse(found.troubles, (text, found.troubles))
            values = [numbers(one) for one in found.solutions]
            self.assertEqual(len(values), len(wanted), (text, values))
            for one in wanted:
                self.assertTrue(any(close(value, one) for value in values), (text, one, values))
            for solution in found.solutions:
                self.assertLess(max(solution.residuals.values()), 1e-9)

    def test_polynomial_blocks_have_all_solutions_that_elimination_finds(self):
        for text, count in POLYNOMIAL:
            with self.subTest(text):
                equations, letters = sides(text)
                exact = sympy.solve(equations, list(letters.values()), dict=True)
                real = [
                    {s.name: mpmath.mpf(sympy.N(v, 60)) for s, v in one.items()}
                    for one in exact
                    if all(abs(sympy.im(sympy.N(v, 30))) < 1e-20 for v in one.values())
                ]
                self.assertEqual(len(real), count, text)
                self.all_in_three_orders(text, real)

    def test_other_blocks_have_the_solutions_that_newton_finds_at_fifty_digits(self):
        for text, starts in TRANSCENDENTAL:
            with self.subTest(text):
                equations, letters = sides(text.replace("e^", "E^"))
                names = list(starts[0])
                functions = [
                    sympy.lambdify([letters[n] for n in names], one, "mpmath") for one in equations
                ]
                wanted = []
                for start in starts:
                    place = mpmath.findroot(functions, [mpmath.mpf(start[n]) for n in names])
                    wanted.append(dict(zip(names, place, strict=True)))
                self.all_in_three_orders(text, wanted)

    def test_quantities_come_out_as_by_hand(self):
        for text, answers in BY_HAND:
            with self.subTest(text):
                wanted = [
                    {
                        n: mpmath.mpf(sympy.N(sympy.sympify(v, rational=True), 60))
                        for n, v in one.items()
                    }
                    for one in answers
                ]
                self.all_in_three_orders(text, wanted)

    def test_there_are_more_than_forty_of_them(self):
        self.assertGreaterEqual(len(POLYNOMIAL) + len(TRANSCENDENTAL) + len(BY_HAND), 40)

    def test_chains_of_forty_single_steps(self):
        sums = ["a_1 = 1", *(f"a_{k + 1} = a_{k} + {k}" for k in range(1, 40))]
        roots = ["r_1 = 2", *(f"r_{k + 1} = √(r_{k} + 1)" for k in range(1, 40))]
        value = mpmath.mpf(2)
        for _ in range(39):
            value = mpmath.sqrt(value + 1)
        for lines, name, wanted in ((sums, "a_40", mpmath.mpf(781)), (roots, "r_40", value)):
            for mixed in orders("\n".join(lines)):
                found = solved("\n".join(mixed))
                (one,) = found.solutions
                self.assertTrue(close(numbers(one, [name]), {name: wanted}))
                self.assertEqual(len(found.steps), 40)

    @given(
        some.lists(some.integers(-9, 9), min_size=3, max_size=3),
        some.permutations(range(3)),
        some.lists(some.integers(-5, 5), min_size=9, max_size=9),
    )
    @settings(max_examples=60, deadline=None)
    def test_linear_blocks_give_back_what_they_were_made_of(self, values, order, factors):
        rows = [factors[k : k + 3] for k in range(0, 9, 3)]
        if sympy.Matrix(rows).det() == 0 or any(not any(row) for row in rows):
            return
        names = ("a", "b", "c")
        lines = []
        for row in rows:
            left = " + ".join(f"({q}) {name}" for q, name in zip(row, names, strict=True) if q)
            lines.append(f"{left} = {sum(q * v for q, v in zip(row, values, strict=True))}")
        (one,) = solved("\n".join(lines[k] for k in order)).solutions
        wanted = dict(zip(names, map(Surd.of, values), strict=True))
        self.assertEqual(dict(one.values), wanted)


class Structure(Case):
    @given(
        some.lists(some.sets(some.sampled_from("abcdef"), min_size=1), max_size=7), some.randoms()
    )
    @settings(max_examples=150, deadline=None)
    def test_it_does_not_depend_on_the_order(self, rows, mixed):
        names = sorted({name for row in rows for name in row})
        first = structure_of([frozenset(row) for row in rows], names)
        places = list(range(len(rows)))
        mixed.shuffle(places)
        other = structure_of([frozenset(rows[k]) for k in places], names)
        told = [
            sorted((sorted(places[i] for i in part.equations), part.unknowns) for part in found)
            for found in (other.loose,)
        ]
        plain = sorted((sorted(part.equations), part.unknowns) for part in first.loose)
        self.assertEqual(told[0], plain)
        unknowns = [
            sorted(n for part in one.parts for n in part.unknowns) for one in (first, other)
        ]
        self.assertEqual(*unknowns)
        self.assertEqual(len(first.checks), len(other.checks))

    @given(some.lists(some.sets(some.sampled_from("abcdef"), min_size=1), max_size=7))
    @settings(max_examples=150, deadline=None)
    def test_every_part_needs_only_what_came_before_it(self, rows):
        names = sorted({name for row in rows for name in row})
        found = structure_of([frozenset(row) for row in rows], names)
        known = set()
        for part in found.parts:
            self.assertEqual(len(part.equations), len(part.unknowns))
            for index in part.equations:
                self.assertLessEqual(rows[index], known | set(part.unknowns))
            known |= set(part.unknowns)
        loose = {name for part in found.loose for name in part.unknowns}
        self.assertEqual(known | loose, set(names))
        self.assertFalse(known & loose)


class Trouble(Case):
    def told(self, text, **more):
        return [one.words for one in solved(text, **more).troubles]

    def test_the_smallest_set_that_contradicts_itself_is_named(self):
        found = solved("a = 1; b = 2; a + b = 4; c = 7; d = c + 1; e_1 + f = 3")
        wrong = [one for one in found.troubles if "contradict" in one.words]
        self.assertEqual([one.equations for one in wrong], [(1, 2, 3)])
        self.assertEqual(numbers(found.solutions[0]), {"c": 7, "d": 8})

    def test_of_many_linear_equations_only_those_at_fault_are_named(self):
        lines = ["p + q = 4", "q + r = 5", "r + s = 6", "p + q = 5", "s + p = 7"]
        for order in itertools.permutations(range(5)):
            found = solved("\n".join(lines[k] for k in order))
            (wrong,) = [one for one in found.troubles if "contradict" in one.words]
            self.assertEqual({lines[order[n - 1]] for n in wrong.equations}, {lines[0], lines[3]})

    def test_a_factor_off_is_named(self):
        (words,) = self.told("mass = 850 kg; mass = 850 g")
        self.assertIn("off by a thousand", words)
        (words,) = self.told("way = 2 h; way = 120 s")
        self.assertIn("60", words)
        (words,) = self.told("mass = 850 kg; mass = 851 kg")
        self.assertNotIn("off by", words)

    def test_too_few_and_too_many(self):
        self.assertIn("too few: equation 1 has 2 unknowns (a and b)", self.told("a + b = 4")[0])
        found = solved("a = 1; b = 2; a + b = 3; c = a + 5")
        self.assertFalse(found.troubles)
        self.assertIn("nothing new", found.steps[-1].words)

    def test_equations_that_say_the_same(self):
        self.assertIn("say the same", self.told("a + b = 4; 2a + 2b = 8")[0])
        self.assertIn("every u solves them", self.told("sin(u)^2 + cos(u)^2 = 1")[0])
        self.assertIn("every u from 3 to 4 solves them", self.told("floor(u) = 3")[0])
        self.assertIn("every v solves them", self.told("u v = u v; u = 2 + v - v")[0])

    def test_no_solution_is_said_and_the_rest_answered(self):
        found = solved("u^2 = -1; w = u + 1; k = 3")
        self.assertEqual(numbers(found.solutions[0]), {"k": 3})
        self.assertIn("no u solves equation 1", found.troubles[0].words)

    def test_what_does_not_fit_is_named_with_where_it_is_from(self):
        (words,) = self.told("t = 3 s; l = 5 m; l + t = q")
        self.assertIn("metres and seconds cannot be added", words)
        self.assertIn("by equation", words)
        self.assertIn("log takes a plain number", self.told("h = log(5 kg)")[0])
        self.assertIn("difference in K", self.told("T = 20 °C; Q = T + 5 °C")[0])

    def test_bounds_choose_and_are_checked(self):
        text = "depth = 3 + 2u; draught = u^2; depth = draught"
        above = {"u": read_wish("u", "0", "", "", "")}
        (one,) = solved(text, above).solutions
        self.assertEqual(numbers(one)["u"], 3)
        none = {"u": read_wish("u", "4", "9", "", "")}
        self.assertIn("no depth, draught and u", self.told(text, wishes=none)[0])
        for low, high, words in (
            ("9", "4", "wrong way round"),
            ("3 kg", "", "takes a plain number, not kilograms"),
            ("3 +", "", "beside u"),
        ):
            wishes = {"u": read_wish("u", low, high, "", "")}
            self.assertIn(words, " ".join(self.told(text, wishes=wishes)))
        shown = {"load": read_wish("load", "", "", "", "lbf")}
        (one,) = solved("load = mass g; mass = 850 kg", shown).solutions
        self.assertEqual(one.values["load"].shown_in[0], "lbf")
        wrong = {"load": read_wish("load", "", "", "", "s")}
        self.assertIn("cannot be shown in s", self.told("load = 3 N", wishes=wrong)[0])

    def test_bounds_hold_for_what_is_found_directly_too(self):
        wishes = {"u": read_wish("u", "0", "3", "", "")}
        self.assertIn("within the bounds", self.told("u = 5; w = u + 1", wishes=wishes)[0])
        self.assertIn("within the bounds", self.told("u + w = 9; u - w = 1", wishes=wishes)[0])
        (one,) = solved("u = 2; w = u + 1", wishes).solutions
        self.assertEqual(numbers(one)["w"], 3)

    def test_branches_that_lead_to_no_real_number_end_and_the_rest_is_complete(self):
        found = solved("u^2 = 4; w = √(u)")
        self.assertEqual(len(found.solutions), 1)
        self.assertTrue(found.complete)
        self.assertIn("no real value", self.told("u = -4; w = √(u)")[0])

    def test_a_contradiction_leaves_all_solutions_of_the_rest(self):
        found = solved("u^2 = 4; s = u + 1; p = 1; p = 2; q = s p")
        kept = [numbers(one) for one in found.solutions]
        self.assertEqual(kept, [{"u": -2, "s": -1}, {"u": 2, "s": 3}])

    def test_a_search_without_end_is_told_and_ends(self):
        found = solved("sin(u) = 1/2")
        self.assertFalse(found.complete)
        self.assertIn("give bounds for u", found.steps[0].words)
        wishes = {"u": read_wish("u", "0", "7", "", "")}
        found = solved("sin(u) = 1/2", wishes)
        self.assertTrue(found.complete)
        with mpmath.workdps(60):
            wanted = [mpmath.pi / 6, 5 * mpmath.pi / 6, 13 * mpmath.pi / 6]
            for one, angle in zip(found.solutions, wanted, strict=True):
                self.assertTrue(close(numbers(one), {"u": angle}))

    def test_starts_lead_to_solutions_that_are_proved_and_may_not_be_all(self):
        text = "a b + sin(c) = 2; a + exp(b) = c; c cos(a) = b"
        found = solved(text)
        self.assertGreaterEqual(len(found.solutions), 1)
        self.assertFalse(found.complete)
        for one in found.solutions:
            with mpmath.workdps(60):
                a, b, c = (numbers(one)[n] for n in "abc")
                apart = (a * b + mpmath.sin(c) - 2, a + mpmath.exp(b) - c, c * mpmath.cos(a) - b)
                self.assertLess(max(map(abs, apart)), mpmath.mpf(10) ** -28)

    def test_what_takes_too_long_is_broken_off(self):
        ticks = itertools.count()
        text = "a b + sin(c d) = 2; a + exp(b) = c; c cos(a) = b + d; d^5 + a b c = 3"
        with self.assertRaises(OutOfTime), limited(Patience(5, lambda: next(ticks))):
            solved(text)

    def test_searches_for_many_branches_end(self):
        text = "sin(u) = 1/3; v sin(v u) + cos(v) = u/7; w e^w = sin(v) + w^2"
        found = solved(text)
        told = " ".join([*(one.words for one in found.steps), *(t.words for t in found.troubles)])
        self.assertRegex(told, "give bounds|are followed|too many searches")
        self.assertFalse(found.complete)

    def test_sixty_equations_and_no_more(self):
        lines = [f"a_{k} = a_{k - 1} + 1" if k else "a_0 = 0" for k in range(75)]
        block = read_block("\n".join(lines), catalogue.SCOPE, frozenset())
        self.assertEqual((len(block.equations), block.left), (60, 15))


class Reading(Case):
    def block(self, text, letters=()):
        return read_block(text, catalogue.SCOPE, frozenset(), letters)

    def test_letters_that_are_units_too(self):
        block = self.block("F = m a; m = 3 kg; a = 2 m/s^2")
        self.assertEqual(block.unknowns, ("F", "a", "m"))
        self.assertIn("m is a name here, not the metre", [one.taken for one in block.readings])
        (one,) = solved("s = v t; v = 72 km/h; t = 5 s").solutions
        self.assertEqual(numbers(one)["s"], 100)
        (one,) = solved("w = v t; v = 3; t = 2 s; s = 12", letters=(("s", "name"),)).solutions
        self.assertEqual(numbers(one)["w"], 72)
        bare = self.block("h = 20 - 5t^2; h = 0")
        self.assertEqual([one.taken for one in bare.readings], ["t is a name here, not the tonne"])

    def test_gravity_and_a_name_of_ones_own(self):
        self.assertEqual(self.block("load = mass g; mass = 850 kg").unknowns, ("load", "mass"))
        own = self.block("load = mass g; mass = 850 kg; g = 1.62 m/s^2")
        self.assertEqual(own.unknowns, ("g", "load", "mass"))
        chosen = self.block("load = mass g; mass = 850 kg", (("g", "name"),))
        self.assertEqual(chosen.unknowns, ("g", "load", "mass"))
        self.assertEqual(self.block("w = m g").unknowns, ("g", "m", "w"))

    def test_a_unit_that_is_not_known_has_the_nearest_one_named(self):
        block = self.block("mass = 850 kgs; load = mass g")
        self.assertIn("is the unit kg meant?", block.readings[0].taken)
        self.assertEqual(self.block("rope = 4 load; load = 2").readings, ())

    def test_errors_have_a_place_and_a_mend(self):
        cases = (
            ("a + b", "no equals sign"),
            ("= 3", "left side"),
            ("a =", "right side"),
            ("a = b = 3", "one equals sign"),
            ("a < 3", "bounds are written beside"),
            ("a = (3", "still open"),
            ("a = 3 in kNn", "no unit"),
        )
        for text, words in cases:
            (wrong,) = self.block(f"k = 1\n{text}").wrong
            self.assertIn(words, wrong.error.message)
            self.assertEqual(wrong.number, 2)
        (wrong,) = self.block("a = (3").wrong
        self.assertEqual(wrong.error.mend, "a = (3)")

    def test_digits_are_those_that_were_typed(self):
        self.assertEqual(solved("load = mass g; mass = 850 kg").digits, 4)
        self.assertEqual(solved("load = mass g; mass = 850.125 kg").digits, 7)
        self.assertEqual(solved("u^2 = 2").digits, 0)

    @given(some.text(alphabet="ab=+*/^()2 .;\nkgmsN√°C[]<,", max_size=60))
    @settings(max_examples=250, deadline=None)
    def test_anything_typed_is_answered(self, text):
        block = self.block(text)
        system = System(block.equations, block.unknowns)
        found = solve(system, {}, nothing, {}, AngleUnit.RADIAN)
        for one in found.solutions:
            for value in one.values.values():
                self.assertIsInstance(value, Surd | arb | Measured)

    def test_a_scale_of_fractions_stays_exact(self):
        (one,) = solved("a = 1/3; b = a + 1/6; c = b^2").solutions
        self.assertEqual(one.values["c"], Surd.of(Fraction(1, 4)))
