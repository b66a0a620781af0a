"""Tables of values: rows, columns, and what is read off them."""

from fractions import Fraction

import mpmath
import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import full_precision
from axispath.core.path.lanes import USUAL
from axispath.core.sheet.document import Document, Table
from axispath.core.sheet.edits import AddLane, Rename, ReviseLane, SetTable, apply
from axispath.core.table.columns import heads
from axispath.core.table.marks import row_marks
from axispath.core.table.points import point_rows
from axispath.core.table.rows import TableRefused, places, stretch
from axispath.core.table.values import column
from axispath.exchange.table import table_text
from tests.case import Case


def sheet(*lines):
    document = Document()
    for number, line in enumerate(lines):
        document = apply(document, AddLane(text=line, id=f"l{number}"))
    return document


def marks(document, **table):
    table = Table(**table)
    found = heads(document, table)
    x = places(document, table)
    values = [column(head.source, x).values for head in found]
    return x, row_marks([head.source for head in found], x, values)


class Rows(Case):
    def rows(self, document=None, **table):
        return places(document or sheet(), Table(**table)).tolist()

    def test_by_count_by_list_and_at_landmarks(self):
        self.assertEqual(
            self.rows(by="count", start="0", stop="1", count="5"), [0, 0.25, 0.5, 0.75, 1]
        )
        self.assertEqual(self.rows(by="list", places="3; 1/2\n−2, 0.1"), [3, 0.5, -2, 0.1])
        found = self.rows(sheet("x^2 - 4"), by="landmarks")
        self.assertEqual(found, [-2, 0, 2])

    def test_points_are_rows_with_their_names(self):
        document = sheet("P = (3, 4)", "[(0, 1), (-1, ln 0), (0, -2)]", "x^2", "Q = (1, P_x)")
        found = point_rows(document)
        self.assertEqual(found.names, ("P", "A 1", "A 3", "Q"))
        self.assertEqual([(t, v.tolist()) for t, v in found.given], [("y", [4, 1, -2, 3])])
        self.assertEqual(self.rows(document, by="points"), [3, 0, 0, 1])
        polar = document.ground.model_copy(update={"grid": "polar", "angles": "full"})
        turned = point_rows(document.model_copy(update={"ground": polar, "unit": AngleUnit.DEGREE}))
        self.assertEqual([title for title, _ in turned.given], ["y", "r", "θ"])
        self.assertEqual(turned.given[1][1][:3].tolist(), [5, 1, 2])
        self.assertEqual(turned.given[2][1][1:3].tolist(), [90, 270])
        text, _ = table_text(document, Table(by="points"), ",", USUAL)
        self.assertEqual(text.split("\r\n")[:3], ["point,x,y,f(x)", "P,3,4,9", "A 1,0,1,0"])
        with self.assertRaisesRegex(TableRefused, "No point is shown"):
            self.rows(sheet("x"), by="points")

    @given(st.integers(-30, 30), st.integers(1, 40), st.integers(1, 12))
    def test_every_row_is_the_float_nearest_to_the_exact_place(self, start, count, bottom):
        rows = self.rows(start=str(start), stop=str(start + count), step=f"1/{bottom}")
        exact = [float(start + Fraction(k, bottom)) for k in range(count * bottom + 1)]
        self.assertEqual(rows, exact)

    def test_a_stretch_is_refined_again_and_again(self):
        document, table = sheet("x^2 - 2"), Table(start="0", stop="3", step="1")
        for _ in range(3):
            x = places(document, table)
            row = int(np.searchsorted(x, 2**0.5)) - 1
            found = stretch(document, table, row)
            table = table.model_copy(update={"finer": (*table.finer, found)})
        x = places(document, table)
        self.assertEqual(len(x), 4 + 3 * 9)
        low = int(np.searchsorted(x, 2**0.5)) - 1
        self.assertEqual(x[low : low + 2].tolist(), [1.414, 1.415])

    def test_rows_that_cannot_be_made_are_named(self):
        for told, table in (
            ("must not be 0", {"step": "0"}),
            ("has to be positive", {"step": "-1"}),
            ("rows; a table can have", {"step": "0.000001"}),
            ("whole number", {"by": "count", "count": "2.5"}),
            ("rows; a table can have", {"by": "count", "count": "10^6"}),
            ("the same", {"by": "count", "start": "1", "stop": "1"}),
            ("Type or paste", {"by": "list"}),
            ("no value", {"by": "list", "places": "1, q"}),
            ("no landmarks", {"by": "landmarks"}),
        ):
            with self.subTest(told), self.assertRaisesRegex(TableRefused, told):
                places(sheet(), Table(**table))


