"""Letters handed to a mail server: a small one that takes what it is given."""

import os
import socketserver
import threading
import time
import unittest
import unittest.mock
from email import message_from_bytes, policy

from axispath import letters
from tests.case import Case


class Taking(socketserver.StreamRequestHandler):
    """A conversation of SMTP (RFC 5321) with somebody who sends one letter."""

    def handle(self):
        self.say("220 stand-in")
        while line := self.rfile.readline().decode().strip():
            word = line.partition(" ")[0].upper()
            if word == "DATA":
                self.say("354 go on")
                self.server.taken.append(self.letter())
            self.say("221 bye" if word == "QUIT" else "250 fine")
            if word == "QUIT":
                return

    def letter(self):
        lines = []
        while (line := self.rfile.readline()) != b".\r\n":
            lines.append(line)
        return b"".join(lines)

    def say(self, text):
        self.wfile.write(f"{text}\r\n".encode())


class Letters(Case):
    def send(self, where):
        with unittest.mock.patch.dict(
            os.environ, {"AXISPATH_LETTERS": where, "AXISPATH_HOSTS": "quay.example"}
        ):
            self.assertTrue(letters.configured())
            letters.send("ten@quay.example", "A new passphrase", "Within an hour: here.\n")

    def test_a_letter_reaches_the_server(self):
        with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Taking) as server:
            server.taken = []
            threading.Thread(target=server.serve_forever, daemon=True).start()
            self.addCleanup(server.shutdown)
            self.send(f"smtp://127.0.0.1:{server.server_address[1]}")
            until = time.monotonic() + 60
            while not server.taken and time.monotonic() < until:
                time.sleep(0.02)
            (data,) = server.taken
            found = message_from_bytes(data, policy=policy.default)
            self.assertEqual(
                (found["To"], found["Subject"]), ("ten@quay.example", "A new passphrase")
            )
            self.assertEqual(found.get_content().strip(), "Within an hour: here.")
            server.shutdown()

    def test_a_server_that_is_not_there_is_logged_without_the_address(self):
        told = threading.Event()
        with unittest.mock.patch.object(letters.log, "error") as logged:
            logged.side_effect = lambda *_: told.set()
            self.send("smtp://127.0.0.1:9")
            self.assertTrue(told.wait(60))
        self.assertNotIn("quay", str(logged.call_args))

    def test_without_a_place_there_are_none(self):
        with unittest.mock.patch.dict(os.environ, clear=True):
            self.assertFalse(letters.configured())
        # Nor where the link would carry whatever host was asked for.
        with unittest.mock.patch.dict(os.environ, {"AXISPATH_LETTERS": "/tmp"}, clear=True):
            self.assertFalse(letters.configured())
