"""Edits of how a lane shows: hidden, folded, its place, colour, line, samples and note."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from axispath.core.sheet.document import COLOURS, MAX_LANES, Document, Samples, Style, Typed
from axispath.core.sheet.edits.change import LaneChange
from axispath.core.sheet.levels import typed_levels
from axispath.core.sheet.samples import sample_amount


class ShowLane(LaneChange):
    """Hide a lane from the plot, or show it again."""

    do: Literal["show lane"] = "show lane"
    shown: bool

    def applied(self, document: Document) -> Document:
        return self.changed(document, hidden=not self.shown)

    def words(self, document: Document) -> str:
        return f"{'showing' if self.shown else 'hiding'} {self.called(document)}"


class FoldLane(LaneChange):
    """A lane folded to a narrow row, or unfolded."""

    do: Literal["fold lane"] = "fold lane"
    folded: bool

    def applied(self, document: Document) -> Document:
        return self.changed(document, folded=self.folded)

    def words(self, document: Document) -> str:
        return f"{'folding' if self.folded else 'unfolding'} {self.called(document)}"


class MoveLane(LaneChange):
    """A lane to another place, counted from 0."""

    do: Literal["move lane"] = "move lane"
    to: Annotated[int, Field(ge=0, lt=MAX_LANES)]

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        others = [other for other in document.lanes if other != lane]
        others.insert(self.to, lane)
        return document.model_copy(update={"lanes": tuple(others)})

    def words(self, document: Document) -> str:
        return f"moving {self.called(document)}"


class SetColour(LaneChange):
    """Another colour, and the dashes that go with it."""

    do: Literal["set colour"] = "set colour"
    colour: Annotated[int, Field(ge=0, lt=COLOURS)]

    def applied(self, document: Document) -> Document:
        style = self.lane(document).style.model_copy(update={"own": ""})
        return self.changed(document, colour=self.colour, style=style)

    def words(self, document: Document) -> str:
        return f"the colour of {self.called(document)}"


class SetNote(LaneChange):
    """A few words about a lane."""

    do: Literal["set note"] = "set note"
    note: Annotated[str, Field(max_length=500)]

    def applied(self, document: Document) -> Document:
        return self.changed(document, note=self.note.strip())

    def words(self, document: Document) -> str:
        return f"the note on {self.called(document)}"


class SetStyle(LaneChange):
    """How a lane's curve is drawn."""

    do: Literal["set style"] = "set style"
    style: Style

    def applied(self, document: Document) -> Document:
        return self.changed(document, style=self.style)

    def words(self, document: Document) -> str:
        return f"the style of {self.called(document)}"


class SetLevels(LaneChange):
    """The levels of a map: themselves, or how many."""

    do: Literal["set levels"] = "set levels"
    levels: Typed

    def applied(self, document: Document) -> Document:
        typed_levels(document, self.levels)
        return self.changed(document, levels=self.levels)

    def words(self, document: Document) -> str:
        return f"the levels of {self.called(document)}"


class SetSamples(LaneChange):
    """A lane drawn from samples, or no longer."""

    do: Literal["set samples"] = "set samples"
    samples: Samples

    def applied(self, document: Document) -> Document:
        sample_amount(document, self.samples)
        return self.changed(document, samples=self.samples)

    def words(self, document: Document) -> str:
        return f"the samples of {self.called(document)}"
