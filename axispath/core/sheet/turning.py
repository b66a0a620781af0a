"""What can be turned by a slider, by kind: a plain number, the moving point of a curve."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from axispath.core.sheet.curve import inside, range_of
from axispath.core.sheet.document import Document, Lane
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.sliders import SliderRange, slid, slider_range


@dataclass(frozen=True, slots=True)
class Turned:
    """``range`` is from where to where a lane is turned, ``slid`` the lane at another value.

    ``ranged`` says whether the slider has ends of its own.
    """

    range: Callable[[Document, ResolvedLane], SliderRange]
    slid: Callable[[ResolvedLane, float], Lane]
    ranged: bool = True


def point_range(document: Document, lane: ResolvedLane) -> SliderRange:
    """The range of a curve's parameter, in which its point moves. Raises EditRefused."""
    span, typed = range_of(lane), lane.lane.slider
    step = typed_end(document, typed.step).x if typed.step else 0.0
    if step < 0 or step > span.width:
        raise EditRefused("The step of a slider is above 0 and not wider than its range.")
    at = lane.lane.at
    return SliderRange(span.low.x, span.high.x, step, inside(span, math.nan if at is None else at))


def _moved(lane: ResolvedLane, value: float) -> Lane:
    return lane.lane.model_copy(update={"at": value})


NUMBER = Turned(slider_range, slid)
CURVE = Turned(point_range, _moved, ranged=False)
TURNED: dict[str, Turned] = {"number": NUMBER, "parametric": CURVE, "polar": CURVE}
