"""Functions as curves in a frame, within their domains, and the samples a student asked for."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.memory import Memory
from axispath.core.sampling.curve import Drawn, drawn, drawn_rows
from axispath.core.sampling.primitives import Band, Dots, Patch, Primitive, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.fitted import Fitted
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.samples import MOST, sample_amount
from axispath.core.sheet.states import States

KEPT = 32 << 20  # bytes
MOST_SQUARES = 500
PLACES = 160  # across a view, at which a band is computed
FAR = 20.0  # views beside the view, beyond which a square is not drawn
STEP = 300  # bytes that a step of a program takes, roughly


def _weight(key: tuple[Program, Any], found: Drawn) -> int:
    return len(key[0].steps) * STEP + found.strokes.nbytes + found.band.nbytes


_pictures: Memory[Drawn] = Memory(KEPT, _weight)
NO_SAMPLES = np.empty((0, 2), dtype=np.float32)


def drawn_function(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """A curve and its bands; faint behind its samples where it is drawn from some."""
    curve, sampled = drawn_lane(lane, frame), bool(lane.lane.samples.by)
    found: list[Primitive] = []
    if len(curve.band):
        found.append(Band(curve.band, faint=sampled))
    found.append(Stroke(curve.strokes, faint=sampled))
    if sampled:
        rows = drawn_samples(document, lane, frame)
        if lane.lane.samples.joined:
            found.append(Stroke(rows, dashed=False))
        found.append(Dots(rows))
    if lane.fitted is not None:
        found += _of_fit(lane.fitted, frame)
    return found


def _of_fit(fitted: Fitted, frame: Frame) -> list[Primitive]:
    found: list[Primitive] = []
    if fitted.fit.band:
        found.append(_expected(fitted, frame))
    if fitted.fit.squares:
        found.append(_squares(fitted, frame))
    return found


def _expected(fitted: Fitted, frame: Frame) -> Band:
    """Where a further point is expected, with 95 of 100."""
    result, times = fitted.result, fitted.result.interval()
    x = np.linspace(frame.left, frame.right, PLACES)
    values = fitted.shape.values(x, result.parameters)
    spread = np.hypot(result.spread(fitted.shape.design(x, result.parameters)), result.deviation)
    across = (x - frame.left) / (frame.right - frame.left)
    ends = [
        np.clip((values + sign * times * spread - frame.bottom) / (frame.top - frame.bottom), -9, 9)
        for sign in (-1, 1)
    ]
    rows = np.stack([across, ends[0], across, ends[1]], axis=1)
    rows[~np.isfinite(rows).all(axis=1)] = np.nan
    return Band(rows.astype(np.float32), faint=True)


def _squares(fitted: Fitted, frame: Frame) -> Patch:
    """A square on the residual of each point, as wide on the screen as it is high."""
    result = fitted.result
    x, y = result.x[:MOST_SQUARES], result.y[:MOST_SQUARES]
    curve = y - result.residuals[:MOST_SQUARES]
    across = (x - frame.left) / (frame.right - frame.left)
    ends = [(part - frame.bottom) / (frame.top - frame.bottom) for part in (y, curve)]
    low, high = np.minimum(*ends), np.maximum(*ends)
    wide = (high - low) * frame.height / frame.width
    rows = np.stack([across, low, across + wide, high], axis=1)
    seen = np.isfinite(rows).all(axis=1) & (np.abs(rows) < FAR).all(axis=1)
    return Patch(rows[seen].astype(np.float32))


def drawn_in_states(
    states: States, lane: ResolvedLane, frame: Frame
) -> list[list[Primitive]] | None:
    """A function in many states of what is turned, all sampled together."""
    moved = states.moved(lane)
    rows = None if moved is None else moved.rows(0)
    if rows is None:
        return None
    return [_strokes(curve) for curve in drawn_rows(rows, frame, *_reach(lane))]


def _strokes(curve: Drawn) -> list[Primitive]:
    found: list[Primitive] = [Band(curve.band)] if len(curve.band) else []
    found.append(Stroke(curve.strokes))
    return found


def _reach(lane: ResolvedLane) -> tuple[float, float]:
    """From where to where a curve goes."""
    low, high = lane.ends
    return (_inside(low, np.inf) if low else -np.inf, _inside(high, -np.inf) if high else np.inf)


def drawn_lane(lane: ResolvedLane, frame: Frame) -> Drawn:
    """A lane's curve on its domain; remembered, since most movements change few lanes."""
    start, stop = _reach(lane)
    key = (lane.program, lane.unit, start, stop, frame)
    return _pictures.found(key, lambda: drawn(lane.floats, lane.balls, frame, start, stop))


def _inside(end: End, inwards: float) -> float:
    """An end as far as the curve goes: not to an end that does not belong to the domain."""
    return end.x if end.closed else float(np.nextafter(end.x, inwards))


def drawn_samples(document: Document, lane: ResolvedLane, frame: Frame) -> NDArray[np.float32]:
    """The samples a lane is drawn from, relative to the view, shape (n, 2).

    They run over its domain, or over the view where that has no end. NaN where there is no value.
    """
    samples = lane.lane.samples
    try:
        amount = sample_amount(document, samples)
    except EditRefused:  # a value that the amount used is gone
        return NO_SAMPLES
    low, high = lane.ends
    start, stop = low.x if low else frame.left, high.x if high else frame.right
    if not amount or not start <= stop:
        return NO_SAMPLES
    if samples.by == "count":
        x: NDArray[np.float64] = np.linspace(start, stop, int(amount))
    else:
        count = min(int((stop - start) / amount * (1 + 1e-12)) + 1, MOST)
        x = start + amount * np.arange(count, dtype=np.float64)
    y = lane.floats(x)
    for end in (low, high):
        if end is not None and not end.closed:
            y[x == end.x] = np.nan
    across = (x - frame.left) / (frame.right - frame.left)
    upwards = (y - frame.bottom) / (frame.top - frame.bottom)
    rows = np.stack([across, upwards], axis=1)
    rows[~np.isfinite(y)] = np.nan
    return rows.astype(np.float32)
