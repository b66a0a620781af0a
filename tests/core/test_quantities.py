"""Exact numbers, matrices and row operations against mpmath, NumPy, SymPy and themselves."""

import itertools
import math
import unittest
from fractions import Fraction

import mpmath
import numpy as np
import sympy
from flint import arb, fmpq, fmpq_mat
from hypothesis import assume, given, settings
from hypothesis import strategies as some

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.functions import at_numbers
from axispath.core.calculation.lists import MANY
from axispath.core.calculation.principal import CUTS, PRINCIPAL
from axispath.core.calculation.running import RUNNING
from axispath.core.calculation.trees import tree_of
from axispath.core.catalogue.balls import precision
from axispath.core.equations.linear import solved
from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.quantities import elimination
from axispath.core.quantities.eigen import eigenvalues, eigenvectors
from axispath.core.quantities.grids import product, transposed
from axispath.core.quantities.laurent import Laurent, NoSeries
from axispath.core.quantities.polynomials import polynomial_zeros
from axispath.core.quantities.reduction import form_of, reduction
from axispath.core.quantities.scalars import TooWide, enclosed
from axispath.core.quantities.surds import IMAGINARY, PI, NotExact, Surd
from axispath.core.quantities.values import Grid, NoResult, Undefined
from axispath.core.solve.linear import read_system
from axispath.core.solve.rows import read_operation
from axispath.core.table.results.exact import exact_text
from tests.case import Case

COMPLEX = Scope(catalogue.LINE_VOCABULARY)
CALCULATOR = Calculator({}, AngleUnit.RADIAN)
small = some.fractions(-20, 20, max_denominator=12)


@some.composite
def surds(draw, most=4, turns=False):
    found = Surd(())
    for _ in range(draw(some.integers(0, most))):
        q = Surd.of(draw(small))
        root = Surd.of(draw(some.sampled_from((1, 2, 3, 5, 6, 12)))).square_root()
        part = q * root
        if draw(some.booleans()):
            part = part * IMAGINARY
        if turns and draw(some.booleans()):
            part = part * PI
        found = found + part
    return found


def with_mpmath(value):
    return sum(
        mpmath.mpf(q.numerator) / q.denominator * mpmath.sqrt(m) * mpmath.pi**k * (1j if s else 1)
        for (s, m, k), q in value.terms
    )


def grid(rows):
    return Grid(tuple(tuple(Surd.of(Fraction(v)) for v in row) for row in rows))


def rational(found):
    return [[one.rational for one in row] for row in found.rows]


matrices = some.integers(1, 4).flatmap(
    lambda n: some.lists(some.lists(small, min_size=n, max_size=n), min_size=n, max_size=n)
)


class ExactNumbers(Case):
    @given(surds(), surds())
    def test_they_compute_as_mpmath_does(self, a, b):
        with mpmath.workdps(50):
            x, y = with_mpmath(a), with_mpmath(b)
            for found, wanted in ((a + b, x + y), (a - b, x - y), (a * b, x * y)):
                self.assertLess(abs(with_mpmath(found) - wanted), 1e-35 * (1 + abs(wanted)))
            self.assertEqual(a.is_zero, abs(x) < 1e-30)

    @given(surds(most=3), surds(most=3))
    def test_they_are_a_field(self, a, b):
        assume(not b.is_zero)
        try:
            quotient = a / b
        except NotExact:
            assume(False)
        self.assertEqual(quotient * b, a)

    @given(surds(most=3, turns=True))
    def test_the_text_reads_back_as_the_same_number(self, value):
        text = exact_text(value)
        assume(text)
        again = CALCULATOR.result(parse_expression(text.replace("−", "-"), COMPLEX)).value
        self.assertEqual(again, value)

    @given(surds())
    def test_roots_square_to_what_they_are_of_and_are_principal(self, value):
        try:
            root = value.square_root()
        except NotExact:
            return
        self.assertEqual(root * root, value)
        with mpmath.workdps(40):
            apart = with_mpmath(root) - mpmath.sqrt(mpmath.mpmathify(with_mpmath(value)))
            self.assertLess(abs(apart), 1e-25 * (1 + abs(with_mpmath(root))))

    @given(surds(most=3), some.integers(-6, 6))
    def test_powers(self, value, n):
        assume(n >= 0 or not value.is_zero)
        try:
            found = value.to_power(n)
        except NotExact:
            return
        wanted = Surd.of(1)
        for _ in range(abs(n)):
            wanted = wanted * value
        self.assertEqual(found * (wanted if n < 0 else Surd.of(1)), Surd.of(1) if n < 0 else wanted)

    def test_signs_are_told_however_near_to_0(self):
        # 665857/470832 is a convergent of √2; Hurwitz: the difference is about 1/(2√2 q²).
        near = Surd.of(2).square_root() - Surd.of(Fraction(665857, 470832))
        self.assertEqual(near.sign(), -1)
        self.assertEqual((near * near).sign(), 1)
        with self.assertRaises(NotExact):
            IMAGINARY.sign()

    def test_long_ones_are_given_up(self):
        with self.assertRaises(NotExact):
            Surd.of(7).to_power(10**6)
        with self.assertRaises(ZeroDivisionError):
            Surd.of(0).inverse()
        with self.assertRaises(NotExact):
            (PI + Surd.of(1)).inverse()


