"""Curves on the wire: a short JSON head, then float32 coordinates relative to the view.

Layout: uint32 little endian length of the head; the head, padded with spaces to a multiple
of four bytes; then numbers. Coordinates run from 0 to 1 across the view. The head lists, per
curve, where its parts start and how many numbers they have: ``curve`` are pairs (x, y), where
NaN ends a stroke; ``band`` is (x, lowest, x, highest), where NaN ends a band; ``samples`` are
pairs, with a first pair of NaN where they are to be joined.
"""

from __future__ import annotations

import struct
from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np
import orjson
from numpy.typing import NDArray

from axispath.clock import spent
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.sampling.lanes import drawn_lane, drawn_samples
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.resolve import Sheet, resolve

Part = NDArray[np.float32]
SHORT = Patience(0.12, spent)  # for one lane, while something moves
LONG = Patience(4.0, spent)  # when only such are still missing
QUICK, PATIENT = 0.7, 8.0  # seconds for all lanes together


def encoded_picture(
    document: Document, sheet: Sheet, frame: Frame, patient: bool = False, only: Sequence[str] = ()
) -> bytes:
    """The visible curves of a sheet in a frame, or ``only`` those of some lanes.

    A lane that takes longer than it is given is left out and named in ``cut``, so that it never
    holds up the others; ``patient`` gives it more.
    """
    curves: list[tuple[str, dict[str, Part]]] = []
    cut = []
    share, left = (LONG, PATIENT) if patient else (SHORT, QUICK)
    until = spent() + left
    for lane in sheet.functions():
        if only and lane.lane.id not in only:
            continue
        try:
            seconds = max(0.005, min(share.seconds, until - spent()))
            patience = Patience(seconds, share.clock)
            drawn = drawn_lane(lane, frame, patience)
            with limited(patience):
                samples = drawn_samples(document, lane, frame)
        except OutOfTime:
            cut.append(lane.lane.id)
            continue
        parts = {"curve": drawn.strokes, "band": drawn.band, "samples": samples}
        curves.append((lane.lane.id, parts))
    return encoded({"view": _view(frame), "cut": cut}, curves)


def encoded_trails(frame: Frame, documents: Iterable[Document], marks: list[Any]) -> bytes:
    """The curves that leave a trail, as they were in several states of a sheet."""
    curves = []
    for document in documents:
        for lane in resolve(document).functions():
            if lane.lane.style.trail == "curve":
                try:
                    drawn = drawn_lane(lane, frame, SHORT)
                except OutOfTime:
                    continue
                curves.append((lane.lane.id, {"curve": drawn.strokes, "band": drawn.band}))
    return encoded({"view": _view(frame), "marks": marks}, curves)


def encoded(head: dict[str, Any], curves: list[tuple[str, dict[str, Part]]]) -> bytes:
    """A head and curves in the layout above."""
    listed, numbers, start = [], [], 0
    for lane_id, parts in curves:
        places = {}
        for name, part in parts.items():
            places[name] = [start, part.size]
            numbers.append(part.ravel())
            start += part.size
        listed.append({"id": lane_id, **places})
    text = orjson.dumps({**head, "lanes": listed})
    text += b" " * (-len(text) % 4)
    data = np.concatenate(numbers).tobytes() if numbers else b""
    return struct.pack("<I", len(text)) + text + data


def frame_of(view: View, width: int, height: int) -> Frame:
    """A view at a size in pixels."""
    return Frame(view.left, view.right, view.bottom, view.top, width, height)


def _view(frame: Frame) -> dict[str, float]:
    return {
        "left": frame.left,
        "right": frame.right,
        "bottom": frame.bottom,
        "top": frame.top,
    }
