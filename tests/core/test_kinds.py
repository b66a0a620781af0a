"""Every kind of lane through every register, and every edit through what it does and says."""

import unittest
from typing import get_args

import numpy as np

from axispath.core.path.framing import frame
from axispath.core.path.kinds import FRAMED, SEARCHED, VALUED
from axispath.core.path.survey import survey
from axispath.core.sampling.kinds import DRAWN, drawn
from axispath.core.sampling.view import Frame
from axispath.core.search.landmark import (
    CURVE_GROUPS,
    GROUP_OF,
    GROUPS,
    MAP_GROUPS,
    POLAR_GROUPS,
    REGION_GROUPS,
    RELATION_GROUPS,
    Kind,
)
from axispath.core.sheet import edits
from axispath.core.sheet.block import Block
from axispath.core.sheet.document import (
    Document,
    Equation,
    Samples,
    Slider,
    Style,
    Table,
    Ticks,
    View,
    Written,
)
from axispath.core.sheet.edits import EDITS, AddLane, DrawLevel, ReviseLane, apply
from axispath.core.sheet.edits.change import Change
from axispath.core.sheet.groups import MarkGroup
from axispath.core.sheet.kinds import KINDS
from axispath.core.sheet.practice import Cover, Question
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.turning import TURNED
from axispath.core.table.kinds import DESCRIBED, MOVING, OVER_SLIDER, OVER_X, READ
from tests.case import Case

# A line of each kind, by the kind's key.
LINES = {
    "function": "x^2 - 3",
    "wrong": "x^2 + (3",
    "waiting": "q x + 1",
    "several": "m(u, v) = u v",
    "point": "P = (1, 2)",
    "parametric": "(2cos t, sin t)",
    "polar": "r = 1 + cos(θ)",
    "number": "a = 1.5",
    "list": "L = [1, 2, 5]",
    "value": "2π/3",
    "relation": "x y = 2",
    "region": "y < x",
    "map": "h(x, y) = x^2 + y^2",
    "data": "log",
    "calculated": "A_1 = [1, 2; 3, 4]",
    "resting": "7/3",
    "equations": "rope = load/4; load = 12",
}
ON_WORKING = ("calculated", "resting")
# What is read of each kind at x = 2.
READ_AT_2 = {"function": "1", "relation": "1", "region": "y below 2"}
# A landmark that a sampling sees of each kind that is searched.
SEEN = {
    "function": [(-(3**0.5), 0.0)],
    "parametric": [(0.0, 1.0)],
    "polar": [(-0.25, 3**0.5 / 4)],
}
FRAME = Frame(-5, 5, -4, 4, 400, 300)
REGISTERS = {
    "drawn": DRAWN,
    "searched": SEARCHED,
    "framed": FRAMED,
    "valued": VALUED,
    "read": READ,
    "described": DESCRIBED,
    "turned": TURNED,
    "moving": MOVING,
    "over x": OVER_X,
    "over a slider": OVER_SLIDER,
}


DATA = "hours\tdepth\n0\t1\n1\t2.9\n2\t5.2\n3\t7.1\n"


def whole():
    document = Document()
    for key, line in LINES.items():
        if key == "data":
            edit = edits.AddData(text=DATA, name=line, id=key)
        elif key == "equations":
            edit = edits.AddBlock(text=line, id=key)
        elif key in ON_WORKING:
            edit = edits.AddWork(text=line, id=key)
        else:
            edit = AddLane(text=line, id=key, keep=True)
        document = apply(document, edit)
    return apply(document, edits.SetWritten(id="resting", written=Written(rests=True)))


