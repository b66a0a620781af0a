"""Curves on the wire: a short JSON head, then float32 coordinates relative to the view.

Layout: uint32 little endian length of the head; the head, padded with spaces to a multiple
of four bytes; then (x, y) pairs. The head lists, per lane, where its pairs start and how
many there are. Coordinates run from 0 to 1 across the view; a NaN pair ends a stroke.
"""

from __future__ import annotations

import struct

import numpy as np
import orjson

from axispath.core.arithmetic.interval import End
from axispath.core.sampling.curve import polyline
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import View
from axispath.core.sheet.resolve import Sheet


def _inside(end: End, inwards: float) -> float:
    """An end as far as the curve goes: not to an end that does not belong to the domain."""
    return end.x if end.closed else float(np.nextafter(end.x, inwards))


def encoded_picture(sheet: Sheet, view: View, width: int, height: int) -> bytes:
    """All visible curves of a sheet in a view."""
    frame = Frame(view.left, view.right, view.bottom, view.top, width, height)
    lanes, parts, start = [], [], 0
    for lane in sheet.functions():
        low, high = lane.ends
        points = polyline(
            lane.floats,
            lane.balls,
            frame,
            _inside(low, np.inf) if low else -np.inf,
            _inside(high, -np.inf) if high else np.inf,
        )
        lanes.append({"id": lane.lane.id, "start": start, "count": len(points)})
        parts.append(points)
        start += len(points)
    head = orjson.dumps({"view": view.model_dump(), "lanes": lanes})
    head += b" " * (-len(head) % 4)
    data = np.concatenate(parts).tobytes() if parts else b""
    return struct.pack("<I", len(head)) + head + data
