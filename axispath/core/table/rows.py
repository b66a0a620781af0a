"""The places of a table: from start to end in steps, typed as formulas."""

from __future__ import annotations

import math
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axispath.core.sheet.document import Document, Table
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused

MAX_ROWS = 10_000


class TableRefused(Exception):
    """The rows cannot be made; ``field`` is start, stop or step."""

    def __init__(self, message: str, field: str) -> None:
        super().__init__(message)
        self.message = message
        self.field = field


def places(document: Document, table: Table) -> NDArray[np.float64]:
    """The x of every row, each the float64 nearest to start + k · step."""
    start = number(document, table.start, "start")
    stop = number(document, table.stop, "stop")
    step = number(document, table.step, "step")
    if step == 0:
        raise TableRefused("The step must not be 0.", "step")
    if (stop - start) * step < 0:
        toward = "positive" if stop > start else "negative"
        raise TableRefused(f"To get from start to end the step has to be {toward}.", "step")
    count = math.floor((stop - start) / step * (1 + Fraction(1, 10**12))) + 1
    if count > MAX_ROWS:
        shown = str(count) if count < 10**15 else "far too many"
        raise TableRefused(f"These are {shown} rows; a table can have {MAX_ROWS}.", "step")
    return np.array([float(start + k * step) for k in range(count)])


def number(document: Document, text: str, field: str) -> Fraction:
    """A number typed as a formula, which may use the sheet's values."""
    try:
        end = typed_end(document, text)
    except EditRefused as refused:
        raise TableRefused(refused.message, field) from refused
    if end.exact is not None and not end.exact.turns:
        return end.exact.rational
    return Fraction(end.x)
