"""What a stranger may send: answered or refused with a sentence, never with an error of ours."""

import csv
import io
import json
import struct
import unittest

from werkzeug.test import EnvironBuilder, run_wsgi_app

from axispath.web.app import create_app
from axispath.web.assets import version
from tests.database import address
from tests.web.test_web import WebTest

FAR = {"left": 99990, "right": 100010, "bottom": -2, "top": 2}
LOW = {"left": -505, "right": -495, "bottom": -2, "top": 2}
AWKWARD = (
    ("sin(erf(x))", "√(erf(x))", "e^erf(x)"),
    ("gamma(gamma(x))", "gamma(x)"),
    ("√(sin x)", "arcsin(sin x)"),
    ("digamma(mod(2, x))", "x!"),
    ("tan(gamma(x))", "1/erf(x)"),
)
UNPRINTABLE = ("\x00", "\x01", "\x1b", "\x7f", "￾")


class Hostile(WebTest):
    def everything(self, found, view):
        """Every way to look at a sheet in a view."""
        look = {"head": found["head"], "view": view}
        key = found["id"]
        size = {"width": 400, "height": 300}
        yield self.post(f"/sheets/{key}/path", look)
        yield self.post(f"/sheets/{key}/path", {**look, "moving": True})
        yield self.post(f"/sheets/{key}/picture", {**look, **size})
        yield self.post(f"/sheets/{key}/exact", look)
        yield self.post(f"/sheets/{key}/reading", {"head": found["head"], "x": view["left"] + 5})
        yield self.post(f"/sheets/{key}/values", look)
        yield self.post(f"/sheets/{key}/frame", {"head": found["head"]})
        yield self.post(f"/sheets/{key}/landmarks.csv", look)
        yield self.post(f"/sheets/{key}/solve", {**look, "text": "f(x) = g(x)"})
        yield self.client.get(f"/sheet/{key}")

    def test_awkward_functions_never_take_the_sheet_down(self):
        for lines in AWKWARD:
            found = self.start(*lines)
            for view in (FAR, LOW):
                for answer in self.everything(found, view):
                    with self.subTest(lines, view=view, at=answer.request.path):
                        self.assertIn(answer.status_code, (200, 422), answer.data[:200])

    def test_trails_in_many_states_stop_when_the_time_is_up(self):
        heavy = [f"sum(sin(k x + a {c}) for k = 1 to 400)" for c in range(2)]
        found = self.start("a = 1", "a x", *heavy)
        slider, *drawn = (lane["id"] for lane in found["lanes"])
        for lane in drawn:
            edit = {"do": "set style", "id": lane, "style": {"trail": "curve"}}
            body = {"base": found["head"], "edits": [edit]}
            found = self.post(f"/sheets/{found['id']}/edits", body).json
        states = [[{"id": slider, "value": k / 50}] for k in range(60)]
        look = {"head": found["head"], "view": FAR, "width": 400, "height": 300, "states": states}
        answer = self.post(f"/sheets/{found['id']}/trails", look)
        self.assertEqual(answer.status_code, 200, answer.data[:200])
        (length,) = struct.unpack_from("<I", answer.data)
        head = json.loads(answer.data[4 : 4 + length])
        self.assertLessEqual(set(drawn[1:]), set(head["cut"]))
        self.assertIn(drawn[0], [lane["id"] for lane in head["lanes"]], "a quick lane has no trail")

    def test_signs_that_cannot_be_shown_are_refused_everywhere(self):
        found = self.start("x^2")
        lane = found["lanes"][0]["id"]
        for sign in UNPRINTABLE:
            text = f"a{sign}b"
            edits = (
                {"do": "rename", "name": text},
                {"do": "add lane", "text": text},
                {"do": "add lane", "text": text, "keep": True},
                {"do": "set note", "id": lane, "note": text},
            )
            for edit in edits:
                body = {"base": found["head"], "edits": [edit]}
                answer = self.post(f"/sheets/{found['id']}/edits", body)
                with self.subTest(edit):
                    self.assertEqual(answer.status_code, 422)
                    self.assertTrue(answer.json["message"])
            for path, body in (
                ("preview", {"text": text}),
                ("limits", {"left": text}),
                ("solve", {"text": text, "view": FAR}),
            ):
                answer = self.post(f"/sheets/{found['id']}/{path}", {"head": found["head"], **body})
                self.assertEqual(answer.status_code, 422, path)

    def test_numbers_of_revisions_that_no_sheet_has(self):
        found = self.start("x^2")
        for head in (2**31, 2**63, -1, 10**30, True, 1.5, "1", None):
            with self.subTest(head):
                for path, body in (
                    ("preview", {"head": head, "text": "x"}),
                    ("limits", {"head": head, "left": "1"}),
                    ("path", {"head": head, "view": FAR}),
                    ("edits", {"base": head, "edits": [{"do": "rename", "name": "n"}]}),
                    ("undo", {"base": head}),
                ):
                    answer = self.post(f"/sheets/{found['id']}/{path}", body)
                    self.assertIn(answer.status_code, (404, 409, 422), (path, head))

    def test_heads_of_columns_are_no_formulas_of_a_spreadsheet(self):
        found = self.start("x^2")
        table = {"columns": ["-f(x)", "+f(x)", "f(x)"], "by": "step"}
        body = {"base": found["head"], "edits": [{"do": "set table", "table": table}]}
        found = self.post(f"/sheets/{found['id']}/edits", body).json
        body = {"head": found["head"], "table": found["tables"][0]["id"]}
        text = self.post(f"/sheets/{found['id']}/values.text", body).text
        heads = next(csv.reader(io.StringIO(text)))
        self.assertEqual(heads[1:], ["'-f(x)", "'+f(x)", "f(x)"])

    def test_a_strange_host_is_not_repeated(self):
        for path in ("//evil.example/..", "//", "//shelf", "/\\\\evil.example"):
            environment = EnvironBuilder(path="/", headers={"Host": "evil.example"}).get_environ()
            environment["PATH_INFO"] = path
            _, _, headers = run_wsgi_app(self.app.wsgi_app, environment)
            with self.subTest(path):
                self.assertNotIn("Location", headers)

    def test_what_is_shared_carries_no_cookie_and_only_its_version_is_kept(self):
        self.start("x")
        now = self.client.get(f"/assets/{version()}/css/page.css")
        self.assertIn("immutable", now.headers["Cache-Control"])
        self.assertNotIn("Set-Cookie", now.headers)
        other = self.client.get("/assets/0123456789ab/css/page.css")
        self.assertEqual(other.headers["Cache-Control"], "no-cache")
        self.assertNotIn("Set-Cookie", other.headers)
        self.assertIn("Set-Cookie", self.client.get("/shelf").headers)

    def test_a_short_secret_is_refused(self):
        for secret in ("a", "tests", "x" * 31):
            with self.assertRaises(ValueError):
                create_app(address(), secret)

    def test_what_was_typed_is_not_logged_when_something_breaks(self):
        def broken():
            raise RuntimeError("typed by somebody")

        app = create_app(address(), "a secret for tests, and no other use")
        app.add_url_rule("/broken", view_func=broken)
        with self.assertLogs("axispath", "ERROR") as told:
            self.assertEqual(app.test_client().get("/broken").status_code, 500)
        app.extensions["store"].engine.dispose()
        self.assertIn("RuntimeError", told.output[0])
        self.assertIn("broken", told.output[0])
        self.assertNotIn("typed by somebody", "".join(told.output))


if __name__ == "__main__":
    unittest.main()
