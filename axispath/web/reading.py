"""What the Reading card shows: values, slopes, differences, tangent and area."""

from __future__ import annotations

import math
from typing import Any

from axispath.core.language.numbers import decimal
from axispath.core.path.area import NoArea
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.table.kinds import OVER_X
from axispath.core.table.kinds.register import Read
from axispath.core.table.reading import (
    area_between,
    area_words,
    read,
    tangent_line,
    tangent_words,
)
from axispath.web.present import swatch_of

DIGITS_OF_X = 10


def reading(document: Document, x: float, held: float | None) -> dict[str, Any]:
    """All visible lanes at ``x``, and their differences to ``held``."""
    digits = document.digits
    now = read(document, x)
    rows = [_row(found, digits) for found in now]
    step = None
    if held is not None:
        known = {found.lane.lane.id: found for found in read(document, held)}
        step = decimal(x - held, digits, (abs(x) + abs(held)) * 2e-16)
        for row, found in zip(rows, now, strict=True):
            row |= _difference(found, known[found.lane.lane.id], x - held, digits)
    return {
        "x": x,
        "shown": decimal(x, DIGITS_OF_X),
        "held": None if held is None else decimal(held, DIGITS_OF_X),
        "step": step,
        "rows": rows,
    }


def _row(found: Read, digits: int) -> dict[str, Any]:
    lane = found.lane.lane
    return {
        "id": lane.id,
        "name": found.lane.name,
        "label": f"{found.lane.name}(x)" if found.lane.can(OVER_X) else found.lane.name,
        "colour": lane.colour,
        "swatch": swatch_of(lane.id, lane.colour, lane.style),
        "shown": f"{found.shown} {found.lane.measure}" if _has_unit(found) else found.shown,
        "reason": found.reason,
        "y": found.y if found.defined else None,
        "slope": decimal(found.slope, digits) if math.isfinite(found.slope) else "—",
        "heldY": None,
        "difference": "",
    }


def _has_unit(found: Read) -> bool:
    return bool(found.lane.measure) and found.defined


def _difference(found: Read, held: Read, step: float, digits: int) -> dict[str, Any]:
    """From the held reading to this one."""
    if not (found.defined and held.defined):
        told = "no difference: one of the two has no value"
        return {"heldY": held.y if held.defined else None, "difference": told}
    rise = found.y - held.y
    told = f"Δy {decimal(rise, digits, (abs(found.y) + abs(held.y)) * 4e-16)}"
    if step:
        told = f"{told} · slope between {decimal(rise / step, digits)}"
    return {"heldY": held.y, "difference": told}


def tangent(document: Document, lane_id: str, x: float) -> dict[str, Any]:
    """The tangent of a lane: in words, as a point and a slope, and as a line for the sheet."""
    found = next((f for f in read(document, x) if f.lane.lane.id == lane_id), None)
    if found is None:
        raise EditRefused("This lane has no curve to draw a tangent to.")
    drawn = found.defined and math.isfinite(found.slope)
    return {
        "words": tangent_words(found, x, document.digits),
        "line": tangent_line(found, x) if drawn else "",
        "at": {"id": lane_id, "x": x, "y": found.y, "slope": found.slope} if drawn else None,
    }


def area(
    document: Document, lane_id: str, against: str, ends: tuple[float, float]
) -> dict[str, Any]:
    """The area of a lane between two readings, in words, and where it is drawn."""
    low, high = sorted(ends)
    shown = {"low": low, "high": high, "id": lane_id, "against": against}
    if low == high:
        return {"words": ["The two readings are at the same x."], "at": None}
    try:
        found = area_between(document, lane_id, against, low, high)
    except NoArea as reason:
        return {"words": [str(reason)], "at": None}
    return {"words": area_words(found, document.digits, bool(against)), "at": shown}