class Functions(Case):
    def test_principal_values_are_those_of_mpmath(self):
        places = (2 - 5j, -0.3 + 0.7j, 1.5 + 0.25j, -2 - 1j)
        names = {
            "arcsin": "asin",
            "arccos": "acos",
            "arctan": "atan",
            "arsinh": "asinh",
            "arcosh": "acosh",
            "artanh": "atanh",
            "ln": "log",
            "log": "log10",
        }
        for name, z in itertools.product(PRINCIPAL, places):
            with self.subTest(name, z=z), precision(128):
                number = Surd.of(Fraction(z.real)) + IMAGINARY * Surd.of(Fraction(z.imag))
                found = complex(enclosed(at_numbers(name, AngleUnit.RADIAN, (number,))).mid())
                wanted = complex(getattr(mpmath, names.get(name, name))(z))
                self.assertLess(abs(found - wanted), 1e-12 * (1 + abs(wanted)))
        self.assertLessEqual(set(CUTS), set(PRINCIPAL))

    @given(small, some.sampled_from(sorted(catalogue.ENTRIES)))
    @settings(max_examples=300)
    def test_at_fractions_they_are_what_the_catalogue_encloses(self, x, name):
        entry = catalogue.ENTRIES[name]
        assume(len(entry.word.arguments) == 1 and not entry.word.many and name != "degrees")
        with precision(160):
            try:
                found = at_numbers(name, AngleUnit.RADIAN, (Surd.of(x),))
                wanted = entry.ball(arb(x.numerator) / x.denominator)
            except (TooWide, ArithmeticError):
                return
            if isinstance(found, Undefined) or not wanted.is_finite():
                return
            ball = enclosed(found)
            self.assertTrue(hasattr(ball, "imag") or ball.overlaps(wanted))

    def test_every_word_of_lines_has_something_that_carries_it_out(self):
        for name, entry in catalogue.CALCULATED.items():
            self.assertTrue(entry.word.yields)
            if entry.word.runs:
                self.assertIn(name, RUNNING)
            scope = COMPLEX.with_values(("x",))
            value = CALCULATOR.result(parse_expression(entry.example, scope)).value
            self.assertNotIsInstance(value, Undefined)
        self.assertLessEqual(set(MANY), set(catalogue.ENTRIES))


