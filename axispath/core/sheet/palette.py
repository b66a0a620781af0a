"""The colours of the light theme, and dashes and widths of lines, as on the page."""

from __future__ import annotations

from axispath.core.sheet.colour import legible
from axispath.core.sheet.document import Lane
from axispath.core.sheet.look import LOOK

GROUND = "#fffdf8"
CARD = "#fbf9f2"
INK = "#20302b"
MUTED = "#5b645b"
GRID = "#ded8c4"
GRID_MINOR = "#f1ecdd"
RAIL = "#e7e1cd"
RULE = "#a9a189"
SIGNAL = "#c8501e"
READING = "#a35a37"
CURVES = (
    "#1b5e4b",
    "#c8501e",
    "#2b5f94",
    "#7d3c78",
    "#8f6a00",
    "#b03060",
    "#4a5568",
    "#55702a",
)
USUAL_DASHES: tuple[tuple[float, ...], ...] = tuple(map(tuple, LOOK["usualDashes"]))
DASHES: dict[str, tuple[float, ...]] = {name: tuple(d) for name, d in LOOK["dashes"].items()}
WIDTHS: dict[str, float] = LOOK["widths"]


def colour_of(lane: Lane) -> str:
    """A lane's colour on the light ground."""
    return legible(lane.style.own, GROUND) if lane.style.own else CURVES[lane.colour]


def dash_of(lane: Lane) -> tuple[float, ...]:
    """A lane's dash pattern."""
    return DASHES.get(lane.style.dash, USUAL_DASHES[lane.colour])


def width_of(lane: Lane) -> float:
    """How thick a lane's curve is."""
    return WIDTHS[lane.style.thickness]
