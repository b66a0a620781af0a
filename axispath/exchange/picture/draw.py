"""A picture of the plot, put together."""

from __future__ import annotations

import numpy as np

from axispath.core.language.numbers import listed
from axispath.core.sampling.kinds import DRAWN, drawn
from axispath.core.sheet.palette import THEMES
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.exchange.formats import PICTURES
from axispath.exchange.picture.curves import (
    draw_area,
    draw_curve,
    draw_flags,
    draw_reading_points,
    draw_readings,
    draw_tangent,
    draw_trails,
)
from axispath.exchange.picture.field import PlotField
from axispath.exchange.picture.ground import caption_lines, draw_axes, draw_grid, draw_rail
from axispath.exchange.picture.marks import draw_labels, draw_legend, draw_mark, landmarks_of
from axispath.exchange.picture.seen import Seen
from axispath.exchange.picture.sheet_of_paper import Paper, drawing

KINDS = {found.name: found for found in PICTURES}
SMALLEST, LARGEST, MOST_PIXELS = 160, 4000, 24_000_000
EDGE, RAIL, TITLE, SMALL = 14, 28, 24, 20  # pixels


def picture(
    seen: Seen, kind: str, scale: float = 1.0, theme: str = "light", clear: bool = False
) -> bytes:
    """The file of a picture: ``kind`` is png, svg or pdf, ``scale`` the sharpness of a png.

    A ``clear`` one has no ground. Raises EditRefused where the size is out of bounds.
    """
    if kind not in KINDS:
        raise EditRefused(f"A picture is a {listed(KINDS)}.")
    for side, length in (("width", seen.width), ("height", seen.height)):
        if not SMALLEST <= length <= LARGEST:
            raise EditRefused(f"The {side} of a picture is {SMALLEST} to {LARGEST} pixels.")
    if KINDS[kind].pixels and seen.width * seen.height * scale**2 > MOST_PIXELS:
        raise EditRefused("This picture has too many pixels: make it smaller or less sharp.")
    with drawing:
        paper = Paper(seen.width, seen.height, THEMES[theme], clear)
        draw(paper, seen)
        return paper.saved(kind, scale)


def draw(paper: Paper, seen: Seen) -> None:
    """The plot on a paper of its size."""
    document = seen.document
    field = _captioned(paper, seen)
    lanes = resolve(document).shown(DRAWN)
    curves = {lane.lane.id: drawn(document, lane, field.frame) for lane in lanes}
    frame = field.frame
    paper.clipped_to(field.left, field.top, frame.width, frame.height)
    draw_grid(paper, document, field)
    draw_axes(paper, document, field)
    draw_area(paper, seen, field, curves)
    draw_trails(paper, seen, field)
    draw_readings(paper, seen, field)
    draw_tangent(paper, seen, field)
    for lane in lanes:
        draw_curve(paper, document, lane, field, curves[lane.lane.id])
    marks = landmarks_of(seen, paper.palette)
    for mark in marks:
        draw_mark(paper, field, mark)
    draw_reading_points(paper, seen, field)
    draw_labels(paper, seen, field, marks, draw_flags(paper, lanes, field, curves))
    if document.ground.legend:
        draw_legend(paper, seen, field, lanes)
    paper.clip = None
    draw_rail(paper, document, field, RAIL)


def _captioned(paper: Paper, seen: Seen) -> PlotField:
    """Title and labels around the plot; gives what is left for it."""
    ground, (width, height) = seen.document.ground, paper.size
    title = caption_lines(seen.document, ground.title)
    x_label = caption_lines(seen.document, seen.document.axis_labels[0])
    y_label = caption_lines(seen.document, seen.document.axis_labels[1])
    top = EDGE + TITLE * len(title) + (SMALL if y_label else 0)
    bottom = RAIL + (SMALL if x_label else 0)
    inside = (max(width - 2 * EDGE, 40), max(height - top - bottom, 40))
    field = PlotField(EDGE, top, seen.frame(*inside))
    for k, line in enumerate(title):
        weight = "normal" if "$" in line else "bold"
        place = EDGE + TITLE * (k + 0.5) - 4
        paper.text(width / 2, place, line, paper.palette.ink, 17, weight=weight)
    if y_label:
        paper.text(EDGE, top - SMALL / 2 - 1, y_label[0], paper.palette.ink, 13.5, ha="left")
    if x_label:
        place = field.bottom + RAIL + SMALL / 2 - 4
        paper.text(width - EDGE, place, x_label[0], paper.palette.ink, 13.5, ha="right")
    edge = [(field.left, field.bottom), (field.left, top), (field.right, top)]
    edge += [(field.right, field.bottom), (field.left, field.bottom)]
    paper.line(np.array(edge), paper.palette.rule, 1.0)
    return field
