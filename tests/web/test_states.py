"""Pictures and landmarks of states that are going to show, and what a page comes with."""

import base64
import re
import struct
import unittest.mock

import orjson

from axispath.web import inside
from tests.web.test_web import WebTest

VIEW = {"left": -5, "right": 5, "bottom": -4, "top": 4}
SIZE = {"width": 300, "height": 200}


def unpacked(data):
    (length,) = struct.unpack_from("<I", data)
    return orjson.loads(data[4 : 4 + length]), data[4 + length :]


class States(WebTest):
    def setUp(self):
        super().setUp()
        self.found = self.start("a = 1", "a x^2 - 1", "2x")
        self.slider, self.moving, self.still = (lane["id"] for lane in self.found["lanes"])

    def ask(self, what, values, lane=None, **more):
        states = [[{"do": "slide", "id": lane or self.slider, "value": v}] for v in values]
        body = {"head": self.found["head"], "view": VIEW, "states": states, **more}
        return self.post(f"/sheets/{self.found['id']}/{what}", body)

    def numbers(self, data, shape):
        start, count = shape["at"]
        return data[4 * start : 4 * (start + count)]

    def test_each_picture_is_that_of_its_state(self):
        head, data = unpacked(self.ask("frames", [1, 2, -0.5], **SIZE).data)
        self.assertEqual([lane["id"] for lane in head["lanes"]], [self.still])
        for value, frame in zip((1, 2, -0.5), head["frames"], strict=True):
            (lane,) = frame["lanes"]
            self.assertEqual(lane["id"], self.moving)
            edit = {"do": "slide", "id": self.slider, "value": value}
            body = {"head": self.found["head"], "view": VIEW, **SIZE, "preview": [edit]}
            alone, own = unpacked(self.post(f"/sheets/{self.found['id']}/picture", body).data)
            (same,) = [one for one in alone["lanes"] if one["id"] == self.moving]
            mine, theirs = lane["shapes"][-1], same["shapes"][-1]
            self.assertEqual(self.numbers(data, mine), self.numbers(own, theirs))

    def test_landmarks_of_each_state(self):
        states = self.ask("marks", [1, 4]).json["states"]
        for value, state in zip((1, 4), states, strict=True):
            (lane,) = [one for one in state["lanes"] if one["id"] == self.moving]
            zeros = [x for kind, x, *_ in lane["landmarks"] if kind == "zero"]
            self.assertEqual(zeros, [-(value**-0.5), value**-0.5])
            (met,) = state["crossings"]
            self.assertEqual(len(met["landmarks"]), 2)

    def test_what_makes_no_sense_is_refused(self):
        for what, more in (("frames", SIZE), ("marks", {})):
            self.assertEqual(self.ask(what, [], **more).status_code, 422)
            self.assertEqual(self.ask(what, [1] * 65, **more).status_code, 422)
            self.assertEqual(self.ask(what, [1e300], **more).status_code, 422)
            gone = self.ask(what, [1], lane="gone", **more)
            self.assertIn(gone.status_code, (200, 422))
            wrong = self.ask(what, [1], lane=self.moving, **more)
            self.assertIn(wrong.status_code, (200, 422))

    def page(self):
        text = self.client.get(f"/sheet/{self.found['id']}").get_data(as_text=True)
        found = re.search(r'<script id="first-picture" type="text/plain">([^<]*)</script>', text)
        return base64.b64decode(found[1])

    def test_a_page_comes_with_its_curves(self):
        head, _ = unpacked(self.page())
        self.assertEqual({lane["id"] for lane in head["lanes"]}, {self.moving, self.still})
        self.assertEqual(head["view"]["left"], self.found["view"]["left"])

    def test_a_page_carries_no_more_than_it_should(self):
        for name, most in (("MOST_AT_ONCE", 1), ("LARGEST_AT_ONCE", 100)):
            with unittest.mock.patch.object(inside, name, most):
                self.assertEqual(self.page(), b"")

    def test_scripts_are_packed_once_and_asked_for_at_once(self):
        page = self.client.get("/").get_data(as_text=True)
        wanted = re.findall(r'<link rel="modulepreload" href="([^"]+)"', page)
        self.assertTrue(any(one.endswith("js/sheet/ahead.js") for one in wanted))
        self.assertEqual(len(wanted), len(set(wanted)))
        plain = self.client.get(wanted[0]).data
        for how in ("gzip", "br"):
            packed = self.client.get(wanted[0], headers={"Accept-Encoding": how})
            self.assertEqual(packed.headers["Content-Encoding"], how)
            self.assertLess(len(packed.data), len(plain))
            self.assertIn("Accept-Encoding", packed.headers["Vary"])
