"""Data sets as files: comma-separated values and XLSX, at full precision."""

from __future__ import annotations

import csv
import io

import numpy as np

from axispath.core.language.numbers import full_precision
from axispath.core.sheet.resolve import ResolvedLane


def heads_of(lane: ResolvedLane) -> list[str]:
    """The heads of all columns: as they were written, else their names."""
    assert lane.lane.data is not None
    return [column.title or column.name for column in lane.lane.data.columns]


def csv_of(lane: ResolvedLane, separator: str = ",") -> str:
    """All rows, those that are left out too (RFC 4180); with tabs for the clipboard."""
    assert lane.lane.data is not None and lane.measured is not None
    columns = [lane.measured.columns[column.name] for column in lane.lane.data.columns]
    out = io.StringIO()
    end = "\r\n" if separator == "," else "\n"
    write = csv.writer(out, delimiter=separator, lineterminator=end)
    write.writerow([_harmless(head) for head in heads_of(lane)])
    for row in zip(*(values.tolist() for values in columns), strict=True):
        write.writerow([full_precision(v) if v == v else "" for v in row])
    return out.getvalue()


def xlsx_of(lane: ResolvedLane) -> bytes:
    """The same as a spreadsheet; heads are text, and nothing in it is a formula."""
    import xlsxwriter

    from axispath.exchange.data.pages import FullPage

    assert lane.lane.data is not None and lane.measured is not None
    out = io.BytesIO()
    with xlsxwriter.Workbook(out, {"in_memory": True, "constant_memory": False}) as book:
        page = book.add_worksheet("data", FullPage)
        for k, head in enumerate(heads_of(lane)):
            page.write_string(0, k, head)
        for k, column in enumerate(lane.lane.data.columns):
            values = lane.measured.columns[column.name]
            for row in np.flatnonzero(np.isfinite(values)).tolist():
                page.write_number(row + 1, k, float(values[row]))
    return out.getvalue()


def _harmless(text: str) -> str:
    """Text that no spreadsheet takes for a formula of its own."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text
