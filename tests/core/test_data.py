"""Data sets: what is read, computed, summarised, edited, drawn and used in formulas."""

import datetime
import math
import random
import statistics
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as some

from axispath.core.data.cells import Cells
from axispath.core.data.reading import CannotRead, number_of, read_table, rows_of_text
from axispath.core.data.summary import histogram, pairing, summary
from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.primitives import Dots, Patch, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import (
    AddData,
    AddFit,
    AddLane,
    ArrangeRows,
    DrawData,
    MoveRow,
    RemoveLane,
    ReviseLane,
    SetCells,
    SetColumn,
    SetFit,
    SetRows,
    apply,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from tests.case import Case

LOG = "hours\tdepth [m]\n0\t1\n1\t3\n2\t5\n3\t7\n4\t9\n"
FRAME = Frame(-1, 6, -2, 12, 700, 500)


def read(text):
    rows, between = rows_of_text(text)
    return read_table(rows, between)


def sheet(text=LOG, *lines):
    document = apply(Document(), AddData(text=text, id="d", name="log"))
    for line in lines:
        document = apply(document, AddLane(text=line))
    return document


def columns(document):
    return resolve(document).lane("d").measured.columns


class Reading(Case):
    def test_separators_heads_commas_and_gaps(self):
        for text, names, values in (
            ("x;y\n1,5;2\n2,5;3\n", ["x_data", "y_data"], [[1.5, 2.5], [2, 3]]),
            ("a_1,b_1\n1,2.5\n2,3\n", ["a_1", "b_1"], [[1, 2], [2.5, 3]]),
            ("1 2\n3 4\n", ["column_1", "column_2"], [[1, 3], [2, 4]]),
            ("1,5\n2,5\n", ["column_1"], [[1.5, 2.5]]),
            ("time\tdepth (m)\n1\t\n2\t−3\n", ["time", "depth"], [[1, 2], [None, -3]]),
            (
                'n,"big one"\n1,"1,200"\n2,"1,300.5"\n',
                ["n_data", "big_one"],
                [[1, 2], [1200, 1300.5]],
            ),
            ("p;q\n1.234,5;10%\n2;3%\n", ["p_data", "q_data"], [[1234.5, 2], [0.1, 0.03]]),
        ):
            with self.subTest(text):
                found = read(text)
                self.assertEqual([c.name for c in found.columns], names)
                self.assertEqual([c.cells.listed() for c in found.columns], values)

    def test_two_columns_with_a_comma_between_are_no_decimals(self):
        chance = random.Random(6)
        for count in range(2, 40):
            rows = [(chance.randint(-50, 50), chance.randint(0, 999)) for _ in range(count)]
            text = "\n".join(f"{a},{b}" for a, b in rows)
            found = read(f"hours,depth\n{text}\n")
            self.assertEqual([c.name for c in found.columns], ["hours", "depth"])
            self.assertEqual(
                [c.cells.listed() for c in found.columns], [[*c] for c in zip(*rows, strict=True)]
            )
            # What counts its rows is a column of its own without a head too.
            text = "\n".join(f"{k},{b}" for k, (_, b) in enumerate(rows))
            if count > 2:
                self.assertEqual(len(read(text).columns), 2)
            one = read("depth\n" + "\n".join(f"{a},{abs(b):03d}" for a, b in rows))
            self.assertEqual(len(one.columns), 1)
        for text, wanted in (("1,234;2", 1.234), ("1,5;2", 1.5), ("1.234,5;2", 1234.5)):
            self.assertEqual(read(f"p;q\n{text}\n").columns[0].cells.listed(), [wanted])

    @given(some.integers(1800, 2300), some.integers(0, 14), some.integers(0, 33))
    @settings(max_examples=200)
    def test_only_days_that_there_are_are_dates(self, year, month, day):
        texts = f"{day:02d}.{month:02d}.{year}", f"{year}-{month:02d}-{day:02d}"
        try:
            wanted = (datetime.date(year, month, day) - datetime.date(2000, 1, 1)).days
        except ValueError:
            for text in texts:
                with self.assertRaises(CannotRead):
                    number_of(text)
        else:
            for text in texts:
                self.assertEqual(number_of(text), wanted)

    @given(some.dates(datetime.date(1800, 1, 1), datetime.date(2300, 1, 1)))
    @settings(max_examples=80)
    def test_dates_are_days(self, day):
        wanted = (day - datetime.date(2000, 1, 1)).days
        self.assertEqual(number_of(day.isoformat()), wanted)
        self.assertEqual(number_of(f"{day.day}.{day.month}.{day.year}"), wanted)

    def test_times_and_moments(self):
        found = read("at;level\n2026-03-01 06:00;1\n2026-03-01 18:30;2\n").columns[0]
        first, second = found.cells.values
        self.assertAlmostEqual(second - first, 12.5 / 24)
        self.assertIn("days since 1 January 2000", found.how)
        clock = read("when;level\n08:30;1\n09:15;2\n").columns[0]
        self.assertEqual(clock.cells.listed(), [8.5, 9.25])

    def test_what_is_no_number_is_named(self):
        column = read("depth;name\n1;3\nlow;4\n3;5\n").columns[0]
        self.assertEqual((column.wrong, column.troubles), (1, ((2, "low"),)))
        for text, told in (
            ("", "nothing in it"),
            ("a\nb\n", "no number"),
            ("a,b\n", "no row|no number"),
            (",".join("1" * 70), "70 columns"),
            ('a,b\n"1,2\n3,4', "quotation|no number|no row"),
        ):
            with self.subTest(text[:20]), self.assertRaisesRegex(CannotRead, told):
                read(text)

    @given(some.lists(some.floats(-1e12, 1e12, allow_subnormal=False), min_size=1, max_size=30))
    def test_numbers_come_back_to_the_last_digit(self, values):
        text = "depth\n" + "\n".join(map(repr, values))
        self.assertEqual(read(text).columns[0].cells.listed(), [v + 0.0 for v in values])


class Describing(Case):
    @given(some.lists(some.integers(-1000, 1000), min_size=2, max_size=40))
    def test_summary_against_the_library(self, values):
        found = summary(np.array([*values, math.nan], dtype=float))
        self.assertEqual((found.count, found.missing), (len(values), 1))
        self.assertAlmostEqual(found.mean, statistics.mean(values), 9)
        self.assertAlmostEqual(found.median, statistics.median(values), 9)
        self.assertAlmostEqual(found.sample, statistics.stdev(values), 6)
        self.assertAlmostEqual(found.population, statistics.pstdev(values), 6)
        quartiles = statistics.quantiles(values, n=4, method="inclusive")
        self.assertAlmostEqual(found.lower, quartiles[0], 9)
        self.assertAlmostEqual(found.upper, quartiles[2], 9)

    def test_two_columns(self):
        x, y = np.array([1.0, 2, 3, 4, math.nan]), np.array([2.0, 4, 5, 9, 1])
        found = pairing(x, y)
        self.assertAlmostEqual(found.covariance, statistics.covariance(x[:4], y[:4]), 12)
        self.assertAlmostEqual(found.correlation, statistics.correlation(x[:4], y[:4]), 12)
        self.assertTrue(math.isnan(pairing(np.ones(4), y[:4]).correlation))

    def test_every_number_is_in_a_bin(self):
        values = np.array([0.0, 0.1, 0.5, 1.0, 1.5, 2.0])
        found = histogram(values, 0.5)
        self.assertEqual(found.counts.tolist(), [2, 1, 1, 2])
        self.assertEqual(found.counts.sum(), len(values))


class Columns(Case):
    def test_formulas_by_row_and_over_rows(self):
        document = sheet(LOG, "k = 2")
        for formula, wanted in (
            ("depth/2 + hours", [0.5, 2.5, 4.5, 6.5, 8.5]),
            ("step(depth)/step(hours)", [None, 2, 2, 2, 2]),
            ("running(hours)", [0, 1, 3, 6, 10]),
            ("rank(-depth)", [5, 4, 3, 2, 1]),
            ("k row(depth)", [2, 4, 6, 8, 10]),
            ("step(depth^2) if hours > 1, 0 otherwise", [0, 0, 16, 24, 32]),
        ):
            with self.subTest(formula):
                changed = apply(document, SetColumn(id="d", index=2, name="made", formula=formula))
                found = Cells(columns(changed)["made"]).listed()
                self.assertEqual(found, wanted)

    def test_formulas_follow_and_name_what_is_wrong(self):
        document = apply(
            sheet(LOG, "k = 2"), SetColumn(id="d", index=2, name="made", formula="k depth")
        )
        document = apply(document, ReviseLane(id=document.lanes[1].id, text="k = 3"))
        self.assertEqual(columns(document)["made"].tolist(), [3, 9, 15, 21, 27])
        document = apply(document, RemoveLane(id=document.lanes[1].id))
        arrays = resolve(document).lane("d").measured
        self.assertIn("k", arrays.errors["made"])
        document = apply(document, SetColumn(id="d", index=3, name="more", formula="made + 1"))
        self.assertIn("made", resolve(document).lane("d").measured.errors["more"])
        around = apply(document, SetColumn(id="d", index=2, formula="more"))
        self.assertIn("circle", resolve(around).lane("d").measured.errors["made"])
        with self.assertRaises(EditRefused):
            apply(document, SetColumn(id="d", index=2, formula="2 )"))

    def test_columns_are_lists_and_points(self):
        document = sheet(LOG, "w = mean(depth)", "(hours, depth)", "s = sum(hours)")
        lanes = resolve(document).lanes
        self.assertEqual((lanes[1].value, lanes[3].value), (5, 10))
        self.assertEqual(lanes[2].kind.key, "point")
        with self.assertRaisesRegex(EditRefused, "already|depth"):
            apply(document, SetColumn(id="d", index=0, name="depth"))
        with self.assertRaisesRegex(EditRefused, "already"):
            apply(document, SetColumn(id="d", index=0, name="w"))

    def test_new_names_reach_formulas_lanes_and_fits(self):
        document = apply(
            sheet(LOG, "k = 2", "w = mean(depth) + k"), AddFit(data="d", x="hours", y="depth")
        )
        made = SetColumn(id="d", index=2, name="made", formula="k step(depth)/step(hours)")
        document = apply(document, made)
        document = apply(document, SetColumn(id="d", index=1, name="level"))
        self.assertEqual(document.lanes[2].text, "w = mean(level) + k")
        self.assertEqual(document.lane("d").data.columns[2].formula, "k step(level)/step(hours)")
        self.assertEqual(document.lanes[3].fit.y, "level")
        document = apply(document, ReviseLane(id=document.lanes[1].id, text="factor = 2"))
        formula = document.lane("d").data.columns[2].formula
        self.assertEqual(formula, "factor step(level)/step(hours)")
        self.assertEqual(columns(document)["made"].tolist()[1:], [4, 4, 4, 4])
        self.assertEqual(resolve(document).lanes[2].value, 7)

    def test_cells_rows_and_blocks(self):
        document = apply(
            sheet(), SetCells(id="d", row=5, column=1, block=(("11,5", "7"), ("", "8")))
        )
        found = columns(document)
        self.assertEqual(Cells(found["depth"]).listed(), [1, 3, 5, 7, 9, 11.5, None])
        self.assertEqual(Cells(found["column_3"]).listed(), [None] * 5 + [7, 8])
        with self.assertRaisesRegex(EditRefused, "Row 2 of hours: “deep” is no number"):
            apply(document, SetCells(id="d", row=0, column=0, block=(("1",), ("deep",))))
        document = apply(document, SetRows(id="d", act="leave out", row=2, count=2))
        document = apply(document, SetRows(id="d", act="insert", row=1))
        self.assertEqual(document.lane("d").data.out, (3, 4))
        document = apply(document, SetRows(id="d", act="delete", row=0, count=2))
        self.assertEqual(document.lane("d").data.out, (1, 2))
        self.assertEqual(Cells(columns(document)["hours"]).listed()[:3], [1, 2, 3])
        document = apply(document, SetRows(id="d", act="take in", row=1, count=5))
        self.assertEqual(document.lane("d").data.out, ())

    def test_sorted_filtered_and_drawn_by_lot(self):
        document = apply(sheet(), SetRows(id="d", act="leave out", row=0))
        falling = apply(document, ArrangeRows(id="d", how="falling", column="depth"))
        self.assertEqual(columns(falling)["depth"].tolist(), [9, 7, 5, 3, 1])
        self.assertEqual(falling.lane("d").data.out, (4,))
        kept = apply(document, ArrangeRows(id="d", how="where", condition="2 < depth <= 7"))
        self.assertEqual(columns(kept)["depth"].tolist(), [3, 5, 7])
        some_rows = apply(document, ArrangeRows(id="d", how="sample", count=3, seed=7))
        again = apply(document, ArrangeRows(id="d", how="sample", count=3, seed=7))
        self.assertEqual(some_rows, again)
        self.assertEqual(some_rows.lane("d").data.rows, 3)
        with self.assertRaisesRegex(EditRefused, "no row"):
            apply(document, ArrangeRows(id="d", how="where", condition="depth > 100"))
        with self.assertRaisesRegex(EditRefused, "not understood"):
            apply(document, ArrangeRows(id="d", how="where", condition="depth >"))


class Lanes(Case):
    def test_pictures(self):
        document = apply(sheet(LOG + "5\t100\n"), SetRows(id="d", act="leave out", row=1))
        shapes = drawn(document, resolve(document).lane("d"), FRAME)
        self.assertEqual([type(s) for s in shapes], [Dots, Dots])
        self.assertTrue(shapes[1].hollow and shapes[0].handle)
        self.assertEqual(np.isnan(shapes[0].rows[:, 0]).tolist(), [False, True, *[False] * 4])
        for look, kinds in (("histogram", [Patch, Stroke]), ("box", [Stroke]), ("dots", [Dots])):
            changed = apply(document, DrawData(id="d", look=look))
            shapes = drawn(changed, resolve(changed).lane("d"), FRAME)
            self.assertEqual([type(s) for s in shapes], kinds)
        bars = apply(document, DrawData(id="d", errors="hours"))
        self.assertIs(type(drawn(bars, resolve(bars).lane("d"), FRAME)[0]), Stroke)

    def test_a_fit_follows_its_points_and_is_a_function(self):
        document = apply(sheet(), AddFit(data="d", x="hours", y="depth", id="f"))
        document = apply(document, AddLane(text="w = fit(10)"))
        lanes = resolve(document).lanes
        self.assertEqual(lanes[1].fitted.result.parameters.tolist(), [1, 2])
        self.assertAlmostEqual(lanes[2].value, 21)
        moved = apply(document, MoveRow(id="d", row=4, x=4, y=14))
        self.assertGreater(resolve(moved).lanes[2].value, 21)
        out = apply(moved, SetRows(id="d", act="leave out", row=4))
        self.assertAlmostEqual(resolve(out).lanes[2].value, 21)
        gone = apply(document, RemoveLane(id="d"))
        self.assertIn("data set is gone", str(resolve(gone).lane("f").error))

    def test_a_formula_of_ones_own(self):
        hours = range(8)
        text = "hours\tdepth\n" + "\n".join(f"{h}\t{3 * math.exp(-0.4 * h) + 1.5!r}" for h in hours)
        document = apply(
            sheet(text),
            AddFit(data="d", x="hours", y="depth", model="own", formula="a e^(-b x) + c", id="f"),
        )
        found = resolve(document).lane("f").fitted.result
        np.testing.assert_allclose(found.parameters, [3, 0.4, 1.5], rtol=1e-6)
        # A name of the sheet is no parameter; without it it is one again.
        document = apply(document, AddLane(text="c = 1"))
        held = resolve(document).lane("f").fitted.result
        self.assertEqual(held.names, ("a", "b"))
        document = apply(document, ReviseLane(id="f", text="fit(x) = p + q x"))
        self.assertEqual(resolve(document).lane("f").fitted.result.names, ("p", "q"))
        kept = apply(document, SetFit(id="f", parameter="p", held="2"))
        self.assertEqual(resolve(kept).lane("f").fitted.result.parameters[0], 2)
        with self.assertRaisesRegex(EditRefused, "No fit: there is no column height"):
            apply(document, AddFit(data="d", x="hours", y="height"))
        with self.assertRaisesRegex(EditRefused, "No fit: all points have the same x"):
            apply(sheet("hours\tdepth\n1\t2\n1\t3\n1\t4"), AddFit(data="d", x="hours", y="depth"))

    def test_the_answer_does_not_depend_on_what_was_asked_before(self):
        first = apply(sheet(), AddFit(data="d", x="hours", y="depth", id="f"))
        second = apply(first, MoveRow(id="d", row=0, x=0, y=6))
        for order in ((first, second), (second, first)):
            values = {
                doc.lane("d").data: resolve(doc).lane("f").fitted.result.parameters[1]
                for doc in order
            }
            self.assertAlmostEqual(values[first.lane("d").data], 2)
            self.assertAlmostEqual(values[second.lane("d").data], 1)

    def test_documents_travel_whole_and_long_columns_by_their_content(self):
        rows = "\n".join(f"{k}\t{k * k}" for k in range(1000))
        document = sheet("hours\tdepth\n" + rows)
        self.assertEqual(Document.model_validate_json(document.model_dump_json()), document)
        contents = {}
        text = document.model_dump_json(context={"contents": contents})
        self.assertLess(len(text), 3000)
        self.assertEqual(len(contents), 2)
        again = Document.model_validate_json(text, context={"contents": contents})
        self.assertEqual(again, document)
        with self.assertRaisesRegex(ValueError, "missing"):
            Document.model_validate_json(text)


if __name__ == "__main__":
    unittest.main()
