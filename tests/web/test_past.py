"""The page History: named, gone back to, branched, compared; and a database that goes meanwhile."""

import io
import re
import unittest.mock

from PIL import Image
from sqlalchemy.exc import OperationalError

from axispath.store import sheets
from tests.web.test_web import WebTest


class Pasts(WebTest):
    def setUp(self):
        super().setUp()
        found = self.start("f(x) = x^2")
        self.key = found["id"]
        edits = [{"do": "add lane", "text": "g(x) = <b>x</b>", "keep": True}]
        body = {"base": found["head"], "edits": edits}
        self.head = self.post(f"/sheets/{self.key}/edits", body).json["head"]

    def act(self, number, action, **fields):
        at = f"/sheet/{self.key}/history/{number}/{action}"
        return self.client.post(at, data={"csrf_token": self.token, **fields})

    def page(self, query=""):
        return self.client.get(f"/sheet/{self.key}/history{query}").text

    def lanes(self):
        return len(self.client.get(f"/api/sheets/{self.key}").json["lanes"])

    def lane(self, name):
        lanes = self.client.get(f"/api/sheets/{self.key}").json["lanes"]
        return next(one["id"] for one in lanes if one["name"] == name)

    def test_points_are_listed_named_and_gone_back_to(self):
        self.assertEqual(self.page().count('class="sheet-row point'), 3)
        self.assertEqual(self.act(2, "name", name="before <i>the</i> test").status_code, 302)
        self.assertIn("before &lt;i&gt;the&lt;/i&gt; test", self.page())
        self.assertIn("80 characters", self.act(2, "name", name="x" * 90).text)
        answer = self.act(2, "back", base=self.head)
        self.assertEqual(answer.location, f"/sheet/{self.key}")
        self.assertEqual(self.lanes(), 1)
        # From a page that is older than the sheet by now.
        self.assertEqual(self.act(3, "back", base=self.head).status_code, 409)
        branch = self.act(3, "branch").location
        self.assertNotEqual(branch, f"/sheet/{self.key}")
        self.assertIn("(copy)", self.client.get(branch).text)

    def test_what_changed_is_told_and_steps_of_one_piece_of_work_stand_together(self):
        head, f = self.head, self.lane("f")
        for edits in (
            [{"do": "add lane", "text": "swing = 1.4"}],
            *([{"do": "set note", "id": f, "note": f"note {k}"}] for k in range(3)),
            [{"do": "add lane", "text": "h(x) = x + 1"}],
        ):
            body = {"base": head, "edits": edits}
            head = self.post(f"/sheets/{self.key}/edits", body).json["head"]
        page = self.page()
        self.assertIn("added h(x) = x + 1", page)
        self.assertIn("<strong>3 steps</strong> the note on f", page)
        # After going back by undo, the state that stands is an older one, and is not folded away.
        body = {"base": head}
        for _ in range(2):
            body["base"] = self.post(f"/sheets/{self.key}/undo", body).json["head"]
        page = self.page()
        self.assertIn("is-here", page)
        self.assertNotIn("is-here", "".join(re.findall("<details>.*?</details>", page, re.DOTALL)))
        for _ in range(2):
            body["base"] = self.post(f"/sheets/{self.key}/redo", body).json["head"]
        head = body["base"]
        for value in (1.3, 1.1, 0.9):
            body = {
                "base": head,
                "edits": [{"do": "slide", "id": self.lane("swing"), "value": value}],
            }
            head = self.post(f"/sheets/{self.key}/edits", body).json["head"]
        self.assertIn("swing 1.4 → 0.9", self.page())
        self.assertEqual(self.page().count("swing 1.4"), self.page().count("swing 1.4 → 0.9"))

    def test_two_states_compared_in_words_and_pictures(self):
        page = self.page("?from=2&to=3")
        self.assertIn("added", page)
        self.assertIn("&lt;b&gt;", page)
        self.assertNotIn("<b>x", page)
        self.assertIn("The two are the same", self.page("?from=3&to=3"))
        for number in re.findall(rf"/sheet/{self.key}/picture/(\d+)\.png", page)[:2]:
            answer = self.client.get(f"/sheet/{self.key}/picture/{number}.png")
            self.assertIn("immutable", answer.headers["Cache-Control"])
            self.assertEqual(Image.open(io.BytesIO(answer.data)).size, (360, 225))
        self.assertEqual(self.client.get(f"/sheet/{self.key}/picture/99.png").status_code, 404)

    def test_a_database_that_goes_in_the_middle_of_going_back(self):
        change = sheets.change

        def then_gone(*given):
            change(*given)
            raise OperationalError("commit", {}, Exception("gone"))

        with unittest.mock.patch("axispath.store.past.sheets.change", then_gone):
            answer = self.act(2, "back", base=self.head)
        self.assertEqual(answer.status_code, 503)
        self.assertIn("Nothing is lost", answer.text)
        self.assertEqual(self.lanes(), 2)
        self.assertEqual(self.page().count('class="sheet-row point'), 3)
        self.assertEqual(self.act(2, "back", base=self.head).status_code, 302)
        self.assertEqual(self.lanes(), 1)
