"""A sheet in one line, and the words that it is found by."""

from __future__ import annotations

from axispath.core.language.names import lowered
from axispath.core.sheet.document import Document

LINE = 160  # characters
MOST = 20_000
NAMED = 6  # lanes


def summary(document: Document) -> str:
    """What is on a sheet in one line: its first lanes, as they are typed."""
    shown = [" ".join(lane.text.split()) for lane in document.shown_lanes if lane.text]
    working = len(document.lanes) - len(document.shown_lanes)
    parts = [lowered(text) if len(text) <= 40 else f"{text[:38]} …" for text in shown[:NAMED]]
    if len(shown) > NAMED:
        parts.append(f"and {len(shown) - NAMED} more")
    if working:
        parts.append(f"{working} line{'s' if working > 1 else ''} of Working")
    line = "; ".join(parts)
    return line if len(line) <= LINE else f"{line[: LINE - 2]} …"


def content(document: Document) -> str:
    """Everything on a sheet that is searched: names, formulas, notes, captions, equations."""
    ground = document.ground
    found = [document.name, ground.title, ground.x_label, ground.y_label]
    for lane in document.lanes:
        found += [lane.name or "", lane.text, lane.note]
        if lane.block is not None:
            found.append(lane.block.text)
        if lane.data is not None:
            found += [f"{column.name} {column.title}" for column in lane.data.columns]
    found += [equation.text for equation in document.equations]
    return "\n".join(" ".join(text.split()) for text in found if text).casefold()[:MOST]
