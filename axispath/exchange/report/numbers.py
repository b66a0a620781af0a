"""Landmarks, tables of values and data as columns, for everything that writes them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.sheet.document import Document, Table
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.columns import heads
from axispath.core.table.rows import TableRefused, places
from axispath.core.table.values import Column, column
from axispath.exchange.data.written import heads_of

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Values:
    """A table of values: its number, its variable, places and columns with their heads.

    ``refused`` says why it has none.
    """

    number: int
    variable: str
    x: Floats
    columns: tuple[tuple[str, Column], ...]
    refused: str = ""


def tables_of_values(document: Document) -> Iterator[Values]:
    """All tables of a sheet; those of its points have no values of their own."""
    for number, table in enumerate(document.tables, 1):
        if table.by != "points":
            yield _values(document, table, number)


def _values(document: Document, table: Table, number: int) -> Values:
    try:
        x = np.asarray(places(document, table), dtype=np.float64)
        found = heads(document, table)
    except TableRefused as refused:
        return Values(number, table.variable, np.empty(0), (), refused.message)
    columns = [(one.text, column(one.source, x)) for one in found if one.source is not None]
    return Values(number, table.variable, x, tuple(columns))


@dataclass(frozen=True, slots=True)
class Measured:
    """A data set: its lane, the heads of its columns and their values."""

    lane: ResolvedLane
    heads: tuple[str, ...]
    columns: tuple[Floats, ...]


def data_sets(document: Document) -> Iterator[Measured]:
    """All data sets of a sheet."""
    for lane in resolve(document):
        if lane.measured is None or lane.lane.data is None:
            continue
        columns = tuple(lane.measured.columns[one.name] for one in lane.lane.data.columns)
        yield Measured(lane, tuple(heads_of(lane)), columns)
