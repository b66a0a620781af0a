"""Blocks of equations in a real browser: mistakes mended, tables run, curves that follow."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest

CRANE = "rope = load/4\nload = mass g\nmass = 850 kg"


class Equations(BrowserTest):
    def open_working(self):
        self.open()
        self.turn_to("Working")
        expect(self.page.locator("#work-entry")).to_be_focused()

    def add(self, text):
        count = self.page.locator(".block").count()
        self.page.get_by_role("button", name="Add a block of equations").click()
        expect(self.page.locator(".block")).to_have_count(count + 1)
        expect(self.field(count)).to_be_focused()
        self.field(count).fill(text)

    def field(self, number=0):
        return self.page.locator(".block textarea").nth(number)

    def answer(self, name):
        row = self.page.locator(".block-answers tr").filter(
            has=self.page.get_by_role("rowheader", name=name, exact=True)
        )
        return row.first

    def test_a_unit_mistake_in_a_block_is_found_and_mended(self):
        self.open_working()
        self.add(CRANE + "\nboth = load + mass")
        expect(self.answer("load")).to_contain_text("8.336 kN")
        expect(self.answer("rope")).to_contain_text("from 1")
        wrong = self.page.locator(".block-group .work-why")
        expect(wrong).to_contain_text("cannot be added or compared")
        expect(self.page.locator(".block-lines .is-wrong")).to_have_count(1)
        self.field().fill(CRANE + "\nboth = load + mass g")
        expect(self.answer("both")).to_contain_text("16.67 kN")
        expect(self.page.locator(".block-lines .is-wrong")).to_have_count(0)
        expect(self.page.locator(".block-found")).to_contain_text("g is the standard gravity")
        self.page.get_by_role("button", name="read g as a name").click()
        expect(wrong).to_contain_text("too few", ignore_case=True)
        self.page.get_by_role("button", name="Undo").click()
        expect(self.answer("both")).to_contain_text("16.67 kN")

    def test_a_table_runs_over_a_block_and_is_drawn(self):
        self.open_working()
        self.add(CRANE)
        expect(self.answer("load")).to_contain_text("kN")
        self.page.locator(".block-run summary").click()
        for name, value in (("low", "100 kg"), ("high", "1000 kg"), ("count", "4")):
            self.page.fill(f"[data-run={name}]", value)
        self.page.select_option("[data-run=name]", "mass")
        self.page.get_by_role("button", name="Make the table").click()
        rows = self.page.locator(".block-rows tbody tr")
        expect(rows).to_have_count(4)
        expect(rows.nth(3)).to_contain_text("9.807")
        self.page.get_by_role("button", name="Draw as points").click()
        expect(self.page.locator(".lane")).to_have_count(1)
        expect(self.page.locator(".lane")).to_contain_text("4 rows")
        self.page.reload()
        self.turn_to("Working")
        expect(self.page.locator("[data-run=low]")).to_have_value("100 kg")
        self.page.fill("[data-run=count]", "many")
        self.page.get_by_role("button", name="Make the table").click()
        expect(self.page.locator(".block-table")).to_contain_text("whole number")

    def test_a_slider_moves_an_answer_and_the_curve_that_uses_it(self):
        self.open()
        self.type_line("k = 2")
        self.turn_to("Working")
        self.add("depth = 3 + k u\nu = k - 1")
        expect(self.answer("depth")).to_contain_text("5")
        self.page.fill("#work-entry", "2 depth")
        self.page.press("#work-entry", "Enter")
        expect(self.page.locator(".work-result").first).to_contain_text("10")
        self.page.fill("#entry", "f(x) = depth x")
        self.page.press("#entry", "Enter")
        self.page.fill("#reading-x", "2")
        self.page.press("#reading-x", "Enter")
        reading = self.page.locator(".reading-rows")
        expect(reading).to_contain_text("10")
        slider = self.page.get_by_role("slider").first
        slider.focus()
        slider.press("End")
        expect(self.answer("depth")).to_contain_text("23")
        expect(self.page.locator(".work-result").first).to_contain_text("46")
        expect(reading).to_contain_text("46")

    def test_of_several_solutions_one_is_chosen_and_bounds_leave_one(self):
        self.open_working()
        self.add("depth = 3 + 2u\ndraught = u^2\ndepth = draught")
        expect(self.answer("u")).to_contain_text("−1")
        self.page.fill("#work-entry", "u + 10")
        self.page.press("#work-entry", "Enter")
        expect(self.page.locator(".work-result")).to_contain_text("= 9")
        self.page.get_by_role("radio", name="solution 2").check()
        expect(self.page.locator(".work-result")).to_contain_text("= 13")
        self.page.get_by_role("button", name="Bounds, a start and the unit of u").click()
        self.page.locator('[data-of="u"] [data-field=high]').fill("0")
        self.page.locator('[data-of="u"] [data-field=high]').press("Tab")
        gone = re.compile("solution 2 is not there now", re.IGNORECASE)
        expect(self.page.locator(".block-found")).to_contain_text(gone)
        expect(self.page.locator(".work-line")).to_contain_text("waits for u")
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.locator(".work-result")).to_contain_text("= 13")

    def test_what_is_wrong_stands_at_its_line_with_a_mend(self):
        self.open_working()
        self.add("p = (3\nq = 4")
        line = self.page.locator(".block-lines .is-wrong")
        expect(line).to_contain_text("still open")
        expect(self.answer("q")).to_contain_text("4")
        self.page.get_by_role("button", name="write p = (3)").click()
        expect(self.answer("p")).to_contain_text("3")
        expect(self.field()).to_have_value("p = (3)\nq = 4")
        self.page.locator(".block-more summary").click()
        self.page.get_by_role("button", name="Put to rest").click()
        expect(self.page.locator(".block-found")).to_contain_text("At rest")
        self.page.get_by_role("button", name="Wake").click()
        expect(self.answer("q")).to_contain_text("4")
        self.page.locator(".block").get_by_role("button", name="Delete").click()
        expect(self.page.locator(".block")).to_have_count(0)

    def test_the_demo_on_a_phone(self):
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.open("/demo/crane")
        self.turn_to("Working")
        expect(self.answer("rope")).to_contain_text(re.compile(r"2\.084 kN"))
        width = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(width, 390)
