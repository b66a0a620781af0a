"""Practice and sealed hand-outs through the routes: nothing that is covered or off gets out."""

import io
import json
import re
import time
import unittest.mock
import zipfile
from datetime import UTC, datetime, timedelta

from axispath.capabilities import CAPABILITIES
from axispath.core.practice.chain import following
from axispath.device.reports import signature
from axispath.exchange.formats import FORMATS
from axispath.exchange.records import SEALS, Taken, record_archive, verify
from axispath.store import replies
from axispath.web import lately
from tests.web.test_account import WORDS
from tests.web.test_handouts import HandoutTest

WIDE = {"left": -5, "right": 5, "bottom": -4, "top": 4}
ROOT, TURN = "1.3247", "0.57735"  # of x³ − x − 1: its zero, and where it turns
LINE = "f(x) = x^3 - x - 1"
TABLE = {"id": "table1", "by": "landmarks"}
# What a page would send to each route that is about a sheet, besides head and view.
TOMORROW = (datetime.now(UTC) + timedelta(days=1)).isoformat()[:16]
BODIES = {
    "api.branch_sheet": {"base": 1, "edits": [{"do": "set cover", "cover": {"on": False}}]},
    "api.edit_sheet": {"base": 1, "edits": [{"do": "set cover", "cover": {"on": False}}]},
    "api.exact": {},
    "api.finer": {"row": 0},
    "api.forms": {"lane": "lane1"},
    "api.frame": {},
    "api.frames": {"width": 300, "height": 200, "states": []},
    "api.landmarks_file": {},
    "api.limits": {"left": "-1", "right": "2", "bottom": "-1", "top": "1"},
    "api.look": WIDE,
    "api.marks": {"states": []},
    "api.path": {},
    "api.picture": {"width": 300, "height": 200},
    "api.preview": {"text": "g(x) = f(x)"},
    "api.reading": {"x": 1.0},
    "api.spot": {"x": 1.0, "y": 0.0},
    "api.step": {"base": 1},
    "api.surface": {"lane": "lane1"},
    "api.trails": {"width": 300, "height": 200, "states": []},
    "api.value_points": {"preview": [{"do": "set table", "table": {**TABLE, "points": True}}]},
    "api.values": {"preview": [{"do": "set table", "table": TABLE}]},
    "api.values_text": {"preview": [{"do": "set table", "table": TABLE}]},
    "equations.blocks": {},
    "equations.run": {"id": "e", "run": {"name": "", "low": "", "high": "", "count": ""}},
    "hearing.hear": {"lane": "lane1"},
    "measured.open_file": {},
    "measured.predict": {"id": "lane1", "at": "1"},
    "measured.rows": {"id": "lane1"},
    "measured.write": {"id": "lane1"},
    "practising.answer": {"question": "q1", "text": "1"},
    "practising.give_name": {"name": "Ada"},
    "practising.guess": {"typed": "1"},
    "practising.hint": {"step": 0},
    "practising.page": {},
    "practising.try_question": {"writing": {"kind": "words", "words": "Why?"}},
    "reducing.reduce": {"system": "x = 1"},
    "solving.exact": {"text": "f(x) = 0"},
    "solving.method": {"text": "f(x) = 0", "method": "bisection", "start": "1", "second": "2"},
    "solving.solve": {"text": "f(x) = 0"},
    "taking.export": {},
    "working.lines": {},
}


