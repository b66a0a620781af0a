"""Landmarks of a curve as a sampling sees them, for as long as something moves."""

from __future__ import annotations

import numpy as np

from axispath.core.path.curves.round import round_of
from axispath.core.search.landmark import Certainty, Kind, Landmark, Method, Path
from axispath.core.sheet.curve import Curve, Floats, Range

SAMPLES = 1200
MOST = 200


def quick_curve(curve: Curve, span: Range) -> Path:
    """Where a sampling meets the axes and turns. May miss some; crossings are left to the proof."""
    around = round_of(curve, span)
    low, high = around.low.x, around.high.x
    t = np.linspace(low, high, SAMPLES)
    x, y = curve.places(t)
    marks: list[Landmark] = []
    for values, zero, turn in ((x, Kind.MEETS_Y, Kind.UPRIGHT), (y, Kind.MEETS_X, Kind.LEVEL)):
        with np.errstate(invalid="ignore"):
            at = np.flatnonzero(values[:-1] * values[1:] < 0)
            share = values[at] / (values[at] - values[at + 1])
        marks += _marks(curve, zero, t[at] + (t[at + 1] - t[at]) * share)
        step = np.diff(values)
        with np.errstate(invalid="ignore", divide="ignore"):
            at = np.flatnonzero(step[:-1] * step[1:] < 0) + 1
            bend = step[at - 1] - step[at]
            shift = (step[at - 1] + step[at]) / (2 * bend)
        marks += _marks(curve, turn, t[at] + shift * (t[1] - t[0]))
    marks.sort(key=lambda mark: mark.t)
    return Path(low, high, tuple(marks[:MOST]), (), (), (), (), proven=False)


def _marks(curve: Curve, kind: Kind, t: Floats) -> list[Landmark]:
    x, y = curve.places(t)
    return [
        Landmark(
            kind,
            0.0 if kind is Kind.MEETS_Y else float(a),
            0.0 if kind is Kind.MEETS_X else float(b),
            Certainty.APPROACHED,
            method=Method.SCAN,
            t=float(place),
        )
        for place, a, b in zip(t, x, y, strict=True)
        if np.isfinite(a)
    ]
