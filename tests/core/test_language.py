import math

from hypothesis import example, given, settings
from hypothesis import strategies as st

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.program import Definition, NotComputable
from axispath.core.language.errors import LanguageError
from axispath.core.language.latex import latex, latex_statement
from axispath.core.language.line_rules import LINE_RULES
from axispath.core.language.mathml import mathml_statement
from axispath.core.language.pasted import from_latex
from axispath.core.language.plain import plain, plain_statement
from axispath.core.language.readings import other_readings
from axispath.core.language.rules import RULES
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_statement
from axispath.core.language.tree import (
    Apply,
    Cases,
    Comparison,
    Constant,
    ListOf,
    MatrixOf,
    Name,
    Negation,
    Number,
    Part,
    Power,
    Product,
    Quotient,
    Running,
    Series,
    Stretch,
    Sum,
)
from axispath.core.language.walking import walk
from tests.case import Case
from tests.core.corpus import MISTAKES, READINGS
from tests.core.helpers import RADIAN, read

NAMES = st.sampled_from(["x", "a", "depth", "v_0"]).map(Name)
NUMBERS = st.sampled_from(["0", "1", "2", "10", "0.5", "3.25"]).map(Number)
CONSTANTS = st.sampled_from(sorted(catalogue.CONSTANTS)).map(Constant)
SIGNS_ONLY = ("log_base", "sum", "product")
WORDS = [
    word
    for word in catalogue.VOCABULARY.functions.values()
    if word.name not in SIGNS_ONLY and not word.runs
]


def _comparison(inner):
    return st.builds(
        lambda a, sign, b: Comparison((a, b), (sign,)),
        inner,
        st.sampled_from(["<", "<=", ">", ">=", "=", "!="]),
        inner,
    )


def _place(inner):
    return inner | st.builds(Stretch, inner, inner)


def _bigger(inner):
    terms = st.lists(st.one_of(inner, inner.map(Negation)), min_size=2, max_size=4)
    return st.one_of(
        inner.map(Negation),
        terms.filter(lambda found: not isinstance(found[0], Sum)).map(lambda t: Sum(tuple(t))),
        st.builds(Product, inner, inner),
        st.builds(Quotient, inner, inner),
        st.builds(Power, inner, inner),
        st.builds(ListOf, st.lists(inner, max_size=3).map(tuple)),
        st.builds(Cases, st.tuples(inner), st.tuples(_comparison(inner)), st.none() | inner),
        st.builds(Series, st.just("sum"), inner, st.just("k"), inner, inner),
        st.builds(MatrixOf, st.lists(st.tuples(inner, inner), min_size=2, max_size=3).map(tuple)),
        st.builds(Part, NAMES, st.lists(_place(inner), min_size=1, max_size=2).map(tuple)),
        st.builds(Running, st.just("integral"), inner, st.just("k"), st.tuples(inner, inner)),
        st.builds(
            Running,
            st.just("limit"),
            inner,
            st.just("k"),
            st.tuples(inner),
            side=st.sampled_from(["", "left", "right"]),
        ),
        st.builds(
            Running, st.just("taylor"), inner, st.just("k"), st.tuples(inner), st.tuples(inner)
        ),
        st.sampled_from(WORDS).flatmap(
            lambda word: st.tuples(*[inner] * len(word.arguments)).map(
                lambda given: Apply(word.name, given)
            )
        ),
    )


def _is_transposed(node):
    """A number or a vector of one letter transposed reads as a power."""
    return isinstance(node, Apply) and node.function == "transpose"


TREES = st.recursive(st.one_of(NAMES, NUMBERS, CONSTANTS), _bigger, max_leaves=14)
WORDS_OF_LINES = st.sampled_from(
    [
        *"xy2.+-*/^()|[],=<√π°²⁻!'_\\{}∞é",
        "3.5",
        "..",
        "==",
        "for",
        "in",
        "sin",
        "cos²",
        "a_1",
        "1e9",
    ]
)


