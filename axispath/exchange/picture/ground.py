"""Grid, axes and their numbers, title and labels."""

from __future__ import annotations

from fractions import Fraction

import numpy as np

from axispath.core.sheet.captions import caption
from axispath.core.sheet.document import Document, Ticks
from axispath.core.sheet.look import LOOK
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.scopes import scope_of
from axispath.core.sheet.ticks import TickStep, label, places, spaced, tick_step
from axispath.exchange.picture.field import PlotField
from axispath.exchange.picture.polar import draw_angles, draw_polar_grid
from axispath.exchange.picture.sheet_of_paper import Paper, plain_words, typeset

ACROSS, UPWARDS = LOOK["ticks"]["across"], LOOK["ticks"]["upwards"]
CLOSEST = 7  # pixels between lines of the fine grid
Axis = tuple[TickStep, Fraction | float]


def axes_of(document: Document, field: PlotField) -> tuple[Axis, Axis]:
    """The steps of both axes, and the parts between their written numbers."""
    frame, ground = field.frame, document.ground
    x, y = _step(document, ground.x_ticks, True), _step(document, ground.y_ticks, False)
    return (
        (x, spaced(x, (frame.right - frame.left) / frame.width * ACROSS)),
        (y, spaced(y, (frame.top - frame.bottom) / frame.height * UPWARDS)),
    )


def _step(document: Document, ticks: Ticks, across: bool) -> TickStep:
    try:
        return tick_step(document, ticks, across)
    except EditRefused:  # a value that the step used is gone
        return TickStep()


def draw_grid(paper: Paper, document: Document, field: PlotField) -> None:
    """The lines of the grid."""
    grid = document.ground.grid
    if grid == "none":
        return
    x, y = axes_of(document, field)
    if grid == "polar":
        draw_polar_grid(paper, field, float(x[1]) * x[0].unit)
        return
    frame = field.frame
    if grid == "fine":
        finer_x = _finer(x, frame.width / (frame.right - frame.left))
        finer_y = _finer(y, frame.height / (frame.top - frame.bottom))
        _lines(paper, field, paper.palette.grid_minor, (x[0], finer_x), (y[0], finer_y))
    _lines(paper, field, paper.palette.grid, x, y)


def _finer(axis: Axis, pixels: float) -> Fraction | float:
    """The part between numbers divided so that it stays a plain one."""
    step, part = axis
    leading = f"{float(part):e}"[0]
    shares = 2 if step.sign == "π" else 3 if step.sign == "°" and part >= 15 else 5
    if step.sign != "π" and leading == "2":
        shares = 4
    gap = float(part) * step.unit * pixels
    count = shares if gap / shares >= CLOSEST else 2 if gap / 2 >= CLOSEST else 1
    return part / count


def _lines(paper: Paper, field: PlotField, colour: str, x: Axis, y: Axis) -> None:
    frame, pen_up = field.frame, [np.nan, np.nan]
    rows = []
    for k in places(frame.left, frame.right, x[1], x[0].unit):
        px = field.px(k * float(x[1]) * x[0].unit)
        rows += [[px, field.top], [px, field.bottom], pen_up]
    for k in places(frame.bottom, frame.top, y[1], y[0].unit):
        py = field.py(k * float(y[1]) * y[0].unit)
        rows += [[field.left, py], [field.right, py], pen_up]
    if rows:
        paper.line(np.array(rows), colour, 1.0, solid_capstyle="butt")


def draw_axes(paper: Paper, document: Document, field: PlotField) -> None:
    """The axes, and the numbers of y beside theirs."""
    edge = document.ground.axes == "edge"
    zero_x = field.left if edge else field.px(0)
    zero_y = field.bottom if edge else field.py(0)
    if field.left <= zero_x <= field.right:
        paper.line(np.array([[zero_x, field.top], [zero_x, field.bottom]]), paper.palette.ink, 1.25)
    if field.top <= zero_y <= field.bottom:
        paper.line(np.array([[field.left, zero_y], [field.right, zero_y]]), paper.palette.ink, 1.25)
    if document.ground.grid == "polar":
        draw_angles(paper, field, document.unit)
    step, part = axes_of(document, field)[1]
    frame = field.frame
    written = [
        (field.py(k * float(part) * step.unit), label(k, part, step.sign), k)
        for k in places(frame.bottom, frame.top, part, step.unit)
    ]
    widest = max((paper.width_of(text, 12) for _, text, _ in written), default=0.0)
    right = min(max(zero_x - 7, field.left + widest + 7), field.right - 8)
    for py, text, k in written:
        crossed = k == 0 and not edge and field.left < zero_x < field.right
        if field.top + 9 <= py <= field.bottom - 9 and not crossed:
            paper.text(right, py, text, paper.palette.muted, ha="right", halo=paper.palette.ground)


def draw_rail(paper: Paper, document: Document, field: PlotField, height: float) -> None:
    """The numbers of x on their band below the plot."""
    paper.line(
        np.array([[field.left, field.bottom], [field.right, field.bottom]]), paper.palette.rule, 1.0
    )
    step, part = axes_of(document, field)[0]
    for k in places(field.frame.left, field.frame.right, part, step.unit):
        px = field.px(k * float(part) * step.unit)
        paper.line(np.array([[px, field.bottom], [px, field.bottom + 5]]), paper.palette.ink, 1.0)
        text = label(k, part, step.sign)
        half = paper.width_of(text, 12.5) / 2
        if field.left - 8 < px - half and px + half < field.right + 8:
            paper.text(px, field.bottom + height / 2 + 3, text, paper.palette.ink, 12.5)


def caption_lines(document: Document, text: str) -> list[str]:
    """A title or label as lines with mathematics, as far as it can be typeset here."""
    lines = []
    for line in caption(text, scope_of(document.lanes)):
        parts = []
        for part in line:
            parts.append(typeset(part.statement) if part.statement else plain_words(part.text))
        lines.append("".join(parts))
    return lines
