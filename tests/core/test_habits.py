"""Ways of writing from elsewhere: read as they are meant, or refused with what to write."""

import math
import unittest

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_value
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.plain import plain
from axispath.core.language.readings import other_readings
from axispath.core.language.spelling import nearest
from axispath.core.language.statement import parse_statement
from axispath.core.language.walking import free_names
from axispath.core.sheet.document import Document, Lane, Table
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.solve.question import Unclear, ask
from axispath.core.table.columns import heads
from tests.case import Case
from tests.core.helpers import RADIAN

SHEET = Document(lanes=(Lane(id="f", text="f(x) = x^2 + 1"), Lane(id="a", text="a = 2")))
X = 1.7

# What is typed, and what it is at x = 1.7.
READ = [
    ("log_0.5(x)", -math.log2(X)),
    ("log_{0.5}(x)", -math.log2(X)),
    ("log_.5 x", -math.log2(X)),
    ("log_2.5(x)", math.log(X, 2.5)),
    ("3 log_0.1 x", -3 * math.log10(X)),
    ("|2|x|-1|", abs(2 * X - 1)),
    ("|2|x|-5|", abs(2 * X - 5)),
    ("|3|x - 4|-1|", abs(3 * abs(X - 4) - 1)),
    ("|2|x+1||", 2 * (X + 1)),
    ("1 + |2|x|-5|^2", 1 + (2 * X - 5) ** 2),
    ("||x|-3|", abs(X - 3)),
    ("|x||x-2|", X * (2 - X)),
    ("|2|*x*|-1|", 2 * X),
    ("|2|", 2),
    ("x^{2}", X**2),
    ("e^{2x}", math.exp(2 * X)),
    ("e^{-x^2}", math.exp(-X * X)),
    ("x^{1/3}", X ** (1 / 3)),
    ("cos^{2}(x)", math.cos(X) ** 2),
    ("tan^{-1}(x)", math.atan(X)),
    (r"\log_2 x", math.log2(X)),
    (r"\log_{10} x", math.log10(X)),
    (r"\log_{0.5} x", -math.log2(X)),
    (r"\operatorname{sin}(x)", math.sin(X)),
    (r"\mathrm{e}^x", math.exp(X)),
    (r"\mathrm{sin}^{2} x", math.sin(X) ** 2),
    (r"\frac{\text{x}}{2}", X / 2),
    ("∛x", X ** (1 / 3)),
    ("2∛(x+1)", 2 * (X + 1) ** (1 / 3)),
    ("f’(x)", 2 * X),
    ("f′(x)", 2 * X),
    ("2pix", 2 * math.pi * X),
    ("pix", math.pi * X),
    ("sin(pix)", math.sin(math.pi * X)),
    ("cos 2pix", math.cos(2 * math.pi * X)),
    ("axe^x", 2 * X * math.exp(X)),
    ("2sinx", 2 * math.sin(X)),
    ("sinax", math.sin(2 * X)),
    ("mod(x, 0.5)", 0.2),
]

# What is typed, a word of the sentence, and what is offered instead.
REFUSED = [
    ("f^2(x)", "square", "f(x)^2"),
    ("2f^2(x + 1) - 1", "square", "2f(x + 1)^2 - 1"),
    ("f²(x)", "square", "f(x)^2"),
    ("f'^2(x)", "square", "f'(x)^2"),
    ("f^-1(x)", "1/f(x)", None),
    ("C(5, 2)", "Combinations", "binomial(5, 2)"),
    ("C(5,2)", "Combinations", "binomial(5,2)"),
    ("P(5,2)", "not a function", None),
    ("sin2x", "name of its own", "sin(2x)"),
    ("tan2x", "name of its own", "tan(2x)"),
    ("1 + ln2x", "name of its own", "1 + ln(2x)"),
    ("log2(8)", "name of its own", "log_2(8)"),
    ("log2x", "name of its own", "log_2(x)"),
    ("log10(x)", "name of its own", "log_10(x)"),
    ("sin2(x)", "name of its own", "sin^2(x)"),
    ("xsin2x", "name of its own", "xsin(2x)"),
    ("sqrt2", "name of its own", "sqrt(2)"),
    ("sqrt2(x)", "name of its own", None),
    ("5%", "percentage", "(5/100)"),
    ("10%x", "percentage", "(10/100)x"),
    ("±x", "two values", None),
    (r"\pm x", "two values", None),
    ("∫x", "integral(x^2 for", None),
    (r"\int x dx", "range", None),
    ("int(x)", "integral(x^2 for", None),
    ("lim x", "limit(sin", None),
    ("lim_{x->0} sin(x)/x", "limit(sin", None),
    (r"\lim x", "letter goes", None),
    ("x→2", "limit(sin", None),
    ("g: x -> x^2", "g(x) =", "g(x) = x^2"),
    ("g : x ↦ x^2", "g(x) =", "g(x) = x^2"),
    ("g(x) := x^2", "single equals", "g(x) = x^2"),
    ("x^2, x < 0", "for", "x^2 for x < 0"),
    ("x^2, 0 < x < 2", "for", "x^2 for 0 < x < 2"),
    ("log(2, 8)", "index", "log_2(8)"),
    ("log(0.5, x)", "index", "log_0.5(x)"),
    ("log(a, 8)", "index", None),
    ("d/dx x^2", "prime", None),
    ("dy/dx", "prime", None),
    (r"\frac{d}{dx} x^2", "prime", None),
    ("g(x) = ", "formula is missing", None),
    ("b =", "number is missing", None),
    ("x mod 3", "mod(x, 3)", "mod(x, 3)"),
    ("√[3](x)", "root(3, x)", "root(3, x)"),
    ("√[3](x + 1)", "root(3, x)", "root(3, x + 1)"),
    ("2,5x", "point", "2.5x"),
    ("1,5x + 2,5", "point", "1.5x + 2.5"),
    ("f(2,5)", "one argument", "f(2.5)"),
    (r"\sum_k k", "range", None),
    (r"\begin{align} x \end{align}", "each line", None),
]

