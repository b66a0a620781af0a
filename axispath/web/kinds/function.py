"""Functions on the page."""

from typing import Any

import numpy as np

from axispath.core.language.numbers import decimal
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.data import fit_in_words
from axispath.web.kinds.register import Face

MOST_RESIDUALS = 300


def _note(lane: ResolvedLane, digits: int) -> str:
    """The numbers of a fit."""
    found = lane.fitted
    if found is None:
        return ""
    result = found.result
    pairs = zip(result.names, result.parameters.tolist(), result.errors.tolist(), strict=True)
    told = [f"{name} = {decimal(value, digits, error * 1e-6)}" for name, value, error in pairs]
    return f"{', '.join(told)} · {fit_in_words(lane, digits)}"


def _residuals(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    found = lane.fitted
    if found is None:
        return {}
    x, rest = found.result.x, found.result.residuals
    if len(x) > MOST_RESIDUALS:
        some = np.unique(np.linspace(0, len(x) - 1, MOST_RESIDUALS).round().astype(int))
        x, rest = x[some], rest[some]
    pairs = zip(x.tolist(), rest.tolist(), strict=True)
    return {"residuals": tuple((a, b) for a, b in pairs)}


FUNCTION = Face("parts/kinds/function.html", "path", _note, _residuals)
