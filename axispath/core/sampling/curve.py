"""A function as a polyline, adaptive in pixels; many functions of one shape in one go.

A stroke is drawn between two samples only where the curve is straight to a third of a
pixel, or where a ball enclosure proves that the function stays finite in between; so no
stroke crosses a pole. Samples are spaced unevenly on purpose: a regular grid can fall into
step with a fast oscillation and draw a slow wave that is not there. Where the curve is denser
than pixels it is a band: see dense.py.

All functions (``rows.py``) are carried along in the same arrays, each sample with the row that it
is of; what is drawn of one does not depend on which others are drawn with it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import DOUBLE, BallFunction, box, precision
from axispath.core.arithmetic.floats import FloatFunction
from axispath.core.arithmetic.places import uneven
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.sampling.dense import Dense, Heights, crowded, dense_among
from axispath.core.sampling.rows import Floats, Index, OneRow, Rows
from axispath.core.sampling.thinned import thinned
from axispath.core.sampling.view import Frame

SPACING = 1.5  # pixels between first samples
STRAIGHT = 0.3  # pixels a curve may leave its chord by
STEEP = 40  # pixels between two samples from which on they are looked at again
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


@dataclass(slots=True)
class _Samples:
    """Samples of all rows, by row and from left to right. ``unresolved`` are those after which the
    curve was never seen to be straight.
    """

    x: Floats
    y: Floats
    row: Index
    unresolved: NDArray[np.bool_]


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
    return drawn_rows(OneRow(function, balls), frame, low, high, also)[0]


def drawn_rows(
    rows: Rows,
    frame: Frame,
    low: float = -np.inf,
    high: float = np.inf,
    also: Sequence[float] = (),
) -> list[Drawn]:
    """Each of some functions on [``low``, ``high``] within the frame."""
    start, stop = max(low, frame.left), min(high, frame.right)
    if not start <= stop:
        return [NOTHING] * rows.count
    x = first_places(frame, start, stop, also)
    y = _in_pixels(frame, rows.grid(x))
    pixel = (frame.right - frame.left) / frame.width
    dense = {
        row: dense_among(columns, _heights_of(rows, row, frame), start, stop, frame.left, pixel)
        for row, columns in crowded(x, y, frame.left, pixel).items()
    }
    found = _refined(rows, frame, x, y, dense)
    _with_edges(rows, frame, found)
    banded = _within(dense, frame, found.x, found.row)
    ends = np.flatnonzero(found.row[:-1] != found.row[1:])
    banded[ends] = False
    gaps = _gaps(rows, found, banded)
    if banded.any():
        hidden = np.concatenate([banded[:1], banded]) & np.concatenate([banded, banded[-1:]])
        found.y[hidden] = np.nan
    gaps[banded] = True
    gaps[ends] = True
    strokes = _relative(frame, found, gaps)
    return [
        Drawn(one, _band(frame, dense.get(row), start, stop, pixel))
        for row, one in enumerate(strokes)
    ]


def _heights_of(rows: Rows, row: int, frame: Frame) -> Heights:
    def heights(places: Floats) -> Floats:
        return _in_pixels(frame, rows.at(places, np.full(places.shape, row)))

    return heights


def _within(dense: dict[int, Dense], frame: Frame, x: Floats, row: Index) -> NDArray[np.bool_]:
    """Stretches between samples that lie in dense columns."""
    inside = np.zeros(len(x), dtype=bool)
    for one, found in dense.items():
        mask = np.zeros(frame.width + 2, dtype=bool)
        mask[found.columns] = True
        mask[frame.width] = mask[frame.width - 1]  # the right edge itself
        mine = slice(*np.searchsorted(row, [one, one + 1]))
        at = np.floor((x[mine] - frame.left) / (frame.right - frame.left) * frame.width)
        inside[mine] = mask[np.clip(at.astype(np.int64), 0, len(mask) - 1)]
    both: NDArray[np.bool_] = inside[:-1] & inside[1:]
    return both


def _band(
    frame: Frame, dense: Dense | None, start: float, stop: float, pixel: float
) -> NDArray[np.float32]:
    """Dense columns as rows of a band; each column gives its left and its right edge."""
    if dense is None or not len(dense.columns):
        return NOTHING.band
    columns = dense.columns
    edges = np.clip(frame.left + np.stack([columns, columns + 1]) * pixel, start, stop)
    across = (edges - frame.left) / (frame.right - frame.left)
    rows = np.empty((2 * len(columns), 4))
    rows[0::2, 0] = rows[0::2, 2] = across[0]
    rows[1::2, 0] = rows[1::2, 2] = across[1]
    rows[:, 1] = np.repeat(dense.lowest / frame.height, 2)
    rows[:, 3] = np.repeat(dense.highest / frame.height, 2)
    ends = 2 * (np.flatnonzero(np.diff(columns) > 1) + 1)
    return np.insert(rows, ends, np.nan, axis=0).astype(np.float32)


def first_places(
    frame: Frame,
    start: float | None = None,
    stop: float | None = None,
    also: Sequence[float] = (),
) -> Floats:
    """Where a function is looked at first, over a part of the view or all of it."""
    start = frame.left if start is None else start
    stop = frame.right if stop is None else stop
    share = (stop - start) / (frame.right - frame.left)
    count = max(int(frame.width * share / SPACING) + 2, 3)
    x = start + (stop - start) * uneven(count)
    x[-1] = stop
    inside = [place for place in also if start < place < stop]
    return np.unique(np.concatenate([x, inside])) if inside else x


def _in_pixels(frame: Frame, values: Floats) -> Floats:
    """Heights in pixels above the bottom of the view; NaN where undefined."""
    scale = frame.height / (frame.top - frame.bottom)
    limit = (BEYOND + 1) * frame.height
    with np.errstate(all="ignore"):
        pixels = values - frame.bottom
        pixels *= scale
        np.clip(pixels, -limit, limit, out=pixels)
    return pixels


def _refined(rows: Rows, frame: Frame, x: Floats, y: Floats, dense: dict[int, Dense]) -> _Samples:
    """Split every stretch that is not straight yet; the flags mark those that never were.

    Only the stretches that are still bent are carried along; what was found is sorted in at once.
    """
    count, wide = y.shape
    wanted = _suspicious(y) & _shows(y[:, :-1], y[:, 1:], frame)
    flat = np.tile(x, count)
    every = np.repeat(np.arange(count), wide)
    if dense:
        banded = np.append(_within(dense, frame, flat, every), False).reshape(count, wide)
        wanted &= ~banded[:, :-1]
    row, at = np.nonzero(wanted)
    ends = np.stack([x[at], x[at + 1], y[row, at], y[row, at + 1]])
    places, heights, owners = [flat], [y.ravel()], [every]
    given_up: list[tuple[Floats, Index]] = []
    held = np.full(count, wide)
    for _ in range(MAX_DEPTH):
        waiting = held + np.bincount(row, minlength=count)
        if (waiting > MAX_SAMPLES).any():
            full = waiting[row] > MAX_SAMPLES
            given_up.append((ends[0, full], row[full]))
            ends, row = ends[:, ~full], row[~full]
        if not ends.size:
            break
        left, right, low, high = ends
        middle = left + (right - left) * SPLIT
        height = _in_pixels(frame, rows.at(middle, row))
        places.append(middle)
        heights.append(height)
        owners.append(row)
        held += np.bincount(row, minlength=count)
        bent = ~(np.abs(height - (low + (high - low) * SPLIT)) <= STRAIGHT)
        first, second, owner = ends[:, bent], ends[:, bent], row[bent]
        first[1], first[3] = second[0], second[2] = middle[bent], height[bent]
        ends, row = np.concatenate([first, second], axis=1), np.concatenate([owner, owner])
        there = _shows(ends[2], ends[3], frame)
        ends, row = ends[:, there], row[there]
    given_up.append((ends[0], row))
    return _sorted(x, places, heights, owners, given_up)


def _sorted(
    x: Floats,
    places: list[Floats],
    heights: list[Floats],
    owners: list[Index],
    given_up: list[tuple[Floats, Index]],
) -> _Samples:
    start, wide = x[0], x[-1] - x[0]

    def key(place: Floats, row: Index) -> Floats:
        """Rows one after the other, each from left to right."""
        found: Floats = (place - start) * ((1 - 2.0**-30) / wide if wide else 0.0)
        found += row
        return found

    all_x, all_rows = np.concatenate(places), np.concatenate(owners)
    keys = key(all_x, all_rows)
    if len(places) > 1:
        order = np.argsort(keys, kind="stable")
        keys, all_x, all_rows = keys[order], all_x[order], all_rows[order]
        y = np.concatenate(heights)[order]
    else:
        y = heights[0].copy()
    unresolved = np.zeros(len(all_x) - 1, dtype=bool)
    open_x, open_rows = (np.concatenate(part) for part in zip(*given_up, strict=True))
    if len(open_x):
        at = np.searchsorted(keys, key(open_x, open_rows))
        unresolved[np.minimum(at, len(all_x) - 2)] = True
    return _Samples(all_x, y, all_rows, unresolved)


def _suspicious(y: Floats) -> NDArray[np.bool_]:
    """Stretches beside a bend, a steep rise or an undefined sample; shape (rows, places − 1)."""
    step = np.diff(y, axis=1)
    # A comparison with NaN is false, so that what is undefined is suspicious.
    curved = np.empty(y.shape, dtype=bool)
    np.less_equal(np.abs(np.diff(step, axis=1)), 8 * STRAIGHT, out=curved[:, 1:-1])
    curved[:, 0], curved[:, -1] = curved[:, 1], curved[:, -2]
    calm = curved[:, :-1] & curved[:, 1:] & (np.abs(step) <= STEEP)
    return ~calm


def _shows(first: Floats, second: Floats, frame: Frame) -> NDArray[np.bool_]:
    """Stretches that are not wholly above, wholly below or wholly undefined, by their ends."""
    hidden = (first > frame.height) & (second > frame.height)
    hidden |= (first < 0) & (second < 0)
    hidden |= np.isnan(first) & np.isnan(second)
    return ~hidden


def _with_edges(rows: Rows, frame: Frame, found: _Samples) -> None:
    """Where defined turns into undefined, walk up to the edge by bisection."""
    missing = np.isnan(found.y)
    if not missing.any():
        return
    same = found.row[:-1] == found.row[1:]
    at = np.flatnonzero((missing[:-1] != missing[1:]) & same)
    if not len(at):
        return
    row = found.row[at]
    rank = np.arange(len(at)) - np.searchsorted(row, row)
    at, row = at[rank < MAX_PROOFS], row[rank < MAX_PROOFS]
    inner = np.where(missing[at], found.x[at + 1], found.x[at])
    outer = np.where(missing[at], found.x[at], found.x[at + 1])
    height = np.where(missing[at], found.y[at + 1], found.y[at])
    for _ in range(EDGE_STEPS):
        middle = inner + (outer - inner) * 0.5
        here = _in_pixels(frame, rows.at(middle, row))
        defined = ~np.isnan(here)
        inner, height = np.where(defined, middle, inner), np.where(defined, here, height)
        outer = np.where(defined, outer, middle)
    found.x, found.y = np.insert(found.x, at + 1, inner), np.insert(found.y, at + 1, height)
    found.row = np.insert(found.row, at + 1, row)
    # The stretch between the last defined sample and the edge has been walked: draw it.
    found.unresolved = np.insert(found.unresolved, at + 1, False)


def _gaps(rows: Rows, found: _Samples, banded: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Stretches that must not be drawn: still bent, and not proven finite."""
    gaps = np.zeros(len(found.unresolved), dtype=bool)
    defined = ~np.isnan(found.y)
    suspects = np.flatnonzero(found.unresolved & ~banded & defined[:-1] & defined[1:])
    if not len(suspects):
        return gaps
    owners = found.row[suspects]
    with precision(DOUBLE):
        for row in np.unique(owners):
            mine = suspects[owners == row]
            if len(mine) > MAX_PROOFS:
                continue  # a fast oscillation out of samples: dense strokes are its picture
            balls = rows.balls(int(row))
            for index in mine:
                try:
                    finite = balls.value(box(float(found.x[index]), float(found.x[index + 1])))
                    gaps[index] = not finite.is_finite()
                except OutsideDomain:
                    gaps[index] = True
    return gaps


