"""Edits that make new lanes of another: a value as a level line, a relation solved for a letter."""

from __future__ import annotations

from typing import Literal

from axispath.core.language.numbers import full_precision
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits.change import LaneChange
from axispath.core.sheet.edits.lines import AddLane
from axispath.core.sheet.edits.names import free_name
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.solved import Letter, solved_for


class DrawLevel(LaneChange):
    """A new lane that draws a value as a level line, and follows it."""

    do: Literal["draw level"] = "draw level"

    def applied(self, document: Document) -> Document:
        lane = resolve(document).lane(self.lane(document).id)
        if lane is None or not lane.ready or lane.statement is None or lane.statement.parameters:
            raise EditRefused("Only a value can be drawn as a level line.")
        name = free_name(document, lane.lane.model_copy(update={"id": "new"}))
        return AddLane(text=f"{name}(x) = {lane.name}").applied(document)

    def words(self, document: Document) -> str:
        return f"drawing {self.called(document)} as a level line"


class SolveFor(LaneChange):
    """New lanes with what a relation comes to when it is solved for y, or for x along the view."""

    do: Literal["solve for"] = "solve for"
    letter: Letter = "y"

    def applied(self, document: Document) -> Document:
        lane = resolve(document).lane(self.lane(document).id)
        found = solved_for(self.letter, lane) if lane is not None and lane.ready else []
        if not found:
            called = self.called(document)
            raise EditRefused(f"{called} cannot be solved for {self.letter} by hand.")
        ends = [full_precision(end) for end in (document.view.bottom, document.view.top)]
        for text in found:
            line = f"y = {text}"
            if self.letter == "x":
                line = f"({text}, y) for {ends[0]} <= y <= {ends[1]}"
            document = AddLane(text=line).applied(document)
        return document

    def words(self, document: Document) -> str:
        return f"solving {self.called(document)} for {self.letter}"