class Reading(Case):
    def test_lines_have_the_value_the_rules_give_them(self):
        for line, x, value in READINGS:
            with self.subTest(line):
                found = float_value(program(read(line).body), RADIAN, x)
                self.assertAlmostEqual(found, value, delta=1e-14 * max(1, abs(value)))

    def test_mistakes_get_a_sentence_and_a_place(self):
        for line, sentence, place in MISTAKES:
            with self.subTest(line[:40]):
                if not sentence:
                    read(line)
                    continue
                with self.assertRaises(LanguageError) as caught:
                    read(line)
                error = caught.exception
                self.assertIn(sentence, error.message)
                if place is not None:
                    self.assertEqual(line[error.start : error.end], place, error.message)

    def test_a_mend_is_a_line_that_reads(self):
        mended = 0
        for line, _, _ in MISTAKES:
            try:
                read(line)
            except LanguageError as error:
                if error.mend is not None:
                    mended += 1
                    read(error.mend)
        self.assertGreaterEqual(mended, 30)

    def test_the_mend_is_what_was_meant(self):
        for line, meant in (
            ("x^2 for x > 0 for x <= 3", "x^2 for 0 < x <= 3"),
            ("x^2 for 3 >= x for -1 < x", "x^2 for -1 < x <= 3"),
            ("x^2 for 0 < x < 3 for x < 2", "x^2 for 0 < x < 3"),
            ("sin()", "sin(x)"),
            ("max(x, )", "max(x)"),
            ("max(x,, 2)", "max(x, 2)"),
            ("x +", "x"),
            ("2 sin", "2 sin(x)"),
            ("(x + 1", "(x + 1)"),
            ("1,5x", "1.5x"),
        ):
            with self.subTest(line), self.assertRaises(LanguageError) as found:
                read(line)
            self.assertEqual(found.exception.mend, meant)

    def test_words_are_taken_apart_only_where_all_parts_are_known(self):
        self.assertEqual(read("xyz").body, Name("xyz"))
        self.assertEqual(read("xy", values=["y"]).body, Product(Name("x"), Name("y")))
        self.assertEqual(read("xy", values=["y", "xy"]).body, Name("xy"))
        self.assertEqual(read("depth").body, Name("depth"))

    def test_domains(self):
        for line, plain_form in [
            ("x for -4 <= x <= 2", "x for -4 <= x <= 2"),
            ("x for x in [-4, 2)", "x for -4 <= x < 2"),
            ("x for 2 > x >= -4", "x for -4 <= x < 2"),
            ("x for x ≥ 0", "x for x >= 0"),
            ("x for x in (-∞, 2π]", "x for x <= 2 π"),
            ("f(t) = t for 0 < t", "f(t) = t for t > 0"),
        ]:
            with self.subTest(line):
                self.assertEqual(plain_statement(read(line), catalogue.VOCABULARY), plain_form)

    def test_the_logarithm_of_a_list_has_one_argument(self):
        for line in ("ln([4, 8])", "log([x, 2, 8])"):
            with self.subTest(line):
                self.assertEqual(plain(read(line).body, catalogue.VOCABULARY), line)
        for line in ("log(2, 8)", "log([1, 2], 8)"):
            with self.subTest(line), self.assertRaisesRegex(LanguageError, "written as an index"):
                read(line)

    @given(TREES)
    @settings(max_examples=400, deadline=None)
    def test_plain_text_reads_back_as_the_same_tree(self, tree):
        text = plain(tree, catalogue.VOCABULARY)
        self.assertEqual(read(text, values=["x", "a", "depth", "v_0"]).body, tree, text)

    @given(st.one_of(st.text(max_size=60), st.lists(WORDS_OF_LINES, max_size=14).map(" ".join)))
    @example("0*0°")
    @example("2*3!!")
    @example("2*3°^2")
    @example("x*3!")
    @example("r=(θ)")
    @settings(max_examples=1500, deadline=None)
    def test_any_text_is_read_or_refused_with_a_sentence(self, text):
        try:
            statement = read(text)
        except LanguageError as error:
            self.assertTrue(error.message.endswith((".", "?")), error.message)
            self.assertLessEqual(error.end, len(text))
            return
        latex_statement(statement, catalogue.VOCABULARY, "f")
        mathml_statement(statement, catalogue.VOCABULARY, "f")
        again = plain_statement(statement, catalogue.VOCABULARY)
        self.assertEqual(read(again), statement, again)


class Corpus(Case):
    def test_it_is_as_large_as_it_should_be(self):
        lines = {line for line, *_ in (*READINGS, *MISTAKES)}
        self.assertGreaterEqual(len(lines), 340)
        self.assertGreaterEqual(len(MISTAKES), 150)

    @given(st.sampled_from(READINGS), st.data())
    @settings(max_examples=600, deadline=None)
    def test_a_mutated_line_is_read_or_refused_quickly(self, reading, data):
        line = list(reading[0])
        for _ in range(data.draw(st.integers(1, 3))):
            at = data.draw(st.integers(0, len(line)))
            kind = data.draw(st.sampled_from(["drop", "add", "double"]))
            if kind == "add":
                line.insert(at, data.draw(st.sampled_from("()|[],^*/+-=<x2sπ√ '!°.")))
            elif at < len(line):
                line[at : at + 1] = [] if kind == "drop" else [line[at]] * 2
        try:
            statement = read("".join(line))
            latex_statement(statement, catalogue.VOCABULARY, "f")
            program(statement.body, getattr(statement, "parameters", ()), AnyNames())
        except (LanguageError, NotComputable):
            pass


class AnyNames(dict):
    """Every name is a number, so that any statement can be written out."""

    def __missing__(self, name):
        return Definition(None, Number("2"))


