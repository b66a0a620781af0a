"""A student's first hour, as one story and some detours."""

import math
import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest

G = "g(x) = 2 sin(3x) for -2 <= x <= 4"


class Story(BrowserTest):
    def two_functions(self):
        self.open()
        self.type_line("x^2 - x - 3")
        expect(self.lane("f")).to_be_visible()
        self.type_line(G)
        expect(self.lane("g")).to_be_visible()
        self.saved()

    def test_a_blank_sheet_stands_there_with_the_cursor_in_the_entry(self):
        self.open()
        expect(self.page.locator("#entry")).to_be_focused()
        expect(self.page.locator("#unit-rad")).to_be_checked()
        expect(self.page.locator(".status")).to_have_text("not changed yet")
        self.assertEqual([c["name"] for c in self.context.cookies() if c["name"] == "person"], [])

    def test_a_function_is_named_typeset_drawn_framed_and_understood(self):
        self.open()
        self.type_line("x^2 - x - 3")
        expect(self.lane("f").locator(".katex-html")).to_contain_text("f(x)=x2−x−3")
        expect(self.page.locator("#entry")).to_have_value("")
        zeros = [round((1 - s * 13**0.5) / 2, 12) for s in (1, -1)]
        self.eventually(lambda: self.marks("f", "zero"), zeros)
        self.assertEqual(self.marks("f", "minimum"), [0.5])
        left, right, bottom, top = self.view()
        self.assertLess(left, zeros[0])
        self.assertGreater(right, zeros[1])
        self.assertLess(bottom, -3.25)
        self.assertGreater(top, 0)
        self.assertTrue(self.ink(0.5, -3.25, (27, 94, 75)), "no curve at its lowest point")

    def test_a_domain_is_dragged_and_typed(self):
        self.two_functions()
        signal = (200, 80, 30)
        self.eventually(lambda: self.ink(math.pi / 6, 2, signal), True)
        self.assertFalse(self.ink(-2.8, 2 * math.sin(-8.4), signal), "ink left of the domain")
        handle = self.page.locator('.handle[data-end="high"]')
        box = handle.bounding_box()
        plot = self.page.locator("#plot").bounding_box()
        left, right, _, _ = self.view()
        target = plot["x"] + (5 - left) / (right - left) * plot["width"]
        self.page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        self.page.mouse.down()
        self.page.mouse.move(target - 40, box["y"] + 10, steps=4)
        self.page.mouse.move(target, box["y"] + 10, steps=4)
        self.page.mouse.up()
        field = self.lane("g").get_by_role("textbox", name="End of the domain of g")
        expect(field).to_have_value("5")
        expect(self.lane("g")).to_have_attribute("data-text", "g(x) = 2 sin(3x) for -2 <= x <= 5")
        field = self.lane("g").get_by_role("textbox", name="End of the domain of g")
        field.fill("4.5")
        field.press("Enter")
        expect(self.lane("g")).to_have_attribute("data-text", re.compile("x <= 4.5$"))
        zeros = [round(k * math.pi / 3, 12) for k in range(-1, 5)]
        self.eventually(lambda: self.marks("g", "zero"), zeros)
        field = self.lane("g").get_by_role("textbox", name="End of the domain of g")
        field.fill("-7")
        field.press("Enter")
        expect(self.lane("g").locator(".domain .why")).to_contain_text("domain is empty")

    def test_strip_landmarks_stand_below_their_points(self):
        self.two_functions()
        plot = self.page.locator("#plot").bounding_box()
        left, right, _, _ = self.view()
        zeros = self.lane("f").locator('.strip-mark[data-kind="zero"]')
        expect(zeros).to_have_count(2)
        for mark in zeros.all():
            box = mark.bounding_box()
            x = float(mark.get_attribute("data-x"))
            wanted = plot["x"] + (x - left) / (right - left) * plot["width"]
            self.assertAlmostEqual(box["x"] + box["width"] / 2, wanted, delta=1)

    def test_a_line_is_edited_in_place_and_nothing_else_changes(self):
        self.two_functions()
        view, other = self.view(), self.lane("g").get_attribute("data-text")
        self.lane("f").locator(".formula").click()
        line = self.lane("f").locator(".lane-edit input")
        line.fill("(x - 1)^2 - ")
        line.press("Enter")
        expect(self.lane("f").locator(".lane-edit .why")).to_contain_text("missing after −")
        expect(line).to_have_value("(x - 1)^2 - ")
        line.fill("(x - 1)^2 - 3")
        line.press("Enter")
        self.eventually(
            lambda: self.marks("f", "zero"), [round(1 - 3**0.5, 12), round(1 + 3**0.5, 12)]
        )
        self.assertEqual(self.view(), view)
        self.assertEqual(self.lane("g").get_attribute("data-text"), other)

    def test_the_reading_line_follows_mouse_and_keys(self):
        self.two_functions()
        plot = self.page.locator("#plot").bounding_box()
        self.page.mouse.move(plot["x"] + plot["width"] / 2, plot["y"] + 50)
        expect(self.page.locator("#reading-x")).to_have_value("0.5")
        expect(self.page.locator(".reading-row").nth(0)).to_contain_text("−3.25")
        expect(self.page.locator(".reading-row").nth(1)).to_contain_text("1.99499")  # 2 sin 1.5
        self.page.mouse.move(plot["x"] + 10, plot["y"] + 50)
        expect(self.page.locator(".reading-row").nth(1)).to_contain_text("outside the domain of g")
        self.page.locator("#plot").focus()
        before = float(self.page.input_value("#reading-x").replace("−", "-"))
        self.page.keyboard.press("ArrowRight")
        self.eventually(
            lambda: float(self.page.input_value("#reading-x").replace("−", "-")),
            lambda now: before < now < before + 0.2,
        )

    def test_values_from_minus_three_to_five(self):
        self.two_functions()
        self.page.get_by_role("tab", name="Values").click()
        for name, value in (("start", "-3"), ("stop", "5"), ("step", "0.5")):
            self.page.fill(f"#table-{name}", value)
        self.page.press("#table-step", "Enter")
        rows = self.page.locator("table.values tbody tr[data-row]")
        expect(rows).to_have_count(17)
        expect(rows.first.locator("td").first).to_have_text("9")
        missing = rows.first.locator("td").nth(1)
        expect(missing).to_have_text("—")
        expect(missing.locator("span")).to_have_attribute(
            "title", re.compile("outside the domain of g")
        )
        expect(rows.nth(6).locator("td").nth(1)).to_have_text("0")
        self.page.fill("#table-step", "0.000001")
        self.page.press("#table-step", "Enter")
        expect(self.page.locator("#values")).to_contain_text("8000001 rows")

    def test_looking_around(self):
        self.two_functions()
        start = self.view()
        plot = self.page.locator("#plot").bounding_box()
        x, y = plot["x"] + plot["width"] / 4, plot["y"] + plot["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + plot["width"] / 4, y, steps=5)
        self.page.mouse.up()
        width = start[1] - start[0]
        self.eventually(lambda: self.view()[0], lambda v: abs(v - (start[0] - width / 4)) < 0.05)
        self.at_rest()
        at = self.view()
        held = at[0] + (at[1] - at[0]) / 4
        self.page.mouse.move(x, y)
        self.page.mouse.wheel(0, -300)
        self.eventually(lambda: self.view()[1] - self.view()[0], lambda w: w < width * 0.8)
        now = self.view()
        self.assertAlmostEqual(now[0] + (now[1] - now[0]) / 4, held, delta=0.02)
        self.at_rest()
        self.page.fill("#view-left", "-2π")
        self.page.press("#view-left", "Enter")
        self.eventually(lambda: self.view()[0], lambda v: abs(v + 2 * math.pi) < 0.01)
        self.at_rest()
        self.page.get_by_role("button", name="Previous view").click()
        self.eventually(self.view, now)
        for low, high, told in (
            ("3", "1", "in order"),
            ("1", "1", "in order"),
            ("0", "1/0", "no value"),
            ("-1e300", "1e300", ""),
        ):
            self.page.fill("#view-left", low)
            self.page.fill("#view-right", high)
            self.page.press("#view-right", "Enter")
            expect(self.page.locator(".view .why")).to_contain_text(told or "can be used")

    def test_hide_show_delete_undo_redo(self):
        self.two_functions()
        signal = (200, 80, 30)
        self.eventually(lambda: self.ink(math.pi / 6, 2, signal), True)
        self.page.get_by_role("button", name="Hide g").click()
        self.eventually(lambda: self.ink(math.pi / 6, 2, signal), False)
        self.page.get_by_role("button", name="Show g").click()
        self.eventually(lambda: self.ink(math.pi / 6, 2, signal), True)
        self.page.get_by_role("button", name="Delete g").click()
        expect(self.lane("g")).to_have_count(0)
        self.page.get_by_role("button", name="Undo deleting g").click()
        expect(self.lane("g")).to_be_visible()
        self.page.get_by_role("button", name="Redo deleting g").click()
        expect(self.lane("g")).to_have_count(0)
        self.page.reload()
        expect(self.lane("f")).to_be_visible()
        expect(self.lane("g")).to_have_count(0)
        self.page.get_by_role("button", name="Undo deleting g").click()
        expect(self.lane("g")).to_be_visible()

    def test_everything_is_as_it_was_left_even_after_a_restart(self):
        self.two_functions()
        self.page.locator('label[for="unit-deg"]').click()
        self.saved()
        self.page.fill("#view-right", "12")
        self.page.press("#view-right", "Enter")
        self.eventually(lambda: self.view()[1], 12)
        self.at_rest()
        before = (self.view(), self.lane("g").get_attribute("data-text"), self.page.url)
        self.server.stop()
        self.server.start()
        self.page.goto(before[2])
        expect(self.lane("g")).to_be_visible()
        self.eventually(
            lambda: (self.view(), self.lane("g").get_attribute("data-text"), self.page.url), before
        )
        expect(self.page.locator("#unit-deg")).to_be_checked()

    def test_the_shelf(self):
        self.two_functions()
        self.page.fill("#sheet-name", "Tide tables")
        self.page.press("#sheet-name", "Enter")
        expect(self.page).to_have_title(re.compile("Tide tables"))
        self.saved()
        self.page.get_by_role("link", name="Shelf", exact=True).click()
        row = self.page.locator(".sheet-row", has_text="Tide tables")
        expect(row.locator("time")).not_to_be_empty()
        row.get_by_role("button", name="Rename").click()
        row.get_by_label("New name").fill("Harbour sums")
        row.get_by_role("button", name="Save name").click()
        row = self.page.locator(".sheet-row", has_text="Harbour sums")
        row.get_by_role("button", name="Duplicate").click()
        expect(
            self.page.get_by_role("link", name="Harbour sums (copy)", exact=True)
        ).to_be_visible()
        self.page.get_by_role("button", name="Delete Harbour sums", exact=True).click()
        expect(self.page.get_by_role("link", name="Harbour sums", exact=True)).to_have_count(0)
        self.page.get_by_role("button", name="Restore Harbour sums", exact=True).click()
        self.page.get_by_role("button", name="Delete Harbour sums (copy)", exact=True).click()
        gone = self.page.get_by_role("button", name="Delete for good Harbour sums (copy)")
        self.page.once("dialog", lambda dialog: dialog.dismiss())
        gone.click()
        expect(gone).to_be_visible()
        self.page.once("dialog", lambda dialog: dialog.accept())
        gone.click()
        expect(self.page.get_by_text("Harbour sums (copy)")).to_have_count(0)
        self.page.get_by_role("link", name="Harbour sums", exact=True).click()
        expect(self.lane("g")).to_be_visible()
        self.page.goto(self.server.url + "/shelf")
        self.page.get_by_role("link", name="Ferry window").click()
        expect(self.lane("h")).to_be_visible()
        crossings = self.eventually(
            lambda: self.marks("h = d", "intersection"), lambda m: len(m) == 4
        )
        # 3.1 + 1.4 sin(2π(x − 2)/12.4) = 2.6
        first = 2 + 12.4 / (2 * math.pi) * math.asin(-0.5 / 1.4)
        self.assertAlmostEqual(crossings[0], first, 11)
        expect(self.page.locator(".status")).to_have_text("not changed yet")
        self.page.get_by_role("button", name="Hide d").click()
        self.saved()
        expect(self.page).to_have_url(re.compile("/sheet/"))


class Trouble(BrowserTest):
    def test_wrong_lines_get_a_sentence_and_stay_where_they_were_typed(self):
        self.open()
        self.type_line("x^2 - 1")
        expect(self.lane("f")).to_be_visible()
        for line, told in [
            ("x +", "missing after +"),
            ("sin(", "still open"),
            ("2 x )", "closes nothing"),
            ("", "nothing here yet"),
            ("(" * 400 + "x" + ")" * 400, "nested"),
            ("1..2", "two decimal points"),
            ("<script>", "cannot stand here"),
            ("__import__('os')", "An index is written"),
            ("p(x) = p(x) + 1", "defined by itself"),
            ("x" * 5000, "5000 characters"),
            ("9^9^9^9^9", "too large to compute"),
        ]:
            with self.subTest(line[:20]):
                self.type_line(line)
                expect(self.page.locator("#entry-trouble")).to_contain_text(told)
                expect(self.page.locator("#entry")).to_have_value(line)
                expect(self.page.locator(".lane")).to_have_count(1)
        self.type_line("(x + 1")
        self.page.get_by_role("button", name="Use (x + 1)").click()
        self.page.press("#entry", "Enter")
        expect(self.page.locator(".lane")).to_have_count(2)

    def test_a_name_without_a_value_is_an_offer(self):
        self.open()
        self.type_line("a x^2 - 2")
        expect(self.lane("f")).to_contain_text("waits for a")
        expect(self.page.locator(".plot-empty")).to_contain_text("a has no value")
        self.page.get_by_role("button", name="make a a slider").click()
        self.eventually(lambda: self.marks("f", "zero"), [-round(2**0.5, 12), round(2**0.5, 12)])

    def test_changes_wait_while_the_database_is_gone(self):
        self.open()
        self.type_line("x - 1")
        self.saved()
        self.server.line.cut()
        self.addCleanup(self.server.line.mend)
        self.type_line("x - 2")
        expect(self.page.locator(".status")).to_have_text("1 change waiting", timeout=60_000)
        expect(self.page.locator(".notice").first).to_contain_text("x - 2")
        self.server.line.mend()
        self.saved()
        expect(self.page.locator(".lane")).to_have_count(2)
        self.page.reload()
        expect(self.page.locator(".lane")).to_have_count(2)

    def test_two_windows_lose_neither_version(self):
        self.open()
        self.type_line("x - 1")
        self.saved()
        first, second = self.page, self.new_page()
        second.goto(first.url)
        expect(second.locator(".lane")).to_have_count(1)
        self.type_line("x - 2")
        expect(first.locator(".lane")).to_have_count(2)
        second.fill("#entry", "x - 3")
        second.press("#entry", "Enter")
        expect(second.locator(".conflict")).to_be_visible()
        second.get_by_role("button", name="Keep mine as a copy").click()
        expect(second.locator(".lane")).to_have_count(2)
        expect(second.locator('.lane[data-text="x - 3"]')).to_be_visible()
        first.reload()
        expect(first.locator('.lane[data-text="x - 2"]')).to_be_visible()
        expect(first.locator(".lane")).to_have_count(2)

    def test_another_browser_does_not_find_the_sheet(self):
        self.open()
        self.type_line("x")
        self.saved()
        other = self.browser.new_context()
        self.addCleanup(other.close)
        page = other.new_page()
        self.assertEqual(page.goto(self.page.url).status, 404)
        expect(page.locator("h1")).to_contain_text("no such sheet")

    def test_a_phone_shows_plot_rail_lanes_and_a_desk_that_slides_up(self):
        phone = self.browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
        self.addCleanup(phone.close)
        page = phone.new_page()
        page.goto(self.server.url + "/demo/ferry-window")
        expect(page.locator(".lane")).to_have_count(3)
        tops = [page.locator(s).bounding_box()["y"] for s in ("#plot", "#rail", "#lanes")]
        self.assertEqual(tops, sorted(tops))
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        low = page.locator(".desk").bounding_box()["y"]
        page.get_by_role("tab", name="Landmarks").tap()
        self.eventually(
            lambda: page.locator(".desk").bounding_box()["y"], lambda top: top < low - 200
        )
