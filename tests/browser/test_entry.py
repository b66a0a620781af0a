"""Typing a line: how it is read, names completed, signs inserted, the handbook at hand."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Entry(BrowserTest):
    def type(self, text):
        self.page.locator("#entry").press_sequentially(text)

    def test_the_preview_follows_and_offers_the_other_reading(self):
        self.open()
        self.type("1/2x")
        expect(self.page.locator("#preview .katex .frac-line")).to_have_count(1)
        expect(self.page.locator(".other-reading")).to_contain_text("only 2 is below the line")
        self.page.get_by_role("button", name="Read as 1/(2x)").click()
        expect(self.page.locator("#entry")).to_have_value("1/(2x)")
        expect(self.page.locator(".other-reading")).to_have_count(0)
        self.page.press("#entry", "Enter")
        expect(self.lane("f")).to_have_attribute("data-text", "1/(2x)")

    def test_tall_brackets_and_cases_keep_to_the_content_policy(self):
        self.open()
        self.type_line("((x + 1)/(x^2 + 1))^2 if x < 0, 1 otherwise")
        expect(self.lane("f").locator(".katex")).to_be_visible()

    def test_names_are_completed_by_keyboard(self):
        self.open()
        self.type_line("depth(t) = 3t")
        expect(self.lane("depth")).to_be_visible()
        self.type("2 arcs")
        options = self.page.get_by_role("option")
        expect(options.first).to_contain_text("arcsec(x)")
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("ArrowDown")
        expect(options.nth(1)).to_have_attribute("aria-selected", "true")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#entry")).to_have_value("2 arcsin()")
        self.type("x")  # the cursor stands between the brackets
        expect(self.page.locator("#entry")).to_have_value("2 arcsin(x)")
        self.page.fill("#entry", "")
        self.type("dep")
        expect(options.first).to_contain_text("depth(t)")
        self.page.keyboard.press("Tab")
        expect(self.page.locator("#entry")).to_have_value("depth()")
        self.page.keyboard.press("Escape")
        self.page.fill("#entry", "sin x")
        self.page.press("#entry", "Enter")  # nothing chosen: Enter adds the line
        expect(self.lane("f")).to_be_visible()

    def test_signs_are_inserted_by_touch(self):
        phone = self.browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
        self.addCleanup(phone.close)
        page = phone.new_page()
        page.goto(self.server.url)
        page.get_by_role("button", name="Signs to insert").tap()
        palette = page.get_by_role("toolbar", name="Signs to insert")
        for name in ("square root", "pi", "less than or equal"):
            box = palette.get_by_role("button", name=name, exact=True).bounding_box()
            self.assertGreaterEqual(min(box["width"], box["height"]), 40)
        palette.get_by_role("button", name="square root", exact=True).tap()
        page.keyboard.type("x")
        expect(page.locator("#entry")).to_have_value("√(x)")
        page.keyboard.press("End")
        palette.get_by_role("button", name="pi", exact=True).tap()
        expect(page.locator("#entry")).to_have_value("√(x)π")

    def test_a_handbook_example_comes_to_a_sheet(self):
        self.open()
        self.page.locator("body").click(position={"x": 5, "y": 790})
        self.page.keyboard.press("?")
        keys = self.page.get_by_role("dialog", name="Keys")
        expect(keys).to_contain_text("undo, redo")
        keys.get_by_role("link", name="handbook").click()
        expect(self.page.locator("h1")).to_have_text("Handbook")
        self.page.fill("#query", "cube root")
        self.page.press("#query", "Enter")
        expect(self.page.locator(".function")).to_have_count(1)
        self.page.locator("#function-cbrt").get_by_role("link", name="put on a sheet").click()
        expect(self.page.locator("#entry")).to_have_value("cbrt(-8)")
        self.page.press("#entry", "Enter")
        # Without a variable it is a value: the number, and no curve.
        expect(self.lane("v_1")).to_contain_text("= −2")
        expect(self.page.locator(".strip")).to_have_count(0)

    def test_a_line_that_is_not_understood_can_be_kept_and_survives(self):
        self.open()
        self.type_line("x^2 + (3")
        trouble = self.page.locator("#entry-trouble")
        expect(trouble.locator("mark")).to_have_text("(")
        expect(trouble.get_by_role("link", name="How lines are read")).to_be_visible()
        trouble.get_by_role("button", name="Keep it as it is").click()
        kept = self.page.locator(".lane.is-wrong")
        expect(kept).to_contain_text("not understood: This bracket is still open")
        self.saved()
        self.page.reload()
        expect(kept).to_contain_text("x^2 + (3")
        kept.locator(".formula").click()
        kept.locator(".lane-edit input").fill("x^2 + 3")
        kept.locator(".lane-edit input").press("Enter")
        expect(self.lane("f")).to_have_attribute("data-text", "x^2 + 3")
        expect(kept).to_have_count(0)

    def test_a_lane_being_edited_keeps_a_wrong_line_and_offers_a_mend(self):
        self.open()
        self.type_line("x^2")
        self.lane("f").locator(".formula").click()
        field = self.lane("f").locator(".lane-edit input")
        field.fill("sin(x")
        field.press("Enter")
        expect(self.lane("f").locator(".lane-edit .why")).to_contain_text("still open")
        self.page.reload()
        expect(field).to_have_value("sin(x")
        field.press("Enter")
        self.lane("f").get_by_role("button", name="Use sin(x)").click()
        expect(self.lane("f")).to_have_attribute("data-text", "sin(x)")
        self.lane("f").locator(".formula").click()
        field.fill("cos(x")
        field.press("Enter")
        self.lane("f").get_by_role("button", name="Keep it as it is").click()
        expect(self.page.locator(".lane.is-wrong")).to_contain_text("cos(x")

    def test_a_misspelt_name_is_offered_its_nearest_or_a_value(self):
        self.open()
        self.type_line("2 deptj + x")
        expect(self.lane("f")).to_contain_text("waits for deptj")
        self.type_line("depth = 3")
        self.page.get_by_role("button", name="or write depth").click()
        expect(self.lane("f")).to_have_attribute("data-text", "2 depth + x")

    def test_an_unsent_line_survives_a_reload(self):
        self.open()
        self.type("x^2 + ")
        self.page.reload()
        expect(self.page.locator("#entry")).to_have_value("x^2 + ")

    def test_renaming_follows_everywhere_and_deleting_says_who_waits(self):
        self.open()
        self.type_line("f(x) = x^2")
        expect(self.lane("f")).to_be_visible()
        self.type_line("g(x) = 2f(x) + f'(x)")
        expect(self.lane("g")).to_be_visible()
        self.lane("f").locator(".formula").click()
        self.lane("f").locator(".lane-edit input").fill("depth(x) = x^2")
        self.page.keyboard.press("Enter")
        expect(self.lane("g")).to_have_attribute("data-text", "g(x) = 2 depth(x) + depth'(x)")
        self.page.get_by_role("button", name="Delete depth").click()
        expect(self.page.get_by_text("g needs depth, and will wait")).to_be_visible()
        expect(self.lane("g")).to_contain_text("waits for depth")

    def test_degrees_are_asked_about_once(self):
        self.open()
        self.type_line("sin(60) x")
        question = self.page.get_by_text("sin(60) suggests degrees")
        expect(question).to_be_visible()
        self.page.get_by_role("button", name="Keep radians").click()
        expect(question).to_be_hidden()
        self.type_line("cos(45) x")
        expect(self.page.locator(".lane")).to_have_count(2)
        expect(question).to_be_hidden()
        self.page.goto(self.server.url)
        self.type_line("sin x for 0 <= x <= 360")
        self.page.get_by_role("button", name="Use degrees").click()
        expect(self.page.locator("#unit-deg")).to_be_checked()
        self.eventually(lambda: self.marks("f", "zero"), [0, 180, 360])

    def test_latex_from_homework_becomes_a_lane(self):
        self.open()
        self.type_line(r"\frac{x^2}{2}-2")
        expect(self.lane("f")).to_have_attribute("data-text", "((x^2)/(2))-2")
        self.eventually(lambda: self.marks("f", "zero"), [-2, 2])

    def test_a_line_from_a_book_is_taken_in_one_click(self):
        self.open()
        self.type_line("F(x) = ∫_0^x sin(t^2) dt")
        offered = self.page.locator("#entry-trouble").get_by_role("button", name="integral(sin")
        expect(offered.locator(".katex")).to_be_visible()
        offered.click()
        self.page.press("#entry", "Enter")
        expect(self.lane("F")).to_be_visible()
        expect(self.page.locator("#landmarks")).to_contain_text("turning points")
        self.type_line("log(8, 2)")
        meant = self.page.locator("#entry-trouble").get_by_role("button", name="Use ")
        expect(meant).to_have_count(2)
        meant.first.click()
        expect(self.page.locator("#entry")).to_have_value("log_2(8)")

    def test_a_calculation_goes_to_working_and_says_so(self):
        self.open()
        self.type_line("100 km/h in m/s")
        expect(self.page.get_by_text("This is a calculation")).to_be_visible()
        expect(self.page.get_by_role("tab", name="Working")).to_have_attribute(
            "aria-selected", "true"
        )
        expect(self.page.locator("#desk-working")).to_contain_text("27.7778")
        self.page.get_by_role("button", name="Undo a line of working").or_(
            self.page.get_by_role("button", name="Undo adding a lane")
        ).click()
        expect(self.page.locator("#desk-working")).not_to_contain_text("27.7778")

    def test_lists_show_their_values(self):
        self.open()
        self.type_line("L = steps(0, 2, 0.25)")
        expect(self.lane("L")).to_contain_text(re.compile("9 values: 0, 0.25, 0.5"))


class Early(BrowserTest):
    """A hand that is quicker than the scripts of the page."""

    def test_what_is_typed_before_the_page_is_ready_is_kept_and_sent(self):
        held = []
        self.page.route("**/js/main.js", lambda route: held.append(route))
        self.page.goto(self.server.url, wait_until="commit")
        # The plot is drawn by the few scripts that come first.
        expect(self.page.locator("#plot")).to_have_attribute("data-merged", "0")
        self.page.locator("#entry").fill("x^2 - 2")
        self.page.locator("#entry").press("Enter")
        self.frames_shown()
        expect(self.page.locator("#entry")).to_have_value("x^2 - 2")
        for route in held:
            route.continue_()
        self.page.unroute_all(behavior="wait")
        expect(self.page.locator(".lane")).to_have_count(1)
        expect(self.page.locator("#entry")).to_have_value("")

    def test_a_style_sheet_that_comes_late_leaves_no_colour_out(self):
        held = []
        self.page.route("**/css/tokens.css*", lambda route: held.append(route))
        self.page.goto(self.server.url + "/demo/lock", wait_until="commit")
        self.eventually(lambda: len(held), 1)
        # The first script is there, and has begun, and goes on without the sheet if it can.
        self.eventually(
            lambda: self.page.evaluate("document.documentElement.dataset.underway"), "1"
        )
        self.page.evaluate(
            """async () => {
              for (let turn = 0; turn < 50; turn++) await new Promise((go) => setTimeout(go));
            }"""
        )
        held[0].continue_()
        self.page.unroute_all(behavior="wait")
        self.at_rest()
        # Most of a plot is its ground.
        share = self.page.evaluate(
            """() => {
              const colours = getComputedStyle(document.documentElement);
              const sheet = new OffscreenCanvas(1, 1).getContext("2d");
              sheet.fillStyle = colours.getPropertyValue("--plot-ground");
              sheet.fillRect(0, 0, 1, 1);
              const pixels = (from) => {
                const { width, height } = from.canvas;
                return new Uint32Array(from.getImageData(0, 0, width, height).data.buffer);
              };
              const shown = pixels(document.getElementById("plot").getContext("2d"));
              const [ground] = pixels(sheet);
              return shown.filter((pixel) => pixel === ground).length / shown.length;
            }"""
        )
        self.assertGreater(share, 0.5)

    def test_a_page_whose_script_does_not_come_says_so_and_takes_no_key(self):
        self.open()
        self.page.route("**/desk/working.js", lambda route: route.abort())
        self.page.get_by_role("tab", name="Working").click()
        expect(self.page.locator("#working-late")).to_be_visible()
        expect(self.page.locator("#working-page")).to_have_attribute("inert", "")
        self.page.unroute_all(behavior="wait")