class Matrices(Case):
    @given(matrices)
    def test_inverses_and_determinants_are_exact(self, rows):
        a = grid(rows)
        exact = fmpq_mat([[fmpq(v.numerator, v.denominator) for v in row] for row in rows])
        determinant = elimination.determinant(a).rational
        self.assertEqual(determinant, Fraction(int(exact.det().p), int(exact.det().q)))
        near = np.linalg.det(np.array(rows, dtype=float))
        self.assertAlmostEqual(float(determinant), near, delta=1e-6 * (1 + abs(near)))
        if determinant == 0:
            with self.assertRaises(NoResult):
                elimination.inverse(a)
            return
        self.assertEqual(product(a, elimination.inverse(a)), elimination.identity(len(rows)))

    @given(some.lists(some.lists(surds(most=2), min_size=3, max_size=3), min_size=3, max_size=3))
    @settings(max_examples=40)
    def test_so_are_those_of_roots(self, rows):
        a = Grid(tuple(map(tuple, rows)))
        try:
            determinant = elimination.determinant(a)
            with mpmath.workdps(60):
                wanted = by_permutations([[with_mpmath(v) for v in row] for row in rows])
                found = mpmath.mpmathify(with_mpmath(determinant))
                self.assertLess(abs(found - wanted), 1e-30 * (1 + abs(wanted)))
            if not determinant.is_zero:
                found = elimination.inverse(a)
                self.assertEqual(product(a, found), elimination.identity(3))
        except (NotExact, TooWide, AttributeError):
            return

    def test_hilbert_matrices_to_12(self):
        for n in range(1, 13):
            a = grid([[Fraction(1, i + k + 1) for k in range(n)] for i in range(n)])
            # The inverse has whole entries of a closed form (S. Schechter 1959).
            wanted = [
                [
                    (-1) ** (i + j)
                    * (i + j + 1)
                    * math.comb(n + i, n - j - 1)
                    * math.comb(n + j, n - i - 1)
                    * math.comb(i + j, i) ** 2
                    for j in range(n)
                ]
                for i in range(n)
            ]
            self.assertEqual(rational(elimination.inverse(a)), wanted)
            self.assertEqual(elimination.rank(a), n)

    def test_a_matrix_of_enclosures_is_answered_with_enclosures(self):
        rows = [["e", "1"], ["π", "2"]]
        text = f"[{'; '.join(', '.join(row) for row in rows)}]"
        found = CALCULATOR.result(parse_expression(f"{text}^-1", COMPLEX)).value
        wanted = np.linalg.inv(np.array([[math.e, 1], [math.pi, 2]]))
        for row, other in zip(found.rows, wanted, strict=True):
            for one, near in zip(row, other, strict=True):
                self.assertAlmostEqual(float(enclosed(one).mid()), near, places=12)
                self.assertGreater(enclosed(one).rel_accuracy_bits(), 60)

    @given(matrices)
    @settings(max_examples=60)
    def test_eigenvalues_are_those_of_numpy_and_vectors_fit_them(self, rows):
        a = grid(rows)
        with precision(200):
            values = eigenvalues(a)
            found = sorted((middle(v) for v in values), key=order)
            near = sorted(np.linalg.eigvals(np.array(rows, dtype=float)).astype(complex), key=order)
            scale = 1 + max(map(abs, near))
            # A defective matrix moves the eigenvalues of float64 by the root of its rounding.
            for one in found:
                self.assertLess(min(abs(one - other) for other in near), 2e-3 * scale)
            self.assertEqual(len(found), len(near))
            try:
                vectors = eigenvectors(a)
            except (NoResult, TooWide):
                return
            image = product(a, vectors)
            ratios = transposed(image).rows, transposed(vectors).rows
            for column, vector in zip(*ratios, strict=True):
                lead = max(range(len(vector)), key=lambda k: abs(middle(vector[k])))
                value = complex(enclosed(column[lead]).mid()) / complex(
                    enclosed(vector[lead]).mid()
                )
                for one, other in zip(column, vector, strict=True):
                    apart = middle(one) - value * middle(other)
                    self.assertLess(abs(apart), 1e-8 * (1 + abs(value)))

    @given(some.lists(some.integers(-9, 9), min_size=2, max_size=7))
    @settings(max_examples=80)
    def test_zeros_of_polynomials_are_zeros_and_all_of_them(self, coefficients):
        while len(coefficients) > 1 and not coefficients[-1]:
            coefficients.pop()
        assume(len(coefficients) > 1)
        with precision(160):
            found = polynomial_zeros([Fraction(c) for c in coefficients])
            self.assertEqual(len(found), len(coefficients) - 1)
            for zero in found:
                z = enclosed(zero)
                total = 0 * z
                for c in reversed(coefficients):
                    total = total * z + c
                self.assertTrue(total.contains(0))


def by_permutations(rows):
    """The determinant of three rows as its definition has it."""
    (a, b, c), (d, e, f), (g, h, i) = rows
    return a * e * i + b * f * g + c * d * h - c * e * g - b * d * i - a * f * h


def middle(value):
    return complex(enclosed(value).mid())


def order(value):
    return round(value.real, 6), round(value.imag, 6)


