"""Numbers at the axes, captions and colours."""

import math
import re
from fractions import Fraction

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from axispath.command.place import ROOT
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.sampling.kinds.function import drawn_samples
from axispath.core.sampling.view import Frame
from axispath.core.sheet.captions import caption
from axispath.core.sheet.colour import LEAST_CONTRAST, contrast, legible
from axispath.core.sheet.document import WIDEST, Document, Ground, Samples, Ticks, View
from axispath.core.sheet.edits import AddLane, SetGround, SetSamples, apply
from axispath.core.sheet.palette import THEMES
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.sheet.ticks import label, places, spaced, tick_step
from tests.case import Case

colours = st.integers(0, 0xFFFFFF).map("#{:06x}".format)


class Numbers(Case):
    def written(self, ticks, low, high, least, unit=AngleUnit.RADIAN):
        step = tick_step(Document(unit=unit), ticks)
        part = spaced(step, least)
        return [label(k, part, step.sign) for k in places(low, high, part, step.unit)]

    def test_parts_of_pi_degrees_and_typed_steps(self):
        pi = Ticks(kind="pi")
        self.assertEqual(self.written(pi, -math.pi, math.pi, 1.5), ["−π", "−π/2", "0", "π/2", "π"])
        self.assertEqual(
            self.written(Ticks(kind="step", step="π/3"), 0, 3.2, 0.9)[:3], ["0", "π/3", "2π/3"]
        )
        self.assertEqual(
            self.written(Ticks(), 0, 360, 80, AngleUnit.DEGREE),
            ["0°", "90°", "180°", "270°", "360°"],
        )
        self.assertEqual(
            self.written(Ticks(kind="step", step="0.25"), 0, 0.5, 0.2), ["0", "0.25", "0.5"]
        )
        polar = Document(unit=AngleUnit.DEGREE, ground=Ground(grid="polar"))
        self.assertEqual(tick_step(polar, Ticks()).sign, "")
        # A step that would set thousands of numbers side by side is multiplied.
        self.assertEqual(self.written(Ticks(kind="step", step="0.25"), 0, 100, 20)[1], "12.5")

    @given(st.floats(1e-12, 1e12))
    def test_automatic_steps_are_one_two_or_five(self, least):
        part = spaced(tick_step(Document(), Ticks()), least)
        self.assertIn(f"{float(part):e}"[:8], ("1.000000", "2.000000", "5.000000"))
        self.assertTrue(0.999 * least <= float(part) <= 2.51 * least)
        self.assertIsInstance(part, Fraction)

    def test_steps_that_make_no_sense_are_refused(self):
        for text, told in (
            ("0", "above 0"),
            ("-1", "above 0"),
            ("q", "no value"),
            ("(", "too early"),
        ):
            edit = SetGround(ground=Ground(x_ticks=Ticks(kind="step", step=text)))
            with self.assertRaisesRegex(EditRefused, told):
                apply(Document(), edit)

    def test_an_undo_names_the_part_that_was_changed(self):
        edit = SetGround(ground=Ground(grid="none"))
        self.assertEqual(edit.words(Document()), "the grid")


class Captions(Case):
    def test_mathematics_stands_between_dollar_signs(self):
        scope = scope_of(())
        ((words, formula),) = caption("tide $h(x) = x^2$", scope)
        self.assertEqual(words.text, "tide ")
        self.assertEqual(formula.statement.name, "h")
        ((plain,),) = caption("costs 5$", scope)
        self.assertEqual((plain.text, plain.statement), ("costs 5$", None))
        ((wrong,),) = caption("$x +$", scope)
        self.assertIsNone(wrong.statement)
        self.assertEqual(len(caption("one\n\ntwo", scope)), 2)


class Colours(Case):
    @given(colours, st.sampled_from(["#fffdf8", "#191f1c"]))
    def test_own_colours_stay_legible(self, colour, ground):
        self.assertGreaterEqual(contrast(legible(colour, ground), ground), LEAST_CONTRAST)

    def test_a_colour_that_is_legible_stays_as_it_is(self):
        self.assertEqual(legible("#1b5e4b", "#fffdf8"), "#1b5e4b")
        self.assertAlmostEqual(contrast("#000000", "#ffffff"), 21, 6)  # WCAG 2.2, definition

    def test_pictures_have_the_colours_of_the_page(self):
        css = (ROOT / "axispath/web/static/css/tokens.css").read_text()
        parts = dict(zip(THEMES, css.split(":root[data-theme"), strict=True))
        for theme, palette in THEMES.items():
            colours = dict(re.findall(r"--([\w-]+): (#[0-9a-f]{6});", parts[theme]))
            for name, colour in (
                ("plot-ground", palette.ground),
                ("card", palette.card),
                ("ink", palette.ink),
                ("muted", palette.muted),
                ("rule-strong", palette.rule),
                ("grid", palette.grid),
                ("grid-minor", palette.grid_minor),
                ("reading", palette.reading),
                *((f"curve-{k}", colour) for k, colour in enumerate(palette.curves)),
            ):
                self.assertEqual(colours[name], colour, (theme, name))


class SampledLanes(Case):
    def test_amounts_that_make_no_samples_are_refused(self):
        document = apply(Document(), AddLane(text="sin x", id="a"))
        for by, amount, told in (
            ("count", "1", "2 to"),
            ("count", "2.5", "whole"),
            ("step", "0", "above 0"),
            ("step", "-1", "above 0"),
        ):
            with self.assertRaisesRegex(EditRefused, told):
                apply(document, SetSamples(id="a", samples=Samples(by=by, amount=amount)))

    def test_an_end_that_is_excluded_has_no_sample(self):
        frame = Frame(-5, 5, -5, 5, 400, 400)
        for line, missing in (
            ("x for 0 < x <= 4", [True, False, False, False, False]),
            ("x for 0 <= x < 4", [False, False, False, False, True]),
            ("x for 0 <= x <= 4", [False] * 5),
        ):
            document = apply(Document(), AddLane(text=line, id="a"))
            document = apply(document, SetSamples(id="a", samples=Samples(by="count", amount="5")))
            rows = drawn_samples(document, resolve(document).lanes[0], frame)
            with self.subTest(line):
                self.assertEqual(np.isnan(rows[:, 1]).tolist(), missing)


class Limits(Case):
    def test_the_widest_view_is_said_as_it_is(self):
        View(left=-4e12, right=4e12)
        with self.assertRaisesRegex(ValueError, "±10¹³"):
            View(left=-2 * WIDEST, right=0)
        self.assertEqual(WIDEST, 10.0**13)
