"""Turning a number: drag, keys, play; everything that depends on it follows."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Sliders(BrowserTest):
    def value(self, name="a"):
        return float(self.lane(name).get_attribute("data-text").partition("=")[2])

    def thumb(self, name="a"):
        return self.page.get_by_role("slider", name=name, exact=True)

    def with_slider(self):
        self.open()
        self.type_line("a (x - 1)")
        expect(self.lane("f")).to_contain_text("waits for a")
        self.lane("f").get_by_role("button", name="make a a slider").click()
        expect(self.thumb()).to_be_visible()
        self.eventually(lambda: self.marks("f", "zero"), [1])

    def test_all_names_that_are_missing_become_sliders_at_once(self):
        self.open()
        self.type_line("a sin(b x) + c")
        self.lane("f").get_by_role("button", name="make all 3 sliders").click()
        for name in "abc":
            expect(self.thumb(name)).to_be_visible()
        self.page.keyboard.press("Control+z")
        expect(self.page.locator(".lane")).to_have_count(1)

    def test_from_an_unknown_name_to_a_dragged_slider(self):
        self.with_slider()
        self.type_line("x^2 - a")
        self.eventually(lambda: self.marks("g", "zero"), [-1, 1])
        strip = self.lane("a").locator(".slider").bounding_box()
        start = self.thumb().bounding_box()
        y = start["y"] + 20
        self.page.mouse.move(start["x"] + start["width"] / 2, y)
        self.page.mouse.down()
        self.page.mouse.move(strip["x"] + 16 + (strip["width"] - 32) * 0.9, y, steps=8)
        expect(self.thumb()).to_have_attribute("aria-valuenow", "4")
        # While it moves the landmarks follow, and say that they are not proved yet.
        self.eventually(lambda: self.marks("g", "zero"), [-2, 2])
        expect(self.page.locator("#landmarks")).to_contain_text("proved when it rests")
        self.page.mouse.up()
        expect(self.page.locator("#landmarks")).to_contain_text("Nothing missed")
        self.eventually(self.value, 4)
        self.page.get_by_role("button", name="Undo sliding a").click()
        self.eventually(self.value, 1)
        self.eventually(lambda: self.marks("g", "zero"), [-1, 1])

    def test_keys_ends_and_steps(self):
        self.with_slider()
        self.thumb().focus()
        self.page.keyboard.press("ArrowRight")
        self.eventually(self.value, 1.1)
        self.thumb().focus()
        self.page.keyboard.press("Shift+ArrowRight")
        self.eventually(self.value, 1.11)
        self.page.fill('[data-slider="high"]', "2π")
        self.page.press('[data-slider="high"]', "Enter")
        self.saved()
        self.thumb().focus()
        self.page.keyboard.press("End")
        self.eventually(self.value, 6.28318530718)
        self.lane("a").get_by_role("button", name="More for a").click()
        self.page.fill('[data-slider="step"]', "1/4")
        self.page.press('[data-slider="step"]', "Enter")
        self.saved()
        self.thumb().focus()
        self.page.keyboard.press("Home")
        self.page.keyboard.press("ArrowRight")
        self.eventually(self.value, -4.75)
        self.page.fill('[data-slider="low"]', "9")
        self.page.press('[data-slider="low"]', "Enter")
        expect(self.lane("a").locator(".domain .why")).to_contain_text("start below its end")

    def test_play_moves_on_and_stops_where_it_is(self):
        self.with_slider()
        before = self.value()
        play = self.lane("a").get_by_role("button", name="Play a")
        play.click()
        expect(play).to_have_attribute("aria-pressed", "true")
        self.eventually(
            lambda: float(self.thumb().get_attribute("aria-valuenow")), lambda v: v > before + 0.3
        )
        self.page.locator("#plot").focus()
        self.page.keyboard.press("Escape")
        expect(play).to_have_attribute("aria-pressed", "false")
        self.eventually(self.value, lambda v: v > before + 0.3)
        self.saved()

    def test_lanes_move_change_colour_and_are_duplicated(self):
        self.open()
        self.type_line("x^2")
        self.type_line("depth(x) = 3x")
        names = self.page.locator(".lane")
        expect(names).to_have_count(2)
        self.lane("depth").locator(".formula").focus()
        self.page.keyboard.press("Alt+ArrowUp")
        expect(names.first).to_have_attribute("data-name", "depth")
        self.lane("depth").get_by_role("button", name="More for depth").click()
        self.lane("depth").get_by_role("button", name="Colour 5").click()
        expect(self.lane("depth")).to_have_attribute("data-colour", "4")
        self.lane("depth").get_by_label("note").fill("what the ferry needs")
        self.lane("depth").get_by_label("note").press("Enter")
        expect(self.lane("depth").locator(".lane-comment")).to_have_text("what the ferry needs")
        self.lane("depth").get_by_role("button", name="Duplicate").click()
        expect(self.lane("depth_2")).to_have_attribute(
            "data-text", re.compile(r"depth_2\(x\) = 3x")
        )
        expect(names).to_have_count(3)

    def test_light_and_dark_follow_the_system_or_the_choice(self):
        ground = "() => getComputedStyle(document.body).backgroundColor"
        self.page.emulate_media(color_scheme="dark")
        self.open()
        dark = self.page.evaluate(ground)
        self.page.get_by_role("button", name="Light or dark").click()
        light = self.page.evaluate(ground)
        self.assertNotEqual(dark, light)
        self.page.reload()
        self.assertEqual(self.page.evaluate(ground), light)
        self.page.goto(self.server.url + "/shelf")
        self.assertEqual(self.page.evaluate(ground), light)