class RowByRow(Case):
    @given(
        some.lists(some.lists(small, min_size=4, max_size=4), min_size=1, max_size=4),
        some.booleans(),
    )
    def test_the_steps_multiply_back(self, rows, reduced):
        a = grid(rows)
        steps = reduction(a, reduced)
        last = steps[-1][1] if steps else a
        form = form_of(last)
        self.assertTrue(form == "reduced echelon form" if reduced else form)
        # The same operations on the identity give E with E·A = R, and E has an inverse.
        e = elimination.identity(len(rows))
        for operation, _ in steps:
            e = operation.applied(e)
        self.assertEqual(product(e, a), last)
        self.assertNotEqual(elimination.determinant(e).rational, 0)
        if reduced:
            wanted = sympy.Matrix(rows).rref()[0].tolist()
            self.assertEqual(
                rational(last), [[Fraction(int(v.p), int(v.q)) for v in r] for r in wanted]
            )

    def test_operations_as_a_student_types_them(self):
        for text, words, notation in (
            ("R2 - 3 R1", "Subtract 3 times row 1 from row 2.", "R₂ ← R₂ − 3 R₁"),
            ("R2 + R1/2", "Add 1/2 times row 1 to row 2.", "R₂ ← R₂ + (1/2) R₁"),
            ("1/2 R1", "Multiply row 1 by 1/2.", "R₁ ← (1/2) R₁"),
            ("R1 <-> R2", "Exchange rows 1 and 2.", "R₁ ↔ R₂"),
            ("R₂ ← R₂ − 2R₁", "Subtract 2 times row 1 from row 2.", "R₂ ← R₂ − 2 R₁"),
            ("R1 = 2R1 + R2", "Multiply row 1 by 2 and add row 2.", "R₁ ← 2 R₁ + R₂"),
        ):
            with self.subTest(text):
                found = read_operation(text, 2, COMPLEX, CALCULATOR)
                self.assertEqual(
                    (found.words(exact_text), found.notation(exact_text)), (words, notation)
                )

    def test_operations_that_are_none(self):
        for text, told in (
            ("R3 + R1", "no row 3"),
            ("R1 R2", "only added"),
            ("R1^2", "only added"),
            ("R1 + 2", "only other rows"),
            ("0 R1", "its factor is 0"),
            ("R1 = 2 R2", "would be lost"),
            ("R1 <-> R1", "with itself"),
            ("hello", "no row is named"),
            ("R1 +", "missing"),
        ):
            with self.subTest(text), self.assertRaisesRegex((NoResult, LanguageError), told):
                read_operation(text, 2, COMPLEX, CALCULATOR)


class LinearSystems(Case):
    def solve(self, text):
        system = read_system(text, catalogue.SCOPE, CALCULATOR)
        found = solved(system)
        values = {name: exact_text(value) for name, value, _ in found.values}
        return system, found, values

    def test_one_solution_typed_in_any_order(self):
        texts = ("2x + 3y = 7\nx - y = 1", "y + 1 = x; 7 - 3y = 2x", "3y + 2x - 7 = 0\n-y = 1 - x")
        for text in texts:
            _, found, values = self.solve(text)
            self.assertEqual((found.kind, values), ("one", {"x": "2", "y": "1"}))
        _, _, values = self.solve("40 adult + 25 child = 690\n30 adult + 50 child = 755")
        self.assertEqual(values, {"adult": "25/2", "child": "38/5"})

    def test_none_with_its_contradiction_and_many_with_what_is_free(self):
        _, found, _ = self.solve("x + y = 1\nx + y = 3")
        self.assertEqual((found.kind, exact_text(found.contradiction)), ("none", "2"))
        _, found, values = self.solve("x + y + z = 3\nx - y = 0")
        self.assertEqual(
            (found.kind, found.free, values), ("many", ("z",), {"x": "3/2", "y": "3/2"})
        )
        shares = {name: exact_text(shares[0]).replace("−", "-") for name, _, shares in found.values}
        self.assertEqual(shares, {"x": "-1/2", "y": "-1/2"})

    def test_what_is_no_linear_system_is_said(self):
        for text, told in (
            ("", "an equation on each line"),
            ("x y = 1", "line 1 is not linear"),
            ("x + y = 1\nx^2 = 4", "line 2 is not linear"),
            ("1/x = 2", "not linear"),
            ("2 + 3 = 5", "no unknown"),
            ("x + 1", "needs one equals sign"),
            ("x = 1 = 2", "needs one equals sign"),
            ("x + = 3", "missing"),
        ):
            with self.subTest(text), self.assertRaisesRegex((NoResult, LanguageError), told):
                read_system(text, catalogue.SCOPE, CALCULATOR)

    @given(
        some.integers(2, 5).flatmap(
            lambda n: some.lists(
                some.lists(some.integers(-9, 9), min_size=n + 1, max_size=n + 1),
                min_size=n,
                max_size=n,
            )
        )
    )
    @settings(max_examples=60)
    def test_solutions_fulfil_the_equations(self, rows):
        names = "xyzuv"[: len(rows)]
        lines = [
            f"{' + '.join(f'({c}) {n}' for c, n in zip(row, names, strict=False))} = {row[-1]}"
            for row in rows
        ]
        system, found, _ = self.solve("\n".join(lines))
        if found.kind != "one":
            self.assertEqual(np.linalg.det(np.array([row[:-1] for row in rows])).round(6), 0)
            return
        value = {name: one.rational for name, one, _ in found.values}
        for row in rows:
            parts = zip(row, system.unknowns, strict=False)
            given_names = dict(zip(names, row, strict=False))
            self.assertEqual(sum(given_names[n] * value[n] for _, n in parts), row[-1])