class EveryKind(Case):
    def test_each_has_a_line_and_is_recognised(self):
        self.assertEqual(set(LINES), {kind.key for kind in KINDS})
        for lane in resolve(whole()):
            self.assertEqual(lane.kind.key, lane.lane.id)

    def test_registers_hold_known_kinds_only(self):
        for name, register in REGISTERS.items():
            self.assertLessEqual(set(register), set(LINES), name)

    def test_what_has_an_entry_works_and_what_has_none_is_left_alone(self):
        document = whole()
        sheet = resolve(document)
        for lane in sheet:
            key = lane.kind.key
            with self.subTest(key):
                if key in DRAWN:
                    shapes = drawn(document, lane, FRAME)
                    self.assertTrue(all(len(shape.rows) for shape in shapes) and shapes)
                if key in SEARCHED:
                    search = SEARCHED[key]
                    quick = search.quick(lane, View(left=-5, right=5), None)
                    places = [(mark.x, mark.y) for mark in quick.landmarks]
                    for x, y in SEEN.get(key, ()):
                        self.assertTrue(any(abs(a - x) + abs(b - y) < 1e-4 for a, b in places))
                    self.assertTrue(places or not quick.complete)
                if key in FRAMED:
                    left, right, bottom, top = FRAMED[key](lane, True)
                    self.assertTrue(left < right and bottom < top)
                if key in READ:
                    self.assertEqual(READ[key](document, lane, 2.0).shown, READ_AT_2[key])
                if key in DESCRIBED:
                    paths = {found.lane.id: path for found, path in survey(document).lanes}
                    words = DESCRIBED[key].words(lane, paths.get(lane.lane.id), document)
                    self.assertTrue(words.startswith(f"{lane.name} ") and words.endswith("."))
                for usual in (OVER_X, OVER_SLIDER):
                    if key in usual:
                        self.assertTrue(usual[key](lane).startswith(lane.name))
                self.assertTrue(lane.kind.called)
                if lane.statement:
                    self.assertTrue(lane.kind.signature(lane).startswith(lane.name))
        self.assertEqual(
            [lane.lane.id for lane in sheet.shown(DRAWN)],
            ["function", "point", "parametric", "polar", "relation", "region", "map", "data"],
        )
        self.assertIsNotNone(frame(sheet.shown(FRAMED)))

    def test_groups_of_marks_are_those_that_can_be_left_out(self):
        known = (GROUPS, POLAR_GROUPS, CURVE_GROUPS, RELATION_GROUPS, REGION_GROUPS, MAP_GROUPS)
        groups = {group for groups in known for group in groups} - {"y-intercept"}
        self.assertEqual(groups, set(get_args(MarkGroup)))
        self.assertEqual(set(GROUP_OF), set(Kind))


class Values(Case):
    def test_a_line_without_a_variable_is_a_value_and_takes_no_colour(self):
        document = Document()
        for line in ("sin(52°)", "2π/3", "3", "[1, 2]", "x^2", "2 x"):
            document = apply(document, AddLane(text=line))
        found = resolve(document)
        self.assertEqual(
            [(lane.name, lane.kind.key) for lane in found],
            [
                ("v_1", "value"),
                ("v_2", "value"),
                ("v_3", "number"),
                ("v_4", "list"),
                ("f", "function"),
                ("g", "function"),
            ],
        )
        # The two curves have the first two colours, whatever stands before them.
        self.assertEqual([lane.lane.colour for lane in found.lanes[-2:]], [0, 1])

    def test_y_equals_draws_a_level_line(self):
        (lane,) = resolve(apply(Document(), AddLane(text="y = 2"))).lanes
        self.assertEqual(lane.kind.key, "function")

    def test_a_sheet_stored_before_values_were_keeps_its_level_lines(self):
        stored = {"lanes": [{"id": "l", "text": "3", "name": "f"}, {"id": "m", "text": "f(2)x"}]}
        lanes = resolve(Document.model_validate(stored)).lanes
        self.assertEqual([lane.kind.key for lane in lanes], ["function", "function"])

    def test_a_value_is_drawn_as_a_level_line_that_follows_it(self):
        document = apply(Document(), AddLane(text="2 + 1/2", id="v"))
        document = apply(document, DrawLevel(id="v"))
        document = apply(document, ReviseLane(id="v", text="7/2"))
        level = resolve(document).lanes[1]
        self.assertEqual((level.kind.key, float(level.floats(np.zeros(1))[0])), ("function", 3.5))
        with self.assertRaisesRegex(EditRefused, "Only a value"):
            apply(document, DrawLevel(id=level.lane.id))

    def test_a_value_that_becomes_a_function_takes_the_next_letter_and_a_free_colour(self):
        document = apply(Document(), AddLane(text="x", id="f"))
        document = apply(document, AddLane(text="5/2", id="v"))
        document = apply(document, ReviseLane(id="v", text="x + 5/2"))
        found = resolve(document).lanes[1]
        self.assertEqual((found.name, found.lane.colour), ("g", 1))


