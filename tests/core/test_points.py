"""Points: read, named, computed, moved, and put in words."""

import math
import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from axispath.core.path.framing import frame
from axispath.core.path.kinds import FRAMED
from axispath.core.path.survey import survey
from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.primitives import Dots, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document, Style
from axispath.core.sheet.edits import AddLane, MovePoint, PointsToData, ReviseLane, SetStyle, apply
from axispath.core.sheet.kinds.point import is_free, places
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.words import explain_empty, in_words
from tests.case import Case

FRAME = Frame(-5, 5, -5, 5, 400, 400)
NUMBERS = st.floats(-1e6, 1e6).map(lambda x: float(f"{x:.6g}") if abs(x) > 1e-90 else 0.0)


def sheet(*lines):
    document = Document()
    for number, line in enumerate(lines):
        document = apply(document, AddLane(text=line, id=f"l{number}"))
    return document


def point(document, name):
    return next(lane for lane in resolve(document) if lane.name == name)


class Points(Case):
    def test_they_are_named_by_the_next_capital_and_their_coordinates_can_be_used(self):
        document = sheet("f(x) = x^2", "A = 2", "(1, 3)", "P = (2, f(2))", "P_x + P_y", "P_y x")
        names = [lane.name for lane in resolve(document)]
        self.assertEqual(names, ["f", "A", "B", "P", "v_1", "g"])
        self.assertEqual(places(point(document, "P")), [(2.0, 4.0)])
        self.assertEqual(point(document, "v_1").value, 6.0)

    def test_lists_of_points_and_two_lists(self):
        document = sheet("h = [1, 2, 3]", "k = [2, 4, 9]", "(h, k)", "[(0, 1), (2, -1)]", "(h, 0)")
        first, second, third = (places(lane) for lane in resolve(document).lanes[2:])
        self.assertEqual(first, [(1, 2), (2, 4), (3, 9)])
        self.assertEqual(second, [(0, 1), (2, -1)])
        self.assertEqual(third, [(1, 0), (2, 0), (3, 0)])

    def test_what_makes_no_point_is_refused_with_a_sentence(self):
        for line, told in (
            ("(1, 2, 3)", "two coordinates"),
            ("([1, 2], [1, 2, 3])", "not equally long: 2 values and 3"),
            ("[(1, 2), 3]", "every entry is a point"),
            ("2 (1, 3)", "decimals are written with a point"),
            ("(1, 2) for x > 0", "has no domain"),
            ("y = (1, 2)", "name of its own"),
            ("Q = (Q_x, 1)", "defined by itself"),
            ("(x, x^2)", "parameter"),
        ):
            with self.subTest(line), self.assertRaisesRegex(EditRefused, told):
                sheet(line)
        with self.assertRaisesRegex(EditRefused, "coordinates are P_x and P_y"):
            sheet("P = (1, 2)", "P + 1")

    def test_a_point_that_is_not_there_says_why(self):
        document = sheet("a = -1", "P = (a, ln a)")
        lane = point(document, "P")
        self.assertTrue(math.isnan(places(lane)[0][1]))
        words = in_words(document, survey(document))
        self.assertIn("P is not there: y has no value, since ln", words)
        self.assertIn("P is not there", explain_empty(document, survey(document))[0])

    @given(NUMBERS, NUMBERS)
    def test_a_point_of_plain_numbers_goes_where_it_is_put(self, x, y):
        document = sheet("P = (1, 2)", "(3, 4)")
        for key in ("l0", "l1"):
            moved = apply(document, MovePoint(id=key, x=x, y=y))
            lane = resolve(moved).lane(key)
            self.assertEqual(places(lane), [(x, y)])
            self.assertTrue(is_free(lane))

    def test_a_point_that_follows_others_is_not_moved_by_hand(self):
        document = sheet("a = 1", "P = (a, 2)")
        self.assertFalse(is_free(point(document, "P")))
        with self.assertRaisesRegex(EditRefused, "follows other names"):
            apply(document, MovePoint(id="l1", x=0, y=0))

    def test_a_new_name_reaches_its_coordinates(self):
        document = sheet("P = (1, 2)", "P_x x + P_y", "Q = (P_y, P_x)")
        document = apply(document, ReviseLane(id="l0", text="Start = (1, 2)"))
        self.assertEqual(
            [lane.text for lane in document.lanes],
            ["Start = (1, 2)", "Start_x x + Start_y", "Q = (Start_y, Start_x)"],
        )

    def test_words_about_two_points(self):
        document = sheet("P = (1, 2)", "Q = (4, 6)", "distance(P, Q)", "M = midpoint(P, Q)")
        document = apply(document, AddLane(text="line(P, Q)", id="line"))
        document = apply(document, AddLane(text="slope((0, 1), M)", id="slope"))
        document = apply(document, AddLane(text="distance(midpoint(P, Q), M)", id="none"))
        document = apply(document, ReviseLane(id="l0", text="Start = (1, 2)"))
        found = resolve(document)
        # By Pythagoras, 3² + 4² = 5².
        self.assertEqual(found.lane("l2").value, 5.0)
        self.assertEqual(places(found.lane("l3")), [(2.5, 4.0)])
        np.testing.assert_allclose(found.lane("line").floats(np.array([1.0, 4.0])), [2, 6])
        self.assertAlmostEqual(found.lane("slope").value, 3 / 2.5)
        self.assertEqual(found.lane("none").value, 0.0)
        self.assertEqual(document.lane("l3").text, "M = midpoint(Start, Q)")
        for line, told in (
            ("distance(Start)", "takes two points"),
            ("slope(Start, 2)", "takes two points"),
            ("2 midpoint(Start, Q)", "part of a formula"),
        ):
            with self.subTest(line), self.assertRaisesRegex(EditRefused, told):
                apply(document, AddLane(text=line))

    def test_their_words_are_not_reserved(self):
        document = sheet("slope = 3", "slope + 1", "distance(t) = 2t", "distance(4)")
        self.assertEqual([lane.value for lane in resolve(document).lanes[:2]], [3, 4])

    def test_they_are_drawn_joined_framed_and_described(self):
        document = sheet("[(0, 1), (2, -1)]")
        shapes = drawn(document, resolve(document).lanes[0], FRAME)
        self.assertEqual([type(shape) for shape in shapes], [Dots])
        np.testing.assert_allclose(shapes[0].rows, [[0.5, 0.6], [0.7, 0.4]], atol=1e-6)
        document = apply(document, SetStyle(id="l0", style=Style(joined=True)))
        shapes = drawn(document, resolve(document).lanes[0], FRAME)
        self.assertEqual([type(shape) for shape in shapes], [Stroke, Dots])
        view = frame(resolve(document).shown(FRAMED))
        self.assertTrue(view.left < 0 < 2 < view.right and view.bottom < -1 < 1 < view.top)
        self.assertIn("A is 2 points: (0, 1), (2, −1).", in_words(document, survey(document)))


