"""The demo sheets as documents. Places, ships and numbers are made up."""

from __future__ import annotations

from functools import cache

from axispath.core.path.framing import settled
from axispath.core.sheet.document import Document, Table
from axispath.core.sheet.edits import AddLane, apply

FERRY_WINDOW = (
    "h(x) = 3.1 + 1.4 sin(2π (x - 2) / 12.4) for 0 <= x <= 24",
    "d(x) = 2.6 for 0 <= x <= 24",
)


@cache
def ferry_window() -> Document:
    """Tide height over a day against the depth that the ferry needs."""
    document = Document(name="Ferry window", table=Table(start="0", stop="24", step="1"))
    return _with_lanes(document, FERRY_WINDOW)


def _with_lanes(document: Document, lines: tuple[str, ...]) -> Document:
    for number, line in enumerate(lines, 1):
        document = settled(document, apply(document, AddLane(text=line, id=f"lane{number}")))
    return document


DEMOS = {"ferry-window": ferry_window}
