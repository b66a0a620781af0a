"""Blocks on a sheet: their answers are values that lanes, Values and Solve use, and follow."""

import threading

import numpy as np

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.sheet.block import Block, Run, Unknown
from axispath.core.sheet.document import Document, Lane, Table, Written
from axispath.core.sheet.edits import (
    AddBlock,
    AddLane,
    AddWork,
    DuplicateLane,
    MoveWork,
    RemoveLane,
    ReviseLane,
    SetBlock,
    SetTable,
    SetWritten,
    Slide,
    apply,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.solve.answer import answer
from axispath.core.solve.question import ask
from axispath.core.table.columns import heads
from axispath.core.table.results.blocks import run_table, told
from axispath.core.table.results.names import names_in_use
from axispath.core.table.results.result import result_of
from axispath.core.table.rows import places
from tests.case import Case

CRANE = "rope = load/4\nload = mass g\nmass = m_0 kg"


def sheet(*blocks, lines=(), lanes=()):
    document = Document()
    for line in lanes:
        document = apply(document, AddLane(text=line, id=line[0]))
    for k, text in enumerate(blocks, 1):
        document = apply(document, AddBlock(text=text, id=f"block{k}"))
    for line in lines:
        document = apply(document, AddWork(text=line))
    return document


def told_of(document, number=1):
    return told(document, resolve(document).lane(f"block{number}"))


def rows_of(document, number=1):
    return {
        row.name: [cell and cell.best for cell in row.cells]
        for group in told_of(document, number).groups
        for row in group.rows
    }


def results(document):
    return [result_of(document, lane) for lane in resolve(document).working]


def height(document, lane_id, x):
    lane = resolve(document).lane(lane_id)
    assert lane.error is None and not lane.missing, (lane.error, lane.missing)
    return float(lane.floats(np.array([x]))[0])


class OnASheet(Case):
    def test_the_crane(self):
        document = sheet(CRANE, lanes=["m_0 = 850"], lines=["rope in lbf", "2 rope"])
        self.assertEqual(rows_of(document)["load"], ["8.33565 kN"])
        self.assertEqual(results(document)[0].shown, "468.482 lbf")
        moved = apply(document, Slide(id="m", value=100))
        self.assertEqual(rows_of(moved)["load"], ["980.665 N"])
        self.assertEqual(results(moved)[1].shown, "490.332 N")
        found = {one.name: one for one in names_in_use(document, {})}
        self.assertEqual((found["rope"].kind, found["rope"].value), ("a quantity", "2.08391 kN"))

    def test_answers_move_curves_tables_and_equations_with_a_slider(self):
        document = sheet("depth = 3 + k u\nu = k - 1", lanes=["k = 2", "f(x) = depth x"])
        self.assertEqual(height(document, "f", 2.0), 10.0)
        moved = apply(document, Slide(id="k", value=4))
        self.assertEqual(height(moved, "f", 2.0), 30.0)
        # An answer never depends on what was asked before.
        self.assertEqual(height(document, "f", 2.0), 10.0)
        document = apply(document, SetTable(table=Table(start="0", stop="u", step="1")))
        self.assertEqual(list(places(document, document.tables[0])), [0.0, 1.0])
        (one,) = answer(ask(document, "depth z = 10"), None, None).solutions
        self.assertEqual(one.mark.x, 2.0)

    def test_what_is_worked_out_does_not_stand_still_while_a_slider_runs(self):
        document = sheet("depth = 3 + k\nu = 2", lanes=["k = 2"], lines=["d = det([k, 1; 1, k])"])
        table = Table(start="0", stop="3", step="1", variable="k", columns=("depth", "d", "u", "k"))
        document = apply(document, SetTable(table=table))
        errors = [head.error for head in heads(document, document.tables[0])]
        self.assertIn("depth is worked out from k", errors[0])
        self.assertIn("d is worked out from k", errors[1])
        self.assertEqual(errors[2:], ["", ""])
        for equation in ("depth + k = 10", "d + k = 9"):
            with self.assertRaisesRegex(EditRefused, "worked out from k"):
                ask(document, equation, "k")

    def test_one_of_several_solutions_is_used_and_can_be_chosen(self):
        text = "depth = 3 + 2u; draught = u^2; depth = draught"
        document = sheet(text, lanes=["f(x) = u x"])
        self.assertEqual(rows_of(document)["u"], ["−1", "3"])
        self.assertEqual(height(document, "f", 1.0), -1.0)
        other = apply(
            document, SetBlock(id="block1", block=Block(text=text, chosen=(("depth", 1),)))
        )
        self.assertEqual(height(other, "f", 1.0), 3.0)
        gone = Block(text=text, chosen=(("depth", 5),))
        gone = apply(document, SetBlock(id="block1", block=gone))
        self.assertEqual(resolve(gone).lane("f").missing, ("u",))
        self.assertIn("there are 2", told_of(gone).groups[0].unused)
        bounded = Block(text=text, unknowns=(Unknown(name="u", low="0"),))
        bounded = apply(document, SetBlock(id="block1", block=bounded))
        self.assertEqual(height(bounded, "f", 1.0), 3.0)

    def test_two_blocks_that_need_each_other(self):
        document = sheet("p + q = 10\nr = 2p", "p - q = s\ns = 4")
        self.assertEqual(rows_of(document), {"p": ["7"], "q": ["3"], "r": ["14"], "s": ["4"]})
        self.assertEqual(told_of(document).groups[0].beyond, (3, 4))
        self.assertIn("equations 3 and 4", told_of(document, 2).note)
        self.assertEqual([line.number for line in told_of(document, 2).lines], [3, 4])
        rests = apply(document, SetWritten(id="block2", written=Written(rests=True)))
        self.assertIn("too few", told_of(rests).groups[0].troubles[0].words)

    def test_circles_through_lanes_are_named(self):
        document = sheet("p + c = 3", lanes=["k = 1"])
        document = apply(document, AddLane(text="c = p + 1", id="c", keep=True))
        self.assertIn("circle: c needs p needs c", resolve(document).lane("c").error.message)
        self.assertIn("waits for c", told_of(document).groups[0].troubles[0].words)
        mended = apply(document, ReviseLane(id="c", text="c = k + 1"))
        self.assertEqual(rows_of(mended)["p"], ["1"])

    def test_a_value_of_the_sheet_is_known_in_a_block(self):
        document = sheet("p + q = 10\nq = 4", lanes=["p = 3"])
        found = told_of(document)
        self.assertIn("contradict", found.groups[0].troubles[0].words)
        waits = sheet("p + q = 10", lanes=["k = 1"])
        waits = apply(waits, AddLane(text="q = nowhere + 1", id="q", keep=True))
        self.assertIn("waits for nowhere", told_of(waits).groups[0].troubles[0].words)

    def test_lines_and_columns_that_cannot_be_read_stay_and_the_rest_is_answered(self):
        document = sheet("p = 3\np + = 4\nq = p + 1\nr = 2 metre s")
        found = told_of(document)
        self.assertEqual([line.number for line in found.lines if line.wrong], [2])
        self.assertEqual(rows_of(document)["q"], ["4"])

    def test_letters_of_the_axes_are_no_names_of_the_sheet(self):
        document = sheet("x + y = 7\nx - y = 1", lanes=["f(x) = x^2"])
        self.assertEqual(rows_of(document), {"x": ["4"], "y": ["3"]})
        self.assertIn("letter of an axis", told_of(document).groups[0].rows[0].note)
        self.assertEqual(height(document, "f", 3.0), 9.0)

    def test_functions_of_the_sheet_stand_in_equations(self):
        document = sheet("f(u) = 12\nw = f(2)", lanes=["f(x) = 3x"])
        self.assertEqual(rows_of(document), {"u": ["4"], "w": ["6"]})
        curved = sheet("f(u) = 2\nw = f'(1)", lanes=["f(x) = x^2 for x > 0"])
        self.assertEqual(rows_of(curved)["u"], ["√2"])

    def test_degrees_and_radians(self):
        document = sheet("sin(a) = 1/2; b = cos(60°)")
        block = Block(text="sin(a) = 1/2", unknowns=(Unknown(name="a", low="0", high="90"),))
        document = apply(document, SetBlock(id="block1", block=block))
        degrees = document.model_copy(update={"unit": AngleUnit.DEGREE})
        self.assertEqual(rows_of(degrees)["a"], ["30"])

    def test_copies(self):
        found = told_of(sheet("rope = load/4\nload = mass g\nmass = 850 kg"))
        self.assertIn(r"\begin{aligned} \mathrm{rope} &= \frac{\mathrm{load}}{4}", found.latex)
        self.assertIn(r"8.336\,\mathrm{kN}", found.latex)
        self.assertIn("load = 8.336 kN", found.text)

    def test_digits_of_the_sheet_are_the_most(self):
        found = rows_of(sheet("load = mass g\nmass = 850.12345 kg"))
        self.assertEqual(found["load"], ["8.33686 kN"])


class Edits(Case):
    def test_what_is_no_change_of_a_block_is_refused(self):
        document = sheet("p = 3")
        for edit in (
            DuplicateLane(id="block1"),
            MoveWork(id="block1", working=False),
            ReviseLane(id="block1", text="p = 4"),
        ):
            with self.assertRaises(EditRefused):
                apply(document, edit)
        lane = apply(document, AddLane(text="k = 1", id="k"))
        with self.assertRaises(EditRefused):
            apply(lane, SetBlock(id="k", block=Block(text="p = 3")))
        self.assertEqual(apply(document, RemoveLane(id="block1")).lanes, ())

    def test_blocks_have_a_limit(self):
        document = sheet(*("p = 3" for _ in range(12)))
        with self.assertRaisesRegex(EditRefused, "12 blocks"):
            apply(document, AddBlock(text="q = 1"))

    def test_a_name_of_the_sheet_is_renamed_in_blocks(self):
        document = sheet("depth = 3 + kk u\nu = kk - 1", lanes=["kk = 2"])
        renamed = apply(document, ReviseLane(id="k", text="rate = 2"))
        self.assertEqual(
            resolve(renamed).lane("block1").lane.block.text, "depth = 3 + rate u\nu = rate - 1"
        )
        self.assertEqual(rows_of(renamed)["depth"], ["5"])


class Runs(Case):
    def run_of(self, document, name, low, high, count="3", number=1):
        lane = resolve(document).lane(f"block{number}")
        return run_table(document, lane, Run(name=name, low=low, high=high, count=count))

    def test_a_given_name_a_slider_and_a_loose_name_run(self):
        document = sheet(CRANE, lanes=["m_0 = 850"])
        table = self.run_of(document, "m_0", "100", "1000", "4")
        self.assertEqual(table.heads, ("m_0", "load (kN)", "mass (kg)", "rope (kN)"))
        self.assertEqual(table.rows[3], ("1000", "9.80665", "1000", "2.45166"))
        table = self.run_of(document, "mass", "100 kg", "300 kg")
        self.assertEqual([row[0] for row in table.rows], ["100", "200", "300"])
        loose = sheet("area = a b\na = 2")
        table = self.run_of(loose, "b", "1", "2")
        self.assertEqual([row[2] for row in table.rows], ["2", "3", "4"])
        self.assertEqual(table.copied.split("\n")[0], "b\ta\tarea")

    def test_rows_without_a_solution_say_so(self):
        document = sheet("u^2 = k\nw = u + 1\nk = 4")
        table = self.run_of(document, "k", "-1", "1")
        self.assertEqual(table.rows[0][1:], ("—", "—"))
        self.assertIn("no u solves", table.why[0])
        self.assertEqual(table.rows[2][1:], ("−1", "0"))

    def test_what_cannot_run_is_refused(self):
        document = sheet("depth = 3 + 2u; draught = u^2; depth = draught; k = 2")
        for name, low, high, count, words in (
            ("u", "1", "2", "3", "cannot run"),
            ("k", "", "2", "3", "Type where"),
            ("k", "1", "2", "many", "whole number"),
            ("k", "1", "2", "1000", "from 2 to 200"),
            ("k", "1 +", "2", "3", "missing after"),
            ("k", "1 kg", "2 m", "3", "same unit"),
        ):
            with self.assertRaisesRegex(EditRefused, words):
                self.run_of(document, name, low, high, count)


class Memory(Case):
    def test_two_orders_and_many_threads_find_the_same(self):
        texts = [f"p + q = {k}\np - q = 2\nr = √(p)" for k in range(12)]
        documents = [sheet(text) for text in texts]
        alone = [rows_of(one) for one in documents]
        self.assertEqual([rows_of(one) for one in reversed(documents)], alone[::-1])
        found = {}

        def work(k):
            found[k] = rows_of(sheet(texts[k]))

        threads = [threading.Thread(target=work, args=(k,)) for k in (*range(12), *range(12))]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        self.assertEqual([found[k] for k in range(12)], alone)

    def test_the_same_equations_under_other_values(self):
        first = sheet("p = 2k", lanes=["k = 1"])
        second = sheet("p = 2k", lanes=["k = 5"])
        self.assertEqual([rows_of(first)["p"], rows_of(second)["p"]], [["2"], ["10"]])
        self.assertEqual([rows_of(second)["p"], rows_of(first)["p"]], [["10"], ["2"]])


class Stored(Case):
    def test_a_document_comes_back_as_it_was(self):
        block = Block(
            text="p = 3",
            unknowns=(Unknown(name="p", low="0", unit="kN"),),
            letters=(("g", "name"),),
            chosen=(("p", 1),),
            run=Run(name="p", low="1", high="2", count="5"),
        )
        document = Document(lanes=(Lane(id="b", text="", block=block, working=True),))
        self.assertEqual(Document.model_validate_json(document.model_dump_json()), document)
        with self.assertRaises(ValueError):
            Block(text="", unknowns=(Unknown(name="p"), Unknown(name="p")))