class Columns(Case):
    def test_expressions_lanes_and_derivatives(self):
        document = sheet("f(x) = x^2", "g(x) = x + 2", "a = 3")
        found = heads(document, Table(columns=("f(x) - g(x)", "f'(x)", "a x", "f(x)", "q x", "f(")))
        x = np.array([0.0, 2.0])
        values = [column(h.source, x).values.tolist() if h.source else h.error for h in found]
        self.assertEqual(values[:4], [[-2, 0], [0, 4], [0, 6], [0, 4]])
        self.assertIn("q has no value", values[4])
        self.assertTrue(values[5])

    def test_a_slider_runs_and_every_lane_follows_it(self):
        document = sheet("a = 1", "f(x) = a x^2", "n = 2a + 1")
        table = Table(variable="a", columns=("f(3)", "n", "a^2"))
        values = [
            column(h.source, np.array([1.0, 2.0])).values.tolist() for h in heads(document, table)
        ]
        self.assertEqual(values, [[9, 18], [3, 5], [1, 4]])
        self.assertEqual([h.text for h in heads(document, Table(variable="a"))], ["n"])

    def test_renaming_a_lane_renames_its_columns(self):
        document = sheet("f(x) = x^2", "a = 1")
        document = apply(document, SetTable(table=Table(columns=("f(x) + a",), variable="a")))
        document = apply(document, ReviseLane(id="l0", text="depth(x) = x^2"))
        document = apply(document, ReviseLane(id="l1", text="swing = 1"))
        (table,) = document.tables
        self.assertEqual((table.columns, table.variable), (("depth(x) + swing",), "swing"))
        self.assertEqual(apply(document, Rename(name="A")).tables, document.tables)

    def test_a_stored_sheet_with_one_table_is_still_read(self):
        stored = Document().model_dump(mode="json")
        del stored["tables"]
        stored["table"] = {"start": "0", "stop": "9", "step": "3"}
        (table,) = Document.model_validate(stored).tables
        self.assertEqual((table.start, table.stop, table.step), ("0", "9", "3"))


class ReadingOff(Case):
    def test_zeros_poles_jumps_hits_and_crossings(self):
        for lines, table, wanted in (
            (("x^2 - 2",), {}, [(3, "zero", -(2**0.5)), (6, "zero", 2**0.5)]),
            (("1/(x - 0.5)",), {}, [(5, "pole", 0.5)]),
            (("1/x",), {}, [(4, "pole", 0)]),
            (("floor(x) + 0.5",), {"start": "-5.25"}, [(5, "jump", 0)]),
            (("floor(x) + 0.5",), {}, [(4, "jump", None)]),
            (("x - 1",), {}, [(6, "on the row", 1)]),
            (("x + 2", "x^2"), {"start": "0.5"}, [(1, "cross", 2)]),
            (("x^2 + 1",), {}, []),
        ):
            with self.subTest(lines):
                _, found = marks(sheet(*lines), **table)
                shown = [(m.row, m.event) for m in found]
                self.assertEqual(shown, [(row, event) for row, event, _ in wanted])
                for mark, (_, _, x) in zip(found, wanted, strict=True):
                    if x is None:
                        self.assertIsNone(mark.x)
                    else:
                        self.assertAlmostEqual(mark.x, x, 12)

    def test_lines_between_rows_stand_as_they_are_met(self):
        lines = ("x^2 - 3", "(x - 1.5) (x - 1.2) (x - 1.9)", "2 - x^2")
        for start, stop, step in (("0", "4", "1"), ("4", "0", "-1")):
            x, found = marks(sheet(*lines), start=start, stop=stop, step=step)
            met = [(mark.row, abs(mark.x - x[mark.row])) for mark in found]
            self.assertGreater(len(met), 6)
            self.assertEqual(met, sorted(met))

    def test_a_value_that_is_copied_is_the_shortest_decimal_that_is_right(self):
        lines = ("1.1 x + 0.99", "x^2 - 0.3 x", "1/(x - 1)", "sqrt(x + 0.01)")
        document = sheet(*lines)
        table = Table(start="-1.7", stop="4", step="0.1")
        rows = table_text(document, table, "\t", USUAL)[0].splitlines()[1:]
        for row in rows:
            x, *ys = row.split("\t")
            with mpmath.workdps(50):
                at = mpmath.mpf(x)
                right = [at * 11 / 10 + mpmath.mpf(99) / 100, at**2 - at * 3 / 10]
                right += [1 / (at - 1) if at != 1 else None]
                inside = at + mpmath.mpf(1) / 100
                right += [mpmath.sqrt(inside) if inside >= 0 else None]
                for text, value in zip(ys, right, strict=True):
                    written = "" if value is None else full_precision(float(value))
                    self.assertEqual(text, written, x)

    @given(st.integers(-20, 20), st.integers(1, 7))
    def test_a_straight_line_is_read_off_where_it_crosses(self, tenths, slope):
        zero = tenths / 4 + 0.1
        x, found = marks(sheet(f"{slope} (x - ({zero}))"), start="-9", stop="9", step="1")
        (mark,) = found
        self.assertTrue(x[mark.row] <= zero <= x[min(mark.row + 1, len(x) - 1)])
        self.assertAlmostEqual(mark.x, zero, 12)
