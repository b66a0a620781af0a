import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_value
from axispath.core.language.errors import LanguageError
from axispath.core.language.latex import latex_statement
from axispath.core.language.mathml import mathml_statement
from axispath.core.language.plain import plain, plain_statement
from axispath.core.language.tree import (
    Apply,
    Constant,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Sum,
)
from tests.core.helpers import RADIAN, read

# Line, x, value. The reason for each is in the rules of reading.
READINGS = [
    ("6/2(1+2)", 0, 9),  # side by side binds like a written product, from the left
    ("1/2x", 8, 4),
    ("-3^2", 0, -9),  # a sign is weaker than a power
    ("2^3^2", 0, 512),  # powers from the right
    ("2^-1", 0, 0.5),
    ("2^-x", 1, 0.5),
    ("x - -2", 1, 3),
    ("2 * -3", 0, -6),
    ("sin x^2", 3, 0.4121184852417566),  # sin(9); mpmath
    ("sin^2(x)", 3, 0.019914856674816989),  # sin(3)^2; mpmath
    ("sin² x", 3, 0.019914856674816989),
    ("sin^-1(x)", 0.5, 0.52359877559829887),  # π/6
    ("sin⁻¹(x)", 0.5, 0.52359877559829887),
    ("sin 2x", 1, 0.90929742682568170),  # sin(2); mpmath
    ("x sin x", 2, 1.8185948536513634),
    ("sin x cos x", 1, 0.45464871341284085),
    ("sin(x)/2", 1, 0.42073549240394825),
    ("xsin(x)", 2, 1.8185948536513634),
    ("|x - 2|", 0, 2),
    ("||x| - 3|", -1, 2),
    ("|x||x - 1|", 3, 6),
    ("2|x|3", -2, 12),
    ("√x + 1", 9, 4),
    ("√(x + 1)", 8, 3),
    ("2π", 0, 6.283185307179586),
    ("2e^x", 0, 2),
    ("2e3", 0, 2000),  # scientific, since nothing stands between
    ("1.5e-2", 0, 0.015),
    (".5x", 4, 2),
    ("x²−3x", 2, -2),
    ("3 × 2 ÷ 4", 0, 1.5),
    ("log 1000", 0, 3),
    ("log_2(8)", 0, 3),
    ("ln e", 0, 1),
    ("x^(1/3)", -8, -2),  # a root of odd index written as a fraction is real
    ("x^(2/3)", -8, 4),
    ("x^(-1/3)", -8, -0.5),
    ("root(3, x)", -27, -3),
    ("y = 2x + 1", 3, 7),
    ("x(x + 1)", 2, 6),
    ("(x + 1)(x - 1)", 3, 8),
    ("180°", 0, 3.141592653589793),
    ("sin 30°", 0, 0.5),
    ("x + 2 if x < 0, x^2 otherwise", -1, 1),
    ("x + 2 if x < 0, x^2 otherwise", 3, 9),
    ("1 if 0 <= x < 1, 2 if x = 1, 3 otherwise", 1, 2),
    ("1 if 0 <= x < 1, 2 if x = 1, 3 otherwise", 0.5, 1),
    ("2 (1 if x ≠ 0, 5 otherwise)", 0, 10),
    ("ln(x) if x > 0, 0 otherwise", -1, 0),  # the part not chosen need not be defined
    ("5!", 0, 120),
    ("-3!", 0, -6),
    ("2^3!", 0, 64),
    ("x!^2", 3, 36),
    ("½x", 8, 4),
    ("2½", 0, 2.5),
    ("sum(k^2 for k = 1 to 10)", 0, 385),
    ("sum(x^k/k! for k = 0 to 20)", 1, 2.7182818284590452354),
    ("product(k for k = 1 to 5)", 0, 120),
    ("sum(k for k = 3 to 2)", 0, 0),
    ("mean([2, 3, 7])", 0, 4),
    ("median(2, 3, 7, 10)", 0, 5),
    ("max([1, 5, 2] * 2)", 0, 10),
    ("sum(steps(0, 2, 0.25))", 0, 9),
    ("max(spread(-1, 1, 41))", 0, 1),
    ("sum([1, 2] + [10, 20])", 0, 33),
    ("deviation(2, 4, 9)", 0, 3.6055512754639893),  # √13
    ("mod(-7, 3)", 0, 2),
    ("round(-2.5)", 0, -3),
    ("round(2.345, 1)", 0, 2.3),
    ("gcd(12, 18, 27)", 0, 3),
    ("lcm(4, 6)", 0, 12),
    ("binomial(6, 2)", 0, 15),
    ("τ - 2π", 0, 0),
    ("φ^2 - φ", 0, 1),
    ("tau", 0, 6.283185307179586),
]

