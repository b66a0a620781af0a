"""The panel of the page Data: summary of columns, fits with their numbers, predictions."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from flask import render_template

from axispath.core.data.summary import pairing, summary
from axispath.core.fits.models import MODELS
from axispath.core.language.numbers import decimal
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.web.present import swatch_of

WIDTH, HEIGHT = 290, 74
MOST_POINTS = 400
MEASURES = (
    ("count", "numbers"),
    ("missing", "missing"),
    ("mean", "mean"),
    ("median", "median"),
    ("lower", "lower quartile"),
    ("upper", "upper quartile"),
    ("sample", "standard deviation (sample)"),
    ("population", "standard deviation (population)"),
    ("least", "minimum"),
    ("most", "maximum"),
    ("total", "sum"),
)


def panel(document: Document, lane: ResolvedLane | None) -> str:
    """The panel of a data set as HTML."""
    if lane is None:
        return render_template("desk/data_panel.html", lane=None, models=MODELS)
    data, arrays = lane.lane.data, lane.measured
    assert data is not None and arrays is not None
    digits = document.digits
    names = [column.name for column in data.columns]
    tables = [summary(arrays.used(name)) for name in names]
    measures = [
        (words, [_number(getattr(one, field), digits) for one in tables])
        for field, words in MEASURES
    ]
    both = None
    if data.upwards:
        found = pairing(arrays.used(data.across), arrays.used(data.upwards))
        both = {
            "covariance": _number(found.covariance, digits),
            "correlation": _number(found.correlation, digits),
        }
    fits = [
        one
        for one in resolve(document)
        if one.lane.fit is not None and one.lane.fit.data == lane.lane.id
    ]
    return render_template(
        "desk/data_panel.html",
        lane=lane,
        data=data,
        names=names,
        measures=measures,
        both=both,
        models=MODELS,
        fits=[fit_view(document, one) for one in fits],
        width=WIDTH,
        height=HEIGHT,
    )


def _number(value: float, digits: int) -> str:
    if isinstance(value, int):
        return str(value)
    return decimal(value, digits, 1e-14 * abs(value)) if math.isfinite(value) else "—"


def fit_view(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    """A fit with its numbers as text."""
    given = lane.lane.fit
    assert given is not None
    base: dict[str, Any] = {
        "id": lane.lane.id,
        "name": lane.name,
        "text": lane.lane.text.partition("=")[2].strip(),
        "swatch": swatch_of(lane.lane.id, lane.lane.colour, lane.lane.style),
        "colour": lane.lane.colour,
        "error": lane.error.message if lane.error else "",
        "x": given.x,
        "y": given.y,
        "squared": given.squares,
        "banded": given.band,
        "weigh": given.weigh,
        "weight": given.weight,
    }
    found = lane.fitted
    if found is None:
        return base
    result, digits = found.result, document.digits
    times = result.interval()
    held = dict(given.held)
    rows = []
    pairs = zip(result.names, result.parameters.tolist(), result.errors.tolist(), strict=True)
    for k, (name, value, error) in enumerate(pairs):
        known = math.isfinite(error) and error > 0
        interval = ""
        if known and math.isfinite(times):
            ends = [_known(value + sign * times * error, 20 * error, digits) for sign in (-1, 1)]
            interval = " to ".join(ends)
        rows.append(
            {
                "name": name,
                "value": _known(value, error, digits),
                "error": decimal(error, 3) if known else ("held" if k in result.held else "—"),
                "interval": interval,
                "held": held.get(name, ""),
            }
        )
    notes = [*result.notes]
    if found.remark:
        notes.insert(0, found.remark)
    if not result.settled:
        notes.append("the search has not settled: these are the best numbers so far")
    if result.valley is not None:
        other = ", ".join(
            f"{n} = {decimal(v, 4)}"
            for n, v in zip(result.names, result.valley.parameters, strict=True)
        )
        notes.append(f"another valley of the sum of squares fits nearly as well: {other}")
    return {
        **base,
        "title": found.title,
        "rows": rows,
        "notes": notes,
        "explained": _number(result.explained, 6),
        "deviation": _number(result.deviation, digits),
        "squares": _number(result.squares, digits),
        "count": result.count,
        "freedom": result.freedom,
        "residuals": _residuals(result.x, result.residuals),
    }


def _known(value: float, error: float, digits: int) -> str:
    """A number with no digit that is far below its error."""
    if math.isfinite(error) and error > 0:
        below = digits + 2 if not value else math.ceil(math.log10(abs(value) / error)) + 3
        digits = max(2, min(digits + 2, below))
    return decimal(value, digits, 1e-13 * abs(value))


def _residuals(x: np.ndarray, rest: np.ndarray) -> dict[str, Any]:
    """The residual plot: places in a picture of WIDTH by HEIGHT, and how far it reaches."""
    most = float(np.abs(rest).max()) if len(rest) else 0.0
    low, high = (float(x.min()), float(x.max())) if len(x) else (0.0, 1.0)
    if len(x) > MOST_POINTS:
        some = np.unique(np.linspace(0, len(x) - 1, MOST_POINTS).round().astype(int))
        x, rest = x[some], rest[some]
    across = (x - low) / ((high - low) or 1.0) * (WIDTH - 16) + 8
    down = HEIGHT / 2 - rest / (most or 1.0) * (HEIGHT / 2 - 8)
    points = [
        (round(a, 1), round(b, 1)) for a, b in zip(across.tolist(), down.tolist(), strict=True)
    ]
    return {"points": points, "most": decimal(most, 3)}


def predicted(document: Document, lane: ResolvedLane, x: float) -> dict[str, Any]:
    """What a fit says at an x: the value, the interval of the curve, that of one more point."""
    found = lane.fitted
    assert found is not None
    result, digits = found.result, document.digits
    at = np.array([x])
    value = float(found.shape.values(at, result.parameters)[0])
    if not math.isfinite(value):
        return {"words": "The formula has no value there."}
    low, high = float(result.x.min()), float(result.x.max())
    beyond = "" if low <= x <= high else " Beyond the points: the curve may not go on like this."
    words = f"{lane.name}({decimal(x, digits)}) = {decimal(value, digits)}."
    spread = float(result.spread(found.shape.design(at, result.parameters))[0])
    times = result.interval()
    if math.isfinite(spread) and math.isfinite(times):
        one = math.hypot(spread, result.deviation)
        told = [
            f"{decimal(value - times * s, digits)} to {decimal(value + times * s, digits)}"
            for s in (spread, one)
        ]
        words += f" The curve lies within {told[0]}, one more point within {told[1]} (95 %)."
    return {"words": words + beyond}
