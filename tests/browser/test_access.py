"""Every view in both themes against the rules of axe-core (WCAG 2.2 A and AA)."""

from axispath.command.place import ROOT
from tests.browser.harness import BrowserTest

AXE = (ROOT / "tests/vendor/axe-core/axe.min.js").read_text()
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
SHOW = """(theme) => {
  document.documentElement.dataset.theme = theme;
  window.dispatchEvent(new Event("axispath-theme"));
}"""
RUN = """async (tags) => {
  const found = await axe.run(document, { runOnly: { type: "tag", values: tags } });
  const places = (v) => v.nodes.map((node) => node.target.join(" ")).join(", ");
  return found.violations.map((v) => `${v.id}: ${places(v)}`);
}"""


class Access(BrowserTest):
    def check(self, what):
        self.page.evaluate(AXE)  # by the debugger, which the page's own policy does not bind
        for theme in ("light", "dark"):
            self.page.evaluate(SHOW, theme)
            self.assertEqual(self.page.evaluate(RUN, RULES), [], f"{what}, {theme}")

    def test_the_sheet_and_its_desk(self):
        self.open("/demo/ferry-window")
        self.eventually(lambda: len(self.marks("h", "maximum")), lambda n: n > 1)
        self.page.fill("#reading-x", "9")
        self.page.press("#reading-x", "Enter")
        self.lane("h").get_by_role("button", name="More for h").click()
        self.check("the sheet")
        self.page.get_by_role("tab", name="Values").click()
        self.page.locator("#values table").wait_for()
        self.check("values")
        self.page.get_by_role("tab", name="Solve").click()
        self.page.fill("#equation", "h(x) = 3")
        self.page.press("#equation", "Enter")
        self.page.locator("#solutions tr[data-solution]").first.wait_for()
        self.page.fill("#method-start", "4")
        self.page.get_by_role("button", name="Watch").click()
        self.page.locator("#iterates tr[data-step]").first.wait_for()
        self.check("solve")

    def test_data_working_and_a_place_of_the_plane(self):
        self.open("/demo/engine")
        self.turn_to("Data")
        self.page.locator(".fit").first.wait_for()
        for part in ("summary", "drawn", "arrange"):
            self.page.locator(f"[data-part={part}] summary").click()
        self.page.locator(".data-cells td").nth(2).click()
        self.check("data")
        self.turn_to("Working")
        self.page.fill("#work-entry", "10/14")
        self.page.press("#work-entry", "Enter")
        self.page.locator(".work-line").wait_for()
        self.check("working")
        self.open("/demo/bay")
        self.page.locator("#spot").wait_for()
        self.page.fill("#reading-y", "1")
        self.page.press("#reading-y", "Enter")
        self.page.locator(".spot-cut").first.wait_for()
        self.check("a place of the plane")

    def test_practising_and_sealed_sheets(self):
        self.open("/demo/lock")
        self.turn_to("Practise")
        self.page.get_by_label("at", exact=True).fill("3")
        self.page.get_by_role("button", name="Is it there?").click()
        self.page.locator(".guessing .try").first.wait_for()
        self.page.locator(".question-form summary").click()
        self.page.locator(".question-preview").wait_for()
        self.check("practising")
        self.page.locator("#plot").press("u")
        self.page.locator("#hear-play").wait_for()
        self.check("hearing")
        self.page.get_by_role("link", name="Hand out").click()
        self.page.get_by_text("Seal it:").click()
        self.page.get_by_label("seal it", exact=True).check()
        self.check("handing out")
        self.page.get_by_role("button", name="Hand out").click()
        link = self.page.get_by_label("Link 1").input_value()
        self.page.goto(link)
        self.check("entering")
        self.page.get_by_label("Your name").fill("Ada")
        self.page.get_by_role("button", name="Begin").click()
        self.page.locator(".sealed").wait_for()
        self.check("a sealed sheet")
        self.page.goto(f"{link}/record")
        self.check("a record")
        back = link.split("/h/")[1]
        sheets = self.page.request.get(f"{link}/lock.json").json()
        self.assertTrue(sheets["page"].endswith(back))

    def test_a_wrong_line_and_the_dialogs(self):
        self.open()
        self.type_line("sin(")
        self.check("a wrong line")
        for opener in ("All keys", "Take the sheet or a picture away, or print", "numbers, title…"):
            self.page.get_by_role("button", name=opener).first.click()
            self.check(opener)
            self.page.keyboard.press("Escape")

    def test_the_shelf_and_the_handbook(self):
        for path in ("/shelf", "/handbook"):
            self.page.goto(self.server.url + path)
            self.check(path)
