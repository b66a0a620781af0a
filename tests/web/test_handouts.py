"""Hand-outs through their pages: given, visited, copied, framed, ended while they are open."""

import re
import unittest.mock

from axispath.web import source
from tests.web.test_account import AccountTest
from tests.web.test_web import VIEW

LINK = re.compile(r'value="http://localhost(/h/[^"]+)"')


class HandoutTest(AccountTest):
    def setUp(self):
        super().setUp()
        patched = unittest.mock.patch.object(source, "FRESH", 0.0)
        patched.start()
        self.addCleanup(patched.stop)
        self.sheet = self.start("f(x) = a x", "a = 2", "g(x) = x^2")
        self.visitor = self.app.test_client()

    def give(self, client=None, **fields):
        given = {"csrf_token": self.token, "which": "all", "follows": "yes"}
        given["page"] = ["landmarks", "values", "solve", "data", "working"]
        at = f"/sheet/{self.sheet['id']}/handouts"
        return (client or self.client).post(at, data={**given, **fields})

    def given(self, **fields):
        """The path of a new link."""
        answer = self.give(**fields)
        self.assertEqual(answer.status_code, 302, answer.text[:300])
        return LINK.findall(self.client.get(answer.location).text)[0]

    def state(self, path, client=None):
        page = (client or self.visitor).get(path)
        self.assertEqual(page.status_code, 200)
        token = re.search(r'csrf-token" content="([^"]+)', page.text)[1]
        key = re.search(r'data-key="([^"]+)"', page.text)[1]
        head = int(re.search(r'"head": ?(\d+)', page.text)[1])
        return page.text, key, head, token

    def turn(self, path, value, client=None):
        client = client or self.visitor
        _, key, head, token = self.state(path, client)
        lane = next(one["id"] for one in self.sheet["lanes"] if one["name"] == "a")
        edits = [{"do": "slide", "id": lane, "value": value}]
        if key.startswith("link."):
            return self.post("/sheets", {"source": key, "edits": edits}, client, token)
        body = {"base": head, "edits": edits}
        return self.post(f"/sheets/{key}/edits", body, client, token)

    def look(self, path, client=None):
        client = client or self.visitor
        _, key, head, token = self.state(path, client)
        return self.post(f"/sheets/{key}/path", {"head": head, "view": VIEW}, client, token)


class Given(HandoutTest):
    """The page where a sheet is handed out says what it will be like."""

    def page(self):
        return self.client.get(f"/sheet/{self.sheet['id']}/handouts").text

    def cover(self, **cover):
        lane = next(one["id"] for one in self.sheet["lanes"] if one["name"] == "f")
        edits = [{"do": "set cover", "cover": {"on": True, "lanes": [lane], **cover}}]
        body = {"base": self.sheet["head"], "edits": edits}
        self.assertEqual(self.post(f"/sheets/{self.sheet['id']}/edits", body).status_code, 200)

    def test_what_is_covered_is_said_exactly(self):
        self.given()
        self.assertNotIn("covered:", self.page())
        self.given(covered="on", group=["zeros", "intersections"])
        self.assertIn("covered: zeros and intersections", self.page())
        self.given(covered="on")
        self.assertIn("covered: all landmarks", self.page())
        self.cover(groups=["zeros"])
        self.assertIn("covered: zeros of f", self.page())

    def test_pages_that_find_what_is_covered_are_named(self):
        said = re.search(r'id="finding">(.*?)</p>', self.page(), re.DOTALL)[1]
        for title in ("Values", "Solve", "Working"):
            self.assertIn(f"<strong>{title}</strong>", said)
        self.assertNotIn("Landmarks", said)

    def test_a_sheet_without_a_question_says_so_before_it_is_sealed(self):
        self.assertIn("asks no question yet", self.page())
        question = {"kind": "solve", "text": "x^2 = 2"}
        edits = [{"do": "set question", "question": question}]
        body = {"base": self.sheet["head"], "edits": edits}
        answer = self.post(f"/sheets/{self.sheet['id']}/edits", body)
        self.assertEqual(answer.status_code, 200, answer.text[:300])
        self.assertNotIn("asks no question yet", self.page())


