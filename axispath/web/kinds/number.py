"""Sliders on the page."""

import math
from dataclasses import dataclass
from typing import Any

from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.sliders import SliderRange, slider_range, usual_range
from axispath.web.kinds.register import Face
from axispath.web.kinds.value import why_no_value


def _note(lane: ResolvedLane, digits: int) -> str:
    return "" if math.isfinite(lane.value) else why_no_value(lane)


@dataclass(frozen=True)
class SliderView:
    """A slider for its template and for the scripts."""

    low: float
    high: float
    step: float
    value: float
    low_text: str
    high_text: str
    step_text: str
    kind: str
    play: str
    speed: str
    inset: float = 0.0
    words: str = ""


def _turned(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    """How the number is turned."""
    typed = lane.lane.slider
    try:
        found = slider_range(document, lane)
    except EditRefused:
        # A value that the ends used is gone: the usual range until they mean something again.
        low, high = usual_range(lane.value, typed, document.unit)
        found = SliderRange(low, high, 0.0, lane.value)
    slider = SliderView(
        found.low,
        found.high,
        found.step,
        found.value,
        typed.low,
        typed.high,
        typed.step,
        typed.kind,
        typed.play,
        typed.speed,
    )
    return {"slider": slider}


NUMBER = Face("parts/kinds/number.html", "slider", _note, _turned)
