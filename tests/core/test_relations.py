"""Relations and regions: pictures, landmarks, corners and conics against values from elsewhere."""

import itertools
import math
import random

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as some

from axispath.core import catalogue
from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import SOMEWHERE, THROUGHOUT, between
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import bound_to_floats
from axispath.core.arithmetic.fraction import fraction
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.plain import plain_statement
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.path.kinds import FRAMED, SEARCHED
from axispath.core.path.lanes import Effort
from axispath.core.path.survey import survey
from axispath.core.plane.picture import curve_drawn, shaded
from axispath.core.plane.relation import relation_of
from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.primitives import Dots, Patch, Stroke
from axispath.core.search.landmark import Certainty, Kind
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, ReviseLane, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.kinds import DESCRIBED, READ
from tests.case import Case
from tests.core.planes import FRAME, VIEW, lane_of, met, path_of, places, sheet, sheet_with

PLANE = Scope(catalogue.VOCABULARY, {}, frozenset("xy"), {}, frozenset(), frozenset())


class Lines(Case):
    def test_what_is_a_relation_and_what_is_not(self):
        for line, kind in (
            ("x^2 + y^2 = 20", "relation"),
            ("x = 4", "relation"),
            ("y = 2x + 1", "function"),
            ("y = x y + 1", "relation"),
            ("sin(x y) = cos x", "relation"),
            ("|x| + |y| = 3", "relation"),
            ("x = y^2", "relation"),
            ("2y - x < 3", "region"),
            ("1 <= x^2 + y^2 < 9", "region"),
            ("y > x^2 and y < 3 or x > 5", "region"),
            ("y^2 = x for x <= 4 and y > 0", "relation"),
            ("f(x) = x^2 if x < 0, x otherwise", "function"),
            ("a = 2", "number"),
        ):
            with self.subTest(line):
                lane = lane_of(line)
                self.assertIsNone(lane.error)
                self.assertEqual(lane.kind.key, kind)

    def test_what_cannot_be_drawn_is_told(self):
        for line, told in (
            ("x = 1 = 2", "one equals sign"),
            ("1 < x > 3", "one direction"),
            ("x^2 + y^2 = 1 or x = 2", "its own lane"),
            ("x^2 + y^2 = 1 for x = 2", "inequalities"),
            ("x + y = 1 for", "domain is missing"),
            ("y > 1 and", "missing"),
        ):
            with self.subTest(line), self.assertRaisesRegex(EditRefused, told):
                sheet(line)
        # Two equations that hold at once are a block.
        self.assertEqual(lane_of("x^2 + y^2 = 1 and x = 2").kind.key, "equations")

    def test_they_are_written_as_they_are_read(self):
        for line in ("x^2 + y^2 = 20", "1 <= x^2 + y^2 < 9 and y > x or x > 5", "x = y for x > 0"):
            lane = lane_of(line)
            self.assertEqual(plain_statement(lane.statement, catalogue.VOCABULARY), line)

    def test_they_are_named_in_others(self):
        document = sheet("a = 3", "2x + 3y >= 6", "x^2 + y^2 < a^2", "R and S", "T or y > 5")
        both, more = resolve(document).lanes[-2:]
        self.assertEqual(plain_statement(both.statement, catalogue.VOCABULARY), "R and S")
        self.assertEqual((both.kind.key, len(both.programs), len(more.programs)), ("region", 2, 3))
        relation = relation_of(both)
        for x, y, wanted in ((0, 2.5, True), (0, 1, False), (4, 4, False)):
            self.assertEqual(relation.holds_at(x, y), wanted)
        document = apply(document, ReviseLane(id=document.lanes[0].id, text="b = 3"))
        self.assertEqual(
            [lane.text for lane in document.lanes[2:4]], ["x^2 + y^2 < b^2", "R and S"]
        )

    def test_circles_and_towers_of_names_are_told(self):
        document = sheet("x > 1", "R and y > 0")
        with self.assertRaisesRegex(EditRefused, "S is not understood"):
            apply(document, ReviseLane(id=document.lanes[0].id, text="S and x > 1"))
        with self.assertRaisesRegex(EditRefused, "Q is no relation .* those are R, S"):
            apply(document, AddLane(text="R and Q"))
        with self.assertRaisesRegex(EditRefused, "within one another"):
            for k in range(12):
                name = resolve(document).lanes[-1].name
                document = apply(document, AddLane(text=f"{name} and x > {k}"))

    def test_each_has_a_name_of_its_own_that_nothing_can_use(self):
        document = sheet("x = 4", "y < x", "x = y^2")
        self.assertEqual([lane.name for lane in resolve(document)], ["R", "S", "T"])
        self.assertEqual(lane_of("x^2 + y^2 = R", "x = 4").missing, ("R",))

    def test_a_slider_in_it_and_a_name_that_waits(self):
        self.assertEqual(lane_of("x^2 + y^2 = a").missing, ("a",))
        document = sheet("a = 2", "x^2 + y^2 = a^2")
        self.assertEqual(places(path_in(document), Kind.UPRIGHT), [(-2, 0), (2, 0)])


