"""Ways around a seal that were tried: each is shut, and says so."""

import hashlib
import io
import json
import unittest.mock
import zipfile

from axispath.capabilities import CAPABILITIES, edits_off
from axispath.exchange.records import SEALS, verify
from axispath.store import seats
from axispath.web import sealing
from tests.web.test_account import WORDS
from tests.web.test_handouts import LINK
from tests.web.test_sealed import BODIES, LINE, WIDE, SealedTest


class SealsHold(SealedTest):
    def stored(self, client, token):
        """A sheet of a visitor's own."""
        body = {"source": "blank", "edits": [{"do": "add lane", "text": LINE}]}
        answer = self.post("/sheets", body, client, token)
        self.assertEqual(answer.status_code, 200, answer.text)
        return answer.json["id"]

    def test_a_second_sitting_lifts_nothing(self):
        strict, friends = self.seal(*CAPABILITIES), self.seal()
        friends_page = self.token_of_page(self.visitor.get(friends).text)
        self.enter(strict)
        for page in (friends, "/shelf", "/handbook"):
            self.assertEqual(self.visitor.get(page).status_code, 422, page)
        answer = self.visitor.post(
            f"{friends}/enter", data={"csrf_token": friends_page, "name": "Ada"}
        )
        self.assertIn("hand in there first", answer.text)
        for page in ("/", "/shelf", "/handbook"):
            self.assertEqual(self.visitor.get(page).status_code, 422, page)
        self.assertEqual(self.ask(strict, "solve", text="f(x) = 0").status_code, 422)
        self.post(f"/h/{strict.split('/')[-1]}/hand-in", {}, self.visitor, friends_page)
        self.assertEqual(self.enter(friends).status_code, 302)

    def test_what_is_off_is_off_on_other_sheets_too(self):
        token = self.token_of_page(self.visitor.get("/").text)
        own = self.stored(self.visitor, token)
        body = {"head": 1, "view": WIDE, "text": "f(x) = 0"}
        self.assertEqual(
            self.post(f"/sheets/{own}/solve", body, self.visitor, token).status_code, 200
        )
        self.enter(self.seal("solve"))
        answer = self.post(f"/sheets/{own}/solve", body, self.visitor, token)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("switched off", answer.json["message"])

    def test_pages_and_records_of_ones_own_hand_outs_are_shut(self):
        token = self.token_of_page(self.visitor.get("/").text)
        own = self.stored(self.visitor, token)
        form = {"csrf_token": token, "which": "all", "follows": "yes", "sealed": "on"}
        made = self.visitor.post(f"/sheet/{own}/handouts", data={**form, "minutes": "30"})
        self.assertEqual(made.status_code, 302)
        theirs = LINK.findall(self.visitor.get(made.location).text)[0].split("/")[-1]
        pages = [
            f"/sheet/{own}/handouts",
            f"/sheet/{own}/handouts/{theirs}",
            f"/sheet/{own}/handouts/{theirs}/records.zip",
            f"/sheet/{own}/handouts/{theirs}/answers.csv",
            f"/sheet/{own}/handouts/{theirs}/code",
        ]
        for page in pages:
            self.assertEqual(self.visitor.get(page).status_code, 200, page)
        path = self.seal("sheets")
        self.enter(path)
        for page in pages:
            self.assertEqual(self.visitor.get(page).status_code, 422, page)
        self.assertEqual(self.visitor.get(f"{path}/record").status_code, 200)

    def test_an_edit_that_is_off_is_no_preview_either(self):
        path = self.seal(*CAPABILITIES)
        self.enter(path)
        key, head, token = self.inside(path)
        tried = 0
        for edit in sorted(edits_off(frozenset(CAPABILITIES))):
            for endpoint, method, where, name in self.routes():
                body = {"head": head, "view": WIDE, **BODIES[endpoint]}
                body |= {"edits": [{"do": edit}]} if "base" in body else {"preview": [{"do": edit}]}
                answer = self.post(where.replace(name, key), body, self.visitor, token, method)
                self.assertEqual(answer.status_code, 422, (edit, endpoint))
                self.assertIn("switched off", answer.text, (edit, endpoint))
                tried += 1
        self.assertGreater(tried, 500)

    def refuse_a_form(self, off):
        path = self.seal(off)
        self.enter(path)
        key, head, token = self.inside(path)
        body = {"base": head, "edits": [{"do": "add lane", "text": "Factor  x^2 - 5x + 6"}]}
        answer = self.post(f"/sheets/{key}/edits", body, self.visitor, token)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("switched off", answer.text)

    def test_a_form_is_not_asked_for_in_words_where_forms_are_off(self):
        self.refuse_a_form("forms")

    def test_a_form_is_not_asked_for_in_words_where_landmarks_are_off(self):
        self.refuse_a_form("landmarks")

    def test_it_is_none_whatever_a_request_says_that_it_is(self):
        path = self.seal("fits")
        self.enter(path)
        key, head, token = self.inside(path)
        body = {"head": head, "view": WIDE, "preview": [{"do": "add fit"}]}
        for kind in ("application/json", "text/plain", "", "application/octet-stream"):
            answer = self.visitor.post(
                f"/api/sheets/{key}/path",
                data=json.dumps(body),
                content_type=kind,
                headers={"X-CSRFToken": token},
            )
            self.assertEqual(answer.status_code, 422, kind)
            self.assertIn("switched off", answer.text, kind)

    def test_the_same_edits_are_looked_at_where_nothing_is_off(self):
        path = self.seal()
        self.enter(path)
        for edit in sorted(edits_off(frozenset(CAPABILITIES))):
            self.assertNotIn("switched off", self.ask(path, "path", preview=[{"do": edit}]).text)

    def test_who_sat_there_as_two_people_handed_in_as_the_one_that_did(self):
        path = self.seal()
        first, second = self.app.test_client(), self.app.test_client()
        for client, name in ((first, "Ada"), (second, "Bo")):
            self.enter(path, name, client)
        self.token = self.token_of_page(first.get(path).text)
        self.made("Quay Seven", first)
        sheet, head, token = self.inside(path, first)
        hand_in = f"/h/{path.split('/')[-1]}/hand-in"
        self.assertEqual(self.post(hand_in, {}, first, token).status_code, 200)
        self.assertEqual(
            self.send("enter", second, name="Quay Seven", passphrase=WORDS).status_code, 302
        )
        token = self.token_of_page(second.get(path).text)
        add = {"base": head, "edits": [{"do": "add lane", "text": "g(x) = x"}]}
        for client in (first, second):
            token = self.token_of_page(client.get(path).text)
            answer = self.post(f"/sheets/{sheet}/edits", add, client, token)
            self.assertEqual(answer.status_code, 422, (client is first, answer.text))
            self.assertIn("handed in", answer.json["message"])
        # Both sittings are there still, under their names.
        page = self.client.get(f"/sheet/{self.sheet['id']}/handouts/{path.split('/')[-1]}").text
        self.assertIn("Ada", page)
        self.assertIn("Bo", page)

    def test_the_view_is_shut_with_the_sheet_and_undo_is_recorded(self):
        path = self.seal()
        self.enter(path)
        key, head, token = self.inside(path)
        add = {"base": head, "edits": [{"do": "add lane", "text": "g(x) = x"}]}
        head = self.post(f"/sheets/{key}/edits", add, self.visitor, token).json["head"]
        for way in ("undo", "redo"):
            answer = self.post(f"/sheets/{key}/{way}", {"base": head}, self.visitor, token)
            head = answer.json["head"]
        look = {**WIDE, "chosen": True}
        put = (f"/sheets/{key}/view", look, self.visitor, token, "PUT")
        self.assertEqual(self.post(*put).status_code, 200)
        self.post(f"/h/{path.split('/')[-1]}/hand-in", {}, self.visitor, token)
        self.assertEqual(self.post(*put).status_code, 422)
        entries = self.visitor.get(f"{path}/record.json").json["entries"]
        changed = [one["detail"] for one in entries if one["kind"] == "changed"]
        self.assertEqual(changed[1:], ["undo", "redo"])

    def test_what_was_begun_before_waits_until_the_end(self):
        token = self.token_of_page(self.visitor.get("/").text)
        own = self.stored(self.visitor, token)
        body = {"head": 1, "view": WIDE, "format": "latex"}
        begun = self.visitor.post(
            f"/api/sheets/{own}/export",
            json=body,
            headers={"X-CSRFToken": token, "Prefer": "respond-async"},
        )
        self.assertEqual(begun.status_code, 202, begun.text)
        where = f"/api/errands/{begun.json['errand']}/content"
        self.assertEqual(self.visitor.get(where).status_code, 200)
        path = self.seal("sheets")
        self.enter(path)
        answer = self.visitor.get(where)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("waits until its end", answer.json["message"])
        self.post(f"/h/{path.split('/')[-1]}/hand-in", {}, self.visitor, token)
        self.assertEqual(self.visitor.get(where).status_code, 200)

    def test_entering_counts_at_once_in_every_process(self):
        path = self.seal(*CAPABILITIES)
        self.visitor.get("/shelf")
        # Another process knows of nobody who is examined, and asks.
        forgotten, sealing.forget = sealing.forget, lambda person: None
        try:
            self.enter(path)
        finally:
            sealing.forget = forgotten
        self.assertEqual(self.visitor.get("/shelf").status_code, 422)

    def test_what_is_changed_together_with_its_digest_is_told(self):
        path = self.seal()
        self.enter(path)
        for text in ("=2", "'=3", "1"):
            self.ask(path, "answer", question="q1", text=text)
        key, head, token = self.inside(path)
        add = {"base": head, "edits": [{"do": "add lane", "text": "g(x) = x"}]}
        self.post(f"/sheets/{key}/edits", add, self.visitor, token)
        self.post(f"/h/{path.split('/')[-1]}/hand-in", {}, self.visitor, token)
        copy = self.visitor.get(f"{path}/record.json").data
        archive = self.client.get(
            f"/sheet/{self.sheet['id']}/handouts/{path.split('/')[-1]}/records.zip"
        ).data
        found = verify(archive, [copy])
        self.assertEqual(found.wrong, [])
        last = json.loads(copy)["entries"][-1]["hash"]
        self.assertIn(last, found.told[0])
        self.assertIn(last, self.visitor.get(f"{path}/record").text)
        page = self.client.get(f"/sheet/{self.sheet['id']}/handouts/{path.split('/')[-1]}").text
        self.assertIn(last, page)
        with zipfile.ZipFile(io.BytesIO(archive)) as opened:
            files = {name: opened.read(name) for name in opened.namelist()}
        for name, old, new in (
            ("Ada/sheet.json", b"g(x) = x", b"g(x) = 2x"),
            ("Ada/answers.csv", b",1,", b",1.3247,"),
            ("Ada/answers.csv", b"wrong", b"right"),
        ):
            forged = {**files, name: files[name].replace(old, new)}
            self.assertNotEqual(forged[name], files[name], name)
            seals = json.loads(forged[SEALS])
            seals["files"][name] = hashlib.sha256(forged[name]).hexdigest()
            forged[SEALS] = json.dumps(seals).encode()
            made = io.BytesIO()
            with zipfile.ZipFile(made, "w") as out:
                for one, body in forged.items():
                    out.writestr(one, body)
            self.assertTrue(any(name in one for one in verify(made.getvalue()).wrong), name)

    def test_a_page_that_reports_without_end_leaves_room_for_what_matters(self):
        path = self.seal()
        self.enter(path)
        token = self.inside(path)[2]

        def report(kind):
            at = f"/h/{path.split('/')[-1]}/report"
            self.assertEqual(self.post(at, {"kind": kind}, self.visitor, token).status_code, 200)

        with (
            unittest.mock.patch.object(seats, "MOST_REPORTS", 14),
            unittest.mock.patch.object(seats, "MOST_ENTRIES", 40),
        ):
            for _ in range(30):
                report("opened")
            report("left")
            self.ask(path, "answer", question="q1", text="1")
        kinds = [one["kind"] for one in self.visitor.get(f"{path}/record.json").json["entries"]]
        self.assertLess(kinds.count("opened"), 20)
        self.assertEqual(kinds[-2:], ["left", "answered"])


del SealedTest
