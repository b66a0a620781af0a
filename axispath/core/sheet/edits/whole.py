"""Edits of the sheet as a whole: its ground, its angle unit, its name."""

from __future__ import annotations

from typing import Literal

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import listed
from axispath.core.quantities.values import NoResult
from axispath.core.sheet.axes import axis_unit
from axispath.core.sheet.document import Document, Ground
from axispath.core.sheet.edits.change import Change
from axispath.core.sheet.names import MAX_NAME
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.ticks import tick_step


class SetGround(Change):
    """Grid, axes, ticks, title, labels and legend."""

    do: Literal["set ground"] = "set ground"
    ground: Ground

    def applied(self, document: Document) -> Document:
        for ticks in (self.ground.x_ticks, self.ground.y_ticks):
            tick_step(document, ticks)
        if self.ground.title.count("\n") > 3:
            raise EditRefused("A title can have four lines.")
        for unit in (self.ground.x_unit, self.ground.y_unit):
            try:
                axis_unit(unit)
            except NoResult as reason:
                raise EditRefused(f"The unit {unit.strip()} is not known: {reason}.") from reason
        return document.model_copy(update={"ground": self.ground})

    def words(self, document: Document) -> str:
        before, after = document.ground, self.ground
        changed = [n for name, n in _PARTS.items() if getattr(before, name) != getattr(after, name)]
        return listed(dict.fromkeys(changed)) if changed else "the plot"


_PARTS = {
    "grid": "the grid",
    "axes": "the axes",
    "angles": "the range of angles",
    "equal": "equal scale",
    "x_ticks": "the numbers on the x-axis",
    "y_ticks": "the numbers on the y-axis",
    "x_label": "the label of the x-axis",
    "y_label": "the label of the y-axis",
    "x_unit": "the unit of x",
    "y_unit": "the unit of y",
    "title": "the title",
    "without": "the marks on the plot",
    "legend": "the legend",
    "legend_x": "the legend’s place",
    "legend_y": "the legend’s place",
}


class SetUnit(Change):
    """The angle unit."""

    do: Literal["set unit"] = "set unit"
    unit: AngleUnit

    def applied(self, document: Document) -> Document:
        return document.model_copy(update={"unit": self.unit})

    def words(self, document: Document) -> str:
        return "the angle unit"


class Rename(Change):
    """Another name for the sheet."""

    do: Literal["rename"] = "rename"
    name: str

    def applied(self, document: Document) -> Document:
        name = " ".join(self.name.split())
        if not name:
            raise EditRefused("A sheet needs a name.")
        if len(name) > MAX_NAME:
            raise EditRefused(f"The name is too long: {MAX_NAME} characters at most.")
        return document.model_copy(update={"name": name})

    def words(self, document: Document) -> str:
        return "the sheet’s name"
