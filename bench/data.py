"""A hundred thousand rows opened, drawn and fitted; a point dragged under a cubic of a thousand."""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np

from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddFit, MoveRow, apply
from axispath.core.sheet.edits.data import AddColumns, columns_of
from axispath.core.sheet.resolve import resolve
from axispath.exchange.data.opened import opened
from bench.timing import median

ROWS, FEW = 100_000, 1_000


def _document(x: np.ndarray, y: np.ndarray) -> Document:
    rows = zip(x.tolist(), y.tolist(), strict=True)
    text = "time,height\n" + "\n".join(f"{a!r},{b!r}" for a, b in rows)
    read = opened(text.encode(), 0, ()).read
    return AddColumns(name="log", columns=columns_of(read)).applied(Document())


def _timed(words: str, work: Callable[[], object]) -> object:
    start = time.perf_counter()
    found = work()
    print(f"  {words}: {(time.perf_counter() - start) * 1000:.0f} ms")
    return found


def report() -> None:
    """Print how long each step takes, and the least squares of NumPy beside them."""
    chance = np.random.default_rng(1)
    x = np.arange(ROWS) / 100
    y = 3 + x / 2 + 20 * chance.normal(size=ROWS)
    print(f"{ROWS} rows:")
    document = _timed("a CSV file opened", lambda: _document(x, y))
    assert isinstance(document, Document)
    lane = resolve(document).lanes[0]
    frame = Frame(0, 1000, -60, 560, 900, 600)
    _timed("drawn", lambda: drawn(document, lane, frame))
    data = lane.lane.id
    _timed("a line fitted", lambda: apply(document, AddFit(data=data, x="time", y="height")))
    _timed("the same by NumPy alone", lambda: np.linalg.lstsq(np.vander(x, 2), y, rcond=None))
    x = np.linspace(0, 10, FEW)
    small = _document(x, x**3 - 5 * x + chance.normal(size=FEW))
    data = small.lanes[0].id
    small = apply(small, AddFit(data=data, x="time", y="height", model="cubic"))
    at = iter(range(10**6))

    def dragged() -> None:
        moved = apply(small, MoveRow(id=data, row=500, x=5, y=100 + next(at)))
        for one in resolve(moved).lanes:
            drawn(moved, one, frame)

    print(f"a point dragged under a cubic of {FEW} rows: {median(dragged):.1f} ms a frame")
