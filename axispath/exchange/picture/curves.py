"""Curves, bands, samples, markers, trails, tangent, area, and the flags with names."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from matplotlib.path import Path
from numpy.typing import NDArray

from axispath.core.language.names import lowered
from axispath.core.path.trails import trail_marks
from axispath.core.sampling.kinds import DRAWN, drawn
from axispath.core.sampling.primitives import Band, Dots, Label, Patch, Primitive, Rows, Stroke
from axispath.core.sheet.document import Document
from axispath.core.sheet.look import LOOK
from axispath.core.sheet.palette import dash_of, width_of
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.reading import read
from axispath.exchange.picture.field import PlotField
from axispath.exchange.picture.ground import axes_of
from axispath.exchange.picture.seen import Seen
from axispath.exchange.picture.sheet_of_paper import Paper, plain_words

FAINT: float = LOOK["faint"]
BAND: float = LOOK["band"]
FLAG: float = LOOK["flag"]
Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Taken:
    """A box of the plot that is written on: its middle and its size."""

    x: float
    y: float
    width: float

    def meets(self, other: Taken) -> bool:
        """Whether two boxes are too close together."""
        apart = abs(self.x - other.x) > (self.width + other.width) / 2 + 2
        return not apart and abs(self.y - other.y) <= 21


def draw_curve(
    paper: Paper,
    document: Document,
    lane: ResolvedLane,
    field: PlotField,
    shapes: Sequence[Primitive],
) -> None:
    """A lane's shapes in its colour, dash and width, and the markers on its lines."""
    colour = paper.palette.colour_of(lane.lane)
    for shape in shapes:
        _shape(paper, lane, field, shape)
    if lane.lane.style.markers != "none":
        for rows in _lines(shapes):
            _markers(paper, document, lane, field, field.pixels(rows), colour)


def _shape(paper: Paper, lane: ResolvedLane, field: PlotField, shape: Primitive) -> None:
    colour, alpha = paper.palette.colour_of(lane.lane), FAINT if shape.faint else 1.0
    match shape:
        case Band(rows):
            _band(paper, field, rows, colour, alpha)
        case Stroke(rows, _, dashed, pale, border):
            alpha *= LOOK["pale"] if pale else 1.0
            width = width_of(lane.lane) if dashed else LOOK["joining"]
            dash = dash_of(lane.lane) if dashed else ()
            if border:
                dash = LOOK["border"] if border == "open" else ()
            paper.line(field.pixels(rows), colour, width, dash, alpha=alpha)
        case Dots(rows):
            radius = "point" if shape.large else "speck" if shape.small else "dot"
            size = 2 * LOOK[radius] * 0.72
            points = field.pixels(rows)
            dotted: dict[str, Any] = {"marker": "o", "markersize": size, "linestyle": "none"}
            if shape.hollow:
                dotted["markerfacecolor"] = "none"
            paper.line(points, colour, 0, **dotted)
        case Patch(rows, _, unsettled, tint):
            look = "unsettled" if unsettled else "tint" if tint else "shade"
            _patch(paper, lane, field, rows, look, tint or 1.0)
        case Label(rows, text):
            ((x, y),) = field.pixels(rows)
            paper.text(
                x, y, text, colour, LOOK["label"], paper.palette.ground, ha="center", va="center"
            )


def _patch(
    paper: Paper, lane: ResolvedLane, field: PlotField, rows: Rows, look: str, share: float
) -> None:
    """Rectangles in one piece, shaded and hatched, or pale where nothing is settled."""
    if not len(rows):
        return
    colour = paper.palette.colour_of(lane.lane)
    low, high = field.pixels(rows[:, :2]), field.pixels(rows[:, 2:])
    x0, y0, x1, y1 = low[:, 0], low[:, 1], high[:, 0], high[:, 1]
    corners = np.stack(
        [np.stack(p, axis=1) for p in ((x0, y0), (x1, y0), (x1, y1), (x0, y1), (x0, y0))], axis=1
    )
    codes = np.tile(
        np.array([Path.MOVETO, Path.LINETO, Path.LINETO, Path.LINETO, Path.CLOSEPOLY]), len(rows)
    )
    area = Path(corners.reshape(-1, 2), codes)
    paper.shape(area, fill=colour, alpha=LOOK[look] * share)
    if look == "shade":
        angles = LOOK["hatch"]["angles"]
        angle = angles[(lane.lane.colour or 0) % len(angles)]
        paper.hatch(area, colour, angle, LOOK["hatch"])


