"""The table of values: solutions read off, refined, compared with the proven ones, taken away."""

import csv
import io
import re
import tempfile
from pathlib import Path

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Values(BrowserTest):
    def rows(self):
        return self.page.locator("table.values tbody tr[data-row]")

    def open_values(self, path="/demo/ferry-window"):
        self.open(path)
        self.page.get_by_role("tab", name="Values").click()
        expect(self.rows().first).to_be_visible()

    def test_a_crossing_is_read_off_by_refining_three_times(self):
        self.open_values()
        crossing = self.page.locator("tr.between.is-solution").nth(1)
        expect(crossing).to_contain_text("h(x) = d(x)")
        for count in (25 + 9, 25 + 18, 25 + 27):
            crossing.get_by_role("button", name="ten rows between").click()
            expect(self.page.locator("table.values")).to_have_attribute(
                "aria-rowcount", str(count + 1)
            )
            self.saved()
        above = crossing.locator("xpath=preceding-sibling::tr[1]/th").inner_text()
        below = crossing.locator("xpath=following-sibling::tr[1]/th").inner_text()
        self.assertEqual((above, below), ("8.92", "8.921"))
        crossing.get_by_role("button", name="go there").click()
        expect(self.page.locator("#reading-x")).to_have_value("8.920744228")
        self.page.get_by_role("tab", name="Landmarks").click()
        proven = self.marks("h = d", "intersection")
        self.assertTrue(float(above) < proven[1] < float(below))
        self.page.get_by_role("tab", name="Values").click()
        self.page.get_by_role("button", name="coarse again").click()
        expect(self.rows()).to_have_count(25)

    def test_rows_and_reading_line_point_at_each_other(self):
        self.open_values()
        self.page.get_by_role("button", name="9", exact=True).first.click()
        expect(self.page.locator("#reading-x")).to_have_value("9")
        expect(self.page.locator("tr.is-selected th")).to_have_text("9")
        self.page.fill("#reading-x", "20.4")
        self.page.press("#reading-x", "Enter")
        expect(self.page.locator("tr.is-selected th")).to_have_text("20")
        expect(self.page.locator("tr.is-selected")).to_be_in_viewport()

    def test_columns_are_added_moved_and_taken_away(self):
        self.open_values()
        self.page.fill("#new-column", "h(x) - d(x)")
        self.page.press("#new-column", "Enter")
        heads = self.page.locator("table.values thead th")
        expect(heads).to_have_count(4)
        self.page.get_by_role("button", name="Move to the left: h(x) - d(x)").click()
        expect(heads.nth(2)).to_contain_text("−")
        self.page.get_by_role("button", name="Take the column away: d(x)").click()
        expect(heads).to_have_count(3)
        self.page.locator("#table-changes").select_option("differences")
        expect(heads).to_have_count(5)
        self.page.fill("#new-column", "depth(x)")
        self.page.press("#new-column", "Enter")
        cell = self.rows().first.locator("td").nth(2)
        expect(cell.get_by_role("img")).to_have_attribute(
            "aria-label", re.compile("depth has no value")
        )
        expect(self.page.get_by_role("button", name="Undo the table")).to_be_enabled()

    def test_tens_of_thousands_of_rows_scroll(self):
        self.open_values()
        self.page.fill("#table-step", "0.0005")
        self.page.press("#table-step", "Enter")
        table = self.page.locator("table.values")
        expect(table).to_have_attribute("aria-rowcount", "48002")
        self.assertLess(self.rows().count(), 300)
        self.page.locator("#values").evaluate(
            "place => { place.scrollTop = place.scrollHeight / 2; }"
        )
        expect(self.page.get_by_role("button", name="12", exact=True)).to_be_visible()
        head = self.page.locator("table.values thead th").first.bounding_box()
        self.assertAlmostEqual(head["y"], self.page.locator("#values").bounding_box()["y"], delta=2)
        self.page.fill("#table-step", "0.00001")
        self.page.press("#table-step", "Enter")
        expect(self.page.locator("#values")).to_contain_text("rows; a table can have")

    def test_round_trip_through_csv(self):
        self.open_values()
        with self.page.expect_download() as download:
            self.page.get_by_role("button", name="CSV file").click()
        text = Path(download.value.path()).read_bytes().decode()
        self.assertIn("\r\n", text)
        written = list(csv.reader(io.StringIO(text)))
        self.assertEqual(written[0], ["x", "h(x)", "d(x)"])
        self.page.locator("#table-by").select_option("list")
        # The page reads a file in its own time, so that it stays until the test is over.
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        for content, told in (("x\nlow tide\n1\n", "Line 2"), ("1\n" * 60_000, "can have")):
            wrong = Path(folder.name) / "wrong.csv"
            wrong.write_text(content)
            self.page.set_input_files("input[type=file]", wrong)
            expect(self.page.locator("#desk-values .table-page > .why")).to_contain_text(told)
        back = Path(folder.name) / "table.csv"
        back.write_bytes(b"\xef\xbb\xbf" + text.encode())
        self.page.set_input_files("input[type=file]", back)
        # The sentence goes and the buttons move up; then they can be hit.
        expect(self.page.locator("#desk-values .table-page > .why")).to_be_hidden()
        expect(self.rows()).to_have_count(25)
        self.saved()
        with self.page.expect_download() as download:
            self.page.get_by_role("button", name="CSV file").click()
        self.assertEqual(Path(download.value.path()).read_bytes().decode(), text)

    def test_long_work_says_how_far_it_is_and_can_be_given_up(self):
        self.open_values()
        states = [{"state": "working", "share": 0.4, "message": ""}]
        asked = []

        def handle(route):
            asked.append(route.request.method)
            route.fulfill(json=states[0] if route.request.method == "GET" else {"ok": True})

        self.page.route("**/api/errands/*", handle)
        self.page.get_by_role("button", name="CSV file").click()
        bar = self.page.locator(".sheet-page > .errand, .work .errand, main .errand").first
        expect(bar).to_contain_text("Writing the table … 40 %")
        bar.get_by_role("button", name="Give it up").click()
        expect(bar).to_be_hidden()
        self.eventually(lambda: "DELETE" in asked, True)
        # What failed is told in words.
        states[0] = {"state": "failed", "share": None, "message": "This is larger than 64 MB."}
        self.page.get_by_role("button", name="CSV file").click()
        expect(self.page.get_by_text("This is larger than 64 MB.")).to_be_visible()

    def test_a_file_that_is_gone_is_told(self):
        self.open_values()
        self.page.locator("#table-by").select_option("list")
        self.page.evaluate(
            "() => { File.prototype.text = () => Promise.reject(new DOMException('gone')); }"
        )
        file = {"name": "tides.csv", "mimeType": "text/csv", "buffer": b"1\n2\n"}
        self.page.set_input_files("input[type=file]", file)
        why = self.page.locator("#desk-values .table-page > .why")
        expect(why).to_contain_text("tides.csv cannot be read")

    def test_rows_at_the_landmarks_of_a_lane(self):
        self.open_values()
        self.page.locator("#table-by").select_option("landmarks")
        # Turning points, inflections and ends of h, and the ends of d among them.
        self.eventually(lambda: self.rows().count(), 10)
        self.page.get_by_label("h", exact=True).uncheck()
        self.eventually(lambda: self.rows().count(), 2)

    def test_several_tables_a_running_slider_and_points(self):
        self.open_values("/demo/slipway")
        self.page.locator("#table-choice").select_option(label="table 2")
        heads = self.page.locator("table.values thead th")
        expect(heads.first).to_have_text("tide")
        expect(heads).to_have_count(3)
        self.page.locator("#table-choice").select_option(label="table 1")
        self.page.get_by_label("points on the plot").check()
        self.saved()
        self.eventually(lambda: self.ink(8, 2.5 - 4 / 6, (27, 94, 75), 2), True)
        self.page.reload()
        expect(self.page.get_by_label("points on the plot")).to_be_checked()
        self.page.get_by_role("button", name="Delete this table").click()
        expect(heads.first).to_have_text("tide")
