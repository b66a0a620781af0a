"""Functions of two variables: critical points against SymPy, level lines against contourpy."""

import math
import random

import contourpy
import numpy as np
import sympy

from axispath.core.path.kinds import FRAMED, SEARCHED
from axispath.core.path.lanes import Effort
from axispath.core.plane.levels import levels_drawn
from axispath.core.plane.relation import level_of
from axispath.core.plane.screen import Screen
from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.primitives import Label, Patch, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import AddLane, SetLevels, apply
from axispath.core.sheet.levels import levels_of, nice
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.kinds import DESCRIBED
from tests.case import Case
from tests.core.resultants import X, Y

VIEW = View(left=-4, right=4, bottom=-3, top=3)
SCREEN = Screen(-4, 4, -3, 3, 640, 480)
# As typed, and for SymPy.
FUNCTIONS = (
    ("x^2 - y^2", "x**2 - y**2"),
    ("x^2 + y^2", "x**2 + y**2"),
    ("x^3 - 3x - y^2", "x**3 - 3*x - y**2"),
    ("x^3 + y^3 - 3x y", "x**3 + y**3 - 3*x*y"),
    ("x y (1 - x - y)", "x*y*(1 - x - y)"),
    ("x^4 + y^4 - 4x y + 1", "x**4 + y**4 - 4*x*y + 1"),
    ("2x^3 + 6x y^2 - 3y^3 - 150x/25", "2*x**3 + 6*x*y**2 - 3*y**3 - 6*x"),
    ("x^2 y - 2x y^2 + 3x y + 4", "x**2*y - 2*x*y**2 + 3*x*y + 4"),
    ("4 + x^3 + y^3 - 3x y", "4 + x**3 + y**3 - 3*x*y"),
    ("x^2 + x y + y^2 - 3x", "x**2 + x*y + y**2 - 3*x"),
    ("(x^2 - 1)^2 + y^2", "(x**2 - 1)**2 + y**2"),
    ("y^2 - x^2 y + x^4/8 + y", "y**2 - x**2*y + x**4/8 + y"),
    ("x^3 y + 12x^2 - 8y", "x**3*y + 12*x**2 - 8*y"),
    ("x^2 - 3x y + 5x - 2y + 6y^2 + 8", "x**2 - 3*x*y + 5*x - 2*y + 6*y**2 + 8"),
    ("3x + 5y", "3*x + 5*y"),
)


def sheet(formula):
    return apply(Document(view=VIEW), AddLane(text=f"h(x, y) = {formula}", id="h"))


def lane_of(formula):
    return resolve(sheet(formula)).lanes[0]


def found(formula):
    lane = lane_of(formula)
    return SEARCHED["map"].path(lane, VIEW, Effort(evaluations=20_000), 1, None)