def _lines(shapes: Sequence[Primitive]) -> list[Rows]:
    """The lines of a lane, without those that only join its samples."""
    return [shape.rows for shape in shapes if isinstance(shape, Stroke) and shape.dashed]


def _line(shapes: Sequence[Primitive]) -> Rows:
    return np.concatenate(_lines(shapes) or [np.empty((0, 2), dtype=np.float32)])


def _band(
    paper: Paper, field: PlotField, band: NDArray[np.float32], colour: str, alpha: float
) -> None:
    for rows in np.split(band, np.flatnonzero(np.isnan(band[:, 0]))):
        part = rows[~np.isnan(rows[:, 0])]
        if len(part):
            outline = np.concatenate([part[:, :2], part[::-1, 2:]])
            paper.shape(Path(field.pixels(outline)), fill=colour, alpha=alpha * BAND)


def _markers(
    paper: Paper,
    document: Document,
    lane: ResolvedLane,
    field: PlotField,
    points: Floats,
    colour: str,
) -> None:
    """Marks on the curve at every half step of the axis."""
    step, part = axes_of(document, field)[0]
    half = float(part) * step.unit / 2
    gap = field.px(half) - field.px(0)
    with np.errstate(invalid="ignore"):
        cell = np.floor((points[:, 0] - field.px(0)) / gap)
    at = np.flatnonzero((cell[1:] != cell[:-1]) & np.isfinite(cell[1:]) & np.isfinite(cell[:-1]))
    kind = {"discs": "o", "squares": "s", "bars": "|"}[lane.lane.style.markers]
    size = {"o": 8, "s": 7, "|": 12}[kind] * 0.72
    paper.line(points[at + 1], colour, 0, marker=kind, markersize=size, mew=1.2, linestyle="none")


def draw_trails(paper: Paper, seen: Seen, field: PlotField) -> None:
    """What lanes left behind while a slider moved."""
    for document in seen.trail:
        for lane in resolve(document).shown(DRAWN):
            if lane.lane.style.trail != "curve":
                continue
            colour = paper.palette.colour_of(lane.lane)
            for shape in drawn(document, lane, field.frame):
                match shape:
                    case Band(rows):
                        _band(paper, field, rows, colour, FAINT)
                    case Stroke(rows):
                        paper.line(field.pixels(rows), colour, LOOK["trail"], alpha=FAINT)
                    case Dots(rows):
                        size, at = 2 * LOOK["dot"] * 0.72, field.pixels(rows)
                        look = {"marker": "o", "markersize": size, "linestyle": "none"}
                        paper.line(at, colour, 0, alpha=FAINT, **look)
    now = resolve(seen.document)
    for mark in trail_marks(seen.trail, seen.document.view):
        lane_now = now.lane(mark["id"])
        place = (field.px(mark["x"]), field.py(mark["y"]))
        if lane_now is not None and field.holds(*place):
            colour = paper.palette.colour_of(lane_now.lane)
            paper.shape(Path.circle(place, 2.5), fill=colour, alpha=0.7)


def draw_readings(paper: Paper, seen: Seen, field: PlotField) -> None:
    """The reading line and the one that is held."""
    for x, dash in ((seen.held, (5.0, 4.0)), (seen.reading, ())):
        if x is not None and field.frame.left <= x <= field.frame.right:
            px = field.px(x)
            line = np.array([[px, field.top], [px, field.bottom]])
            paper.line(line, paper.palette.reading, 1.25, dash)


def draw_reading_points(paper: Paper, seen: Seen, field: PlotField) -> None:
    """Where the lines of reading meet the curves."""
    for x in (seen.held, seen.reading):
        for found in read(seen.document, x) if x is not None else ():
            place = (field.px(x or 0.0), field.py(found.y) if found.defined else math.nan)
            if found.defined and field.holds(*place):
                colour = paper.palette.colour_of(found.lane.lane)
                paper.shape(
                    Path.circle(place, 5), fill=colour, stroke=paper.palette.ground, width=2
                )


