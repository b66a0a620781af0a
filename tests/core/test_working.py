"""Lines of calculation: results, fractions, notations, and what follows what."""

import itertools
import unittest
from decimal import Decimal
from fractions import Fraction

from hypothesis import given
from hypothesis import strategies as some

from axispath.core.language.numbers import MINUS
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import (
    AddLane,
    AddWork,
    MoveWork,
    RemoveLane,
    ReviseLane,
    SetNotation,
    apply,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.results.result import result_of

# A line, its decimal and its fraction, worked out by hand.
LINES = (
    ("10/14", "0.714286", "5/7"),
    ("2 + 3", "5", ""),
    ("1/8", "0.125", ""),
    ("-22/7", "−3.14286", "−22/7"),
    ("0.1 + 0.2", "0.3", ""),
    ("2^10", "1024", ""),
    ("(1/3)^3", "0.037037", "1/27"),
    ("√2", "1.41421", ""),
    ("gcd(84, 36)", "12", ""),
    ("5!", "120", ""),
    ("mean([1, 2, 3])", "2", ""),
    ("[1, 2, 3]/4", "[0.25, 0.5, 0.75]", ""),
)
RAISED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")


def worked(*lines):
    document = Document()
    for line in lines:
        document = apply(document, AddWork(text=line))
    return document


def results(document):
    return [result_of(document, lane) for lane in resolve(document).working]


class Results(unittest.TestCase):
    def test_lines_by_hand(self):
        for line, shown, exact in LINES:
            with self.subTest(line):
                (found,) = results(worked(line))
                self.assertEqual((found.shown, found.exact), (shown, exact))
                known = not any(sign in line for sign in "√[")
                self.assertEqual(found.sure, found.exact == "" and known)

    def test_what_has_no_result_says_why(self):
        for line, told in (
            ("1/0", "divides by 0"),
            ("√(0 - 1)", "negative"),
            ("q + 1", "waits for q"),
            ("ln(0)", "no value"),
        ):
            with self.subTest(line):
                (found,) = results(worked(line))
                self.assertIn(told, found.why)
                self.assertEqual(found.shown, "")

    def test_lines_follow_whatever_their_order(self):
        volume = "volume(r, h) = r^2 h"  # before its calls, which could mean a product otherwise
        lines = ("b = a + 1", "a = 3", "volume(a, b)", "c = b/7")
        seen = set()
        for order in itertools.permutations(lines):
            document = worked(volume, *order)
            found = dict(zip(order, results(document)[1:], strict=True))
            seen.add((found["volume(a, b)"].shown, found["c = b/7"].exact))
        self.assertEqual(seen, {("36", "4/7")})
        document = worked(volume, *lines)
        first = document.lanes[2].id
        document = apply(document, ReviseLane(id=first, text="a = 6"))
        self.assertEqual(results(document)[3].shown, "252")
        document = apply(document, RemoveLane(id=first))
        self.assertIn("waits for a", results(document)[3].why)

    def test_the_line_before_and_lines_by_name(self):
        document = worked("2 + 3", "ans 10", "k = 4", "ans + v_1")
        self.assertEqual([one.shown for one in results(document)], ["5", "50", "4", "9"])
        with self.assertRaisesRegex(EditRefused, "no answer yet"):
            worked("ans + 1")

    def test_they_are_not_on_the_sheet_until_they_are_sent(self):
        document = apply(worked("f(x) = a x", "a = 3"), AddLane(text="f(2)"))
        self.assertEqual([lane.text for lane in document.shown_lanes], ["f(2)"])
        self.assertEqual(resolve(document).lanes[2].value, 6)
        self.assertEqual(resolve(document).shown({"function": 1}), [])
        sent = apply(document, MoveWork(id=document.lanes[0].id, working=False))
        self.assertEqual(len(resolve(sent).shown({"function": 1})), 1)
        self.assertEqual(len(resolve(sent).working), 1)


class Notations(unittest.TestCase):
    def test_by_hand(self):
        for value, notation, digits, wanted in (
            (12345.678, "fixed", 3, "12345.678"),
            (-0.5, "fixed", 4, "−0.5000"),
            (12345.678, "scientific", 4, "1.235 × 10⁴"),
            (12345.678, "engineering", 4, "12.35 × 10³"),
            (0.00012, "engineering", 3, "120 × 10⁻⁶"),
            (999999, "scientific", 3, "1 × 10⁶"),
            (0.0, "scientific", 3, "0"),
            (3e20, "fixed", 3, "3 × 10²⁰"),
        ):
            with self.subTest(value, notation=notation):
                self.assertEqual(written(Decimal(repr(value)), notation, digits), wanted)
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
