"""Accounts through the pages, and that nobody else gets at anything, whatever the address."""

import os
import re
import tempfile
import unittest.mock
from email import message_from_bytes, policy
from pathlib import Path

from axispath import letters
from axispath.store import attempts, people
from axispath.web import person as asking
from axispath.web.limits import network
from tests.web.test_web import VIEW, WebTest

WORDS = "four small boats out"
SECRET = "zzsecret"


class AccountTest(WebTest):
    def setUp(self):
        super().setUp()
        # What a cookie was worth a moment ago is not taken for granted here.
        patched = unittest.mock.patch.object(asking, "FRESH", 0.0)
        patched.start()
        self.addCleanup(patched.stop)

    def send(self, action, client=None, **fields):
        client = client or self.client
        token = self.token_of(client)
        return client.post(f"/account/{action}", data={"csrf_token": token, **fields})

    def made(self, name, client=None):
        answer = self.send("make", client, name=name, passphrase=WORDS)
        self.assertEqual(answer.status_code, 200, answer.text[:300])
        return re.findall(r"<li><code>([0-9a-f-]+)</code>", answer.text)

    def shelf(self, client=None):
        page = (client or self.client).get("/shelf").text
        return re.findall(r'class="sheet-link" href="/sheet/([^"]+)"', page)


