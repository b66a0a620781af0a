import json
import re
import struct
import threading

import numpy as np

from axispath.demo.load import load_demo
from axispath.store import people
from axispath.web import source
from axispath.web.app import create_app
from axispath.web.inside import VIEWS, application
from tests.case import Case
from tests.database import address, empty_store

VIEW = {"left": -5, "right": 5, "bottom": -4, "top": 4}


FIRST = [{"do": "add lane", "text": "x"}]


class WebTest(Case):
    @classmethod
    def setUpClass(cls):
        empty_store().engine.dispose()
        load_demo(address())
        cls.app = create_app(address(), "a secret for tests, and no other use")
        cls.addClassCleanup(cls.app.extensions["store"].engine.dispose)

    def setUp(self):
        self.client = self.app.test_client()
        self.token = self.token_of(self.client)

    def token_of(self, client):
        page = client.get("/").text
        return re.search(r'csrf-token" content="([^"]+)', page)[1]

    def post(self, path, body, client=None, token=None, method="POST"):
        client = client or self.client
        headers = {"X-CSRFToken": token or self.token}
        return client.open(f"/api{path}", method=method, json=body, headers=headers)

    def start(self, *lines):
        edits = [{"do": "add lane", "text": line} for line in lines]
        answer = self.post("/sheets", {"source": "blank", "edits": edits})
        self.assertEqual(answer.status_code, 200, answer.text)
        return answer.json


class Pages(WebTest):
    def test_of_a_line_that_is_kept_as_it_is_nothing_is_told(self):
        body = {
            "source": "blank",
            "edits": [{"do": "add lane", "text": "factor x^2 + 1", "keep": True}],
        }
        answer = self.post("/sheets", body)
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(answer.json["told"], "")

    def test_a_first_change_whose_answer_was_lost_is_still_that_of_its_browser(self):
        change = {"source": "blank", "edits": FIRST, "change": "0a" * 16}
        made = self.post("/sheets", change).json
        # The same browser, to which no cookie came.
        again = self.app.test_client()
        token = self.token_of(again)
        answer = self.post("/sheets", change, again, token)
        self.assertEqual(answer.json["id"], made["id"])
        edit = {"base": made["head"], "edits": [{"do": "add lane", "text": "x^2"}]}
        found = self.post(f"/sheets/{made['id']}/edits", edit, again, token)
        self.assertEqual(found.status_code, 200, found.text)
        # Somebody who does not know the name of the change is somebody else.
        other = self.app.test_client()
        told = self.post(f"/sheets/{made['id']}/edits", edit, other, self.token_of(other))
        self.assertEqual(told.status_code, 404)

    def test_the_name_of_a_change_opens_no_account(self):
        change = {"source": "blank", "edits": FIRST, "change": "0b" * 16}
        made = self.post("/sheets", change).json
        with self.app.extensions["store"].transaction() as database:
            with self.client.session_transaction() as session:
                person = session["person"]
            people.register(database, person, "Una of the Mole", "four small boats out")
        again = self.app.test_client()
        token = self.token_of(again)
        self.post("/sheets", change, again, token)
        with again.session_transaction() as session:
            self.assertNotIn("person", session)
        self.assertEqual(again.get(f"/api/sheets/{made['id']}").status_code, 404)

    def test_a_visit_makes_no_person_and_the_first_change_does(self):
        with self.client.session_transaction() as session:
            self.assertNotIn("person", session)
        self.start("x")
        with self.client.session_transaction() as session:
            self.assertIn("person", session)
            self.assertTrue(session.permanent)

    def test_a_refused_first_change_makes_no_person(self):
        answer = self.post("/sheets", {"edits": [{"do": "add lane", "text": "x +"}]})
        self.assertEqual(answer.status_code, 422)
        with self.client.session_transaction() as session:
            self.assertNotIn("person", session)

    def test_the_page_comes_with_its_lanes_and_formulas(self):
        found = self.start("x^2 - x - 3", "g(x) = x/2 for x >= 0")
        page = self.client.get(f"/sheet/{found['id']}").text
        self.assertIn("<msup><mi>x</mi><mn>2</mn></msup>", page)
        self.assertIn("<mfrac>", page)
        self.assertIn('value="0"', page)

    def test_nothing_inline_and_strict_headers(self):
        found = self.start("x^2")
        for path in ("/", f"/sheet/{found['id']}", "/shelf", "/demo/ferry-window", "/nowhere"):
            answer = self.client.get(path)
            policy = answer.headers["Content-Security-Policy"]
            self.assertIn("default-src 'none'", policy)
            self.assertNotIn("unsafe", policy)
            self.assertEqual(answer.headers["X-Content-Type-Options"], "nosniff")
            self.assertIsNone(re.search(r"\son\w+=|\sstyle=|<script>|<style", answer.text), path)

    def test_what_a_student_types_is_never_markup(self):
        found = self.start("x")
        name = '<img src=x onerror="alert(1)">'
        edits = [{"do": "rename", "name": name}]
        self.post(f"/sheets/{found['id']}/edits", {"base": found["head"], "edits": edits})
        for path in (f"/sheet/{found['id']}", "/shelf"):
            self.assertNotIn("<img src=x", self.client.get(path).text)

    def test_unknown_addresses_get_a_page(self):
        for path in ("/nowhere", "/sheet/nope", "/demo/nope", "/assets/1/../app.py"):
            answer = self.client.get(path)
            self.assertEqual(answer.status_code, 404)
            self.assertIn("shelf", answer.text)

    def test_the_first_visit_is_light(self):
        total = 0
        pending, seen = ["/demo/ferry-window"], set()
        while pending:
            path = pending.pop()
            if path in seen:
                continue
            seen.add(path)
            answer = self.client.get(path, headers={"Accept-Encoding": "br, gzip"})
            self.assertEqual(answer.status_code, 200, path)
            total += len(answer.data)
            plain = (
                self.client.get(path).text
                if path.endswith((".js", ".mjs")) or "demo" in path
                else ""
            )
            base = path.rsplit("/", 1)[0]
            for name in re.findall(r'(?:href|src)="(/assets/[^"]+)"', plain):
                pending.append(name)
            for name in re.findall(r'(?:from|import) "(\.[^"]+)"', plain):
                pending.append(_joined(base, name))
        # The fonts that this page uses: interface in two weights, mathematics in two.
        prefix = next(p for p in seen if p.endswith("/js/main.js")).removesuffix("js/main.js")
        for font in (
            "atkinson-hyperlegible/latin-400.woff2",
            "atkinson-hyperlegible/latin-700.woff2",
            "katex/fonts/KaTeX_Main-Regular.woff2",
            "katex/fonts/KaTeX_Math-Italic.woff2",
            "katex/fonts/KaTeX_Size2-Regular.woff2",
        ):
            total += len(self.client.get(f"{prefix}vendor/{font}").data)
        self.assertGreater(len(seen), 12)
        self.assertLessEqual(total, 350_000)


