"""Edits of the columns of data sets, of the order of their rows, and of what is drawn."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from axispath.core.data.cells import MAX_ROWS, Cells
from axispath.core.language.errors import LanguageError
from axispath.core.language.numbers import listed
from axispath.core.language.pasted import written
from axispath.core.language.tree import Name
from axispath.core.language.walking import free_names
from axispath.core.sheet.data import arrays_of, formula_of, padded
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits.data import DataChange, Index, taken_names
from axispath.core.sheet.edits.names import renamed_everywhere
from axispath.core.sheet.measured import MAX_COLUMNS, Column, ColumnName, DataSet, Typed
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve


class SetColumn(DataChange):
    """A column's name, head or formula; a new column where ``index`` is behind the last."""

    do: Literal["set column"] = "set column"
    index: Index
    name: ColumnName | None = None
    formula: Typed | None = None

    def applied(self, document: Document) -> Document:
        data = self.data(document)
        columns = list(data.columns)
        if self.index > len(columns) or self.index >= MAX_COLUMNS:
            raise EditRefused(f"A data set can have {MAX_COLUMNS} columns.")
        if self.index == len(columns):
            name = self.name or self._new_name(document, data)
            columns.append(Column(name=name, cells=Cells([None] * data.rows)))
        was = columns[self.index]
        changes: dict[str, object] = {}
        if (self.name is not None and self.name != was.name) or self.index == len(data.columns):
            wanted = self.name or was.name
            others = {c.name for k, c in enumerate(columns) if k != self.index}
            if wanted in others or wanted in taken_names(document, self.id):
                raise EditRefused(f"{wanted} is the name of something else on this sheet already.")
            changes["name"] = wanted
        if self.formula is not None:
            changes["formula"] = self._formula(document, data, was.name)
        columns[self.index] = was.model_copy(update=changes)
        changed = self.with_changes(document, columns=tuple(columns))
        name = str(changes.get("name", was.name))
        if name != was.name and self.index < len(data.columns):
            changed = renamed_everywhere(document, changed, was.name, name)
        return _renamed(changed, self.id, was.name, name)

    def _new_name(self, document: Document, data: DataSet) -> str:
        taken = {c.name for c in data.columns} | taken_names(document, self.id)
        k = len(data.columns) + 1
        while f"column_{k}" in taken:
            k += 1
        return f"column_{k}"

    def _formula(self, document: Document, data: DataSet, name: str) -> str:
        assert self.formula is not None
        if not self.formula.strip():
            return ""
        try:
            text = written(self.formula)
            lane = resolve(document).lane(self.id)
            known = lane.definitions if lane else {}
            columns = tuple(c.name for c in data.columns)
            tree = formula_of(text, columns, known)
        except LanguageError as error:
            raise EditRefused(error.message, error.start, error.end, error.mend) from error
        used = {node.name for node in free_names(tree) if isinstance(node, Name)}
        unknown = sorted(used - set(columns) - set(known))
        if unknown:
            # The numbers that stand there would give way to nothing.
            raise EditRefused(f"{listed(unknown)} has no value here: define it first.")
        return text

    def words(self, document: Document) -> str:
        return f"a column of {self.called(document)}"


def _renamed(document: Document, lane_id: str, old: str, new: str) -> Document:
    """Fits and drawings that use a column, with its new name."""
    if old == new:
        return document
    lanes = []
    for lane in document.lanes:
        if lane.id == lane_id and lane.data is not None:
            names = {f: new for f in ("x", "y", "errors") if getattr(lane.data, f) == old}
            lane = lane.model_copy(update={"data": lane.data.model_copy(update=names)})
        if lane.fit is not None and lane.fit.data == lane_id:
            names = {f: new for f in ("x", "y", "weight") if getattr(lane.fit, f) == old}
            lane = lane.model_copy(update={"fit": lane.fit.model_copy(update=names)})
        lanes.append(lane)
    return document.model_copy(update={"lanes": tuple(lanes)})


