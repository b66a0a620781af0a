"""Regions: corners, areas, where along x, whether they have an end, and who belongs."""

import itertools
import math
import random
from fractions import Fraction

import numpy as np
from mpmath import mp

from axispath.core.plane.area import size_of
from axispath.core.plane.endless import endless
from axispath.core.plane.member import belongs
from axispath.core.plane.relation import relation_of
from axispath.core.search.landmark import Kind
from axispath.core.sheet.resolve import resolve
from axispath.core.table.kinds import DESCRIBED
from tests.case import Case
from tests.core.planes import lane_of, path_of, places, sheet


class Regions(Case):
    def test_corners_of_linear_regions(self):
        """Against the corners of SciPy's half-spaces: all pairs, kept where all hold."""
        chance = random.Random(5)
        for _ in range(6):
            rows = [
                (chance.randint(-4, 4), chance.randint(-4, 4) or 1, chance.randint(1, 12))
                for _ in range(4)
            ]
            line = " and ".join(f"({a}) x + ({b}) y <= {c}" for a, b, c in rows)
            wanted = set()
            for (a, b, c), (d, e, f) in itertools.combinations(rows, 2):
                det = a * e - b * d
                if det:
                    x, y = Fraction(c * e - b * f, det), Fraction(a * f - c * d, det)
                    if all(p * x + q * y <= r for p, q, r in rows):
                        wanted.add((round(float(x), 9) + 0.0, round(float(y), 9) + 0.0))
            wanted = {p for p in wanted if abs(p[0]) <= 10 and abs(p[1]) <= 7}
            with self.subTest(line):
                path = path_of(line, 20_000)
                self.assertEqual(set(places(path, Kind.CORNER)), wanted)

    def test_corners_where_the_larger_value_changes(self):
        """Rectangles, diamonds and wedges made up, written with max, min and bars."""
        chance = random.Random(9)
        for _ in range(5):
            a, b, p, q = (chance.randint(-3, 3), chance.randint(-3, 3), 1, chance.randint(1, 3))
            u, v = f"(x - ({a}))", f"(y - ({b}))"
            box = {(a - p, b - q), (a - p, b + q), (a + p, b - q), (a + p, b + q)}
            for line, wanted in (
                (f"max(|{u}|/{p}, |{v}|/{q}) <= 1", box),
                (f"min({p} - |{u}|, {q} - |{v}|) >= 0", box),
                (f"|{u}|/{p} + |{v}|/{q} <= 1", {(a - p, b), (a + p, b), (a, b - q), (a, b + q)}),
                (f"max({u}, {v}) <= 0", {(a, b)}),
                (f"min({u}, {v}, {u} + {v} - 2) >= 0", {(a + 2, b), (a, b + 2)}),
                (f"y <= min(2{u}, -{u}) + ({b})", {(a, b)}),
            ):
                with self.subTest(line):
                    path = path_of(line, 20_000)
                    self.assertTrue(path.complete, path.open)
                    self.assertEqual(set(places(path, Kind.CORNER)), wanted)

    def test_what_jumps_or_ends_in_a_cusp_stays_open(self):
        for line in ("y <= floor(x) and y >= 0", "y^2 <= x^3", "sign(x) y >= 1", "y < round(x)"):
            with self.subTest(line):
                self.assertFalse(path_of(line).complete)

    def test_corners_that_do_not_belong_are_hollow(self):
        path = path_of("2x + 3y >= 6 and x >= 0 and y >= 0 and x <= 5 and y < 4")
        self.assertEqual(
            {(m.x, m.y): m.closed for m in path.landmarks},
            {(0, 2): True, (0, 4): False, (3, 0): True, (5, 0): True, (5, 4): False},
        )

    def test_areas_against_closed_forms(self):
        for line, area, inside in (
            ("x^2 + y^2 <= 9", 9 * math.pi, True),
            ("1 <= x^2 + y^2 < 9 and y > x", 4 * math.pi, True),
            ("x >= 0 and y >= 0 and 2x + y <= 4", 4, True),
            ("y >= x^2 and y <= 4", 32 / 3, True),
            ("x^2/25 + y^2/4 < 1", 10 * math.pi, True),
            ("y > 0", 140, False),
            ("x > 1 and x < 0", 0, True),
        ):
            with self.subTest(line):
                found = size_of(relation_of(lane_of(line)), (-10.0, 10.0, -7.0, 7.0))
                self.assertLessEqual(abs(found.area - area), found.error + 1e-12)
                self.assertLess(found.error, 0.02)
                self.assertEqual(found.inside, inside)

    def test_a_contradiction_is_nothing(self):
        document = sheet("x > 1 and x < 0")
        lane = resolve(document).lanes[0]
        self.assertIn("no point", DESCRIBED["region"].unseen(lane, None, document))

    def test_where_along_x_there_is_any_of_it(self):
        for line, wanted in (
            ("x^2 + y^2 < 9", [(-10, -3, 0), (-3, 3, 1), (3, 10, 0)]),
            ("1 < x^2 + y^2 < 9", [(-10, -3, 0), (-3, -1, 1), (-1, 1, 2), (1, 3, 1), (3, 10, 0)]),
            ("x >= 0 and y >= 0 and x + y <= 4", [(-10, 0, 0), (0, 4, 1), (4, 10, 0)]),
            ("|x| + |y| < 3", [(-10, -3, 0), (-3, 3, 1), (3, 10, 0)]),
            ("1 < x < 2", [(-10, 1, 0), (1, 2, 1), (2, 10, 0)]),
        ):
            with self.subTest(line):
                found = path_of(line, 40_000).counts
                told = [(round(c.low, 9) + 0.0, round(c.high, 9) + 0.0, c.many) for c in found]
                self.assertEqual(told, wanted)

    def test_whether_it_has_an_end(self):
        for line, wanted in (
            ("x >= 0 and y >= 0 and x + y <= 4", False),
            ("1 <= x^2 + y^2 < 9", False),
            ("x^2 + y^2 < 10000", False),
            ("x^4 + y^4 <= 3 x y", False),
            ("x^2 + x y + y^2 < 7", False),
            ("x^2 < 1 and y^2 < x^2", False),
            ("x + y > -3 and x - y < 3 and 3x + y < 9 and y - 2x < 20", False),
            ("y >= x^2", True),
            ("2x + 3y >= 6", True),
            ("1 < x < 2", True),
            ("x^2 - y^2 > 1", True),
            ("x^2 + y^2 < 4 or x > 5", True),
            ("x y < 1 and x > 0 and y > 0", None),
            ("sin(x) < y", None),
        ):
            with self.subTest(line):
                found = endless(relation_of(lane_of(line)), (-10.0, 10.0, -7.0, 7.0))
                self.assertIs(found, wanted)

    def test_the_words_of_what_has_no_end(self):
        for line, told in (
            ("y >= x^2", "it goes on without end"),
            ("x^2 + y^2 < 900", "bounded, but reaches beyond the view"),
            ("x^2 + y^2 < 9", "none of it reaches the view’s edge, and it is bounded"),
        ):
            document = sheet(line)
            lane = resolve(document).lanes[0]
            words = DESCRIBED["region"].words(lane, path_of(line), document)
            self.assertIn(told, words)

    def test_who_belongs_is_decided_exactly(self):
        for line, place, wanted in (
            ("x^2 + y^2 <= 25", (3.0, 4.0), True),
            ("x^2 + y^2 < 25", (3.0, 4.0), False),
            ("x^2 + y^2 < 25", (3.0, 4.0 - 2**-40), True),
            ("y > sin x", (1.0, 0.5), False),
            ("y >= sin x", (0.0, 0.0), True),
            ("y > e^x", (1.0, float(np.exp(1.0))), None),
            ("x > 1 or y > 1", (0.0, 2.0), True),
        ):
            with self.subTest(line, place=place):
                found = belongs(relation_of(lane_of(line)), *place)
                if wanted is not None or found is None:
                    self.assertIs(found, wanted)
                else:
                    exact = mp.mpf(place[1]) > mp.e ** mp.mpf(place[0])
                    self.assertIs(found, bool(exact))
