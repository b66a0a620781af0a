"""A shelf of a thousand sheets, and a hand-out that thirty open at once."""

from __future__ import annotations

import re
import statistics
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from unittest import mock

from axispath.command.cluster import running_cluster
from axispath.command.serving import migrate
from axispath.command.testing import scratch
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
        _visited(store, person, cluster.address)
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


def _visited(store: Store, person: str, address: str) -> None:
    """Thirty visitors open a link and ask for its landmarks, all at the same moment."""
    from axispath.web.app import create_app

    with store.transaction() as session:
        first = shelf.shelf(session, person).found[0]
        token = handouts.give(session, person, first.id, Shows(), True)
    app = create_app(address, "a secret for measuring, and no other use")
    broker = app.extensions["broker"]
    names: list[str] = []
    ask = broker.ask

    def noted(job: object) -> object:
        names.append(job.same)  # type: ignore[attr-defined]
        return ask(job)

    def visit(_: int) -> float:
        client = app.test_client()
        start = time.perf_counter()
        page = client.get(f"/h/{token}").text
        found = re.search(r'"head": ?(\d+)', page)
        assert found is not None
        wanted = {"head": int(found[1]), "view": VIEW}
        client.post(f"/api/sheets/link.{token}/path", json=wanted)
        return (time.perf_counter() - start) * 1000

    with mock.patch.object(broker, "ask", noted), ThreadPoolExecutor(VISITORS) as pool:
        times = sorted(pool.map(visit, range(VISITORS)))
    asked = len(set(names) - {""})
    print(f"  {VISITORS} visitors at once ask {asked} different questions, each computed once")
    print(f"  page and landmarks, no broker: median {times[VISITORS // 2]:.0f} ms")