class SealedTest(HandoutTest):
    def setUp(self):
        super().setUp()
        patched = unittest.mock.patch.object(lately, "FRESH", -1.0)
        patched.start()
        self.addCleanup(patched.stop)
        self.sheet = self.start(LINE, "a = 2")
        lanes = self.client.get(f"/api/sheets/{self.sheet['id']}").json["lanes"]
        self.lane = next(one["id"] for one in lanes if one["name"] == "f")
        question = {"kind": "landmarks", "lane": self.lane, "group": "zeros"}
        self.edit(self.sheet, {"do": "set question", "question": question})

    def edit(self, sheet, *edits):
        head = self.client.get(f"/api/sheets/{sheet['id']}").json["head"]
        answer = self.post(f"/sheets/{sheet['id']}/edits", {"base": head, "edits": list(edits)})
        self.assertEqual(answer.status_code, 200, answer.text)
        return answer.json

    def seal(self, *off, **fields):
        fields = {"sealed": "on", "minutes": "30", "off": list(off), **fields}
        return self.given(**fields)

    def enter(self, path, name="Ada", client=None, **fields):
        client = client or self.visitor
        token = self.token_of_page(client.get(path).text)
        return client.post(f"{path}/enter", data={"csrf_token": token, "name": name, **fields})

    def token_of_page(self, text):
        return re.search(r'csrf-token" content="([^"]+)', text)[1]

    def inside(self, path, client=None):
        """The key, the head and the token of a page that was entered."""
        return self.state(path, client)[1:]

    def ask(self, path, what, client=None, **more):
        client = client or self.visitor
        key, head, token = self.inside(path, client)
        body = {"head": head, "view": WIDE, **more}
        return self.post(f"/sheets/{key}/{what}", body, client, token)

    def routes(self):
        """Every route about a sheet, and how it is asked."""
        for rule in self.app.url_map.iter_rules():
            name = next((one for one in ("<key>", "<sheet_id>") if one in rule.rule), None)
            if name and rule.rule.startswith("/api/"):
                methods = rule.methods - {"HEAD", "OPTIONS", "GET"}
                for method in methods:
                    path = rule.rule.replace("<any(undo, redo):direction>", "undo")
                    yield rule.endpoint, method, path.removeprefix("/api"), name

    def walk(self, path, client):
        """What every route answers to somebody on a hand-out, as text."""
        key, head, token = self.inside(path, client)
        for endpoint, method, where, name in self.routes():
            body = {
                field: self.lane if value == "lane1" else value
                for field, value in BODIES[endpoint].items()
            }
            if "base" not in body and endpoint not in ("api.look",):
                body = {"head": head, "view": WIDE, **body}
            formats = FORMATS if endpoint == "taking.export" else [""]
            for wanted in formats:
                asked = {**body, "format": wanted} if wanted else body
                answer = self.post(where.replace(name, key), asked, client, token, method)
                yield f"{endpoint} {wanted}", answer


class Walk(SealedTest):
    def test_every_route_about_a_sheet_is_walked(self):
        self.assertEqual({endpoint for endpoint, *_ in self.routes()}, set(BODIES))

    def test_nothing_covered_leaves_by_any_route(self):
        path = self.given(covered="on", page=["landmarks", "values", "data", "practise"])
        page = self.visitor.get(path).text
        self.assertNotIn(ROOT, page)
        self.turn(path, 3.0)  # now it is a sheet that is stored for the visitor
        seen = 0
        for what, answer in self.walk(path, self.visitor):
            # Solving is a way of finding out, like reading: the page may be left out of a hand-out.
            if what.startswith(("solving.", "reducing.")):
                continue
            text = answer.data.decode("latin-1")
            for told in (ROOT, TURN):
                self.assertNotIn(told, text, what)
            seen += answer.status_code == 200
        self.assertGreater(seen, 18)
        self.assertNotIn(ROOT, self.visitor.get(path).text)

    def test_without_the_cover_the_same_walk_would_see_it(self):
        path = self.given()
        self.turn(path, 3.0)
        told = {
            what for what, answer in self.walk(path, self.visitor) if ROOT.encode() in answer.data
        }
        for what in (
            "api.path ",
            "api.landmarks_file ",
            "api.values ",
            "taking.export latex",
            "hearing.hear ",
        ):
            self.assertIn(what, told)

    def test_a_preview_does_not_lift_the_cover(self):
        path = self.given(covered="on")
        lift = {"do": "set cover", "cover": {"on": False}}
        self.assertEqual(self.ask(path, "path", preview=[lift]).status_code, 422)
        add = {"do": "add lane", "text": "g(x) = f(x)"}
        self.assertNotIn(ROOT, self.ask(path, "path", preview=[add]).text)
        found = self.ask(path, "guess", typed="1.325")
        self.assertEqual(found.json["verdict"], "right")
        # What is found is shown from then on, whatever is undone.
        self.assertIn(ROOT, self.ask(path, "path").text)
        self.assertNotIn(TURN, self.ask(path, "path").text)

    def test_what_is_sealed_off_is_refused_by_every_route(self):
        path = self.seal(*CAPABILITIES)
        self.assertEqual(self.enter(path).status_code, 302)
        page, key, head, token = self.state(path)
        self.assertNotIn(ROOT, page)
        self.assertNotIn('data-page="solve"', page)
        off = {name: one.routes for name, one in CAPABILITIES.items()}
        for what, answer in self.walk(path, self.visitor):
            self.assertNotIn(ROOT, answer.text if answer.is_json else "", what)
            if what.startswith(tuple(route for routes in off.values() for route in routes)):
                self.assertEqual(answer.status_code, 422, what)
                self.assertIn("switched off", answer.text)
        for page in (
            "/",
            "/shelf",
            "/handbook",
            "/demo/ferry-window",
            f"/sheet/{key}",
            f"/sheet/{key}/history",
        ):
            self.assertEqual(self.visitor.get(page).status_code, 422, page)
        body = {"source": "blank", "edits": [{"do": "add lane", "text": LINE}]}
        self.assertEqual(self.post("/sheets", body, self.visitor, token).status_code, 422)
        for edit in (
            {"do": "add fit", "data": "a", "x": "b", "y": "c"},
            {"do": "add work", "text": "1"},
        ):
            answer = self.post(
                f"/sheets/{key}/edits", {"base": head, "edits": [edit]}, self.visitor, token
            )
            self.assertEqual(answer.status_code, 422)
        other = self.given()
        self.assertEqual(self.visitor.get(other).status_code, 422)
        self.assertNotIn("data-guess", self.ask(path, "practice").json["html"])
        # Others go on with whatever they like, and so does the student afterwards.
        self.assertEqual(self.client.get("/shelf").status_code, 200)
        self.post(f"/h/{path.split('/')[-1]}/hand-in", {}, self.visitor, token)
        self.assertEqual(self.visitor.get("/shelf").status_code, 200)


