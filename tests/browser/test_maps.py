"""Functions of two variables on the page: the map of levels, and the surface that can be turned."""

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Maps(BrowserTest):
    def picture(self):
        """The surface as it is drawn, as a text that changes with it."""
        return self.page.evaluate("document.getElementById('surface').toDataURL()")

    def test_a_map_has_its_points_and_takes_levels(self):
        self.open()
        self.type_line("h(x, y) = x^3 - 3x - y^2")
        self.eventually(lambda: self.marks("h", "peak"), [-1])
        self.eventually(lambda: self.marks("h", "saddle"), [1])
        expect(self.page.locator("#plot-words")).to_contain_text("highest point at (−1, 0)")
        lane = self.lane("h")
        lane.get_by_role("button", name="More for h").click()
        levels = lane.get_by_label("Levels of h")
        levels.fill("q")
        levels.press("Enter")
        expect(lane.locator(".lane-more .why")).to_contain_text("q")
        levels.fill("-2, 0, 2")
        levels.press("Enter")
        expect(self.page.get_by_role("button", name="Undo the levels of h")).to_be_visible()

    def test_the_surface_is_turned_by_hand_and_keys_and_left_again(self):
        self.open()
        self.type_line("h(x, y) = x^2 - y^2")
        self.lane("h").get_by_role("button", name="as a surface").click()
        turned = self.page.locator(".surface-turn")
        expect(turned).to_have_text("turned by −30°, from 30° above")
        blank = self.picture()
        self.eventually(lambda: self.picture() != blank or len(blank) > 5000, True)
        first = self.picture()
        canvas = self.page.locator("#surface")
        expect(canvas).to_be_focused()
        canvas.press("ArrowRight")
        expect(turned).to_have_text("turned by −25°, from 30° above")
        self.eventually(lambda: self.picture() != first, True)
        box = canvas.bounding_box()
        self.page.mouse.move(box["x"] + 200, box["y"] + 150)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + 260, box["y"] + 170, steps=4)
        self.page.mouse.up()
        expect(turned).to_have_text("turned by 5°, from 40° above")
        self.page.get_by_role("button", name="from above").click()
        expect(turned).to_have_text("turned by 0°, from 90° above")
        canvas.press("Escape")
        expect(canvas).to_be_hidden()
        expect(self.page.locator("#plot")).to_be_focused()

    def test_a_place_is_read_and_its_section_kept(self):
        self.open_with("h(x, y) = x^2 - y^2", "x^2 + y^2 < 9", "P = (1, 1)", "y > 0")
        expect(self.lane("P")).to_contain_text("in R")
        spot = self.page.locator("#spot")
        expect(spot).to_be_visible()
        at = self.pixel(2, 1)
        self.page.locator("#plot").click(position={"x": at[0], "y": at[1]})
        field = self.page.locator("#reading-y")
        expect(field).not_to_have_value("")
        self.page.fill("#reading-x", "2")
        self.page.press("#reading-x", "Enter")
        field.fill("√4/2")
        field.press("Enter")
        expect(spot).to_contain_text("gradient (4, −2)")
        expect(spot).to_contain_text("z = 3 + 4 (x − 2) − 2 (y − 1)")
        expect(spot.locator(".spot-row", has_text="R in it")).to_be_visible()
        expect(field).to_have_value("1")
        spot.get_by_role("button", name="keep as a lane").first.click()
        expect(self.page.locator('.lane[data-text="h(x, 1)"]')).to_have_count(1)
        field.fill("1/0")
        field.press("Enter")
        expect(spot.locator(".why")).to_contain_text("no value")
        self.lane("R").get_by_role("button", name="common with S").click()
        expect(self.page.locator('.lane[data-text="R and S"]')).to_have_count(1)

    def test_a_table_runs_over_rows_and_columns(self):
        self.open_with("volume(r, h) = r^2 h")
        self.page.get_by_role("tab", name="Values").click()
        self.page.select_option("#table-across", "volume")
        heads = self.page.locator("table.values thead th")
        expect(heads).to_have_count(7)
        cells = self.page.locator('table.values tbody tr[data-row="0"] td')
        expect(cells.nth(2)).to_have_text("50")
        self.page.fill("#table-across-step", "0")
        self.page.press("#table-across-step", "Enter")
        expect(self.page.locator("#values")).to_contain_text("step must not be 0")

    def test_a_phone_has_room_for_it(self):
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.open()
        self.type_line("x^2 + y^2 <= 9 and y > x")
        expect(self.lane("R").locator(".strip")).to_be_visible()
        self.type_line("h(x, y) = sin(x) cos(y)")
        self.lane("h").get_by_role("button", name="as a surface").click()
        expect(self.page.locator("#surface")).to_be_in_viewport()
        wide = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)