# What is typed in Solve, its unknown, and its two sides as they are read.
EQUATIONS = [
    ("sinx = 1/2", "x", "sin(x)", "1 / 2"),
    ("2sinx = 1", "x", "2 sin(x)", "1"),
    ("xe^x = 1", "x", "x e^x", "1"),
    ("sin(πx) = 1/2", "x", "sin(π x)", "1 / 2"),
    ("sin(pix) = 1/2", "x", "sin(π x)", "1 / 2"),
    ("ax = 6", "x", "a x", "6"),
    ("e^x = ex", "x", "e^x", "e x"),
    ("x^{2} = 2", "x", "x^2", "2"),
    (r"\frac{x}{2} = 3", "x", "x / 2", "3"),
    (r"\sqrt{x} \le 2", "x", "sqrt(x)", "2"),
    ("sint = 1/2", "t", "sin(t)", "1 / 2"),
    ("tanθ = 1", "θ", "tan(θ)", "1"),
    ("|2|x|-1| = 3", "x", "abs(2 abs(x) - 1)", "3"),
    ("log_0.5(x) = 3", "x", "log_0.5(x)", "3"),
    ("f’(x) = 3", "x", "f'(x)", "3"),
]


def statement(line):
    return parse_statement(written(line), scope_of(SHEET.lanes))


class LinesAsTheyAreMeant(Case):
    def test_they_have_the_value_that_is_meant(self):
        definitions = resolve(SHEET).lanes[0].definitions
        for line, value in READ:
            with self.subTest(line):
                found = float_value(program(statement(line).body, ("x",), definitions), RADIAN, X)
                self.assertAlmostEqual(found, value, 12)

    def test_lines_that_are_refused_say_what_to_write(self):
        for line, sentence, mend in REFUSED:
            with self.subTest(line), self.assertRaises(LanguageError) as caught:
                statement(line)
            self.assertIn(sentence, caught.exception.message)
            self.assertEqual(caught.exception.mend, mend, line)
            if mend is not None:
                statement(mend)

    def test_a_lane_refuses_and_reads_the_same_lines(self):
        for line, _, mend in REFUSED:
            with self.subTest(line), self.assertRaises(EditRefused):
                apply(SHEET, AddLane(text=line))
            if mend:
                apply(SHEET, AddLane(text=mend))
        for line, _ in READ:
            with self.subTest(line):
                added = apply(SHEET, AddLane(text=line, id="new"))
                self.assertIsNone(resolve(added).lane("new").error)

    def test_names_that_the_sheet_defines_mean_what_it_says(self):
        for name in ("sin2", "log2", "mx", "pix", "lim", "int", "tant", "d", "C"):
            document = apply(SHEET, AddLane(text=f"{name} = 3"))
            added = apply(document, AddLane(text=f"{name} + 1", id="new"))
            with self.subTest(name):
                found = [n.name for n in free_names(resolve(added).lane("new").statement.body)]
                self.assertEqual(found, [name])


class OneLetterBesideAnArgument(Case):
    def test_it_is_a_factor_and_that_is_told(self):
        for line, missing, told in [
            ("mx + b", ("m", "b"), "mx is m times x"),
            ("kx", ("k",), "kx is k times x"),
            ("s(t) = sin(ωt)", ("ω",), "ωt is ω times t"),
            ("xy", ("y",), "xy is x times y"),
            ("abx", ("b",), "abx is a times b times x"),
        ]:
            with self.subTest(line):
                added = apply(SHEET, AddLane(text=line, id="new"))
                self.assertEqual(resolve(added).lane("new").missing, missing)
                scope = scope_of(SHEET.lanes).with_values(("x", "t"))
                found = [reading.taken for reading in other_readings(line, scope)]
                self.assertIn(told, found)

    def test_words_stay_words(self):
        for word in ("speed", "depth", "volume", "rate", "abc", "tna", "sum1", "max2", "mean3"):
            with self.subTest(word):
                self.assertEqual([n.name for n in free_names(statement(word).body)], [word])

    def test_x2_is_told_to_be_a_name(self):
        readings = other_readings("3x2 + 1", scope_of(SHEET.lanes).with_values(("x",)))
        self.assertEqual([r.other for r in readings], ["3x^2 + 1"])


