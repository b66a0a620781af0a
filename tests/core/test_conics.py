"""Conics by their names and measures; relations solved for y and x."""

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as some

from axispath.core.arithmetic.polynomial import coefficients
from axispath.core.path.relations.conics import described
from axispath.core.plane.relation import relation_of
from axispath.core.sheet.curve import curve_of, range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, SolveFor, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.solved import solved_for
from tests.case import Case
from tests.core.planes import lane_of, sheet


class Conics(Case):
    def told(self, line):
        lane = lane_of(line)
        return described(coefficients(relation_of(lane).curve.plain), 6)

    def test_they_are_named_with_their_measures(self):
        for line, told in (
            ("x^2 - 6x + y^2 + 4y = 12", "a circle, centre (3, −2), radius 5"),
            ("x^2/9 - y^2/16 = 1", "half-axes 3 and 4, foci (−5, 0) and (5, 0)"),
            ("x^2 + x y + y^2 = 3", "half-axes 2.44949 and 1.41421"),
            ("x^2/9 - y^2/16 = 1", "asymptotes y = −4/3 x and y = 4/3 x"),
            ("x y = 3", "asymptotes x = 0 and y = 0"),
            ("(x - 1)^2 - (y + 2)^2 = 4", "asymptotes y = −x − 1 and y = x − 3"),
            ("x^2 - 2y^2 = 1", "asymptotes y = −0.707107 x and y = 0.707107 x"),
            ("(x - 1)^2 = 4 (y - 2)", "a parabola, vertex (1, 2), focus (1, 3)"),
            ("x^2 = y^2", "two lines that cross at (0, 0)"),
            ("x = 4", "a vertical line, x = 4"),
            ("2x + 3y = 6", "slope −2/3"),
        ):
            with self.subTest(line):
                self.assertIn(told, self.told(line))

    @given(
        some.integers(-3, 3),
        some.integers(-3, 3),
        some.integers(1, 4),
        some.integers(1, 4),
    )
    @settings(max_examples=40, deadline=None)
    def test_an_ellipse_made_from_its_measures(self, x, y, a, b):
        line = f"(x - ({x}))^2/{a * a} + (y - ({y}))^2/{b * b} = 1"
        told = self.told(line).replace("−", "-")
        self.assertIn(f"centre ({x}, {y})", told)
        if a == b:
            self.assertIn(f"radius {a}", told)
        else:
            self.assertIn(f"half-axes {max(a, b)} and {min(a, b)}", told)

    def test_what_is_no_conic_is_none(self):
        for line in ("y^2 = x^3", "sin x = y^2", "x^2 + y^2 = -1"):
            lane = lane_of(line)
            found = coefficients(relation_of(lane).curve.plain)
            self.assertFalse(found and described(found, 6), line)


class SolvedForY(Case):
    def test_lines_that_hold_the_equation(self):
        """Each branch, put into the equation, makes it hold."""
        for line, count in (
            ("2x + 3y = 6", 1),
            ("x y = 3", 1),
            ("x^2 + y^2 = 20", 2),
            ("x = y^2", 2),
            ("x^2 + x y + y^2 = 3", 2),
            ("y/x + 1/(x - 5) = 2", 1),
            ("(x - 1)^2 + (y - 2)^2/4 = 1", 2),
            ("y^2 = x^3 - x", 2),
        ):
            lane = lane_of(line)
            relation = relation_of(lane)
            with self.subTest(line):
                found = solved_for("y", lane)
                self.assertEqual(len(found), count)
                x = np.linspace(-4.9, 4.93, 60)
                seen = 0
                for text in found:
                    document = apply(Document(), AddLane(text=f"y = {text}"))
                    y = resolve(document).lanes[0].floats(x)
                    known = np.isfinite(y)
                    seen += known.sum()
                    values = relation.curve.plain_values(x[known], y[known])
                    self.assertLess(np.abs(values).max(initial=0), 1e-9)
                self.assertGreater(seen, 5)

    def test_what_is_not_of_that_form(self):
        for line in ("x = 4", "sin(x y) = cos x", "x^3 + y^3 = 3x y", "x^2 + y^2 = 4 for x > 0"):
            self.assertEqual(solved_for("y", lane_of(line)), [], line)

    def test_it_becomes_lanes(self):
        document = sheet("x^2 + y^2 = 4")
        document = apply(document, SolveFor(id=document.lanes[0].id))
        kinds = [lane.kind.key for lane in resolve(document)]
        self.assertEqual(kinds, ["relation", "function", "function"])

    def test_for_x_it_becomes_curves_along_y(self):
        for line, count in (
            ("x = y^2", 1),
            ("x^2 + y^2 = 20", 2),
            ("x y = 1", 1),
            ("x = sin y", 1),
        ):
            document = sheet(line)
            document = apply(document, SolveFor(id=document.lanes[0].id, letter="x"))
            curves = resolve(document).lanes[1:]
            with self.subTest(line):
                self.assertEqual([lane.kind.key for lane in curves], ["parametric"] * count)
                relation = relation_of(resolve(document).lanes[0])
                for lane in curves:
                    span = range_of(lane)
                    self.assertEqual((span.low.x, span.high.x), (-7, 7))
                    x, y = curve_of(lane).places(np.linspace(-6.9, 6.93, 80))
                    known = np.isfinite(x)
                    self.assertGreater(known.sum(), 10)
                    values = relation.curve.plain_values(x[known], y[known])
                    self.assertLess(np.abs(values).max(), 1e-9)
        document = sheet("x + x^3 = y^2 x^5")
        with self.assertRaisesRegex(EditRefused, "cannot be solved for x"):
            apply(document, SolveFor(id=document.lanes[0].id, letter="x"))
