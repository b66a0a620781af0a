"""Whatever is sent to whatever address: an answer or a refusal, never an error of ours."""

import copy
import os
import unittest

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.web import test_sealed
from tests.web.test_web import WebTest

VIEW = {"left": -5, "right": 5, "bottom": -4, "top": 4}
SIZE = {"width": 200, "height": 150}
EQUATION = {"text": "f(x) = 1", "unknown": "x", "low": "-2", "high": "∞"}
TABLE = {
    "id": "table1",
    "by": "step",
    "start": "0",
    "stop": "3",
    "step": "1/2",
    "finer": [["0", "1"]],
    "columns": ["f(x)", "x^2"],
}
STYLE = {"thickness": "thin", "dash": "dots", "markers": "discs"}
EDITS = (
    {"do": "add lane", "text": "g(x) = a x"},
    {"do": "revise lane", "id": "LANE", "text": "f(x) = x^3"},
    {"do": "remove lane", "id": "LANE"},
    {"do": "set domain", "id": "LANE", "low": "-1", "high": "π"},
    {"do": "slide", "id": "LANE", "value": 2},
    {"do": "set slider", "id": "LANE", "slider": {"low": "0", "high": "5", "step": "1"}},
    {"do": "move lane", "id": "LANE", "to": 0},
    {"do": "set note", "id": "LANE", "note": "a note"},
    {"do": "set style", "id": "LANE", "style": STYLE},
    {"do": "set samples", "id": "LANE", "samples": {"by": "count", "size": "20"}},
    {"do": "set unit", "unit": "degrees"},
    {"do": "rename", "name": "Tides"},
    {"do": "set table", "table": TABLE},
)
LOOK = {"head": 1, "view": VIEW}
LOOKS = (
    ("picture", {**LOOK, **SIZE, "patient": False, "only": []}),
    ("trails", {**LOOK, **SIZE, "states": [[{"id": "LANE", "value": 1.5}]]}),
    ("path", {**LOOK, "low": "-1", "high": "2", "page": True}),
    ("path", {**LOOK, "moving": True, "page": False}),
    ("landmarks.csv", {**LOOK, "low": "", "high": ""}),
    ("exact", LOOK),
    ("reading", {"head": 1, "x": 0.5, "typed": "π/4", "held": 2, "tangent": "LANE"}),
    ("values", {"head": 1, "table": "table1", "first": 0, "count": 20, "near": 1.5}),
    ("values.text", {"head": 1, "preview": [{"do": "set table", "table": TABLE}]}),
    ("values/finer", {"head": 1, "row": 2}),
    ("values/points", {"head": 1}),
    ("preview", {"head": 1, "text": "h(x) = sin(x"}),
    ("frame", {"head": 1, "lane": "LANE"}),
    ("limits", {"head": 1, "left": "-π", "right": "2", "bottom": "0", "top": "1"}),
    ("solve", {**LOOK, **EQUATION}),
    ("solve/exact", {**LOOK, **EQUATION}),
    ("method", {**LOOK, **EQUATION, "method": "newton", "start": "1", "second": "2"}),
)
ODD = st.one_of(
    st.none(),
    st.booleans(),
    st.sampled_from([0, -1, 2**31, 2**63, 10**400, 1e308, -1e-308, 0.1]),
    st.sampled_from(["", "LANE", "table1", "x", "1e10000000", "[1, 2]", "(" * 90, "a" * 5000]),
    st.sampled_from(["gamma(gamma(x))", "1/0", "x!!", "sum(k for k = 1 to 9^9)", "√-1", "\ud7ff٣"]),
    st.text(max_size=12),
    st.integers(),
    st.floats(),
    st.lists(st.integers(-3, 3), max_size=3),
    st.dictionaries(st.sampled_from(["do", "id", "text"]), st.text(max_size=3), max_size=2),
)


def places(value, way=()):
    """All ways to something inside a body."""
    yield way
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from places(inner, (*way, key))
    elif isinstance(value, list):
        for k, inner in enumerate(value):
            yield from places(inner, (*way, k))


@st.composite
def changed(draw, body):
    """A body with one or two places that hold something odd, or nothing, or something more."""
    body = copy.deepcopy(body)
    for _ in range(draw(st.integers(1, 2))):
        ways = [way for way in places(body) if way]
        if not ways:
            return draw(ODD)
        *way, last = draw(st.sampled_from(ways))
        inner = body
        for key in way:
            inner = inner[key]
        what = draw(st.sampled_from(["odd", "odd", "odd", "away", "more"]))
        if what == "away":
            del inner[last]
        elif what == "more" and isinstance(inner, dict):
            inner[draw(st.text(max_size=5))] = draw(ODD)
        else:
            inner[last] = draw(ODD)
    return body


def named(body, lane):
    """With the id of a lane that there is."""
    if isinstance(body, dict):
        return {key: named(value, lane) for key, value in body.items()}
    if isinstance(body, list):
        return [named(value, lane) for value in body]
    return lane if body == "LANE" else body


FUZZED = settings(
    max_examples=int(os.environ.get("AXISPATH_EXAMPLES", "300")),
    deadline=None,
    suppress_health_check=list(HealthCheck),
    print_blob=False,
)


