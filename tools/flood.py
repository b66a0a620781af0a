"""One address that does its worst, and what another person has to wait for.

    sudo .venv/bin/python tools/flood.py [TOKENS] [SECONDS]

The application runs as ``serve`` runs it. From 127.0.0.2 come so many visitors without a person,
each asking for what takes longest without a pause; from 127.0.0.1 comes one person, who opens the
page, asks for pictures, changes the sheet, calculates and has a file made. Printed are the times of
that person on an idle machine and beside the others, in milliseconds.
"""

from __future__ import annotations

import http.client
import json
import multiprocessing
import os
import re
import secrets
import signal
import statistics
import sys
import tempfile
import threading
import time
from collections import Counter
from collections.abc import Callable
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from axispath.command.cluster import running_cluster  # noqa: E402
from axispath.command.place import free_port, scratch  # noqa: E402
from axispath.command.serving import migrate, web_programs  # noqa: E402

VIEW = {"left": -10, "right": 10, "bottom": -7, "top": 7}
SIZE = {"width": 4000, "height": 4000}
HEAVY = [f"sum(sin(k x + {c}) for k = 1 to 1150)" for c in range(4)]
STEPS = ("page", "picture", "change", "calculation", "errand")
ATTACK, PERSON = "127.0.0.2", "127.0.0.1"


class Visitor:
    """A browser's part: a cookie and a token; asks from an address of its own."""

    def __init__(self, port: int, address: str) -> None:
        self.line = http.client.HTTPConnection(
            "127.0.0.1", port, timeout=60, source_address=(address, 0)
        )
        self.cookies: dict[str, str] = {}
        self.token = re.search(r'csrf-token" content="([^"]+)', self.ask("GET", "/")[1])[1]

    def ask(self, method: str, path: str, body: Any = None, **heads: str) -> tuple[int, str]:
        """The status and the text of an answer; status 0 for a line that broke."""
        head = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()), **heads}
        if body is not None:
            head |= {"Content-Type": "application/json", "X-CSRFToken": self.token}
        try:
            self.line.request(method, path, json.dumps(body) if body is not None else None, head)
            answer = self.line.getresponse()
            data = answer.read()
        except (OSError, http.client.HTTPException):
            self.line.close()
            return 0, ""
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.partition(";")[0]
        return answer.status, data.decode("latin-1")

    def until(self, *asked: Any, **heads: str) -> tuple[int, str]:
        """The same, asked again as a page does while there is too much to do."""
        while True:
            status, text = self.ask(*asked, **heads)
            if status not in (0, 429, 503):
                return status, text
            time.sleep(0.25)


def attack(port: int, tokens: int) -> None:
    """All of the attack, in a process that takes nothing of the machine that others want."""
    os.nice(19)
    stop, told = threading.Event(), Counter[int]()
    signal.signal(signal.SIGTERM, lambda *_: stop.set())
    threads = [threading.Thread(target=asking, args=(port, stop, told)) for _ in range(tokens)]
    for thread in threads:
        thread.start()
        time.sleep(0.01)
    for thread in threads:
        while thread.is_alive():
            thread.join(0.2)
    print(f"{tokens} tokens were answered {dict(told)}", flush=True)


def asking(port: int, stop: threading.Event, told: Counter[int]) -> None:
    """Ask for what takes longest, again and again."""
    try:
        visitor = Visitor(port, ATTACK)
    except (OSError, TypeError, http.client.HTTPException):
        return
    lanes = [{"do": "add lane", "text": line} for line in HEAVY]
    look = {"head": 0, "view": VIEW, "preview": lanes}
    prefer = {"Prefer": "respond-async"}
    while not stop.is_set():
        for path, body, heads in (
            ("path", {**look, "longer": True}, {}),
            ("picture", {**look, **SIZE}, {}),
            ("export", {**look, "format": "paper"}, prefer),
            ("solve", {**look, "text": f"sin(1/x) = {secrets.randbelow(99)}/100"}, {}),
        ):
            status, _ = visitor.ask("POST", f"/api/sheets/blank/{path}", body, **heads)
            told[status] += 1
            if stop.is_set():
                return


