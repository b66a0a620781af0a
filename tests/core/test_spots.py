"""Functions of two variables at a place and over rows and columns, against mpmath."""

import math

import numpy as np
from mpmath import mp

from axispath.core.sheet.document import Table
from axispath.core.sheet.edits import SetTable, apply
from axispath.core.sheet.resolve import resolve
from axispath.core.table.columns import heads, of_two
from axispath.core.table.kinds import AT_PLACE
from axispath.core.table.rows import TableRefused, places
from axispath.core.table.values import column
from tests.case import Case
from tests.core.planes import sheet

MAPS = (
    ("x^2 - y^2", lambda x, y: x**2 - y**2),
    ("sin(x y) + x", lambda x, y: mp.sin(x * y) + x),
    ("e^(-x^2 - y^2) x", lambda x, y: mp.exp(-(x**2) - y**2) * x),
    ("ln(x^2 + y^2 + 1)/(y^2 + 1)", lambda x, y: mp.log(x**2 + y**2 + 1) / (y**2 + 1)),
)


def spot(line, x, y):
    document = sheet(line)
    lane = resolve(document).lanes[-1]
    return AT_PLACE[lane.kind.key](document, lane, x, y)


def numbers(words):
    return [float(part.replace("−", "-")) for part in words.split("(")[1].split(")")[0].split(", ")]


class Spots(Case):
    def test_value_and_gradient(self):
        for text, rule in MAPS:
            for x, y in ((2.0, 1.0), (-0.5, 0.25), (1.5, -1.25)):
                with self.subTest(text, place=(x, y)):
                    found = spot(f"h(x, y) = {text}", x, y)
                    value = float(found.shown.replace("−", "-"))
                    self.assertAlmostEqual(value, float(rule(mp.mpf(x), mp.mpf(y))), 4)
                    slopes = [float(mp.diff(rule, (x, y), order)) for order in ((1, 0), (0, 1))]
                    for got, wanted in zip(numbers(found.words[0]), slopes, strict=True):
                        self.assertAlmostEqual(got, wanted, 4)
                    angle = float(found.words[1].split(" at ")[1].split("°")[0].replace("−", "-"))
                    self.assertAlmostEqual(angle, math.degrees(math.atan2(*slopes[::-1])), 1)

    def test_the_tangent_plane_in_words(self):
        self.assertIn(
            "tangent plane: z = 3 + 4 (x − 2) − 2 (y − 1)", spot("h(x, y) = x^2 - y^2", 2, 1).words
        )
        self.assertIn("tangent plane: z = −4 + 4 (y + 2)", spot("h(x, y) = x^2 - y^2", 0, -2).words)
        self.assertIn("level", spot("h(x, y) = x^2 - y^2", 0, 0).words[0])
        self.assertIn("no tangent plane", spot("h(x, y) = √(x^2 + y^2)", 0, 0).words[0])
        self.assertIn("no value", spot("h(x, y) = ln(x y)", 0, -2).words[0])

    def test_sections_are_functions(self):
        found = spot("h(x, y) = x^2 y + y", 2.0, 3.0)
        along_x, along_y = found.sections
        self.assertEqual((along_x.line, along_y.line), ("h(x, 3)", "h(2, x)"))
        for section, rule in ((along_x, lambda t: 3 * t**2 + 3), (along_y, lambda t: 5 * t)):
            document = sheet("h(x, y) = x^2 y + y", section.line)
            lane = resolve(document).lanes[-1]
            self.assertEqual(lane.kind.key, "function")
            t = np.linspace(-2, 2, 9)
            np.testing.assert_allclose(lane.floats(t), rule(t))

    def test_where_it_lies(self):
        self.assertEqual(spot("x^2 + y^2 < 25", 3, 4).shown, "not in it")
        self.assertEqual(spot("x^2 + y^2 <= 25", 3, 4).shown, "in it")


class OverTwo(Case):
    def test_rows_and_columns(self):
        document = sheet("volume(r, h) = π r^2 h")
        self.assertEqual(of_two(document), ("volume",))
        table = Table(
            start="0", stop="2", step="1/2", across="volume", across_stop="1", across_step="1/4"
        )
        document = apply(document, SetTable(table=table))
        columns = heads(document, table)
        self.assertEqual(len(columns), 5)
        self.assertEqual(columns[1].text, "volume(x, 0.25)")
        rows = places(document, table)
        for k, head in enumerate(columns):
            np.testing.assert_allclose(column(head.source, rows).values, math.pi * rows**2 * k / 4)

    def test_wrong_ones_are_told(self):
        document = sheet("h(x, y) = x y", "f(x) = x")
        for changes, field in (
            ({"across": "f"}, "across"),
            ({"across": "q"}, "across"),
            ({"across": "h", "across_step": "0"}, "across_step"),
            ({"across": "h", "across_step": "1/1000"}, "across_step"),
            ({"across": "h", "across_start": "1/0"}, "across_start"),
        ):
            with self.subTest(changes), self.assertRaises(TableRefused) as refused:
                heads(document, Table(**changes))
            self.assertEqual(refused.exception.field, field)

    def test_a_new_name_reaches_the_table(self):
        document = apply(sheet("h(x, y) = x y"), SetTable(table=Table(across="h")))
        from axispath.core.sheet.edits import ReviseLane

        changed = apply(document, ReviseLane(id=document.lanes[0].id, text="g(x, y) = x y"))
        self.assertEqual(changed.tables[0].across, "g")
