"""Relations and regions in a frame."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axispath.core.memory import Memory
from axispath.core.plane.arcs import joined
from axispath.core.plane.picture import borders, curve_drawn, shaded
from axispath.core.plane.relation import relation_of
from axispath.core.plane.screen import Screen
from axispath.core.sampling.primitives import Dots, Patch, Primitive, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane

Floats = NDArray[np.float64]
KEPT = 32 << 20  # bytes
MOST_DOTS = 4_000

_pictures: Memory[list[Primitive]] = Memory(
    KEPT, lambda key, found: 4000 + sum(shape.rows.nbytes for shape in found)
)


def drawn_relation(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """The curve of an equation; squares that could not be settled are told apart."""
    relation = relation_of(lane)
    assert relation.curve is not None

    def work() -> list[Primitive]:
        assert relation.curve is not None
        found = curve_drawn(relation, relation.curve, screen_of(frame))
        shapes: list[Primitive] = [Stroke(as_rows(found.segments, frame))]
        if len(found.dots):
            middles = (found.dots[:MOST_DOTS, [0, 2]] + found.dots[:MOST_DOTS, [1, 3]]) / 2
            shapes.append(Dots(relative(middles, frame), small=True))
        if len(found.open):
            shapes.append(Patch(relative_boxes(found.open, frame), open=True))
        return shapes

    return list(_pictures.found((relation, frame), work))


def drawn_region(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """A region as a shade, and its border: unbroken where it belongs to it, broken where not."""
    relation = relation_of(lane)

    def work() -> list[Primitive]:
        belongs, beyond, still = borders(relation, screen_of(frame))
        shapes: list[Primitive] = [Patch(relative_boxes(shaded(relation, screen_of(frame)), frame))]
        if len(belongs):
            shapes.append(Stroke(as_rows(belongs, frame), border="closed"))
        if len(beyond):
            shapes.append(Stroke(as_rows(beyond, frame), border="open"))
        if len(still):
            shapes.append(Patch(relative_boxes(still, frame), open=True))
        return shapes

    return list(_pictures.found((relation, frame), work))


def screen_of(frame: Frame) -> Screen:
    """A frame as the plane knows it."""
    return Screen(frame.left, frame.right, frame.bottom, frame.top, frame.width, frame.height)


def as_rows(segments: Floats, frame: Frame) -> NDArray[np.float32]:
    """Segments as lines relative to the view."""
    near = 1e-6 * max(frame.right - frame.left, frame.top - frame.bottom)
    return relative(joined(segments, near), frame)


def relative(rows: Floats, frame: Frame) -> NDArray[np.float32]:
    """Places (x, y) relative to the view."""
    low = np.array([frame.left, frame.bottom])
    size = np.array([frame.right - frame.left, frame.top - frame.bottom])
    found: NDArray[np.float32] = ((rows - low) / size).astype(np.float32)
    return found


def relative_boxes(boxes: Floats, frame: Frame) -> NDArray[np.float32]:
    """Rectangles as rows (left, bottom, right, top) relative to the view."""
    corners = [relative(boxes[:, k], frame) for k in ([0, 2], [1, 3])]
    rows: NDArray[np.float32] = np.clip(np.concatenate(corners, axis=1), 0, 1).reshape(-1, 4)
    return rows[(rows[:, 0] < rows[:, 2]) & (rows[:, 1] < rows[:, 3])]
