"""Room for many lanes: the divided height, marks that can be read, lines that come back."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest

LINES = ("a = 1", "b = 2", "c = 3", "a sin(x)", "x^2 - b", "x/2 + c", "cos x", "k = 1", "k x - 1")


class Room(BrowserTest):
    def in_window(self, box):
        height = self.page.viewport_size["height"]
        return box["y"] >= 0 and box["y"] + box["height"] <= height

    def turn(self, name):
        """Turn a slider by the keys, wherever its lane is."""
        thumb = self.lane(name).locator(".thumb")
        thumb.scroll_into_view_if_needed()
        thumb.focus()
        thumb.press("ArrowRight")
        return thumb

    def test_the_eighth_lane_turns_while_the_plot_is_in_sight(self):
        self.open_with(*LINES)
        for width, height in ((1280, 800), (390, 844)):
            self.page.set_viewport_size({"width": width, "height": height})
            thumb = self.turn("k")
            value = float(thumb.get_attribute("aria-valuenow"))
            self.eventually(lambda: self.lane("k").get_attribute("data-text") != "k = 1", True)
            for part in (self.page.locator("#plot"), self.lane("k").locator(".strip")):
                self.eventually(lambda p=part: self.in_window(p.bounding_box()), True)
            self.assertGreater(value, 1)
            # Strip and plot share their axis.
            plot, strip = (self.page.locator(s).first.bounding_box() for s in ("#plot", ".strip"))
            self.assertAlmostEqual(plot["x"], strip["x"], delta=1)
            self.assertAlmostEqual(plot["width"], strip["width"], delta=1)

    def test_four_lanes_show_in_full_beside_a_usable_plot(self):
        self.open_with(*LINES)
        for size, least, high in (((1280, 800), 4, 340), ((1920, 1080), 7, 480)):
            self.page.set_viewport_size({"width": size[0], "height": size[1]})
            shown = [lane.bounding_box() for lane in self.page.locator(".lane").all()]
            self.assertGreaterEqual(sum(self.in_window(box) for box in shown), least)
            self.assertGreaterEqual(self.page.locator("#plot").bounding_box()["height"], high)

    def test_the_height_is_divided_by_keys_and_by_the_rail_and_remembered(self):
        self.open_with(*LINES)
        plot = self.page.locator("#plot")
        usual = plot.bounding_box()["height"]
        divider = self.page.get_by_role("separator", name=re.compile("Height of the plot"))
        divider.focus()
        divider.press("ArrowDown")
        self.eventually(lambda: plot.bounding_box()["height"], lambda high: high > usual + 8)
        rail = self.page.locator("#rail").bounding_box()
        x, y = rail["x"] + 300, rail["y"] + 15
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 2, y - 60, steps=6)
        self.page.mouse.up()
        self.eventually(lambda: plot.bounding_box()["height"], lambda high: high < usual)
        divided = plot.bounding_box()["height"]
        expect(self.page.locator("#reading-x")).to_have_value("")
        self.page.reload()
        expect(self.page.locator(".lane")).to_have_count(len(LINES))
        self.eventually(lambda: abs(plot.bounding_box()["height"] - divided) < 2, True)
        divider.dblclick()
        self.eventually(lambda: abs(plot.bounding_box()["height"] - usual) < 2, True)

    def test_the_desk_is_put_away_and_pulled_wider(self):
        self.open_with("f(x) = x^2 - 3", "g(x) = x", "a = 2", "h(x) = a x")

        def share():
            box = self.page.locator("#plot").bounding_box()
            return box["width"] * box["height"] / (1280 * 800)

        button = self.page.get_by_role("button", name="Desk", exact=True)
        self.page.locator("#plot").focus()
        self.page.keyboard.press("]")
        expect(button).to_have_attribute("aria-expanded", "false")
        self.assertGreater(share(), 0.4)
        self.open()
        expect(button).to_have_attribute("aria-expanded", "false")
        button.click()
        edge = self.page.locator("#desk-edge")
        edge.focus()
        before = self.page.locator("#desk").bounding_box()["width"]
        self.page.keyboard.press("PageUp")
        self.eventually(lambda: self.page.locator("#desk").bounding_box()["width"], before + 128)
        self.turn_to("Values")
        self.eventually(lambda: self.page.locator("#desk").bounding_box()["width"], before)
        self.turn_to("Landmarks")
        self.eventually(lambda: self.page.locator("#desk").bounding_box()["width"], before + 128)
        edge.focus()
        self.page.keyboard.press("Home")
        self.eventually(lambda: self.page.locator("#desk").bounding_box()["width"], before)

    def test_what_is_too_close_together_is_one_mark_that_opens(self):
        self.open_with("(x - 1)(x - 1.02)(x + 3)")
        self.eventually(lambda: len(self.marks("f", "zero")), 3)
        expect(self.page.locator("#plot")).to_have_attribute("data-merged", "1")
        # Under the pointer they stand side by side, each to be chosen.
        box = self.page.locator("#plot").bounding_box()
        px, py = self.pixel(1.01, 0)
        self.page.mouse.move(box["x"] + px, box["y"] + py)
        self.page.mouse.move(box["x"] + px, box["y"] + py - 30, steps=5)
        self.page.mouse.click(box["x"] + px - 12, box["y"] + py - 32)
        chosen = self.page.locator("tr.is-selected")
        expect(chosen).to_have_attribute("data-kind", re.compile("zero|minimum"))

    def test_kinds_of_marks_are_left_out_and_that_is_saved(self):
        self.open_with("x^2 - 4")
        self.eventually(lambda: self.ink(-2, 0, (27, 94, 75)), True)
        self.page.locator(".mark-choice summary").click()
        self.page.get_by_label("zeros", exact=True).uncheck()
        self.saved()
        expect(self.page.get_by_role("button", name="Undo the marks on the plot")).to_be_enabled()
        self.page.reload()
        expect(self.page.locator(".mark-choice summary")).to_contain_text("1 kind left out")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)  # the list has them all the same

    def test_values_stand_in_their_lanes(self):
        self.open_with("x^2 - 3", "2π/3")
        self.page.fill("#reading-x", "2")
        self.page.press("#reading-x", "Enter")
        expect(self.lane("f").locator(".lane-reading")).to_have_text("1")
        value = self.lane("v_1")
        expect(value.locator(".lane-value")).to_have_text("≈ 2.0944")
        expect(value.locator(".strip")).to_have_count(0)
        value.get_by_role("button", name="More for v_1").click()
        value.get_by_role("button", name="Draw as a level line").click()
        expect(self.lane("g").locator(".strip")).to_have_count(1)

    def test_the_name_of_a_sheet_is_printed(self):
        self.open("/demo/ferry-window")
        self.page.emulate_media(media="print")
        shown = self.page.locator("h1").evaluate(
            "(name) => [getComputedStyle(name).clipPath, name.getBoundingClientRect().width > 50]"
        )
        self.assertEqual(shown, ["none", True])

    def test_landmarks_are_listed_along_x_and_fold_and_follow_the_lane(self):
        self.open_with("x^2 - 4", "x - 1")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        self.page.get_by_label("along x").check()
        rows = self.page.locator("#landmarks tr[data-mark]")
        self.eventually(
            lambda: [float(x) for x in rows.evaluate_all("r => r.map(e => e.dataset.x)")],
            lambda found: len(found) >= 7 and found == sorted(found),
        )
        expect(rows.first.locator(".owner")).to_have_text("f")
        self.page.get_by_label("by function").check()
        listed = self.page.locator('.marks[aria-label="Landmarks of f"]')
        listed.locator("> summary").click()
        expect(listed.locator("table").first).to_be_hidden()
        self.lane("f").locator(".grip").focus()
        expect(listed.locator("table").first).to_be_visible()

    def test_earlier_lines_come_back_and_several_are_pasted_at_once(self):
        self.open()
        for count, line in enumerate(("x^2", "sin x"), 1):
            self.type_line(line)
            expect(self.page.locator(".lane")).to_have_count(count)
        entry = self.page.locator("#entry")
        entry.fill("half a li")
        entry.press("Escape")
        entry.press("ArrowUp")
        expect(entry).to_have_value("sin x")
        entry.press("ArrowUp")
        expect(entry).to_have_value("x^2")
        for _ in range(2):
            entry.press("ArrowDown")
        expect(entry).to_have_value("half a li")
        entry.fill("")
        entry.evaluate(
            """(field) => {
              const data = new DataTransfer();
              data.setData("text/plain", "p = 2\\n\\n p x - 1\\nx^2 + (3");
              const how = { clipboardData: data, bubbles: true, cancelable: true };
              field.dispatchEvent(new ClipboardEvent("paste", how));
            }"""
        )
        expect(self.page.locator(".lane")).to_have_count(5)
        expect(self.lane("p")).to_be_visible()
        expect(self.page.locator(".lane.is-wrong")).to_contain_text("bracket")


class Hands(BrowserTest):
    def test_undo_works_after_a_click_on_the_unit_and_leaves_text_areas_alone(self):
        self.open()
        self.type_line("sin x")
        self.page.locator('label[for="unit-deg"]').click()
        expect(self.page.locator("#unit-deg")).to_be_checked()
        self.saved()
        self.page.locator("#unit-deg").focus()
        self.page.keyboard.press("Control+z")
        expect(self.page.locator("#unit-rad")).to_be_checked()
        self.page.get_by_role("button", name="numbers, title…").click()
        title = self.page.get_by_label("Title")
        title.press_sequentially("Tide")
        title.press("Control+z")
        expect(title).not_to_have_value("Tide")  # its own undo, and the lane is still there
        expect(self.lane("f")).to_be_visible()

    def test_a_click_on_a_solution_reads_there(self):
        self.open()
        self.type_line("x^2")
        self.page.get_by_role("tab", name="Solve").click()
        self.page.fill("#equation", "x^2 = x + 2")
        self.page.press("#equation", "Enter")
        rows = self.page.locator("[data-solution]")
        expect(rows).to_have_count(2)
        self.page.get_by_role("tab", name="Landmarks").click()
        self.at_rest()
        box = self.page.locator("#plot").bounding_box()
        px, py = self.pixel(-1, 1)
        self.page.mouse.click(box["x"] + px, box["y"] + py)
        expect(self.page.locator("#reading-x")).to_have_value("−1")
        expect(rows.first).to_have_class("is-selected")
        expect(self.page.get_by_role("tab", name="Solve")).to_have_attribute(
            "aria-selected", "true"
        )

    def test_only_the_first_button_drags(self):
        self.open()
        self.type_line("x for -2 <= x <= 3")
        handle = self.lane("f").locator('.handle[data-end="high"]')
        box = handle.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        rail = self.page.locator("#rail").bounding_box()
        before = self.view()
        for button, start in (("right", (x, y)), ("middle", (rail["x"] + 90, rail["y"] + 9))):
            self.page.mouse.move(*start)
            self.page.mouse.down(button=button)
            self.page.mouse.move(start[0] + 60, start[1], steps=4)
            self.page.mouse.up(button=button)
        self.assertEqual(self.lane("f").locator('.end[data-end="high"]').input_value(), "3")
        self.assertEqual(self.view(), before)
        expect(self.page.locator("#reading-x")).to_have_value("")

    def test_a_pinch_zooms_and_reads_nowhere(self):
        self.own_page()
        self.open()
        self.type_line("x^2")
        box = self.page.locator("#plot").bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        before = self.view()
        touch = self.context.new_cdp_session(self.page)

        def at(kind, *places):
            points = [{"x": px, "y": y, "id": k} for k, px in enumerate(places)]
            touch.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

        at("touchStart", x - 40)
        at("touchStart", x - 40, x + 40)
        for k in range(1, 6):
            at("touchMove", x - 40 - 12 * k, x + 40 + 12 * k)
        at("touchEnd", x - 100)
        at("touchEnd")
        self.eventually(lambda: self.view()[1] < before[1], True)
        expect(self.page.locator("#reading-x")).to_have_value("")


class Points(BrowserTest):
    def screen(self, x, y):
        box = self.page.locator("#plot").bounding_box()
        px, py = self.pixel(x, y)
        return box["x"] + px, box["y"] + py

    def drag(self, start, end):
        self.page.mouse.move(*self.screen(*start))
        self.page.mouse.down()
        self.page.mouse.move(*self.screen(*end), steps=4)
        self.page.mouse.up()

    def test_a_point_is_dragged_and_a_curve_follows(self):
        self.open_with("P = (1, 2)", "(x - P_x)^2 + P_y")
        self.eventually(lambda: self.marks("f", "minimum"), [1])
        self.page.mouse.move(*self.screen(1, 2))
        self.page.mouse.down()
        self.page.mouse.move(*self.screen(2, 3), steps=6)
        self.page.mouse.up()
        self.eventually(lambda: self.lane("P").get_attribute("data-text"), "P = (2, 3)")
        self.eventually(lambda: self.marks("f", "minimum"), [2])
        thumb = self.lane("P").locator(".point-thumb")
        thumb.focus()
        thumb.press("ArrowDown")
        self.eventually(lambda: self.lane("P").get_attribute("data-text") != "P = (2, 3)", True)
        expect(self.lane("P").locator(".point-thumb")).to_be_focused()
        self.page.get_by_role("button", name="Undo moving P").click()
        self.eventually(lambda: self.lane("P").get_attribute("data-text"), "P = (2, 3)")

    def test_points_are_put_by_clicks_in_a_mode_that_says_so(self):
        self.open()
        self.type_line("x")
        self.page.locator("#plot").press("Home")
        self.eventually(self.view, [-10, 10, -7, 7])
        self.page.locator("#plot").press("p")
        self.page.locator("#plot").press("s")
        expect(self.page.locator(".plot-mode")).to_contain_text("Each click puts a point")
        self.at_rest()
        self.frames_shown()
        self.page.mouse.click(*self.screen(3.9, -2.1))
        expect(self.lane("A")).to_have_attribute("data-text", "(4, -2)")
        self.at_rest()
        self.page.mouse.click(*self.screen(-5, 1))
        expect(self.lane("B")).to_be_visible()
        self.page.get_by_role("button", name="done").click()
        self.page.mouse.click(*self.screen(1, -4))
        expect(self.page.locator("#reading-x")).not_to_have_value("")
        expect(self.page.locator(".lane")).to_have_count(3)

    def test_a_fit_of_points_that_were_clicked_in_nine_actions(self):
        self.open()
        self.page.get_by_role("button", name="points", exact=True).click()
        plot = self.page.locator("#plot")
        before = plot.bounding_box()
        for k, x in enumerate((-8, -4, 0, 3, 7)):
            # Quicker than any answer: the view and the plot stay where they are.
            self.page.mouse.click(*self.screen(x, x / 2 + (0.5 if k % 2 else -0.5)))
        mode = self.page.locator(".plot-mode")
        expect(mode).to_contain_text("Put: A, B, C, D, F.")
        self.assertEqual(plot.bounding_box(), before)
        self.assertEqual(self.view(), [-10, 10, -7, 7])
        mode.get_by_role("button", name="make data").click()
        self.page.get_by_role("button", name="Fit", exact=True).click()
        expect(self.page.locator(".fit-measures")).to_contain_text("r² = 0.9")
        expect(mode).to_be_hidden()
        expect(self.page.locator(".lane")).to_have_count(2)

    def test_a_domain_is_dragged_from_nothing(self):
        self.open_with("f(x) = x^2 - 3")
        end = self.lane("f").locator('.end[data-end="high"]')
        expect(end).to_have_value("")
        box = self.lane("f").locator('.handle.is-start[data-start="high"]').bounding_box()
        y = box["y"] + box["height"] / 2
        self.page.mouse.move(box["x"] + box["width"] / 2, y)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] - 120, y, steps=4)
        self.page.mouse.up()
        expect(end).not_to_have_value("")
        self.assertLess(float(end.input_value()), self.view()[1])
        expect(self.lane("f").locator(".handle.is-start")).to_have_count(1)
        self.saved()

    def test_a_key_goes_to_each_area_and_the_focus_is_never_lost(self):
        self.open_with("f(x) = x^2 - 3", "a = 1")
        active = "document.activeElement.closest('[data-lane], [id]').getAttribute('{}')"
        for key, wanted in (("Alt+p", "plot"), ("Alt+d", "tab-landmarks"), ("Alt+d", "tab-values")):
            self.page.keyboard.press(key)
            self.assertEqual(self.page.evaluate(active.format("id")), wanted)
        self.page.keyboard.press("Alt+Shift+d")
        self.page.keyboard.press("Alt+e")
        self.page.keyboard.press("F6")
        self.assertEqual(self.page.evaluate(active.format("id")), "plot")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        self.page.keyboard.press(".")
        heard = self.page.locator('[role="status"][x-text="heard"]')
        expect(heard).to_contain_text("of f, x ")
        # The slider is the second lane; deleted by keys, it leaves the focus to what is there.
        self.page.keyboard.press("Alt+l")
        self.page.keyboard.press("Alt+l")
        expect(self.lane("a").locator(".thumb")).to_be_focused()
        self.page.get_by_role("button", name="Delete a", exact=True).press("Enter")
        expect(self.page.locator(".lane")).to_have_count(1)
        expect(self.lane("f").locator(".formula")).to_be_focused()

    def test_a_box_drawn_around_points_gathers_them(self):
        self.open_with("A = (1, 2)", "B = (2, 3)", "C = (-4, -4)", "D = (A_x, 1)")
        self.page.locator("#plot").press("Home")
        self.eventually(self.view, [-10, 10, -7, 7])
        self.page.locator("#plot").press("p")
        self.drag((-9, 5), (-8, 4))
        expect(self.page.locator(".plot-mode")).to_contain_text("No point lies in the box.")
        self.drag((0, 4), (3, 0))
        expect(self.page.locator(".plot-mode")).to_contain_text("In the box: A, B, D.")
        self.page.get_by_role("button", name="make a list").click()
        # B goes into the list; A stays, since D follows it, and D, since it follows A.
        self.eventually(
            lambda: [one.get_attribute("data-text") for one in self.page.locator(".lane").all()],
            ["A = (1, 2)", "C = (-4, -4)", "D = (A_x, 1)", "[(A_x, A_y), (2, 3), (D_x, D_y)]"],
        )
        self.page.get_by_role("button", name="Undo making a list of points").click()
        expect(self.lane("B")).to_be_visible()
        self.drag((0, 4), (3, 0))
        self.page.locator(".plot-mode").get_by_role("button", name="delete").click()
        expect(self.page.locator(".lane")).to_have_count(1)
