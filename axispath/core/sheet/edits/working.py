"""Edits of the page Working: a line more, a line sent to the sheet, how results are written."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from pydantic import Field

from axispath.core.quantities.values import NoResult
from axispath.core.sheet.calculating import stands_for
from axispath.core.sheet.document import MAX_SYSTEM, Document, Lane, LaneId, Notation, Written
from axispath.core.sheet.edits.change import Change, LaneChange
from axispath.core.sheet.edits.lines import added
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve

ANSWER = re.compile(r"\bans_?(\d+)?\b")
ON_SHEET = "{name} is a matrix, a complex number or a quantity: it stays on the page Working."


class AddWork(Change):
    """A new line of calculation; “ans” in it is the line before, “ans3” the third line."""

    do: Literal["add work"] = "add work"
    text: str
    id: LaneId | None = None

    def applied(self, document: Document) -> Document:
        lines = [lane for lane in document.lanes if lane.working and lane.block is None]
        text = ANSWER.sub(lambda found: _name_of(lines, found[1]), self.text)
        return added(document, text, self.id, working=True)

    def words(self, document: Document) -> str:
        return "a line of working"


def _name_of(lines: list[Lane], number: str | None) -> str:
    """What the result of a line is called, by its number from 1 on; the last one without."""
    if not lines:
        raise EditRefused("There is no answer yet: ans is the result of the line before.")
    if number is not None and not 1 <= int(number) <= len(lines):
        raise EditRefused(f"There is no line {number}: they go from 1 to {len(lines)}.")
    line = lines[-1] if number is None else lines[int(number) - 1]
    name = line.name or line.text.partition("=")[0].strip()
    if "(" in name or line.written.rests:
        raise EditRefused(f"Line {number or len(lines)} has no result that could be used.")
    return name


class MoveWork(LaneChange):
    """A line sent to the sheet as a lane, or a lane taken to the page Working."""

    do: Literal["move work"] = "move work"
    working: bool

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        if lane.block is not None:
            raise EditRefused(
                "Equations stay on the page Working; their unknowns are on the sheet."
            )
        if lane.data is not None or lane.fit is not None:
            raise EditRefused("Data sets and fits stay on the sheet.")
        resolved = resolve(document).lane(lane.id)
        if not self.working and resolved is not None and resolved.for_lines:
            _refuse_for_lines(resolved)
        written = lane.written.model_copy(update={"rests": False})
        return self.changed(document, working=self.working, written=written)

    def words(self, document: Document) -> str:
        place = "Working" if self.working else "the sheet"
        return f"sending {self.called(document)} to {place}"


def _refuse_for_lines(lane: ResolvedLane) -> None:
    """Refuse what a lane of the sheet cannot hold."""
    try:
        if not lane.parameters and stands_for(lane.outcome.value) is not None:
            return
    except NoResult as reason:
        raise EditRefused(f"This line has no result that a lane could hold: {reason}.") from None
    raise EditRefused(ON_SHEET.format(name=lane.name))


class SetNotation(Change):
    """How many digits results have, and how they and their units are written."""

    do: Literal["set notation"] = "set notation"
    notation: Notation
    digits: Annotated[int, Field(ge=3, le=15)]
    measures: Literal["SI", "US"] | None = None

    def applied(self, document: Document) -> Document:
        changes: dict[str, object] = {"notation": self.notation, "digits": self.digits}
        if self.measures is not None:
            changes["measures"] = self.measures
        return document.model_copy(update=changes)

    def words(self, document: Document) -> str:
        return "how numbers are written"


class SetWritten(LaneChange):
    """How the result of one line is written, or that the line rests."""

    do: Literal["write line"] = "write line"
    written: Written

    def applied(self, document: Document) -> Document:
        if not self.lane(document).working:
            raise EditRefused("Only lines of Working are written in a way of their own.")
        return self.changed(document, written=self.written)

    def words(self, document: Document) -> str:
        was = self.lane(document).written
        if was.rests != self.written.rests:
            done = "putting to rest" if self.written.rests else "waking"
            return f"{done} {self.called(document)}"
        return f"how {self.called(document)} is written"


class SetSystem(Change):
    """The equations of the linear system on the page Working, as typed."""

    do: Literal["set system"] = "set system"
    text: Annotated[str, Field(max_length=MAX_SYSTEM)]

    def applied(self, document: Document) -> Document:
        return document.model_copy(update={"system": self.text})

    def words(self, document: Document) -> str:
        return "the linear system"
