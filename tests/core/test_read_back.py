"""Every exact form that is shown is, read on that very sheet, the number beside it."""

import random
import unittest

from axispath.core.arithmetic.floats import float_value
from axispath.core.path.labels import keyed
from axispath.core.search.exact_forms import asked_for, exact_forms, exact_value
from axispath.core.search.read_back import reads_back
from tests.case import Case
from tests.core.helpers import DEGREE, RADIAN, path, plan

PARTS = (
    "sin(20)", "cos(10)", "tan(π)", "sin(π/9)", "arctan(2)", "arcsin(3/4)", "arccos(1/3)", "√2",
    "∛5", "e", "ln(3)", "π", "1/3", "cos(1)^2", "tan(15)", "sin(60)", "arctan(1)", "e^(sin(10))",
)  # fmt: skip
ALONE = ("(1+√5)/2", "log(2)/log(3)", "√(2+√3)", "arctan(3) + arctan(2)", "e^2", "-√7", "2^(1/4)")
RULES = (
    ("sin(x) - 1/3", 0, 200), ("cos(2x) - 1/2", 0, 100), ("tan(x) - 2", -80, 80), ("x^2 - 3", 0, 5),
    ("arctan(x) - 1", -5, 70), ("2 sin(x) + x/100", -200, 300), ("x^2 - sin(40)", -3, 3),
    ("x - sin(20)", -2, 2), ("cos(x)", -100, 300), ("x^3 - 2", 0, 2), ("x - arctan(2)", -10, 70),
)  # fmt: skip


class Values(Case):
    def test_constants(self):
        chance = random.Random(2)
        lines = [*PARTS, *ALONE]
        for _ in range(12):
            one, other = chance.sample(PARTS, 2)
            lines.append(f"{one} {chance.choice('+-')} {chance.randint(2, 5)} ({other})")
        shown = 0
        for line in lines:
            for unit in (RADIAN, DEGREE):
                with self.subTest(line, unit=unit):
                    text = exact_value(plan(line), unit)
                    if text:
                        shown += 1
                        there, here = (float_value(plan(t), unit) for t in (text, line))
                        self.assertAlmostEqual(there, here, delta=1e-12 * (1 + abs(here)))
        self.assertGreater(shown, 40)

    def test_places_of_functions(self):
        shown = 0
        for line, low, high in RULES:
            for unit in (RADIAN, DEGREE):
                found = path(line, low, min(high, low + 25) if unit is RADIAN else high, unit)
                marks = [*keyed("f", found)]
                wanted = tuple(asked_for(key, mark) for key, mark in marks)
                forms = exact_forms(plan(line), unit, wanted)
                for key, mark in marks:
                    for text, value in ((forms[key].x, mark.x), (forms[key].y, mark.y)):
                        if text:
                            shown += 1
                            there = float_value(plan(text), unit)
                            with self.subTest(line, unit=unit, text=text):
                                self.assertAlmostEqual(there, value, delta=1e-9 * (1 + abs(value)))
        self.assertGreater(shown, 30)

    def test_another_number_does_not_read_back(self):
        digits = (
            "1.41421356237309504880168872420969807856967187537694807317667973799073247846210703885"
        )
        self.assertTrue(reads_back("√2", RADIAN, digits))
        self.assertFalse(reads_back("√2", RADIAN, digits[:-40] + "9" * 40 + "1"))
        self.assertFalse(reads_back("√2 +", RADIAN, digits))
        self.assertFalse(reads_back("1/0", RADIAN, digits))
        self.assertFalse(
            reads_back(
                "sin(π/9)", DEGREE, "0.342020143325668733044099614682259580763083367514160628464"
            )
        )


if __name__ == "__main__":
    unittest.main()
