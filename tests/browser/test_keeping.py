"""Whole stories of keeping, handing out and going back, in a real browser."""

from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread

from playwright.sync_api import expect
from sqlalchemy import select

from axispath.core.path.edited import edited
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane
from axispath.store import people, sheets
from axispath.store.database import Store
from axispath.store.models import Sheet
from tests.browser.harness import BrowserTest
from tests.database import address

WORDS = "four small boats out"


class Keeping(BrowserTest):
    def served(self, text):
        """The address of a page of somebody else's server, which is another site."""

        class Lesson(BaseHTTPRequestHandler):
            def do_GET(self):
                self.send_response(200)
                self.send_header("Content-Type", "text/html")
                self.end_headers()
                self.wfile.write(text.encode())

            def log_message(self, *_):
                pass

        server = ThreadingHTTPServer(("127.0.0.1", 0), Lesson)
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        Thread(target=server.serve_forever, daemon=True).start()
        return f"http://localhost:{server.server_port}/"

    def button(self, name, page=None):
        return (page or self.page).get_by_role("button", name=name, exact=True)

    def test_a_guest_works_makes_an_account_and_comes_from_a_second_browser(self):
        self.open_with("f(x) = x^2")
        self.page.goto(f"{self.server.url}/account")
        made = self.page.locator("section", has_text="Make an account").last
        made.get_by_label("name").fill("Quay Nine")
        made.get_by_label("passphrase").fill("short")
        made.get_by_role("button", name="Make it").click()
        # The browser itself says that this is too short; the page has not gone.
        expect(made.get_by_label("name")).to_have_value("Quay Nine")
        made.get_by_label("passphrase").fill(WORDS)
        made.get_by_role("button", name="Make it").click()
        expect(self.page.get_by_role("heading", name="Your recovery codes")).to_be_visible()
        codes = self.page.locator(".codes code").all_text_contents()
        self.assertEqual(len(codes), people.CODES)
        page = self.visitor()
        page.goto(f"{self.server.url}/account")
        enter = page.locator("section", has_text="Sign in").first
        enter.get_by_label("name").fill("quay nine")
        enter.get_by_label("passphrase").fill("not the right words")
        enter.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("alert")).to_contain_text("do not go together")
        enter.get_by_label("passphrase").fill(WORDS)
        enter.get_by_role("button", name="Sign in").click()
        expect(page.locator(".sheet-link").first).to_have_text("Untitled sheet")
        page.locator(".sheet-row .sheet-link").first.click()
        expect(page.locator(".lane")).to_have_count(1)
        # The first browser is signed out by the second; what is typed there is told, and not lost.
        page.goto(f"{self.server.url}/account")
        page.locator(".sheet-row", has_not_text="this one").get_by_role("button").click()
        expect(page.locator("ul.sheets .sheet-row")).to_have_count(1)
        self.page.goto(f"{self.server.url}/shelf")
        expect(self.page.get_by_text("Nothing here yet")).to_be_visible()

    def test_a_teacher_hands_out_a_visitor_turns_and_copies_the_teacher_takes_back(self):
        self.open_with("f(x) = a x - 1", "a = 2")
        self.page.get_by_role("link", name="Hand out").click()
        self.page.get_by_label("cover the landmarks").check()
        self.button("Hand out").click()
        link = self.page.get_by_label("Link 1").input_value()
        page = self.visitor()
        page.goto(link)
        expect(page.get_by_text("Handed out.")).to_be_visible()
        expect(page.locator("#entry")).to_be_hidden()
        # A landmark is covered until it is found.
        rows = page.locator('.marks[aria-label="Landmarks of f"]')
        expect(rows).to_contain_text("Landmarks are covered here")
        expect(rows.locator("tr[data-mark]")).to_have_count(0)
        page.get_by_role("tab", name="Practise").click()
        page.get_by_label("at", exact=True).fill("1/2")
        page.get_by_role("button", name="Is it there?").click()
        expect(page.locator(".try.is-right")).to_contain_text("a zero of f")
        page.get_by_role("tab", name="Landmarks").click()
        expect(rows.locator('tr[data-kind="zero"]')).to_contain_text("0.5")
        slider = page.get_by_role("slider", name="a", exact=True)
        slider.focus()
        page.keyboard.press("ArrowRight")
        before = slider.get_attribute("aria-valuenow")
        expect(page.locator(".status")).to_have_text("handed out")
        self.eventually(
            lambda: page.locator(".lane[data-name=a]").get_attribute("data-text"),
            lambda text: text != "a = 2",
        )
        page.reload()
        expect(slider).to_have_attribute("aria-valuenow", before)
        self.assertEqual(page.url, link)
        self.button("Take a copy", page).click()
        expect(page.locator("#entry")).to_be_visible()
        page.fill("#entry", "x^2")
        page.press("#entry", "Enter")
        expect(page.locator(".lane")).to_have_count(3)
        # Nothing of this reached the teacher's sheet.
        self.page.get_by_role("link", name="To the sheet").click()
        expect(self.lane("a")).to_have_attribute("data-text", "a = 2")
        page.goto(link)
        expect(page.get_by_text("Handed out.")).to_be_visible()
        self.page.get_by_role("link", name="Hand out").click()
        self.button("Take back").click()
        expect(self.page.get_by_text("ended", exact=True)).to_be_visible()
        # Open still at the visitor's: one of the next looks says so.
        told = page.get_by_text("This hand-out has ended").first

        def look():
            page.get_by_role("button", name="Zoom in").click()
            self.at_rest(page)
            return told.is_visible()

        self.eventually(look, True)
        page.reload()
        expect(page.get_by_role("heading", name="This hand-out has ended")).to_be_visible()

    def test_a_hand_out_in_a_frame_of_another_page_is_turned_and_not_kept(self):
        self.open_with("f(x) = a x - 1", "a = 2")
        self.page.get_by_role("link", name="Hand out").click()
        self.page.get_by_label("may stand in a frame").check()
        self.button("Hand out").click()
        link = self.page.get_by_label("Link 1").input_value()
        page = self.visitor()
        lesson = self.served(f'<iframe src="{link}" width="1200" height="700"></iframe>')
        page.goto(lesson)
        inside = page.frame_locator("iframe")
        marks = inside.locator('.marks[aria-label="Landmarks of f"] tr[data-kind="zero"]')
        expect(marks).to_contain_text("0.5")
        slider = inside.get_by_role("slider", name="a", exact=True)
        slider.focus()
        for _ in range(10):
            page.keyboard.press("ArrowRight")
        expect(slider).not_to_have_attribute("aria-valuenow", "2")
        expect(marks).not_to_contain_text("0.5")
        page.goto(lesson)
        expect(slider).to_have_attribute("aria-valuenow", "2")

    def test_going_back_to_a_named_point(self):
        self.open_with("x^2")
        self.page.get_by_role("link", name="History").click()
        name = self.page.locator(".point-name").first
        name.fill("before the test")
        name.press("Enter")
        expect(self.page.locator(".point strong").first).to_have_text("before the test")
        self.page.get_by_role("link", name="To the sheet").click()
        self.type_line("sin x")
        expect(self.page.locator(".lane")).to_have_count(2)
        self.saved()
        self.page.get_by_role("link", name="History").click()
        expect(self.page.locator("#played-words")).to_contain_text("added g: sin x")
        self.button("Before").click()
        expect(self.page.locator("#played-words")).to_contain_text("before the test")
        self.eventually(
            lambda: self.page.evaluate("document.getElementById('played').naturalWidth"), 360
        )
        self.button("Compare the two that are marked").click()
        expect(self.page.locator(".compared")).to_contain_text("added")
        expect(self.page.locator(".compared")).to_contain_text("sin x")
        self.button("Go back to before the test").click()
        expect(self.page.locator(".lane")).to_have_count(1)
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.locator(".lane")).to_have_count(2)

    def test_a_thousand_sheets_searched_and_labelled(self):
        self.open_with("x^2")
        store = Store(address())
        self.addCleanup(store.engine.dispose)
        with store.transaction() as session:
            mine = session.scalar(
                select(Sheet.person_id)
                .where(Sheet.person_id.is_not(None))
                .order_by(Sheet.changed.desc())
            )
            one = edited(Document(), [AddLane(text="x^2", id="a")], None)
            for k in range(1000):
                sheets.create(
                    session, mine, Document(name=f"Exercise {k:04}"), one if not k else ()
                )
        self.page.goto(f"{self.server.url}/shelf")
        expect(self.page.locator(".pages")).to_contain_text("1 to 60 of 1001")
        self.page.get_by_label("Search your sheets").fill("exercise 07")
        self.page.locator('[name="look"]').select_option("tiles")
        self.button("Show").click()
        count = sum("07" in f"{k:04}" for k in range(1000))
        expect(self.page.get_by_text(f"{count} sheets found")).to_be_visible()
        self.page.get_by_label("Search your sheets").fill("exercise 0777")
        self.button("Show").click()
        expect(self.page.locator(".with-picture .sheet-link")).to_have_text(["Exercise 0777"])
        self.page.get_by_label("Choose Exercise 0777").check()
        self.page.locator(".label-name").fill("class 9")
        self.button("Put on").click()
        expect(self.page.locator(".labels").first).to_have_text("class 9")
        self.page.locator(".labels a").first.click()
        expect(self.page.locator(".with-picture .sheet-link")).to_have_text(["Exercise 0777"])
        self.button("Delete").click()
        expect(self.page.get_by_role("alert")).to_contain_text("Choose sheets first")
