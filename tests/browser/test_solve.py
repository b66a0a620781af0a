"""Solve: from an equation as it is met to its solutions on the plot; methods that are watched."""

import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class SolveTest(BrowserTest):
    def open_solve(self, path="/"):
        self.open(path)
        self.page.get_by_role("tab", name="Solve").click()

    def solve(self, text, low=None, high=None):
        for field, value in (("low", low), ("high", high)):
            if value is not None:
                self.page.fill(f"#solve-{field}", value)
        self.page.fill("#equation", text)
        self.page.press("#equation", "Enter")

    def solutions(self):
        rows = self.page.locator("#solutions tr[data-solution]")
        return [float(x) for x in rows.evaluate_all("rows => rows.map((r) => r.dataset.x)")]


class Exactly(SolveTest):
    exact = True

    def test_an_equation_in_degrees_with_its_general_solution(self):
        self.open_solve()
        self.page.locator("label[for=unit-deg]").click()
        self.saved()
        self.solve("tan x = 5/8", "0", "360")
        self.eventually(
            lambda: [round(x, 9) for x in self.solutions()], [32.005383208, 212.005383208]
        )
        expect(self.page.locator("#solutions")).to_contain_text(
            "2 solutions on 0 ≤ x ≤ 360, no more"
        )
        self.solve("sin x = 1/2")
        expect(self.page.locator("[data-general]")).to_have_text(
            re.compile(r"30° \+ 360°k or x = 150° \+ 360°k"), timeout=120_000
        )