class Data(Case):
    def made(self, *lines, ids=None):
        before = sheet(*lines)
        after = apply(before, PointsToData(ids=ids or tuple(one.id for one in before.lanes)))
        lane = after.lanes[-1]
        columns = {c.name: c.cells.listed() for c in lane.data.columns}
        return after, [one.name for one in resolve(after)][:-1], columns

    def test_points_become_rows_in_their_order(self):
        _, left, columns = self.made("(1, 2)", "(3, -4)", "[(5, 6), (1/2, √4)]")
        self.assertEqual(left, [])
        self.assertEqual(columns, {"x_1": [1, 3, 5, 0.5], "y_1": [2, -4, 6, 2]})

    def test_what_follows_names_or_is_followed_stays_beside_the_data(self):
        lines = ("a = 2", "A = (1, 2)", "B = (a, 3)", "C = (4, 4)", "D = (C_x, 0)", "x_1 = 7")
        _, left, columns = self.made(*lines, ids=("l1", "l2", "l3", "l4"))
        self.assertEqual(left, ["a", "B", "C", "D", "x_1"])
        self.assertEqual(columns, {"x_1_2": [1, 2, 4, 4], "y_1": [2, 3, 4, 0]})

    def test_a_place_that_is_none_is_left_out_and_nothing_at_all_is_refused(self):
        _, _, columns = self.made("[(1, 2), (1/0, 3), (√(-1), 0), (2, 5)]")
        self.assertEqual(columns, {"x_1": [1, 2], "y_1": [2, 5]})
        for lines in (["(1/0, 2)"], ["f(x) = x"]):
            with self.subTest(lines), self.assertRaises(EditRefused):
                self.made(*lines)


if __name__ == "__main__":
    unittest.main()
