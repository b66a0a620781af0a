"""Landmarks on the page: where they show, why they hold, and how to get from one to the next."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest

COLOUR_AT = """([x, y]) => {
  const plot = document.getElementById("plot");
  const ratio = plot.width / plot.getBoundingClientRect().width;
  return [...plot.getContext("2d").getImageData(x * ratio, y * ratio, 1, 1).data].slice(0, 3);
}"""
SPRUCE = [27, 94, 75]


class LandmarksTest(BrowserTest):
    def row(self, name, kind, index=0):
        return self.page.locator(
            f'.marks[aria-label="Landmarks of {name}"] tr[data-kind="{kind}"]'
        ).nth(index)


class Landmarks(LandmarksTest):
    def test_strip_and_plot_show_a_landmark_at_the_same_pixel(self):
        self.open()
        self.type_line("x^3 - 2x - 1")
        self.eventually(lambda: len(self.marks("f", "zero")), 3)
        plot = self.page.locator("#plot").bounding_box()
        for mark in self.page.locator('.strip-mark[data-kind="zero"]').all():
            x = float(mark.get_attribute("data-x"))
            box = mark.bounding_box()
            across, down = self.pixel(x, 0)
            self.assertAlmostEqual(box["x"] + box["width"] / 2, plot["x"] + across, delta=0.6)
            found = self.page.evaluate(COLOUR_AT, [across, down])
            self.assertLess(sum(abs(a - b) for a, b in zip(found, SPRUCE, strict=True)), 60)

    def test_a_function_is_written_in_another_form_and_stays_the_same(self):
        self.open()
        self.type_line("f(x) = x^2 - 4x + 3")
        self.eventually(lambda: self.marks("f", "zero"), [1, 3])
        forms = self.page.locator("details.forms")
        forms.locator("summary").click()
        factors = forms.locator("li").filter(has_text="in factors")
        expect(factors).to_contain_text("zeros at x = 1, 3")
        factors.get_by_role("button", name="Write f this way").click()
        expect(self.lane("f")).to_have_attribute("data-text", "f(x) = (x - 3) (x - 1)")
        self.eventually(lambda: self.marks("f", "zero"), [1, 3])
        # The list of forms stays open, and the one that stands there now is not offered.
        expect(forms.locator("li").filter(has_text="expanded")).to_be_visible()
        expect(factors).to_have_count(0)
        slope = forms.locator("li").filter(has_text="derivative").first
        slope.get_by_role("button", name="Draw it as a lane").click()
        expect(self.page.locator(".lane")).to_have_count(2)
        self.page.keyboard.press("Control+z")
        expect(self.page.locator(".lane")).to_have_count(1)

    def test_a_list_is_copied_with_its_exact_forms(self):
        self.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.open()
        self.type_line("x^2 - 2")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        self.page.get_by_role("button", name="Copy the list of zeros").click()
        copied = self.page.evaluate("navigator.clipboard.readText()")
        rows = [row.split("\t") for row in copied.splitlines()]
        self.assertEqual([round(float(row[0]) ** 2, 12) for row in rows], [2, 2])
        self.assertEqual([float(row[1]) for row in rows], [0, 0])

    def test_a_hole_stays_where_a_fraction_is_reduced(self):
        self.open()
        self.type_line("simplify (x^2 - 1)/(x - 1)")
        expect(
            self.page.locator(".told, .notice, [role=status]").filter(has_text="x + 1")
        ).to_contain_text("= x + 1 for x ≠ 1")
        self.eventually(lambda: self.marks("f", "hole"), [1])

    def test_the_next_landmark_by_key_takes_the_reading_line_along(self):
        self.open()
        self.type_line("(x + 1)(x - 2)")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        plot = self.page.locator("#plot")
        plot.focus()
        wanted = ["0", "0.5", "2"]  # the y-intercept, the minimum, a zero
        start = self.pixel(-0.4, 0)
        plot.click(position={"x": start[0], "y": 20})
        for x in wanted:
            self.page.keyboard.press(".")
            expect(self.page.locator("#reading-x")).to_have_value(x)
        expect(self.row("f", "zero", 1)).to_have_class(re.compile("is-selected"))
        self.page.keyboard.press(",")
        expect(self.page.locator("#reading-x")).to_have_value("0.5")
        expect(self.page.locator(".strip-mark.is-selected")).to_have_attribute(
            "data-kind", "minimum"
        )

    def test_a_click_on_a_landmark_selects_it_everywhere(self):
        self.open()
        self.type_line("x^2 - 4")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        across, down = self.pixel(2, 0)
        self.page.locator("#plot").click(position={"x": across + 3, "y": down - 2})
        expect(self.row("f", "zero", 1)).to_have_class(re.compile("is-selected"))
        self.page.locator('.strip-mark[data-kind="minimum"]').click()
        expect(self.row("f", "minimum")).to_have_class(re.compile("is-selected"))
        expect(self.page.locator("#reading-x")).to_have_value("0")

    def test_landmarks_on_a_part_of_the_axis(self):
        self.open()
        self.type_line("sin x")
        self.eventually(lambda: len(self.marks("f", "zero")), lambda n: n > 2)
        self.page.fill("#only-low", "π/2")
        self.page.fill("#only-high", "2π")
        self.page.press("#only-high", "Enter")
        self.eventually(lambda: self.marks("f", "zero"), [3.14159265359, 6.28318530718])
        self.page.fill("#only-low", "9")
        self.page.press("#only-low", "Enter")
        expect(self.page.get_by_text("The interval is empty")).to_be_visible()
        self.page.get_by_role("button", name="Landmarks of the whole view again").click()
        self.eventually(lambda: len(self.marks("f", "zero")), lambda n: n > 2)
        rail = self.page.locator("#rail").bounding_box()
        ends = [self.pixel(x, 0)[0] + rail["x"] for x in (-1, 1)]
        self.page.keyboard.down("Shift")
        self.page.mouse.move(ends[0], rail["y"] + 10)
        self.page.mouse.down()
        self.page.mouse.move(ends[1], rail["y"] + 10, steps=4)
        self.page.mouse.up()
        self.page.keyboard.up("Shift")
        self.eventually(lambda: self.marks("f", "zero"), [0])

    def test_a_pole_a_hole_and_where_a_function_lives(self):
        self.open()
        self.type_line("(x^2 - 1)/(x - 1)")
        expect(self.row("f", "hole")).to_contain_text("2")
        expect(self.page.locator("#landmarks")).to_contain_text("Defined for x ≠ 1.")
        self.type_line("√(x + 4) + 1/x")
        expect(self.row("g", "pole")).to_contain_text("−∞ | +∞")
        expect(self.page.locator("#landmarks")).to_contain_text(
            "Defined for x ≥ −4, x ≠ 0: sqrt is defined only where"
        )
        blank = self.lane("g").locator(".strip-undefined title")
        expect(blank.first).to_have_text(re.compile("not negative"))

    def test_an_empty_plot_says_why(self):
        self.open()
        told = self.page.locator(".plot-empty")
        self.type_line("ln(-1 - x^2)")
        expect(told).to_contain_text("f is undefined everywhere here: ln is defined only where")
        self.page.get_by_role("button", name="Delete f").click()
        self.type_line("a x")
        expect(told).to_contain_text("a has no value")
        self.lane("f").get_by_role("button", name="make a a slider").click()
        expect(told).to_be_hidden()
        self.page.get_by_role("button", name="Hide f").click()
        expect(told).to_contain_text("Every function is hidden")

    def test_labels_copies_and_the_file(self):
        self.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.open()
        self.type_line("x^2 - 2")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        self.row("f", "zero", 1).get_by_role("button", name="Why?").click()
        self.page.get_by_role("button", name="Label on the plot").locator("visible=true").click()
        clear = self.page.get_by_role("button", name="Clear labels")
        expect(clear).to_be_visible()
        self.page.get_by_role("button", name="Copy", exact=True).locator("visible=true").click()
        expect(self.page.get_by_text("Copied.")).to_be_visible()
        copied = self.page.evaluate("navigator.clipboard.readText()")
        self.assertEqual(copied, "1.4142135623730951\t0")
        # A file that cannot be had is told, and asked for again it comes.
        self.page.route("**/landmarks.csv", lambda route: route.abort())
        self.page.get_by_role("button", name="CSV file").click()
        expect(self.page.get_by_text("The landmarks could not be taken")).to_be_visible()
        self.page.unroute("**/landmarks.csv")
        with self.page.expect_download() as download:
            self.page.get_by_role("button", name="CSV file").click()
        text = download.value.path().read_bytes().decode()
        self.assertIn("f,zero,-1.4142135623730951,0,,,proven,\r\n", text)
        self.page.reload()
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        clear.click()
        expect(clear).to_be_hidden()


class Proof(LandmarksTest):
    exact = True

    def test_the_certificate_and_the_exact_form(self):
        self.open()
        self.type_line("x^2 - x - 1")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        self.row("f", "zero", 1).get_by_role("button", name="Why?").click()
        detail = self.page.locator(".detail:visible")
        expect(detail).to_contain_text("different signs at both ends of the bracket")
        expect(detail).to_contain_text("1.618033988749895")
        expect(detail).to_contain_text("Exactly x = (1+√5)/2.", timeout=120_000)
