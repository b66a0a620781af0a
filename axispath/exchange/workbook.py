"""A sheet's tables, landmarks and data as one spreadsheet, at full precision."""

from __future__ import annotations

import io
import math
from typing import Any

import xlsxwriter

from axispath.core.path.called import CERTAINTY, KIND_NAMES
from axispath.core.path.survey import survey
from axispath.core.sheet.document import Document
from axispath.exchange.data.pages import FullPage
from axispath.exchange.report.numbers import Values, data_sets, tables_of_values

OPTIONS = {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False}
MOST_ROWS = 100_000
HEADS = ("function", "kind", "x", "y", "how sure")


def workbook(document: Document) -> bytes:
    """Formulas, tables, landmarks and data; nothing in it is a formula that would run."""
    out = io.BytesIO()
    with xlsxwriter.Workbook(out, OPTIONS) as book:
        page = book.add_worksheet("formulas", FullPage)
        for row, lane in enumerate(document.lanes):
            page.write_string(row, 0, lane.name or "")
            page.write_string(row, 1, lane.text or (lane.block.text if lane.block else ""))
            page.write_string(row, 2, lane.note)
        _landmarks(book.add_worksheet("landmarks", FullPage), document)
        for table in tables_of_values(document):
            _table(book.add_worksheet(f"table {table.number}", FullPage), table)
        for number, one in enumerate(data_sets(document), 1):
            page = book.add_worksheet(f"data {number}", FullPage)
            for k, (head, values) in enumerate(zip(one.heads, one.columns, strict=True)):
                page.write_string(0, k, head)
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


def _table(page: Any, table: Values) -> None:
    if table.refused:
        page.write_string(0, 0, table.refused)
        return
    page.write_string(0, 0, table.variable)
    _column(page, 0, table.x.tolist())
    for k, (head, values) in enumerate(table.columns, 1):
        page.write_string(0, k, head)
        _column(page, k, values.values.tolist())
