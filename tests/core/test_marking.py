"""Answers as people of many countries write them, by families with a known verdict."""

import random
import unittest
from fractions import Fraction

from axispath.core.sheet.practice import Question
from tests.case import Case
from tests.core.test_practice import sheet, verdict


def solve(text, decimals=0):
    return Question(id="q", kind="solve", text=text, decimals=decimals)


def half_away(value, places):
    """Rounded by hand: halves away from 0."""
    scaled = abs(value) * 10**places
    whole = int(scaled + Fraction(1, 2))
    return whole if value >= 0 else -whole


def written(whole, places):
    digits = f"{abs(whole):0{places + 1}d}"
    return f"{'-' if whole < 0 else ''}{digits[:-places]}.{digits[-places:]}"


class Numbers(Case):
    def told(self, question, text, *lines):
        return str(verdict(sheet(*(lines or ("x",))), question, text))

    def all_told(self, text, right, wrong):
        """What is right for an equation, and what is not."""
        for typed in right:
            with self.subTest(text, right=typed):
                self.assertEqual(self.told(solve(text), typed), "right")
        for typed in wrong:
            with self.subTest(text, wrong=typed):
                self.assertNotEqual(self.told(solve(text), typed), "right")

    def test_rounded_halves_go_away_from_zero(self):
        chance = random.Random(4)
        for _ in range(40):
            places = chance.choice((1, 2))
            below = chance.choice((8, 40, 16, 3, 7, 300))
            value = Fraction(chance.randint(-200, 200) or 1, below)
            question = solve(f"{below} x = {value * below}", places)
            whole = half_away(value, places)
            for off in (-1, 0, 1):
                text = written(whole + off, places)
                right = off == 0 and whole != 0
                exact = Fraction(text) == value
                with self.subTest(value=str(value), text=text):
                    self.assertEqual(self.told(question, text) == "right", right or exact)

    def test_named_cases_of_rounding(self):
        for text, decimals, answers in (
            ("8x = 3", 2, {"0.38": True, "0.37": False, "0.375": True, "3/8": True, "0,38": True}),
            ("300x = 1", 2, {"0.00": False, "1/300": True, "0.003": True}),
            ("8x = -3", 2, {"-0.38": True, "-0.37": False}),
            ("x = 0", 2, {"0.00": True, "0": True}),
        ):
            for typed, right in answers.items():
                with self.subTest(text, typed=typed):
                    self.assertEqual(self.told(solve(text, decimals), typed) == "right", right)

    def test_ways_to_write_numbers(self):
        for text, right, wrong in (
            ("2x = 5", ("2,5", "2.5", "5/2", "x = 2,5", "2½"), ("(2, 5)", "2; 5", "2,4", "25")),
            ("x = 1000000", ("1,000,000", "1000000", "10^6"), ("1,000,001", "1,000")),
            ("3x = 1", ("0.(3)", "1/3", "0,(3)", ".(3)"), ("0.(4)", "0.3(4)")),
            ("990 x = 1234", ("1.2(46)", "1,2(46)", "617/495"), ("1.2(47)",)),
            ("2x = 6", ("3", "3.0"), ("(3, 5)", "3, 5", "3,5", "3.5")),
            ("x^2 = 6.25", ("2,5; -2,5", "-2,5 and 2,5", "±5/2"), ("2,5; 2", "-2; 5")),
            ("(x - 2)(x - 5) = 0", ("2,5", "2; 5", "2 and 5"), ("2,6",)),
            (
                "x^2 = -1",
                ("none", "no real solution", "empty set", "No solution.", "∅", "{}"),
                ("0",),
            ),
            ("e^x = 7", ("ln 7", "ln(7)"), ("ln 8",)),
        ):
            self.all_told(text, right, wrong)

    def test_ways_to_write_sets(self):
        for text, right, wrong in (
            ("x^2 < 4",
             ("|x| < 2", "]-2; 2[", "(-2, 2)", "-2 < x < 2", "]-2, 2[", "x > -2 ∧ x < 2"),
             ("|x| <= 2", "[-2; 2]", "]-2; 2]", "|x| < 3", "|x| > 2")),
            ("x^2 <= 4", ("|x| <= 2", "[-2; 2]", "[-2, 1] ∪ [1, 2]", "[-2, 0) ∪ [0, 2]"),
             ("]-2; 2[", "[-2; 2[", "[-2, 1) ∪ (1, 2]")),
            ("x^2 > 4", ("|x| > 2", "x < -2 ∨ x > 2", "]-∞; -2[ ∪ ]2; ∞[", "(-∞, -2) ∪ (2, ∞)"),
             ("|x| >= 2", "x < -2 ∧ x > 2", "]-∞; -2] ∪ ]2; ∞[")),
            ("x^2 >= 4", ("|x| ≥ 2", "]-∞; -2] ∪ [2; ∞["), ("|x| > 2", "|x| < 2")),
            ("(x - 1)(x - 2) <= 0", ("[1, 2]", "[1, 1.5] ∪ [1.5, 2]", "[1; 3/2[ ∪ [1,5; 2]"),
             ("[1, 1.5) ∪ (1.5, 2]", "[1, 1.6]")),
            ("x^2 < 0", ("none", "empty set", "no solution", "∅"), ("0", "x < 0")),
        ):  # fmt: skip
            self.all_told(text, right, wrong)


class Which(Case):
    def test_the_name_of_the_function_is_no_answer(self):
        options = ("x^2", "x^2 - 1", "x^3")
        lines = ("f(x) = x^2 - 1", "g(x) = f(x) + 1")
        question = Question(id="q", kind="which", lane="lane1", options=options)
        for text in ("f(x)", "f", "f(x) + 0", "g(x) - 1"):
            with self.subTest(text):
                self.assertEqual(verdict(sheet(*lines), question, text), "refused")
        self.assertEqual(str(verdict(sheet(*lines), question, "x^2 - 1")), "right")
        self.assertEqual(str(verdict(sheet(*lines), question, "(x - 1)(x + 1)")), "right")
        self.assertEqual(str(verdict(sheet(*lines), question, "x^2")), "wrong")


if __name__ == "__main__":
    unittest.main()
