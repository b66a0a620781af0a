"""Readings, tangent and area, looks, trails, pictures, keys: what else a sheet can do."""

import re

from playwright.sync_api import expect

from tests.browser.harness import WAIT, BrowserTest


class Instrument(BrowserTest):
    def reading(self, x):
        self.page.fill("#reading-x", x)
        self.page.press("#reading-x", "Enter")

    def test_two_readings_a_tangent_and_an_area(self):
        self.open()
        self.type_line("x^2")
        self.type_line("g(x) = x + 2")
        self.reading("1/2 + 1/2")
        row = self.page.locator(".reading-row").first
        expect(row).to_contain_text("slope 2")
        self.page.get_by_role("button", name="tangent").click()
        found = self.page.locator(".reading-found").first
        expect(found).to_contain_text("y = 2 x − 1")
        self.page.locator("#plot").focus()
        self.page.keyboard.press("h")
        self.reading("3")
        expect(row).to_contain_text("Δy 8 · slope between 4")
        self.page.get_by_role("button", name="area", exact=True).click()
        area = self.page.locator(".reading-found").filter(has_text="area")
        expect(area).to_contain_text("area 8.66667 (proven)")
        self.page.get_by_label("The area reaches to").select_option(label="g")
        # From 1 to 2 the line is higher: 7/6; from 2 to 3 the parabola: 11/6.
        expect(area).to_contain_text("area 3 (proven)")
        found.get_by_role("button", name="keep as a lane").click()
        expect(self.page.locator(".lane")).to_have_count(3)
        self.reading("1/0")
        expect(self.page.locator(".reading .why[role=alert]")).to_be_visible()

    def test_title_labels_and_a_legend_that_moves(self):
        self.open("/demo/ferry-window")
        self.page.get_by_role("button", name="numbers, title…").click()
        looks = self.page.get_by_role("dialog", name="How the plot looks")
        looks.get_by_label("Title").fill("Tide at Skerry Point\n$h(x) = x^2$")
        looks.get_by_label("Title").blur()
        expect(self.page.locator("#plot-title .katex")).to_be_visible()
        looks.get_by_label("legend on the plot").check()
        select = looks.get_by_role("group", name="x-axis").locator("select")
        select.select_option("step")
        looks.get_by_label("Step between the numbers of the x-axis").fill("0")
        looks.get_by_label("Step between the numbers of the x-axis").blur()
        expect(looks.locator(".why")).to_contain_text("above 0")
        looks.get_by_label("Step between the numbers of the x-axis").fill("3")
        looks.get_by_label("Step between the numbers of the x-axis").blur()
        expect(looks.locator(".why")).to_be_hidden()
        looks.get_by_role("button", name="Close").click()
        self.saved()
        legend = self.page.get_by_role("group", name=re.compile("Legend"))
        expect(legend.locator("li")).to_have_count(2)
        before = legend.bounding_box()
        legend.focus()
        self.page.keyboard.press("ArrowRight")
        self.eventually(lambda: legend.bounding_box()["x"], lambda x: x > before["x"] + 5)
        self.saved()
        self.page.reload()
        expect(legend).to_be_visible()
        expect(self.page.locator("#plot-title")).to_contain_text("Tide at Skerry Point")

    def test_lanes_are_styled_folded_and_dragged(self):
        self.open("/demo/ferry-window")
        lane = self.lane("d")
        lane.get_by_role("button", name="More for d").click()
        lane.get_by_label("Thickness of d").select_option("thick")
        lane.get_by_label("Own colour of d").fill("#ffee55")
        # A colour that would not be seen on the ground is darkened until it is.
        self.eventually(
            lambda: self.page.evaluate(
                "getComputedStyle(document.querySelector('.lane[data-name=d] .swatch')).color"
            ),
            lambda colour: colour != "rgb(255, 238, 85)" and "rgb" in colour,
        )
        self.saved()
        lane.locator(".grip").click()
        expect(lane).to_have_class(re.compile("is-folded"))
        grip = lane.locator(".grip").bounding_box()
        first = self.lane("h").bounding_box()
        self.page.mouse.move(grip["x"] + 8, grip["y"] + 8)
        self.page.mouse.down()
        self.page.mouse.move(grip["x"] + 8, first["y"] + 4, steps=6)
        self.page.mouse.up()
        expect(self.page.locator(".lane").first).to_have_attribute("data-name", "d")

    def test_a_trail_stays_through_zooming_until_it_is_cleared(self):
        self.open()
        self.type_line("a = 1")
        self.type_line("a x")
        lane = self.lane("f")
        lane.get_by_role("button", name="More for f").click()
        lane.get_by_label("Trail of f").select_option("curve")
        expect(self.page.get_by_role("button", name="Undo the style of f")).to_be_enabled()
        self.page.get_by_role("slider", name="a", exact=True).focus()
        for _ in range(6):
            self.page.keyboard.press("PageUp")
        clear = self.page.get_by_role("button", name="Clear trails")
        expect(clear).to_be_visible()
        self.saved()
        self.page.locator("#plot").press("Home")
        faint = tuple(
            round(0.28 * a + 0.72 * b) for a, b in zip((200, 80, 30), (255, 253, 248), strict=True)
        )
        self.eventually(lambda: self.ink(2, 4, faint, 3), True)
        self.page.locator("#plot").press("+")
        self.eventually(lambda: self.ink(1.5, 3, faint, 3), True)
        self.page.reload()
        expect(clear).to_be_visible()
        self.page.locator("#plot").press("c")
        expect(clear).to_be_hidden()

    def test_pictures_are_taken_away(self):
        self.open("/demo/ferry-window")
        self.page.get_by_role("button", name="Take the sheet or a picture away, or print").click()
        dialog = self.page.get_by_role("dialog", name="Take away")
        for kind, start in (
            ("SVG drawing", b"<?xml"),
            ("PNG picture", b"\x89PNG"),
            ("PDF drawing", b"%PDF"),
        ):
            if not dialog.is_visible():
                self.page.get_by_role(
                    "button", name="Take the sheet or a picture away, or print"
                ).click()
            dialog.get_by_label(kind).check()
            with self.page.expect_download() as download:
                dialog.get_by_role("button", name="Save", exact=True).click()
            with open(download.value.path(), "rb") as file:
                self.assertTrue(file.read(8).startswith(start), kind)
            self.assertTrue(download.value.suggested_filename.startswith("Ferry window."))
        self.page.get_by_role("button", name="Take the sheet or a picture away, or print").click()
        dialog.get_by_label("Width of the picture").fill("9")
        dialog.get_by_role("button", name="Save", exact=True).click()
        expect(dialog.locator(".why")).to_contain_text("width of a picture")

    def test_a_lane_that_takes_too_long_says_so_and_others_go_on(self):
        self.open()
        self.type_line("sum(digamma(k x) for k = 1 to 120)")
        self.type_line("x - 1")
        slow = self.page.locator(".plot-slow")
        # It takes all the processor time that it is given, of which others have their share.
        patient = WAIT * 4
        expect(slow).to_contain_text("f takes", timeout=patient * 1000)
        self.eventually(lambda: self.marks("g", "zero"), [1], patient)
        expect(slow).to_contain_text("the time was cut", timeout=patient * 1000)

    def test_the_server_goes_away_in_the_middle_of_a_drag(self):
        self.open()
        self.type_line("a = 1")
        self.type_line("a x - 1")
        self.eventually(lambda: self.marks("f", "zero"), [1])
        thumb = self.page.get_by_role("slider", name="a", exact=True)
        box = thumb.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 40, y, steps=4)
        self.context.set_offline(True)
        self.page.mouse.move(x + 90, y, steps=6)
        self.page.mouse.up()
        value = thumb.get_attribute("aria-valuenow")
        expect(self.page.locator(".status")).to_contain_text("waiting")
        self.context.set_offline(False)
        self.saved()
        self.assertEqual(self.lane("a").get_attribute("data-text"), f"a = {value}")

    def test_a_window_of_300_by_300_still_works(self):
        self.page.set_viewport_size({"width": 300, "height": 300})
        self.open("/demo/ferry-window")
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 300)
        self.eventually(
            lambda: self.page.locator("#plot").bounding_box()["height"], lambda h: h > 90
        )