class EveryEdit(Case):
    """Each edit, tried on a sheet that has something of everything."""

    def edits(self):
        yield edits.AddLane(text="x^3"), "adding a lane"
        yield edits.AddLines(text="x^3\n2x"), "adding 2 lanes"
        yield edits.ReviseLane(id="function", text="x^2 - 4"), "changing f"
        yield edits.RemoveLane(id="number"), "deleting a"
        yield edits.ShowLane(id="function", shown=False), "hiding f"
        yield edits.SetDomain(id="function", low="0"), "the domain of f"
        yield edits.Slide(id="number", value=2.5), "sliding a"
        yield edits.SetSlider(id="number", slider=Slider(kind="whole")), "the slider a"
        yield edits.MoveLane(id="number", to=0), "moving a"
        yield edits.DuplicateLane(id="function"), "duplicating f"
        yield edits.DrawLevel(id="value"), "drawing v_1 as a level line"
        yield edits.MovePoint(id="point", x=0, y=0.5), "moving P"
        yield edits.GatherPoints(ids=("point",)), "making a list of points"
        yield edits.PointsToData(ids=("point",)), "making data of points"
        yield edits.MoveAlong(id="parametric", x=2, y=1), "moving along A"
        yield edits.LetRun(id="point", letter=""), "keeping a point in P"
        yield edits.SetColour(id="function", colour=5), "the colour of f"
        yield edits.SetNote(id="function", note="the depth"), "the note on f"
        yield edits.SetStyle(id="function", style=Style(thickness="thick")), "the style of f"
        yield edits.SolveFor(id="relation"), "solving R for y"
        yield edits.SetLevels(id="map", levels="0, 1, 4"), "the levels of h"
        yield edits.SetSamples(id="function", samples=Samples(by="count")), "the samples of f"
        yield edits.FoldLane(id="function", folded=True), "folding f"
        ground = whole().ground.model_copy(update={"without": ("zeros",)})
        yield edits.SetGround(ground=ground), "the marks on the plot"
        yield edits.SetUnit(unit="deg"), "the angle unit"
        yield edits.Rename(name="Tides"), "the sheet’s name"
        yield edits.SetTable(table=Table(step="1/2")), "the table"
        yield edits.RemoveTable(id="table1"), "deleting a table"
        yield edits.KeepEquation(equation=Equation(text="x = 2")), "solving x = 2"
        yield edits.AddWork(text="2 + 3"), "a line of working"
        yield edits.MoveWork(id="value", working=True), "sending v_1 to Working"
        yield edits.SetNotation(notation="scientific", digits=4), "how numbers are written"
        how = Written(form="mixed")
        yield edits.SetWritten(id="calculated", written=how), "how A_1 is written"
        yield edits.SetSystem(text="x + y = 2"), "the linear system"
        yield edits.AddBlock(text="a_2 = 3"), "a block of equations"
        block = Block(text="rope = load/5; load = 12")
        yield edits.SetBlock(id="equations", block=block), "changing equations"
        yield edits.AddData(text="1 2\n3 4"), "adding a data set"
        yield edits.NameData(id="data", name="engine"), "naming log"
        yield edits.SetCells(id="data", row=1, column=0, block=(("1,5",),)), "a cell of log"
        yield edits.MoveRow(id="data", row=1, x=1, y=3), "moving a point of log"
        yield edits.SetRows(id="data", act="leave out", row=1), "leaving out a row of log"
        yield edits.SetColumn(id="data", index=2, formula="2 depth"), "a column of log"
        yield edits.RemoveColumn(id="data", index=1), "deleting a column of log"
        yield edits.ArrangeRows(id="data", how="falling", column="depth"), "sorting log"
        yield edits.DrawData(id="data", look="histogram"), "how log is drawn"
        yield edits.AddFit(data="data", x="hours", y="depth"), "fitting a curve"
        yield edits.SetFit(id="line", parameter="a", held="0"), "the fit fit"
        yield edits.ForgetEquation(text="x = 1"), "forgetting an equation"
        yield edits.SetCover(cover=Cover(on=True)), "covering landmarks"
        yield edits.SetQuestion(question=Question(kind="words", words="Why?")), "a question"
        yield edits.RemoveQuestion(id="q1"), "deleting a question"
        yield edits.MoveQuestion(id="q1", by=1), "the order of the questions"

    def test_each_is_applied_says_what_it_does_and_travels_as_json(self):
        before = apply(whole(), edits.KeepEquation(equation=Equation(text="x = 1")))
        before = apply(before, edits.SetTable(table=Table(start="-1")))
        before = apply(before, edits.AddFit(data="data", x="hours", y="depth", id="line"))
        for words in ("Where?", "When?"):
            question = Question(kind="words", words=words)
            before = apply(before, edits.SetQuestion(question=question))
        tried = set()
        for edit, words in self.edits():
            with self.subTest(edit.do):
                tried.add(type(edit))
                self.assertIsInstance(edit, Change)
                self.assertEqual(edit.words(before), words)
                after = edit.applied(before)
                self.assertNotEqual(after, before)
                # Undo goes back to a document that was not touched.
                self.assertEqual(Document.model_validate(before.model_dump()), before)
                again = EDITS.validate_json(f"[{edit.model_dump_json()}]")
                self.assertEqual(again, [edit])
        self.assertEqual(tried, set(get_args(edits.Edit)))