# Line, part of the sentence, what is underlined.
MISTAKES = [
    ("x +", "missing after +", "+"),
    ("* x", "missing before ×", "*"),
    ("x ^", "missing after ^", "^"),
    ("sin(", "bracket after sin is still open", "("),
    ("sin", "sin needs something", "sin"),
    ("sin()", "sin needs something", "("),
    ("(x + 1", "still open", "("),
    ("|x", "still open", "|"),
    ("2 x )", "closes nothing", ")"),
    ("()", "nothing between", "("),
    ("", "nothing here yet", ""),
    ("   ", "nothing here yet", ""),
    ("1..2", "two decimal points", "1..2"),
    ("1.2.3", "two decimal points", "1.2.3"),
    ("3 4", "side by side", "3 4"),
    ("x # 2", "“#” has no meaning", "#"),
    ("<script>", "cannot stand", "<"),
    ("__import__('os')", "“_” has no meaning", "_"),
    ("f(x) = ", "formula is missing", "="),
    ("= x", "has a name", "="),
    ("x == 2", "single equals sign", "=="),
    ("1 = 2 = 3", "one equals sign only", "="),
    ("5x = 2", "has a name", "5x"),
    ("sin = 2", "has a meaning already", "sin"),
    ("π(x) = x", "has a meaning already", "π(x)"),
    ("x = 4", "variable of the axis", "x"),
    ("f(x, x) = x", "same name", "f(x, x)"),
    ("a = x + 1", "its formula uses x", "a"),
    ("a = 2 for x > 1", "number has no domain", "for"),
    ("x for", "domain is missing", "for"),
    ("x for x", "Write the domain", "x"),
    ("x for 1 < x for 2", "one domain only", "for"),
    ("x for x in 2", "Write the interval", "in 2"),
    ("x for t > 2", "Write the domain", "t > 2"),
    ("root(2)", "takes 2 arguments", "root"),
    ("x^999999999999", "", ""),  # read, and refused when computed
    ("1e400", "beyond what can be computed", "1e400"),
    ("a" * 5000, "5000 characters", None),
    ("(" * 400 + "x" + ")" * 400, "nested", None),
    ("-" * 400 + "x", "nested", None),
    ("x < 2", "Inequalities", "<"),
    ("x{2}", "round brackets", "{"),
    ("f'(x)", "prime stands only", "'"),
    ("3,5", "decimals are written with a point", ","),
    ("x if", "condition is missing", "if"),
    ("x if x", "compares two things", ""),
    ("x if x < 0, 2", "“otherwise”", ""),
    ("x if 0 < x and x < 2, 0 otherwise", "one chain", "and"),
    ("[1, 2; 3, 4]", "Matrices", ";"),
    ("[1, 2", "square bracket is still open", "["),
    ("sum(k for k)", "Write the range", "for"),
    ("sum(k for k = 1)", "needs an end", "="),
    ("round(1, 2, 3)", "round takes 1 or 2 arguments", "round"),
    ("arctan2(1)", "arctan2(y, x)", "arctan2"),
]

NAMES = st.sampled_from(["x", "a", "depth", "v_0"]).map(Name)
NUMBERS = st.sampled_from(["0", "1", "2", "10", "0.5", "3.25"]).map(Number)
CONSTANTS = st.sampled_from(sorted(catalogue.CONSTANTS)).map(Constant)
WORDS = [word for word in catalogue.VOCABULARY.functions.values() if word.name != "log_base"]


def _bigger(inner):
    terms = st.lists(st.one_of(inner, inner.map(Negation)), min_size=2, max_size=4)
    return st.one_of(
        inner.map(Negation),
        terms.filter(lambda found: not isinstance(found[0], Sum)).map(lambda t: Sum(tuple(t))),
        st.builds(Product, inner, inner),
        st.builds(Quotient, inner, inner),
        st.builds(Power, inner, inner),
        st.sampled_from(WORDS).flatmap(
            lambda word: st.tuples(*[inner] * len(word.arguments)).map(
                lambda given: Apply(word.name, given)
            )
        ),
    )


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


class Reading(unittest.TestCase):
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
                    if error.mend != "x = 2":  # reads as the next mistake, about the name
                        read(error.mend)
        self.assertGreaterEqual(mended, 5)

    def test_words_are_taken_apart_only_where_all_parts_are_known(self):
        self.assertEqual(read("xy").body, Name("xy"))
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

    @given(TREES)
    @settings(max_examples=400, deadline=None)
    def test_plain_text_reads_back_as_the_same_tree(self, tree):
        text = plain(tree, catalogue.VOCABULARY)
        self.assertEqual(read(text, values=["x", "a", "depth", "v_0"]).body, tree, text)

    @given(st.one_of(st.text(max_size=60), st.lists(WORDS_OF_LINES, max_size=14).map(" ".join)))
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


class Typesetting(unittest.TestCase):
    def test_latex(self):
        for line, latex in [
            ("x^2 - x - 3", "f(x) = {x}^{2} - x - 3"),
            ("(x + 1)/2", r"f(x) = \frac{x + 1}{2}"),
            ("2 sin(3x)", r"f(x) = 2\,\operatorname{sin}(3\,x)"),
            ("2*3", r"f(x) = 2 \cdot 3"),
            ("root(3, x)", r"f(x) = \sqrt[3]{x}"),
        ]:
            with self.subTest(line):
                self.assertEqual(latex_statement(read(line), catalogue.VOCABULARY, "f"), latex)

    def test_mathml_escapes_and_nests(self):
        found = mathml_statement(read("(x + 1)/√x"), catalogue.VOCABULARY, "f")
        self.assertIn("<mfrac><mrow><mi>x</mi><mo>+</mo><mn>1</mn></mrow><msqrt>", found)
