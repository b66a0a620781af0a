"""A sheet in many states of its sliders: each is drawn and searched as if it were alone."""

import itertools
import random

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from axispath.core.arithmetic.patience import Patience
from axispath.core.path.lanes import USUAL
from axispath.core.path.moving import Moving
from axispath.core.path.survey import survey
from axispath.core.sampling.kinds import DRAWN, drawn
from axispath.core.sampling.states import pictures
from axispath.core.sampling.thinned import PASSES, STRAIGHT, thinned
from axispath.core.sampling.view import Frame
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import AddLane, Slide, apply
from axispath.core.sheet.states import States, as_written
from tests.case import Case
from tests.core.helpers import Clock
from tests.core.test_kinds import LINES as KINDS

FRAME = Frame(-10, 10, -7, 7, 450, 300)
PATIENCE = Patience(1e9, Clock())
# Lines with a slider a, each with what may go wrong with it.
LINES = (
    "a x^2 - x - 3",
    "x/(3a - 0.3)",  # no value at a = 0.1, whatever floats say
    "1/(x - a)",  # a pole that moves
    "√(x + a)",
    "ln(a x)",
    "tan(a x)",
    "|x - a| + a",
    "floor(a x)",
    "x^a",  # another formula where a is whole
    "(x - a)^2 for -1 <= x <= a",  # a domain that moves
    "a sin(1/x)",
    "a sin(40 x)",  # denser than pixels
    "x^2 if x < a, 3 - x otherwise",
    "max(x, a - x^2)",
    "a",
    "2x + 1",  # does not move at all
    "sum(a x^k/k! for k = 0 to 4)",
    "arctan(20 (x - a))",
    "mod(x, a)",
    "f(x - a)",
)
SMOOTH = (
    "a x^2 - x - 3",
    "2 a sin(3x)",
    "a e^(-x^2/4) - 1/2",
    "x^3/20 - a x",
    "a ln(x^2 + 1) cos(2x)",
    "x^4 - a x^2 + 1",
    "sin(x) + a cos(2x)",
    "a - x",
)


def sheet(*lines):
    document = apply(Document(), AddLane(text="a = 1", id="a"))
    document = apply(document, AddLane(text="f(x) = a x^3 - x"))
    for line in lines:
        document = apply(document, AddLane(text=line))
    return document


def slides(values):
    return [[Slide(id="a", value=value)] for value in values]


def shapes_of(drawing):
    return [(shape.name, shape.looks(), shape.rows.tolist()) for shape in drawing]


def seen(document, values):
    """The shapes of each lane in each state, looked at together."""
    states = States(document, slides(values))
    found = pictures(states, FRAME, PATIENCE, 1e9, 1e9)
    still = {lane: repr(shapes_of(shapes)) for lane, shapes in found.still.drawings}
    return [
        {**still, **{lane: repr(shapes_of(shapes)) for lane, shapes in picture.drawings}}
        for picture in found.moving
    ]


def alone(document, value):
    """The shapes of each lane, of the sheet in this state alone."""
    states = States(document, slides([value]))
    now = states.in_state(0)
    lanes = states.sheet_in(0).shown(DRAWN)
    return {lane.lane.id: repr(shapes_of(drawn(now, lane, FRAME))) for lane in lanes}


class Pictures(Case):
    def test_each_state_looks_as_it_does_by_itself(self):
        values = (0.1, 1, -2.5, 3, 0, 2.75)
        for line in LINES:
            document = sheet(line)
            together = seen(document, values)
            self.assertEqual(len(together), len(values))
            for value, picture in zip(values, together, strict=True):
                with self.subTest(line, a=value):
                    self.assertEqual(picture, alone(document, value))

    def test_no_picture_depends_on_what_else_is_looked_at(self):
        document = sheet(*LINES[:6])
        values = [0.5, 2, -1, 4]
        first = seen(document, values)
        back = seen(document, values[::-1])[::-1]
        single = [seen(document, [value])[0] for value in values]
        self.assertEqual(first, back)
        self.assertEqual(first, single)

    @settings(max_examples=60, deadline=None)
    @given(
        st.sampled_from(LINES),
        st.lists(st.integers(-300, 300).map(lambda n: n / 60), min_size=1, max_size=3),
    )
    def test_any_values(self, line, values):
        document = sheet(line)
        for value, picture in zip(values, seen(document, values), strict=True):
            self.assertEqual(picture, alone(document, value))

    def test_points_and_curves_move_too(self):
        document = sheet("(a, f(a))", "(cos(a t), sin t) for 0 <= t <= 6", "x^2 + y^2 = a")
        for value, picture in zip((1, 2), seen(document, (1, 2)), strict=True):
            self.assertEqual(picture, alone(document, value))

    def test_a_slow_lane_leaves_the_first_state(self):
        slow = Patience(2.0, Clock())
        states = States(sheet("(a, a)"), slides([1, 2, 3]))
        found = pictures(states, FRAME, slow, 2.0, 0.0)
        self.assertEqual(len(found.moving), 1)

    def test_numbers_are_those_that_the_line_holds(self):
        for value in (0.1, -3, 1 / 3, 1e-9, 12345.678901234):
            document = apply(sheet(), Slide(id="a", value=value))
            lane = States(document, slides([value])).sheet.lane("a")
            self.assertEqual(float(as_written(value)), lane.value)


