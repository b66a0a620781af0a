"""Functions of two variables as maps: level lines that are proved, their numbers, and tints."""

from __future__ import annotations

import numpy as np

from axispath.core.language.numbers import decimal
from axispath.core.memory import Memory
from axispath.core.plane.arcs import joined
from axispath.core.plane.levels import levels_drawn
from axispath.core.plane.relation import level_of
from axispath.core.sampling.kinds.relation import Floats, relative, relative_boxes, screen_of
from axispath.core.sampling.primitives import Label, Patch, Primitive, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.levels import levels_of
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane

KEPT = 48 << 20  # bytes
DIGITS = 6
ROOM = 46  # pixels that a number needs along its line

_pictures: Memory[list[Primitive]] = Memory(
    KEPT, lambda key, found: 4000 + sum(shape.rows.nbytes for shape in found)
)


def drawn_map(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """The level lines of a function of x and y in a frame, the higher the darker between them."""
    view = View(left=frame.left, right=frame.right, bottom=frame.bottom, top=frame.top)
    try:
        levels = levels_of(document, lane, view)
    except EditRefused:  # a value that a level used is gone
        levels = levels_of(document, _untyped(lane), view)
    key = (lane.program, lane.unit, tuple(levels), frame)
    return list(_pictures.found(key, lambda: _drawn(lane, levels, frame)))


def _untyped(lane: ResolvedLane) -> ResolvedLane:
    bare = lane.lane.model_copy(update={"levels": ""})
    return ResolvedLane(bare, lane.unit, lane.statement, definitions=lane.definitions)


def _drawn(lane: ResolvedLane, levels: list[float], frame: Frame) -> list[Primitive]:
    found = levels_drawn(level_of(lane, 0.0, "="), levels, screen_of(frame))
    near = 1e-6 * max(frame.right - frame.left, frame.top - frame.bottom)
    shapes: list[Primitive] = [
        Patch(relative_boxes(band, frame), tint=number / len(found.bands))
        for number, band in enumerate(found.bands)
        if number and len(band)
    ]
    for level, segments in zip(levels, found.lines, strict=True):
        rows = joined(segments, near)
        if len(rows):
            shapes.append(Stroke(relative(rows, frame), dashed=False))
            shapes += _labels(rows, decimal(level, DIGITS), frame)
    return shapes


def _labels(rows: Floats, text: str, frame: Frame) -> list[Primitive]:
    """The number of a level in the middle of its longest line."""
    at = relative(rows, frame)
    inside = ((at >= 0.03) & (at <= 0.97)).all(axis=1)
    ends = np.flatnonzero(~inside)
    starts = np.concatenate([[-1], ends])
    stops = np.concatenate([ends, [len(at)]])
    longest = int((stops - starts).argmax())
    first, last = int(starts[longest]) + 1, int(stops[longest])
    part = at[first:last] * [frame.width, frame.height]
    if len(part) < 3 or float(np.hypot(*np.diff(part, axis=0).T).sum()) < ROOM:
        return []
    return [Label(at[(first + last) // 2][None, :].astype(np.float32), text)]
