"""The demo sheets as documents. Places, ships and numbers are made up."""

from __future__ import annotations

from functools import cache

from axispath.core.path.framing import settled
from axispath.core.sheet.document import Document, Slider, Table
from axispath.core.sheet.edits import AddLane, SetNote, SetSlider, apply

FERRY_WINDOW = (
    "h(x) = 3.1 + swing sin(2π (x - 2) / 12.4) for 0 <= x <= 24",
    "d(x) = 2.6 for 0 <= x <= 24",
    "swing = 1.4",
)
SWING = Slider(low="0.3", high="2", step="0.05")


@cache
def ferry_window() -> Document:
    """Tide height over a day against the depth that the ferry needs."""
    document = Document(name="Ferry window", table=Table(start="0", stop="24", step="1"))
    document = _with_lanes(document, FERRY_WINDOW)
    document = apply(document, SetSlider(id="lane3", slider=SWING))
    return apply(document, SetNote(id="lane3", note="2 m at spring tide, half of it at neap tide"))


def _with_lanes(document: Document, lines: tuple[str, ...]) -> Document:
    empty = document
    for number, line in enumerate(lines, 1):
        document = apply(document, AddLane(text=line, id=f"lane{number}"))
    return settled(empty, document)


DEMOS = {"ferry-window": ferry_window}
