"""Many people at once: who opens sheets, who drags, who asks for landmarks, and what they get.

Each guest is a thread of this process with a connection of its own, so that a part of what is
measured is the measuring. Figures are quoted beside one person's, on the same machine.
"""

from __future__ import annotations

import http.client
import json
import os
import re
import statistics
import tempfile
import threading
import time
from collections import Counter
from collections.abc import Callable
from pathlib import Path

from axispath.command.cluster import running_cluster
from axispath.command.place import free_port, scratch
from axispath.command.serving import migrate, web_programs

SECONDS = 20
PEOPLE = (1, 10, 50)
LINES = ("a = 1", "a sin(x)", "x^3 - 3x", "1/(x - a)", "e^(-x^2)", "f(x) + g(x)")
VIEW = {"left": -5, "right": 5, "bottom": -4, "top": 4}
PICTURES = 10  # a second, of one who drags


class Guest:
    """One person with a browser: a kept connection, a cookie, a token and a sheet."""

    def __init__(self, port: int, host: str = "127.0.0.1") -> None:
        self.line = http.client.HTTPConnection(host, port, timeout=60)
        self.cookie = ""
        page = self.ask("GET", "/")[1].decode()
        found = re.search(r'csrf-token" content="([^"]+)', page)
        assert found
        self.token = found[1]
        edits = [{"do": "add lane", "text": line} for line in LINES]
        status, data = self.ask("POST", "/api/sheets", {"source": "blank", "edits": edits})
        assert status == 200, data[:200]
        self.sheet = json.loads(data)

    def ask(self, method: str, path: str, body: object = None) -> tuple[int, bytes]:
        """One request; 429 is waited for as the page does."""
        head = {"Cookie": self.cookie, "Content-Type": "application/json"}
        if body is not None:
            head["X-CSRFToken"] = getattr(self, "token", "")
        data = None if body is None else json.dumps(body)
        self.line.request(method, path, data, head)
        answer = self.line.getresponse()
        found = answer.read()
        if answer.headers.get("Set-Cookie"):
            self.cookie = answer.headers["Set-Cookie"].partition(";")[0]
        return answer.status, found

    def look(self, what: str, more: dict[str, object]) -> tuple[int, bytes]:
        """A look at the sheet."""
        body = {"head": self.sheet["head"], "view": VIEW, **more}
        return self.ask("POST", f"/api/sheets/{self.sheet['id']}/{what}", body)


def drag(guest: Guest, k: int) -> tuple[int, str]:
    """A picture of a moved slider."""
    slide = {"do": "slide", "id": guest.sheet["lanes"][0]["id"], "value": 1 + k / 997}
    status, _ = guest.look("picture", {"width": 700, "height": 500, "preview": [slide]})
    return status, ""


def open_page(guest: Guest, k: int) -> tuple[int, str]:
    """The page of the sheet."""
    return guest.ask("GET", f"/sheet/{guest.sheet['id']}")[0], ""


def search(guest: Guest, k: int) -> tuple[int, str]:
    """The paths of curves that nobody looked at before."""
    slide = {"do": "slide", "id": guest.sheet["lanes"][0]["id"], "value": 1 + k / 9973}
    status, data = guest.look("path", {"preview": [slide]})
    if status != 200:
        return status, ""
    return status, "not settled" if json.loads(data)["goesOn"] else "settled"


Act = Callable[[Guest, int], tuple[int, str]]
ACTS: tuple[tuple[str, Act, float], ...] = (
    ("opening a sheet", open_page, 0.0),
    ("dragging", drag, 1 / PICTURES),
    ("landmarks", search, 0.0),
)


def report() -> None:
    """Print what people get, by how many they are."""
    with (
        tempfile.TemporaryDirectory(prefix="axispath-bench-", dir=scratch()) as folder,
        running_cluster(Path(folder), lasting=False) as own,
    ):
        migrate(own.address)
        port = free_port()
        os.environ["AXISPATH_EXACT"] = "0"
        programs = web_programs(Path(folder), own.address, "x" * 40, "127.0.0.1", port)
        for program in programs:
            program.start()
        try:
            _wait(port)
            print(f"{os.cpu_count()} cores; the measuring takes its part of them")
            for people in PEOPLE:
                guests = [Guest(port) for _ in range(people)]
                for name, act, pause in ACTS:
                    _measure(name, guests, act, pause)
            resident = sum(_resident(program.process.pid) for program in programs)  # type: ignore[union-attr]
            print(f"memory, shared pages counted once: {resident >> 20} MB")
        finally:
            for program in reversed(programs):
                program.stop()


def _wait(port: int) -> None:
    for _ in range(600):
        try:
            line = http.client.HTTPConnection("127.0.0.1", port, timeout=5)
            line.request("GET", "/health")
            if line.getresponse().status == 200:
                return
        except OSError:
            pass
        time.sleep(0.1)
    raise RuntimeError("the server did not start")


def _measure(name: str, guests: list[Guest], act: Act, pause: float) -> None:
    taken: list[float] = []
    told: Counter[str] = Counter()
    until = time.monotonic() + SECONDS
    lock = threading.Lock()

    def go(guest: Guest, first: int) -> None:
        k = first
        while (begun := time.monotonic()) < until:
            status, word = act(guest, k)
            k += 1
            seconds = time.monotonic() - begun
            with lock:
                taken.append(seconds)
                told[word or str(status)] += 1
            time.sleep(max(0.0, pause - seconds))

    threads = [
        threading.Thread(target=go, args=(guest, 1000 * n)) for n, guest in enumerate(guests)
    ]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    taken.sort()
    late = taken[int(len(taken) * 0.95)]
    words = ", ".join(f"{word}: {count}" for word, count in sorted(told.items()))
    print(
        f"{len(guests):3d} people {name:16s} {len(taken) / SECONDS:7.1f} a second   "
        f"median {statistics.median(taken) * 1e3:7.1f} ms   p95 {late * 1e3:7.1f} ms   {words}",
        flush=True,
    )


def _resident(pid: int) -> int:
    """Proportional resident bytes of a process and all below it."""
    total = 0
    for line in Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines():
        if line.startswith("Pss:"):
            total += int(line.split()[1]) * 1024
    for task in Path(f"/proc/{pid}/task").iterdir():
        for child in (task / "children").read_text().split():
            total += _resident(int(child))
    return total
