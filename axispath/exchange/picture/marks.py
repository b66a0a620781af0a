"""Landmarks in their shapes, their labels, and the legend."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from matplotlib.path import Path

from axispath.core.path.labels import crossing_key, keyed, labelled
from axispath.core.path.survey import survey
from axispath.core.search.landmark import GROUP_OF, Kind, Landmark
from axispath.core.sheet.look import LOOK
from axispath.core.sheet.palette import Palette, dash_of, width_of
from axispath.core.sheet.resolve import ResolvedLane
from axispath.exchange.picture.curves import Taken
from axispath.exchange.picture.field import PlotField
from axispath.exchange.picture.seen import Seen
from axispath.exchange.picture.sheet_of_paper import Paper, typeset

SHAPES = LOOK["shapes"]
LIFTED = LOOK["lifted"]


@dataclass(frozen=True)
class Shown:
    """A landmark with its key and its colour."""

    key: str
    mark: Landmark
    colour: str


def landmarks_of(seen: Seen, palette: Palette) -> list[Shown]:
    """All landmarks of a picture."""
    found = survey(seen.document, seen.effort, seen.only)
    shown = [
        Shown(key, mark, palette.colour_of(lane.lane))
        for lane, path in found.lanes
        if path is not None
        for key, mark in keyed(lane.lane.id, path)
    ]
    shown += [
        Shown(key, mark, palette.ink)
        for crossing in found.crossings
        for key, mark in keyed(crossing_key(crossing), crossing.path)
    ]
    without = seen.document.ground.without
    return [s for s in shown if s.key in seen.pinned or GROUP_OF[s.mark.kind] not in without]


def draw_mark(paper: Paper, field: PlotField, shown: Shown) -> None:
    """A landmark in its shape."""
    mark, colour = shown.mark, shown.colour
    if not math.isfinite(mark.x):  # where a curve runs off
        return
    if mark.kind is Kind.POLE:
        px = field.px(mark.x)
        if field.left <= px <= field.right:
            line = np.array([[px, field.top], [px, field.bottom]])
            paper.line(line, colour, 1.25, tuple(LOOK["asymptote"]))
        return
    for y, closed, kind in _places(mark):
        at = np.array([field.px(mark.x), field.py(y) + LIFTED.get(kind, 0)])
        if not field.holds(float(at[0]), float(at[1]), 8):
            continue
        shape = SHAPES.get(kind)
        if shape is not None and shape["filled"]:
            for line in shape["lines"]:
                paper.shape(Path(np.array(line) + at), fill=colour, stroke=colour)
        elif shape is not None:
            for line in shape["lines"]:
                paper.line(np.array(line) + at, colour, 2.0)
        else:
            _ring(paper, at, kind, closed, colour)


def _ring(paper: Paper, at: np.ndarray, kind: Kind, closed: bool, colour: str) -> None:
    ring = LOOK["rings"].get(kind, "open")
    filled = ring == "closed" and closed
    place = (float(at[0]), float(at[1]))
    inside = colour if filled else paper.palette.ground
    paper.shape(Path.circle(place, LOOK["ring"]), fill=inside, stroke=colour, width=1.75)
    if ring == "dot":
        paper.shape(Path.circle(place, LOOK["eye"]), fill=colour)


def _places(mark: Landmark) -> Iterator[tuple[float, bool, Kind]]:
    """Where a landmark shows: at its point, or at the ends of both branches of a jump."""
    if mark.kind is Kind.Y_INTERCEPT:
        return
    if mark.kind is not Kind.JUMP:
        if math.isfinite(mark.y):
            yield mark.y, mark.closed, mark.kind
        return
    found = False
    for side in (mark.left, mark.right):
        if math.isfinite(side):
            closed = mark.closed and abs(mark.y - side) <= 1e-9 * (1 + abs(side))
            found = found or closed
            yield side, closed, Kind.END
    if mark.closed and math.isfinite(mark.y) and not found:
        yield mark.y, True, Kind.END


AWAY = ((0, -24), (0, 24), (1, 0), (-1, 0), (1, -20), (-1, -20), (1, 20), (-1, 20), (0, -46))


def draw_labels(
    paper: Paper, seen: Seen, field: PlotField, marks: list[Shown], taken: list[Taken]
) -> None:
    """The labels that were asked for, none over another."""
    for shown in marks:
        mark = shown.mark
        if shown.key not in seen.pinned:
            continue
        heights = [y for y in (mark.y, mark.left, mark.right) if math.isfinite(y)]
        px, py = field.px(mark.x), field.py(heights[0] if heights else 0.0)
        if not field.holds(px, py):
            continue
        text = labelled(mark, seen.document.digits)
        width = paper.width_of(text, 13) + 12
        tried = [
            Taken(
                min(
                    max(px + dx * (width / 2 + 10), field.left + width / 2 + 2),
                    field.right - width / 2 - 2,
                ),
                min(max(py + dy, field.top + 12), field.bottom - 12),
                width,
            )
            for dx, dy in AWAY
        ]
        box = next((b for b in tried if not any(b.meets(t) for t in taken)), tried[0])
        taken.append(box)
        left, right, top, bottom = (
            box.x - width / 2,
            box.x + width / 2,
            box.y - 10,
            box.y + 10,
        )
        outline = [(left, top), (right, top), (right, bottom), (left, bottom), (left, top)]
        paper.shape(Path(outline), fill=paper.palette.card, stroke=paper.palette.rule)
        paper.text(box.x, box.y, text, paper.palette.ink, 13)


LINE = 22  # pixels from line to line of the legend


def draw_legend(paper: Paper, seen: Seen, field: PlotField, lanes: list[ResolvedLane]) -> None:
    """The curves with their formulas."""
    rows = [(lane, typeset(lane.statement, lane.name)) for lane in lanes if lane.statement]
    if not rows:
        return
    widest = max(paper.width_of(text, 14) for _, text in rows)
    width, height = widest + 54, LINE * len(rows) + 10
    ground = seen.document.ground
    left = min(field.left + ground.legend_x * field.frame.width, field.right - width - 4)
    top = min(field.top + ground.legend_y * field.frame.height, field.bottom - height - 4)
    left, top = max(left, field.left + 2), max(top, field.top + 2)
    corners = [(left, top), (left + width, top), (left + width, top + height), (left, top + height)]
    paper.shape(
        Path([*corners, corners[0]]), fill=paper.palette.card, stroke=paper.palette.rule, alpha=0.94
    )
    for k, (lane, text) in enumerate(rows):
        y = top + 5 + LINE * (k + 0.5)
        line = np.array([[left + 10, y], [left + 36, y]])
        paper.line(
            line,
            paper.palette.colour_of(lane.lane),
            width_of(lane.lane),
            dash_of(lane.lane),
        )
        paper.text(left + 44, y, text, paper.palette.ink, 14, ha="left")