class RemoveColumn(DataChange):
    """A column less."""

    do: Literal["remove column"] = "remove column"
    index: Index

    def applied(self, document: Document) -> Document:
        data = self.data(document)
        if len(data.columns) == 1:
            raise EditRefused("A data set keeps at least one column; delete its lane instead.")
        columns = tuple(c for k, c in enumerate(data.columns) if k != self.index)
        return self.with_changes(document, columns=columns)

    def words(self, document: Document) -> str:
        return f"deleting a column of {self.called(document)}"


class ArrangeRows(DataChange):
    """Rows sorted by a column, kept where a condition holds, or drawn by lot."""

    do: Literal["arrange rows"] = "arrange rows"
    how: Literal["rising", "falling", "where", "sample"]
    column: Annotated[str, Field(max_length=40)] = ""
    condition: Typed = ""
    count: Annotated[int, Field(ge=1, le=MAX_ROWS)] = 1
    seed: Annotated[int, Field(ge=0, lt=2**31)] = 0

    def applied(self, document: Document) -> Document:
        data = self.data(document)
        lane = resolve(document).lane(self.id)
        arrays = lane.measured if lane else None
        assert arrays is not None
        if self.how in ("rising", "falling"):
            if self.column not in arrays.columns:
                raise EditRefused(f"There is no column {self.column}.")
            values = arrays.columns[self.column]
            key = values if self.how == "rising" else -values
            order = np.argsort(key, kind="stable")  # NaN come last
        elif self.how == "sample":
            chance = np.random.default_rng(self.seed)
            size = min(self.count, data.rows)
            order = np.sort(chance.choice(data.rows, size, replace=False))
        else:
            order = np.flatnonzero(self._where(document, data))
            if not len(order):
                raise EditRefused("This holds for no row.")
        out = dict.fromkeys(data.out, True)
        columns = []
        for column in data.columns:
            values = padded(column.cells.values, data.rows)
            cells = column.cells if column.formula else Cells(values[order])
            columns.append(column.model_copy(update={"cells": cells}))
        left = tuple(k for k, row in enumerate(order.tolist()) if row in out)
        return self.with_changes(document, columns=tuple(columns), out=left)

    def _where(self, document: Document, data: DataSet) -> np.ndarray:
        """Rows for which a comparison holds: written as cases, which the language has."""
        text = f"1 if {self.condition}, 0 otherwise"
        lane = resolve(document).lane(self.id)
        name = "condition"
        while data.column(name):
            name += "_"
        tried = data.model_copy(
            update={"columns": (*data.columns, Column(name=name, formula=text[:200]))}
        )
        arrays = arrays_of(tried, lane.definitions if lane else {}, document.unit)
        if name in arrays.errors:
            raise EditRefused(f"The condition is not understood: {arrays.errors[name]}")
        found: np.ndarray = arrays.columns[name] == 1
        return found

    def words(self, document: Document) -> str:
        word = {"where": "filtering", "sample": "a sample of"}.get(self.how, "sorting")
        return f"{word} {self.called(document)}"


class DrawData(DataChange):
    """Which columns are drawn, and how."""

    do: Literal["draw data"] = "draw data"
    x: Annotated[str, Field(max_length=40)] | None = None
    y: Annotated[str, Field(max_length=40)] | None = None
    errors: Annotated[str, Field(max_length=40)] | None = None
    look: Literal["points", "histogram", "box", "dots"] | None = None
    width: Typed | None = None

    def applied(self, document: Document) -> Document:
        data = self.data(document)
        given = {
            f: v
            for f in ("x", "y", "errors", "look", "width")
            if (v := getattr(self, f)) is not None
        }
        for field in ("x", "y", "errors"):
            if given.get(field) and data.column(str(given[field])) is None:
                raise EditRefused(f"There is no column {given[field]}.")
        return self.with_changes(document, **given)

    def words(self, document: Document) -> str:
        return f"how {self.called(document)} is drawn"
