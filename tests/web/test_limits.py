"""Who asks too often is told so, with when it goes on; others are not."""

import unittest.mock

from axispath.web import limits
from axispath.web.app import create_app
from tests.database import address
from tests.web.test_web import WebTest


class Limits(WebTest):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        with (
            unittest.mock.patch.object(limits, "EACH", "20 per minute"),
            unittest.mock.patch.object(limits, "ADDRESS", "60 per minute"),
            unittest.mock.patch.object(limits, "NEW", "5 per minute"),
            unittest.mock.patch.object(limits, "SHEETS", "3 per minute"),
            unittest.mock.patch.object(limits, "PASSPHRASES", "4 per minute"),
        ):
            cls.app = create_app(address(), "a secret for tests, and no other use")
        cls.addClassCleanup(cls.app.extensions["store"].engine.dispose)

    def setUp(self):
        self.app.extensions["broker"].counts.rates.clear()
        super().setUp()

    def other(self, at="10.0.0.9"):
        client = self.app.test_client()
        client.environ_base["REMOTE_ADDR"] = at
        return client, self.token_of(client)

    def begin(self, client, token):
        edits = [{"do": "add lane", "text": "x"}]
        return self.post("/sheets", {"source": "blank", "edits": edits}, client, token).status_code

    def test_one_guest(self):
        self.start("x")
        found = [self.client.get("/shelf").status_code for _ in range(25)]
        self.assertEqual(sorted(set(found)), [200, 429])
        refused = self.client.get("/shelf")
        self.assertIn("too often", refused.text)
        self.assertTrue(1 <= int(refused.headers["Retry-After"]) <= 60)
        client, _ = self.other()
        self.assertEqual(client.get("/shelf").status_code, 200)
        self.assertEqual(self.client.get("/health").status_code, 200)

    def test_one_address(self):
        for _ in range(20):
            client, _ = self.other()
            client.get("/shelf")
            client.get("/shelf")
        self.assertEqual(client.get("/shelf").status_code, 429)
        client, _ = self.other("10.0.0.10")
        self.assertEqual(client.get("/shelf").status_code, 200)

    def test_new_guests_of_an_address(self):
        found = [self.begin(*self.other()) for _ in range(7)]
        self.assertEqual(found, [200] * 5 + [429] * 2)
        self.assertEqual(self.begin(*self.other("10.0.0.10")), 200)

    def test_new_sheets_of_a_guest(self):
        client, token = self.other()
        # The first was that of a browser that nobody knew yet.
        found = [self.begin(client, token) for _ in range(5)]
        self.assertEqual(found, [200] * 4 + [429])

    def test_passphrases_from_one_address(self):
        found = []
        for k in range(6):
            client, token = self.other()
            data = {"csrf_token": token, "name": f"nobody {k}", "passphrase": "whatever it is"}
            found.append(client.post("/account/enter", data=data).status_code)
        self.assertEqual(found, [422] * 4 + [429] * 2)

    def test_without_its_broker_a_page_is_still_there(self):
        broker = self.app.extensions["broker"]
        with unittest.mock.patch.object(broker, "tell", side_effect=OSError):
            self.assertEqual(self.client.get("/shelf").status_code, 200)
