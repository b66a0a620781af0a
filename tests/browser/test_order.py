"""Answers that come late: a question asked by hand is answered, whatever is asked by itself."""

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Gate:
    """Holds requests back, and lets them through one by one, in the order asked for."""

    def __init__(self, test, path, holds=lambda body: True):
        self.test, self.holds, self.shut = test, holds, True
        self.held = []
        test.page.route(f"**{path}", self._come)

    def _come(self, route):
        if self.shut and self.holds(route.request.post_data_json or {}):
            self.held.append(route)
        else:
            route.continue_()

    def waits(self, count=1):
        self.test.eventually(lambda: len(self.held) >= count, True)

    def next(self):
        self.waits()
        self.held.pop(0).continue_()

    def answer(self, json):
        """Answer what is held with what came before, as an answer that was long under way."""
        self.shut = False
        while self.held:
            self.held.pop(0).fulfill(json=json)

    def open(self):
        self.shut = False
        while self.held:
            self.held.pop(0).continue_()


class LateTest(BrowserTest):
    def sheet(self, *lines):
        self.open_with(*lines)
        self.saved()

    def change_sheet(self):
        """Something that makes the page ask for everything again by itself."""
        unit = "deg" if self.page.locator("#unit-rad").is_checked() else "rad"
        self.page.locator(f"label[for=unit-{unit}]").click()


class Readings(LateTest):
    def setUp(self):
        super().setUp()
        self.sheet("x^2 - 1")
        self.read("3")
        expect(self.page.locator("#reading-x")).to_have_value("3")
        self.at_rest()
        self.trouble = self.page.locator(".reading > .why[role=alert]").first

    def read(self, text):
        self.page.fill("#reading-x", text)
        self.page.press("#reading-x", "Enter")

    def test_behind_and_before_automatic_ones(self):
        gate = Gate(self, "/reading")
        self.change_sheet()
        gate.waits()
        self.read("1/0")
        self.change_sheet()
        gate.next()
        gate.next()
        gate.open()
        expect(self.trouble).to_contain_text("no value")
        self.at_rest()
        expect(self.trouble).to_contain_text("no value")
        expect(self.page.locator("#reading-x")).to_have_value("1/0")

    def test_an_automatic_one_behind_does_not_clear_the_sentence(self):
        self.read("1/0")
        expect(self.trouble).to_contain_text("no value")
        for _ in range(3):
            self.change_sheet()
            self.at_rest()
        expect(self.trouble).to_contain_text("no value")
        self.read("2")
        expect(self.trouble).to_be_hidden()
        expect(self.page.locator("#reading-x")).to_have_value("2")

    def test_a_typed_place_is_read_although_others_wait(self):
        gate = Gate(self, "/reading")
        self.change_sheet()
        gate.waits()
        self.read("√4 + 3")
        self.change_sheet()
        gate.open()
        expect(self.page.locator(".reading-rows")).to_contain_text("24")
        expect(self.page.locator("#reading-x")).to_have_value("5")

    def test_only_the_last_of_two_typed_places_is_shown(self):
        gate = Gate(self, "/reading", lambda body: bool(body.get("typed")))
        self.read("1/0")
        gate.waits()
        self.read("4")
        gate.open()
        expect(self.page.locator("#reading-x")).to_have_value("4")
        self.at_rest()
        expect(self.trouble).to_be_hidden()