class Accounts(AccountTest):
    def test_a_guest_makes_an_account_and_comes_from_a_second_browser(self):
        found = self.start("x^2")
        codes = self.made("Quay One")
        self.assertEqual(len(codes), people.CODES)
        self.assertNotIn(codes[0], self.client.get("/account").text)
        self.assertEqual(self.shelf(), [found["id"]])
        second = self.app.test_client()
        self.token = self.token_of(second)
        theirs = self.post("/sheets", {"edits": [{"do": "add lane", "text": "x"}]}, second).json
        answer = self.send("enter", second, name="quay one", passphrase=WORDS)
        self.assertEqual(answer.status_code, 302)
        self.assertEqual(set(self.shelf(second)), {found["id"], theirs["id"]})
        self.assertIn("Quay One", second.get("/shelf").text)

    def test_the_cookie_is_another_one_after_signing_in(self):
        self.start("x")
        with self.client.session_transaction() as session:
            before = dict(session)
        self.made("Quay Two")
        with self.client.session_transaction() as session:
            self.assertNotEqual(session["key"], before["key"])
        thief = self.app.test_client()
        with thief.session_transaction() as session:
            session.update(before)
        self.assertEqual(self.shelf(thief), [])

    def test_a_stolen_cookie_is_taken_back(self):
        found = self.start("x")
        self.made("Quay Three")
        thief = self.app.test_client()
        with self.client.session_transaction() as session:
            stolen = dict(session)
        with thief.session_transaction() as session:
            session.update(stolen)
        self.assertEqual(self.shelf(thief), [found["id"]])
        self.assertEqual(self.send("leave-everywhere").status_code, 302)
        self.assertEqual(self.shelf(thief), [])
        self.assertEqual(self.shelf(), [])
        self.send("enter", name="Quay Three", passphrase=WORDS)
        self.assertEqual(self.shelf(), [found["id"]])

    def test_who_was_signed_out_elsewhere_is_told_so_and_not_that_a_sheet_is_gone(self):
        found = self.start("x")
        self.made("Quay Eleven")
        with self.client.session_transaction() as session:
            before = dict(session)
        self.send("leave-everywhere")
        with self.client.session_transaction() as session:
            session.update(before)
        self.token = self.token_of(self.client)
        body = {"base": found["head"], "edits": [{"do": "add lane", "text": "2x"}]}
        answer = self.post(f"/sheets/{found['id']}/edits", body)
        self.assertEqual((answer.status_code, answer.json["kind"]), (401, "signed out"))
        self.assertIn("what waits here is kept", answer.json["message"])
        self.assertIn("was signed out", self.client.get(f"/sheet/{found['id']}").text)
        old = self.post(f"/sheets/{found['id']}/edits", body, token="of another page")
        self.assertEqual((old.status_code, old.json["kind"]), (400, "stale"))

    def test_wrong_ones_are_told_in_their_form_and_have_to_wait(self):
        self.made("Quay Four")
        self.send("leave")
        for k in range(attempts.FREE):
            answer = self.send("enter", name="Quay Four", passphrase=f"wrong and wrong {k}")
            self.assertEqual(answer.status_code, 422)
            self.assertIn("do not go together", answer.text)
            self.assertIn('value="Quay Four"', answer.text)
            self.assertNotIn("wrong and wrong", answer.text)
        wait = attempts.Wait(40)
        with unittest.mock.patch.object(people, "refuse_waiting", side_effect=wait):
            answer = self.send("enter", name="Quay Four", passphrase=WORDS)
        self.assertEqual((answer.status_code, answer.headers["Retry-After"]), (429, "40"))
        self.assertIn("Try again in 40 seconds", answer.text)

    def test_nobody_is_shut_out_by_others(self):
        self.made("Quay Forty")
        stranger = self.app.test_client()
        with unittest.mock.patch.object(attempts, "FREE", -9):  # the longest wait from the first on
            self.send("enter", stranger, name="Quay Forty", passphrase="wrong and wrong")
        told = self.send("enter", stranger, name="Quay Forty", passphrase=WORDS)
        self.assertEqual(told.status_code, 429)
        # From another network, and from a browser that was in before, it is let in at once.
        elsewhere = self.app.test_client()
        elsewhere.environ_base["REMOTE_ADDR"] = "203.0.113.9"
        told = self.send("enter", elsewhere, name="Quay Forty", passphrase=WORDS)
        self.assertEqual(told.status_code, 302)
        self.send("leave")
        self.assertEqual(self.send("enter", name="Quay Forty", passphrase=WORDS).status_code, 302)

    def test_a_network_of_the_newer_kind_is_one(self):
        self.assertEqual(network("2001:db8:1:2::5"), network("2001:db8:1:2:ffff::"))
        self.assertNotEqual(network("2001:db8:1:2::5"), network("2001:db8:1:3::5"))
        self.assertEqual(network("::ffff:192.0.2.7"), network("192.0.2.7"))
        self.assertNotEqual(network("192.0.2.7"), network("192.0.2.8"))

    def test_a_taken_name_a_short_passphrase_and_no_form_at_all(self):
        self.made("Quay Five")
        other = self.app.test_client()
        answer = self.send("make", other, name="QUAY FIVE", passphrase=WORDS)
        self.assertIn("This name is taken", answer.text)
        with other.session_transaction() as session:
            self.assertNotIn("person", session)
        answer = self.send("make", other, name="Quay 5", passphrase="short")
        self.assertIn("10 characters or more", answer.text)
        self.assertEqual(self.send("dance", other).status_code, 302)

    def test_a_code_a_new_passphrase_and_the_end(self):
        found = self.start("x")
        codes = self.made("Quay Six")
        other = self.app.test_client()
        given = {"name": "Quay Six", "code": codes[3], "passphrase": "nine nets to mend"}
        self.assertEqual(self.send("recover", other, **given).status_code, 302)
        self.assertEqual(self.shelf(other), [found["id"]])
        self.assertEqual(self.shelf(), [])  # whoever was in before is out
        self.assertIn("do not go together", self.send("recover", **given).text)
        answer = self.send("change", other, old="not this one", passphrase="ten tarred ropes")
        self.assertIn("another one", answer.text)
        answer = self.send("change", other, old="nine nets to mend", passphrase="ten tarred ropes")
        self.assertEqual(answer.status_code, 302)
        answer = self.send("codes", other, passphrase="ten tarred ropes")
        self.assertEqual(len(re.findall("<li><code>", answer.text)), people.CODES)
        self.assertEqual(other.get("/shelf/away").mimetype, "application/zip")
        self.assertIn("another one", self.send("delete", other, passphrase="x" * 12).text)
        third = self.app.test_client()
        self.send("enter", third, name="Quay Six", passphrase="ten tarred ropes")
        self.assertEqual(self.send("delete", third, passphrase="ten tarred ropes").status_code, 302)
        # Deleted in another window.
        self.assertIn("signed out", self.send("codes", other, passphrase="ten tarred ropes").text)
        self.assertEqual(self.shelf(other), [])

    def test_a_letter_is_written_where_letters_are_configured(self):
        found = self.start("x")
        self.made("Quay Ten")
        folder = self.enterContext(tempfile.TemporaryDirectory())
        with unittest.mock.patch.dict(
            os.environ, {"AXISPATH_LETTERS": folder, "AXISPATH_HOSTS": "localhost"}
        ):
            answer = self.send("mail", mail="no address", passphrase=WORDS)
            self.assertIn("no mail address", answer.text)
            self.assertEqual(
                self.send("mail", mail="ten@quay.example", passphrase=WORDS).status_code, 302
            )
            self.send("leave")
            answers = {
                re.sub(r'value="[^"]*"|content="[^"]*"', "", page.text)
                for page in (
                    self.send("ask-letter", name="Nobody"),
                    self.send("ask-letter", name="quay ten"),
                )
            }
            self.assertEqual(len(answers), 1)
            self.assertIn("a letter is on its way", answers.pop())
            (letter,) = Path(folder).iterdir()
            text = message_from_bytes(letter.read_bytes(), policy=policy.default)
            self.assertEqual(text["To"], "ten@quay.example")
            link = re.search(r"http://localhost(/account/letter/(\S+))", text.get_content())
            self.assertIn("A new passphrase", self.client.get(link[1]).text)
            short = self.send("use-letter", token=link[2], passphrase="short")
            self.assertIn("10 characters or more", short.text)
            used = self.send("use-letter", token=link[2], passphrase="nine nets to mend")
            self.assertEqual(used.status_code, 302)
            self.assertEqual(self.shelf(), [found["id"]])
            again = self.send("use-letter", token=link[2], passphrase="ten tarred ropes")
            self.assertIn("was used", again.text)
            for _ in range(9):
                self.send("ask-letter", name="quay ten")
            self.assertLessEqual(len(list(Path(folder).iterdir())), 1 + people.MOST_LETTERS)
        with unittest.mock.patch.dict(
            os.environ, {"AXISPATH_LETTERS": "/nowhere", "AXISPATH_HOSTS": "localhost"}
        ):
            with self.assertLogs("axispath.letters") as logged:
                letters.send("ten@quay.example", "a", "b")
            self.assertNotIn("quay", "".join(logged.output))

    def test_nothing_typed_is_logged(self):
        with self.assertNoLogs(level="INFO"):
            self.send("enter", name="Quay Seven", passphrase="a passphrase of mine")

    def test_browsers_are_listed_and_signed_out(self):
        self.made("Quay Eight")
        other = self.app.test_client()
        self.send("enter", other, name="Quay Eight", passphrase=WORDS)
        page = self.client.get("/account").text
        (number,) = re.findall(r'name="number" value="(\d+)"', page)
        self.send("leave-one", number=number)
        self.assertNotIn("Quay Eight", other.get("/shelf").text)
        self.assertIn("Quay Eight", self.client.get("/shelf").text)


