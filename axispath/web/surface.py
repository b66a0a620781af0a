"""A function of two variables as a surface: its heights over the view, and its level lines."""

from __future__ import annotations

from typing import Any

import numpy as np

from axispath.core.language.numbers import decimal
from axispath.core.plane.arcs import joined
from axispath.core.plane.levels import levels_drawn
from axispath.core.plane.relation import level_of
from axispath.core.plane.screen import Screen
from axispath.core.sheet.document import Document
from axispath.core.sheet.levels import Floats, grid_of, levels_of
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve

MAPS = frozenset({"map"})
ACROSS = 57  # places along each axis
PIXELS = 220  # of the picture that the lines are taken from
MATTERS = 0.02, 0.98  # of the heights, beyond which a pole runs off
FAR = 3.0  # times as high as what matters, where a surface is cut off
PLACES = 4


def surface(document: Document, lane_id: str) -> dict[str, Any]:
    """Heights from below and from the left, None where there is none; levels with their lines.

    The other functions of x and y that are shown stand ``beside`` it, on the same scale.
    """
    lane = resolve(document).lane(lane_id)
    if lane is None or not lane.can(MAPS) or not lane.ready:
        raise EditRefused("Only a function of x and y can be seen as a surface.")
    view = document.view
    heights = grid_of(lane, view, ACROSS, ACROSS)
    beside = {
        other.lane.id: grid_of(other, view, ACROSS, ACROSS)
        for other in resolve(document).shown(MAPS)
        if other.ready and other.lane.id != lane_id
    }
    all_heights = np.concatenate([heights.ravel(), *(one.ravel() for one in beside.values())])
    finite = all_heights[np.isfinite(all_heights)]
    if not len(finite):
        raise EditRefused(f"{lane.name} is undefined everywhere in this view.")
    low, high = (float(v) for v in np.quantile(finite, MATTERS))
    room = (high - low) * FAR or 1.0
    low, high = max(float(finite.min()), low - room), min(float(finite.max()), high + room)

    def within(values: Floats) -> list[float | None]:
        """What is not cut off, as plain numbers."""
        return _plain(np.where((values >= low) & (values <= high), values, np.nan).ravel())

    levels = levels_of(document, lane, view)
    screen = Screen(view.left, view.right, view.bottom, view.top, PIXELS, PIXELS)
    found = levels_drawn(level_of(lane, 0.0, "="), levels, screen)
    near = 1e-6 * max(view.right - view.left, view.top - view.bottom)
    return {
        "id": lane.lane.id,
        "name": lane.name,
        "across": ACROSS,
        "low": low,
        "high": high,
        "ends": {
            side: decimal(value, document.digits)
            for side, value in (
                ("left", view.left),
                ("right", view.right),
                ("bottom", view.bottom),
                ("top", view.top),
                ("low", low),
                ("high", high),
            )
        },
        "heights": within(heights),
        "beside": [{"id": one, "heights": within(values)} for one, values in beside.items()],
        "levels": [
            {"z": level, "rows": _plain(_shares(joined(lines, near), screen).ravel())}
            for level, lines in zip(levels, found.lines, strict=True)
            if low <= level <= high and len(lines)
        ],
    }


def _shares(rows: Floats, screen: Screen) -> Floats:
    """Places as shares of the view, from 0 to 1."""
    low = np.array([screen.left, screen.bottom])
    size = np.array([screen.right - screen.left, screen.top - screen.bottom])
    shares = (rows - low) / size
    shares[((shares < 0) | (shares > 1)).any(axis=1)] = np.nan
    rounded: Floats = np.round(shares, PLACES)
    return rounded


def _plain(values: Floats) -> list[float | None]:
    return [float(v) if np.isfinite(v) else None for v in values]
