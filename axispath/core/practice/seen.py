"""What there is at a place, in words: what an answer that is not right is told."""

from __future__ import annotations

import math

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.program import NotComputable
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.numbers import decimal
from axispath.core.path.kinds import SEARCHED
from axispath.core.practice.sought import Sought
from axispath.core.sheet.resolve import ResolvedLane

BITS = 200
SHOWN = 6


def value_at(lane: ResolvedLane, x: arb) -> arb | None:
    """An enclosure of a function's value; None where it has none, or where that is not known."""
    low, high = lane.ends
    if (low is not None and x < low.ball) or (high is not None and x > high.ball):
        return None
    try:
        with precision(BITS):
            found: arb = lane.balls.value(x)
    except (OutsideDomain, NotComputable, ZeroDivisionError):
        return None
    return found if found.is_finite() else None


def shown(value: arb | float) -> str:
    """A number in a sentence."""
    return decimal(float(value.mid()) if isinstance(value, arb) else value, SHOWN, 1e-14)


def at_place(group: str, lanes: tuple[ResolvedLane, ...], x: arb) -> str:
    """What lanes do at a place that is none of a group of landmarks."""
    functions = [lane for lane in lanes if SEARCHED[lane.kind.key].along == "x"]
    functions = [lane for lane in functions if lane.kind.key == "function"]
    if len(functions) != len(lanes):
        return f"There is nothing of the kind at x = {shown(x)}."
    if len(lanes) == 2:
        return _apart(lanes[0], lanes[1], x)
    lane = lanes[0]
    name = f"{lane.name}({shown(x)})"
    value = value_at(lane, x)
    if value is None:
        return f"{lane.name} has no value at x = {shown(x)}."
    if group == "turning points":
        return _slope(lane, x)
    if group == "zeros":
        return f"{name} is {shown(value)}, not 0."
    if group == "breaks":
        return f"{name} is {shown(value)}, and {lane.name} goes through there without a break."
    return f"{name} is {shown(value)}."


def _apart(first: ResolvedLane, second: ResolvedLane, x: arb) -> str:
    values = [value_at(lane, x) for lane in (first, second)]
    for lane, value in zip((first, second), values, strict=True):
        if value is None:
            return f"{lane.name} has no value at x = {shown(x)}."
    one, other = (value for value in values if value is not None)
    place = shown(x)
    return f"{first.name}({place}) is {shown(one)} and {second.name}({place}) is {shown(other)}."


def _slope(lane: ResolvedLane, x: arb) -> str:
    place = float(x.mid())
    try:
        slope = float(lane.slopes(np.array([place]))[0])
    except NotComputable:
        slope = math.nan
    if math.isnan(slope) or slope == 0:
        return f"{lane.name} does not turn at x = {shown(place)}."
    word = "rises" if slope > 0 else "falls"
    return f"At x = {shown(place)} {lane.name} {word}: its slope is {shown(slope)}."


def instead(there: Sought, wanted: str) -> str:
    """That there is another landmark than the one wanted."""
    return f"At x = {shown(there.mark.x)} there is {there.called}, not {wanted}."


def side_of(there: Sought, x: float) -> str:
    """On which side of a place a landmark lies."""
    return "right" if there.mark.x > x else "left"
