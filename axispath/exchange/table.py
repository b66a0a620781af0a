"""Tables as files: comma-separated values (RFC 4180), or text with tabs for the clipboard."""

from __future__ import annotations

import csv
import io

import numpy as np

from axispath.core.language.numbers import full_precision
from axispath.core.path.lanes import Effort
from axispath.core.sheet.document import Document, Table
from axispath.core.table.columns import heads
from axispath.core.table.rows import places
from axispath.core.table.values import column

PART = 2000  # rows of one part of a table


def table_text(
    document: Document, table: Table, separator: str, effort: Effort, part: int | None = None
) -> tuple[str, int]:
    """A whole table at full precision, or one part of it, and how many parts there are."""
    x = places(document, table, effort)
    parts = max(1, -(-len(x) // PART))
    if part is not None:
        x = x[part * PART : (part + 1) * PART]
    columns = heads(document, table)
    found = [column(h.source, x).values if h.source is not None else None for h in columns]
    out = io.StringIO()
    end = "\r\n" if separator == "," else "\n"
    write = csv.writer(out, delimiter=separator, lineterminator=end)
    if not part:
        write.writerow([table.variable, *(_cell(head.text) for head in columns)])
    for k, place in enumerate(x):
        row = [full_precision(float(place))]
        for values in found:
            y = float(values[k]) if values is not None else np.nan
            row.append(full_precision(y) if np.isfinite(y) else "")
        write.writerow(row)
    return out.getvalue(), parts


def _cell(text: str) -> str:
    """Text that no spreadsheet takes for a formula of its own."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text