def _relative(frame: Frame, found: _Samples, gaps: NDArray[np.bool_]) -> list[NDArray[np.float32]]:
    """The strokes of each row, without samples that do not show."""
    count = int(found.row[-1]) + 1
    across = (found.x - frame.left) * (frame.width / (frame.right - frame.left))
    broken = np.append(gaps, True)
    kept = thinned(across, found.y, broken, frame.height)
    x, y, row, broken = across[kept], found.y[kept], found.row[kept], broken[kept]
    missing = np.isnan(y)
    rows = np.empty((len(x), 2), dtype=np.float32)
    rows[:, 0], rows[:, 1] = x / frame.width, y / frame.height
    rows[missing] = np.nan
    ends = np.searchsorted(row, np.arange(count + 1))
    # A row of NaN ends a stroke; one is enough.
    again = np.zeros(len(rows), dtype=bool)
    again[1:] = missing[1:] & missing[:-1]
    again[ends[:-1]] = False
    cuts = broken & ~missing
    cuts[:-1] &= ~missing[1:]
    cuts[ends[1:] - 1] = False
    if not (again.any() or cuts.any()):
        return np.split(rows, ends[1:-1])
    parts = []
    for start, stop in pairwise(ends):
        one = rows[start:stop][~again[start:stop]]
        at = np.flatnonzero(cuts[start:stop][~again[start:stop]])
        parts.append(np.insert(one, at + 1, np.nan, axis=0) if len(at) else one)
    return parts