def path_in(document):
    lane = resolve(document).lanes[-1]
    return SEARCHED[lane.kind.key].path(lane, VIEW, Effort(), 1, None)


FORMULAS = (
    "x^2 + y^2",
    "sin(x y) - cos x",
    "x/(y + 2) - 1",
    "√(x + y)",
    "ln(x y)",
    "e^(x - y) - x^3",
    "|x - y| + arctan(x)",
    "x^(y/2)",
    "tan(x) - y",
    "cbrt(x) y - 2",
    "floor(x) + y",
    "min(x, y) - max(x, 1)",
    "erf(x) y",
    "arcsin(x/4) + y^5",
    "1 if x < y, x y otherwise",
)


class Boxes(Case):
    """Interval arithmetic on arrays against single values, and those against mpmath elsewhere."""

    @given(
        some.sampled_from(FORMULAS),
        some.tuples(*[some.floats(-5, 5)] * 2),
        some.tuples(*[some.floats(0, 2)] * 2),
        some.tuples(*[some.floats(0, 1)] * 2),
        some.sampled_from(AngleUnit),
    )
    @settings(max_examples=400, deadline=None)
    def test_every_value_lies_in_the_box(self, formula, corner, size, share, unit):
        plan = program(parse_expression(formula, PLANE), ("x", "y"))
        low, wide = np.array(corner), np.array(size)
        sides = [between(low[k : k + 1], low[k : k + 1] + wide[k]) for k in (0, 1)]
        found = box_function(plan, unit)(*sides)
        at = low + wide * np.array(share)
        with np.errstate(all="ignore"):
            value = float(bound_to_floats(plan, unit).run(*at))
        if math.isnan(value):
            self.assertLess(found.state[0], THROUGHOUT)
        else:
            # Floats themselves are off by some last places.
            room = 1e-13 * (1 + abs(value))
            self.assertGreaterEqual(found.state[0], SOMEWHERE)
            self.assertLessEqual(found.low[0] - room, value)
            self.assertGreaterEqual(found.high[0] + room, value)

    @given(some.sampled_from(FORMULAS[:3]), some.floats(-4, 4), some.floats(-4, 4))
    @settings(max_examples=100, deadline=None)
    def test_a_fraction_has_the_same_zeros(self, formula, x, y):
        tree = parse_expression(f"{formula} - 1/(x - 1) + tan(y)", PLANE)
        top, bottom = fraction(tree)
        values = []
        for part in (tree, top, bottom):
            plan = program(part, ("x", "y"))
            values.append(float(bound_to_floats(plan, AngleUnit.RADIAN).run(x, y)))
        if all(map(math.isfinite, values)) and abs(values[2]) > 1e-6:
            self.assertAlmostEqual(
                values[0] * values[2], values[1], delta=1e-9 * (1 + abs(values[1]))
            )


# Relation, connected lines in the frame, crossings, single points; of those marked some turns lie
# so close to a crossing, or on so straight a part, that a stretch stays open.
SHAPES = (
    ("x^2 + y^2 = 20", 1, 0, 0),
    ("x y = 3", 2, 0, 0),
    ("x^2 - y^2 = 1", 2, 0, 0),
    ("y^2 = x^3 - x", 2, 0, 0),
    ("y^2 = x^3 - 3x + 2", 1, 1, 0),
    ("y^2 = x^2 (x - 1)", 1, 0, 1),
    ("y^2 = x^2 (x + 1)", 1, 1, 0),
    ("(x^2 + y^2)^2 = 16 (x^2 - y^2)", 1, 1, 0),
    ("x^3 + y^3 = 3x y", 1, 1, 0),
    ("x = 4", 1, 0, 0),
    ("x^2 + y^2 = 0", 0, 0, 1),
    ("x^2 + y^2 = -1", 0, 0, 0),
    ("x^2 = y^2", 1, 1, 0),
    ("(x^2 + y^2 - 4) (x - 5) = 0", 2, 0, 0),
    ("(x^2 + y^2 - 4) (x - 1) = 0", 1, 2, 0),
    ("y = 1/x + y^2", 3, 0, 0),
    ("x^4 + y^4 = 81", 1, 0, 0),
    ("y^2 = x^4 - x^2 + 1/8", 3, 0, 0),
    ("x^2/25 + y^2/4 = 1", 1, 0, 0),
)