class CriticalPoints(Case):
    def test_against_sympy(self):
        x, y = sympy.symbols("x y", real=True)
        for typed, form in FUNCTIONS:
            h = sympy.sympify(form, locals={"x": x, "y": y})
            slopes = [sympy.diff(h, v) for v in (x, y)]
            wanted = set()
            for at in sympy.solve(slopes, [x, y], dict=True) if h.has(x) else []:
                place = [complex(at.get(v, v)) for v in (x, y)]
                if any(abs(p.imag) > 1e-12 for p in place):
                    continue
                a, b = (p.real for p in place)
                if not (-4 <= a <= 4 and -3 <= b <= 3):
                    continue
                second = sympy.hessian(h, (x, y)).subs(at)
                det = float(second.det())
                kind = Kind.SADDLE if det < 0 else Kind.PEAK if second[0, 0] < 0 else Kind.PIT
                wanted.add((kind.value, round(a, 8) + 0.0, round(b, 8) + 0.0))
            with self.subTest(typed):
                path = found(typed)
                self.assertTrue(path.complete, path.open)
                told = {
                    (m.kind.value, round(m.x, 8) + 0.0, round(m.y, 8) + 0.0) for m in path.landmarks
                }
                self.assertEqual(told, wanted)
                for mark in path.landmarks:
                    value = float(h.subs({x: mark.x, y: mark.y}))
                    self.assertAlmostEqual(mark.z, value, delta=mark.z_radius + 1e-9)

    def test_waves(self):
        path = found("sin(x) cos(y)")
        self.assertTrue(path.complete)
        peaks = {(round(m.x, 6), round(m.y, 6)) for m in path.of(Kind.PEAK)}
        self.assertEqual(peaks, {(round(math.pi / 2, 6), 0.0)})

    def test_what_cannot_be_told_is_open(self):
        self.assertFalse(found("1/(1 + x^4 + y^4)").complete)  # so flat that no second slope tells
        self.assertTrue(found("x^2").complete)  # the same along y: no point of its own

    def test_along_whole_curves(self):
        for line, equation, points in (
            ("(x + y)^2", "x + y = 0", []),
            ("x^2 y^2", "x y = 0", []),
            ("(x^2 + y^2 - 1)^2", "x^2 + y^2 − 1 = 0", [(Kind.PEAK, 0, 0)]),
            ("x^2 (y - 1)", "x = 0", []),
        ):
            with self.subTest(line):
                path = found(line)
                self.assertTrue(path.complete)
                self.assertEqual(path.shared.equation, equation)
                self.assertEqual([(m.kind, m.x, m.y) for m in path.landmarks], points)

    def test_flat_points_by_the_branches_of_their_level(self):
        """Sums of even powers, and real parts of powers of x + iy, at places made up."""
        chance = random.Random(7)
        for _ in range(30):
            a, b, n = chance.randint(-1, 1), chance.randint(-1, 1), chance.choice((3, 4, 5))
            u, v = f"(x - ({a}))", f"(y - ({b}))"
            real = sympy.Poly(sympy.re(sympy.expand((X + sympy.I * Y) ** n)), X, Y)
            wave = " + ".join(f"({c}) {u}^{i} {v}^{j}" for (i, j), c in real.terms())
            for line, kind in (
                (f"{u}^4 + {v}^{2 * chance.randint(1, 2)} + 3", Kind.PIT),
                (f"2 - {u}^4 - 3 {v}^4", Kind.PEAK),
                (wave, Kind.SADDLE),
                (f"{u}^3 + {v}^2", None),
            ):
                with self.subTest(line):
                    path = found(line)
                    self.assertTrue(path.complete, path.open)
                    wanted = [] if kind is None else [(kind, a, b)]
                    self.assertEqual([(m.kind, m.x, m.y) for m in path.landmarks], wanted)


