"""The document: an immutable value, and the one schema that every stored sheet follows."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tokens import MAX_LENGTH

MAX_LANES = 200
MAX_NAME = 120
WIDEST = 1e13
NARROWEST_SHARE = 1e-12  # of the larger limit: below that float64 cannot tell pixels apart
COLOURS = 8

Limit = Annotated[float, Field(allow_inf_nan=False)]
LaneId = Annotated[str, Field(pattern=r"^[a-z0-9]{1,12}$")]
Line = Annotated[str, Field(max_length=MAX_LENGTH)]


class Value(BaseModel):
    """Base of everything in a document: immutable, and strict about what it holds."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class View(Value):
    """The visible rectangle. ``chosen`` once a person has set it; until then it frames itself."""

    left: Limit = -10.0
    right: Limit = 10.0
    bottom: Limit = -7.0
    top: Limit = 7.0
    chosen: bool = False

    @model_validator(mode="after")
    def _ordered(self) -> View:
        for axis, low, high in (("x", self.left, self.right), ("y", self.bottom, self.top)):
            if not low < high:
                raise ValueError(f"The view needs its {axis} limits in order: from below to.")
            if high - low > WIDEST or max(abs(low), abs(high)) > WIDEST:
                raise ValueError(f"The view is too wide: {axis} can go up to ±10¹².")
            if high - low < max(abs(low), abs(high)) * NARROWEST_SHARE or high - low < 1e-13:
                raise ValueError(f"The {axis} limits of the view are too close together.")
        return self


class Slider(Value):
    """How a plain number is turned: its range as typed (empty for the usual one) and its play."""

    low: Annotated[str, Field(max_length=200)] = ""
    high: Annotated[str, Field(max_length=200)] = ""
    step: Annotated[str, Field(max_length=200)] = ""
    kind: Literal["any", "whole", "angle"] = "any"
    play: Literal["once", "round", "there and back"] = "there and back"
    speed: Literal["1/4", "1/2", "1", "2", "4", "8"] = "1"


class Lane(Value):
    """One definition. ``name`` is what the sheet calls a line that names nothing itself."""

    id: LaneId
    text: Line
    name: str | None = None
    colour: Annotated[int, Field(ge=0, lt=COLOURS)] = 0
    hidden: bool = False
    slider: Slider = Slider()
    note: Annotated[str, Field(max_length=500)] = ""


class Table(Value):
    """Rows of the table of values, as typed."""

    start: Line = "-5"
    stop: Line = "5"
    step: Line = "1"


class Document(Value):
    """A sheet."""

    format: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=MAX_NAME)] = "Untitled sheet"
    unit: AngleUnit = AngleUnit.RADIAN
    digits: Annotated[int, Field(ge=3, le=15)] = 6
    view: View = View()
    table: Table = Table()
    lanes: Annotated[tuple[Lane, ...], Field(max_length=MAX_LANES)] = ()

    def lane(self, lane_id: str) -> Lane | None:
        """The lane with this id."""
        return next((lane for lane in self.lanes if lane.id == lane_id), None)

    def with_lane(self, changed: Lane) -> Document:
        """This document with the lane of the same id replaced."""
        lanes = tuple(changed if lane.id == changed.id else lane for lane in self.lanes)
        return self.model_copy(update={"lanes": lanes})