def _joined(base, name):
    parts = base.split("/")
    for part in name.split("/"):
        if part == "..":
            parts.pop()
        elif part != ".":
            parts.append(part)
    return "/".join(parts)


class Wall(WebTest):
    def test_every_look_at_a_sheet_is_computed_behind_the_wall(self):
        saves = {"edit_sheet", "branch_sheet", "step", "read_sheet", "look", "open_file"}
        # These keep what they have had marked behind the wall.
        saves |= {"page", "guess", "hint", "answer", "try_question", "give_name"}
        for rule in self.app.url_map.iter_rules():
            if not rule.rule.startswith("/api/sheets/<"):
                continue
            view = self.app.view_functions[rule.endpoint]
            while (
                hasattr(view, "__wrapped__") and f"{view.__module__}.{view.__name__}" not in VIEWS
            ):
                view = view.__wrapped__
            known = f"{view.__module__}.{view.__name__}" in VIEWS
            self.assertEqual(known, view.__name__ not in saves, rule.rule)

    def test_inside_there_is_no_database(self):
        self.assertNotIn("store", application().extensions)


class Changes(WebTest):
    def test_every_change_needs_the_token(self):
        found = self.start("x")
        for method, path in [
            ("POST", "/api/sheets"),
            ("POST", f"/api/sheets/{found['id']}/edits"),
            ("POST", f"/api/sheets/{found['id']}/undo"),
            ("PUT", f"/api/sheets/{found['id']}/view"),
            ("POST", f"/shelf/{found['id']}/delete"),
        ]:
            self.assertEqual(self.client.open(path, method=method, json={}).status_code, 400, path)
        self.assertEqual(self.client.get(f"/api/sheets/{found['id']}").json["head"], found["head"])

    def test_strange_requests_are_refused_with_a_sentence(self):
        found = self.start("x")
        path = f"/sheets/{found['id']}"
        look = {"head": found["head"], "view": VIEW}
        for place, body in [
            (f"{path}/edits", {"base": "1", "edits": []}),
            (f"{path}/edits", {"base": 1, "edits": [{"do": "nothing"}]}),
            (f"{path}/edits", {"base": 10**30, "edits": [{"do": "rename", "name": "a"}]}),
            (f"{path}/edits", []),
            (f"{path}/picture", {**look, "width": 10**9, "height": 10}),
            (
                f"{path}/picture",
                {**look, "view": {**VIEW, "left": 1e300}, "width": 90, "height": 90},
            ),
            (f"{path}/path", {**look, "view": {**VIEW, "left": 9}}),
            (f"{path}/reading", {"head": 1, "x": "here"}),
            (f"{path}/values", {"head": 1, "first": -1}),
            (f"{path}/solve", {"head": 1, "view": VIEW, "text": "x" * 7000}),
            (f"{path}/method", {"head": 1, "view": VIEW, "text": "x = 1", "method": "guessing"}),
        ]:
            answer = self.post(place, body)
            self.assertEqual(answer.status_code, 422, (place, body))
            self.assertTrue(answer.json["message"])
        raw = self.client.post(
            f"/api{path}/edits", data=b"\xff{", headers={"X-CSRFToken": self.token}
        )
        self.assertEqual(raw.status_code, 422)
        big = self.client.post(
            f"/api{path}/edits", data=b"x" * 300_000, headers={"X-CSRFToken": self.token}
        )
        self.assertEqual(big.status_code, 413)

    def test_a_stale_change_is_a_conflict(self):
        found = self.start("x")
        edits = [{"do": "add lane", "text": "x^2"}]
        body = {"base": found["head"], "edits": edits, "change": "a1" * 16}
        self.assertEqual(self.post(f"/sheets/{found['id']}/edits", body).status_code, 200)
        other = {"base": found["head"], "edits": [{"do": "add lane", "text": "x^3"}]}
        answer = self.post(f"/sheets/{found['id']}/edits", other)
        self.assertEqual((answer.status_code, answer.json["kind"]), (409, "conflict"))
        # The same change again, because its answer was lost, is there already.
        again = self.post(f"/sheets/{found['id']}/edits", body)
        self.assertEqual((again.status_code, len(again.json["lanes"])), (200, 2))

    def test_a_change_sent_again_while_it_is_carried_out_is_no_conflict_with_itself(self):
        found = self.start("x")
        with self.client.session_transaction() as session:
            mine = {name: session[name] for name in ("person", "key")}
        path = f"/sheets/{found['id']}/edits"
        for k in range(12):
            edits = [{"do": "set note", "id": found["lanes"][0]["id"], "note": f"{k}"}]
            body = {"base": found["head"], "edits": edits, "change": f"{k:032x}"}
            answers = []

            def send(body=body, answers=answers):
                client = self.app.test_client()
                token = self.token_of(client)
                with client.session_transaction() as session:
                    session.update(mine)
                answers.append(self.post(path, body, client, token))

            threads = [threading.Thread(target=send) for _ in range(4)]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
            self.assertEqual([answer.status_code for answer in answers], [200] * 4)
            self.assertEqual({answer.json["head"] for answer in answers}, {found["head"] + 1})
            found = answers[0].json

    def test_another_guest_finds_nothing(self):
        found = self.start("x")
        other = self.app.test_client()
        token = self.token_of(other)
        key = found["id"]
        look = {"head": found["head"], "view": VIEW}
        self.assertEqual(other.get(f"/sheet/{key}").status_code, 404)
        for path, body in [
            ("edits", {"base": 2, "edits": [{"do": "rename", "name": "Mine"}]}),
            ("undo", {"base": 2}),
            ("picture", {**look, "width": 90, "height": 90}),
            ("path", look),
            ("reading", {"head": found["head"], "x": 1}),
            ("values", {"head": found["head"]}),
        ]:
            self.assertEqual(
                self.post(f"/sheets/{key}/{path}", body, other, token).status_code, 404
            )


