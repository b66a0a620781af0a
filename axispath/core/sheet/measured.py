"""Measured numbers in a document: columns of a data set, and the fits to them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from axispath.core.data.cells import EMPTY, MAX_ROWS, Cells
from axispath.core.fits.models import MAX_DEGREE
from axispath.core.sheet.value import Value

MAX_COLUMNS = 60
MAX_LEFT_OUT = 5_000
ColumnName = Annotated[str, Field(pattern=r"^[^\W\d]\w*$", max_length=40)]
Typed = Annotated[str, Field(max_length=200)]


class Column(Value):
    """A column: its name in formulas, its head as it was written, and its numbers.

    With a ``formula`` the numbers are computed from the other columns.
    """

    name: ColumnName
    title: Annotated[str, Field(max_length=120)] = ""
    formula: Typed = ""
    cells: Cells = EMPTY


class DataSet(Value):
    """Columns of the same rows. ``out`` are rows that are left out without being deleted.

    ``x`` and ``y`` are the names of the columns that are drawn, ``errors`` that of the one that
    gives the length of error bars; empty for the first two, and for none. ``look`` is how one
    column is drawn: as points over x, a histogram (of bins ``width`` wide), a box, or dots.
    """

    columns: Annotated[tuple[Column, ...], Field(min_length=1, max_length=MAX_COLUMNS)]
    out: Annotated[tuple[int, ...], Field(max_length=MAX_LEFT_OUT)] = ()
    x: Annotated[str, Field(max_length=40)] = ""
    y: Annotated[str, Field(max_length=40)] = ""
    errors: Annotated[str, Field(max_length=40)] = ""
    look: Literal["points", "histogram", "box", "dots"] = "points"
    width: Typed = ""

    @model_validator(mode="after")
    def _even(self) -> DataSet:
        names = [column.name for column in self.columns]
        if len(set(names)) < len(names):
            raise ValueError("two columns have the same name")
        if any(not 0 <= row < MAX_ROWS for row in self.out):
            raise ValueError("there is no such row")
        return self

    @property
    def rows(self) -> int:
        """How many rows there are."""
        return max((len(column.cells) for column in self.columns), default=0)

    def column(self, name: str) -> Column | None:
        """The column of this name."""
        return next((column for column in self.columns if column.name == name), None)

    @property
    def across(self) -> str:
        """The name of the column along x: as chosen, else the first."""
        return self.x if self.column(self.x) else self.columns[0].name

    @property
    def upwards(self) -> str:
        """The name of the column along y: as chosen, else the first that is not along x."""
        if self.column(self.y):
            return self.y
        others = [column.name for column in self.columns if column.name != self.across]
        return others[0] if others else ""


class Fit(Value):
    """A formula fitted to columns of the data set in lane ``data``.

    ``model`` is one of the register, “polynomial” of a ``degree``, or “own”: then the names of the
    formula that nothing defines are its parameters. ``starts`` is where the search begins, ``held``
    what is not to be fitted, both by parameter. ``weigh`` says what the column ``weight`` holds;
    ``squares`` are drawn on the residuals, a ``band`` where 95 of 100 further points are expected.
    """

    data: Annotated[str, Field(pattern=r"^[a-z0-9]{1,12}$")]
    x: ColumnName
    y: ColumnName
    model: Annotated[str, Field(max_length=20)] = "line"
    degree: Annotated[int, Field(ge=0, le=MAX_DEGREE)] = 2
    weigh: Literal["", "weights", "errors"] = ""
    weight: Annotated[str, Field(max_length=40)] = ""
    squares: bool = False
    band: bool = False
    starts: Annotated[tuple[tuple[str, float], ...], Field(max_length=20)] = ()
    held: Annotated[tuple[tuple[str, Typed], ...], Field(max_length=20)] = ()
