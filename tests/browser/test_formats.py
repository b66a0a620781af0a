"""A sheet taken away as a file in a real browser, and brought back."""

import json
import tempfile
import zipfile
from pathlib import Path

from PIL import Image
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
            expect(self.page.get_by_label("Width of the picture")).to_be_hidden()
            self.page.keyboard.press("Escape")
            self.page.goto(self.server.url + "/shelf")
            self.page.set_input_files("#bring-file", str(place))
            self.page.get_by_role("button", name="Bring in", exact=True).click()
        expect(self.page.locator(".lane")).to_have_count(4)
        self.turn_to("Working")
        expect(self.page.locator(".block-answers").first).to_contain_text("8.336 kN")
        self.page.goto(self.server.url + "/shelf")
        expect(self.page.locator(".sheet-link").first).to_have_text("Crane load")

    def test_pages_to_print_and_a_picture_in_centimetres(self):
        self.open("/demo/ferry-window")
        with tempfile.TemporaryDirectory() as folder:
            self.page.get_by_role(
                "button", name="Take the sheet or a picture away, or print"
            ).click()
            self.page.get_by_role("radio", name="PDF of the sheet").check()
            for part in ("Solve", "Data", "Working"):
                self.page.get_by_role("checkbox", name=part, exact=True).uncheck()
            self.page.keyboard.press("Escape")
            place = self.taken("PDF of the sheet", folder)
            self.assertEqual(place.name, "Ferry window.pdf")
            self.assertTrue(place.read_bytes().startswith(b"%PDF"))
            self.page.get_by_role(
                "button", name="Take the sheet or a picture away, or print"
            ).click()
            expect(self.page.get_by_role("checkbox", name="Data", exact=True)).not_to_be_checked()
            self.page.get_by_role("radio", name="PNG picture").check()
            self.page.get_by_label("Size in").select_option("cm")
            self.page.get_by_label("Width of the picture").fill("16,5")
            self.page.get_by_label("Height of the picture").fill("10")
            self.page.get_by_role("combobox", name="colours").select_option("dark")
            self.page.keyboard.press("Escape")
        with tempfile.TemporaryDirectory() as folder:
            self.page.get_by_role(
                "button", name="Take the sheet or a picture away, or print"
            ).click()
            self.page.get_by_label("Width of the picture").fill("16,5")
            self.page.get_by_label("Height of the picture").fill("10")
            with self.page.expect_download() as waited:
                self.page.get_by_role("button", name="Save", exact=True).click()
            waited.value.save_as(Path(folder) / "picture.png")
            picture = Image.open(Path(folder) / "picture.png").convert("RGB")
            self.assertEqual(picture.size, (1300, 788))
            self.assertEqual(picture.getpixel((3, 3)), (0x19, 0x1F, 0x1C))

    def test_a_formula_is_copied_and_lines_of_homework_are_pasted(self):
        self.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.open_with("f(x) = x^2/3")
        copied = "navigator.clipboard.readText()"
        self.lane("f").locator('[data-act="more"]').click()
        self.lane("f").get_by_role("button", name="Copy as MathML").click()
        self.eventually(lambda: self.page.evaluate(copied)[:5], "<math")
        self.lane("f").get_by_role("button", name="Copy as LaTeX").click()
        self.eventually(lambda: "frac" in self.page.evaluate(copied), True)
        lines = r"\begin{align} g(x) &= \frac{1}{x} \\ h(x) &= \sin x \end{align}"
        self.page.evaluate(
            "text => navigator.clipboard.writeText(text)", lines.replace("\\ ", "\\\n")
        )
        self.page.locator("#entry").focus()
        self.page.keyboard.press("Control+v")
        expect(self.lane("h")).to_be_visible()
        expect(self.page.locator(".lane")).to_have_count(3)
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.locator(".lane")).to_have_count(1)

    def test_chosen_sheets_of_the_shelf_go_away_together(self):
        for line in ("x^2", "sin x"):
            self.open_with(line)
        self.page.goto(self.server.url + "/shelf")
        save = self.page.get_by_role("button", name="Save", exact=True)
        save.click()
        expect(self.page.get_by_role("alert")).to_contain_text("Choose sheets first")
        self.page.get_by_label("all", exact=True).check()
        self.page.get_by_label("take away").select_option("script")
        with self.page.expect_download() as waited:
            save.click()
        with tempfile.TemporaryDirectory() as folder:
            waited.value.save_as(Path(folder) / "sheets.zip")
            with zipfile.ZipFile(Path(folder) / "sheets.zip") as made:
                self.assertEqual(len(made.namelist()), 2)
