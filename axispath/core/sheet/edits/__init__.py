"""Edits: functions from document to document, one class each, told apart by ``do``."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, TypeAdapter

from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits.columns import ArrangeRows, DrawData, RemoveColumn, SetColumn
from axispath.core.sheet.edits.curves import LetRun, MoveAlong
from axispath.core.sheet.edits.data import AddData, MoveRow, NameData, SetCells, SetRows
from axispath.core.sheet.edits.domain import SetDomain
from axispath.core.sheet.edits.equations import AddBlock, SetBlock
from axispath.core.sheet.edits.fits import AddFit, SetFit
from axispath.core.sheet.edits.following import DrawLevel, SolveFor
from axispath.core.sheet.edits.lines import (
    AddLane,
    AddLines,
    DuplicateLane,
    RemoveLane,
    ReviseLane,
)
from axispath.core.sheet.edits.looks import (
    FoldLane,
    MoveLane,
    SetColour,
    SetLevels,
    SetNote,
    SetSamples,
    SetStyle,
    ShowLane,
)
from axispath.core.sheet.edits.points import GatherPoints, MovePoint, PointsToData
from axispath.core.sheet.edits.practice import (
    MoveQuestion,
    RemoveQuestion,
    SetCover,
    SetQuestion,
)
from axispath.core.sheet.edits.sliders import SetSlider, Slide
from axispath.core.sheet.edits.tables import ForgetEquation, KeepEquation, RemoveTable, SetTable
from axispath.core.sheet.edits.whole import Rename, SetGround, SetUnit
from axispath.core.sheet.edits.working import (
    AddWork,
    MoveWork,
    SetNotation,
    SetSystem,
    SetWritten,
)

__all__ = [
    "EDITS",
    "AddBlock",
    "AddData",
    "AddFit",
    "AddLane",
    "AddLines",
    "AddWork",
    "ArrangeRows",
    "DrawData",
    "DrawLevel",
    "DuplicateLane",
    "Edit",
    "FoldLane",
    "ForgetEquation",
    "GatherPoints",
    "KeepEquation",
    "LetRun",
    "MoveAlong",
    "MoveLane",
    "MovePoint",
    "MoveQuestion",
    "MoveRow",
    "MoveWork",
    "NameData",
    "PointsToData",
    "RemoveColumn",
    "RemoveLane",
    "RemoveQuestion",
    "RemoveTable",
    "Rename",
    "ReviseLane",
    "SetBlock",
    "SetCells",
    "SetColour",
    "SetColumn",
    "SetCover",
    "SetDomain",
    "SetFit",
    "SetGround",
    "SetLevels",
    "SetNotation",
    "SetNote",
    "SetQuestion",
    "SetRows",
    "SetSamples",
    "SetSlider",
    "SetStyle",
    "SetSystem",
    "SetTable",
    "SetUnit",
    "SetWritten",
    "ShowLane",
    "Slide",
    "SolveFor",
    "apply",
    "with_view",
]

Edit = (
    AddLane
    | AddLines
    | ReviseLane
    | SolveFor
    | RemoveLane
    | ShowLane
    | SetDomain
    | Slide
    | SetSlider
    | MoveLane
    | DuplicateLane
    | DrawLevel
    | MovePoint
    | GatherPoints
    | PointsToData
    | MoveAlong
    | LetRun
    | SetColour
    | SetNote
    | SetStyle
    | SetLevels
    | SetSamples
    | FoldLane
    | SetGround
    | SetUnit
    | Rename
    | AddWork
    | MoveWork
    | SetNotation
    | SetWritten
    | SetSystem
    | AddBlock
    | SetBlock
    | AddData
    | NameData
    | SetCells
    | SetRows
    | MoveRow
    | SetColumn
    | RemoveColumn
    | ArrangeRows
    | DrawData
    | AddFit
    | SetFit
    | SetTable
    | RemoveTable
    | KeepEquation
    | ForgetEquation
    | SetCover
    | SetQuestion
    | RemoveQuestion
    | MoveQuestion
)
EDITS: TypeAdapter[list[Edit]] = TypeAdapter(
    Annotated[list[Annotated[Edit, Field(discriminator="do")]], Field(min_length=1, max_length=50)]
)


def apply(document: Document, edit: Edit) -> Document:
    """The document after the edit. Raises EditRefused with a sentence."""
    return edit.applied(document)


def with_view(document: Document, view: View) -> Document:
    """The document seen through another view."""
    return document.model_copy(update={"view": view})