def components(segments, near):
    """How many pieces segments make whose ends lie close to one another."""
    owner = {}
    parent = list(range(len(segments)))

    def root(k):
        while parent[k] != k:
            parent[k] = parent[parent[k]]
            k = parent[k]
        return k

    for k, segment in enumerate(segments):
        for x, y in segment:
            i, j = math.floor(x / near), math.floor(y / near)
            for cell in itertools.product((i - 1, i, i + 1), (j - 1, j, j + 1)):
                if cell in owner:
                    parent[root(owner[cell])] = root(k)
            owner[i, j] = k
    return len({root(k) for k in range(len(segments))})


class Pictures(Case):
    def picture(self, line, frame=FRAME):
        relation = relation_of(lane_of(line))
        return curve_drawn(relation, relation.curve, frame)

    def test_shapes_have_their_branches_crossings_and_single_points(self):
        for line, lines, crossings, single, *still in SHAPES:
            with self.subTest(line):
                found = self.picture(line)
                self.assertEqual(len(found.open), 0)
                # Where branches cross a quarter of a pixel stays without a line.
                self.assertEqual(components(found.segments, 0.02), lines)
                path = path_of(line, 20_000)
                self.assertEqual(len(path.of(Kind.CROSSING)), crossings)
                self.assertEqual(len(path.of(Kind.ISOLATED)), single)
                self.assertEqual(path.complete, not still, path.open)

    def test_every_place_drawn_is_one_and_every_one_is_drawn(self):
        """Against a scan along x at eight times the pixels."""
        for line, *_ in SHAPES:
            relation = relation_of(lane_of(line))
            found = curve_drawn(relation, relation.curve, FRAME)
            drawn_at = np.concatenate([found.segments.reshape(-1, 2), middles(found.dots)])
            with self.subTest(line):
                values = relation.curve.plain_values(*drawn_at.T) if len(drawn_at) else np.zeros(1)
                scale = 1 + np.abs(drawn_at).max(initial=0) ** 4
                self.assertLess(np.abs(values).max(), 1e-3 * scale)
                seen = scanned(relation.curve)
                if not len(seen):
                    continue
                near = nearest(seen, drawn_at)
                self.assertLess(near.max(), 3 * 20 / 900, seen[near.argmax()])

    def test_a_pole_is_no_line(self):
        found = self.picture("tan(x) = y")
        at = found.segments.reshape(-1, 2)
        self.assertLess(np.abs(np.tan(at[:, 0]) - at[:, 1]).max(), 1e-4)

    def test_what_cannot_be_told_is_open_and_ends(self):
        for line in ("sin(1/(x y)) = 0.5", "x = x", "sin(1000 x y) = 0"):
            with self.subTest(line):
                self.assertGreater(self.picture(line).share, 0)

    def test_a_domain_leaves_out_the_rest(self):
        at = self.picture("x^2 + y^2 = 9 for x >= 0 and y < 1").segments.reshape(-1, 2)
        self.assertTrue((at[:, 0] > -0.05).all() and (at[:, 1] < 1.05).all())
        self.assertGreater(len(at), 100)

    def test_shapes_of_a_lane(self):
        document = sheet("x^2 + y^2 < 9")
        shapes = drawn(document, resolve(document).lanes[0], FRAME)
        self.assertEqual([type(s) for s in shapes], [Patch, Stroke])
        self.assertEqual(shapes[1].border, "open")
        document = sheet("x^2 + y^2 = 0")
        shapes = drawn(document, resolve(document).lanes[0], FRAME)
        self.assertIn(Dots, [type(s) for s in shapes])

    def test_the_shade_covers_a_region_and_nothing_else(self):
        chance = random.Random(3)
        for line, area in (
            ("x^2 + y^2 <= 9", 9 * math.pi),
            ("1 <= x^2 + y^2 < 9", 8 * math.pi),
            ("x >= 0 and y >= 0 and x + y <= 4", 8),
            ("|x| + |y| < 2 or x > 9", 8 + 14),
        ):
            with self.subTest(line):
                relation = relation_of(lane_of(line))
                boxes = shaded(relation, FRAME)
                boxes = np.clip(boxes, [-10, -10, -7, -7], [10, 10, 7, 7])
                covered = ((boxes[:, 1] - boxes[:, 0]) * (boxes[:, 3] - boxes[:, 2])).sum()
                self.assertAlmostEqual(covered, area, delta=0.01 * area + 0.05)
                for _ in range(200):
                    x, y = chance.uniform(-10, 10), chance.uniform(-7, 7)
                    inside = bool(relation.holds(np.array([x]), np.array([y]))[0])
                    shown = bool(
                        (
                            (boxes[:, 0] <= x)
                            & (x <= boxes[:, 1])
                            & (boxes[:, 2] <= y)
                            & (y <= boxes[:, 3])
                        ).any()
                    )
                    if inside != shown:  # only beside the border
                        self.assertLess(distance_to_change(relation, x, y), 0.03)


