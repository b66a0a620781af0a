"""Relations and regions on the page: pictures pixel by pixel, landmarks, readings, systems."""

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest

SPRUCE = (27, 94, 75)


class Relations(BrowserTest):
    def standard(self):
        self.page.locator("#plot").press("Home")
        self.eventually(lambda: self.view()[:2], [-10, 10])

    def inked(self, places, reach, colour=SPRUCE, within=40):
        """Whether the plot has a colour near each of some places of the axes."""
        at = [self.pixel(x, y) for x, y in places]
        return self.page.evaluate(
            """([places, reach, colour, within]) => {
              const plot = document.getElementById("plot");
              const ratio = plot.width / plot.clientWidth;
              const context = plot.getContext("2d");
              const size = Math.round((2 * reach + 1) * ratio);
              return places.map(([x, y]) => {
                const [left, top] = [(x - reach) * ratio, (y - reach) * ratio];
                const { data } = context.getImageData(left, top, size, size);
                for (let i = 0; i < data.length; i += 4)
                  if (colour.every((c, k) => Math.abs(data[i + k] - c) <= within)) return true;
                return false;
              });
            }""",
            [at, reach, list(colour), within],
        )

    def test_a_hyperbola_has_nothing_between_its_branches(self):
        self.open()
        self.type_line("x y = 3")
        self.standard()
        branches = [(x, 3 / x) for x in (0.8, 1.5, 3, -1.5, -3)]
        self.eventually(lambda: all(self.inked(branches, 2)), True)
        between = [(0.3, 0.3), (-1, 1), (1, -1), (0.4, -3), (-0.4, 3)]
        self.assertFalse(any(self.inked(between, 5)))

    def test_a_single_point_is_there_and_a_crossing_is_listed(self):
        self.open()
        self.type_line("(x - 2)^2 + (y - 3)^2 = 0")
        self.standard()
        self.eventually(lambda: self.inked([(2, 3)], 5), [True])
        self.eventually(lambda: self.marks("R", "single-point"), [2])
        self.type_line("y^2 = x^2 (x + 1)")
        self.eventually(lambda: self.marks("S", "self-crossing"), [0])
        expect(self.page.locator("#plot-words")).to_contain_text("1 crossing of itself")

    def test_borders_are_broken_where_they_do_not_belong_and_corners_hollow(self):
        self.open()
        self.type_line("x >= 2 and y < 4 and y >= 0 and x <= 8")
        self.standard()
        self.eventually(lambda: self.marks("R", "corner"), [2, 2, 8, 8])
        # Along the left border there is ink everywhere, along the upper one there are gaps.
        upper = self.inked([(3 + k / 20, 4) for k in range(80)], 1, within=60)
        self.assertEqual((any(upper), all(upper)), (True, False))
        self.assertTrue(all(self.inked([(2, 0.5 + k / 30) for k in range(90)], 1, within=60)))
        # Filled in the middle, and hollow.
        self.assertEqual(self.inked([(8, 0), (8, 4)], 0, within=60), [True, False])

    def test_the_reading_line_reads_all_of_them(self):
        self.open()
        self.type_line("x^2 + y^2 = 25")
        expect(self.lane("R")).to_contain_text("a circle, centre (0, 0), radius 5")
        self.page.fill("#reading-x", "3")
        self.page.press("#reading-x", "Enter")
        expect(self.page.locator(".reading-row").first).to_contain_text("−4; 4")
        expect(self.lane("R").locator(".strip text").first).to_have_text("2")

    def test_a_slider_turns_a_relation_and_undo_brings_it_back(self):
        self.open()
        self.type_line("a = 2")
        self.type_line("x^2 + y^2 = a^2")
        self.eventually(lambda: self.marks("R", "upright-tangent"), [-2, 2])
        self.lane("a").locator(".thumb").press("ArrowRight")
        self.eventually(lambda: self.marks("R", "upright-tangent") != [-2, 2], True)
        self.page.get_by_role("button", name="Undo sliding a").click()
        self.eventually(lambda: self.marks("R", "upright-tangent"), [-2, 2])

    def test_two_equations_in_solve(self):
        self.open()
        self.page.get_by_role("tab", name="Solve").click()
        self.page.fill("#equation", "x^2 + y^2 = 25, x + y = 7")
        self.page.press("#equation", "Enter")
        solutions = self.page.locator("#solutions")
        expect(solutions).to_contain_text("2 solutions in this view.")
        expect(solutions.locator("tr[data-solution]")).to_have_count(2)
        self.page.fill("#equation", "x + y = 1, 2x + 2y = 2")
        self.page.press("#equation", "Enter")
        expect(solutions).to_contain_text("Infinitely many solutions")
        expect(solutions).to_contain_text("x + y − 1 = 0")

    def test_the_largest_value_on_a_region_and_its_level_line(self):
        self.open()
        self.type_line("2x + y <= 10 and x + 3y <= 15 and x >= 0 and y >= 0")
        self.page.get_by_role("tab", name="Solve").click()
        self.page.fill("#equation", "largest 3x + 2y in R")
        self.page.press("#equation", "Enter")
        solutions = self.page.locator("#solutions")
        expect(solutions).to_contain_text("3 x + 2 y is largest at this corner: 17.")
        self.page.get_by_role("button", name="Keep as lanes").click()
        expect(self.page.locator(".lane")).to_have_count(3)
        expect(self.lane("S")).to_contain_text("a straight line of slope")
        # The line is moved by a slider of its own.
        thumb = self.page.get_by_role("slider", name="level", exact=True)
        expect(thumb).to_have_attribute("aria-valuenow", "17")
        thumb.press("Home")
        self.saved()
        expect(self.lane("level")).not_to_have_attribute("data-text", "level = 17")

    def test_a_relation_is_solved_for_y(self):
        self.open()
        self.type_line("x^2 + y^2 = 4")
        expect(self.lane("R").get_by_role("button", name="solve for x")).to_be_visible()
        self.lane("R").get_by_role("button", name="solve for y").click()
        expect(self.page.locator(".lane")).to_have_count(3)
        self.page.get_by_role("button", name="Undo solving R for y").click()
        expect(self.page.locator(".lane")).to_have_count(1)

    def test_what_has_no_point_is_told_and_what_cannot_be_read(self):
        self.open()
        self.type_line("x^2 + y^2 = -1")
        expect(self.page.locator(".plot-empty")).to_contain_text("no point at all in this view")
        self.page.fill("#entry", "1 < x > 3")
        self.page.press("#entry", "Enter")
        expect(self.page.locator("#entry-trouble")).to_contain_text("one direction")
