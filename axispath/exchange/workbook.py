"""A sheet's tables, landmarks and data as one spreadsheet, at full precision."""

from __future__ import annotations

import io
import math
from typing import Any

import xlsxwriter

from axispath.core.path.called import CERTAINTY, KIND_NAMES
from axispath.core.path.survey import survey
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import resolve
from axispath.core.table.columns import heads
from axispath.core.table.rows import TableRefused, places
from axispath.core.table.values import column
from axispath.exchange.data.written import heads_of

OPTIONS = {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False}
MOST_ROWS = 100_000
HEADS = ("function", "kind", "x", "y", "how sure")


def workbook(document: Document) -> bytes:
    """Formulas, tables, landmarks and data; nothing in it is a formula that would run."""
    out = io.BytesIO()
    with xlsxwriter.Workbook(out, OPTIONS) as book:
        page = book.add_worksheet("formulas")
        for row, lane in enumerate(document.lanes):
            page.write_string(row, 0, lane.name or "")
            page.write_string(row, 1, lane.text or (lane.block.text if lane.block else ""))
            page.write_string(row, 2, lane.note)
        _landmarks(book.add_worksheet("landmarks"), document)
        for number, table in enumerate(document.tables, 1):
            if table.by != "points":
                _table(book.add_worksheet(f"table {number}"), document, number - 1)
        for number, resolved in enumerate(resolve(document), 1):
            if resolved.measured is None or resolved.lane.data is None:
                continue
            page = book.add_worksheet(f"data {number}")
            for k, head in enumerate(heads_of(resolved)):
                page.write_string(0, k, head)
                values = resolved.measured.columns[resolved.lane.data.columns[k].name]
                _column(page, k, values.tolist())
    return out.getvalue()


def _column(page: Any, k: int, values: list[float]) -> None:
    for row, value in enumerate(values[:MOST_ROWS], 1):
        if math.isfinite(value):
            page.write_number(row, k, value)


def _landmarks(page: Any, document: Document) -> None:
    for k, head in enumerate(HEADS):
        page.write_string(0, k, head)
    found = survey(document)
    marks = [(name, mark) for name, path in found.named for mark in path.landmarks]
    for row, (name, mark) in enumerate(marks, 1):
        page.write_string(row, 0, name)
        page.write_string(row, 1, KIND_NAMES[mark.kind])
        for k, value in ((2, mark.x), (3, mark.y)):
            if math.isfinite(value):
                page.write_number(row, k, value)
        page.write_string(row, 4, CERTAINTY[mark.certainty])


def _table(page: Any, document: Document, index: int) -> None:
    table = document.tables[index]
    try:
        x = places(document, table)
        columns = [head for head in heads(document, table) if head.source is not None]
    except TableRefused as refused:
        page.write_string(0, 0, refused.message)
        return
    page.write_string(0, 0, table.variable)
    _column(page, 0, [float(value) for value in x])
    for k, head in enumerate(columns, 1):
        page.write_string(0, k, head.text)
        if head.source is not None:
            _column(page, k, column(head.source, x).values.tolist())
