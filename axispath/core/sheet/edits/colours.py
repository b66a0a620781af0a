"""Colours that are free."""

from __future__ import annotations

from axispath.core.sheet.document import COLOURS, Document
from axispath.core.sheet.resolve import resolve


def free_colour(document: Document) -> int:
    """The colour that the fewest curves have."""
    used = [lane.lane.colour for lane in resolve(document) if lane.kind.coloured]
    return min(range(COLOURS), key=lambda colour: (used.count(colour), colour))