class Solve(SolveTest):
    def test_one_turn_is_offered_where_less_has_no_solution(self):
        self.open_solve()
        self.page.locator("label[for=unit-deg]").click()
        self.solve("sin x = 1/2", "-10", "10")
        self.page.get_by_role("button", name="Look at one turn, 0 to 360°").click()
        self.eventually(self.solutions, [30, 150])

    def test_the_mismatch_of_units_is_asked_about(self):
        self.open_solve()
        self.solve("sin(60) = x")
        expect(self.page.locator("#solutions")).to_contain_text("sin(60) suggests degrees")

    def test_solutions_stand_on_the_plot_and_sides_can_be_kept(self):
        self.open_solve()
        self.solve("x^2 = x + 2")
        self.eventually(self.solutions, [-1, 2])
        plum = (125, 60, 120)
        self.page.locator("#plot").press("Home")
        self.eventually(lambda: self.ink(2, 4, (32, 48, 43), 4), True)
        expect(self.page.locator(".lane")).to_have_count(0)
        self.assertFalse(self.ink(2, 4, plum, 1))
        self.page.get_by_role("button", name="Keep as lanes").click()
        expect(self.page.locator(".lane")).to_have_count(2)
        expect(self.lane("left")).to_be_visible()
        self.page.locator("#solutions").get_by_role("button", name="2", exact=True).click()
        expect(self.page.locator("#reading-x")).to_have_value("2")
        self.page.get_by_role("button", name="Clear", exact=True).click()
        expect(self.page.locator("#solutions")).to_be_empty()

    def test_answers_that_are_not_numbers(self):
        self.open_solve()
        for line, told in (
            ("x^2 + 0.03 = 0", "come closest at x = 0, 0.03 apart"),
            ("x + 1 = 1 + x", "True for every x where both sides are defined"),
            ("x^2 < 4", "True for x in (−2, 2)."),
            ("sin(1/x) = 0", re.compile("Looking further|Not settled")),
        ):
            self.solve(line)
            expect(self.page.locator("#solutions")).to_contain_text(told)
        self.page.get_by_role("button", name="whole line").click()
        self.solve("e^x = 0")
        expect(self.page.locator("#solutions")).to_contain_text("ever closer towards −∞")

    def test_questions_that_cannot_be_answered(self):
        self.open_solve()
        trouble = self.page.locator("#solve-page > .why").first
        for line, told in (
            ("", "Type an equation"),
            ("x = 1 = 2", "One line holds one equation"),
            ("3 = 4", "There is no unknown"),
            ("x^2 - 2", "no equals sign"),
        ):
            self.solve(line)
            expect(trouble).to_contain_text(told)
        trouble.get_by_role("button", name="Use").click()
        self.eventually(lambda: len(self.solutions()), 2)
        self.solve("k x = 6")
        self.type_line("k = 2")
        self.page.get_by_role("tab", name="Solve").click()
        self.solve("k x = 6", "9", "1")
        expect(trouble).to_contain_text("The interval is empty")
        self.solve("k x = 6", "1", "9")
        self.eventually(self.solutions, [3])

    def test_the_unknown_is_chosen_and_a_slider_can_be_it(self):
        self.open_solve()
        self.type_line("a = 2")
        self.page.get_by_role("tab", name="Solve").click()
        self.solve("a^2 = 9", "-10", "10")
        self.page.get_by_role("button", name="find a").click()
        self.eventually(self.solutions, [-3, 3])

    def test_the_history_is_kept_and_follows_a_slider(self):
        self.open_solve("/demo/lamp-range")
        history = self.page.get_by_role("region", name="Solved before")
        history.get_by_role("button", name="E(x) = need(x)", exact=True).click()
        self.eventually(self.solutions, [20])
        thumb = self.page.get_by_role("slider", name="lamp", exact=True)
        thumb.focus()
        self.page.keyboard.press("PageDown")
        self.eventually(lambda: [round(x, 6) for x in self.solutions()], [round(150**0.5, 6)])
        # Reloaded at once, with the change perhaps still on its way.
        self.page.reload()
        expect(history.get_by_role("listitem")).to_have_count(3)
        expect(self.lane("lamp")).to_have_attribute("data-text", "lamp = 30")
        history.get_by_role("button", name="Forget this equation").first.click()
        expect(history.get_by_role("listitem")).to_have_count(2)

    def watched(self):
        """The steps towards the root of k, which is 2."""
        self.open_solve()
        self.type_line("k = 2")
        self.page.get_by_role("tab", name="Solve").click()
        self.solve("x^2 = k", "0", "5")
        self.eventually(self.solutions, lambda found: len(found) == 1)
        self.page.fill("#method-start", "2")
        self.page.get_by_role("button", name="Watch").click()
        steps = self.page.locator("#iterates tr[data-step]")
        expect(steps.nth(1)).to_contain_text("1.5")
        return steps

    def test_a_method_that_is_watched_stays_while_the_sheet_changes(self):
        steps = self.watched()
        self.page.get_by_role("button", name="Step on").click()
        self.type_line("x + 3")
        expect(self.page.locator(".lane")).to_have_count(2)
        self.saved()
        expect(steps.nth(1)).to_have_class(re.compile("is-selected"))
        self.page.get_by_role("button", name="Step on").click()
        expect(steps.nth(2)).to_have_class(re.compile("is-selected"))
        # Another k is another equation: the steps are those of it.
        thumb = self.page.get_by_role("slider", name="k", exact=True)
        thumb.focus()
        self.page.keyboard.press("ArrowRight")
        expect(steps.nth(1)).to_contain_text("1.525")
        expect(steps.nth(2)).to_have_class(re.compile("is-selected"))

    def test_what_is_done_does_not_come_back_with_a_late_answer(self):
        self.watched()
        self.at_rest()
        held = []
        self.page.route("**/method", lambda route: held.append(route))
        thumb = self.page.get_by_role("slider", name="k", exact=True)
        thumb.focus()
        self.page.keyboard.press("ArrowRight")
        self.eventually(lambda: len(held), lambda count: count > 0)
        self.page.get_by_role("button", name="done").click()
        for route in held:
            route.continue_()
        self.page.unroute_all()
        self.at_rest()
        expect(self.page.locator("#iterates")).to_be_empty()

    def test_newton_fails_and_then_succeeds_from_another_start(self):
        self.open_solve()
        self.solve("x^3 - 2x + 2 = 0", "-5", "5")
        self.eventually(lambda: len(self.solutions()), 1)
        self.page.fill("#method-start", "0")
        self.page.get_by_role("button", name="Watch").click()
        told = self.page.locator("#iterates .verdict")
        expect(told).to_contain_text("go round in a circle")
        self.page.fill("#method-start", "-2")
        self.page.get_by_role("button", name="Watch").click()
        expect(told).to_contain_text("settle on x = −1.76929235424")
        steps = self.page.locator("#iterates tr[data-step]")
        self.page.get_by_role("button", name="Step on").click()
        expect(steps.nth(1)).to_have_class(re.compile("is-selected"))
        signal = (200, 80, 30)
        self.eventually(lambda: self.ink(-1.8, 0, signal, 3), True)
        self.page.locator("#method").select_option("bisection")
        self.page.get_by_role("button", name="Watch").click()
        expect(self.page.locator(".method .why")).to_contain_text("two different places")
        self.page.fill("#method-second", "0")
        self.page.get_by_role("button", name="Watch").click()
        expect(told).to_contain_text("halves at every step")
        self.page.get_by_role("button", name="play").click()
        expect(steps.nth(2)).to_have_class(re.compile("is-selected"))
        self.page.get_by_role("button", name="done").click()
        expect(self.page.locator("#iterates")).to_be_empty()