class NewNames(Case):
    def test_a_new_name_reaches_everything_that_was_typed(self):
        document = Document()
        for line, key in (("d = 2", "d"), ("f(x) = d x", "f"), ("s = 1", "s")):
            document = apply(document, AddLane(text=line, id=key))
        ground = document.ground.model_copy(
            update={
                "x_ticks": Ticks(kind="step", step="d/4"),
                "title": "Depth $f(x) = d x$ of d",
            }
        )
        table = Table(start="-d", stop="d", columns=("f(x) + d",), places="0, d; 2d")
        for edit in (
            edits.SetSlider(id="s", slider=Slider(low="-d", high="3d", step="d/10")),
            edits.SetSamples(id="f", samples=Samples(by="step", amount="d/8")),
            edits.SetGround(ground=ground),
            edits.SetTable(table=table),
            edits.KeepEquation(equation=Equation(text="f(x) = d + 1", low="-d", high="2d")),
            ReviseLane(id="d", text="depth = 2"),
        ):
            document = apply(document, edit)
        lanes = {lane.id: lane for lane in document.lanes}
        self.assertEqual(lanes["f"].text, "f(x) = depth x")
        slider = lanes["s"].slider
        self.assertEqual((slider.low, slider.high, slider.step), ("-depth", "3 depth", "depth/10"))
        self.assertEqual(lanes["f"].samples.amount, "depth/8")
        self.assertEqual(document.ground.x_ticks.step, "depth/4")
        self.assertEqual(document.ground.title, "Depth $f(x) = depth x$ of d")
        (table,) = document.tables
        self.assertEqual((table.start, table.stop), ("-depth", "depth"))
        self.assertEqual((table.columns, table.places), (("f(x) + depth",), "0, depth; 2 depth"))
        (equation,) = document.equations
        self.assertEqual(
            (equation.text, equation.low, equation.high),
            ("f(x) = depth + 1", "-depth", "2 depth"),
        )


if __name__ == "__main__":
    unittest.main()