class Levels(Case):
    def test_lines_against_contourpy(self):
        """Every line of the other on a fine grid lies on ours, and ours have the level's value."""
        for typed, _ in FUNCTIONS[:8]:
            lane = lane_of(typed)
            levels = levels_of(sheet(typed), lane, VIEW)
            mine = levels_drawn(level_of(lane, 0.0, "="), levels, SCREEN)
            side = level_of(lane, 0.0, "=")
            x, y = np.linspace(-4, 4, 641), np.linspace(-3, 3, 481)
            z = side.values(*np.meshgrid(x, y))
            other = contourpy.contour_generator(x, y, z)
            for level, segments in zip(levels, mine.lines, strict=True):
                with self.subTest(typed, level=level):
                    at = segments.reshape(-1, 2)
                    inside = (np.abs(at[:, 0]) <= 4) & (np.abs(at[:, 1]) <= 3)
                    if len(at):
                        error = np.abs(side.values(*at.T) - level).max()
                        self.assertLess(error, 1e-5 * (1 + abs(level)))
                    lines = [line for line in other.lines(level) if len(line) > 3]
                    if not lines:
                        continue
                    theirs = np.concatenate(lines)[::7]
                    gaps = [np.hypot(*(at[inside] - place).T).min() for place in theirs]
                    self.assertLess(max(gaps), 0.04)

    def test_bands_cover_the_view_with_the_right_values(self):
        lane = lane_of("x^3 - 3x - y^2")
        levels = [-10.0, 0.0, 5.0]
        drawn_levels = levels_drawn(level_of(lane, 0.0, "="), levels, SCREEN)
        side = level_of(lane, 0.0, "=")
        total = 0.0
        for number, boxes in enumerate(drawn_levels.bands):
            boxes = np.clip(boxes, [-4, -4, -3, -3], [4, 4, 3, 3])
            sizes = (boxes[:, 1] - boxes[:, 0]) * (boxes[:, 3] - boxes[:, 2])
            total += sizes.sum()
            middle = (boxes[:, [0, 2]] + boxes[:, [1, 3]]) / 2
            values = side.values(*middle.T)
            inside = np.searchsorted(levels, values, "right") == number
            # Beside a level only the middle of a cell tells where it belongs.
            self.assertGreater(sizes[inside].sum(), 0.99 * sizes.sum())
        self.assertAlmostEqual(total, 48, delta=0.1)

    def test_levels_are_round_or_as_typed(self):
        document = sheet("x^2 + y^2")
        lane = resolve(document).lanes[0]
        usual = levels_of(document, lane, VIEW)
        self.assertGreater(len(usual), 4)
        self.assertTrue(all(abs(v / nice(0, 20, 9) % 1) < 1e-9 for v in usual))
        document = apply(document, AddLane(text="a = 3"))
        for typed, wanted in (("4, 1; 9", [1, 4, 9]), ("a, a^2", [3, 9]), ("-1/2", [-0.5])):
            changed = apply(document, SetLevels(id="h", levels=typed))
            self.assertEqual(levels_of(changed, resolve(changed).lanes[0], VIEW), wanted)
        changed = apply(document, SetLevels(id="h", levels="20"))
        self.assertGreater(len(levels_of(changed, resolve(changed).lanes[0], VIEW)), len(usual))
        for typed, told in (("0", "between 1"), ("99", "between 1"), ("1, q", "q"), ("1/0, 2", "")):
            with self.subTest(typed), self.assertRaisesRegex(EditRefused, told):
                apply(document, SetLevels(id="h", levels=typed))

    def test_shapes_and_a_pole(self):
        for formula in ("x^2 - y^2", "1/(x y)", "ln(x)"):
            document = sheet(formula)
            shapes = drawn(document, resolve(document).lanes[0], Frame(-4, 4, -3, 3, 400, 300))
            kinds = {type(shape) for shape in shapes}
            with self.subTest(formula):
                self.assertLessEqual({Patch, Stroke}, kinds)
                self.assertTrue(all(np.nanmax(np.abs(s.rows)) < 50 for s in shapes))
                self.assertTrue(any(isinstance(s, Label) for s in shapes))

    def test_nothing_to_show(self):
        document = sheet("√(-1 - x^2 - y^2)")
        lane = resolve(document).lanes[0]
        told = DESCRIBED["map"].unseen(lane, None, document)
        self.assertIn("undefined everywhere", told)
        self.assertEqual(levels_of(document, lane, VIEW), [])


class Whole(Case):
    def test_words_framing_and_use_elsewhere(self):
        document = sheet("x^3 - 3x - y^2")
        lane = resolve(document).lanes[0]
        words = DESCRIBED["map"].words(lane, found("x^3 - 3x - y^2"), document)
        self.assertIn("highest point at (−1, 0); saddle at (1, 0)", words)
        left, right, _, _ = FRAMED["map"](lane, True)
        self.assertLess(left, -1)
        self.assertGreater(right, 1)
        document = apply(document, AddLane(text="h(2, x)"))
        self.assertEqual(float(resolve(document).lanes[1].floats(np.array([1.0]))[0]), 1.0)