class Person:
    """Somebody who works."""

    def __init__(self, port: int) -> None:
        self.visitor = Visitor(port, PERSON)
        edits = [{"do": "add lane", "text": text} for text in ("f(x) = x^2 - 2", "a = 1")]
        status, text = self.visitor.until(
            "POST", "/api/sheets", {"source": "blank", "edits": edits}
        )
        assert status == 200, text
        self.sheet = json.loads(text)
        self.count = 0

    @property
    def at(self) -> str:
        """Where the sheet is in the API."""
        return f"/api/sheets/{self.sheet['id']}"

    def look(self) -> dict[str, Any]:
        """A look that nobody had before."""
        self.count += 1
        return {"head": self.sheet["head"], "view": {**VIEW, "left": -10 - self.count / 100}}

    def page(self) -> None:
        """Open the sheet."""
        self.visitor.until("GET", f"/sheet/{self.sheet['id']}")

    def picture(self) -> None:
        """Move the view."""
        body = {**self.look(), "width": 700, "height": 500}
        self.visitor.until("POST", f"{self.at}/picture", body)

    def change(self) -> None:
        """Change a note."""
        note = {"do": "set note", "id": self.sheet["lanes"][0]["id"], "note": str(self.count)}
        body = {"base": self.sheet["head"], "edits": [note], "change": secrets.token_hex(16)}
        status, text = self.visitor.until("POST", f"{self.at}/edits", body)
        assert status == 200, text
        self.sheet = json.loads(text)

    def calculation(self) -> None:
        """Have lines worked out that nobody worked out before."""
        add = [{"do": "add work", "text": f"sin({self.count}) + 1"}]
        body = {"head": self.sheet["head"], "preview": add}
        self.visitor.until("POST", f"{self.at}/working", body)

    def errand(self) -> None:
        """Have a file made."""
        body = {**self.look(), "format": "script"}
        prefer = {"Prefer": "respond-async"}
        status, text = self.visitor.until("POST", f"{self.at}/export", body, **prefer)
        assert status == 202, text
        where = f"/api/errands/{json.loads(text)['errand']}"
        while json.loads(self.visitor.until("GET", where)[1])["state"] in ("waiting", "working"):
            time.sleep(0.1)


def measured(person: Person, seconds: float) -> dict[str, list[float]]:
    """How long each of a person's steps took, again and again for a while."""
    found: dict[str, list[float]] = {name: [] for name in STEPS}
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        for name in STEPS:
            step: Callable[[], None] = getattr(person, name)
            begun = time.monotonic()
            step()
            found[name].append((time.monotonic() - begun) * 1000)
            time.sleep(0.05)
    return found


def main(tokens: int = 200, seconds: float = 30.0) -> None:
    """Print the figures."""
    with (
        tempfile.TemporaryDirectory(prefix="axispath-flood-", dir=scratch()) as made,
        running_cluster(Path(made)) as own,
    ):
        migrate(own.address)
        port = free_port()
        folder = Path(made) / "run"
        folder.mkdir()
        programs = web_programs(folder, own.address, "s" * 40, "127.0.0.1", port)
        for program in programs:
            program.start()
        try:
            while True:
                try:
                    person = Person(port)
                    break
                except (OSError, TypeError, http.client.HTTPException):
                    time.sleep(0.2)
            measured(person, 5)
            idle = measured(person, seconds)
            attacker = multiprocessing.get_context("spawn").Process(
                target=attack, args=(port, tokens)
            )
            attacker.start()
            time.sleep(8)
            beside = measured(person, seconds)
            attacker.terminate()
            attacker.join(90)
            for name in STEPS:
                one, other = idle[name], beside[name]
                print(
                    f"{name:12} idle {statistics.median(one):7.0f} (worst {max(one):7.0f})   "
                    f"beside {statistics.median(other):7.0f} (worst {max(other):7.0f})   "
                    f"longer by {statistics.median(other) - statistics.median(one):7.0f} ms, "
                    f"{len(other)} times"
                )
        finally:
            for program in reversed(programs):
                program.stop()


if __name__ == "__main__":
    main(*(int(one) for one in sys.argv[1:]))
