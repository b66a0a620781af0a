"""Long work: begun, looked at, fetched, given up; only by who asked for it."""

import csv
import io
import unittest.mock

from axispath.store import errands
from axispath.work.errands import work
from tests.web.test_web import WebTest

TABLE = {"id": "table1", "start": "0", "stop": "4.5", "step": "0.001", "columns": ["f(x)"]}
VIEW = {"left": -5, "right": 5, "bottom": -4, "top": 4}


class Errands(WebTest):
    def setUp(self):
        super().setUp()
        self.sheet = self.start("f(x) = x^2")
        edits = [{"do": "set table", "table": TABLE}]
        self.wanted = {"head": self.sheet["head"], "preview": edits, "table": "table1"}

    def begin(self, what, body):
        headers = {"X-CSRFToken": self.token, "Prefer": "respond-async"}
        path = f"/api/sheets/{self.sheet['id']}/{what}"
        answer = self.client.post(path, json=body, headers=headers)
        self.assertEqual(answer.status_code, 202, answer.text)
        return answer.headers["Location"]

    def test_a_table_comes_in_parts_and_whole(self):
        at = self.begin("values.text", self.wanted)
        told = self.client.get(at).json
        self.assertEqual((told["state"], told["share"]), ("done", 1.0))
        found = self.client.get(f"{at}/content")
        self.assertEqual(found.mimetype, "text/csv")
        rows = list(csv.reader(io.StringIO(found.text)))
        self.assertEqual(len(rows), 4502)
        self.assertEqual(rows[0], ["x", "f(x)"])
        for k, (x, y) in enumerate(rows[1:]):
            self.assertAlmostEqual(float(x), k / 1000, places=12)
            self.assertAlmostEqual(float(y), (k / 1000) ** 2, places=12)
        at_once = self.post(f"/sheets/{self.sheet['id']}/values.text", self.wanted)
        self.assertEqual(at_once.text, found.text)

    def test_a_picture(self):
        size = {"width": 300, "height": 200, "format": "svg"}
        at = self.begin("export", {"head": self.sheet["head"], "view": VIEW, **size})
        self.assertEqual(self.client.get(at).json["state"], "done")
        self.assertIn("<svg", self.client.get(f"{at}/content").text)

    def test_what_cannot_be_made_is_told(self):
        table = {**TABLE, "step": "0"}
        edits = [{"do": "set table", "table": table}]
        at = self.begin("values.text", {**self.wanted, "preview": edits})
        told = self.client.get(at).json
        self.assertEqual(told["state"], "failed")
        self.assertIn("step", told["message"])
        self.assertEqual(self.client.get(f"{at}/content").status_code, 404)

    def test_others_see_nothing_of_it(self):
        at = self.begin("values.text", self.wanted)
        other = self.app.test_client()
        token = {"X-CSRFToken": self.token_of(other)}
        for answer in (
            other.get(at),
            other.get(f"{at}/content"),
            other.delete(at, headers=token),
            other.get("/api/errands/none"),
        ):
            self.assertEqual(answer.status_code, 404)

    def test_given_up_between_two_parts(self):
        store = self.app.extensions["store"]
        with self.client.session_transaction() as session:
            guest = session["person"]
        call = self.call_of("values.text")
        with store.transaction() as session:
            errand = errands.begin(session, guest, call)
        test = self

        class Asked:
            """Gives the errand up after its first part."""

            parts = 0

            def ask(self, job):
                self.parts += 1
                at = f"/api/errands/{errand}"
                answer = test.client.delete(at, headers={"X-CSRFToken": test.token})
                test.assertEqual(answer.status_code, 200)
                return test.app.extensions["broker"].ask(job)

        asked = Asked()
        with self.app.app_context():
            work(store, asked, errand)
            self.assertEqual(asked.parts, 1)
            self.assertEqual(self.client.get(f"/api/errands/{errand}").json["state"], "cancelled")
            work(store, asked, errand)  # given up before it was begun
        self.assertEqual(asked.parts, 1)

    def call_of(self, what):
        """The work of an errand as the page asked for it."""
        # One that is carried out keeps nothing of it.
        with unittest.mock.patch.object(errands, "begin", wraps=errands.begin) as begun:
            self.begin(what, self.wanted)
        return begun.call_args.args[2]

    def test_four_at_once_and_no_more(self):
        store = self.app.extensions["store"]
        with self.client.session_transaction() as session:
            guest = session["person"]
        with store.transaction() as session:
            for _ in range(errands.AT_ONCE):
                errands.begin(session, guest, b"")
        headers = {"X-CSRFToken": self.token, "Prefer": "respond-async"}
        path = f"/api/sheets/{self.sheet['id']}/values.text"
        answer = self.client.post(path, json=self.wanted, headers=headers)
        self.assertEqual((answer.status_code, answer.headers["Retry-After"]), (429, "1"))
