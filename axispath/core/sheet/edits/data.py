"""Edits of data sets: cells, rows, columns, what is left out, and what is drawn."""

from __future__ import annotations

import secrets
from collections.abc import Iterable
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from axispath.core.data.cells import MAX_ROWS, Cells
from axispath.core.data.reading import CannotRead, Read, number_of, read_table, rows_of_text
from axispath.core.sheet.data import padded
from axispath.core.sheet.document import MAX_LANES, Document, Lane, LaneId, Limit
from axispath.core.sheet.edits.change import Change, LaneChange
from axispath.core.sheet.edits.colours import free_colour
from axispath.core.sheet.measured import (
    MAX_COLUMNS,
    MAX_LEFT_OUT,
    Column,
    DataSet,
    Typed,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.scopes import scope_of

MAX_BLOCK = 40_000  # cells of one block
MAX_TEXT = 150_000
Row = Annotated[int, Field(ge=0, lt=MAX_ROWS)]
Index = Annotated[int, Field(ge=0, lt=MAX_COLUMNS)]
Name = Annotated[str, Field(max_length=80)]


class AddData(Change):
    """A new data set out of a text of rows, or an empty one with two columns."""

    do: Literal["add data"] = "add data"
    name: Name = ""
    text: Annotated[str, Field(max_length=MAX_TEXT)] = ""
    id: LaneId | None = None

    def applied(self, document: Document) -> Document:
        if not self.text.strip():
            names = unused(document, ("hours", "depth"))
            columns = tuple(Column(name=name, cells=Cells([None] * 5)) for name in names)
            return with_data(document, self.name, columns, self.id)
        try:
            rows, between = rows_of_text(self.text)
            read = read_table(rows, between, taken_names(document))
        except CannotRead as reason:
            raise EditRefused(str(reason)) from reason
        return with_data(document, self.name, columns_of(read), self.id)

    def words(self, document: Document) -> str:
        return "adding a data set"


class AddColumns(Change):
    """A new data set of columns that were read already; not sent by pages."""

    do: Literal["add columns"] = "add columns"
    name: Name = ""
    columns: tuple[Column, ...]

    def applied(self, document: Document) -> Document:
        return with_data(document, self.name, self.columns)

    def words(self, document: Document) -> str:
        return "adding a data set"


def columns_of(read: Read) -> tuple[Column, ...]:
    """The columns of a data set as they were read."""
    return tuple(Column(name=c.name, title=c.title, cells=c.cells) for c in read.columns)


def taken_names(document: Document, without: str | None = None) -> set[str]:
    """The names that columns cannot have, since other lanes have them."""
    scope = scope_of(document.lanes, without)
    named = {*scope.functions, *scope.values, *scope.points, *scope.curves, *scope.regions}
    return {*named, "x", "y", "e", "i"}


def unused(document: Document, names: Iterable[str]) -> list[str]:
    """Names of columns like those that are given, none of which the sheet has."""
    taken = taken_names(document)
    found = []
    for name in names:
        free, k = name, 2
        while free in taken:
            free, k = f"{name}_{k}", k + 1
        taken.add(free)
        found.append(free)
    return found


def with_data(
    document: Document, name: str, columns: tuple[Column, ...], lane_id: str | None = None
) -> Document:
    """The document with a data set more."""
    if len(document.lanes) >= MAX_LANES:
        raise EditRefused(f"A sheet can hold {MAX_LANES} lanes, and this one is full.")
    count = sum(lane.data is not None for lane in document.lanes)
    title = name.strip() or ("data" if not count else f"data {count + 1}")
    new = lane_id if lane_id and document.lane(lane_id) is None else secrets.token_hex(4)
    lane = Lane(
        id=new,
        text=title,
        name=title,
        colour=free_colour(document),
        data=DataSet(columns=columns),
    )
    return document.model_copy(update={"lanes": (*document.lanes, lane)})


class DataChange(LaneChange):
    """An edit of a data set."""

    def data(self, document: Document) -> DataSet:
        """The data set that is meant."""
        found = self.lane(document).data
        if found is None:
            raise EditRefused("This lane is no data set.")
        return found

    def with_changes(self, document: Document, **changes: object) -> Document:
        """The document with something of the data set changed."""
        return self.changed(document, data=self.data(document).model_copy(update=changes))

    def called(self, document: Document) -> str:
        lane = document.lane(self.id)
        return lane.text if lane else "a data set"


class NameData(DataChange):
    """Another name for a data set."""

    do: Literal["name data"] = "name data"
    name: Name

    def applied(self, document: Document) -> Document:
        self.data(document)
        title = self.name.strip()
        if not title:
            raise EditRefused("A data set needs a name.")
        return self.changed(document, text=title, name=title)

    def words(self, document: Document) -> str:
        return f"naming {self.called(document)}"


class SetCells(DataChange):
    """A block of cells as typed or pasted; rows and columns that are missing are added."""

    do: Literal["set cells"] = "set cells"
    row: Row
    column: Index
    block: Annotated[
        tuple[Annotated[tuple[Typed, ...], Field(max_length=MAX_COLUMNS)], ...],
        Field(min_length=1, max_length=MAX_BLOCK),
    ]

    def applied(self, document: Document) -> Document:
        data = self.data(document)
        width = max(map(len, self.block))
        if self.column + width > MAX_COLUMNS or self.row + len(self.block) > MAX_ROWS:
            raise EditRefused("This block reaches beyond the largest data set.")
        columns = list(data.columns)
        while len(columns) < self.column + width:
            names = {c.name for c in columns} | taken_names(document, self.id)
            k = len(columns) + 1
            while f"column_{k}" in names:
                k += 1
            columns.append(Column(name=f"column_{k}", cells=Cells([None] * data.rows)))
        for offset in range(width):
            column = columns[self.column + offset]
            if column.formula:
                raise EditRefused(f"{column.name} is computed by its formula; change that instead.")
            values = self._values(column, offset, max(data.rows, self.row + len(self.block)))
            columns[self.column + offset] = column.model_copy(update={"cells": Cells(values)})
        return self.with_changes(document, columns=tuple(columns))

    def _values(self, column: Column, offset: int, rows: int) -> np.ndarray:
        values = padded(column.cells.values, rows)
        for k, line in enumerate(self.block):
            if offset >= len(line):
                continue
            try:
                found = number_of(line[offset])
            except CannotRead as reason:
                place = f"Row {self.row + k + 1} of {column.name}"
                raise EditRefused(f"{place}: {reason}") from reason
            values[self.row + k] = np.nan if found is None else found
        return values

    def words(self, document: Document) -> str:
        count = sum(map(len, self.block))
        return f"{'a cell' if count == 1 else f'{count} cells'} of {self.called(document)}"


class MoveRow(DataChange):
    """A point of a data set, taken to another place by hand."""

    do: Literal["move row"] = "move row"
    row: Row
    x: Limit
    y: Limit

    def applied(self, document: Document) -> Document:
        data = self.data(document)
        if self.row >= data.rows:
            raise EditRefused("There is no such row.")
        columns = []
        for column in data.columns:
            value = {data.across: self.x, data.upwards: self.y}.get(column.name)
            if value is not None and column.formula:
                raise EditRefused(f"{column.name} is computed by its formula; change that instead.")
            if value is not None:
                values = padded(column.cells.values, data.rows)
                values[self.row] = value
                column = column.model_copy(update={"cells": Cells(values)})
            columns.append(column)
        return self.with_changes(document, columns=tuple(columns))

    def words(self, document: Document) -> str:
        return f"moving a point of {self.called(document)}"


class SetRows(DataChange):
    """Rows put in, deleted, left out, or taken in again."""

    do: Literal["set rows"] = "set rows"
    act: Literal["insert", "delete", "leave out", "take in"]
    row: Row
    count: Annotated[int, Field(ge=1, le=MAX_ROWS)] = 1

    def applied(self, document: Document) -> Document:
        data = self.data(document)
        rows = range(self.row, self.row + self.count)
        if self.act == "insert":
            if data.rows + self.count > MAX_ROWS:
                raise EditRefused(f"A data set can have {MAX_ROWS} rows.")
            out = tuple(r + self.count if r >= self.row else r for r in data.out)
            at = [self.row] * self.count
            return self._each(document, out, lambda values: np.insert(values, at, np.nan))
        if self.act == "delete":
            kept = [r for r in data.out if r not in rows]
            out = tuple(r - self.count if r > self.row else r for r in kept)
            chosen = [r for r in rows if r < data.rows]
            return self._each(
                document, out, lambda v: np.delete(v, [r for r in chosen if r < len(v)])
            )
        out_now = set(data.out)
        out_now = out_now | set(rows) if self.act == "leave out" else out_now - set(rows)
        if len(out_now) > MAX_LEFT_OUT:
            raise EditRefused(f"{MAX_LEFT_OUT} rows can be left out; delete or filter the rest.")
        return self.with_changes(document, out=tuple(sorted(r for r in out_now if r < data.rows)))

    def _each(self, document: Document, out: tuple[int, ...], change: object) -> Document:
        data = self.data(document)
        columns = []
        for column in data.columns:
            values = padded(column.cells.values, data.rows)
            cells = column.cells if column.formula else Cells(change(values))  # type: ignore[operator]
            columns.append(column.model_copy(update={"cells": cells}))
        return self.with_changes(document, columns=tuple(columns), out=out)

    def words(self, document: Document) -> str:
        rows = "a row" if self.count == 1 else f"{self.count} rows"
        word = {"insert": "inserting", "delete": "deleting", "leave out": "leaving out"}
        return f"{word.get(self.act, 'taking in')} {rows} of {self.called(document)}"