class Equations(LateTest):
    def setUp(self):
        super().setUp()
        self.sheet("f(x) = x^2", "a = 4")
        self.page.get_by_role("tab", name="Solve").click()
        self.trouble = self.page.locator("#solve-page > .why").first

    def solve(self, text):
        self.page.fill("#equation", text)
        self.page.press("#equation", "Enter")

    def solutions(self):
        rows = self.page.locator("#solutions tr[data-solution]")
        return [float(x) for x in rows.evaluate_all("rows => rows.map((r) => r.dataset.x)")]

    def test_the_earlier_sentence_goes_with_its_question(self):
        gate = Gate(self, "/solve")
        self.solve("b x = c")
        gate.next()
        expect(self.trouble).to_contain_text("Which is the unknown")
        self.solve("f(x) = a")
        expect(self.trouble).to_be_hidden()
        expect(self.page.get_by_role("button", name="find b")).to_have_count(0)
        gate.next()
        self.eventually(self.solutions, [-2, 2])

    def test_two_questions_asked_at_once(self):
        gate = Gate(self, "/solve")
        self.solve("b x = c")
        gate.waits()
        self.solve("f(x) = a")
        gate.next()
        gate.next()
        self.eventually(self.solutions, [-2, 2])
        expect(self.trouble).to_be_hidden()
        gate.open()
        self.at_rest()
        self.assertEqual(self.solutions(), [-2, 2])

    def test_a_refusal_stays_whatever_is_solved_again_by_itself(self):
        self.solve("f(x) = a")
        self.eventually(self.solutions, [-2, 2])
        gate = Gate(self, "/solve")
        self.change_sheet()
        gate.waits()
        self.solve("x = 1 = 2")
        self.change_sheet()
        gate.open()
        expect(self.trouble).to_contain_text("One line holds one equation")
        self.at_rest()
        expect(self.trouble).to_contain_text("One line holds one equation")
        self.assertEqual(self.solutions(), [])

    def test_what_is_solved_again_never_takes_the_place_of_what_is_asked(self):
        self.solve("f(x) = a")
        self.eventually(self.solutions, [-2, 2])
        gate = Gate(self, "/solve")
        self.change_sheet()
        gate.waits()
        self.solve("x = 1")
        self.change_sheet()
        gate.open()
        self.eventually(self.solutions, [1])
        self.at_rest()
        self.assertEqual(self.solutions(), [1])

    def test_a_method_is_watched_although_its_equation_is_solved_again_by_itself(self):
        self.solve("f(x) = a")
        self.eventually(self.solutions, [-2, 2])
        gate = Gate(self, "/method")
        self.page.fill("#method-start", "1")
        self.page.locator("#method").select_option("newton")
        self.page.get_by_role("button", name="Watch").click()
        gate.waits()
        again = Gate(self, "/solve")
        self.change_sheet()
        again.waits()
        with self.page.expect_response("**/solve"):
            again.open()
        gate.open()
        told = self.page.locator("#iterates .verdict")
        expect(told).to_contain_text("settle on x = 2")
        self.change_sheet()
        self.at_rest()
        expect(told).to_contain_text("settle on x = 2")

    def test_a_question_that_came_before_its_sheet_is_answered_when_the_sheet_is_there(self):
        gate = Gate(self, "/edits")
        self.type_line("c = 5")
        gate.waits()
        self.solve("c x = 10")
        expect(self.trouble).to_contain_text("Which is the unknown")
        gate.open()
        self.eventually(self.solutions, [2])
        expect(self.trouble).to_be_hidden()

    def test_an_answer_is_for_what_was_asked_not_for_what_is_being_typed(self):
        gate = Gate(self, "/solve")
        self.solve("f(x) = a")
        gate.waits()
        self.page.fill("#equation", "x = ")
        gate.open()
        self.eventually(self.solutions, [-2, 2])
        expect(self.page.locator("#equation")).to_have_value("x = ")

    def test_a_general_solution_for_another_equation_is_not_shown(self):
        gate = Gate(self, "/solve/exact")
        self.solve("f(x) = a")
        gate.waits()
        self.solve("x = 1")
        self.eventually(self.solutions, [1])
        gate.open()
        self.at_rest()
        expect(self.page.locator("#solutions")).not_to_contain_text("−2")

    def test_what_is_open_is_searched_on_by_itself_until_something_else_is_asked(self):
        gate = Gate(self, "/solve", lambda body: bool(body.get("longer")))
        with self.page.expect_response("**/solve") as first:
            self.solve("sin(1/x) = 0")
        expect(self.page.locator("#solutions")).to_contain_text("Looking further")
        expect(self.page.locator("#solutions")).not_to_contain_text("Not settled")
        gate.waits()
        late = first.value.json()
        self.solve("x = 1")
        self.eventually(self.solutions, [1])
        gate.answer(late)
        self.at_rest()
        self.assertEqual(self.solutions(), [1])


class Rows(LateTest):
    def test_rows_near_a_typed_place_come_although_others_wait(self):
        self.sheet("x^2")
        self.page.get_by_role("tab", name="Values").click()
        for name, value in (("from", "0"), ("to", "9000")):
            self.page.locator("#desk-values").get_by_label(name, exact=True).fill(value)
        self.page.keyboard.press("Enter")
        expect(self.page.locator("table.values")).to_have_attribute("aria-rowcount", "9002")
        self.saved()
        self.at_rest()
        gate = Gate(self, "/values")
        self.change_sheet()
        gate.waits()
        self.page.fill("#reading-x", "7000")
        self.page.press("#reading-x", "Enter")
        self.change_sheet()
        self.at_rest(held=len(gate.held))
        gate.open()
        selected = self.page.locator("tr.is-selected th")
        expect(selected).to_have_text("7000")
        self.at_rest()
        expect(selected).to_have_text("7000")
        expect(selected).to_be_in_viewport()

    def test_rows_of_a_table_that_was_left_are_not_shown(self):
        self.sheet("x^2")
        self.page.get_by_role("tab", name="Values").click()
        expect(self.page.locator("table.values")).to_have_count(1)
        self.saved()
        self.page.get_by_role("button", name="Another table").click()
        self.page.locator("#desk-values").get_by_label("from", exact=True).fill("0")
        self.page.keyboard.press("Enter")
        self.saved()
        self.at_rest()
        gate = Gate(self, "/values")
        self.change_sheet()
        gate.waits()
        self.page.select_option("#table-choice", index=0)
        gate.open()
        first = self.page.locator("table.values tbody tr[data-row] th").first
        expect(first).to_have_text("−5")
        self.at_rest()
        expect(first).to_have_text("−5")