class OfferedNames(Case):
    def test_one_slip_of_the_fingers_is_seen(self):
        scope = catalogue.SCOPE
        for typed, meant in [
            ("sinn", "sin"),
            ("cosn", "cos"),
            ("tna", "tan"),
            ("sqr", "sqrt"),
            ("flor", "floor"),
            ("arcsni", "arcsin"),
            ("gemma", "gamma"),
        ]:
            self.assertEqual(nearest(typed, scope), meant)

    def test_what_only_looks_alike_is_not_offered(self):
        for typed in ("lim", "abx", "ext", "tan2", "ab", "x", "kin", "rate", "time", "coz"):
            with self.subTest(typed):
                self.assertIsNone(nearest(typed, catalogue.SCOPE))


class OtherReadings(Case):
    def test_every_other_line_is_read_and_means_something_else(self):
        scope = scope_of(SHEET.lanes).with_values(("x",))
        seen = 0
        for line in ("1/2x", "e^2x", "x^-1/2", "sin x^2", "log x", "|2|x|-1|", "x2 + 1"):
            for reading in other_readings(line, scope):
                if reading.other:
                    seen += 1
                    self.assertNotEqual(statement(reading.other), statement(line), line)
        self.assertGreaterEqual(seen, 7)


class SolveReadsAsALaneDoes(Case):
    def test_the_sides_and_the_unknown(self):
        for line, unknown, left, right in EQUATIONS:
            with self.subTest(line):
                question = ask(SHEET, line)
                self.assertEqual(question.unknown, unknown)
                sides = [plain(s, catalogue.VOCABULARY) for s in question.comparison.operands]
                self.assertEqual(sides, [left, right])

    def test_each_side_is_what_a_lane_makes_of_it(self):
        for line, _ in READ:
            with self.subTest(line):
                comparison = ask(SHEET, f"{line} = x + 2").comparison
                self.assertEqual(comparison.operands[0], statement(line).body)

    def test_what_a_lane_refuses_is_refused_in_the_same_words(self):
        for line, sentence, mend in REFUSED:
            if (
                "=" in line
                or "," in line
                or "<" in line
                or "cases" in line
                or "->" in line
                or "↦" in line
            ):
                continue
            with self.subTest(line), self.assertRaises(EditRefused) as caught:
                ask(SHEET, f"{line} = 1")
            self.assertIn(sentence, str(caught.exception))
            self.assertEqual(caught.exception.mend, None if mend is None else f"{mend} = 1")

    def test_decimal_commas_are_mended(self):
        for line, mend in [
            ("x^2 = 2,25", "x^2 = 2.25"),
            ("y = 2,5x", "y = 2.5x"),
            ("1,5x = 2,5", "1.5x = 2.5"),
        ]:
            with self.subTest(line), self.assertRaises(EditRefused) as caught:
                ask(SHEET, line)
            self.assertEqual(caught.exception.mend, mend)

    def test_letters_without_a_value_are_all_offered(self):
        for line, choices in [
            ("y = mx + b", ("y", "m", "x", "b")),
            ("kx = 3", ("k", "x")),
            ("sin(ωt) = 1/2", ("ω", "t")),
        ]:
            with self.subTest(line), self.assertRaises(Unclear) as caught:
                ask(SHEET, line)
            self.assertEqual(caught.exception.choices, choices)

    def test_a_parameter_can_be_the_unknown(self):
        self.assertEqual(ask(SHEET, "3a = 6", "a").unknown, "a")
        self.assertEqual(ask(SHEET, "sint = 1/2", "t").unknown, "t")


class EndsAndColumns(Case):
    def test_they_are_read_as_lines_are(self):
        for text, value in [(r"\frac{\pi}{2}", math.pi / 2), ("2pi", 2 * math.pi), ("2^{3}", 8)]:
            self.assertAlmostEqual(typed_end(SHEET, text).x, value, 14)
        with self.assertRaises(EditRefused) as caught:
            typed_end(SHEET, "2,5")
        self.assertEqual(caught.exception.mend, "2.5")
        table = Table(id="t", columns=("x^{2}", "sinx", "∛x"))
        for head in heads(SHEET, table):
            self.assertEqual(head.error, "", head.text)


if __name__ == "__main__":
    unittest.main()
