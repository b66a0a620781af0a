"""Edits of sliders: their value, and how they are turned."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from axispath.core.language.numbers import full_precision
from axispath.core.sheet.document import Document, Slider
from axispath.core.sheet.edits.change import LaneChange, lane_of
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.sliders import slider_range
from axispath.core.sheet.turning import TURNED


class Slide(LaneChange):
    """Another value for a slider."""

    do: Literal["slide"] = "slide"
    value: Annotated[float, Field(allow_inf_nan=False, ge=-1e15, le=1e15)]

    def applied(self, document: Document) -> Document:
        lane = _turned(document, self.id)
        return document.with_lane(TURNED[lane.kind.key].slid(lane, self.value))

    def words(self, document: Document) -> str:
        return f"sliding {self.called(document)}"


class SetSlider(LaneChange):
    """The range and the play of a slider."""

    do: Literal["set slider"] = "set slider"
    slider: Slider

    def applied(self, document: Document) -> Document:
        lane = _turned(document, self.id)
        turned, wanted = TURNED[lane.kind.key], self.slider
        if not turned.ranged:
            changed = document.with_lane(lane.lane.model_copy(update={"slider": wanted}))
            turned.range(changed, lane_in(changed, self.id))
            return changed
        if wanted.kind == lane.lane.slider.kind:
            # An end that was never typed stays where it is, and does not jump with the value.
            now = slider_range(document, lane)
            low = wanted.low or ("" if lane.lane.slider.low else full_precision(now.low))
            high = wanted.high or ("" if lane.lane.slider.high else full_precision(now.high))
            wanted = wanted.model_copy(update={"low": low, "high": high})
        else:
            wanted = wanted.model_copy(update={"low": "", "high": "", "step": ""})
        changed = document.with_lane(lane.lane.model_copy(update={"slider": wanted}))
        slider_range(changed, lane_in(changed, self.id))
        return changed

    def words(self, document: Document) -> str:
        return f"the slider {self.called(document)}"


def lane_in(document: Document, lane_id: str) -> ResolvedLane:
    """A lane of a document that has it."""
    lane = resolve(document).lane(lane_id)
    assert lane is not None
    return lane


def _turned(document: Document, lane_id: str) -> ResolvedLane:
    lane = lane_in(document, lane_of(document, lane_id).id)
    if not lane.can(TURNED):
        raise EditRefused("Only a plain number, such as a = 2, is a slider.")
    return lane
