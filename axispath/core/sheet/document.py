"""The document: an immutable value, and the one schema that every stored sheet follows."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tokens import MAX_LENGTH
from axispath.core.sheet.axes import Axes, axis_label
from axispath.core.sheet.block import Block
from axispath.core.sheet.groups import MarkGroup
from axispath.core.sheet.look import LOOK
from axispath.core.sheet.measured import DataSet, Fit
from axispath.core.sheet.names import MAX_NAME, SheetName, named
from axispath.core.sheet.practice import MOST_QUESTIONS, Cover, Found, Question
from axispath.core.sheet.value import Value

MAX_LANES = 200
MAX_TABLES = 12
MAX_EQUATIONS = 30
MAX_PLACES = 60_000  # characters of a list of rows
MAX_SYSTEM = 4_000
MOST_FOUND = 1_000  # covered landmarks that were found
WIDEST: float = LOOK["view"]["widest"]
NARROWEST: float = LOOK["view"]["narrowest"]
NARROWEST_SHARE: float = LOOK["view"]["narrowestShare"]
COLOURS = 8

Limit = Annotated[float, Field(allow_inf_nan=False)]
LaneId = Annotated[str, Field(pattern=r"^[a-z0-9]{1,12}$")]
Line = Annotated[str, Field(max_length=MAX_LENGTH)]
Typed = Annotated[str, Field(max_length=200)]


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
                raise ValueError(f"The view is too wide: {axis} can go up to ±10¹³.")
            if high - low < max(abs(low), abs(high)) * NARROWEST_SHARE or high - low < NARROWEST:
                raise ValueError(f"The {axis} limits of the view are too close together.")
        return self


class Slider(Value):
    """How a plain number is turned: its range as typed (empty for the usual one) and its play."""

    low: Typed = ""
    high: Typed = ""
    step: Typed = ""
    kind: Literal["any", "whole", "angle"] = "any"
    play: Literal["once", "round", "there and back"] = "there and back"
    speed: Literal["1/4", "1/2", "1", "2", "4", "8"] = "1"


class Style(Value):
    """How a lane's curve is drawn. ``own`` is a colour as #rrggbb in place of the palette's.

    The dash “usual” is the one that goes with the lane's colour. ``place`` writes the coordinates
    beside a point, ``joined`` joins the points of a list by lines.
    """

    own: Annotated[str, Field(pattern=r"^(#[0-9a-f]{6})?$")] = ""
    thickness: Literal["thin", "medium", "thick"] = "medium"
    dash: Literal["usual", "unbroken", "dashes", "dots", "dashes and dots"] = "usual"
    markers: Literal["none", "discs", "squares", "bars"] = "none"
    flag: bool = True
    trail: Literal["none", "curve", "landmarks"] = "none"
    place: bool = False
    joined: bool = False


class Samples(Value):
    """Places at which a lane is sampled to show what sampling does; none where ``by`` is empty.

    ``amount`` is a number of samples or the step between them, as typed.
    """

    by: Literal["", "count", "step"] = ""
    amount: Typed = ""
    joined: bool = True


Notation = Literal["", "fixed", "scientific", "engineering"]
"""How the results on the page Working are written; empty as they are everywhere else."""


class Written(Value):
    """How the result of one line of Working is written, where not as those of the others.

    ``form`` is “decimal” or “exact” alone, a “mixed” number, or “polar” for a complex one; a line
    that ``rests`` is kept and not computed.
    """

    form: Literal["", "decimal", "exact", "mixed", "polar"] = ""
    notation: Literal["", "fixed", "scientific", "engineering", "plain"] = ""
    digits: Annotated[int, Field(ge=1, le=15)] | None = None
    rests: bool = False


class Lane(Value):
    """One definition. ``name`` is what the sheet calls a line that names nothing itself.

    Such a line is a ``value``, or a function of x, or a curve along which the letter ``runs``.
    Which it is was decided when it was typed. ``at`` is where the moving point of a curve is,
    ``levels`` are those of a map, as typed. A lane with ``data`` is a data set called by its text,
    one with a ``fit`` a function whose parameters are fitted; one that is ``working`` is a line of
    the page Working, and not among the lanes; there a lane with a ``block`` is one of equations.
    """

    id: LaneId
    text: Line
    name: Annotated[str, Field(max_length=MAX_NAME)] | None = None
    value: bool = False
    runs: SheetName | Literal["-"] = ""
    at: Annotated[float, Field(allow_inf_nan=False)] | None = None
    colour: Annotated[int, Field(ge=0, lt=COLOURS)] = 0
    hidden: bool = False
    folded: bool = False
    slider: Slider = Slider()
    style: Style = Style()
    samples: Samples = Samples()
    levels: Typed = ""
    note: Annotated[str, Field(max_length=500)] = ""
    data: DataSet | None = None
    fit: Fit | None = None
    block: Block | None = None
    working: bool = False
    written: Written = Written()

    @model_validator(mode="after")
    def _called(self) -> Lane:
        """Data sets are called by words; everything else by a name of the language."""
        if self.data is None and self.name:
            named(self.name)
        return self


def lasting(document: Document) -> dict[str, Any]:
    """A document as JSON, without what travels beside its history: the view and what was found."""
    apart = {"view", "found"}
    return document.model_dump(mode="json", exclude_defaults=True, exclude=apart)


def called(lane_id: str, text: str, words: str) -> Lane:
    """A lane that is on no sheet, under words that need be no name."""
    return Lane(id=lane_id, text=text).model_copy(update={"name": words})


class Ticks(Value):
    """Where the numbers of an axis stand: of themselves, at a typed step, or at parts of a turn."""

    kind: Literal["automatic", "step", "pi", "degrees"] = "automatic"
    step: Typed = ""


class Ground(Value):
    """The ground that curves are drawn on: grid, axes, title, labels and legend.

    ``angles`` of points run from 0 to a full turn, or from −½ to ½ of one. ``without`` are the
    landmarks that are not marked on the plot. The legend's place is its upper left corner, as
    shares of the plot's width and height. ``x_unit`` and ``y_unit`` are what x and y count, as
    typed; lanes may hold quantities then.
    """

    grid: Literal["fine", "coarse", "polar", "none"] = "fine"
    axes: Literal["origin", "edge"] = "origin"
    angles: Literal["full", "signed"] = "full"
    equal: bool = False
    x_ticks: Ticks = Ticks()
    y_ticks: Ticks = Ticks()
    x_label: Annotated[str, Field(max_length=80)] = ""
    y_label: Annotated[str, Field(max_length=80)] = ""
    x_unit: Annotated[str, Field(max_length=40)] = ""
    y_unit: Annotated[str, Field(max_length=40)] = ""
    title: Annotated[str, Field(max_length=300)] = ""
    without: Annotated[tuple[MarkGroup, ...], Field(max_length=15)] = ()
    legend: bool = False
    legend_x: Annotated[float, Field(ge=0, le=1)] = 0.03
    legend_y: Annotated[float, Field(ge=0, le=1)] = 0.04


class Table(Value):
    """A table of values, as typed.

    ``by`` says what makes the rows: a step, a count, a list (``places``), the landmarks of
    ``lanes``, or the points of the sheet. ``variable`` is x, a slider, or the parameter of curves.
    ``columns`` are expressions; none stand for the shown functions, or for the values of a function
    of two numbers called ``across``, whose second number runs from column to column. ``finer`` are
    stretches with ten rows between their ends.
    """

    id: LaneId = "table1"
    by: Literal["step", "count", "list", "landmarks", "points"] = "step"
    start: Line = "-5"
    stop: Line = "5"
    step: Line = "1"
    count: Typed = "11"
    places: Annotated[str, Field(max_length=MAX_PLACES)] = ""
    lanes: Annotated[tuple[LaneId, ...], Field(max_length=MAX_LANES)] = ()
    variable: SheetName = "x"
    columns: Annotated[tuple[Typed, ...], Field(max_length=20)] = ()
    finer: Annotated[tuple[tuple[Typed, Typed], ...], Field(max_length=60)] = ()
    points: bool = False
    changes: Literal["", "differences", "ratios", "both"] = ""
    across: SheetName = ""
    across_start: Typed = "0"
    across_stop: Typed = "5"
    across_step: Typed = "1"


class Equation(Value):
    """An equation that was solved: its unknown where it was chosen, and its interval as typed."""

    text: Line
    unknown: SheetName = ""
    low: Typed = ""
    high: Typed = ""


class Document(Value):
    """A sheet.

    Landmarks under the ``cover`` are shown to nobody, but for those that were ``found``; what was
    found travels beside the history, as the view does.
    """

    format: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=MAX_NAME)] = "Untitled sheet"
    unit: AngleUnit = AngleUnit.RADIAN
    digits: Annotated[int, Field(ge=3, le=15)] = 6
    notation: Notation = ""
    measures: Literal["SI", "US"] = "SI"
    view: View = View()
    ground: Ground = Ground()
    tables: Annotated[tuple[Table, ...], Field(min_length=1, max_length=MAX_TABLES)] = (Table(),)
    equations: Annotated[tuple[Equation, ...], Field(max_length=MAX_EQUATIONS)] = ()
    lanes: Annotated[tuple[Lane, ...], Field(max_length=MAX_LANES)] = ()
    system: Annotated[str, Field(max_length=MAX_SYSTEM)] = ""
    cover: Cover = Cover()
    found: Annotated[tuple[Found, ...], Field(max_length=MOST_FOUND)] = ()
    questions: Annotated[tuple[Question, ...], Field(max_length=MOST_QUESTIONS)] = ()

    @model_validator(mode="before")
    @classmethod
    def _with_tables(cls, data: Any) -> Any:
        """Sheets stored when a sheet had one table have it under another name."""
        if isinstance(data, dict) and "table" in data:
            data = {**data, "tables": [data["table"]]}
            del data["table"]
        return data

    @property
    def axes(self) -> Axes:
        """The units of the axes."""
        return Axes(self.ground.x_unit, self.ground.y_unit)

    @property
    def axis_labels(self) -> tuple[str, str]:
        """What stands at the axes: their labels and their units."""
        ground = self.ground
        return (
            axis_label(ground.x_label, ground.x_unit, "x"),
            axis_label(ground.y_label, ground.y_unit, "y"),
        )

    @property
    def shown_lanes(self) -> tuple[Lane, ...]:
        """The lanes of the sheet, without the lines of the page Working."""
        return tuple(lane for lane in self.lanes if not lane.working)

    def table(self, table_id: str) -> Table:
        """The table with this id; the first where there is none."""
        return next((t for t in self.tables if t.id == table_id), self.tables[0])

    def lane(self, lane_id: str) -> Lane | None:
        """The lane with this id."""
        return next((lane for lane in self.lanes if lane.id == lane_id), None)

    def with_lane(self, changed: Lane) -> Document:
        """This document with the lane of the same id replaced."""
        lanes = tuple(changed if lane.id == changed.id else lane for lane in self.lanes)
        return self.model_copy(update={"lanes": lanes})
