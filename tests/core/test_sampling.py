import math

import numpy as np

from axispath.core.arithmetic.balls import BallFunction
from axispath.core.arithmetic.floats import float_function
from axispath.core.sampling.curve import drawn
from axispath.core.sampling.view import Frame
from tests.case import Case
from tests.core.helpers import RADIAN, plan

STANDARD = Frame(-10, 10, -7, 7, 900, 560)


def curve(line, frame=STANDARD, **domain):
    function = float_function(plan(line), RADIAN)
    return drawn(function, BallFunction(plan(line), RADIAN), frame, **domain)


def strokes(line, frame=STANDARD, **domain):
    """The strokes of a line in a frame, in pixels from the lower left corner."""
    rows = curve(line, frame, **domain).strokes
    pixels = rows.astype(float) * [frame.width, frame.height]
    ends = np.flatnonzero(np.isnan(pixels[:, 0]))
    return [part[~np.isnan(part[:, 0])] for part in np.split(pixels, ends)]


def x_of(pixels, frame=STANDARD):
    return frame.left + pixels / frame.width * (frame.right - frame.left)


class Fidelity(Case):
    def test_every_stroke_stays_within_a_pixel_of_the_curve(self):
        for line in (
            "x^2 - x - 3",
            "2 sin(3x)",
            "e^(-x^2)",
            "x^3/20",
            "arctan(20x)",
            "|x| - 2",
            "√(x + 4)",
        ):
            with self.subTest(line):
                f = float_function(plan(line), RADIAN)
                for stroke in strokes(line):
                    middles = (stroke[1:] + stroke[:-1]) / 2
                    true = (f(x_of(middles[:, 0])) + 7) / 14 * 560
                    seen = (middles[:, 1] > 0) & (middles[:, 1] < 560)
                    # Where a curve is steep a pixel sideways is many upwards: measure across it.
                    run, rise = np.diff(stroke, axis=0).T
                    across = (
                        np.abs(middles[:, 1] - true) * run / np.maximum(np.hypot(run, rise), 1e-12)
                    )
                    self.assertLess(across[seen].max(initial=0), 1)

    def test_no_stroke_crosses_a_pole_or_a_jump(self):
        for line, breaks in [
            ("1/x", [0]),
            ("1/(x - 1)^3", [1]),
            ("tan x", [(k + 0.5) * math.pi for k in range(-3, 3)]),
            ("arctan(1/x)", [0]),
            ("|x - 2|/(x - 2)", [2]),
            ("1/(x^2 - 4)", [-2, 2]),
        ]:
            with self.subTest(line):
                spans = [(x_of(s[0, 0]), x_of(s[-1, 0])) for s in strokes(line) if len(s) > 1]
                for place in breaks:
                    self.assertFalse(any(a < place < b for a, b in spans), place)
                visible = [s for s in strokes(line) if ((s[:, 1] > 0) & (s[:, 1] < 560)).any()]
                self.assertEqual(len(visible), len(breaks) + 1)

    def test_a_steep_but_continuous_curve_is_one_stroke(self):
        self.assertEqual(len(strokes("arctan(10^9 x)")), 1)
        self.assertEqual(len(strokes("x^(1/3)")), 1)

    def test_a_curve_reaches_the_edge_of_where_it_is_defined(self):
        (stroke,) = [s for s in strokes("√(x + 4)") if len(s)]
        self.assertAlmostEqual(x_of(stroke[0, 0]), -4, 5)
        self.assertAlmostEqual(stroke[0, 1], 280, 2)

    def test_a_domain_ends_exactly_at_its_ends(self):
        (stroke,) = strokes("2 sin(3x)", low=-2, high=4.5)
        self.assertAlmostEqual(x_of(stroke[0, 0]), -2, 5)
        self.assertAlmostEqual(x_of(stroke[-1, 0]), 4.5, 5)
        self.assertEqual(
            len(drawn(np.sin, BallFunction(plan("sin x"), RADIAN), STANDARD, 11, 12).strokes), 0
        )

    def test_a_fast_oscillation_fills_its_band_instead_of_faking_a_slow_wave(self):
        found = curve("sin(1000x)")
        self.assertEqual(np.count_nonzero(~np.isnan(found.strokes[:, 0])), 0, "strokes as well")
        x, low, high = (found.band[:, [0, 1, 3]] * [900, 560, 560]).T
        self.assertGreater(x.max() - x.min(), 895)
        # One pixel is 1/40 high; the sine goes from 240 to 320.
        self.assertLess(low.max(), 242)
        self.assertGreater(high.min(), 318)
        self.assertGreaterEqual(low.min(), 240 - 1e-3)
        self.assertLessEqual(high.max(), 320 + 1e-3)

    def test_only_what_is_denser_than_pixels_is_a_band(self):
        for line in ("sin(20x)", "tan x", "floor(x)", "arctan(10^9 x)", "x^2 sin(1/x)", "1/x"):
            self.assertEqual(len(curve(line).band), 0, line)
        # Where the distance from turn to turn is half a pixel or less, and nowhere near 2 pixels.
        for line, reach, inside, outside in (
            ("sin(1/x)", 10, 0.03, 0.2),
            ("tan(x^2)", 100, 40, 5),
            ("x sin x", 3000, 500, 20),
        ):
            frame = Frame(-reach, reach, -reach, reach, 900, 560)
            band = curve(line, frame).band[:, 0]
            x = np.abs(frame.left + band[~np.isnan(band)] * 2 * reach)
            is_near_zero = inside < outside
            self.assertLess(np.abs(x - inside).min(), reach / 400, line)
            beyond = x > outside if is_near_zero else x < outside
            self.assertFalse(beyond.any(), line)

    def test_deep_zooms_stay_exact(self):
        frame = Frame(1e6, 1e6 + 1e-4, -1e-4, 1e-4, 900, 560)
        (stroke,) = strokes("x - 1000000.00005", frame)
        middle = stroke[np.argmin(np.abs(stroke[:, 0] - 450))]
        self.assertAlmostEqual(middle[1], 280 + (middle[0] - 450) * 280 / 900, delta=0.1)

    def test_undefined_everywhere_draws_nothing(self):
        for line in ("1/0", "√(-1 - x^2)", "ln(-x^2)"):
            self.assertEqual(sum(len(s) for s in strokes(line)), 0, line)