def middles(boxes):
    return (boxes[:, [0, 2]] + boxes[:, [1, 3]]) / 2


def scanned(side):
    """Changes of sign along 1,000 lines x = a, eight to a pixel along y."""
    y = np.linspace(-7, 7, 5041)
    found = []
    for x in np.linspace(-9.99, 9.987, 300):
        values = side.plain_values(np.full(len(y), x), y)
        at = np.flatnonzero(values[:-1] * values[1:] < 0)
        found += [(x, (y[k] + y[k + 1]) / 2) for k in at]
    return np.array(found).reshape(-1, 2)


def nearest(places, others):
    return np.array([np.hypot(*(others - place).T).min() for place in places])


def distance_to_change(relation, x, y):
    now = relation.holds(np.array([x]), np.array([y]))[0]
    for radius in np.linspace(0.001, 0.05, 30):
        angle = np.linspace(0, 6.28, 24)
        held = relation.holds(x + radius * np.cos(angle), y + radius * np.sin(angle))
        if (held != now).any():
            return radius
    return 1.0


class Landmarks(Case):
    def test_the_outermost_points_of_a_bounded_one(self):
        path = path_of("x^2 + x y + y^2 = 3")
        words = {word: (m.x, m.y) for m in path.landmarks for word in m.extremes}
        self.assertEqual(
            {k: (round(a, 9), round(b, 9)) for k, (a, b) in words.items()},
            {"leftmost": (-2, 1), "rightmost": (2, -1), "lowest": (1, -2), "highest": (-1, 2)},
        )
        self.assertFalse(any(m.extremes for m in path_of("x y = 3").landmarks))

    def test_a_crossing_and_a_single_point_are_exact_and_a_cusp_is_named(self):
        (node,) = path_of("y^2 = x^2 (x + 1)").of(Kind.CROSSING)
        self.assertEqual((node.x, node.y, node.certainty), (0, 0, Certainty.EXACT))
        (cusp,) = path_of("y^2 = x^3").of(Kind.CUSP)
        self.assertEqual((cusp.x, cusp.y), (0, 0))

    def test_on_the_axes(self):
        path = path_of("y^2 = x^3 - 3x + 2")
        self.assertEqual(places(path, Kind.MEETS_X), [(-2, 0), (1, 0)])
        root = round(math.sqrt(2), 9)
        self.assertEqual(places(path, Kind.MEETS_Y), [(0, -root), (0, root)])

    def test_how_many_lie_over_each_x(self):
        path = path_of("x^2 + y^2 = 9")
        self.assertEqual([c.many for c in path.counts], [0, 2, 0])
        self.assertEqual([round(c.high, 9) for c in path.counts], [-3, 3, 10])

    def test_kinks_of_absolute_values(self):
        path = path_of("|x| + |y| = 3", 20_000)
        self.assertTrue(path.complete)
        ends = [(-3, 0), (0, -3), (0, 3), (3, 0)]
        self.assertEqual(places(path, Kind.KINK), ends)
        words = {word: (m.x, m.y) for m in path.landmarks for word in m.extremes}
        self.assertEqual(words["rightmost"], (3, 0))
        self.assertEqual([c.many for c in path.counts], [0, 2, 2, 0])
        path = path_of("|x^2 - 1| + y = 0", 20_000)
        self.assertEqual(places(path, Kind.KINK), [(-1, 0), (1, 0)])
        # x |x| is smooth at 0, and so is a product that never changes its sign there.
        self.assertEqual(path_of("x |x| = y", 20_000).of(Kind.KINK), ())

    def test_nothing_depends_on_what_was_asked_before(self):
        for order in ((0, 1), (1, 0)):
            lines = [("x^2 + y^2 = 4", 2.0), ("x^2 + y^2 = 4.0001", math.sqrt(4.0001))]
            for k in order:
                found = path_of(lines[k][0]).of(Kind.UPRIGHT)
                self.assertAlmostEqual(max(m.x for m in found), lines[k][1], 12)


