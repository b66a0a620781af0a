"""Calculations between two graphs: lines, their results, and what follows them."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Working(BrowserTest):
    exact = True

    def open_working(self):
        self.open()
        self.page.get_by_role("tab", name="Working").click()
        expect(self.page.locator("#work-entry")).to_be_focused()

    def work(self, text):
        self.page.fill("#work-entry", text)
        self.page.press("#work-entry", "Enter")

    def line(self, number):
        return self.page.locator(".work-line").nth(number)

    def test_a_fraction_a_root_and_a_line_changed_with_all_below(self):
        self.open_working()
        self.work("a = 10/14")
        self.work("√12")
        self.work("ans + a")
        expect(self.line(0)).to_contain_text("= 5/7")
        expect(self.line(1)).to_contain_text("= 2√3")
        expect(self.line(2)).to_contain_text("≈ 4.17839")
        # A lane of the sheet uses the same name, and follows too.
        self.type_line("f(x) = a x")
        expect(self.page.locator(".lane")).to_have_count(1)
        self.line(0).locator("[data-edit]").click()
        field = self.line(0).locator("input")
        field.fill("a = 2")
        field.press("Enter")
        expect(self.line(2)).to_contain_text("≈ 5.4641")
        self.page.fill("#reading-x", "3")
        self.page.press("#reading-x", "Enter")
        expect(self.page.locator(".reading-rows")).to_contain_text("6")
        self.page.locator("#work-entry").press("ArrowUp")
        expect(self.page.locator("#work-entry")).to_have_value("ans + a")

    def test_wrong_lines_notation_and_a_line_sent_to_the_sheet(self):
        self.open_working()
        self.work("2 )")
        expect(self.page.locator("#working-page > .why")).to_contain_text("closes nothing")
        expect(self.page.locator("#work-entry")).to_have_value("2 )")
        self.work("x^2 - 1")
        self.work("20000/7")
        self.page.select_option("#work-notation", "engineering")
        expect(self.line(1)).to_contain_text("2.85714 × 10³")
        expect(self.page.get_by_role("button", name=re.compile("Undo how numbers"))).to_be_visible()
        self.line(0).locator("[data-send]").click()
        expect(self.page.locator(".lane")).to_have_count(1)
        expect(self.page.locator(".work-line")).to_have_count(1)
        self.eventually(lambda: self.marks("f", "zero"), [-1, 1])
