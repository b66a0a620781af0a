"""A sealed session from both sides: entering, leaving, a lost network, a reload, the end."""

import re
import time
import urllib.parse

from playwright.sync_api import expect

from axispath.device.standin import Device
from axispath.exchange.records import verify
from tests.browser.harness import BrowserTest


class Sealed(BrowserTest):
    def hand_out(self, *off, **more):
        """The sheet handed out under a seal; gives its link, and stays on the page."""
        self.page.get_by_role("link", name="Hand out").click()
        self.page.get_by_text("Seal it:").click()
        self.page.get_by_label("seal it", exact=True).check()
        for title in off:
            self.page.locator(".seal-choice").get_by_label(title, exact=True).check()
        if more.get("device"):
            self.page.get_by_label("a managing device").check()
        self.page.get_by_label("word to enter with").fill("tide")
        self.page.get_by_role("button", name="Hand out").click()
        return self.page.get_by_label("Link 1").input_value()

    def enter(self, page, link, name="Ada"):
        page.goto(link)
        page.get_by_label("Your name").fill(name)
        page.get_by_label("The word to enter with").fill("tide")
        page.get_by_role("button", name="Begin").click()
        expect(page.locator(".sealed")).to_contain_text(f"{name}:")

    def record(self, page, link):
        told = page.request.get(f"{link}/record.json").json()
        return [entry["kind"] for entry in told["entries"]]

    def question(self):
        self.turn_to("Practise")
        self.page.get_by_text("Write a question").click()
        self.page.get_by_label("Kind").select_option(label="find all landmarks of a kind")
        self.page.get_by_role("button", name="Keep the question").click()
        expect(self.page.locator(".question")).to_have_count(1)

    def test_a_session_with_leaving_a_lost_network_a_reload_and_the_end(self):
        self.open_with("f(x) = x^2 - a", "a = 4")
        self.question()
        link = self.hand_out("Solve", "landmarks, on the plot too")
        page = self.visitor()
        self.enter(page, link)
        expect(page.get_by_role("tab", name="Solve")).to_have_count(0)
        expect(page.get_by_role("tab", name="Landmarks")).to_have_count(0)
        expect(page.get_by_role("link", name="Shelf")).to_have_count(0)
        expect(page.locator(".lanes-foot")).to_contain_text("landmarks are covered")
        # The student leaves for another page, and comes back.
        other = page.context.new_page()
        other.goto(f"{self.server.url}/handbook")
        expect(other.locator("h1")).to_contain_text("switched off")
        other.close()
        page.evaluate("window.dispatchEvent(new Event('blur'))")
        page.evaluate("window.dispatchEvent(new Event('focus'))")
        self.eventually(lambda: {"left", "back"} <= set(self.record(page, link)), True)
        # The network goes; what is changed meanwhile is kept, and sent when it is back.
        page.context.set_offline(True)
        slider = page.get_by_role("slider", name="a", exact=True)
        slider.focus()
        page.keyboard.press("PageUp")
        expect(page.locator(".sealed")).to_contain_text("The network is away")
        page.context.set_offline(False)
        self.eventually(lambda: "found" in self.record(page, link), True)
        self.eventually(lambda: "changed" in self.record(page, link), True)
        turned = slider.get_attribute("aria-valuenow")
        self.assertNotEqual(turned, "4")
        page.reload()
        expect(slider).to_have_attribute("aria-valuenow", turned)
        page.get_by_role("tab", name="Practise").click()
        page.locator("[data-answer] [name=text]").fill("2")
        page.get_by_role("button", name="Answer").click()
        expect(page.locator(".question .try").first).to_be_visible()
        # Whoever handed it out sees who is in, and ends it.
        self.page.get_by_role("link", name="Answers").click()
        row = self.page.get_by_role("row", name="Ada").first
        expect(row).to_contain_text("here")
        row.get_by_role("button", name="Give Ada more minutes").click()
        expect(self.page.get_by_role("row", name="Ada").first).to_contain_text("(10 more)")
        self.page.get_by_role("button", name="End it now for everybody").click()
        expect(self.page.get_by_role("row", name="Ada").first).to_contain_text("handed in")
        page.reload()
        expect(page.locator(".sealed")).to_contain_text("handed in")
        expect(page.locator("#entry")).to_be_hidden()
        expect(slider).to_have_attribute("aria-valuenow", turned)  # it can be read
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Sheets, answers and records").click()
        with open(download.value.path(), "rb") as file:
            found = verify(file.read(), [page.request.get(f"{link}/record.json").body()])
        self.assertEqual(found.wrong, [])
        self.assertIn("agrees with the copy of Ada", " ".join(found.told))
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Answers as CSV").click()
        with open(download.value.path(), encoding="utf-8-sig") as file:
            self.assertIn("Ada", file.read())

    def test_two_windows_and_handing_in_by_hand(self):
        self.open_with("f(x) = x - 1")
        link = self.hand_out()
        page = self.visitor()
        self.enter(page, link)
        second = page.context.new_page()
        second.goto(link)
        expect(second.locator(".sealed")).to_contain_text("Ada:")
        page.fill("#entry", "g(x) = 2x")
        page.press("#entry", "Enter")
        expect(page.locator(".lane")).to_have_count(2)
        second.fill("#entry", "h(x) = 3x")
        second.press("#entry", "Enter")
        conflict = second.locator(".notice.conflict")
        expect(conflict).to_be_visible()
        conflict.get_by_role("button", name="Go on with the other version").click()
        expect(second.locator(".lane")).to_have_count(2)
        expect(second.locator("#entry")).to_have_value("h(x) = 3x")
        button = page.get_by_role("button", name="Hand in")
        button.click()
        page.get_by_role("button", name="Hand in for good").click()
        expect(page.locator(".sealed")).to_contain_text("handed in")
        second.press("#entry", "Enter")
        # At the line, or beside the seal where this window has learnt of it just before.
        places = second.locator("[role=alert], .sealed [role=status]")
        expect(places.filter(has_text="handed in", visible=True).first).to_be_visible()

    def test_a_wrong_clock_and_the_end_while_the_network_is_away(self):
        self.open_with("f(x) = x - 1")
        link = self.hand_out()
        page = self.visitor()
        page.clock.set_system_time("2001-01-01T00:00:00")
        self.enter(page, link)
        expect(page.locator(".sealed")).to_contain_text(re.compile(r"Ada: 4[345]:\d\d left"))
        page.context.set_offline(True)
        page.fill("#entry", "g(x) = 2x")
        page.press("#entry", "Enter")
        expect(page.locator(".status")).to_contain_text("waiting")
        self.page.get_by_role("link", name="Answers").click()
        self.page.get_by_role("button", name="End it now for everybody").click()
        page.context.set_offline(False)
        expect(page.locator(".sealed")).to_contain_text("came too late")
        expect(page.locator(".sealed")).to_contain_text("g(x) = 2x")
        self.assertIn("late", self.record(page, link))
        expect(page.locator(".lane")).to_have_count(1)

    def test_a_managing_device_locks_and_unlocks(self):
        self.open_with("f(x) = x - 1")
        link = self.hand_out(device=True)
        page = self.visitor()
        self.enter(page, link)
        self.page.get_by_role("link", name="Answers").click()
        key = self.page.locator("p code").inner_text()
        sitting = self.page.locator("[name=sitting]").first.get_attribute("value")
        device = Device(link, key)
        self.assertEqual(
            urllib.parse.urlparse(device.asked()["page"]).path, urllib.parse.urlparse(link).path
        )
        self.assertEqual(device.report(sitting, True), 200)
        self.assertEqual(device.report(sitting, True, int(time.time()) - 4000), 422)
        self.page.reload()
        expect(self.page.get_by_role("row", name="Ada").first).to_contain_text("· locked")
        self.assertEqual(Device(link, "x" * 32).report(sitting, False), 422)

    def test_answers_are_collected_under_a_name(self):
        self.open_with("f(x) = x^2 - 4")
        self.question()
        self.page.get_by_role("link", name="Hand out").click()
        self.page.get_by_label("collect answers").check()
        self.page.get_by_role("button", name="Hand out").click()
        link = self.page.get_by_label("Link 1").input_value()
        page = self.visitor()
        page.goto(link)
        page.get_by_role("tab", name="Practise").click()
        expect(page.locator(".collected")).to_contain_text("Answers are collected here")
        page.locator("[data-answer] [name=text]").fill("±2")
        page.get_by_role("button", name="Answer").click()
        expect(page.locator(".practise-trouble")).to_contain_text("Give a name first")
        page.get_by_label("Your name").fill("Ida")
        page.get_by_role("button", name="Begin").click()
        expect(page.locator(".collected")).to_contain_text("You answer as Ida")
        expect(page.locator("[data-answer] [name=text]")).to_have_value("±2")
        page.get_by_role("button", name="Answer").click()
        expect(page.locator(".question .try.is-right")).to_be_visible()
        self.page.get_by_role("link", name="Answers").click()
        expect(self.page.get_by_role("row", name="Find all zeros").first).to_contain_text("Ida")
        self.page.get_by_role("button", name="Delete all that was collected").click()
        expect(self.page.get_by_text("Nobody has begun yet")).to_be_visible()