class Sittings(SealedTest):
    def setUp(self):
        super().setUp()
        self.edit(
            self.sheet, {"do": "set question", "question": {"kind": "solve", "text": "x^2 = 2"}}
        )

    def answers(self, path):
        return self.client.get(f"/sheet/{self.sheet['id']}/handouts/{path.split('/')[-1]}")

    def act(self, path, action, **fields):
        at = f"/sheet/{self.sheet['id']}/handouts/{path.split('/')[-1]}/{action}"
        return self.client.post(at, data={"csrf_token": self.token, **fields})

    def test_a_name_is_wanted_before_answers_are_collected(self):
        path = self.given(collects="on")
        self.assertIn("Answers are collected here", self.ask(path, "practice").json["html"])
        answer = self.ask(path, "answer", question="q2", text="±√2")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Give a name first", answer.json["message"])
        self.assertEqual(self.ask(path, "name", name="  ").status_code, 422)
        for client in (self.visitor, self.app.test_client()):
            where = self.state(path, client)
            told = self.post(f"/sheets/{where[1]}/name", {"name": "Ada"}, client, where[3])
            self.assertEqual(told.status_code, 200, told.text)
        name = "ab" * 16
        for _ in range(3):  # sent again: it is one answer
            right = self.ask(path, "answer", question="q2", text="±√2", change=name)
            self.assertEqual(right.json["verdict"], "right")
        wrong = self.ask(path, "answer", question="q2", text="3")
        self.assertEqual(wrong.json["verdict"], "wrong")
        page = self.answers(path).text
        self.assertIn("Ada (2)", page)  # two of one name are told apart
        row = re.search(
            r"Solve x\^2 = 2.*?<td class=\"num\">(\d+)</td>.*?(\d+)</td><td>([a-z ]+)", page, re.S
        )
        self.assertEqual(row.groups(), ("2", "1", "right"))
        csv = self.client.get(
            f"/sheet/{self.sheet['id']}/handouts/{path.split('/')[-1]}/answers.csv"
        )
        self.assertIn("Ada,solve,±√2,right", csv.text)
        self.act(path, "forget")
        self.assertIn("Nobody has begun yet", self.answers(path).text)

    def test_nobody_makes_a_question_easier_by_changing_its_lane(self):
        path = self.seal()
        self.enter(path)
        key, head, token = self.inside(path)
        revise = {"do": "revise lane", "id": self.lane, "text": "f(x) = x"}
        easy = {"head": head, "view": WIDE, "question": "q1", "text": "0", "preview": [revise]}
        answer = self.post(f"/sheets/{key}/answer", easy, self.visitor, token)
        self.assertEqual(answer.json["verdict"], "wrong", answer.text)
        body = {"base": head, "edits": [revise]}
        self.assertEqual(
            self.post(f"/sheets/{key}/edits", body, self.visitor, token).status_code, 200
        )
        self.assertEqual(self.ask(path, "answer", question="q1", text="0").json["verdict"], "wrong")
        self.assertEqual(
            self.ask(path, "answer", question="q1", text="1.32").json["verdict"], "right"
        )

    def test_a_thousand_answers_are_refused_with_a_sentence(self):
        path = self.given()
        with unittest.mock.patch.object(replies, "MOST_EACH", 2):
            told = [self.ask(path, "answer", question="q2", text="3") for _ in range(4)]
        self.assertEqual([one.status_code for one in told], [200, 200, 422, 422])
        self.assertIn("no more are taken", told[-1].json["message"])

    def test_entering_takes_a_name_the_word_and_the_time(self):
        path = self.seal(word="harbour light")
        self.assertIn("Recorded", self.visitor.get(path).text)
        self.assertIn("not the word", self.enter(path, word="quay").text)
        self.assertIn("Give a name", self.enter(path, name=" ", word="harbour light").text)
        # Without entering nothing of the sheet is given, by its link neither.
        link = f"link.{path.split('/')[-1]}"
        token = self.token_of_page(self.visitor.get(path).text)
        for what in ("path", "practice", "picture"):
            body = {"head": 1, "view": WIDE, "width": 300, "height": 200}
            answer = self.post(
                f"/sheets/{link}/{what}",
                body if what == "picture" else {"head": 1, "view": WIDE},
                self.visitor,
                token,
            )
            self.assertEqual(answer.status_code, 422, what)
        self.assertEqual(self.enter(path, word="Harbour Light").status_code, 302)
        later = self.seal(begins=TOMORROW)
        self.assertIn("This begins at", self.app.test_client().get(later).text)
        self.assertIn("has not begun", self.enter(later, client=self.app.test_client()).text)

    def test_the_end_hands_in_and_more_time_lets_go_on(self):
        path = self.seal()
        self.enter(path)
        key, head, token = self.inside(path)
        add = {"base": head, "edits": [{"do": "add lane", "text": "g(x) = x"}]}
        self.assertEqual(
            self.post(f"/sheets/{key}/edits", add, self.visitor, token).status_code, 200
        )
        self.act(path, "end")
        add = {"base": head + 1, "edits": [{"do": "add lane", "text": "k(x) = 1"}]}
        late = self.post(f"/sheets/{key}/edits", add, self.visitor, token)
        self.assertEqual(late.status_code, 422)
        self.assertIn("handed in", late.json["message"])
        self.assertEqual(self.ask(path, "answer", question="q2", text="1").status_code, 422)
        undo = self.post(f"/sheets/{key}/undo", {"base": head + 1}, self.visitor, token)
        self.assertEqual(undo.status_code, 422)
        self.assertIn("g(x) = x", self.visitor.get(path).text)  # it can be read
        sitting = re.search(r'name="sitting" value="([^"]+)"', self.answers(path).text)[1]
        self.assertIn("The time is over", self.act(path, "letin", sitting=sitting).text)
        self.assertEqual(self.act(path, "extend", sitting=sitting, minutes="10").status_code, 302)
        self.assertEqual(self.act(path, "letin", sitting=sitting).status_code, 302)
        again = self.post(
            f"/sheets/{key}/edits",
            {"base": head + 1, "edits": [{"do": "add lane", "text": "h(x) = 2"}]},
            self.visitor,
            token,
        )
        self.assertEqual(again.status_code, 200, again.text)
        kinds = [one["kind"] for one in self.visitor.get(f"{path}/record.json").json["entries"]]
        self.assertEqual(kinds[:3], ["entered", "changed", "handed in"])
        self.assertIn("late", kinds)
        self.assertEqual(kinds[-3:], ["more time", "let in", "changed"])
        self.assertIn("is from 1 to", self.act(path, "extend", minutes="9999").text)

    def test_the_archive_shows_whatever_is_changed(self):
        path = self.seal()
        self.enter(path, name="=Ada / 3")
        self.ask(path, "answer", question="q2", text="2")
        self.post(
            f"/h/{path.split('/')[-1]}/report", {"kind": "left"}, self.visitor, self.inside(path)[2]
        )
        copy = self.visitor.get(f"{path}/record.json").data
        archive = self.client.get(
            f"/sheet/{self.sheet['id']}/handouts/{path.split('/')[-1]}/records.zip"
        ).data
        found = verify(archive, [copy])
        self.assertEqual(found.wrong, [])
        with zipfile.ZipFile(io.BytesIO(archive)) as opened:
            files = {name: opened.read(name) for name in opened.namelist()}
        record = next(name for name in files if name.endswith("record.json"))
        self.assertIn(b"'=Ada / 3", files["answers.csv"])

        def changed(name, data):
            out = io.BytesIO()
            with zipfile.ZipFile(out, "w") as made:
                for one, body in files.items():
                    made.writestr(one, data if one == name else body)
            return verify(out.getvalue(), [copy]).wrong

        for name in files:
            if name != SEALS:
                self.assertTrue(changed(name, files[name] + b" "), name)
        told = json.loads(files[record])
        for k, entry in enumerate(told["entries"]):
            for part in ("at", "kind", "detail", "hash", "before"):
                forged = json.loads(files[record])
                forged["entries"][k][part] = entry[part][:-1] + (
                    "0" if entry[part][-1:] != "0" else "1"
                )
                self.assertTrue(changed(record, json.dumps(forged).encode()), (k, part))
            del forged["entries"][k]
            self.assertTrue(changed(record, json.dumps(forged).encode()))

    def test_a_record_made_anew_is_betrayed_by_the_students_copy(self):
        path = self.seal()
        self.enter(path)
        copy = self.visitor.get(f"{path}/record.json").data
        forged = [following(None, "2026-11-26T10:00:00.000+00:00", "entered", "Ada")]
        archive = record_archive("sheet", [Taken("Ada", None, [], forged)])
        self.assertEqual(verify(archive).wrong, [])
        self.assertIn("differ from entry 1", verify(archive, [copy]).wrong[0])

    def test_a_managing_device_reports_with_its_key(self):
        path = self.seal(device="on")
        self.enter(path)
        page = self.answers(path).text
        key = re.search(r"managing device: <code>([^<]+)", page)[1]
        sitting = re.search(r'name="sitting" value="([^"]+)"', page)[1]
        wanted = self.app.test_client().get(f"{path}/lock.json").json
        self.assertTrue(wanted["page"].endswith(path))

        def report(locked, at=None, secret=key, who=sitting):
            moment = int(time.time()) if at is None else at
            body = {
                "sitting": who,
                "locked": locked,
                "at": moment,
                "signature": signature(secret, who, locked, moment),
            }
            return self.app.test_client().post(f"{path}/lock", json=body).status_code

        self.assertEqual(report(True), 200)
        self.assertIn("· locked", self.answers(path).text)
        self.assertEqual(report(False), 200)
        self.assertIn("not locked", self.answers(path).text)
        self.assertEqual(report(True, secret="x" * 32), 422)
        self.assertEqual(report(True, at=1), 422)
        self.assertEqual(report(True, who="nobody"), 404)
        kinds = [one["kind"] for one in self.visitor.get(f"{path}/record.json").json["entries"]]
        self.assertEqual(kinds, ["entered", "locked", "unlocked"])

    def test_work_is_not_lost_with_the_account_of_whoever_handed_out(self):
        self.made("Quay Five")
        self.token = self.token_of(self.client)
        path = self.seal()
        self.enter(path)
        key, head, token = self.inside(path)
        body = {"base": head, "edits": [{"do": "add lane", "text": "g(x) = 7 x"}]}
        self.post(f"/sheets/{key}/edits", body, self.visitor, token)
        self.assertEqual(self.send("delete", passphrase=WORDS).status_code, 302)
        self.assertEqual(self.visitor.get(path).status_code, 404)
        self.assertEqual(self.shelf(self.visitor), [key])
        self.assertIn("g(x) = 7 x", self.visitor.get(f"/sheet/{key}").text)


del HandoutTest
