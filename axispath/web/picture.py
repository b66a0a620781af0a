"""Pictures on the wire: a short JSON head, then float32 coordinates relative to the view.

Layout: uint32 little endian length of the head; the head, padded with spaces to a multiple of four
bytes; then numbers. Coordinates run from 0 to 1 across the view. The head lists the lanes that are
drawn, each with its shapes: ``as`` says what a shape is (see ``core/sampling/primitives.py``),
``at`` where its numbers start and how many they are, the other fields how it is drawn. NaN
separates the parts of a shape. Lanes for which the time did not suffice are named in ``cut``.
"""

from __future__ import annotations

import struct
from collections.abc import Sequence
from typing import Any

import numpy as np
import orjson

from axispath.budgets import (
    MOVING_CURVE,
    MOVING_FRAMES,
    MOVING_PICTURE,
    RESTING_CURVE,
    RESTING_PICTURE,
)
from axispath.clock import spent
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.path.trails import lane_marks, trailed
from axispath.core.sampling.kinds import DRAWN, drawn
from axispath.core.sampling.primitives import Primitive, Rows
from axispath.core.sampling.states import Drawing, pictures
from axispath.core.sampling.view import Frame
from axispath.core.sheet.curve import inside, range_of
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import Slide
from axispath.core.sheet.resolve import Sheet, resolve
from axispath.core.sheet.states import States
from axispath.core.table.kinds import MOVING
from axispath.web.aims import aims

MOST_NUMBERS = 1_500_000  # of one answer: 6 MB
QUICK, PATIENT = (MOVING_CURVE, MOVING_PICTURE), (RESTING_CURVE, RESTING_PICTURE)


def encoded_picture(
    document: Document, sheet: Sheet, frame: Frame, patient: bool = False, only: Sequence[str] = ()
) -> bytes:
    """The visible curves of a sheet in a frame, or ``only`` those of some lanes.

    A lane that takes longer than it is given is left out and named in ``cut``, so that it never
    holds up the others; ``patient`` gives it more.
    """
    drawings: list[Drawing] = []
    cut = []
    share, left = PATIENT if patient else QUICK
    until = spent() + left
    for lane in sheet.shown(DRAWN):
        if only and lane.lane.id not in only:
            continue
        seconds = max(0.005, min(share.seconds, until - spent()))
        try:
            shapes = drawn(document, lane, frame, Patience(seconds, share.clock))
        except OutOfTime:
            cut.append(lane.lane.id)
            continue
        drawings.append((lane.lane.id, shapes))
    if not only:
        drawings += aims(document, frame, share)
    return encoded({"view": _view(frame), "cut": cut, "told": _told(document)}, drawings)


def _told(document: Document) -> dict[str, dict[str, Any]]:
    """Where points are that move along curves, in words."""
    return {
        lane.lane.id: {
            "words": MOVING[lane.kind.key](lane, document.digits),
            "at": inside(range_of(lane), lane.lane.at),
        }
        for lane in resolve(document).shown(MOVING)
        if lane.lane.at is not None
    }


def encoded_trails(
    frame: Frame, view: View, document: Document, states: Sequence[Sequence[Slide]]
) -> bytes:
    """What lanes with a trail left behind in the states that sliders passed.

    Lanes for which the time did not suffice in some state are named in ``cut``.
    """
    drawings: list[Drawing] = []
    marks: list[dict[str, Any]] = []
    cut: set[str] = set()
    until = spent() + MOVING_PICTURE
    for passed in trailed(document, states):
        for lane in resolve(passed).shown(DRAWN):
            if lane.lane.style.trail == "none" or lane.lane.id in cut:
                continue
            patience = Patience(max(0.005, min(MOVING_CURVE.seconds, until - spent())), spent)
            try:
                if lane.lane.style.trail == "curve":
                    drawings.append((lane.lane.id, drawn(passed, lane, frame, patience)))
                else:
                    with limited(patience):
                        marks += lane_marks(passed, lane, view)
            except OutOfTime:
                cut.add(lane.lane.id)
    return encoded({"view": _view(frame), "marks": marks, "cut": sorted(cut)}, drawings)


def encoded_frames(states: States, frame: Frame) -> bytes:
    """A sheet in several states: the lanes that are the same in all of them, and ``frames``, the
    others in one state after another, as far as the time sufficed.
    """
    found = pictures(states, frame, MOVING_CURVE, MOVING_PICTURE, MOVING_FRAMES)
    numbers = _Numbers()
    frames: list[dict[str, Any]] = []
    for k, picture in enumerate(found.moving):
        lanes, left = numbers.listed(picture.drawings)
        told = _told(states.in_state(k)) if states.sheet.shown(MOVING) else {}
        cut = [*found.still.cut, *picture.cut, *left]
        frames.append({"lanes": lanes, "cut": cut, "told": told})
    head = {"view": _view(frame), "frames": frames}
    still = [*found.still.drawings, *aims(states.document, frame, MOVING_CURVE)]
    lanes, left = numbers.listed(still)
    for one in frames:
        one["cut"] += left
    return numbers.behind({**head, "lanes": lanes})


def encoded(head: dict[str, Any], drawings: list[Drawing]) -> bytes:
    """A head and the shapes of lanes in the layout above."""
    numbers = _Numbers()
    lanes, left = numbers.listed(drawings)
    return numbers.behind({**head, "lanes": lanes, "cut": [*head["cut"], *left]})


class _Numbers:
    """The numbers of shapes, one after the other."""

    def __init__(self) -> None:
        self.parts: list[Rows] = []
        self.count = 0

    def listed(self, drawings: list[Drawing]) -> tuple[list[dict[str, Any]], list[str]]:
        """Lanes with their shapes, whose numbers are put behind the others; and the lanes left
        out, as a picture of all of them would have too many numbers.
        """
        lanes, left = [], []
        for lane, shapes in drawings:
            if self.count + sum(shape.rows.size for shape in shapes) > MOST_NUMBERS:
                left.append(lane)
            else:
                lanes.append({"id": lane, "shapes": [self._told(shape) for shape in shapes]})
        return lanes, left

    def _told(self, shape: Primitive) -> dict[str, Any]:
        at, self.count = self.count, self.count + shape.rows.size
        self.parts.append(shape.rows.ravel())
        return {"as": shape.name, "at": [at, shape.rows.size], **shape.looks()}

    def behind(self, head: dict[str, Any]) -> bytes:
        """A head and all numbers."""
        text = orjson.dumps(head)
        text += b" " * (-len(text) % 4)
        data = np.concatenate(self.parts).tobytes() if self.parts else b""
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
