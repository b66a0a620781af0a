"""Curves under the hand: drawn, closed, moved along, read, on a polar grid."""

import math
import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Curves(BrowserTest):
    def screen(self, x, y):
        box = self.page.locator("#plot").bounding_box()
        px, py = self.pixel(x, y)
        return box["x"] + px, box["y"] + py

    def text_of(self, name):
        return self.lane(name).get_attribute("data-text")

    def along(self, name, kind):
        """The parameters on a strip at which it has landmarks of a kind."""
        return self.lane(name).locator(f'.along [data-kind="{kind}"]').count()

    def test_a_figure_is_drawn_and_an_open_one_closed_by_its_one_action(self):
        self.open()
        self.type_line("C(t) = (2cos(t/3), 2sin t) for 0 <= t <= 2π")
        note = self.lane("C").locator(".lane-note")
        expect(note).to_contain_text("open: it would close at 6π")
        self.lane("C").get_by_role("button", name="Draw it to 6π").click()
        self.eventually(lambda: self.text_of("C"), "C(t) = (2cos(t/3), 2sin t) for 0 <= t <= 6π")
        expect(note).to_contain_text("closes after 6π")
        # Equal scale came with the first curve: a circle is round.
        left, right, bottom, top = self.view()
        size = self.page.locator("#plot").bounding_box()
        self.assertAlmostEqual((right - left) / size["width"], (top - bottom) / size["height"], 3)
        # 2·1·3 − 1 − 3 crossings, each at two places of the strip.
        self.eventually(lambda: self.along("C", "self-crossing"), 4)
        expect(self.page.locator("#landmarks")).to_contain_text("crossings of itself")
        expect(self.page.locator("#landmarks")).to_contain_text("Length: ")
        self.page.get_by_role("button", name="Undo the domain of C").click()
        expect(note).to_contain_text("would close at 6π")

    def test_brackets_and_the_point_by_keys_and_by_hand(self):
        self.open()
        self.type_line("(2cos t, 2sin t)")
        end = self.lane("A").locator('.handle[data-end="high"]')
        end.focus()
        end.press("ArrowLeft")
        self.eventually(lambda: self.text_of("A"), "(2cos t, 2sin t) for 0 <= t <= 23π/12")
        expect(self.lane("A").locator('.handle[data-end="high"]')).to_be_focused()
        thumb = self.lane("A").locator(".thumb")
        thumb.focus()
        thumb.press("PageUp")
        self.eventually(lambda: "direction" in (thumb.get_attribute("aria-valuetext") or ""), True)
        # The point is taken on the plot and carried to the top of the circle.
        at = float(thumb.get_attribute("aria-valuenow"))
        self.page.mouse.move(*self.screen(2 * math.cos(at), 2 * math.sin(at)))
        self.page.mouse.down()
        self.page.mouse.move(*self.screen(0, 2.2), steps=5)
        self.page.mouse.up()
        self.eventually(lambda: abs(self.value_of("A") - math.pi / 2) < 0.03, True)
        expect(self.page.get_by_role("button", name="Undo moving along A")).to_be_visible()

    def value_of(self, name):
        return float(self.lane(name).locator(".thumb").get_attribute("aria-valuenow") or "nan")

    def test_three_points_play_at_once_and_their_trails_stay(self):
        self.open_with("(2cos t, sin t)", "(t/2 - 3, sin t) for 0 <= t <= 12", "r = 1 + cos θ")
        for name in ("A", "B", "r"):
            self.lane(name).locator('[data-act="more"]').click()
            self.lane(name).get_by_label(f"Trail of {name}").select_option("landmarks")
        for name in ("A", "B", "r"):
            self.lane(name).locator('[data-act="play"]').click()
        for name in ("A", "B", "r"):
            self.eventually(lambda name=name: self.value_of(name) > 0.5, True)
        expect(self.page.get_by_role("button", name="Clear trails")).to_be_visible()
        self.page.locator("#plot").press(" ")
        for name in ("A", "B", "r"):
            expect(self.lane(name).locator('[data-act="play"]')).to_have_attribute(
                "aria-pressed", "false"
            )
        before = self.view()
        self.page.locator("#plot").press("+")
        self.eventually(lambda: self.view() != before, True)
        expect(self.page.get_by_role("button", name="Clear trails")).to_be_visible()

    def test_a_rose_in_degrees_on_its_polar_grid(self):
        self.open()
        self.page.get_by_text("deg", exact=True).click()
        self.type_line("r = 2cos(3theta)")
        expect(self.lane("r").locator(".lane-note")).to_contain_text("one full period")
        expect(self.lane("r").locator('.end[data-end="high"]')).to_have_attribute(
            "placeholder", "180"
        )
        expect(self.page.locator(".view-looks")).to_contain_text("angles")
        self.eventually(lambda: self.along("r", "farthest"), 3)
        expect(self.page.locator("#plot-words")).to_contain_text("3 petals")
        self.assertGreater(self.lane("r").locator(".strip-negative").count(), 0)
        self.type_line("P = (2; 60°)")
        expect(self.lane("P").locator(".lane-polar")).to_have_text("(2; 60°)")

    def test_a_letter_with_a_value_is_asked_about_once(self):
        self.open_with("t = 1", "(cos t, sin t)")
        point = self.lane("A")
        expect(point).to_contain_text("t has a value here, so this is a point")
        point.get_by_role("button", name="Keep the point").click()
        expect(point).not_to_contain_text("t has a value here")
        self.page.get_by_role("button", name="Undo keeping a point in A").click()
        self.lane("A").get_by_role("button", name="Let t run: a curve").click()
        self.eventually(lambda: self.along("A", "meets-x"), 2)

    def test_a_table_runs_along_a_curve_and_its_rows_put_the_point(self):
        self.open()
        self.type_line("(2cos t, sin t)")
        self.page.get_by_role("tab", name="Values").click()
        self.page.locator("#table-variable").select_option("t")
        expect(self.page.locator("#table-stop")).to_have_value("2π")
        expect(self.page.locator("#values")).to_contain_text("0.866025")
        self.page.locator("#values").get_by_role("button", name="0.523598775598").first.click()
        self.eventually(lambda: abs(self.value_of("A") - math.pi / 6) < 1e-3, True)

    def test_solve_is_asked_in_words_where_two_lanes_meet(self):
        self.open()
        self.type_line("C = (2cos t, 2sin t)")
        self.type_line("x")
        self.page.get_by_role("tab", name="Solve").click()
        self.page.fill("#equation", "where do C and f meet?")
        self.page.press("#equation", "Enter")
        expect(self.page.locator("#solutions")).to_contain_text("C and f meet twice here.")
        expect(self.page.locator("#solutions")).to_contain_text("1.41421")
        self.page.locator("#solutions tr[data-solution]").first.get_by_role("button").first.click()
        expect(self.page.locator("#reading-x")).to_have_value(re.compile(r"1\.41421"))
        self.page.fill("#equation", "where do C and g meet")
        self.page.press("#equation", "Enter")
        expect(self.page.get_by_text("There is no g on this sheet")).to_be_visible()

    def test_points_are_rows_of_a_table(self):
        self.open()
        self.type_line("P = (3, 4)")
        self.type_line("x^2")
        self.page.get_by_role("tab", name="Values").click()
        self.page.locator("#table-by").select_option("points")
        row = self.page.locator("#values tbody tr")
        expect(row).to_have_count(1)
        self.assertEqual(row.inner_text().split(), ["P", "3", "4", "9"])
        self.type_line("Q = (1, P_x)")
        expect(row).to_have_count(2)
        self.page.get_by_role("button", name="Delete P").click()

    def test_a_framed_figure_stays_whole_when_the_plot_gets_lower(self):
        self.open()
        self.type_line("(cos t, sin t)")
        for k in range(5):
            self.type_line(f"{k} + x/100")
        left, right, bottom, top = self.view()
        self.assertLess(bottom, -1)
        self.assertGreater(top, 1)
        self.assertLess(left, -1)
        self.assertGreater(right, 1)

    def test_on_a_phone_the_figure_and_its_strip_are_in_sight(self):
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.open()
        self.type_line("(cos 3t, sin 2t)")
        expect(self.lane("A").locator(".thumb")).to_be_in_viewport()
        expect(self.page.locator("#plot")).to_be_in_viewport()
        wide = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)
