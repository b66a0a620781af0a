"""Regions too small or too thin to be seen, single points, and those without any: none is wrong."""

import random
import unittest
from fractions import Fraction

from axispath.core.plane.empty import any_point
from axispath.core.plane.relation import relation_of
from axispath.core.table.kinds import DESCRIBED
from axispath.core.table.kinds.relation import read_region
from tests.case import Case
from tests.core.planes import lane_of, sheet

VIEW = (-10.0, 10.0, -7.0, 7.0)


def regions():
    """A line, and a place that belongs to it as exact numbers; None where nothing does."""
    chance = random.Random(21)
    for _ in range(12):
        x, y = (Fraction(chance.randint(-59, 59), chance.choice((10, 20))) for _ in "xy")
        small = chance.choice(("10^-6", "10^-10", "0", "0.0001"))
        at = f"(x - ({x}))^2 + (y - ({y}))^2"
        yield f"{at} <= {small}", (x, y)
        yield f"{at} <= -{small if small != '0' else '1'}", None
        yield f"x >= {x} and x <= {x} and y >= {y}", (x, y)
        yield f"x >= {x} and x <= {x - Fraction(1, 100)}", None
        yield f"|x - ({x})| + |y - ({y})| <= 0", (x, y)
        yield f"{at} <= 1 and x > {x + 2}", None


class Small(Case):
    def test_a_point_belongs_and_none_is_none(self):
        told = 0
        for line, place in regions():
            with self.subTest(line):
                relation = relation_of(lane_of(line))
                found = any_point(relation, VIEW)
                if place is None:
                    self.assertIsNone(found.place)
                else:
                    self.assertFalse(found.settled and found.place is None)
                told += found.settled
        self.assertGreater(told, 50)

    def test_the_words_say_no_more_than_is_known(self):
        for line, place in regions():
            document = sheet(line)
            lane = lane_of(line)
            words = DESCRIBED["region"].unseen(lane, None, document)
            if words is not None and place is not None:
                with self.subTest(line):
                    self.assertNotIn("has no point", words)

    def test_over_one_x_a_border_alone_is_told(self):
        for line, x, wanted in (
            ("y >= x^2 and y <= -x^2", 0, "y = 0"),
            ("y >= x^2 and y <= x", 0, "y = 0"),
            ("y >= x^2 and y <= x", 1, "y = 1"),
            ("y >= x^2 and y <= x", 2, "—"),
            ("y > x^2 and y < x", 1, "—"),
            ("y >= 2 and y <= 2", 3, "y = 2"),
            ("x^2 + y^2 <= 4", 2, "y = 0"),
            ("x^2 + y^2 < 4", 2, "—"),
        ):
            with self.subTest(line, x=x):
                found = read_region(sheet(line), lane_of(line), float(x))
                self.assertEqual(found.shown, wanted)


if __name__ == "__main__":
    unittest.main()
