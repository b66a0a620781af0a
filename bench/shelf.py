"""A shelf of a thousand sheets, and a hand-out that thirty open at once."""

from __future__ import annotations

import json
import re
import statistics
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from urllib.request import Request, urlopen

from axispath.command.cluster import running_cluster
from axispath.command.place import free_port, scratch
from axispath.command.serving import migrate, web_programs
from axispath.core.path.edited import edited
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane
from axispath.store import handouts, people, sheets, shelf
from axispath.store.database import Store
from axispath.store.handouts import Shows

SHEETS, VISITORS = 1000, 30
VIEW = {"left": -5, "right": 5, "bottom": -4, "top": 4}


def report() -> None:
    """Print both."""
    with (
        tempfile.TemporaryDirectory(prefix="axispath-bench-", dir=scratch()) as made,
        running_cluster(Path(made), lasting=False) as cluster,
    ):
        migrate(cluster.address)
        store = Store(cluster.address)
        person = _filled(store)
        for title, asked in (
            ("listed", {}),
            ("searched", {"words": "exercise 07"}),
            ("searched in vain", {"words": "nowhere at all"}),
            ("sorted by name", {"order": "name"}),
        ):
            print(f"  {SHEETS} sheets {title}: {_timed(store, person, asked):.1f} ms")
        _visited(store, person, cluster.address, Path(made))
        store.engine.dispose()


def _filled(store: Store) -> str:
    edits = [AddLane(text=f"f_{k}(x) = sin({k} x) + x^{k}") for k in range(1, 6)]
    steps = edited(Document(), edits, None)
    with store.transaction() as session:
        person = people.new_person(session)
        for k in range(SHEETS):
            made = sheets.create(session, person, Document(), steps)
            sheet = sheets.own(session, person, made.id)
            sheet.name = f"Exercise {k:04}"
            sheet.content = f"exercise {k:04} {sheet.content}"
    return person


def _timed(store: Store, person: str, asked: dict[str, str]) -> float:
    times = []
    for _ in range(15):
        start = time.perf_counter()
        with store.transaction() as session:
            shelf.shelf(session, person, **asked)  # type: ignore[arg-type]
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def _visited(store: Store, person: str, address: str, folder: Path) -> None:
    """One visitor opens a link and asks for its landmarks, then thirty at the same moment."""
    with store.transaction() as session:
        first, second = shelf.shelf(session, person).found[:2]
        tokens = [handouts.give(session, person, one.id, Shows(), True) for one in (first, second)]
    port = free_port()
    secret = "a secret for measuring, and no other use"
    programs = web_programs(folder, address, secret, "127.0.0.1", port, 2)
    for program in programs:
        program.start()
    try:
        _answering(f"http://127.0.0.1:{port}/health")
        alone = _visit(port, tokens[0])
        with ThreadPoolExecutor(VISITORS) as pool:
            times = sorted(pool.map(lambda _: _visit(port, tokens[1]), range(VISITORS)))
    finally:
        for program in reversed(programs):
            program.stop()
    print(f"  a hand-out opened by one: {alone:.0f} ms, page and landmarks")
    print(f"  by {VISITORS} at once: median {times[VISITORS // 2]:.0f} ms, last {times[-1]:.0f} ms")
    print(f"  as many computations, if each cost one: {VISITORS * alone:.0f} ms")


def _answering(address: str) -> None:
    for _ in range(600):
        try:
            urlopen(address, timeout=1)
            return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError("the server did not start")


def _visit(port: int, token: str) -> float:
    start = time.perf_counter()
    page = urlopen(f"http://127.0.0.1:{port}/h/{token}", timeout=60).read().decode()
    found = re.search(r'"head": ?(\d+)', page)
    assert found is not None
    wanted = json.dumps({"head": int(found[1]), "view": VIEW}).encode()
    at = f"http://127.0.0.1:{port}/api/sheets/link.{token}/path"
    urlopen(Request(at, wanted, {"Content-Type": "application/json"}), timeout=60).read()
    return (time.perf_counter() - start) * 1000