def draw_tangent(paper: Paper, seen: Seen, field: PlotField) -> None:
    """The tangent at the reading."""
    if seen.reading is None or not seen.tangent:
        return
    for found in read(seen.document, seen.reading):
        if found.lane.lane.id == seen.tangent and math.isfinite(found.slope):
            frame = field.frame
            ends = [
                (field.px(x), field.py(found.y + found.slope * (x - seen.reading)))
                for x in (frame.left, frame.right)
            ]
            paper.line(np.array(ends), paper.palette.colour_of(found.lane.lane), 1.25, (3, 3))


def draw_area(
    paper: Paper, seen: Seen, field: PlotField, curves: dict[str, list[Primitive]]
) -> None:
    """The area of a lane between the two readings, down to the axis or to another lane."""
    lane = resolve(seen.document).lane(seen.area) if seen.area else None
    if lane is None or seen.held is None or seen.reading is None or seen.area not in curves:
        return
    if seen.against and seen.against not in curves:
        return
    low, high = (field.px(x) for x in sorted((seen.held, seen.reading)))
    above = _between(field.pixels(_line(curves[seen.area])), low, high)
    if not len(above):
        return
    if seen.against:
        below = _between(field.pixels(_line(curves[seen.against])), low, high)[::-1]
    else:
        floor = field.py(0)
        below = np.array([[above[-1, 0], floor], [above[0, 0], floor]])
    outline = np.concatenate([above, below])
    paper.shape(Path(outline), fill=paper.palette.colour_of(lane.lane), alpha=0.2)


def _between(points: Floats, low: float, high: float) -> Floats:
    """The points from one pixel column to another."""
    points = points[np.isfinite(points[:, 0])]
    found: Floats = points[(points[:, 0] >= low) & (points[:, 0] <= high)]
    return found


def draw_flags(
    paper: Paper, lanes: list[ResolvedLane], field: PlotField, curves: dict[str, list[Primitive]]
) -> list[Taken]:
    """Names at the right ends of the curves, kept apart. Gives where they are."""
    taken: list[Taken] = []
    for lane in lanes:
        end = _end(curves[lane.lane.id], field) if lane.lane.style.flag else None
        if end is None or not lane.name:
            continue
        name = lowered(lane.name)
        width = max(FLAG, paper.width_of(name, 14, style="italic", weight="bold") + 12)
        box = _clear(end, width, taken, field)
        taken.append(box)
        paper.shape(_box(box), fill=paper.palette.colour_of(lane.lane))
        paper.text(
            box.x, box.y, plain_words(name), paper.palette.ground, 14, style="italic", weight="bold"
        )
    return taken


def _box(box: Taken) -> Path:
    left, right = box.x - box.width / 2, box.x + box.width / 2
    top, bottom = box.y - FLAG / 2, box.y + FLAG / 2
    return Path([(left, top), (right, top), (right, bottom), (left, bottom), (left, top)])


def _end(shapes: Sequence[Primitive], field: PlotField) -> tuple[float, float] | None:
    """The rightmost point of a lane inside the plot."""
    parts = [part for shape in shapes for part in np.split(shape.rows, shape.rows.shape[1] // 2, 1)]
    points = field.pixels(np.concatenate(parts))
    x, y = points[:, 0], points[:, 1]
    with np.errstate(invalid="ignore"):
        inside = (x <= field.right + 1) & (y >= field.top + 4) & (y <= field.bottom - 4)
    if not inside.any():
        return None
    last = np.flatnonzero(inside)[np.argmax(x[inside])]
    return float(x[last]), float(y[last])


def _clear(end: tuple[float, float], width: float, taken: list[Taken], field: PlotField) -> Taken:
    x = min(end[0] + 4 + width / 2, field.right - width / 2 - 3)
    tried = [
        Taken(x, min(max(end[1] + shift, field.top + 14), field.bottom - 14), width)
        for shift in (0, -24, 24, -48, 48, -72, 72)
    ]
    return next((box for box in tried if not any(box.meets(t) for t in taken)), tried[0])
