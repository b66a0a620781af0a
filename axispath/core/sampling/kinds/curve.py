"""Curves with a parameter in a frame, and the point that moves along each."""

from __future__ import annotations

import itertools
from functools import partial

import numpy as np

from axispath.core.arithmetic.floats import float_function
from axispath.core.memory import Memory
from axispath.core.sampling.parametric import Figure, figure
from axispath.core.sampling.primitives import Band, Dots, Primitive, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.curve import Curve, Range, curve_of, range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane

KEPT = 32 << 20  # bytes
PROBES = 1201
HALVINGS = 40
MOST_PARTS = 80  # beyond which parts are not told apart

_figures: Memory[Figure] = Memory(
    KEPT, lambda key, found: 4000 + found.strokes.nbytes + found.band.nbytes
)


def drawn_curve(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """A curve over the range of its parameter, and its moving point."""
    curve, span = curve_of(lane), range_of(lane)
    low, high = span.low.x, span.high.x
    shapes: list[Primitive] = []
    for start, stop, away in _parts(curve, low, high):
        key = (curve.x, curve.y, curve.unit, start, stop, frame)
        found = _figures.found(key, partial(figure, curve, frame, start, stop))
        if len(found.band):
            shapes.append(Band(found.band))
        shapes.append(Stroke(found.strokes, pale=away))
    if lane.lane.at is not None:
        shapes.append(Dots(_placed(curve, span, lane.lane.at, frame), handle=True, large=True))
    return shapes


def _parts(curve: Curve, low: float, high: float) -> list[tuple[float, float, bool]]:
    """A polar curve in parts on which its distance keeps its sign, and whether that is negative."""
    if curve.radius is None:
        return [(low, high, False)]
    distance = float_function(curve.radius, curve.unit)
    theta = np.linspace(low, high, PROBES)
    r = distance(theta)
    with np.errstate(invalid="ignore"):
        at = np.flatnonzero(r[:-1] * r[1:] < 0)
    if len(at) > MOST_PARTS or not (r < 0).any():
        return [(low, high, False)]
    left, right, below = theta[at], theta[at + 1], r[at] < 0
    for _ in range(HALVINGS):
        middle = (left + right) / 2
        same = (distance(middle) < 0) == below
        left, right = np.where(same, middle, left), np.where(same, right, middle)
    cuts = [low, *(float(cut) for cut in right), high]
    middles = distance(np.array([(a + b) / 2 for a, b in itertools.pairwise(cuts)]))
    return [
        (a, b, bool(value < 0))
        for (a, b), value in zip(itertools.pairwise(cuts), middles, strict=True)
    ]


def _placed(curve: Curve, span: Range, at: float, frame: Frame) -> np.ndarray:
    x, y = curve.places(np.array([min(max(at, span.low.x), span.high.x)]))
    across = (x - frame.left) / (frame.right - frame.left)
    upwards = (y - frame.bottom) / (frame.top - frame.bottom)
    return np.clip(np.stack([across, upwards], axis=1), -50, 50).astype(np.float32)
