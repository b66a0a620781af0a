"""Lines of calculation: results, notations, what follows what, and lines at rest."""

import itertools
import unittest
from decimal import Decimal
from fractions import Fraction

import numpy as np
from hypothesis import given
from hypothesis import strategies as some

from axispath.core.arithmetic.floats import float_value
from axispath.core.language.numbers import MINUS
from axispath.core.sheet.document import Document, Table, Written
from axispath.core.sheet.edits import (
    AddLane,
    AddWork,
    MoveWork,
    RemoveLane,
    ReviseLane,
    SetNotation,
    SetTable,
    SetUnit,
    SetWritten,
    apply,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.columns import heads
from axispath.core.table.results.copies import as_csv, as_latex
from axispath.core.table.results.digits import written
from axispath.core.table.results.names import names_in_use
from axispath.core.table.results.result import result_of
from axispath.core.table.rows import places
from tests.case import Case
from tests.core.lines_by_hand import DECIMAL, EXACT, TRAPS

RAISED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")


def worked(*lines, document=None):
    document = document or Document()
    for line in lines:
        document = apply(document, AddWork(text=line))
    return document


def results(document):
    return [result_of(document, lane) for lane in resolve(document).working]


def at(document, name, x):
    lane = next(lane for lane in resolve(document) if lane.name == name)
    return float(lane.floats(np.array([x]))[0])


class Results(Case):
    def test_there_are_many_lines_and_half_of_them_are_traps(self):
        self.assertGreaterEqual(len(EXACT) + len(DECIMAL) + len(TRAPS), 250)

    def test_exact_lines(self):
        for line, wanted in EXACT:
            with self.subTest(line):
                (found,) = results(worked(line))
                self.assertEqual((found.text, found.why), (wanted, ""))

    def test_decimals(self):
        document = apply(Document(), SetNotation(notation="", digits=10))
        for line, wanted in DECIMAL:
            with self.subTest(line):
                (found,) = results(worked(line, document=document))
                self.assertEqual((found.shown, found.why), (wanted, ""))

    def test_what_has_no_result_says_why_and_the_line_is_kept_or_refused(self):
        for line, told in TRAPS:
            with self.subTest(line):
                try:
                    (found,) = results(worked(line))
                except EditRefused as error:
                    self.assertIn(told, str(error))
                    continue
                self.assertIn(told, found.why)
                self.assertEqual(found.text, "")

    def test_a_complex_number_out_of_real_ones_is_called_principal(self):
        principal, real, turned = results(worked("√(-4)", "(-8)^(1/3)", "(2 - 5i)^2"))
        self.assertIn("principal", principal.note)
        self.assertEqual((real.note, turned.note), ("", ""))

    def test_what_is_solved_inexactly_tells_its_condition(self):
        lines = ("[e, 1; 1, 1/e + 10^-6]^-1", "[1, 2; 3, 4]^-1", "solution([π, 1; 1, 1], [1, 2])")
        near, exact, system = results(worked(*lines))
        wanted = np.linalg.cond(np.array([[np.e, 1], [1, 1 / np.e + 1e-6]]), np.inf)
        self.assertIn(f"condition number {wanted:.2g}".replace("e+06", "×10⁶"), near.note)
        self.assertEqual(exact.note, "")
        self.assertIn("condition number", system.note)

    def test_an_imaginary_part_is_left_out_only_where_no_i_takes_part(self):
        lines = (
            "u = 1 + i",
            "integral(√x for x = 0 to 1)",
            "integral(1 + u x^2/e^x for x = 0 to 1)",
        )
        _, real, turned = results(worked(*lines))
        self.assertNotIn("i", real.text)
        self.assertIn("i", turned.text)
        (odd,) = results(worked("integral(cos x + i sin x for x = -1 to 1)"))
        self.assertTrue(odd.text.startswith("1.68294"))
        self.assertIn("±", odd.text)

    def test_values_of_functions_and_their_derivatives(self):
        document = worked("f(x) = x^3 - 1/x for x > 0", "f(2)", "f'(2)", "f″(1)", "f(-1)", "f'(-1)")
        found = results(document)[1:]
        self.assertEqual([one.text for one in found], ["7.5", "12.25", "4", "", ""])
        self.assertIn("outside the domain of f", found[3].why)
        self.assertIn("outside the domain of f", found[4].why)

    def test_large_matrices_by_numbers_and_a_slow_line_beside_quick_ones(self):
        found = results(
            worked("solution(random(150, 150, 1), column(random(150, 1, 2), 1))", "1/3")
        )
        draw = np.random.RandomState
        a = draw(1).randint(0, 10001, size=(150, 150)) / 10000
        b = draw(2).randint(0, 10001, size=(150, 1)) / 10000
        wanted = np.linalg.solve(a, b).ravel()
        shown = [float(cell.full) for cell in found[0].cells[0]]
        self.assertLess(np.abs(np.array(shown) / wanted[: len(shown)] - 1).max(), 1e-8)
        self.assertEqual(found[1].text, "1/3")

    def test_the_decimal_says_whether_it_is_exact(self):
        found = results(worked("1/8", "1/7", "√2", "2^80", "0.5 - 0.25i", "1/3 + i"))
        self.assertEqual([one.sure for one in found], [True, False, False, False, True, False])

    def test_lines_follow_whatever_their_order(self):
        volume = "volume(r, h) = r^2 h"  # before its calls, which could mean a product otherwise
        lines = ("b = a + 1", "a = 3", "volume(a, b)", "c = b/7", "M = [a, 1; 1, a]", "det(M)")
        seen = set()
        for order in itertools.islice(itertools.permutations(lines), 0, 720, 29):
            document = worked(volume, *order)
            found = dict(zip(order, results(document)[1:], strict=True))
            seen.add(tuple(found[line].text for line in ("volume(a, b)", "c = b/7", "det(M)")))
        self.assertEqual(seen, {("36", "4/7", "8")})
        document = worked(volume, *lines)
        first = document.lanes[2].id
        document = apply(document, ReviseLane(id=first, text="a = 6"))
        self.assertEqual(results(document)[3].shown, "252")
        document = apply(document, RemoveLane(id=first))
        self.assertIn("waits for a", results(document)[2].why)

    def test_the_line_before_and_lines_by_their_numbers(self):
        document = worked("2 + 3", "ans 10", "k = 4", "ans + ans1")
        self.assertEqual([one.shown for one in results(document)], ["5", "50", "4", "9"])
        for line, told in (("ans + 1", "no answer yet"), ("ans7", "no answer yet")):
            with self.assertRaisesRegex(EditRefused, told):
                worked(line)
        with self.assertRaisesRegex(EditRefused, "no line 7"):
            worked("1", "ans7 + 1")
        with self.assertRaisesRegex(EditRefused, "no result"):
            worked("f(x) = x^2", "ans + 1")

    def test_what_is_remembered_is_kept_by_all_that_shaped_it(self):
        def asked(order):
            found = {}
            for a in order:
                for unit in ("deg", "rad"):
                    lines = (f"a = {a}", "f(x) = a x for 0 < x < a", "[f(1), sin(a); 1, 2]", "f(3)")
                    document = apply(worked(*lines), SetUnit(unit=unit))
                    texts = [one.text or one.why for one in results(document)]
                    found[a, unit] = texts[2:]
            return found

        self.assertEqual(asked((2, 4, 30)), asked((30, 2, 4)))
        self.assertIn("outside the domain", asked((2,))[2, "deg"][1])
        self.assertEqual(asked((30,))[30, "deg"][0], "[30, 0.5; 1, 2]")

    def test_circles_are_named_and_other_lines_answered(self):
        document = apply(worked("a = 1", "b = a + 1", "7/14"), AddWork(text="c = b"))
        document = apply(document, ReviseLane(id=document.lanes[0].id, text="a = b", keep=True))
        found = results(document)
        self.assertIn("round in a circle", found[0].why + found[1].why)
        self.assertEqual(found[2].shown, "0.5")

    def test_i_is_the_imaginary_unit_unless_the_sheet_has_one(self):
        document = worked("i^2", "sum(i for i = 1 to 3)")
        self.assertEqual([one.shown for one in results(document)], ["−1", "6"])
        document = worked("i = 5", document=document)
        self.assertEqual([one.shown for one in results(document)], ["25", "6", "5"])

    def test_a_sheet_may_use_the_words_of_lines_for_something_else(self):
        document = worked("norm(x) = x + 1", "det = 2", "norm(det)")
        self.assertEqual(results(document)[2].shown, "3")


class OnTheSheet(Case):
    def test_lines_are_not_on_the_sheet_until_they_are_sent(self):
        document = apply(worked("f(x) = a x", "a = 3"), AddLane(text="f(2)"))
        self.assertEqual([lane.text for lane in document.shown_lanes], ["f(2)"])
        self.assertEqual(resolve(document).lanes[2].value, 6)
        self.assertEqual(resolve(document).shown({"function": 1}), [])
        sent = apply(document, MoveWork(id=document.lanes[0].id, working=False))
        self.assertEqual(len(resolve(sent).shown({"function": 1})), 1)
        self.assertEqual(len(resolve(sent).working), 1)

    def test_numbers_made_of_matrices_and_complex_ones_stand_in_lanes(self):
        document = worked("A = [1, 2; 3, k]", "k = 4", "w = 3 + 4i", "d = det(A)", "L = [2, 3]")
        for line in (
            "g(x) = d x + |w|",
            "h(x) = det(A) x",
            "T(x) = taylor(sin x for x = 0, 3)",
            "s(x) = derivative(x^3 for x)",
            "m(x) = L[2] x",
            "c(x) = x^2 for 0 <= x <= 9",
        ):
            document = apply(document, AddLane(text=line))
        self.assertEqual(at(document, "g", 2.0), 1.0)
        self.assertEqual(at(document, "h", 2.0), -4.0)
        self.assertAlmostEqual(at(document, "T", 1.0), 1 - 1 / 6, places=15)
        self.assertEqual(at(document, "s", 2.0), 12.0)
        self.assertEqual(at(document, "m", 2.0), 6.0)
        document = apply(document, ReviseLane(id=document.lanes[1].id, text="k = 7"))
        self.assertEqual((at(document, "g", 2.0), at(document, "h", 2.0)), (7.0, 2.0))
        # What depends on it is undefined for a while, and the change is not refused.
        document = worked("B = A^-1", "e_1 = det(B)", document=document)
        document = apply(document, AddLane(text="q(x) = e_1 x"))
        document = apply(document, ReviseLane(id=document.lanes[1].id, text="k = 6"))
        self.assertIn("singular", results(document)[5].why)
        self.assertIn("singular", str(next(n for n in resolve(document) if n.name == "q").error))

    def test_such_names_stand_in_ends_tables_and_solved_equations_too(self):
        document = worked("A = [1, 2; 3, 7]", "d = det(A)", "n = |3 + 4i|")
        document = apply(document, AddLane(text="f(x) = x for 0 <= x <= n", id="f"))
        lane = resolve(document).lane("f")
        self.assertEqual(float(lane.ends[1].ball.mid()), 5.0)
        table = Table(start="0", stop="d", step="1", columns=("d x", "x/n"))
        document = apply(document, SetTable(table=table))
        self.assertEqual(list(places(document, document.tables[0])), [0.0, 1.0])
        self.assertEqual([head.error for head in heads(document, document.tables[0])], ["", ""])

    def test_what_a_lane_cannot_hold_is_said(self):
        document = worked("w = 2 - 5i", "A = [1, 2; 3, 4]")
        for line, told in (
            ("f(x) = w x", "complex number"),
            ("f(x) = A x", "matrix"),
            ("f(x) = det([x, 1; 1, x])", "from numbers alone"),
            ("x^2 + det(A) y = 4", "names? what it needs"),
        ):
            with self.subTest(line), self.assertRaisesRegex(EditRefused, told):
                apply(document, AddLane(text=line))
        with self.assertRaisesRegex(EditRefused, "stays on the page Working"):
            apply(document, MoveWork(id=document.lanes[0].id, working=False))

    def test_complex_numbers_as_points_follow(self):
        document = apply(worked("w = 2 - 5i"), AddLane(text="P = (Re(w), Im(w))"))
        lane = resolve(document).lanes[1]
        self.assertEqual([float_value(plan, lane.unit) for plan in lane.programs], [2.0, -5.0])


class Lines(Case):
    def test_a_line_at_rest_is_kept_and_its_name_is_free_of_meaning(self):
        document = worked("a = 3", "a + 1")
        first = document.lanes[0].id
        resting = apply(document, SetWritten(id=first, written=Written(rests=True)))
        found = results(resting)
        self.assertEqual((found[0].kind, found[1].why), ("none", "waits for a"))
        self.assertEqual([one.name for one in names_in_use(resting, {})], ["v_1"])
        woken = apply(resting, SetWritten(id=first, written=Written()))
        self.assertEqual(woken, document)
        edit = SetWritten(id=first, written=Written(rests=True))
        self.assertEqual(edit.words(document), "putting to rest a")
        with self.assertRaisesRegex(EditRefused, "Only lines of Working"):
            apply(apply(document, MoveWork(id=first, working=False)), edit)

    def test_each_line_is_written_as_it_is_wanted(self):
        document = worked("22/7", "1 + i", "[1/2, 1/3]")
        first, second, third = (lane.id for lane in document.lanes)
        for lane, how, wanted in (
            (first, {"form": "mixed"}, "3 + 1/7"),
            (first, {"form": "decimal", "digits": 3}, "3.14"),
            (first, {"form": "exact"}, "22/7"),
            (first, {"form": "decimal", "notation": "fixed", "digits": 2}, "3.14"),
            (second, {"form": "polar"}, "√2 cis(π/4)"),
            (third, {"form": "exact"}, "[1/2, 1/3]"),
            (third, {"form": "decimal", "digits": 2}, "[0.5, 0.33]"),
        ):
            with self.subTest(how):
                found = apply(document, SetWritten(id=lane, written=Written(**how)))
                texts = {one.lane.id: result_of(found, one).text for one in resolve(found)}
                self.assertEqual(texts[lane], wanted)

    def test_names_in_use_say_what_and_where(self):
        document = apply(worked("A = [1, 2; 3, 4]", "7/3", "f(t) = t^2 + i"), AddLane(text="b = 2"))
        found = [(n.used, n.kind, n.size, n.value, n.where) for n in names_in_use(document, {})]
        self.assertEqual(
            found,
            [
                ("A", "a matrix", "2 × 2", "[1, 2; 3, 4]", "line 1"),
                ("b", "a number", "", "2", "the sheet"),
                ("f(t)", "a function", "", "", "line 3"),
                ("v_1", "a number", "", "7/3", "line 2"),
            ],
        )

    def test_results_are_taken_along(self):
        matrix, root, both = results(worked("[1/2, -√3; i, 4]", "√12", "qr([3, 1; 4, 2])"))
        self.assertEqual(
            as_latex(matrix),
            r"\begin{bmatrix} \frac{1}{2} & -\sqrt{3} \\ i & 4 \end{bmatrix}",
        )
        self.assertEqual(as_csv(matrix), "0.5,-1.7320508075688772\n0+1i,4")
        self.assertEqual(as_latex(root), r"2\,\sqrt{3}")
        self.assertIn(r"Q = \begin{bmatrix}", as_latex(both))


class Notations(Case):
    def test_by_hand(self):
        for value, notation, digits, wanted in (
            ("12345.678", "fixed", 3, "12345.678"),
            ("-0.5", "fixed", 4, "−0.5000"),
            ("-0.00001", "fixed", 2, "0.00"),
            ("12345.678", "scientific", 4, "1.235 × 10⁴"),
            ("12345.678", "engineering", 4, "12.35 × 10³"),
            ("0.00012", "engineering", 3, "120 × 10⁻⁶"),
            ("999999", "scientific", 3, "1 × 10⁶"),
            ("0", "scientific", 3, "0"),
            ("3e20", "fixed", 3, "3 × 10²⁰"),
            ("123456789", "", 6, "123456789"),
            ("1234567891", "", 6, "1.23457×10⁹"),
            ("0.0000123456", "", 4, "0.00001235"),
        ):
            with self.subTest(value, notation=notation):
                self.assertEqual(written(Decimal(value), notation, digits), wanted)
        document = apply(worked("1/7"), SetNotation(notation="scientific", digits=4))
        self.assertEqual(results(document)[0].shown, "1.429 × 10⁻¹")

    @given(some.floats(-1e200, 1e200), some.sampled_from(["scientific", "engineering"]))
    def test_they_come_back_to_the_digits_shown(self, value, notation):
        text = written(Decimal(value), notation, 12)
        mantissa, _, power = text.replace(MINUS, "-").partition(" × 10")
        exponent = int(power.translate(RAISED)) if power else 0
        again = Fraction(mantissa) * Fraction(10) ** exponent
        off = abs(again - Fraction(value))
        self.assertLessEqual(off, abs(Fraction(value)) * Fraction(1, 10**11))
        if notation == "engineering" and value:
            self.assertEqual(exponent % 3, 0)
            self.assertTrue(1 <= abs(Fraction(mantissa)) < 1000)


if __name__ == "__main__":
    unittest.main()