class Lines(LateTest):
    def test_a_preview_belongs_to_the_line_that_stands(self):
        self.sheet("x + 1")
        gate = Gate(self, "/preview")
        self.page.fill("#entry", "1/2x")
        gate.waits()
        self.page.fill("#entry", "log x")
        gate.next()
        gate.next()
        expect(self.page.locator(".other-reading")).to_contain_text("base 10")
        expect(self.page.locator(".other-reading")).to_have_count(1)

    def test_a_preview_does_not_come_back_after_its_line_was_sent(self):
        self.sheet("x + 1")
        gate = Gate(self, "/preview")
        self.page.fill("#entry", "1/2x")
        gate.waits()
        self.page.press("#entry", "Enter")
        expect(self.page.locator(".lane")).to_have_count(2)
        gate.open()
        self.at_rest()
        expect(self.page.locator(".preview")).to_be_hidden()

    def test_a_refused_line_is_told_while_the_next_is_being_typed(self):
        self.sheet("x + 1")
        gate = Gate(self, "/edits")
        self.type_line("2 x )")
        gate.waits()
        self.page.fill("#entry", "x^3")
        gate.open()
        trouble = self.page.locator("#entry-trouble")
        expect(trouble).to_contain_text("closes nothing")
        expect(self.page.locator("#entry")).to_have_value("x^3")
        self.page.locator("#entry").press_sequentially(" + 1")
        expect(trouble).to_contain_text("closes nothing")
        trouble.get_by_role("button", name="Use").click()
        expect(self.page.locator('.lane[data-text="2 x"]')).to_have_count(1)
        expect(self.page.locator("#entry")).to_have_value("x^3 + 1")
        self.page.press("#entry", "Enter")
        expect(self.page.locator('.lane[data-text="x^3 + 1"]')).to_have_count(1)

    def test_a_refusal_stays_when_something_is_kept_by_itself_behind_it(self):
        self.sheet("f(x) = x^2", "g(x) = f(x) + 1")
        self.page.get_by_role("tab", name="Solve").click()
        gate = Gate(self, "/solve")
        self.page.fill("#equation", "x = 1")
        self.page.press("#equation", "Enter")
        gate.waits()
        self.page.get_by_role("button", name="Delete f").click()
        told = self.page.get_by_text("g needs f, and will wait")
        expect(told).to_be_visible()
        gate.open()
        history = self.page.get_by_role("region", name="Solved before")
        expect(history.get_by_role("listitem")).to_have_count(1)
        self.saved()
        expect(told).to_be_visible()

    def test_edits_arrive_in_the_order_in_which_they_were_made(self):
        self.sheet("x + 1")
        gate = Gate(self, "/edits")
        for k in range(4):
            self.type_line(f"x + {k + 2}")
        gate.waits()
        gate.open()
        self.saved()
        texts = self.page.locator(".lane").evaluate_all("all => all.map((l) => l.dataset.text)")
        self.assertEqual(texts, [f"x + {k + 1}" for k in range(5)])


class Limits(LateTest):
    def test_limits_that_cannot_be_read_stay_to_be_mended(self):
        self.sheet("x + 1")
        self.page.fill("#view-left", "1/0")
        self.page.press("#view-left", "Enter")
        trouble = self.page.locator(".view .why, .card .why").filter(has_text="no value")
        expect(trouble.first).to_be_visible()
        self.page.locator("#entry").focus()
        self.change_sheet()
        self.at_rest()
        expect(trouble.first).to_be_visible()
        expect(self.page.locator("#view-left")).to_have_value("1/0")
        self.page.fill("#view-left", "-5")
        self.page.press("#view-left", "Enter")
        expect(trouble.first).to_be_hidden()

    def test_only_the_last_of_two_typed_limits_counts(self):
        self.sheet("x + 1")
        gate = Gate(self, "/limits")
        self.page.fill("#view-left", "1/0")
        self.page.press("#view-left", "Enter")
        gate.waits()
        self.page.fill("#view-left", "-6")
        self.page.press("#view-left", "Enter")
        gate.waits(2)
        for route in reversed(gate.held):
            route.continue_()
        gate.held.clear()
        gate.shut = False
        self.eventually(lambda: self.view()[0], -6.0)
        self.at_rest()
        expect(self.page.locator(".why:visible")).to_have_count(0)


class Searching(LateTest):
    def test_what_is_open_goes_on_by_itself_and_only_then_is_called_not_settled(self):
        self.sheet("x + 1")
        gate = Gate(self, "/path", lambda body: bool(body.get("longer")))
        self.type_line("sin(1/x)")
        expect(self.page.locator("#landmarks")).to_contain_text("Looking further")
        expect(self.page.locator("#landmarks")).not_to_contain_text("Not settled")
        gate.open()
        desk = self.page.locator("#landmarks")
        expect(desk).not_to_contain_text("Looking further", timeout=300_000)
        expect(desk.locator(".verdict.is-open").first).to_contain_text("only the first are listed")