class Thinned(Case):
    @settings(max_examples=200, deadline=None)
    @given(st.integers(0, 10**9))
    def test_what_is_left_out_lies_on_the_line(self, seed):
        chance = random.Random(seed)
        count = chance.randrange(2, 90)
        x = np.cumsum([chance.random() + 0.2 for _ in range(count)])
        bend = chance.choice((0, 0.001, 0.01, 1))
        y = 150 + np.cumsum([bend * (chance.random() - 0.5) for _ in range(count)])
        broken = np.array([chance.random() < 0.05 for _ in range(count)])
        broken[-1] = True
        kept = thinned(x, y, broken, 300)
        self.assertTrue({0, count - 1, *np.flatnonzero(broken)} <= set(kept.tolist()))
        for start, stop in itertools.pairwise(kept):
            line = np.interp(x[start:stop], x[[start, stop]], y[[start, stop]])
            if not broken[start:stop].any():
                self.assertLessEqual(np.abs(line - y[start:stop]).max(), 2 * PASSES * STRAIGHT)


class Landmarks(Case):
    """What is marked while something moves, against a search from nothing."""

    def both(self, lines, values):
        document = sheet(*lines)
        view = View(left=-8, right=8, bottom=-7, top=7)
        document = document.model_copy(update={"view": view})
        states = States(document, slides(values))
        moving = Moving(states, view, USUAL, PATIENCE).surveys()
        for k, found in enumerate(moving):
            yield values[k], found, survey(states.in_state(k))

    def test_they_are_what_a_search_from_nothing_finds(self):
        kinds = (Kind.ZERO, Kind.MAXIMUM, Kind.MINIMUM, Kind.INFLECTION, Kind.Y_INTERCEPT)
        for value, found, searched in self.both(SMOOTH, (0.7, 1.3, -0.9, 2.2)):
            for (lane, path), (_, whole) in zip(found.lanes, searched.lanes, strict=True):
                with self.subTest(lane.lane.text, a=value):
                    ours = [(m.kind, round(m.x, 8), round(m.y, 8)) for m in path.of(*kinds)]
                    theirs = [(m.kind, round(m.x, 8), round(m.y, 8)) for m in whole.of(*kinds)]
                    self.assertEqual(ours, theirs)
            ours = sorted(round(m.x, 8) for c in found.crossings for m in c.path.landmarks)
            theirs = sorted(round(m.x, 8) for c in searched.crossings for m in c.path.landmarks)
            self.assertEqual(ours, theirs)

    def test_every_kind_and_pair_of_kinds_is_looked_at_while_a_slider_moves(self):
        turned = ["a x y", "y = a x", "(a, a)", "r = a", "m(x, y) = a x y", "y < a x"]
        lines = [line for line in KINDS.values() if line != "a = 1.5"]
        pairs = [*((line, "x^2 - a") for line in lines), *itertools.product(turned, lines[:12:3])]
        for pair in pairs:
            with self.subTest(pair):
                document = apply(Document(), AddLane(text="a = 1", id="a"))
                for k, line in enumerate(pair):
                    document = apply(document, AddLane(text=line, id=f"l{k}", keep=True))
                states = States(document, [[Slide(id="a", value=v)] for v in (2.0, 3.0)])
                found = list(Moving(states, View(), USUAL, PATIENCE).surveys())
                self.assertEqual(len(found), 2)

    def test_what_stands_still_is_found_while_something_moves(self):
        document = apply(Document(), AddLane(text="a = 1", id="a"))
        for k, line in enumerate(("h(x, y) = x^2 + y^2 - 3", "(2cos t, sin t)", "a x")):
            document = apply(document, AddLane(text=line, id=f"l{k}", keep=True))
        states = States(document, [[Slide(id="a", value=2.0)]])
        (found,) = Moving(states, View(), USUAL, PATIENCE).surveys()
        still = {lane.lane.id: path for lane, path in found.lanes}
        for lane, path in survey(document).lanes:
            if lane.lane.id in ("l0", "l1"):
                places = [(mark.kind, mark.x, mark.y) for mark in path.landmarks]
                self.assertTrue(places)
                self.assertEqual(
                    [(mark.kind, mark.x, mark.y) for mark in still[lane.lane.id].landmarks], places
                )

    def test_none_is_wrong_where_a_formula_breaks(self):
        lines = ("1/(x - a)", "|x - a| - 1", "√(x + a) - 1", "tan(a x)", "x^a", "floor(a x)")
        for value, found, searched in self.both(lines, (1, 1.5, 2)):
            for (lane, path), (_, whole) in zip(found.lanes, searched.lanes, strict=True):
                if path is None or not path.proven:
                    continue
                there = {(mark.kind, round(mark.x, 7)) for mark in whole.landmarks}
                for mark in path.landmarks:
                    with self.subTest(lane.lane.text, a=value):
                        self.assertIn((mark.kind, round(mark.x, 7)), there)

    @settings(max_examples=40, deadline=None)
    @given(st.sampled_from(SMOOTH), st.integers(-240, 240).map(lambda n: n / 80))
    def test_every_place_is_proved(self, line, value):
        for _, found, searched in self.both([line], [value]):
            for (_, path), (_, whole) in zip(found.lanes, searched.lanes, strict=True):
                for mark in path.landmarks:
                    near = [m for m in whole.of(mark.kind) if abs(m.x - mark.x) < 1e-7]
                    self.assertTrue(near, mark)
                    self.assertLessEqual(abs(near[0].x - mark.x), mark.radius + near[0].radius)
