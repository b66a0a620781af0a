"""Tables as files: comma-separated values (RFC 4180), or text with tabs for the clipboard."""

from __future__ import annotations

import csv
import io

import numpy as np

from axispath.core.language.numbers import full_precision
from axispath.core.path.lanes import Effort
from axispath.core.sheet.document import Document, Table
from axispath.core.table.columns import Head, heads
from axispath.core.table.points import point_rows
from axispath.core.table.rows import places
from axispath.core.table.values import column, nearest

PART = 2000  # rows of one part of a table


def table_text(
    document: Document, table: Table, separator: str, effort: Effort, part: int | None = None
) -> tuple[str, int]:
    """A whole table at full precision, or one part of it, and how many parts there are."""
    x = places(document, table, effort)
    points = point_rows(document) if table.by == "points" else None
    parts = max(1, -(-len(x) // PART))
    rows = slice(0, None) if part is None else slice(part * PART, (part + 1) * PART)
    x = x[rows]
    columns = heads(document, table)
    given = [(title, values[rows]) for title, values in points.given] if points else []
    found = [values for _, values in given]
    sources = [head.source for head in columns]
    found += [nearest(column(one, x)) if one else np.full(len(x), np.nan) for one in sources]
    names = points.names[rows] if points else ()
    out = io.StringIO()
    end = "\r\n" if separator == "," else "\n"
    write = csv.writer(out, delimiter=separator, lineterminator=end)
    if not part:
        titles = [*(title for title, _ in given), *(_cell(_title(head)) for head in columns)]
        unit = document.ground.x_unit.strip() if table.variable == "x" else ""
        first = f"{table.variable} ({unit})" if unit else table.variable
        write.writerow([*(["point"] if points else []), first, *titles])
    for k, place in enumerate(x):
        row = [*([_cell(names[k])] if points else []), full_precision(float(place))]
        for values in found:
            y = float(values[k])
            row.append(full_precision(y) if np.isfinite(y) else "")
        write.writerow(row)
    return out.getvalue(), parts


def _title(head: Head) -> str:
    """A column with the unit of its values."""
    measure = head.lane.measure if head.lane is not None else None
    return f"{head.text} ({measure})" if measure else head.text


def _cell(text: str) -> str:
    """Text that no spreadsheet takes for a formula of its own."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text