class Pictures(WebTest):
    def picture(self, found, **more):
        body = {"head": found["head"], "view": VIEW, "width": 500, "height": 400, **more}
        data = self.post(f"/sheets/{found['id']}/picture", body).data
        (length,) = struct.unpack_from("<I", data)
        head = json.loads(data[4 : 4 + length])
        numbers = np.frombuffer(data, np.float32, offset=4 + length)
        return {
            lane["id"]: numbers[shape["at"][0] : sum(shape["at"])].reshape(-1, 2)
            for lane in head["lanes"]
            for shape in lane["shapes"]
            if shape["as"] == "stroke"
        }

    def test_curves_cross_the_wire_relative_to_the_view(self):
        found = self.start("x^2 - 3", "g(x) = 1 for 0 <= x <= 1")
        first, second = self.picture(found).values()
        x = first[:, 0] * 10 - 5
        seen = (first[:, 1] > 0) & (first[:, 1] < 1)
        np.testing.assert_allclose(first[seen, 1] * 8 - 4, x[seen] ** 2 - 3, atol=1e-5)
        np.testing.assert_allclose(second[[0, -1], 0], [0.5, 0.6], atol=1e-6)

    def test_an_edit_can_be_tried_out_without_being_stored(self):
        found = self.start("g(x) = 1 for 0 <= x <= 1")
        lane = found["lanes"][0]["id"]
        edit = {"do": "set domain", "id": lane, "high": "3"}
        (points,) = self.picture(found, preview=[edit]).values()
        self.assertAlmostEqual(float(points[-1, 0]), 0.8, 5)
        self.assertEqual(self.client.get(f"/api/sheets/{found['id']}").json["head"], found["head"])

    def test_paths_come_with_the_desk_page(self):
        found = self.start("x^2 - 4")
        answer = self.post(
            f"/sheets/{found['id']}/path", {"head": found["head"], "view": VIEW}
        ).json
        zeros = [m["x"] for m in answer["lanes"][0]["landmarks"] if m["kind"] == "zero"]
        self.assertEqual(zeros, [-2, 2])
        self.assertIn("Nothing missed", answer["landmarks"])

    def test_blank_and_demo_sheets_can_be_looked_at_by_anybody(self):
        for key, count in (("blank", 0), ("demo.ferry-window", 2)):
            answer = self.post(f"/sheets/{key}/path", {"head": 0, "view": VIEW}).json
            self.assertEqual(len(answer["lanes"]), count)


