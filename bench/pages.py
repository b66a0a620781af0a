"""Opening a sheet, and a large table."""

from __future__ import annotations

import numpy as np

from axispath.core.path.kinds import SEARCHED
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.resolve import resolve
from axispath.core.table.values import column
from axispath.web.app import create_app
from bench.redraw import LINES
from bench.timing import median


def report() -> None:
    """Print the figures of a table of 10,000 × 5 and of a page with its lanes."""
    document = Document()
    for line in LINES:
        document = apply(document, AddLane(text=line))
    x = np.linspace(-5, 5, 10_000)
    lanes = resolve(document).shown(SEARCHED)
    table = median(lambda: [column(lane, x) for lane in lanes], 20)
    print(f"table of 10,000 × 5   {table:6.2f} ms   (budget 50 ms)")
    # A demo sheet's page needs no database, only the rendering that every page needs.
    client = create_app(
        "postgresql+psycopg://nobody@127.0.0.1:9/none", "a secret for benchmarks alone, of no use"
    ).test_client()
    page = median(lambda: client.get("/demo/ferry-window").data, 20)
    print(f"page of a sheet       {page:6.2f} ms   (budget 50 ms)")