class Reading(Case):
    def read(self, line, x):
        document = sheet(line)
        lane = resolve(document).lanes[0]
        return READ[lane.kind.key](document, lane, x)

    def test_all_heights_over_an_x(self):
        self.assertEqual(self.read("x^2 + y^2 = 25", 3).shown, "−4; 4")
        self.assertEqual(self.read("x y = 6", 2).y, 3)
        self.assertEqual(self.read("x^2 + y^2 = 25", 6).shown, "—")

    def test_stretches_of_a_region(self):
        self.assertEqual(self.read("x^2 + y^2 <= 25", 3).shown, "y from −4 to 4")
        self.assertEqual(self.read("y > x^2", 2).shown, "y above 4")
        self.assertEqual(self.read("1 <= x^2 + y^2 < 5", 1).shown, "y from −2 to 2")

    def test_words(self):
        for line, told in (
            ("x^2 + y^2 = 9", "between x = −3 and 3 and between y = −3 and 3"),
            ("y^2 = x^2 (x + 1)", "1 crossing of itself"),
            ("x^2 + y^2 = -1", "no point at all in this view"),
            ("x >= 0 and y >= 0 and x + y <= 2", "corners at (0, 0), (0, 2) and (2, 0)"),
        ):
            document = sheet(line)
            lane = resolve(document).lanes[0]
            with self.subTest(line):
                path = path_of(line)
                self.assertIn(told, DESCRIBED[lane.kind.key].words(lane, path, document))


class Trouble(Case):
    def test_where_no_rule_gives_a_slope_all_stays_open(self):
        for lines in (("gcd(x, y) = 3",), ("x! + y = 3",), ("gcd(x, y) > 1 and y > 0",)):
            with self.subTest(lines):
                found = survey(sheet(*lines), Effort(evaluations=500))
                self.assertFalse(found.lanes[0][1].complete)
        self.assertFalse(met("gcd(x, y) = 3", "x = y^2").complete)
        document = apply(Document(view=VIEW), AddLane(text="h(x, y) = gcd(x, y)"))
        self.assertFalse(survey(document, Effort(evaluations=500)).lanes[0][1].complete)

    def test_much_is_bounded(self):
        lines = [f"x^2 + {k} y^2 < {k + 9}" for k in range(1, 13)]
        document = sheet(" and ".join(lines))
        lane = resolve(document).lanes[0]
        self.assertIsNone(lane.error)
        self.assertTrue(drawn(document, lane, FRAME))
        many = " and ".join(f"x > {k}" for k in range(14))
        self.assertRegex(str(resolve(sheet_with(many)).lanes[0].error.message), "comparisons")

    def test_framing_shows_it(self):
        lane = lane_of("x^2 + y^2 = 400")
        left, right, bottom, top = FRAMED["relation"](lane, False)
        for value, wanted in ((left, -20), (right, 20), (bottom, -20), (top, 20)):
            self.assertAlmostEqual(value, wanted, delta=0.5)

    def test_a_line_becomes_a_relation_and_back(self):
        document = sheet("y = 2x")
        lane = document.lanes[0]
        document = apply(document, ReviseLane(id=lane.id, text="y = 2x y"))
        self.assertEqual(resolve(document).lanes[0].kind.key, "relation")
        document = apply(document, ReviseLane(id=lane.id, text="y = 2x"))
        self.assertEqual(resolve(document).lanes[0].kind.key, "function")
