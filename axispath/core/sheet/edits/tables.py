"""Edits of tables and of the equations that were solved."""

from __future__ import annotations

from typing import Literal

from axispath.core.sheet.curve import end_text, parameters, range_of
from axispath.core.sheet.document import (
    MAX_EQUATIONS,
    MAX_TABLES,
    Document,
    Equation,
    LaneId,
    Line,
    Table,
)
from axispath.core.sheet.edits.change import Change
from axispath.core.sheet.refused import EditRefused

ROWS = "13"  # of a table over the range of a curve: a twelfth of it apart


class SetTable(Change):
    """A table as it is to be, a new one where there is none of its name."""

    do: Literal["set table"] = "set table"
    table: Table

    def applied(self, document: Document) -> Document:
        known = any(other.id == self.table.id for other in document.tables)
        if not known and len(document.tables) >= MAX_TABLES:
            raise EditRefused(f"A sheet can have {MAX_TABLES} tables.")
        wanted = _over_range(document, self.table)
        tables = tuple(wanted if other.id == self.table.id else other for other in document.tables)
        return document.model_copy(update={"tables": tables if known else (*tables, self.table)})

    def words(self, document: Document) -> str:
        return "the table"


def _over_range(document: Document, table: Table) -> Table:
    """A table that takes the parameter of a curve for its variable runs over the curve's range."""
    before = document.table(table.id)
    lane = parameters(document).get(table.variable)
    if lane is None or before.variable == table.variable:
        return table
    if (before.start, before.stop) != (table.start, table.stop):
        return table
    span = range_of(lane)
    ends = {"start": end_text(span.low), "stop": end_text(span.high)}
    return table.model_copy(update={**ends, "by": "count", "count": ROWS})


class RemoveTable(Change):
    """A table deleted; the last one is emptied."""

    do: Literal["remove table"] = "remove table"
    id: LaneId

    def applied(self, document: Document) -> Document:
        left = tuple(table for table in document.tables if table.id != self.id)
        return document.model_copy(update={"tables": left or (Table(id=self.id),)})

    def words(self, document: Document) -> str:
        return "deleting a table"


class KeepEquation(Change):
    """An equation put first in the sheet's history of equations."""

    do: Literal["keep equation"] = "keep equation"
    equation: Equation

    def applied(self, document: Document) -> Document:
        rest = [known for known in document.equations if known.text != self.equation.text]
        kept = (self.equation, *rest)[:MAX_EQUATIONS]
        return document.model_copy(update={"equations": kept})

    def words(self, document: Document) -> str:
        return f"solving {self.equation.text[:40]}"


class ForgetEquation(Change):
    """An equation taken out of the history."""

    do: Literal["forget equation"] = "forget equation"
    text: Line

    def applied(self, document: Document) -> Document:
        kept = tuple(e for e in document.equations if e.text != self.text)
        return document.model_copy(update={"equations": kept})

    def words(self, document: Document) -> str:
        return "forgetting an equation"
