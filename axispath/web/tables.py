"""Tables of values on the wire: a stretch of rows, with what can be read off them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axispath.budgets import READING_OFF, USUAL_SEARCH
from axispath.core import catalogue
from axispath.core.language.errors import LanguageError
from axispath.core.language.latex import latex_statement
from axispath.core.language.numbers import decimal
from axispath.core.language.pasted import written
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import FunctionStatement
from axispath.core.sheet.curve import curve_of, parameters
from axispath.core.sheet.document import Document, Table
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.sheet.sliders import is_slider
from axispath.core.table.columns import Head, heads, of_two
from axispath.core.table.kinds import ALONG
from axispath.core.table.marks import RowMark, row_marks
from axispath.core.table.points import point_rows
from axispath.core.table.rows import TableRefused, places
from axispath.core.table.values import Column, column
from axispath.web.present import swatch_of

DIGITS_OF_X = 12
MOST_ROWS = 400  # in one answer
MOST_POINTS = 4_000


@dataclass(frozen=True)
class Shown:
    """A column as it is written: its title, and its values as text."""

    title: str
    latex: str
    swatch: str
    lane: str
    text: str
    error: str
    kind: str = "value"


def chunk(
    document: Document, table: Table, first: int, count: int, near: float | None
) -> dict[str, Any]:
    """``count`` rows from row ``first`` on, or those around the row nearest to ``near``."""
    shown = {"variable": table.variable, "sliders": _sliders(document), "id": table.id}
    shown["unit"] = document.ground.x_unit.strip() if table.variable == "x" else ""
    shown["ofTwo"] = of_two(document)
    try:
        columns = heads(document, table)
        x = places(document, table, USUAL_SEARCH)
    except TableRefused as refused:
        told = {"trouble": refused.message, "field": refused.field}
        return {**shown, **told, "count": 0, "first": 0, "columns": [], "x": [], "marks": []}
    points = point_rows(document) if table.by == "points" else None
    row = None
    if near is not None:
        row = int(np.argmin(np.abs(x - near)))
        first = max(0, row - count // 2)
    first = min(max(first, 0), max(len(x) - 1, 0))
    stop = min(first + min(count, MOST_ROWS), len(x))
    # One row more on either side, for differences and for what happens between rows.
    start, end = max(first - 1, 0), min(stop + 1, len(x))
    part = x[start:end]
    found = [column(head.source, part) if head.source is not None else None for head in columns]
    listed = [_titled(document, table, head) for head in columns]
    cells = [_cells(c, len(part), document.digits) for c in found]
    for head, values in zip(columns, found, strict=True):
        for kind, title in _changes(table.changes):
            listed.append(Shown(f"{title} {head.text}", "", "", "", head.text, head.error, kind))
            cells.append(_changed(values, kind, len(part), document.digits))
    if points is not None:
        for title, known in reversed(points.given):
            listed.insert(0, Shown(title, title, "", "", title, "", "given"))
            cells.insert(0, [decimal(float(v), document.digits) for v in known[start:end]])
    skip = first - start
    # Points lie in the order of the sheet: nothing happens between one and the next.
    uncovered = found and points is None and not document.cover.on  # a mark would tell where
    marks = _marks(columns, part, found) if uncovered else []
    return {
        **shown,
        "trouble": "",
        "count": len(x),
        "first": first,
        "row": row,
        "columns": [
            vars(c) | {"decimals": _decimals(t)} for c, t in zip(listed, cells, strict=True)
        ],
        "x": part[skip : skip + stop - first].tolist(),
        "names": list(points.names[first:stop]) if points else [],
        "shownX": [decimal(float(v), DIGITS_OF_X) for v in part[skip : skip + stop - first]],
        "cells": [texts[skip : skip + stop - first] for texts in cells],
        "reasons": _reasons(found, skip, stop - first, len(points.given) if points else 0),
        "marks": [
            _mark(mark, start, columns, document.digits + 2)
            for mark in marks
            if first <= start + mark.row < stop
        ],
    }


def _titled(document: Document, table: Table, head: Head) -> Shown:
    lane = head.lane.lane if head.lane is not None else None
    swatch = swatch_of(lane.id, lane.colour, lane.style) if lane else ""
    try:
        scope = scope_of(document.lanes).with_values((table.variable,))
        statement = FunctionStatement(None, (), parse_expression(written(head.text), scope), None)
        latex = latex_statement(statement, catalogue.VOCABULARY, None)
    except LanguageError:
        latex = ""
    measure = head.lane.measure if head.lane is not None else None
    title = f"{head.text} ({measure})" if measure else head.text
    latex += rf"\;(\mathrm{{{measure}}})" if measure and latex else ""
    return Shown(title, latex, swatch, lane.id if lane else "", head.text, head.error)


def _changes(kind: str) -> list[tuple[str, str]]:
    pairs = {"differences": [("difference", "Δ")], "ratios": [("ratio", "ratio of")]}
    return pairs.get(kind, pairs["differences"] + pairs["ratios"] if kind == "both" else [])


def _cells(found: Column | None, count: int, digits: int) -> list[str]:
    if found is None:
        return ["—"] * count
    return [found.shown(k, digits) for k in range(count)]


def _changed(found: Column | None, kind: str, count: int, digits: int) -> list[str]:
    """Differences or ratios of a row and the one before."""
    if found is None:
        return ["—"] * count
    y, noise = found.values, found.noise
    texts = ["—"] * count
    for k in range(1, count):
        a, b = float(y[k - 1]), float(y[k])
        if not (np.isfinite(a) and np.isfinite(b)) or (kind == "ratio" and a == 0):
            continue
        value = b - a if kind == "difference" else b / a
        error = float(noise[k] + noise[k - 1]) if kind == "difference" else 0.0
        texts[k] = decimal(value, digits, error)
    return texts


def _decimals(texts: Sequence[str]) -> int:
    """The most digits behind the point, so that all points can stand below one another."""
    return max((len(t.partition(".")[2].partition("×")[0]) for t in texts), default=0)


def _reasons(found: Sequence[Column | None], skip: int, count: int, before: int) -> dict[str, str]:
    """Why a cell is empty, by “row column”; ``before`` are the columns that stand before these."""
    reasons = {}
    for k, c in enumerate(found, start=before):
        for row in range(skip, skip + count):
            why = c.reason(row) if c is not None else None
            if why:
                reasons[f"{row - skip} {k}"] = why
    return reasons


def _marks(
    columns: Sequence[Head], x: NDArray[np.float64], found: Sequence[Column | None]
) -> list[RowMark]:
    values = [c.values if c is not None else np.full(len(x), np.nan) for c in found]
    return row_marks([head.source for head in columns], x, values, READING_OFF)


WORDS = {
    "zero": "{} = 0 in between, at {}",
    "cross": "{} = {} in between, at {}",
    "on the row": "{} is exactly 0 on this row",
    "pole": "a pole of {}, no solution, at {}",
    "jump": "{} jumps here, and has no zero",
    "not settled": "{} changes sign here; what happens is not settled",
}


def _mark(mark: RowMark, start: int, columns: Sequence[Head], digits: int) -> dict[str, Any]:
    name = columns[mark.column].text
    place = "" if mark.x is None else decimal(mark.x, digits)
    if mark.other is not None:
        other = columns[mark.other].text
        words = {
            "on the row": f"{name} = {other} exactly on this row",
            "cross": WORDS["cross"].format(name, other, place),
            "pole": f"the difference of {name} and {other} has a pole: no solution",
            "jump": f"the difference of {name} and {other} jumps: no solution",
        }.get(mark.event, f"{name} and {other} change places here; not settled")
    else:
        words = WORDS[mark.event].format(name, place)
    solved = mark.event in ("zero", "cross", "on the row")
    return {
        "row": start + mark.row,
        "event": mark.event,
        "words": words,
        "x": mark.x if solved else None,
        "solution": solved,
        "between": mark.event != "on the row",
    }


def _sliders(document: Document) -> list[str]:
    """What can run in a table beside x: sliders, and the parameters of curves."""
    sliders = [lane.name for lane in resolve(document) if is_slider(lane) and lane.name]
    return [*sliders, *parameters(document)]


def points(document: Document) -> list[dict[str, Any]]:
    """The rows of the tables that are shown as points on the plot."""
    shown: list[dict[str, Any]] = []
    along = parameters(document)
    for table in document.tables:
        if not table.points or not (table.variable == "x" or table.variable in along):
            continue
        try:
            x = places(document, table, USUAL_SEARCH)[:MOST_POINTS]
        except TableRefused:
            continue
        if table.variable in along:
            shown += list(_on_curves(document, table.variable, x))
            continue
        for head in heads(document, table):
            if head.source is None:
                continue
            y = column(head.source, x).values
            good = np.isfinite(y)
            shown.append(
                {
                    "id": head.lane.lane.id if head.lane is not None else "",
                    "x": x[good].tolist(),
                    "y": y[good].tolist(),
                }
            )
    return shown


def _on_curves(document: Document, letter: str, t: NDArray[np.float64]) -> Iterator[dict[str, Any]]:
    """The rows of a table over a parameter as points of the curves that have it."""
    for lane in resolve(document).shown(ALONG):
        if lane.parameters == (letter,):
            x, y = curve_of(lane).places(t)
            good = np.isfinite(x)
            yield {"id": lane.lane.id, "x": x[good].tolist(), "y": y[good].tolist()}
