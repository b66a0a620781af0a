"""Functions of two variables in words."""

from __future__ import annotations

import numpy as np

from axispath.core.language.numbers import decimal, listed
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.levels import grid_of
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.register import Described

LOOKED = 60
MOST = 4
NAMED = (
    (Kind.PEAK, "highest point"),
    (Kind.PIT, "lowest point"),
    (Kind.SADDLE, "saddle"),
)


def in_words(lane: ResolvedLane, path: Path | None, document: Document) -> str:
    """Between which values it lies in the view, and its points that matter."""
    digits = document.digits
    values = grid_of(lane, document.view, LOOKED, LOOKED)
    values = values[np.isfinite(values)]
    if not len(values):
        return f"{lane.name} has no value anywhere in this view."
    low, high = (decimal(float(v), 3) for v in (values.min(), values.max()))
    told = []
    for kind, word in NAMED:
        marks = path.of(kind)[:MOST] if path is not None else ()
        shown = [f"({decimal(m.x, digits)}, {decimal(m.y, digits)})" for m in marks]
        if shown:
            told.append(f"{word if len(shown) == 1 else word + 's'} at {listed(shown)}")
    has = f"; {'; '.join(told)}" if told else ""
    return f"{lane.name} is a function of x and y, from about {low} to {high} in this view{has}."


def why_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
    """Why no level shows; None where there are values."""
    values = grid_of(lane, document.view, LOOKED, LOOKED)
    if np.isfinite(values).any():
        return None
    return f"{lane.name} is undefined everywhere in this view."


DESCRIBED_MAP = Described(in_words, why_unseen)
