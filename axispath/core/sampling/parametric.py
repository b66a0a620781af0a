"""A moving point as a polyline, adaptive in pixels, and its dense parts as an even shade.

First samples lie evenly along the parameter; a stretch is halved while the curve leaves its chord
or the chord is long. Where a stretch stays long to the last, a ball enclosure has to prove that
both coordinates are finite in between, or the stroke is broken there.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import DOUBLE, box, precision
from axispath.core.arithmetic.places import uneven
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.sampling.shade import shaded
from axispath.core.sampling.view import Frame
from axispath.core.sheet.curve import Curve

Floats = NDArray[np.float64]

FIRST = 240
LARGEST = 60_000
LONGEST = 24.0  # pixels between neighbours
STRAIGHT = 0.2  # pixels a curve may leave its chord by
PROBES = 4  # samples between neighbours that tell how long a curve is
DEPTH = 12
MAX_PROOFS = 200
BEYOND = 4.0  # picture sizes beside the view at which a sample is held
UNEVEN = 0.47


@dataclass(frozen=True, slots=True)
class Figure:
    """Strokes, shape (n, 2), and bands, shape (m, 4), relative to the view; NaN separates parts."""

    strokes: NDArray[np.float32]
    band: NDArray[np.float32]


def figure(curve: Curve, frame: Frame, low: float, high: float) -> Figure:
    """A curve for parameters from ``low`` to ``high`` in a frame."""
    t = _first(curve, frame, low, high)
    x, y = _pixels(curve, frame, t)
    t, x, y, coarse = _refined(curve, frame, t, x, y)
    x, y = _broken(curve, t, x, y, coarse)
    x, y, band = shaded(x, y, frame.width, frame.height)
    rows = np.stack([x / frame.width, y / frame.height], axis=1)
    return Figure(_joined(rows), band)


def _first(curve: Curve, frame: Frame, low: float, high: float) -> Floats:
    """First samples: as many as it takes for the length of the curve to be nearly known."""
    count = FIRST
    length = 0.0
    while True:
        t: Floats = low + (high - low) * uneven(count)
        t[-1] = high
        x, y = _pixels(curve, frame, t)
        with np.errstate(invalid="ignore"):
            steps = np.hypot(np.diff(x), np.diff(y))
        now = float(np.nansum(np.minimum(steps, 4 * frame.width)))
        if count * PROBES > LARGEST or now <= length * 1.05 or now < 2 * LONGEST * count / PROBES:
            return t
        length = now
        count *= PROBES


def _pixels(curve: Curve, frame: Frame, t: Floats) -> tuple[Floats, Floats]:
    with np.errstate(all="ignore"):
        x, y = curve.places(t)
        x = (x - frame.left) * (frame.width / (frame.right - frame.left))
        y = (y - frame.bottom) * (frame.height / (frame.top - frame.bottom))
    wide, tall = (BEYOND + 1) * frame.width, (BEYOND + 1) * frame.height
    return np.clip(x, -wide, wide), np.clip(y, -tall, tall)


def _refined(
    curve: Curve, frame: Frame, t: Floats, x: Floats, y: Floats
) -> tuple[Floats, Floats, Floats, NDArray[np.bool_]]:
    """Halve every stretch that is bent or long; the flags mark those that stayed so."""
    ends = np.stack([t[:-1], t[1:], x[:-1], x[1:], y[:-1], y[1:]])
    ends = ends[:, _rough(x, y, frame)]
    found = [np.stack([t, x, y])]
    count = len(t)
    for _ in range(DEPTH):
        if not ends.size or count + ends.shape[1] > 2 * LARGEST:
            break
        middle = ends[0] + (ends[1] - ends[0]) * UNEVEN
        mx, my = _pixels(curve, frame, middle)
        found.append(np.stack([middle, mx, my]))
        count += len(middle)
        first, second = ends.copy(), ends.copy()
        first[1], first[3], first[5] = middle, mx, my
        second[0], second[2], second[4] = middle, mx, my
        off = np.hypot(
            mx - (ends[2] + (ends[3] - ends[2]) * UNEVEN),
            my - (ends[4] + (ends[5] - ends[4]) * UNEVEN),
        )
        with np.errstate(invalid="ignore"):
            long = np.hypot(ends[3] - ends[2], ends[5] - ends[4]) > LONGEST
            bent = ~(off <= STRAIGHT) | long
        ends = np.concatenate([first[:, bent], second[:, bent]], axis=1)
        ends = ends[:, _shows(ends, frame)]
    rows = np.concatenate(found, axis=1)
    rows = rows[:, np.argsort(rows[0], kind="stable")]
    coarse = np.zeros(rows.shape[1] - 1, dtype=bool)
    if ends.size:
        coarse[np.minimum(np.searchsorted(rows[0], ends[0]), len(coarse) - 1)] = True
    return rows[0], rows[1], rows[2], coarse


def _rough(x: Floats, y: Floats, frame: Frame) -> NDArray[np.bool_]:
    """Stretches beside a bend, a long step or a sample without a place."""
    with np.errstate(invalid="ignore"):
        bend = np.hypot(np.diff(x, 2), np.diff(y, 2)) / 8
        long = ~(np.hypot(np.diff(x), np.diff(y)) <= LONGEST)
    curved = np.zeros(len(x), dtype=bool)
    curved[1:-1] = ~(bend <= STRAIGHT)
    curved[0], curved[-1] = curved[1], curved[-2]
    rough: NDArray[np.bool_] = curved[:-1] | curved[1:] | long
    stacked = np.stack([x[:-1], x[1:], x[:-1], x[1:], y[:-1], y[1:]])
    return rough & _shows(stacked, frame)


def _shows(ends: Floats, frame: Frame) -> NDArray[np.bool_]:
    """Stretches that are not wholly on one side of the view, nor wholly undefined."""
    _, _, x, x2, y, y2 = ends
    hidden = ((x < 0) & (x2 < 0)) | ((x > frame.width) & (x2 > frame.width))
    hidden |= ((y < 0) & (y2 < 0)) | ((y > frame.height) & (y2 > frame.height))
    hidden |= np.isnan(x) & np.isnan(x2)
    shown: NDArray[np.bool_] = ~hidden
    return shown


def _broken(
    curve: Curve, t: Floats, x: Floats, y: Floats, coarse: NDArray[np.bool_]
) -> tuple[Floats, Floats]:
    """The line with a gap in each stretch that is not proven to go on."""
    steps: Floats = np.hypot(np.diff(x), np.diff(y))
    suspects = np.flatnonzero(np.where(coarse, steps, 0.0) > 2)
    if not len(suspects) or len(suspects) > MAX_PROOFS:
        return x, y
    gaps = []
    with precision(DOUBLE):
        for k in suspects:
            over = box(float(t[k]), float(t[k + 1]))
            try:
                finite = all(balls.value(over).is_finite() for balls in curve.balls)
            except OutsideDomain:
                finite = False
            if not finite:
                gaps.append(int(k) + 1)
    return np.insert(x, gaps, np.nan), np.insert(y, gaps, np.nan)


def _joined(rows: NDArray[np.float64]) -> NDArray[np.float32]:
    """Rows without repeated gaps."""
    missing: NDArray[np.bool_] = np.any(np.isnan(rows), axis=1)
    rows[missing] = np.nan
    again = np.zeros(len(rows), dtype=bool)
    again[1:] = missing[1:] & missing[:-1]
    found: NDArray[np.float32] = rows[~again].astype(np.float32)
    return found
