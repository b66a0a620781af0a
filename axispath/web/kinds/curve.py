"""Curves with a parameter on the page."""

from dataclasses import dataclass
from typing import Any

from axispath.core.sheet.curve import curve_of, end_text, range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.sliders import SliderRange
from axispath.core.sheet.turning import point_range
from axispath.core.table.closing import closing
from axispath.core.table.kinds.curve import moving_words
from axispath.web.kinds.number import SliderView
from axispath.web.kinds.register import Face

INSET = 0.1  # of a strip's width beyond either end of the range, for ends to be dragged to


@dataclass(frozen=True)
class CurveView:
    """The range of a curve where the sheet chose it, and what there is to say of the figure."""

    low: str
    high: str
    why: str
    until: str


def _note(lane: ResolvedLane, digits: int) -> str:
    why, told = range_of(lane).why, closing(lane)
    if why and (told.closed or curve_of(lane).motion.never):
        return f"{why}, and closed" if told.closed else why
    return "; ".join(part for part in (why, told.words) if part)


def _more(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    span, typed = range_of(lane), lane.lane.slider
    try:
        found = point_range(document, lane)
    except EditRefused:  # a value that the step used is gone
        found = SliderRange(span.low.x, span.high.x, 0.0, span.low.x)
    told = closing(lane)
    slider = SliderView(
        found.low,
        found.high,
        found.step,
        found.value,
        end_text(span.low),
        end_text(span.high),
        typed.step,
        typed.kind,
        typed.play,
        typed.speed,
        INSET,
        moving_words(lane, document.digits),
    )
    view = CurveView(
        end_text(span.low),
        end_text(span.high),
        span.why,
        told.until,
    )
    return {"slider": slider, "curve": view}


CURVE = Face("parts/kinds/curve.html", "curve", _note, _more)
