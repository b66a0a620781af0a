"""Calculations between two graphs: lines, their results, what follows them, rows and systems."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Working(BrowserTest):
    exact = True

    def open_working(self):
        self.open()
        self.turn_to("Working")
        expect(self.page.locator("#work-entry")).to_be_focused()

    def work(self, *lines):
        for text in lines:
            count = self.page.locator(".work-line").count()
            self.page.fill("#work-entry", text)
            self.page.press("#work-entry", "Enter")
            expect(self.page.locator(".work-line")).to_have_count(count + 1)

    def line(self, number):
        return self.page.locator(".work-line").nth(number)

    def more(self, number, name):
        """A button among what can be done with a line."""
        if self.line(number).locator(".work-menu").is_hidden():
            self.line(number).locator("[data-more]").click()
        return self.line(number).get_by_role("button", name=name, exact=True)

    def test_a_fraction_a_root_and_a_line_changed_with_all_below(self):
        self.open_working()
        self.work("a = 10/14", "√12", "ans + a")
        expect(self.line(0)).to_contain_text("= 5/7")
        expect(self.line(1)).to_contain_text("= 2√3")
        expect(self.line(2)).to_contain_text("= (5 + 14√3)/7 ≈ 4.17839")
        # A lane of the sheet uses the same name, and follows too.
        self.type_line("f(x) = a x")
        expect(self.page.locator(".lane")).to_have_count(1)
        self.line(0).locator("[data-edit]").click()
        field = self.line(0).locator("input")
        field.fill("a = 2")
        field.press("Enter")
        expect(self.line(2)).to_contain_text("≈ 5.4641")
        self.page.fill("#reading-x", "3")
        self.page.press("#reading-x", "Enter")
        expect(self.page.locator(".reading-rows")).to_contain_text("6")
        self.page.locator("#work-entry").press("ArrowUp")
        expect(self.page.locator("#work-entry")).to_have_value("f(x) = a x")
        self.page.locator("#work-entry").press("ArrowUp")
        expect(self.page.locator("#work-entry")).to_have_value("ans + a")

    def test_a_new_line_comes_into_sight_above_the_entry(self):
        self.open("/demo/tickets")
        self.turn_to("Working")
        expect(self.line(9)).to_contain_text("roots")
        self.work("5 metres + 30 cm")
        expect(self.line(10)).to_contain_text("= 5.3 m")
        last = (
            "() => document.querySelector('.work-line:last-child').getBoundingClientRect().bottom"
        )
        entry = "() => document.querySelector('.work-field').getBoundingClientRect().top"
        self.eventually(lambda: self.page.evaluate(last) <= self.page.evaluate(entry), True)

    def test_wrong_lines_notation_and_a_line_sent_to_the_sheet(self):
        self.open_working()
        self.page.fill("#work-entry", "2 )")
        self.page.press("#work-entry", "Enter")
        expect(self.page.locator(".work-entry > .why")).to_contain_text("closes nothing")
        expect(self.page.locator("#work-entry")).to_have_value("2 )")
        self.page.get_by_role("button", name="Use 2", exact=True).click()
        expect(self.page.locator("#work-entry")).to_have_value("2")
        self.work("x^2 - 1", "20000/7")
        self.page.select_option("#work-notation", "engineering")
        expect(self.line(1)).to_contain_text("2.85714 × 10³")
        expect(self.page.get_by_role("button", name=re.compile("Undo how numbers"))).to_be_visible()
        self.more(0, "Send to the sheet").click()
        expect(self.page.locator(".lane")).to_have_count(1)
        expect(self.page.locator(".work-line")).to_have_count(1)
        self.eventually(lambda: self.marks("f", "zero"), [-1, 1])

    def test_a_triangle_in_degrees(self):
        self.open()
        self.page.get_by_text("deg", exact=True).click()
        self.page.evaluate("document.activeElement.blur()")
        self.page.keyboard.press("=")
        expect(self.page.locator("#work-entry")).to_be_focused()
        self.work(
            "b = 5",
            "c = 8",
            "α = 60",
            "a = √(b^2 + c^2 - 2b c cos α)",
            "arccos((a^2 + b^2 - c^2)/(2a b))",
            "180 - α - ans",
            "b c sin(α)/2",
        )
        expect(self.line(3)).to_contain_text("= 7")
        expect(self.line(4)).to_contain_text("≈ 81.7868")
        expect(self.line(5)).to_contain_text("≈ 38.2132")
        expect(self.line(6)).to_contain_text("= 10√3 ≈ 17.3205")
        # One key turns from both to the decimal, to the exact form, and back.
        self.line(6).locator(".formula").focus()
        self.page.keyboard.press("d")
        expect(self.line(6).locator(".work-result")).to_have_text(re.compile(r"^\s*≈ 17\.3205\s*$"))
        self.page.keyboard.press("d")
        expect(self.line(6).locator(".work-result")).to_have_text(re.compile(r"^\s*= 10√3\s*$"))
        expect(self.line(6).locator(".formula")).to_be_focused()
        self.page.keyboard.press("ArrowUp")
        expect(self.line(5).locator(".formula")).to_be_focused()
        # At rest it is kept, and what needs it waits.
        self.line(1).locator(".formula").focus()
        self.page.keyboard.press("r")
        expect(self.line(1)).to_contain_text("at rest")
        expect(self.line(6)).to_contain_text("waits for c")
        self.page.keyboard.press("r")
        expect(self.line(6)).to_contain_text("10√3")

    def test_a_system_by_rows_and_on_the_graph(self):
        self.open_working()
        self.page.get_by_text("Linear system").click()
        self.page.fill("#work-system", "2x + 3y = 7\nx - y = 1")
        self.page.get_by_role("button", name="Solve by rows").click()
        answer = self.page.locator(".work-solution")
        expect(answer).to_contain_text("One solution: x = 2, y = 1")
        stages = answer.locator(".stage:visible")
        expect(stages).to_have_count(1)
        answer.get_by_role("button", name="Next step").click()
        expect(stages).to_have_count(2)
        expect(stages.nth(1)).to_contain_text("Exchange rows 1 and 2. R₁ ↔ R₂")
        answer.get_by_role("button", name="Back").click()
        expect(stages).to_have_count(1)
        # An operation of one's own; what loses a row is refused, and nothing else changes.
        own = answer.get_by_label(re.compile("A row operation of your own"))
        own.fill("R1 = 2 R2")
        own.press("Enter")
        expect(answer.locator(".why")).to_contain_text("Row 1 would be lost")
        own.fill("R1 - 2 R2")
        own.press("Enter")
        expect(stages).to_have_count(2)
        expect(stages.nth(1)).to_contain_text("Subtract 2 times row 2 from row 1.")
        expect(stages.nth(1).locator("tr").first).to_contain_text("0")
        answer.get_by_role("button", name="All steps").click()
        expect(stages.last.locator("tr").nth(1)).to_have_text(re.compile(r"^\s*0\s*1\s*1\s*$"))
        self.page.get_by_role("button", name="Draw").click()
        expect(self.page.locator(".lane")).to_have_count(2)
        self.page.get_by_role("tab", name="Landmarks").click()
        self.eventually(lambda: self.marks("R and S", "intersection"), [2])
        expect(self.page.locator('#landmarks tr[data-kind="intersection"]')).to_be_visible()
        # It is still there after a reload, and without a solution it says what contradicts itself.
        self.page.wait_for_function("location.pathname.length > 1")
        self.page.reload()
        self.turn_to("Working")
        self.page.get_by_text("Linear system").click()
        expect(self.page.locator("#work-system")).to_have_value("2x + 3y = 7\nx - y = 1")
        self.page.fill("#work-system", "x + y = 1\nx + y = 3")
        self.page.get_by_role("button", name="Solve by rows").click()
        expect(answer).to_contain_text("No solution: the last steps leave the row 0 = 2")

    def test_matrices_are_reduced_copied_and_drawn_anew(self):
        self.open_working()
        self.work(
            "A = [1, 2; 3, 4]", "A^-1·[1; 1]", "randomwhole(2, 2, 1, 9, 1)", "[1, 2; 2, 4]^-1"
        )
        expect(self.line(0)).to_contain_text("2 × 2")
        expect(self.line(1).locator(".matrix td").first).to_have_text("−1")
        expect(self.line(3)).to_contain_text("singular")
        self.more(0, "Reduce by rows").click()
        rows = self.page.locator(".work-rows")
        expect(rows.locator(".stage:visible")).to_have_count(1)
        rows.get_by_role("button", name="All steps").click()
        expect(rows.locator(".stage:visible").last.locator("td")).to_have_text(["1", "0", "0", "1"])
        # The steps follow the line.
        self.line(0).locator("[data-edit]").click()
        self.line(0).locator("input").fill("A = [1, 2; 2, 4]")
        self.line(0).locator("input").press("Enter")
        expect(self.line(1)).to_contain_text("singular")
        rows.get_by_role("button", name="All steps").click()
        expect(rows.locator(".stage:visible").last.locator("td")).to_have_text(["1", "2", "0", "0"])
        rows.get_by_role("button", name="Close").click()
        expect(rows).to_be_hidden()
        before = self.line(2).locator(".matrix").inner_text()
        self.more(2, "Draw anew").click()
        expect(self.line(2).locator(".matrix")).not_to_have_text(before)
        self.page.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.line(0).locator("[data-more]").click()
        self.line(0).get_by_role("button", name="Copy as LaTeX").click()
        copied = self.page.evaluate("navigator.clipboard.readText()")
        self.assertEqual(copied, r"\begin{bmatrix} 1 & 2 \\ 2 & 4 \end{bmatrix}")

    def test_a_matrix_in_a_grid_and_three_planes(self):
        self.open_working()
        self.work("M = [1, 2; 3, 4]", "det(M)")
        self.more(0, "Edit as a grid").click()
        cell = self.line(0).get_by_label("row 2, column 2")
        cell.fill("a")
        self.line(0).get_by_label("row 1, column 1").press("ArrowDown")
        expect(self.line(0).get_by_label("row 2, column 1")).to_be_focused()
        cell.fill("10")
        cell.press("Enter")
        expect(self.line(1)).to_contain_text("= 4")
        self.page.get_by_role("button", name="√π: signs for a calculation").click()
        self.page.get_by_role("button", name="matrix in a grid").click()
        cells = self.page.locator(".work-cells")
        cells.get_by_role("button", name="Column more").click()
        for place, text in (("row 1, column 1", "1/2"), ("row 2, column 3", "√2")):
            cells.get_by_label(place).fill(text)
        cells.get_by_role("button", name="Done").click()
        entry = self.page.locator("#work-entry")
        expect(entry).to_have_value("[1/2, 0, 0; 0, 0, √2]")
        entry.press("Enter")
        expect(self.page.locator(".work-line")).to_have_count(3)
        expect(self.line(2)).to_contain_text("2 × 3")
        self.page.get_by_text("Linear system").click()
        self.page.fill("#work-system", "x + y + z = 6\nx - y = 0\nx + z = 4")
        self.page.get_by_role("button", name="Draw").click()
        expect(self.page.locator(".work-solution")).to_contain_text("x = 2, y = 2, z = 2")
        expect(self.page.locator(".lane")).to_have_count(2)
        self.page.locator(".lane").first.get_by_role("button", name=re.compile("More for")).click()
        self.page.get_by_role(
            "button", name=re.compile("as a surface", re.IGNORECASE)
        ).first.click()
        expect(self.page.locator("#surface")).to_be_visible()

        def colours():
            script = """() => { const c = document.getElementById("surface");
                if (!c.width) return 0;
                const d = c.getContext("2d").getImageData(0, 0, c.width, c.height).data;
                let green = 0, red = 0;
                for (let k = 0; k < d.length; k += 16) {
                    if (d[k + 1] > d[k] + 20) green += 1;
                    if (d[k] > d[k + 1] + 20) red += 1;
                }
                return green > 200 && red > 200; }"""
            return self.page.evaluate(script)

        self.eventually(colours, True)

    def test_complex_numbers_stand_on_the_plot_and_names_are_found(self):
        self.open_working()
        self.work(
            "w = 2 - 5i",
            "w^2",
            "√(-4)",
            "sum(1/k^2 for k = 1 to ∞)",
            "integral(sin x for x = 0 to π)",
        )
        expect(self.line(1)).to_contain_text("= −21 − 20i")
        expect(self.line(2)).to_contain_text("principal")
        expect(self.line(3)).to_contain_text("= π^2/6 ≈ 1.64493")
        expect(self.line(4).locator(".work-result")).to_have_text(re.compile(r"^\s*= 2\s*$"))
        self.more(0, "Show on the plot").click()
        expect(self.page.locator(".lane")).to_have_count(1)
        expect(self.page.locator(".lane")).to_contain_text("(2, -5)")
        self.line(0).locator("[data-form]").select_option("polar")
        expect(self.line(0)).to_contain_text("√29 cis(−1.19029)")
        self.page.get_by_text("Names in use").click()
        names = self.page.locator("[data-names] tbody tr:visible")
        self.page.fill("#work-search", "line 1")
        expect(names).to_have_count(1)
        expect(names).to_contain_text("a number")
        names.get_by_role("button").click()
        expect(self.page.locator("#work-entry")).to_have_value("w")

    def test_an_exact_form_that_comes_twice_is_shown_once(self):
        def late(route):
            answer = route.fetch()
            route.fulfill(response=answer, json={**answer.json(), "late": True})
            asked.append(route)

        asked = []
        self.page.route("**/exact", late)
        self.open_working()
        self.work("integral(sin x for x = 0 to π)")
        two = re.compile(r"^\s*= 2\s*$")
        expect(self.line(0).locator(".work-result")).to_have_text(two)
        before = len(asked)
        self.work("1/3")
        self.eventually(lambda: len(asked) > before + 2, True)
        expect(self.line(0).locator(".work-result")).to_have_text(two)
        self.page.unroute_all(behavior="wait")  # an answer may be on its way still

    def test_a_unit_mistake_is_found_and_mended(self):
        self.open_working()
        self.work("load = 850 kg · g", "load/4 in kN", "load + 3 kg")
        expect(self.line(0)).to_contain_text("≈ 8.33565 kN")
        expect(self.line(0)).to_contain_text("g is the standard gravity")
        expect(self.line(1)).to_contain_text("2.08391 kN")
        expect(self.line(2)).to_contain_text("kg m/s² and kilograms cannot be added")
        self.line(2).locator("[data-edit]").click()
        self.line(2).locator("input").fill("load + 3 kg · g")
        self.line(2).locator("input").press("Enter")
        expect(self.line(2)).to_contain_text("8.36507 kN")
        self.page.select_option("#work-measures", "US")
        expect(self.line(2)).to_contain_text("lbf")
        self.page.fill("#work-entry", "5 km in mils")
        self.page.press("#work-entry", "Enter")
        expect(self.page.locator(".work-entry > .why")).to_contain_text("is no unit that is known")
        self.page.get_by_role("button", name=re.compile("^Use 5 km in")).click()
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".work-line")).to_have_count(4)

    def test_a_value_of_the_sheet_goes_to_a_line(self):
        self.open()
        self.type_line("a = 1.5")
        self.page.get_by_role("button", name="More for a").click()
        self.page.get_by_role("button", name="To Working").click()
        self.turn_to("Working")
        expect(self.page.locator(".work-line")).to_have_count(1)
        expect(self.line(0)).to_contain_text("= 1.5")
        expect(self.page.locator(".lane")).to_have_count(1)

    def test_names_and_signs_are_offered(self):
        self.open_working()
        self.page.locator("#work-entry").press_sequentially("eigenv")
        offers = self.page.locator("#work-completions li")
        expect(offers.first).to_contain_text("eigenvalues(A)")
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#work-entry")).to_have_value("eigenvalues()")
        self.page.get_by_role("button", name="√π: signs for a calculation").click()
        self.page.get_by_role("button", name="matrix", exact=True).click()
        expect(self.page.locator("#work-entry")).to_have_value("eigenvalues([1, 2; 3, 4])")
        self.page.keyboard.press("Enter")
        expect(self.line(0)).to_contain_text("[(5 − √33)/2, (5 + √33)/2]")
