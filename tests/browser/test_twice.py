"""Answers that are lost on the way, and two windows of one sheet: nothing twice, nothing lost."""

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class LostAnswers(BrowserTest):
    def lose(self, path, times=1):
        """The server carries requests out, but their answers do not arrive."""
        left = [times]

        def handle(route):
            if left[0]:
                left[0] -= 1
                route.fetch()
                route.abort("connectionreset")
            else:
                route.continue_()

        self.page.route(f"**{path}", handle)

    def test_a_first_change_makes_one_sheet(self):
        self.open()
        self.lose("/api/sheets", times=2)
        self.type_line("x^2")
        self.saved()
        expect(self.page.locator(".lane")).to_have_count(1)
        self.page.goto(self.server.url + "/shelf")
        expect(
            self.page.locator(".kept .sheet-card, .shelf-list li, main li").first
        ).to_be_visible()
        self.assertEqual(self.sheets(), 1)

    def test_a_busy_server_is_asked_again(self):
        self.open()
        left = [3]

        def handle(route):
            if left[0]:
                left[0] -= 1
                told = {"kind": "trouble", "message": "Busy just now, trying again …"}
                route.fulfill(status=429, headers={"Retry-After": "1"}, json=told)
            else:
                route.continue_()

        self.page.route("**/api/sheets", handle)
        self.type_line("x^2")
        expect(self.page.locator(".status")).to_have_text("busy, trying again …")
        self.saved()
        expect(self.page.locator(".lane")).to_have_count(1)
        self.assertEqual(left, [0])

    def sheets(self):
        links = self.page.locator('a.sheet-link[href^="/sheet/"]')
        return len(set(links.evaluate_all("a => a.map(x => x.href)")))

    def test_an_edit_and_a_step_back_are_carried_out_once(self):
        self.open()
        for k in range(3):
            self.type_line(f"x + {k}")
            expect(self.page.locator(".lane")).to_have_count(k + 1)
        self.saved()
        self.lose("/edits")
        self.type_line("x + 3")
        self.saved()
        expect(self.page.locator(".lane")).to_have_count(4)
        self.lose("/undo")
        self.page.get_by_role("button", name="Undo").click()
        self.saved()
        expect(self.page.locator(".lane")).to_have_count(3)
        expect(self.page.locator(".conflict")).to_be_hidden()
        self.lose("/redo")
        self.page.get_by_role("button", name="Redo").click()
        self.saved()
        expect(self.page.locator(".lane")).to_have_count(4)
        expect(self.page.locator(".conflict")).to_be_hidden()

    def test_what_one_window_has_waiting_is_not_lost_by_another(self):
        self.open()
        self.type_line("x")
        self.saved()
        first, second = self.page, self.new_page()
        second.goto(first.url)
        expect(second.locator(".lane")).to_have_count(1)
        self.server.line.cut()
        self.addCleanup(self.server.line.mend)
        self.type_line("x + 1")
        expect(first.locator(".status")).to_have_text("1 change waiting")
        second.fill("#entry", "x + 2")
        second.press("#entry", "Enter")
        expect(second.locator(".status")).to_have_text("1 change waiting")
        kept = (
            "() => Object.keys(localStorage).filter((k) => k.startsWith('axispath waiting')).length"
        )
        self.assertEqual(first.evaluate(kept), 2)
        second.close()
        self.assertEqual(first.evaluate(kept), 2)
        self.server.line.mend()
        self.saved()
        expect(first.locator(".lane")).to_have_count(2)
        # The other window's change is taken over when its sheet is opened again.
        again = self.new_page()
        again.goto(first.url)
        expect(again.locator(".conflict")).to_be_visible()
        expect(again.locator(".status")).to_have_text("not saved")
        again.get_by_role("button", name="Keep mine as a copy").click()
        expect(again.locator('.lane[data-text="x + 2"]')).to_be_visible()

    def test_a_page_that_goes_without_a_word_loses_nothing(self):
        """A browser in a hurry does not tell a page that it goes."""
        mute = "addEventListener('pagehide', (event) => event.stopImmediatePropagation())"
        self.page.add_init_script(mute)
        for held in (True, False):
            self.open("/demo/lamp-range")
            self.at_rest()
            if held:
                self.page.route("**/api/sheets", lambda route: None)
            thumb = self.page.get_by_role("slider", name="lamp", exact=True)
            thumb.press("PageDown")
            expect(thumb).to_have_attribute("aria-valuenow", "30")
            if held:
                expect(self.page.locator(".status")).to_have_text("saving…")
            # At once, with the change on its way, or before it was sent.
            self.page.reload()
            self.page.unroute_all()
            expect(self.lane("lamp")).to_have_attribute("data-text", "lamp = 30")
            self.saved()

    def test_a_new_sheet_does_not_take_over_another_new_one(self):
        self.open()
        self.server.line.cut()
        self.addCleanup(self.server.line.mend)
        self.type_line("x + 1")
        expect(self.page.locator(".status")).to_have_text("1 change waiting")
        other = self.new_page()
        other.goto(self.server.url + "/")
        expect(other.locator("#entry")).to_be_visible()
        self.server.line.mend()
        self.saved()
        expect(other.locator(".lane")).to_have_count(0)
        expect(other.locator(".status")).to_have_text("not changed yet")
