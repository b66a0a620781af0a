"""Data sets in a frame: points with error bars, histograms, boxes, dots of one column."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from axispath.core.data.summary import histogram, summary
from axispath.core.sampling.primitives import Dots, Patch, Primitive, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.measured import DataSet
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.samples import bin_width

Floats = NDArray[np.float64]
FAR = 50.0  # views beside the view, beyond which nothing is kept
PARTS = (2.0, 1.0, 0.5)  # places to a pixel that are told apart, the fewer the more dots there are
MOST_DOTS = 20_000
MOST_HANDLES = 2_000
CAP = 4.0  # pixels, half the width of the end of an error bar
LOW, HIGH = 0.25, 0.75  # of a unit of y, between which a box stands
MOST_BINS = 2_000


def drawn_data(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """A data set as it is to be drawn."""
    data = lane.lane.data
    assert data is not None and lane.measured is not None
    return LOOKS[data.look](document, lane, data, frame)


def _relative(frame: Frame, x: Floats, y: Floats) -> Floats:
    across = (x - frame.left) / (frame.right - frame.left)
    upwards = (y - frame.bottom) / (frame.top - frame.bottom)
    rows = np.stack([across, upwards], axis=1)
    rows[~(np.isfinite(rows) & (np.abs(rows) < FAR)).all(axis=1)] = np.nan
    return rows


def _thinned(frame: Frame, rows: Floats) -> Floats:
    """The places in the view, each once as far as pixels tell."""
    seen = rows[((rows > -0.05) & (rows < 1.05)).all(axis=1)]
    for parts in PARTS:
        grid = np.round(seen * [frame.width * parts, frame.height * parts]).astype(np.int64)
        keys = grid[:, 0] * (1 << 32) + grid[:, 1]
        _, first = np.unique(keys, return_index=True)
        if len(first) <= MOST_DOTS:
            break
    kept: Floats = seen[np.sort(first)]
    return kept


def _points(document: Document, lane: ResolvedLane, data: DataSet, frame: Frame) -> list[Primitive]:
    arrays = lane.measured
    assert arrays is not None
    if not data.upwards:
        return _row_of_dots(document, lane, data, frame)
    x, y = arrays.columns[data.across], arrays.columns[data.upwards]
    rows = _relative(frame, x, y)
    found: list[Primitive] = []
    if data.column(data.errors):
        found.append(Stroke(_bars(frame, x, y, arrays.columns[data.errors]), dashed=False))
    kept = rows[arrays.kept]
    held = len(rows) <= MOST_HANDLES and not any(
        column.formula for column in data.columns if column.name in (data.across, data.upwards)
    )
    if lane.lane.style.joined and len(kept) > 1:
        found.append(Stroke(kept.astype(np.float32)))
    if held:
        # All rows, in their order, so that whoever takes hold of one knows which it is.
        shown = np.where(arrays.kept[:, None], rows, np.nan)
        found.append(Dots(shown.astype(np.float32), handle=True))
    else:
        found.append(Dots(_thinned(frame, kept).astype(np.float32), small=len(kept) > MOST_HANDLES))
    out = rows[~arrays.kept]
    if len(out):
        found.append(Dots(_thinned(frame, out).astype(np.float32), hollow=True))
    return found


def _bars(frame: Frame, x: Floats, y: Floats, error: Floats) -> NDArray[np.float32]:
    low, high = _relative(frame, x, y - error), _relative(frame, x, y + error)
    cap = np.array([CAP / frame.width, 0.0])
    gap = np.full_like(low, np.nan)
    parts = [low, high, gap, low - cap, low + cap, gap, high - cap, high + cap, gap]
    whole = np.stack(parts, axis=1).reshape(-1, 2)
    bars: NDArray[np.float32] = whole.astype(np.float32)
    return bars


def _histogram(
    document: Document, lane: ResolvedLane, data: DataSet, frame: Frame
) -> list[Primitive]:
    assert lane.measured is not None
    values = lane.measured.used(data.across)
    width = bin_width(document, data, values)
    if width is None:
        return []
    found = histogram(values, width)
    if len(found.counts) > MOST_BINS:
        return []
    left, right = found.edges[:-1], found.edges[1:]
    low = _relative(frame, left, np.zeros(len(left)))
    high = _relative(frame, right, found.counts.astype(np.float64))
    boxes = np.concatenate([low, high], axis=1)
    gap = np.full((len(low), 2), np.nan)
    corners = [
        low,
        np.stack([low[:, 0], high[:, 1]], axis=1),
        high,
        np.stack([high[:, 0], low[:, 1]], axis=1),
        low,
        gap,
    ]
    outline = np.stack(corners, axis=1).reshape(-1, 2)
    return [
        Patch(boxes.astype(np.float32)),
        Stroke(outline.astype(np.float32), dashed=False),
    ]


def _box(document: Document, lane: ResolvedLane, data: DataSet, frame: Frame) -> list[Primitive]:
    assert lane.measured is not None
    told = summary(lane.measured.used(data.across))
    if not told.count:
        return []
    middle = (LOW + HIGH) / 2
    lines = [
        [
            (told.lower, LOW),
            (told.lower, HIGH),
            (told.upper, HIGH),
            (told.upper, LOW),
            (told.lower, LOW),
        ],
        [(told.median, LOW), (told.median, HIGH)],
        [(told.least, middle), (told.lower, middle)],
        [(told.upper, middle), (told.most, middle)],
        [(told.least, LOW + 0.1), (told.least, HIGH - 0.1)],
        [(told.most, LOW + 0.1), (told.most, HIGH - 0.1)],
    ]
    rows: list[tuple[float, float]] = []
    for line in lines:
        rows += [*line, (np.nan, np.nan)]
    at = np.array(rows)
    return [Stroke(_relative(frame, at[:, 0], at[:, 1]).astype(np.float32), dashed=False)]


def _row_of_dots(
    document: Document, lane: ResolvedLane, data: DataSet, frame: Frame
) -> list[Primitive]:
    """One column as dots, equal numbers above one another."""
    assert lane.measured is not None
    values = np.sort(lane.measured.used(data.across))
    values = values[np.isfinite(values)]
    _, first, counts = np.unique(values, return_index=True, return_counts=True)
    height: Floats = np.arange(1.0, len(values) + 1.0, dtype=np.float64) - np.repeat(first, counts)
    rows = _thinned(frame, _relative(frame, values, height))
    return [Dots(rows.astype(np.float32))]


LOOKS: dict[str, Callable[[Document, ResolvedLane, DataSet, Frame], list[Primitive]]] = {
    "points": _points,
    "histogram": _histogram,
    "box": _box,
    "dots": _row_of_dots,
}
"""How columns are drawn, by the look that was chosen."""
