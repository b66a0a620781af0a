"""A sheet taken away as a file in a real browser, and brought back."""

import json
import tempfile
from pathlib import Path

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Formats(BrowserTest):
    def taken(self, title, folder):
        self.page.get_by_role("button", name="Take the sheet or a picture away, or print").click()
        dialog = self.page.get_by_role("dialog", name="Take away")
        dialog.get_by_role("radio", name=title).check()
        with self.page.expect_download() as waited:
            dialog.get_by_role("button", name="Save", exact=True).click()
        expect(dialog).to_be_hidden()
        place = Path(folder) / waited.value.suggested_filename
        waited.value.save_as(place)
        return place

    def test_a_sheet_goes_away_and_comes_back_whole(self):
        self.open("/demo/crane")
        with tempfile.TemporaryDirectory() as folder:
            place = self.taken("the sheet itself", folder)
            self.assertEqual(place.name, "Crane load.json")
            self.assertEqual(json.loads(place.read_text())["axis path sheet"], 1)
            script = self.taken("Python script", folder)
            self.assertIn("zeros of", script.read_text())
            # The last choice is remembered.
            self.page.reload()
            self.page.get_by_role(
                "button", name="Take the sheet or a picture away, or print"
            ).click()
            expect(self.page.get_by_role("radio", name="Python script")).to_be_checked()
            expect(self.page.get_by_label("Width in pixels")).to_be_hidden()
            self.page.keyboard.press("Escape")
            self.page.goto(self.server.url + "/shelf")
            self.page.set_input_files("#bring-file", str(place))
            self.page.get_by_role("button", name="Bring in").click()
        expect(self.page.locator(".lane")).to_have_count(4)
        self.page.get_by_role("tab", name="Working").click()
        expect(self.page.locator(".block-answers").first).to_contain_text("8.336 kN")
        self.page.goto(self.server.url + "/shelf")
        expect(self.page.locator(".sheet-link").first).to_have_text("Crane load")
