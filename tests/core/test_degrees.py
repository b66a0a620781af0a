"""A view of angles in degrees shows what one of angles in radians does."""

import math
import unittest

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.path.framing import settled
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from tests.case import Case


def framed(text, unit):
    document = Document(unit=unit)
    return settled(document, apply(document, AddLane(text=text))).view


class Framing(Case):
    def test_as_many_turns_are_seen_in_both_units(self):
        for text in ("sin x", "cos(2x)", "3 sin x + 1", "tan x", "sin(x/2)", "cos x + sin(2x)"):
            radians, degrees = (framed(text, unit) for unit in AngleUnit)
            with self.subTest(text):
                wide = math.degrees(radians.right - radians.left)
                self.assertGreater(degrees.right - degrees.left, 0.5 * wide)
                self.assertLess(degrees.right - degrees.left, 2 * wide)
                self.assertAlmostEqual(degrees.top, radians.top)
                self.assertAlmostEqual(degrees.bottom, radians.bottom)

    def test_what_takes_no_angle_is_seen_as_ever(self):
        for text in ("x^2", "arcsin x", "e^x - 2", "1/x"):
            radians, degrees = (framed(text, unit) for unit in AngleUnit)
            self.assertEqual((degrees.left, degrees.right), (radians.left, radians.right), text)

    def test_a_sheet_that_is_switched_is_framed_anew(self):
        document = Document()
        before = settled(document, apply(document, AddLane(text="sin x")))
        after = settled(before, before.model_copy(update={"unit": AngleUnit.DEGREE}))
        self.assertEqual(after.view, framed("sin x", AngleUnit.DEGREE))
        chosen = before.model_copy(update={"view": before.view.model_copy(update={"chosen": True})})
        turned = chosen.model_copy(update={"unit": AngleUnit.DEGREE})
        self.assertEqual(settled(chosen, turned).view, chosen.view)


if __name__ == "__main__":
    unittest.main()
