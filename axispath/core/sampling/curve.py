"""A function as a polyline, adaptive in pixels.

A stroke is drawn between two samples only where the curve is straight to a third of a
pixel, or where a ball enclosure proves that the function stays finite in between; so no
stroke crosses a pole. Samples are spaced unevenly on purpose: a regular grid can fall into
step with a fast oscillation and draw a slow wave that is not there. Where the curve is denser
than pixels it is a band: see dense.py.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import DOUBLE, BallFunction, box, precision
from axispath.core.arithmetic.floats import FloatFunction
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.sampling.dense import dense_columns
from axispath.core.sampling.view import Frame

Floats = NDArray[np.float64]

SPACING = 1.5  # pixels between first samples
STRAIGHT = 0.3  # pixels a curve may leave its chord by
MAX_DEPTH = 8
MAX_SAMPLES = 14_000
MAX_PROOFS = 300
BEYOND = 4.0  # picture heights above or below the view at which a sample is held
SPLIT = 0.47
EDGE_STEPS = 48


@dataclass(frozen=True, slots=True)
class Drawn:
    """A curve in a frame, as pairs relative to the view: 0 to 1 from left to right and from
    bottom to top, so that a deep zoom loses nothing in 32 bits.

    ``strokes`` has the shape (n, 2); a row of NaN ends a stroke. ``band`` has the shape (m, 4),
    x and lowest, x and highest; a row of NaN ends a band.
    """

    strokes: NDArray[np.float32]
    band: NDArray[np.float32]


NOTHING = Drawn(np.empty((0, 2), dtype=np.float32), np.empty((0, 4), dtype=np.float32))


def drawn(
    function: FloatFunction,
    balls: BallFunction,
    frame: Frame,
    low: float = -np.inf,
    high: float = np.inf,
    also: Sequence[float] = (),
) -> Drawn:
    """A function on [``low``, ``high``] within the frame.

    ``also`` are places that must be among the samples, such as landmarks.
    """
    start, stop = max(low, frame.left), min(high, frame.right)
    if not start <= stop:
        return NOTHING
    x = _first_samples(frame, start, stop, also)
    y = _heights(function, x, frame)
    pixel = (frame.right - frame.left) / frame.width

    def heights(places: Floats) -> Floats:
        return _heights(function, places, frame)

    columns, lowest, highest = dense_columns(heights, x, y, frame.left, pixel)
    dense = np.zeros(frame.width + 2, dtype=bool)
    dense[columns] = True
    dense[frame.width] = dense[frame.width - 1]  # the right edge itself
    x, y, unresolved = _refined(function, frame, x, y, dense)
    x, y, unresolved = _with_edges(function, frame, x, y, unresolved)
    banded = _within(dense, frame, x)
    gaps = sorted({*_gaps(balls, x, y, unresolved & ~banded), *np.flatnonzero(banded).tolist()})
    edges = np.clip(frame.left + np.stack([columns, columns + 1]) * pixel, start, stop)
    y[np.concatenate([banded[:1], banded]) & np.concatenate([banded, banded[-1:]])] = np.nan
    return Drawn(_relative(frame, x, y, gaps), _band(frame, columns, edges, lowest, highest))


def _within(dense: NDArray[np.bool_], frame: Frame, x: Floats) -> NDArray[np.bool_]:
    """Stretches between samples that lie in dense columns."""
    if not dense.any():
        return np.zeros(len(x) - 1, dtype=bool)
    at = np.floor((x - frame.left) / (frame.right - frame.left) * frame.width).astype(np.int64)
    inside = dense[np.clip(at, 0, len(dense) - 1)]
    both: NDArray[np.bool_] = inside[:-1] & inside[1:]
    return both


def _band(
    frame: Frame, columns: NDArray[np.int64], edges: Floats, low: Floats, high: Floats
) -> NDArray[np.float32]:
    """Dense columns as rows of a band; each column gives its left and its right edge."""
    if not len(columns):
        return NOTHING.band
    across = (edges - frame.left) / (frame.right - frame.left)
    rows = np.empty((2 * len(columns), 4))
    rows[0::2, 0] = rows[0::2, 2] = across[0]
    rows[1::2, 0] = rows[1::2, 2] = across[1]
    rows[:, 1], rows[:, 3] = np.repeat(low / frame.height, 2), np.repeat(high / frame.height, 2)
    ends = 2 * (np.flatnonzero(np.diff(columns) > 1) + 1)
    return np.insert(rows, ends, np.nan, axis=0).astype(np.float32)


def _first_samples(frame: Frame, start: float, stop: float, also: Sequence[float]) -> Floats:
    share = (stop - start) / (frame.right - frame.left)
    count = max(int(frame.width * share / SPACING) + 2, 3)
    even = np.linspace(0.0, 1.0, count)
    uneven = even + np.sin(np.arange(count) * 2.399) * (0.3 / count)
    uneven[0], uneven[-1] = 0.0, 1.0
    x = start + (stop - start) * uneven
    x[-1] = stop
    inside = [place for place in also if start < place < stop]
    return np.unique(np.concatenate([x, inside])) if inside else x


def _heights(function: FloatFunction, x: Floats, frame: Frame) -> Floats:
    """Heights in pixels above the bottom of the view; NaN where undefined."""
    scale = frame.height / (frame.top - frame.bottom)
    with np.errstate(all="ignore"):
        pixels = (function(x) - frame.bottom) * scale
    limit = (BEYOND + 1) * frame.height
    return np.clip(pixels, -limit, limit)


def _refined(
    function: FloatFunction, frame: Frame, x: Floats, y: Floats, dense: NDArray[np.bool_]
) -> tuple[Floats, Floats, NDArray[np.bool_]]:
    """Split every stretch that is not straight yet; the flags mark those that never were.

    Only the stretches that are still bent are carried along; what was found is sorted in at once.
    """
    at = np.flatnonzero(_suspicious(y) & _may_show(y, frame) & ~_within(dense, frame, x))
    ends = np.stack([x[at], x[at + 1], y[at], y[at + 1]])  # left, right, and their heights
    places, heights, count = [x], [y], len(x)
    for _ in range(MAX_DEPTH):
        if not ends.size or count + ends.shape[1] > MAX_SAMPLES:
            break
        left, right, low, high = ends
        middle = left + (right - left) * SPLIT
        height = _heights(function, middle, frame)
        places.append(middle)
        heights.append(height)
        count += len(middle)
        bent = ~(np.abs(height - (low + (high - low) * SPLIT)) <= STRAIGHT)
        halves = np.stack([middle, height])[:, bent]
        first, second = ends[:, bent], ends[:, bent]
        first[1], first[3] = halves
        second[0], second[2] = halves
        ends = np.concatenate([first, second], axis=1)
        ends = ends[:, _shows(ends[2], ends[3], frame)]
    x = np.concatenate(places)
    order = np.argsort(x, kind="stable")
    x, y = x[order], np.concatenate(heights)[order]
    unresolved = np.zeros(len(x) - 1, dtype=bool)
    unresolved[np.minimum(np.searchsorted(x, ends[0]), len(x) - 2)] = True
    return x, y, unresolved


def _suspicious(y: Floats) -> NDArray[np.bool_]:
    """Stretches beside a bend, a steep rise or an undefined sample."""
    bend = np.abs(np.diff(y, 2)) / 8
    curved = np.zeros(len(y), dtype=bool)
    curved[1:-1] = ~(bend <= STRAIGHT)
    curved[0], curved[-1] = curved[1], curved[-2]
    steep = ~(np.abs(np.diff(y)) <= 40)
    return curved[:-1] | curved[1:] | steep


def _may_show(y: Floats, frame: Frame) -> NDArray[np.bool_]:
    """Stretches that are not wholly above, wholly below or wholly undefined."""
    return _shows(y[:-1], y[1:], frame)


def _shows(first: Floats, second: Floats, frame: Frame) -> NDArray[np.bool_]:
    """The same for pairs of heights."""
    hidden = (first > frame.height) & (second > frame.height)
    hidden |= (first < 0) & (second < 0)
    hidden |= np.isnan(first) & np.isnan(second)
    return ~hidden


def _with_edges(
    function: FloatFunction, frame: Frame, x: Floats, y: Floats, unresolved: NDArray[np.bool_]
) -> tuple[Floats, Floats, NDArray[np.bool_]]:
    """Where defined turns into undefined, walk up to the edge by bisection."""
    missing = np.isnan(y)
    at = np.flatnonzero(missing[:-1] != missing[1:])
    if not len(at):
        return x, y, unresolved
    at = at[:MAX_PROOFS]
    inner = np.where(missing[at], x[at + 1], x[at])
    outer = np.where(missing[at], x[at], x[at + 1])
    height = np.where(missing[at], y[at + 1], y[at])
    for _ in range(EDGE_STEPS):
        middle = inner + (outer - inner) * 0.5
        found = _heights(function, middle, frame)
        defined = ~np.isnan(found)
        inner, height = np.where(defined, middle, inner), np.where(defined, found, height)
        outer = np.where(defined, outer, middle)
    x, y = np.insert(x, at + 1, inner), np.insert(y, at + 1, height)
    # The stretch between the last defined sample and the edge has been walked: draw it.
    return x, y, np.insert(unresolved, at + 1, False)


def _gaps(balls: BallFunction, x: Floats, y: Floats, unresolved: NDArray[np.bool_]) -> list[int]:
    """Stretches that must not be drawn: still bent, and not proven finite."""
    gaps = []
    suspects = np.flatnonzero(unresolved & ~np.isnan(y[:-1]) & ~np.isnan(y[1:]))
    if len(suspects) > MAX_PROOFS:
        return []  # a fast oscillation that ran out of samples: dense strokes are its picture
    with precision(DOUBLE):
        for index in suspects:
            try:
                finite = balls.value(box(float(x[index]), float(x[index + 1]))).is_finite()
            except OutsideDomain:
                finite = False
            if not finite:
                gaps.append(int(index))
    return gaps


def _relative(frame: Frame, x: Floats, y: Floats, gaps: list[int]) -> NDArray[np.float32]:
    across = (x - frame.left) / (frame.right - frame.left)
    rows = np.stack([across, y / frame.height], axis=1)
    if gaps:
        rows = np.insert(rows, np.array(gaps) + 1, np.nan, axis=0)
    missing = np.isnan(rows[:, 1])
    rows[missing] = np.nan
    again = np.zeros(len(rows), dtype=bool)
    again[1:] = missing[1:] & missing[:-1]
    return rows[~again].astype(np.float32)