class Searches(WebTest):
    def look(self, place, found, **more):
        body = {"head": found["head"], "view": VIEW, **more}
        return self.post(f"/sheets/{found['id']}/{place}", body)

    def kinds(self, answer):
        return [mark["kind"] for mark in answer.json["lanes"][0]["landmarks"]]

    def test_a_part_of_the_axis_and_its_refusals(self):
        found = self.start("tan x")
        part = self.look("path", found, low="π/4", high="π")
        self.assertEqual(self.kinds(part), ["pole", "zero"])
        for low, high in (("2", "1"), ("1/0", ""), ("sin(", ""), ("b", "")):
            answer = self.look("path", found, low=low, high=high)
            self.assertEqual(answer.status_code, 422, (low, high))
            self.assertTrue(answer.json["message"])

    def test_what_moves_is_not_called_proven(self):
        answer = self.look("path", self.start("x^2 - 1"), moving=True)
        self.assertEqual(self.kinds(answer).count("zero"), 2)
        self.assertIn("proved when it rests", answer.json["settled"])
        self.assertNotIn(">✓<", answer.json["landmarks"])

    def test_looking_longer_finds_what_the_first_look_left_open(self):
        found = self.start("sin(150x) + x/20")
        first = self.look("path", found)
        self.assertTrue(first.json["goesOn"])
        self.assertEqual(first.json["settled"], "looking further …")
        self.assertNotIn("Not settled", first.json["landmarks"])
        longer = self.look("path", found, longer=True)
        self.assertGreater(len(self.kinds(longer)), len(self.kinds(first)))
        self.assertFalse(longer.json["goesOn"])

    def test_a_window_that_is_behind_sees_its_own_revision(self):
        found = self.start("x^2 - 1")
        lane = found["lanes"][0]["id"]
        edit = {"do": "revise lane", "id": lane, "text": "x^2 - 4"}
        newer = self.post(f"/sheets/{found['id']}/edits", {"base": found["head"], "edits": [edit]})
        source._documents.clear()  # as in another process
        zeros = [
            next(m["x"] for m in self.look("path", state).json["lanes"][0]["landmarks"])
            for state in (found, newer.json)
        ]
        self.assertEqual(zeros, [-1, -2])
        self.assertEqual(self.look("path", {**found, "head": 99}).status_code, 404)

    def test_exact_forms_are_given_only_where_verified(self):
        found = self.start("x^2 - 5", "cos(x) - x")
        for _ in range(200):  # until they are found, however busy the machine
            answer = self.look("exact", found).json
            forms = {form["x"] for form in answer["forms"].values() if form["x"]}
            if forms:
                break
        self.assertTrue({"−√5", "√5"} <= forms, forms)
        lanes = [lane["id"] for lane in found["lanes"]]
        unproved = [k for k in answer["forms"] if k.startswith(lanes[1]) and ":zero:" in k]
        self.assertEqual(unproved, [])  # x = cos x has no such form

    def test_the_file_has_full_precision(self):
        answer = self.look("landmarks.csv", self.start("1/x"))
        self.assertEqual(answer.mimetype, "text/csv")
        self.assertIn("f,pole,0,,,,exact,\r\n", answer.text)