class HomeworkInLatex(Case):
    def test_pasted_lines_have_the_value_they_had_on_paper(self):
        for line, x, value in [
            (r"\frac{x^2}{3}", 3, 3),
            (r"\sin\left(x\right)", 0, 0),
            (r"\sqrt[3]{x}", 27, 3),
            (r"\frac12 x", 8, 4),
            (r"2\cdot\pi\cdot x", 0.5, math.pi),
            (r"e^{-x}", 0, 1),
            (r"\sin 30^{\circ}", 0, 0.5),
            (r"\left|x-2\right|", 0, 2),
            (r"$\ln\left(x\right)$", 1, 0),
            (r"x^{2}-\sqrt{x+1}", 3, 7),
            (r"\frac{1}{1+\frac{1}{x}}", 1, 0.5),
        ]:
            with self.subTest(line):
                found = float_value(program(read(from_latex(line)).body), RADIAN, x)
                self.assertAlmostEqual(found, value, 12)

    @given(TREES.filter(lambda tree: not any(map(_is_transposed, walk(tree)))))
    @settings(max_examples=600, deadline=None)
    def test_what_is_typeset_is_read_as_what_it_was(self, tree):
        pasted = latex(tree, catalogue.VOCABULARY)
        found = read(from_latex(pasted), values=["x", "a", "depth", "v_0"]).body
        self.assertEqual(found, tree, pasted)

    def test_signs_of_the_lecture(self):
        for line, wanted in [
            (r"\int_0^1 x^2+1 \, dx", "integral(x^2+1 for x = 0 to 1)"),
            (
                r"\begin{cases} x^2 & x<0 \\ 2 & \text{otherwise} \end{cases}",
                "(x^2 if x<0, 2 otherwise)",
            ),
            (r"\sum_{k=1}^{10} k^2 + 1", "sum(k^2 for k = 1 to 10) + 1"),
            (r"\lim_{x \to 0^+} \ln x", "limit(ln x for x to 0, right)"),
            (r"\begin{pmatrix} 1 & 2 \\ 3 & 4 \end{pmatrix}", "[1, 2; 3, 4]"),
            (r"\frac{d}{dx}(x^2)", "derivative((x^2) for x)"),
            (r"A^{\mathsf{T}}", "A^T"),
        ]:
            self.assertEqual(from_latex(line), wanted)
            read(from_latex(line))

    @given(st.text(alphabet=r"\{}[]^_frac sqrtlein()x2+-$,", max_size=40))
    @settings(max_examples=500, deadline=None)
    def test_any_latex_is_read_or_refused(self, text):
        try:
            read(from_latex(text))
        except LanguageError as error:
            self.assertTrue(error.message)


class TwoReadings(Case):
    def test_doubtful_lines_offer_the_other_reading(self):
        for line, other in [
            ("1/2x", "1/(2x)"),
            ("1/2(x + 1)", "1/(2(x + 1))"),
            ("sin x^2", "(sin x)^2"),
            ("sin x²", "(sin x)²"),
            ("e^2x", "e^(2x)"),
            ("log x", "ln x"),
            ("x^-1/2", "x^(-1/2)"),
        ]:
            with self.subTest(line):
                (reading,) = other_readings(line, catalogue.SCOPE)
                self.assertEqual(reading.other, other)
                self.assertNotEqual(read(line).body, read(other).body)

    def test_plain_lines_offer_nothing(self):
        for line in ("x^2 - x - 3", "2 sin(3x)", "1/2", "x/2", "sin(x)^2", "e^(2x)", "ln x", "x +"):
            self.assertEqual(other_readings(line, catalogue.SCOPE), [], line)


class Handbook(Case):
    def test_every_example_of_the_rules_and_the_catalogue_can_be_read(self):
        for rule in RULES:
            for line in rule.examples:
                read(line, functions={"f": 1})
        complex_words = Scope(catalogue.LINE_VOCABULARY)
        for rule in LINE_RULES:
            for line in rule.examples:
                parse_statement(line, complex_words)
        for entry in catalogue.CALCULATED.values():
            parse_statement(entry.example, complex_words)
            self.assertTrue(entry.summary.endswith("."), entry.word.name)
        for entry in catalogue.ENTRIES.values():
            statement = read(entry.example)
            value = program(statement.body, ("x",))
            if value.items is None:
                self.assertTrue(math.isfinite(float_value(value, RADIAN, 0.5)), entry.example)
            self.assertTrue(entry.summary.endswith("."), entry.word.name)


class Typesetting(Case):
    def test_latex(self):
        for line, written in [
            ("x^2 - x - 3", "f(x) = {x}^{2} - x - 3"),
            ("(x + 1)/2", r"f(x) = \frac{x + 1}{2}"),
            ("2 sin(3x)", r"f(x) = 2\,\operatorname{sin}(3\,x)"),
            ("2*3", r"f(x) = 2 \cdot 3"),
            ("root(3, x)", r"f(x) = \sqrt[3]{x}"),
        ]:
            with self.subTest(line):
                self.assertEqual(latex_statement(read(line), catalogue.VOCABULARY, "f"), written)

    def test_mathml_escapes_and_nests(self):
        found = mathml_statement(read("(x + 1)/√x"), catalogue.VOCABULARY, "f")
        self.assertIn("<mfrac><mrow><mi>x</mi><mo>+</mo><mn>1</mn></mrow><msqrt>", found)
