"""A curve as it is heard: its heights at even steps, and where there is something to tell of."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from axispath.core.language.numbers import decimal
from axispath.core.path.called import KIND_NAMES
from axispath.core.path.lanes import USUAL, Effort
from axispath.core.path.survey import survey
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve

STEPS = 400
HEARD = frozenset({"function"})
TORN = (Kind.POLE, Kind.JUMP)  # the height on one side says nothing of the other


@dataclass(frozen=True, slots=True)
class Told:
    """A landmark on the way: where, of which kind, and in words."""

    x: float
    y: float | None
    kind: str
    words: str


@dataclass(frozen=True, slots=True)
class Heard:
    """Heights at even steps from ``low`` to ``high``, None where there is none; what is there."""

    name: str
    low: float
    high: float
    heights: tuple[float | None, ...]
    marks: tuple[Told, ...]
    gaps: tuple[float, ...]


def heard(
    document: Document, lane_id: str, low: float, high: float, effort: Effort = USUAL
) -> Heard:
    """A function from ``low`` to ``high``, with its landmarks and where it is torn.

    Landmarks under the sheet's cover are not told. Raises EditRefused.
    """
    lane = resolve(document).lane(lane_id)
    if lane is None or not lane.ready or not lane.can(HEARD):
        raise EditRefused("Only functions of x can be heard.")
    if not low < high:
        raise EditRefused("What is heard runs from left to right.")
    x = np.linspace(low, high, STEPS + 1)
    y = lane.heights(x)
    view = document.view.model_copy(update={"left": low, "right": high})
    alone = tuple(
        one.model_copy(update={"hidden": one.id != lane_id}) if not one.working else one
        for one in document.lanes
    )
    found = survey(document.model_copy(update={"view": view, "lanes": alone}), effort)
    path = next((path for one, path in found.lanes if one.lane.id == lane_id), None)
    marks = path.landmarks if path is not None else ()
    within = [mark for mark in marks if low <= mark.x <= high]
    digits = document.digits
    return Heard(
        lane.name or "",
        low,
        high,
        tuple(float(value) if math.isfinite(value) else None for value in y),
        tuple(
            Told(
                mark.x,
                mark.y if math.isfinite(mark.y) else None,
                mark.kind.value,
                f"{KIND_NAMES[mark.kind]} of {lane.name} at {decimal(mark.x, digits, mark.radius)}",
            )
            for mark in within
        ),
        tuple(mark.x for mark in within if mark.kind in TORN),
    )
