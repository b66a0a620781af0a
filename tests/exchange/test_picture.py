"""Pictures to take away show what the sheet shows, and nothing else."""

import io
import xml.etree.ElementTree as ET

import numpy as np
from PIL import Image

from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import Effort
from axispath.core.sheet.document import Document, Ground, Style, View
from axispath.core.sheet.edits import AddLane, SetGround, SetStyle, Slide, apply, with_view
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.exchange.picture.draw import EDGE, RAIL, picture
from axispath.exchange.picture.seen import Seen
from axispath.exchange.picture.sheet_of_paper import PLAIN, typeset
from tests.case import Case

VIEW = View(left=-5, right=5, bottom=-4, top=4)
SPRUCE, SIGNAL = (27, 94, 75), (200, 80, 30)


def sheet(*lines, **ground):
    document = with_view(Document(), VIEW)
    for number, line in enumerate(lines):
        document = apply(document, AddLane(text=line, id=f"l{number}"))
    return apply(with_view(document, VIEW), SetGround(ground=Ground(grid="none", **ground)))


class Pictures(Case):
    WIDTH, HEIGHT = 600, 400

    def pixels(self, document, scale=1.0, **seen):
        data = picture(Seen(document, self.WIDTH, self.HEIGHT, **seen), "png", scale)
        return np.asarray(Image.open(io.BytesIO(data)).convert("RGB")).astype(int)

    def inked(self, pixels, x, y, colour, reach=3):
        """Whether there is a colour near a point of the axes; without titles around the plot."""
        width, height = self.WIDTH - 2 * EDGE, self.HEIGHT - EDGE - RAIL
        px = round(EDGE + (x + 5) / 10 * width)
        py = round(EDGE + (4 - y) / 8 * height)
        part = pixels[py - reach : py + reach + 1, px - reach : px + reach + 1]
        return bool((np.abs(part - colour).max(axis=2) < 40).any())

    def test_a_curve_is_where_it_belongs_and_no_ink_crosses_a_pole(self):
        found = self.pixels(sheet("1/x"))
        self.assertEqual(found.shape[:2], (400, 600))
        for x in (-4, -1, 0.5, 2, 4.5):
            self.assertTrue(self.inked(found, x, 1 / x, SPRUCE), x)
        for y in (-3, -1.5, 1.5, 3):
            # The asymptote and the axis run along x = 0; between them and the branches is nothing.
            self.assertFalse(self.inked(found, -0.15, y, SPRUCE, 1), y)
            self.assertFalse(self.inked(found, 0.15, y, SPRUCE, 1), y)

    def test_open_ends_are_hollow_and_closed_ones_filled(self):
        found = self.pixels(sheet("2 for -3 < x <= 3"))
        self.assertFalse(self.inked(found, -3, 2, SPRUCE, 1))
        self.assertTrue(self.inked(found, -3, 2, SPRUCE, 6))
        self.assertTrue(self.inked(found, 3, 2, SPRUCE, 1))

    def test_size_and_sharpness(self):
        self.assertEqual(self.pixels(sheet("x"), 2.0).shape[:2], (800, 1200))
        for width, height, kind, told in (
            (20, 400, "png", "width"),
            (400, 9000, "png", "height"),
            (4000, 4000, "png", "too many pixels"),
            (400, 400, "bmp", "png"),
        ):
            with self.assertRaisesRegex(EditRefused, told):
                picture(Seen(sheet("x"), width, height), kind, 2.0)

    def test_titles_legend_labels_and_readings_add_ink(self):
        plain = self.pixels(sheet("x^2 - 1"))
        for document, seen in (
            (sheet("x^2 - 1", title="Depth $x^2$"), {}),
            (sheet("x^2 - 1", legend=True), {}),
            (sheet("x^2 - 1"), {"pinned": frozenset({"l0:minimum:1"})}),
            (sheet("x^2 - 1"), {"reading": 1.5, "held": -1.0, "area": "l0", "tangent": "l0"}),
        ):
            self.assertTrue((self.pixels(document, **seen) != plain).any())

    def test_a_long_line_of_the_legend_is_given_by_its_beginning(self):
        document = sheet(" + ".join(f"(x^{n})/(x + {n})" for n in range(1, 60)), "x^2")
        long, short = (
            typeset(lane.statement, lane.name) for lane in resolve(document).shown(SEARCHED)
        )
        self.assertTrue(long.endswith(" …"), long[-20:])
        self.assertLessEqual(len(long), PLAIN)
        self.assertTrue(short.startswith("$") and short.endswith("$"))

    def test_curves_and_their_polar_grid(self):
        document = sheet("r = 3 cos 2θ", "(1, 3)")
        plain = self.pixels(document)
        # Out along 45° r is negative: a petal that is paler, on the other side of the pole.
        for angle, colour in ((0, np.array(SPRUCE)), (90, None)):
            turn = np.radians(angle)
            x, y = 3 * np.cos(2 * turn) * np.cos(turn), 3 * np.cos(2 * turn) * np.sin(turn)
            pale = (np.array(SPRUCE) + np.array([255, 253, 248])) / 2
            self.assertTrue(self.inked(plain, x, y, pale if colour is None else colour, 8), angle)
        ground = document.ground.model_copy(update={"grid": "polar"})
        gridded = self.pixels(document.model_copy(update={"ground": ground}))
        # A circle about the pole is drawn where the curve is not.
        at = [(2 * np.cos(a), 2 * np.sin(a)) for a in np.radians([50, 130, 230, 310])]
        changed = np.abs(gridded - plain).max(axis=2) > 4
        for x, y in at:
            px = round(EDGE + (x + 5) / 10 * (self.WIDTH - 2 * EDGE))
            py = round(EDGE + (4 - y) / 8 * (self.HEIGHT - EDGE - RAIL))
            self.assertTrue(changed[py - 12 : py + 13, px - 12 : px + 13].any(), (x, y))

    def test_points_and_markers_are_where_they_belong(self):
        found = self.pixels(sheet("[(-3, 2), (1, -2)]"))
        for x, y in ((-3, 2), (1, -2)):
            self.assertTrue(self.inked(found, x, y, SPRUCE, 1), (x, y))
        document = sheet("x/2")
        marked = apply(document, SetStyle(id="l0", style=Style(markers="squares")))
        spread = [
            int((np.abs(self.pixels(d) - SPRUCE).max(axis=2) < 40).sum())
            for d in (document, marked)
        ]
        self.assertGreater(spread[1], spread[0] + 100)

    def test_trails_are_part_of_the_picture(self):
        document = sheet("a x", "a = 1")
        document = apply(document, SetStyle(id="l0", style=Style(trail="curve")))
        trail = [apply(document, Slide(id="l1", value=value)) for value in (-1, 0.25)]
        found = self.pixels(document, trail=trail)
        faint = np.array([255, 253, 248]) * 0.72 + np.array(SPRUCE) * 0.28
        self.assertTrue(self.inked(found, 2, -2, faint))
        self.assertFalse(self.inked(self.pixels(document), 2, -2, faint))

    def test_svg_and_pdf_are_what_they_say(self):
        document = sheet("sin(1000x)", "a b", title="A title of $\\nonsense$ and 5$")
        seen = Seen(document, 600, 400, effort=Effort(200))
        root = ET.fromstring(picture(seen, "svg"))
        self.assertTrue(root.tag.endswith("svg"))
        self.assertTrue(picture(seen, "pdf").startswith(b"%PDF-"))
        again = picture(seen, "svg")
        self.assertEqual(again, picture(seen, "svg"), "it depends on the hour")
