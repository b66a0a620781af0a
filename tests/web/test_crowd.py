"""One network that fills a process with requests, and everybody else."""

import threading
import unittest

from axispath.web.crowd import only_some
from tests.case import Case


class Crowd(Case):
    def setUp(self):
        self.go, self.inside = threading.Event(), threading.Semaphore(0)
        self.app = only_some(self.slow, most=3)

    def slow(self, environ, start):
        self.inside.release()
        if environ.get("PATH_INFO") == "/slow":
            self.go.wait(60)
        if environ.get("PATH_INFO") == "/broken":
            raise RuntimeError
        start("200 OK", [])
        return [b"done"]

    def ask(self, address, path="/"):
        told = []
        body = self.app(
            {"REMOTE_ADDR": address, "PATH_INFO": path}, lambda status, heads: told.append(status)
        )
        return told[0][:3], b"".join(body)

    def test_the_rest_of_a_network_is_refused_at_once_and_others_are_not(self):
        threads = [
            threading.Thread(target=self.ask, args=(f"2001:db8:1:2::{k}", "/slow"))
            for k in range(3)
        ]
        for thread in threads:
            thread.start()
        for _ in threads:
            self.assertTrue(self.inside.acquire(timeout=60))
        self.assertEqual(self.ask("2001:db8:1:2::9")[0], "429")
        self.assertEqual(self.ask("2001:db8:1:3::9")[0], "200")
        self.assertEqual(self.ask("192.0.2.1")[0], "200")
        self.go.set()
        for thread in threads:
            thread.join()
        self.assertEqual(self.ask("2001:db8:1:2::9")[0], "200")

    def test_what_fails_makes_room_again(self):
        for _ in range(10):
            with self.assertRaises(RuntimeError):
                self.ask("192.0.2.1", "/broken")
        self.assertEqual(self.ask("192.0.2.1"), ("200", b"done"))


if __name__ == "__main__":
    unittest.main()
