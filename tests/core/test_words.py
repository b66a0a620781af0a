"""Lines in words: what is drawn goes through the points, has the slopes, is where it was asked."""

import math

from axispath.core.plane.relation import relation_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, AddWork, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from tests.case import Case
from tests.core.test_rewriting import offered_on
from tests.core.test_working import at

# Lines, and places that the function goes through.
THROUGH = {
    "line through (1, 2) and (3, 5)": ((1, 2), (3, 5)),
    "the line through A(1,2) and B(3,5)": ((1, 2), (3, 5)),
    "line through (1, 2) with slope 3": ((1, 2), (2, 5)),
    "line with slope -1/2 through (4, 1)": ((4, 1), (6, 0)),
    "slope 2, intercept 3": ((0, 3), (1, 5)),
    "line with gradient -1 and y-intercept 4": ((0, 4), (4, 0)),
    "line perpendicular to y = 2x through (2, 1)": ((2, 1), (4, 0)),
    "parallel to y = -x + 1 through (3, 0)": ((3, 0), (0, 3)),
    "parabola with vertex (1, 2) through (0, 0)": ((1, 2), (0, 0), (2, 0)),
    "parabola through (0, 1), (1, 1) and (2, 3)": ((0, 1), (1, 1), (2, 3)),
    "second derivative of x^3": ((1, 6), (-2, -12)),
    "antiderivative of x^2": ((0, 0), (3, 9)),
    "y = k/x where k = 3": ((1, 3), (6, 0.5)),
    "f(x) = x^2 for x < 1, 2x otherwise": ((-2, 4), (3, 6)),
    "f(x) = { x^2, x < 1 ; 2x, x ≥ 1 }": ((-2, 4), (1, 2)),
    "f(x) = x² when x < 0 and x otherwise": ((-2, 4), (3, 3)),
    "piecewise: x < 0: -x; x >= 0: x^2": ((-2, 2), (3, 9)),
    "vertex of x^2 - 4x + 1": ((2, -3),),
    "let f(x) = x^2": ((3, 9),),
    "turning points of y = x^3 - 3x": ((1, -2),),
    "domain of sqrt(x - 1)": ((5, 2),),
}
# Curves in x and y, and places on them.
AROUND = {
    "circle through (0, 0), (1, 0) and (0, 1)": ((0, 0), (1, 0), (0, 1), (1, 1)),
    "ellipse with semi-axes 3 and 2": ((3, 0), (0, -2)),
    "xy = 6": ((2, 3), (-1, -6)),
    "inverse of 2x + 3": ((3, 0), (5, 1)),
}
# Calculations, and what they come to.
WORTH = {
    "distance from (1, 2) to (4, 6)": 5,
    "length of (3, 4)": 5,
    "|(3, 4)|": 5,
    "(1, 2) · (3, 4)": 11,
    "slope from (1, 2) to (3, 8)": 3,
    "standard deviation of 2, 4, 4, 4, 5, 5, 7, 9": math.sqrt(32 / 7),
    "median 1 2 3 4": 2.5,
    "maximum of 3, 8, 5": 8,
    "gcd of 12 and 18": 6,
    "3rd root of 27": 3,
    "sum of k from 1 to 100": 5050,
    "1 + 2 + ... + 100": 5050,
    "sum n^2, n = 1 to 10": 385,
    "sum of the first 10 squares": 385,
    "50 increased by 20%": 60,
    "80 reduced by 25%": 60,
    "180 degrees in radians": math.pi,
    "π/3 radians in degrees": 60,
    "cos(60 deg)": 0.5,
}
RANGES = {
    "a from 0 to 10": ("a = 1", "0", "10"),
    "slider a from -5 to 5": ("a = 1", "-5", "5"),
    "a = 3 [2, 10]": ("a = 3", "2", "10"),
    "a = 3, 0 <= a <= 2π": ("a = 3", "0", "2π"),
    "a in [4, 10]": ("a = 7", "4", "10"),
}


def read(line):
    """The sheet of one line, or of the one that is offered for it."""
    return apply(Document(), AddLane(text=offered_on(Document(), line)))


class Words(Case):
    def test_functions(self):
        for line, places in THROUGH.items():
            with self.subTest(line):
                sheet = read(line)
                for x, y in places:
                    self.assertAlmostEqual(at(sheet, "f", x), y, 12)

    def test_curves(self):
        for line, places in AROUND.items():
            with self.subTest(line):
                (curve,) = resolve(read(line)).lanes
                for x, y in places:
                    self.assertTrue(relation_of(curve).holds_at(x, y), (x, y))

    def test_calculations(self):
        for line, value in WORTH.items():
            with self.subTest(line):
                lane = resolve(read(line)).lanes[-1]
                self.assertAlmostEqual(lane.value, value, 12)

    def test_two_curves_that_are_to_meet(self):
        for line in ("intersections of x^2 and 2x + 1", "where does x^2 meet 2x + 1?"):
            sheet = read(line)
            self.assertEqual([lane.text for lane in sheet.lanes], ["y = x^2", "y = 2x + 1"])

    def test_tangents_and_normals(self):
        """Both go through the point, and their slopes are those of the function, turned or not."""
        for word, slope in (("tangent to", 4), ("normal to", -0.25)):
            sheet = read(f"{word} x^2 at x = 2")
            name = resolve(sheet).lanes[-1].name
            self.assertEqual(at(sheet, name, 2), 4)
            self.assertAlmostEqual(at(sheet, name, 3) - 4, slope)

    def test_sliders_with_their_ranges(self):
        for line, wanted in RANGES.items():
            lane = read(line).lanes[-1]
            self.assertEqual((lane.text, lane.slider.low, lane.slider.high), wanted)
        sheet = apply(apply(Document(), AddLane(text="a = 3")), AddLane(text="a from 0 to 8"))
        self.assertEqual([lane.slider.high for lane in sheet.lanes], ["8"])

    def test_a_number_of_a_calculation_may_be_called_so(self):
        sheet = apply(Document(), AddWork(text="xy = 6"))
        self.assertEqual([lane.text for lane in sheet.lanes], ["xy = 6"])

    def test_sentences_are_no_products_of_letters(self):
        for line in ("is 97 prime", "the height of the mast", "what is this", "x from here"):
            with self.subTest(line), self.assertRaises(EditRefused):
                apply(Document(), AddLane(text=line))

    def test_what_is_on_the_sheet_is_pointed_at(self):
        sheet = apply(Document(), AddLane(text="f(x) = x^2 - 2"))
        with self.assertRaisesRegex(EditRefused, "f is on the sheet: look for its zeros"):
            apply(sheet, AddLane(text="zeros of f"))
