"""Data sets in words."""

from __future__ import annotations

import numpy as np

from axispath.core.data.summary import pairing
from axispath.core.language.numbers import decimal
from axispath.core.search.landmark import Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.register import Described

CLEAR = 0.5  # correlation from which on points are said to rise or to fall


def in_words(lane: ResolvedLane, path: Path | None, document: Document) -> str:
    """How many points there are, and how they go; what a fit leaves over."""
    data, arrays = lane.lane.data, lane.measured
    assert data is not None and arrays is not None
    x = arrays.used(data.across)
    digits = document.digits
    if data.look != "points" or not data.upwards:
        there = x[np.isfinite(x)]
        if not len(there):
            return f"{lane.name} has no number in {data.across}."
        low, high = (decimal(float(v), digits) for v in (there.min(), there.max()))
        what = {"histogram": "a histogram", "box": "a box"}.get(data.look, "dots")
        return f"{lane.name} is {what} of {len(there)} numbers between {low} and {high}."
    found = pairing(x, arrays.used(data.upwards))
    out = int((~arrays.kept).sum())
    left = f", {out} left out" if out else ""
    if not found.count:
        return f"{lane.name} has no point{left}."
    way = ""
    if abs(found.correlation) >= CLEAR:
        way = " rising" if found.correlation > 0 else " falling"
    points = "1 point" if found.count == 1 else f"{found.count} points{way}"
    return f"{lane.name} is {points}, {data.upwards} over {data.across}{left}."


def why_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
    """Why no point shows in the view; None where one does."""
    data, arrays, view = lane.lane.data, lane.measured, document.view
    assert data is not None and arrays is not None
    x = arrays.columns[data.across]
    if data.look != "points" or not data.upwards:
        seen = (x >= view.left) & (x <= view.right)
    else:
        y = arrays.columns[data.upwards]
        seen = (x >= view.left) & (x <= view.right) & (y >= view.bottom) & (y <= view.top)
    if seen.any():
        return None
    if not np.isfinite(x).any():
        return f"{lane.name} has no numbers yet."
    return f"{lane.name} lies outside this view."


def fit_in_words(lane: ResolvedLane, digits: int) -> str:
    """Of which points a fit is, and whether its residuals bend."""
    found = lane.fitted
    if found is None:
        return ""
    result = found.result
    words = f"{found.title} fitted to {result.count} points"
    if result.count > len(result.names) + 4 and _bent(result.x, result.residuals):
        words += "; it leaves a bend in the residuals"
    return words


def _bent(x: np.ndarray, residuals: np.ndarray) -> bool:
    """Whether residuals in the order of x keep their sign longer than chance would have it.

    By the number of runs (A. Wald and J. Wolfowitz 1940, On a test whether two samples are from the
    same population), less than 3 standard deviations below what is expected.
    """
    signs = np.sign(residuals[np.argsort(x, kind="stable")])
    signs = signs[signs != 0]
    plus, minus = int((signs > 0).sum()), int((signs < 0).sum())
    total = plus + minus
    if total < 8 or not plus or not minus:
        return False
    runs = 1 + int((signs[1:] != signs[:-1]).sum())
    mean = 1 + 2 * plus * minus / total
    spread = (mean - 1) * (mean - 2) / (total - 1)
    return bool(runs < mean - 2.5 * np.sqrt(spread))


DESCRIBED_DATA = Described(in_words, why_unseen)