class Fuzzed(WebTest):
    def setUp(self):
        super().setUp()
        self.sheet = self.start("f(x) = x^2 - a", "a = 1")
        self.lanes = [lane["id"] for lane in self.sheet["lanes"]]

    def check(self, path, body):
        self.app.extensions["broker"].counts.rates.clear()  # how often is not the question here
        answer = self.post(path, body)
        told = answer.get_data()[:200]
        self.assertIn(answer.status_code, (200, 404, 409, 413, 422), (path, body, told))
        if answer.status_code != 200:
            self.assertTrue(answer.json["message"])

    def test_looks(self):
        @FUZZED
        @given(st.data())
        def every(data):
            name, usual = data.draw(st.sampled_from(LOOKS))
            body = named(data.draw(changed(usual)), data.draw(st.sampled_from(self.lanes)))
            if isinstance(body, dict) and body.get("head") == 1:
                body["head"] = self.sheet["head"]
            self.check(f"/sheets/{self.sheet['id']}/{name}", body)

        every()

    def test_edits(self):
        @FUZZED
        @given(st.data())
        def every(data):
            edit = data.draw(changed(data.draw(st.sampled_from(EDITS))))
            body = {"source": "blank", "edits": [{"do": "add lane", "text": "a = 1"}, edit]}
            lane = data.draw(st.sampled_from(self.lanes))
            base = {"base": self.sheet["head"], "edits": [named(edit, lane)]}
            self.check(f"/sheets/{self.sheet['id']}/preview", {"head": 1, "text": str(edit)[:900]})
            self.check("/sheets", data.draw(changed(body)))
            self.check(f"/sheets/{self.sheet['id']}/branch", base)
            looked = {"head": self.sheet["head"], "view": VIEW, "preview": base["edits"]}
            self.check(f"/sheets/{self.sheet['id']}/path", looked)

        every()

    def routes(self):
        """Every route about a sheet that takes something, and what a page would send to it."""
        for rule in self.app.url_map.iter_rules():
            name = next((one for one in ("<key>", "<sheet_id>") if one in rule.rule), None)
            body = test_sealed.BODIES.get(rule.endpoint)
            if name and body is not None and rule.rule.startswith("/api/"):
                (method,) = rule.methods - {"HEAD", "OPTIONS", "GET"}
                path = rule.rule.replace("<any(undo, redo):direction>", "undo")
                yield rule.endpoint, method, path.removeprefix("/api").replace(name, "KEY"), body

    def test_every_route(self):
        every_kind = ("h(x, y) = a x y", "x^2 + y^2 = a", "P = (a, 1)", "(a cos t, sin t)", "y < a")
        sheet = self.start("f(x) = x^2 - a", "a = 1", *every_kind)
        lanes = [lane["id"] for lane in sheet["lanes"]]
        routes = [*self.routes()]

        @FUZZED
        @given(st.data())
        def every(data):
            endpoint, method, path, usual = data.draw(st.sampled_from(routes))
            lane = data.draw(st.sampled_from(lanes))
            usual = {k: lane if v == "lane1" else v for k, v in usual.items()}
            if "base" not in usual and endpoint != "api.look":
                usual = {"head": sheet["head"], "view": VIEW, **usual}
            if "states" in usual:
                usual["states"] = [[{"id": lanes[1], "value": 2.5}]]
            body = named(data.draw(changed(usual)), lane)
            self.app.extensions["broker"].counts.rates.clear()
            answer = self.post(path.replace("KEY", sheet["id"]), body, method=method)
            told = answer.get_data()[:200]
            known = (200, 202, 404, 409, 413, 422)
            self.assertIn(answer.status_code, known, (endpoint, body, told))

        every()

    def test_pages_with_odd_numbers_and_forms(self):
        key = self.sheet["id"]
        odd = ("", "-1", "0", "1", "2147483648", "9" * 400, "1e5", "nan", "\x00", "٣", "a", "1;2")

        @FUZZED
        @given(st.data())
        def every(data):
            one, other = data.draw(st.sampled_from(odd)), data.draw(st.sampled_from(odd))
            what = data.draw(st.sampled_from(range(6)))
            form = {"csrf_token": self.token}
            self.app.extensions["broker"].counts.rates.clear()
            if what == 0:
                answer = self.client.get(f"/sheet/{key}/history", query_string={"before": one})
            elif what == 1:
                both = {"from": one, "to": other}
                answer = self.client.get(f"/sheet/{key}/history", query_string=both)
            elif what == 2:
                answer = self.client.get(f"/sheet/{key}/picture/{one[:30] or 0}.png")
            elif what == 3:
                form |= {"sheet": [key, other], "label": one + data.draw(st.text(max_size=9))}
                answer = self.client.post("/shelf/chosen/label", data=form)
            elif what == 4:
                form |= {"base": one, "name": other}
                answer = self.client.post(f"/sheet/{key}/history/1/name", data=form)
            else:
                form |= {"which": "all", "sealed": "on", "minutes": one[:9], "word": other}
                form["begins"] = data.draw(st.sampled_from(["", one, "9999-12-31T23:59"]))
                answer = self.client.post(f"/sheet/{key}/handouts", data=form)
            self.assertLess(answer.status_code, 500, (what, one, other))

        every()

    def test_every_usual_body_is_answered(self):
        for name, usual in LOOKS:
            body = named({**usual, "head": self.sheet["head"]}, self.lanes[0])
            with self.subTest(name):
                answer = self.post(f"/sheets/{self.sheet['id']}/{name}", body)
                self.assertEqual(answer.status_code, 200, answer.get_data()[:200])


if __name__ == "__main__":
    unittest.main()
