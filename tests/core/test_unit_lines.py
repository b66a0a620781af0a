"""Units in lines of Working: brackets below the line, and degrees that are a difference."""

import itertools
import random
import unittest
from fractions import Fraction

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddBlock, AddWork, apply
from axispath.core.sheet.resolve import resolve
from axispath.core.table.results.blocks import told
from axispath.core.table.results.result import result_of
from tests.case import Case

# What one is in the SI (BIPM, The International System of Units, 9th edition, 2019).
SECONDS = {"s": 1, "min": 60, "h": 3600}
DEGREES = {"°C": Fraction(1), "°F": Fraction(5, 9), "K": Fraction(1)}
ABOVE = ("kJ", "N", "W", "mol", "J")
BELOW = ("kg", "K", "m", "s", "m^2", "mol", "mm", "cm")


def result(line):
    """The result of a line by itself."""
    document = apply(Document(digits=12), AddWork(text=line))
    (lane,) = [lane for lane in resolve(document) if lane.lane.working]
    return result_of(document, lane)


def found(line):
    """The same as it is shown."""
    return result(line).text


def cell(line):
    """The number of it."""
    return result(line).cells[0][0]


class Degrees(Case):
    def test_degrees_for_each_of_something_are_a_difference(self):
        for amount, (scale, size), (time, length), sign in itertools.product(
            (1, 30, 7), DEGREES.items(), SECONDS.items(), ("", "-")
        ):
            line = f"{sign}{amount} {scale}/{time} in K/h"
            with self.subTest(line):
                wanted = amount * size * Fraction(3600, length) * (-1 if sign else 1)
                self.assertEqual(
                    found(line), found(f"{wanted.numerator}/{wanted.denominator} K/h in K/h")
                )

    def test_by_themselves_they_are_a_temperature(self):
        for line, wanted in (
            ("25 °C in K", "298.15 K"),
            ("212 °F in °C", "100 °C"),
            ("25 °C - 20 °C", "5 K"),
            ("10 °C - 5 °C/min · 1 min", "5 °C"),
            ("20 °C + 2 K", "22 °C"),
        ):
            self.assertEqual(found(line), wanted, line)


class Blocks(Case):
    """The same in a block of equations."""

    def found(self, line):
        document = apply(Document(digits=12), AddBlock(text=f"q = {line}"))
        (lane,) = [lane for lane in resolve(document) if lane.lane.block is not None]
        ((row,),) = [group.rows for group in told(document, lane).groups]
        return row.cells[0]

    def test_differences_of_temperatures_are_those_of_a_line(self):
        for one, other in itertools.product((25, -5, 0), (20, 95, -40)):
            for first, second in itertools.product(("°C", "°F"), repeat=2):
                line = f"{one} {first} - {other} {second}"
                with self.subTest(line):
                    self.assertEqual(self.found(line).value, cell(f"{line} in K").value)

    def test_degrees_for_each_of_something_are_a_difference(self):
        self.assertEqual(self.found("30 °C/min · 2 min").shown, "60 K")
        self.assertEqual(self.found("-9 °F/h · 2 h").shown, "−10 K")
        self.assertEqual(self.found("20 °C + 30 °C/min · 1 min").shown, "50 °C")


class Brackets(Case):
    def test_units_in_brackets_are_what_they_are_one_by_one(self):
        lot = random.Random(20)
        for _ in range(60):
            top, below = lot.choice(ABOVE), lot.sample(BELOW, lot.randint(1, 3))
            sign = lot.choice((" ", "·", "*"))
            amount = lot.randint(2, 99)
            line = f"{amount} {top}/({sign.join(below)})"
            apart = f"{amount} {top}/{'/'.join(below)}"
            with self.subTest(line):
                self.assertTrue(found(line))
                self.assertEqual(found(line), found(apart))

    def test_they_stand_behind_in_too(self):
        self.assertEqual(found("4.18 kJ/(kg K) in J/(g K)"), "4.18 J/(g K)")
        self.assertEqual(found("4.18 kJ/(kg K) · 2 kg · 10 K in kJ"), "83.6 kJ")

    def test_a_bracket_with_anything_else_is_a_bracket(self):
        self.assertEqual(found("12 m/(2 + 1)"), "4 m")
        self.assertEqual(found("12 m/(2 s)"), "6 m/s")


if __name__ == "__main__":
    unittest.main()
