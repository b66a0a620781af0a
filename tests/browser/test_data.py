"""Measured numbers: pasted, mended, fitted, dragged, predicted; files in and out."""

import io
import re

import openpyxl
from playwright.sync_api import expect

from tests.browser.harness import BrowserTest

BLOCK = "0\t1\n1\t3\n2\t5.5\n3\t7\n4\t9"


class Data(BrowserTest):
    def open_data(self):
        self.turn_to("Data")
        expect(self.page.locator("#data-choice")).to_be_attached()

    def begin(self):
        self.open()
        self.open_data()
        self.page.locator('[data-do="new"]').click()
        expect(self.cell(4, 1)).to_be_attached()
        self.saved()

    def cell(self, row, column):
        return self.page.locator(f'.data-cells td[data-at="{row} {column}"]')

    def number(self, row, column):
        return float(self.cell(row, column).inner_text() or "nan")

    def paste(self, text, place):
        self.page.evaluate(
            """([text, place]) => {
              const data = new DataTransfer();
              data.setData("text/plain", text);
              const at = document.querySelector(place);
              const more = { clipboardData: data, bubbles: true, cancelable: true };
              at.dispatchEvent(new ClipboardEvent("paste", more));
            }""",
            [text, place],
        )

    def fit(self, model="line", **fields):
        form = self.page.locator("form[data-fit]")
        form.locator("select[name=model]").select_option(model)
        for name, value in fields.items():
            form.locator(f"input[name={name}]").fill(value)
        form.get_by_role("button", name="Fit").click()

    def column(self, which, count):
        """A column as the server has it."""
        key = self.page.url.rpartition("/")[2].partition("#")[0]
        state = self.context.request.get(f"{self.server.url}/api/sheets/{key}").json()
        body = {"head": state["head"], "view": state["view"], "data": "", "first": 0}
        token = self.page.get_attribute('meta[name="csrf-token"]', "content")
        found = self.context.request.post(
            f"{self.server.url}/api/sheets/{key}/data",
            data={**body, "count": count},
            headers={"X-CSRFToken": token, "Referer": self.page.url},
        ).json()
        return [row[which] for row in found["cells"]]

    def late(self, seconds):
        """Every answer comes so much later."""
        self.own_page()
        self.page.add_init_script(
            """const plain = window.fetch;
            window.fetch = async (...asked) => {
              const answer = await plain(...asked);
              await new Promise((done) => setTimeout(done, LATE));
              return answer;
            };""".replace("LATE", str(round(seconds * 1000)))
        )

    def test_numbers_are_typed_down_a_column_however_late_answers_are(self):
        self.late(1.5)
        self.begin()
        self.cell(0, 0).click()
        for number in range(12):
            self.page.keyboard.type(str(number), delay=50)
            self.page.keyboard.press("Enter")
        for row in range(12):
            expect(self.cell(row, 0)).to_have_text(str(row))
        self.saved()
        self.at_rest()
        self.assertEqual(self.column(0, 12), [str(k) for k in range(12)])

    def test_pairs_are_typed_row_by_row(self):
        self.begin()
        self.cell(0, 0).click()
        for row in range(7):
            self.page.keyboard.type(str(row))
            self.page.keyboard.press("Tab")
            self.page.keyboard.type(str(20 + row / 10))
            # Tab at the end goes on as Enter does.
            self.page.keyboard.press("Tab" if row % 2 else "Enter")
        for row in range(7):
            expect(self.cell(row, 0)).to_have_text(str(row))
            expect(self.cell(row, 1)).to_have_text(f"{20 + row / 10:g}")
        self.saved()
        self.at_rest()
        self.assertEqual(self.column(0, 7), [str(k) for k in range(7)])
        self.assertEqual(self.column(1, 7), [f"{20 + k / 10:g}" for k in range(7)])

    def test_cells_that_are_pasted_into_the_entry_are_data(self):
        self.open()
        self.paste("hours\tdepth\n0\t20.1\n1\t20.4\n2\t20.9", "#entry")
        self.page.get_by_role("button", name="Put it on the sheet").click()
        expect(self.page.locator(".lane")).to_have_count(1)
        expect(self.page.locator(".lane")).to_contain_text("3 rows: hours, depth")
        expect(self.page.locator("#entry")).to_have_value("")

    def test_a_formula_with_a_name_that_is_not_there_takes_nothing_away(self):
        self.begin()
        self.cell(0, 1).click()
        self.page.keyboard.type("5")
        self.page.keyboard.press("Enter")
        self.saved()
        self.page.get_by_label("Formula of depth").fill("= A_x")
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".data-page > .why")).to_contain_text("A_x has no value here")
        expect(self.cell(0, 1)).to_have_text("5")

    def test_a_block_is_pasted_a_cell_mended_a_line_fitted_and_a_point_dragged(self):
        self.begin()
        self.cell(0, 0).click()
        self.paste(BLOCK, ".data-cells table")
        expect(self.cell(2, 1)).to_have_text("5.5")
        grid = self.page.locator(".data-cells table")
        grid.press("ArrowDown")
        grid.press("ArrowDown")
        grid.press("ArrowRight")
        self.page.keyboard.type("5")
        self.page.keyboard.press("Enter")
        expect(self.cell(2, 1)).to_have_text("5")
        expect(self.cell(3, 1)).to_have_class(re.compile("is-here"))
        self.page.keyboard.type("seven")
        self.page.keyboard.press("Enter")
        trouble = self.page.locator(".data-page > .why")
        expect(trouble).to_contain_text("Row 4 of depth: “seven” is no number")
        self.fit()
        panel = self.page.locator(".fit")
        expect(panel).to_contain_text("r² = 1")
        expect(self.lane("fit")).to_contain_text("a = 1, b = 2")
        panel.locator("[data-predict] input").fill("10")
        panel.locator("[data-predict] button").click()
        expect(panel.locator(".predicted")).to_contain_text("fit(10) = 21. ")
        expect(panel.locator(".predicted")).to_contain_text("Beyond the points")
        # The point at (4, 9) goes up by hand, and the line with it.
        self.page.get_by_role("button", name="Frame", exact=True).first.click()
        self.saved()
        self.at_rest()
        x, y = self.pixel(4, 9)
        box = self.page.locator("#plot").bounding_box()
        to_x, to_y = self.pixel(4, 8)
        self.page.mouse.move(box["x"] + x, box["y"] + y)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + to_x, box["y"] + to_y, steps=5)
        self.page.mouse.up()
        expect(
            self.page.get_by_role("button", name=re.compile("Undo moving a point"))
        ).to_be_visible()
        self.eventually(lambda: self.number(4, 1), lambda value: abs(value - 8) < 0.3)
        expect(panel).not_to_contain_text("r² = 1 ")
        self.page.keyboard.press("Control+z")
        expect(self.cell(4, 1)).to_have_text("9")

    def test_a_row_is_left_out_columns_are_computed_and_named(self):
        self.begin()
        self.cell(0, 0).click()
        self.paste(BLOCK.replace("5.5", "50"), ".data-cells table")
        expect(self.cell(2, 1)).to_have_text("50")
        self.fit()
        expect(self.page.locator(".fit")).to_be_visible()
        self.cell(2, 1).click()
        self.page.get_by_role("button", name="leave out").click()
        expect(self.page.locator(".data-cells tr.is-out")).to_have_count(1)
        expect(self.lane("fit")).to_contain_text("a = 1, b = 2")
        expect(self.lane("data")).to_contain_text("1 left out")
        self.page.get_by_role("button", name="new column").click()
        name = self.page.locator("[data-name='2']")
        expect(name).to_be_attached()
        name.fill("rate")
        name.press("Enter")
        expect(self.lane("data")).to_contain_text("hours, depth, rate")
        formula = self.page.locator("[data-formula='2']")
        formula.fill("= step(depth)/step(hours)")
        formula.press("Enter")
        expect(self.cell(1, 2)).to_have_text("2")
        formula.fill("= 2 )")
        formula.press("Enter")
        expect(self.page.locator(".data-page > .why")).to_contain_text("closes nothing")

    def test_rows_pasted_anywhere_are_offered_as_a_data_set(self):
        self.open()
        self.open_data()
        self.page.get_by_role("tab", name="Landmarks").click()
        self.paste("hours;depth\n1;2,5\n2;low\n3;4", "#plot")
        preview = self.page.locator(".data-preview")
        expect(preview).to_contain_text("3 rows, 2 columns")
        expect(preview).to_contain_text("A comma was read as the decimal sign")
        expect(preview).to_contain_text("row 2: “low”")
        expect(self.page.locator(".lane")).to_have_count(0)
        preview.get_by_role("button", name="Put it on the sheet").click()
        expect(self.lane("pasted")).to_contain_text("3 rows: hours, depth")
        expect(self.cell(0, 1)).to_have_text("2.5")

    def test_a_spreadsheet_is_opened_and_taken_away_again(self):
        book = openpyxl.Workbook()
        book.active.append(["hours", "depth"])
        other = book.create_sheet("second")
        other.append(["minutes", "heat"])
        for k in range(6):
            book.active.append([k, 2 * k + 1])
            other.append([k, "=1+1" if k == 3 else k * k])
        data = io.BytesIO()
        book.save(data)
        self.open()
        self.open_data()
        given = {"name": "tides.xlsx", "mimeType": "", "buffer": data.getvalue()}
        self.page.locator("#data-page input[type=file]").set_input_files(given)
        preview = self.page.locator(".data-preview")
        expect(preview).to_contain_text("hours")
        preview.locator("select").select_option(label="second")
        expect(preview).to_contain_text("minutes")
        preview.get_by_role("button", name="Put it on the sheet").click()
        expect(self.lane("tides")).to_contain_text("6 rows: minutes, heat")
        with self.page.expect_download() as taken:
            self.page.get_by_role("button", name="XLSX").click()
        again = openpyxl.load_workbook(io.BytesIO(taken.value.path().read_bytes())).active
        rows = [[cell.value for cell in row] for row in again.iter_rows()]
        self.assertEqual(rows[0], ["minutes", "heat"])
        self.assertEqual([row[0] for row in rows[1:]], list(range(6)))
        self.assertEqual([row[1] for row in rows[1:4]], [0, 1, 4])
        bad = {"name": "tides.xlsx", "mimeType": "", "buffer": b"PK\x03\x04 and no more"}
        self.page.locator("#data-page input[type=file]").set_input_files(bad)
        expect(self.page.locator(".data-page > .why")).to_contain_text("damaged")

    def test_a_set_is_taken_away_before_its_rows_have_come(self):
        self.begin()
        held = []
        self.page.route(re.compile("/data$"), lambda route: held.append(route))
        self.page.reload()
        self.page.get_by_role("tab", name="Data").click()
        self.eventually(lambda: len(held), lambda count: count > 0)
        with self.page.expect_download() as taken:
            self.page.get_by_role("button", name="CSV").click()
            for route in held:
                route.continue_()
            self.page.unroute_all(behavior="wait")
        self.assertTrue(taken.value.suggested_filename.endswith(".csv"))

    def test_a_phone_has_room_for_it_and_dark_too(self):
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.begin()
        expect(self.page.locator(".data-cells")).to_be_in_viewport()
        wide = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)
