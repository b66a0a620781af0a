"""The rows of a table: by step, by count, from a list, at landmarks or points; and made finer."""

from __future__ import annotations

import math
import re
from fractions import Fraction
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from axispath.core.path.covering import uncovered
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import USUAL, Effort
from axispath.core.sheet.document import Document, Table
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.points import point_rows

MAX_ROWS = 100_000
MAX_LISTED = 5_000
_EXACTLY = re.compile(r"-?\d{1,190}(?:\.\d{1,190})?(?:/\d{1,190})?")
BETWEEN = 10  # stretches that a finer stretch is cut into


class TableRefused(Exception):
    """The rows cannot be made; ``field`` is that of the table that is wrong."""

    def __init__(self, message: str, field: str) -> None:
        super().__init__(message)
        self.message = message
        self.field = field


def places(document: Document, table: Table, effort: Effort = USUAL) -> NDArray[np.float64]:
    """The place of every row, each the float64 nearest to the exact one."""
    match table.by:
        case "step":
            rows = stepped(document, table)
        case "count":
            rows = _counted(document, table)
        case "list":
            return np.array(_listed(document, table.places), dtype=np.float64)
        case "landmarks":
            return _landmarks(document, table, effort)
        case "points":
            return _points(document, table)
    return np.array([float(row) for row in _finer(rows, table)])


def stepped(document: Document, table: Table, which: Literal["", "across_"] = "") -> list[Fraction]:
    """The places from start to stop of the rows, or across from column to column."""
    start, stop, step = (
        number(document, getattr(table, f"{which}{field}"), f"{which}{field}")
        for field in ("start", "stop", "step")
    )
    if step == 0:
        raise TableRefused("The step must not be 0.", f"{which}step")
    if (stop - start) * step < 0:
        toward = "positive" if stop > start else "negative"
        message = f"To get from start to end the step has to be {toward}."
        raise TableRefused(message, f"{which}step")
    count = math.floor((stop - start) / step * (1 + Fraction(1, 10**12))) + 1
    _refuse_too_many(count, f"{which}step")
    return [start + k * step for k in range(count)]


def _counted(document: Document, table: Table) -> list[Fraction]:
    start = number(document, table.start, "start")
    stop = number(document, table.stop, "stop")
    count = number(document, table.count, "count")
    if count.denominator != 1 or count < 2:
        raise TableRefused("The number of rows is a whole number from 2 on.", "count")
    if start == stop:
        raise TableRefused("Start and end are the same.", "stop")
    _refuse_too_many(int(count), "count")
    return [start + k * (stop - start) / (count - 1) for k in range(int(count))]


def _refuse_too_many(count: int, field: str) -> None:
    if count > MAX_ROWS:
        shown = str(count) if count < 10**15 else "far too many"
        raise TableRefused(f"These are {shown} rows; a table can have {MAX_ROWS}.", field)


def _listed(document: Document, text: str) -> list[float]:
    parts = [part for part in re.split(r"[;\s]+|,(?=\s|$)|,", text.strip()) if part]
    if not parts:
        raise TableRefused("Type or paste a list of numbers, such as 0, 1/2, π.", "places")
    if len(parts) > MAX_LISTED:
        message = f"These are {len(parts)} numbers; a list can have {MAX_LISTED}."
        raise TableRefused(message, "places")
    found = []
    for part in parts:
        try:
            found.append(float(part.replace("−", "-")))
        except ValueError:
            found.append(float(number(document, part, "places")))
    if not all(math.isfinite(x) for x in found):
        raise TableRefused("The rows have to be ordinary, finite numbers.", "places")
    return found


def _landmarks(document: Document, table: Table, effort: Effort) -> NDArray[np.float64]:
    view = document.view
    shown = resolve(document).shown(SEARCHED)
    searched = [lane for lane in shown if SEARCHED[lane.kind.key].along == "x"]
    chosen = [lane for lane in searched if lane.lane.id in table.lanes] or searched
    found: set[float] = set()
    for lane in chosen:
        search = SEARCHED[lane.kind.key].path
        path = search(lane, view, effort, len(chosen), None)
        path = path and uncovered(document, lane.lane.id, path)
        found |= {mark.x for mark in path.landmarks} if path is not None else set()
    if not found:
        raise TableRefused("There are no landmarks in this view.", "lanes")
    return np.array(sorted(found)[:MAX_LISTED], dtype=np.float64)


def _points(document: Document, table: Table) -> NDArray[np.float64]:
    if table.variable != "x":
        raise TableRefused("Rows at points run over x.", "variable")
    x = point_rows(document).x
    if not len(x):
        raise TableRefused("No point is shown on this sheet: type one, such as (1, 2).", "by")
    return x


def _finer(rows: list[Fraction], table: Table) -> list[Fraction]:
    """The rows with those of the finer stretches among them."""
    if not table.finer:
        return rows
    found = set(rows)
    for start, stop in table.finer:
        # As stretch() writes them: an exponent could stand for millions of digits.
        if not (_EXACTLY.fullmatch(start) and _EXACTLY.fullmatch(stop)):
            raise TableRefused("This stretch cannot be made finer.", "step")
        try:
            low, high = Fraction(start), Fraction(stop)
        except ZeroDivisionError as error:
            raise TableRefused("This stretch cannot be made finer.", "step") from error
        found |= {low + k * (high - low) / BETWEEN for k in range(BETWEEN + 1)}
    low, high = min(rows), max(rows)
    kept = sorted(row for row in found if low <= row <= high)
    return kept if len(rows) < 2 or rows[0] < rows[-1] else kept[::-1]


def stretch(document: Document, table: Table, row: int) -> tuple[str, str]:
    """A row and the one after it as exact numbers, for Table.finer.

    Raises TableRefused where the rows of the table cannot be made finer.
    """
    if table.by not in ("step", "count"):
        raise TableRefused("Only rows by step or by count can be made finer.", "step")
    rows = _finer(
        stepped(document, table) if table.by == "step" else _counted(document, table), table
    )
    if not 0 <= row < len(rows) - 1:
        raise TableRefused("There is no such row.", "step")
    low, high = sorted(rows[row : row + 2])
    return str(low), str(high)


def number(document: Document, text: str, field: str) -> Fraction:
    """A number typed as a formula, which may use the sheet's values."""
    try:
        end = typed_end(document, text)
    except EditRefused as refused:
        raise TableRefused(refused.message, field) from refused
    if end.exact is not None and not end.exact.turns:
        return end.exact.rational
    return Fraction(end.x)