class Visits(HandoutTest):
    def test_a_visitor_looks_turns_comes_back_and_takes_a_copy(self):
        path = self.given()
        page, key, _, token = self.state(path)
        self.assertTrue(key.startswith("link."))
        self.assertIn("Handed out", page)
        self.assertEqual(self.look(path).status_code, 200)
        with self.visitor.session_transaction() as session:
            self.assertNotIn("person", session)  # looking makes nobody
        self.assertEqual(self.turn(path, 3.5).status_code, 200)
        self.assertEqual(self.turn(path, 4.5).status_code, 200)
        self.assertIn("a = 4.5", self.state(path)[0])
        self.assertIn("a = 2", self.client.get(f"/sheet/{self.sheet['id']}").text)
        self.assertEqual(self.shelf(self.visitor), [])
        data = {"csrf_token": token, "change": "ab" * 16}
        copies = {self.visitor.post(f"{path}/copy", data=data).location for _ in range(2)}
        self.assertEqual(len(copies), 1)  # the button pressed twice
        self.assertEqual(len(self.shelf(self.visitor)), 1)
        self.assertIn("a = 4.5", self.visitor.get(copies.pop()).text)
        self.visitor.post(f"{path}/start-over", data={"csrf_token": token})
        self.assertIn("a = 2", self.state(path)[0])

    def test_what_a_visitor_must_not_do_is_refused_with_a_sentence(self):
        path = self.given()
        _, key, _, token = self.state(path)
        for edits in ([{"do": "add lane", "text": "x"}], [{"do": "rename", "name": "Mine"}]):
            body = {"source": key, "edits": edits}
            answer = self.post("/sheets", body, self.visitor, token)
            self.assertEqual(answer.status_code, 422)
            self.assertIn("take a copy", answer.json["message"])
        self.turn(path, 3)
        _, mine, head, token = self.state(path)
        body = {"base": head, "edits": [{"do": "rename", "name": "Mine"}]}
        answer = self.post(f"/sheets/{mine}/edits", body, self.visitor, token)
        self.assertIn("take a copy", answer.json["message"])
        for what in ("duplicate", "delete"):
            data = {"csrf_token": token}
            self.assertEqual(self.visitor.post(f"/shelf/{mine}/{what}", data=data).status_code, 404)
        self.assertEqual(self.visitor.get(f"/sheet/{mine}/handouts").status_code, 404)
        self.assertEqual(self.visitor.get(f"/sheet/{mine}").location, path)
        self.assertEqual(self.visitor.get(f"/sheet/{self.sheet['id']}").status_code, 404)

    def test_a_link_that_was_taken_back_while_its_page_is_open(self):
        path = self.given()
        self.turn(path, 3)
        other = self.app.test_client()
        _, key, head, token = self.state(path, other)
        _, mine, mine_head, mine_token = self.state(path)
        token_of_link = path.rpartition("/")[2]
        at = f"/sheet/{self.sheet['id']}/handouts/{token_of_link}"
        shown = self.client.get(f"{at}/code").text
        drawn = re.search(r'<svg[^>]*class="qr"[^>]*>.*?</svg>', shown, re.S)[0]
        self.assertRegex(drawn, r'<path[^>]* stroke="#000"[^>]* d="M4 4')
        self.assertIn(f"http://localhost{path}", shown)
        self.client.post(f"{at}/revoke", data={"csrf_token": self.token})
        for client, name, at_head, csrf in (
            (other, key, head, token),
            (self.visitor, mine, mine_head, mine_token),
        ):
            body = {"head": at_head, "view": VIEW}
            answer = self.post(f"/sheets/{name}/path", body, client, csrf)
            self.assertEqual(answer.status_code, 410)
            self.assertIn("has ended", answer.json["message"])
            self.assertEqual(client.get(path).status_code, 410)
            answer = client.post(f"{path}/copy", data={"csrf_token": csrf})
            self.assertEqual(answer.status_code, 410)
            self.assertIn("has ended", answer.text)
        self.assertEqual(self.client.get(f"{at}/code").status_code, 410)
        self.assertIn("ended", self.client.get(f"/sheet/{self.sheet['id']}/handouts").text)
        # The cookie of another person opens what was turned just as little.
        self.assertEqual(self.client.get(f"/sheet/{mine}").status_code, 404)

    def test_chosen_lanes_and_pages_alone_are_sent(self):
        lane = next(one["id"] for one in self.sheet["lanes"] if one["name"] == "g")
        page = self.state(self.given(which="some", lane=[lane], page=["values"]))[0]
        self.assertNotIn("f(x) = a x", page)
        self.assertIn("g(x) = x^2", page)
        self.assertIn('id="tab-values"', page)
        self.assertNotIn('id="tab-solve"', page)
        answer = self.give(which="some", lane=[])
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Choose the lanes", answer.text)
        self.assertEqual(self.give(which="some", lane=["../etc"]).status_code, 422)

    def test_only_what_may_be_framed_can_be(self):
        closed, framed = self.given(), self.given(framed="on")
        self.assertIn("frame-ancestors 'none'", self.policy(closed))
        self.assertIn("frame-ancestors *", self.policy(framed))
        self.assertIn("frame-ancestors 'none'", self.policy("/shelf"))
        # In a frame no cookie comes along: a look is answered all the same, a change is not.
        _, key, head, _ = self.state(framed)
        bare = self.app.test_client()
        look = bare.post(f"/api/sheets/{key}/path", json={"head": head, "view": VIEW})
        self.assertEqual(look.status_code, 200)
        self.assertEqual(bare.post("/api/sheets", json={"source": key}).status_code, 400)
        self.assertEqual(bare.post(f"{framed}/copy").status_code, 400)
        for what in ("branch", "edits", "undo"):
            at = f"/api/sheets/{key}/{what}"
            self.assertEqual(bare.post(at, json={"base": head, "edits": []}).status_code, 400)

    def policy(self, path):
        return self.visitor.get(path).headers["Content-Security-Policy"]

    def test_following_and_staying(self):
        follows, stays = self.given(), self.given(follows="no")
        edits = [{"do": "add lane", "text": "late(x) = x"}]
        body = {"base": self.sheet["head"], "edits": edits}
        self.post(f"/sheets/{self.sheet['id']}/edits", body)
        self.assertIn("late(x)", self.state(follows)[0])
        self.assertNotIn("late(x)", self.state(stays)[0])

    def test_thirty_at_once_ask_the_very_same(self):
        """What is asked under one name is computed once (see the tests of the broker)."""
        path = self.given()
        broker = self.app.extensions["broker"]
        names, ask = set(), broker.ask

        def noted(job):
            names.add(job.same)
            return ask(job)

        with unittest.mock.patch.object(broker, "ask", noted):
            answers = {self.look(path, self.app.test_client()).data for _ in range(30)}
        self.assertEqual(len(answers), 1)
        # One name for the page, which is remembered, and one for the landmarks.
        self.assertLessEqual(len(names - {""}), 2)
        self.assertNotIn("", names)
