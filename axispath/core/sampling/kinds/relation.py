"""Relations and regions in a frame."""

from __future__ import annotations

from axispath.core.memory import Memory
from axispath.core.sampling.primitives import Dots, Patch, Primitive, Stroke
from axispath.core.sampling.relation import (
    as_rows,
    borders,
    curve_drawn,
    relative,
    relative_boxes,
    shaded,
)
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.relation import relation_of
from axispath.core.sheet.resolve import ResolvedLane

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
        found = curve_drawn(relation, relation.curve, frame)
        shapes: list[Primitive] = [Stroke(as_rows(found.segments, frame))]
        if len(found.dots):
            middles = (found.dots[:MOST_DOTS, [0, 2]] + found.dots[:MOST_DOTS, [1, 3]]) / 2
            shapes.append(Dots(relative(middles, frame), small=True))
        if len(found.open):
            shapes.append(Patch(relative_boxes(found.open, frame), open=True))
        return shapes

    return list(_pictures.found((relation.curve, relation, frame), work))


def drawn_region(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """A region as a shade, and its border: unbroken where it belongs to it, broken where not."""
    relation = relation_of(lane)

    def work() -> list[Primitive]:
        belongs, beyond, still = borders(relation, frame)
        shapes: list[Primitive] = [Patch(relative_boxes(shaded(relation, frame), frame))]
        if len(belongs):
            shapes.append(Stroke(as_rows(belongs, frame), border="closed"))
        if len(beyond):
            shapes.append(Stroke(as_rows(beyond, frame), border="open"))
        if len(still):
            shapes.append(Patch(relative_boxes(still, frame), open=True))
        return shapes

    return list(_pictures.found((relation, frame), work))
