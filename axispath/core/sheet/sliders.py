"""Sliders: lanes that are plain numbers, and the range they are turned over."""

from __future__ import annotations

import math
from dataclasses import dataclass

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import full_precision
from axispath.core.sheet.document import Document, Lane, Slider
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.kinds.number import NUMBER
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane

DIGITS = 12


@dataclass(frozen=True, slots=True)
class SliderRange:
    """From, to and step as numbers; a step of 0 lets every value through."""

    low: float
    high: float
    step: float
    value: float


def is_slider(lane: ResolvedLane) -> bool:
    """Whether a lane is a plain number."""
    return lane.kind is NUMBER


def slider_range(document: Document, lane: ResolvedLane) -> SliderRange:
    """The range of a slider: as typed, or a sensible one around its value.

    Raises EditRefused where what is typed makes no range.
    """
    typed = lane.lane.slider
    low, high = usual_range(lane.value, typed, document.unit)
    low = typed_end(document, typed.low).x if typed.low else low
    high = typed_end(document, typed.high).x if typed.high else high
    step = typed_end(document, typed.step).x if typed.step else 1.0 * (typed.kind == "whole")
    if not low < high:
        raise EditRefused("A slider needs a start below its end.")
    if step < 0 or step > high - low:
        raise EditRefused("The step of a slider is above 0 and not wider than its range.")
    return SliderRange(low, high, step, lane.value)


def usual_range(value: float, typed: Slider, unit: AngleUnit) -> tuple[float, float]:
    """From and to for a number about which nothing else is known."""
    if typed.kind == "angle":
        return 0.0, 360.0 if unit is AngleUnit.DEGREE else 2 * math.pi
    if typed.kind == "whole" and 0 <= value <= 10:
        return 0.0, 10.0
    reach = 5.0
    while reach < abs(value):
        reach *= 2 if str(reach)[0] in "15" else 2.5
    return -reach, reach


def slid(lane: ResolvedLane, value: float) -> Lane:
    """A slider's lane at another value."""
    left, equals, _ = lane.lane.text.partition("=")
    shown = full_precision(float(f"{value:.{DIGITS}g}"))
    text = f"{left.rstrip()} = {shown}" if equals else shown
    return lane.lane.model_copy(update={"text": text})