class SmallSteps(Case):
    @given(some.lists(small, min_size=1, max_size=5), some.integers(-3, 3))
    def test_series_divide_back(self, terms, start):
        try:
            a = Laurent.made(start, [Surd.of(t) for t in terms], exact=True)
        except NoSeries:
            return
        assume(not a.is_zero)
        whole = a * a.inverse()
        self.assertEqual(whole.start, 0)
        self.assertEqual(whole.term(0), Surd.of(1))
        self.assertTrue(all(whole.term(k).is_zero for k in range(1, 8)))

    def test_taylor_coefficients_are_those_of_sympy(self):
        x = sympy.Symbol("x")
        for text, rule in (
            ("e^x cos x", sympy.exp(x) * sympy.cos(x)),
            ("ln(1 + x)/(1 - x)", sympy.log(1 + x) / (1 - x)),
            ("√(1 + sin x)", sympy.sqrt(1 + sympy.sin(x))),
            ("tan(x)^2 + sinh x", sympy.tan(x) ** 2 + sympy.sinh(x)),
            ("arcsin(x) arctan(2x)", sympy.asin(x) * sympy.atan(2 * x)),
            ("1/(2 + x^2)^(1/2)", (2 + x**2) ** sympy.Rational(-1, 2)),
        ):
            with self.subTest(text):
                line = f"taylor({text} for x = 0, 6)"
                tree = parse_expression(line, COMPLEX.with_values(("x",)))
                found = CALCULATOR.result(tree).value.expression
                wanted = sympy.series(rule, x, 0, 7).removeO()
                for place in (Fraction(1, 3), Fraction(-2, 5)):
                    near = CALCULATOR.result(found, {"x": Surd.of(place)}).value
                    with precision(120):
                        apart = float(enclosed(near).mid()) - float(wanted.subs(x, place))
                    self.assertLess(abs(apart), 1e-12)

    def test_numbers_as_trees_are_the_same_numbers(self):
        for text in ("2 - 5i", "√2/3", "π^2/6", "1/π", "-1/2", "(1 - √5 i)/4", "e", "i"):
            value = CALCULATOR.result(parse_expression(text, COMPLEX)).value
            again = CALCULATOR.result(tree_of(value)).value
            if isinstance(value, Surd):
                self.assertEqual(again, value)
            else:
                with precision(128):
                    self.assertLess(abs(float((enclosed(again) - value).mid())), 1e-35)

    def test_an_answer_does_not_depend_on_what_was_asked_before(self):
        lines = ("√(-1)", "integral(sin x for x = 0 to 2)", "det([e, 1; 1, e])", "1/(e - e)")
        trees = [parse_expression(line, COMPLEX.with_values(("x",))) for line in lines]

        def asked(order):
            calculator = Calculator({}, AngleUnit.RADIAN)
            found = {}
            for k in order:
                try:
                    outcome = calculator.result(trees[k])
                    found[k] = str(outcome.value), outcome.principal
                except NoResult as reason:
                    found[k] = str(reason)
            return found

        self.assertEqual(asked(range(4)), asked(reversed(range(4))))


if __name__ == "__main__":
    unittest.main()
