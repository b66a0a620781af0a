"""Tables of values over x, printed row by row."""

from __future__ import annotations

from collections.abc import Iterator

from axispath.core.language.errors import LanguageError
from axispath.core.language.numbers import full_precision
from axispath.core.language.pasted import written
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Name
from axispath.core.language.walking import free_names
from axispath.core.sheet.document import Document
from axispath.core.sheet.scopes import scope_of
from axispath.core.table.columns import heads
from axispath.core.table.rows import TableRefused, places
from axispath.exchange.script.expressions import NotWritten, Writer
from axispath.exchange.script.section import Section
from axispath.exchange.script.texts import one_line

MOST_ROWS = 2_000


def tables_of(document: Document, writer: Writer) -> Iterator[Section]:
    """The tables that run over x."""
    scope = scope_of(document.lanes).with_values(("x",))
    for number, table in enumerate(document.tables, 1):
        if table.variable != "x" or table.by == "points":
            continue
        try:
            rows = places(document, table)
            columns = [head for head in heads(document, table) if not head.error]
        except TableRefused:
            continue
        found: list[tuple[str, str]] = []
        for head in columns:
            try:
                tree = parse_expression(written(head.text), scope)
                used = {one.name for one in free_names(tree)} - {"x"}
                if used <= set(writer.defined) or all(
                    isinstance(one, Name) and one.name == "x" for one in free_names(tree)
                ):
                    found.append((head.text, writer.text(tree)))
            except (LanguageError, NotWritten):
                continue
        if not found or not 0 < len(rows) <= MOST_ROWS:
            continue
        given = ", ".join(full_precision(float(value)) for value in rows)
        titles = "\t".join(["x", *(one_line(text) for text, _ in found)])
        formulas = ", ".join(f"{formula} + 0 * x" for _, formula in found)
        code = (
            f"x = np.array([{given}])\n"
            f"print({titles!r})\n"
            f"for row in zip(x, *[{formulas}]):\n"
            '    print("\\t".join(f"{value:.12g}" for value in row))'
        )
        yield Section(f"Table {number}", "Values, row by row.", code)
