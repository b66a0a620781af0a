"""Names that the application answers to."""

import os
import re
import unittest.mock
from pathlib import Path

from axispath.command.place import ROOT
from axispath.exchange.data.opened import LARGEST
from axispath.web import hosts
from axispath.web.app import create_app
from axispath.web.bodies import LARGER, MAX_REQUEST
from tests.case import Case
from tests.database import address
from tests.web.test_web import WebTest

NAMES = "sheets.quay.example .harbour.example"


class Hosts(WebTest):
    def setUp(self):
        super().setUp()
        with unittest.mock.patch.dict(os.environ, {hosts.SETTING: NAMES}):
            self.known = create_app(address(), "x" * 40).test_client()

    def get(self, path, host, **environ):
        headers = {"Host": host, **environ.pop("headers", {})}
        return self.known.get(path, headers=headers, environ_overrides=environ)

    def test_other_names_get_a_plain_refusal_before_anything_else(self):
        for host in ("evil.example", "sheets.quay.example.evil.example", "", "127.0.0.1:8127"):
            for path in ("/", "/account", "/api/sheets/blank", "/none", "//"):
                answer = self.get(path, host)
                self.assertEqual(answer.status_code, 400, (host, path))
                self.assertEqual(answer.data, hosts.REFUSAL)
                self.assertNotIn("Set-Cookie", answer.headers)

    def test_its_own_names_are_answered_to(self):
        for host in (
            "sheets.quay.example",
            "SHEETS.quay.example:443",
            "sheets.quay.example.",
            "a.harbour.example",
        ):
            self.assertEqual(self.get("/", host).status_code, 200, host)

    def test_who_watches_from_this_machine_may_use_any_name(self):
        self.assertIn(self.get("/health", "127.0.0.1:8127").status_code, (200, 503))
        far = self.get("/health", "127.0.0.1:8127", REMOTE_ADDR="203.0.113.9")
        self.assertEqual(far.status_code, 400)

    def test_without_a_setting_every_name_is_answered_to(self):
        self.assertEqual(self.client.get("/", headers={"Host": "any.example"}).status_code, 200)


class Proxies(Case):
    """What the ready-made files say, and what the application does."""

    def bytes_of(self, text):
        number, unit = re.fullmatch(r"(\d+)\s*(k|m|KB|MB)", text).groups()
        return int(number) * (1000 if unit in ("k", "KB") else 1_000_000)

    def test_sizes_are_those_of_the_application(self):
        nginx = Path(ROOT / "docs/deploy/nginx.conf").read_text()
        caddy = Path(ROOT / "docs/deploy/Caddyfile").read_text()
        for found in (
            re.findall(r"client_max_body_size (\S+);", nginx),
            re.findall(r"max_size (\S+)", caddy)[::-1],
        ):
            usual, files = (self.bytes_of(one) for one in found)
            self.assertGreaterEqual(usual, MAX_REQUEST)
            self.assertGreaterEqual(files, max(LARGEST, *LARGER.values()))
        self.assertIn("proxy_set_header Host $host", nginx)


del WebTest
