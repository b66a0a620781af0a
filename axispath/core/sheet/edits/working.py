"""Edits of the page Working: a line more, a line sent to the sheet, how results are written."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from pydantic import Field

from axispath.core.sheet.document import Document, LaneId, Notation
from axispath.core.sheet.edits.change import Change, LaneChange
from axispath.core.sheet.edits.lines import AddLane
from axispath.core.sheet.refused import EditRefused

ANSWER = re.compile(r"\bans\b")


class AddWork(Change):
    """A new line of calculation; “ans” in it is the line before."""

    do: Literal["add work"] = "add work"
    text: str
    id: LaneId | None = None

    def applied(self, document: Document) -> Document:
        text = self.text
        if ANSWER.search(text):
            named = [lane for lane in document.lanes if lane.working]
            last = named[-1].name or named[-1].text.partition("=")[0].strip() if named else ""
            if not last:
                raise EditRefused("There is no answer yet: ans is the result of the line before.")
            text = ANSWER.sub(last, text)
        added = AddLane(text=text, id=self.id).applied(document)
        lane = added.lanes[-1]
        return added.with_lane(lane.model_copy(update={"working": True}))

    def words(self, document: Document) -> str:
        return "a line of working"


class MoveWork(LaneChange):
    """A line sent to the sheet as a lane, or a lane taken to the page Working."""

    do: Literal["move work"] = "move work"
    working: bool

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        if lane.data is not None or lane.fit is not None:
            raise EditRefused("Data sets and fits stay on the sheet.")
        return self.changed(document, working=self.working)

    def words(self, document: Document) -> str:
        place = "Working" if self.working else "the sheet"
        return f"sending {self.called(document)} to {place}"


class SetNotation(Change):
    """How many digits results have, and how they are written."""

    do: Literal["set notation"] = "set notation"
    notation: Notation
    digits: Annotated[int, Field(ge=3, le=15)]

    def applied(self, document: Document) -> Document:
        changes = {"notation": self.notation, "digits": self.digits}
        return document.model_copy(update=changes)

    def words(self, document: Document) -> str:
        return "how numbers are written"
