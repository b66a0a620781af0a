"""Pictures ahead of the hand: whatever the network does, what shows is what the hand has turned."""

import json
import random
import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest

WATCH = """
window.seen = [];
window.addEventListener("axispath-drawn", (event) => {
  const shown = event.detail.shows.find((slide) => slide.do === "slide")?.value;
  if (shown !== undefined) seen.push(shown);
});
"""


class Ahead(BrowserTest):
    def with_slider(self):
        self.open()
        for line in ("a = 0", "x^2 - a", "sin(a x)"):
            self.type_line(line)
        expect(self.page.locator(".lane")).to_have_count(3)
        self.eventually(lambda: self.marks("f", "zero"), [0])
        self.page.evaluate(WATCH)
        self.addCleanup(self.page.unroute_all, behavior="wait")

    def drag(self, *shares):
        track = self.lane("a").locator(".slider").bounding_box()
        y = track["y"] + track["height"] / 2
        place = [track["x"] + 16 + (track["width"] - 32) * share for share in shares]
        self.page.mouse.move(place[0], y)
        self.page.mouse.down()
        for x in place[1:]:
            self.page.mouse.move(x, y, steps=25)

    def turned(self):
        thumb = self.page.get_by_role("slider", name="a", exact=True)
        return float(thumb.get_attribute("aria-valuenow"))

    def last(self):
        return self.page.evaluate("seen.at(-1)")

    def test_one_request_brings_many_pictures(self):
        self.own_page()
        self.with_slider()
        asked = []
        self.page.on(
            "request",
            lambda one: one.url.endswith("/frames") and asked.append(json.loads(one.post_data)),
        )
        self.drag(0.5, 0.9)
        self.eventually(lambda: self.last() == self.turned(), True)
        self.assertTrue(any(len(one["states"]) > 4 for one in asked))
        self.page.mouse.up()

    def test_answers_out_of_order_are_never_shown_out_of_order(self):
        self.with_slider()
        chance = random.Random(7)

        def late(route):  # a network that takes its time
            self.page.wait_for_timeout(chance.choice((0, 30, 250)))
            route.continue_()

        for what in ("frames", "picture"):
            self.page.route(re.compile(f"/{what}$"), late)
        self.drag(0.3, 0.95)
        self.eventually(lambda: self.last() == self.turned(), True)
        seen = self.page.evaluate("seen")
        self.assertEqual(seen, sorted(seen))
        # The zeros that are shown are those of the place where the hand rests.
        root = round(self.turned() ** 0.5, 3)
        self.eventually(lambda: [round(x, 3) for x in self.marks("f", "zero")], [-root, root])
        self.page.mouse.up()

    def test_a_server_that_has_no_pictures_ahead_is_asked_for_single_ones(self):
        self.with_slider()
        for what in ("frames", "marks"):
            self.page.route(re.compile(f"/{what}$"), lambda route: route.fulfill(status=500))
        self.drag(0.5, 0.9)
        self.eventually(lambda: self.last() == self.turned(), True)
        value = self.turned()
        self.page.mouse.up()
        expect(self.lane("a")).to_have_attribute("data-text", f"a = {value:g}")
        root = round(value**0.5, 4)
        self.eventually(lambda: [round(x, 4) for x in self.marks("f", "zero")], [-root, root])

    def test_play_shows_every_step_and_stops_where_it_is(self):
        self.with_slider()
        button = self.lane("a").get_by_role("button", name="Play a")
        button.click()
        self.eventually(lambda: self.page.evaluate("new Set(seen).size > 20"), True)
        button.click()
        seen = self.page.evaluate("seen")
        self.assertEqual(seen, sorted(seen))
        expect(self.lane("a")).to_have_attribute("data-text", f"a = {self.turned():g}")

    def test_what_rests_is_proved_and_the_same_as_after_loading(self):
        self.with_slider()
        self.drag(0.5, 0.8)
        self.page.mouse.up()
        expect(self.page.locator("#landmarks")).to_contain_text("Nothing missed")
        before = self.marks("f", "zero"), self.marks("g", "zero")
        self.page.reload()
        self.eventually(lambda: (self.marks("f", "zero"), self.marks("g", "zero")), before)


class Opening(BrowserTest):
    def test_a_page_comes_with_its_curves(self):
        self.open()
        self.type_line("x^2 - 4")
        expect(self.lane("f")).to_be_visible()
        self.eventually(lambda: "/sheet/" in self.page.url, True)
        self.addCleanup(self.page.unroute_all, behavior="wait")
        self.page.route(re.compile(r"/(picture|path|frames)$"), lambda route: route.abort())
        self.page.reload()
        self.eventually(lambda: self.ink(3, 5, (27, 94, 75)), True)