class Refused(AccountTest):
    """Strangers, people who signed out and other accounts, at every address that there is."""

    OPEN = ("static", "assets.versioned", "operating.health", "operating.metrics")

    def addresses(self, values):
        """Every address with the sheet and its errand in it."""
        for rule in self.app.url_map.iter_rules():
            if rule.endpoint in self.OPEN or not rule.arguments:
                continue
            given = {}
            for name, converter in rule._converters.items():
                choices = re.findall(r"\w+", getattr(converter, "regex", ""))
                given[name] = values.get(name) or (choices[0] if choices else "x")
            with self.app.test_request_context():
                path = self.app.url_map.bind("localhost").build(
                    rule.endpoint, given, method=next(iter(rule.methods - {"OPTIONS", "HEAD"}))
                )
            for method in rule.methods - {"OPTIONS", "HEAD"}:
                yield rule.endpoint, method, path

    def test_nobody_else_gets_at_a_sheet_by_any_address(self):
        found = self.start(f"{SECRET}(x) = x^2", "a = 1")
        key, head = found["id"], found["head"]
        begun = self.client.post(
            f"/api/sheets/{key}/export",
            json={"head": head, "view": VIEW, "format": "sheet"},
            headers={"X-CSRFToken": self.token, "Prefer": "respond-async"},
        )
        values = {"sheet_id": key, "key": key, "errand": begun.json["errand"], "number": 1}
        seen = {endpoint for endpoint, *_ in self.addresses(values)}
        self.assertGreaterEqual(len(seen), 40)
        stranger = self.app.test_client()
        other = self.app.test_client()
        self.made("Other One", other)
        left = self.app.test_client()
        self.made("Left One", left)
        self.send("leave", left)
        for who, client in (("stranger", stranger), ("other", other), ("signed out", left)):
            token = self.token_of(client)
            for endpoint, method, path in self.addresses(values):
                with self.subTest(who=who, endpoint=endpoint, method=method):
                    answer = client.open(
                        path,
                        method=method,
                        json={"head": head, "base": head, "view": VIEW, "edits": []},
                        headers={"X-CSRFToken": token},
                    )
                    self.assertNotIn(SECRET, answer.text)
                    if key in path or begun.json["errand"] in path:
                        self.assertIn(answer.status_code, (404, 422), answer.text[:200])
            # Addresses whose sheets stand in what is sent.
            answer = client.post(
                "/api/shelf/export", json={"sheets": [key]}, headers={"X-CSRFToken": token}
            )
            self.assertEqual(answer.status_code, 404)
            for action in ("duplicate", "delete", "restore", "destroy", "label", "unlabel"):
                data = {"csrf_token": token, "sheet": key, "label": "theirs"}
                answer = client.post(f"/shelf/chosen/{action}", data=data)
                self.assertEqual(answer.status_code, 404, action)
        self.assertEqual(self.shelf(), [key])
        mine = self.client.get(f"/sheet/{key}")
        self.assertIn(SECRET, mine.text)
