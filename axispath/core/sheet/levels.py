"""The levels of a map: as typed, so many, or as many as suit the view."""

from __future__ import annotations

import math
import re

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.floats import bound_to_floats
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane

Floats = NDArray[np.float64]
USUAL, MOST = 9, 30
ACROSS, UPWARDS = 48, 36  # places that a view is looked at
MATTERS = 0.04, 0.96  # of the values, between which levels lie
STEPS = (1.0, 2.0, 2.5, 5.0, 10.0)


def values_at(lane: ResolvedLane, x: Floats, y: Floats) -> Floats:
    """The values of a function of x and y at places; NaN where there is none."""
    with np.errstate(all="ignore"):
        found = bound_to_floats(lane.program, lane.unit).run(x, y)
    return np.broadcast_to(np.asarray(found, dtype=np.float64), np.shape(x)).copy()


def grid_of(lane: ResolvedLane, view: View, across: int, upwards: int) -> Floats:
    """The values on an even grid of a view, shape (upwards, across), from below."""
    x = np.linspace(view.left, view.right, across)
    y = np.linspace(view.bottom, view.top, upwards)
    return values_at(lane, *np.meshgrid(x, y))


def levels_of(document: Document, lane: ResolvedLane, view: View) -> list[float]:
    """The levels that a map shows, rising. Raises EditRefused where what is typed is none."""
    typed = typed_levels(document, lane.lane.levels)
    if isinstance(typed, list):
        return typed
    values = grid_of(lane, view, ACROSS, UPWARDS)
    values = values[np.isfinite(values)]
    if not len(values):
        return []
    low, high = (float(v) for v in np.quantile(values, MATTERS))
    if not high > low:
        return [low] if low == high else []
    step = nice(low, high, typed or USUAL)
    first, last = math.ceil(low / step), math.floor(high / step)
    return [k * step + 0.0 for k in range(first, min(last, first + MOST) + 1)]


def nice(low: float, high: float, count: int) -> float:
    """A round step that parts a stretch into about so many."""
    rough = (high - low) / count
    power = 10.0 ** math.floor(math.log10(rough))
    return next(step * power for step in STEPS if step * power >= rough * 0.999)


def typed_levels(document: Document, text: str) -> list[float] | int | None:
    """The levels that are typed, or how many there are to be; None where nothing is typed."""
    parts = [part for part in re.split(r"[;,]", text) if part.strip()]
    if not parts:
        return None
    if len(parts) > MOST:
        raise EditRefused(f"These are {len(parts)} levels; a map can have {MOST}.")
    found = [typed_end(document, part).x for part in parts]
    if not all(map(math.isfinite, found)):
        raise EditRefused("Levels are ordinary, finite numbers.")
    if len(parts) == 1 and parts[0].strip().isdigit():
        count = int(found[0])
        if not 1 <= count <= MOST:
            raise EditRefused(f"A map has between 1 and {MOST} levels.")
        return count
    return sorted(set(found))
