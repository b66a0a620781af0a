"""The colours of both themes, and dashes and widths of lines, as on the page."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.sheet.colour import legible
from axispath.core.sheet.document import Lane
from axispath.core.sheet.look import LOOK


@dataclass(frozen=True, slots=True)
class Palette:
    """The colours of a theme."""

    ground: str
    card: str
    ink: str
    muted: str
    rule: str
    grid: str
    grid_minor: str
    reading: str
    curves: tuple[str, ...]

    def colour_of(self, lane: Lane) -> str:
        """A lane's colour, legible on the ground."""
        own = lane.style.own
        return legible(own, self.ground) if own else self.curves[lane.colour]


LIGHT = Palette(
    ground="#fffdf8",
    card="#fbf9f2",
    ink="#20302b",
    muted="#5b645b",
    rule="#a9a189",
    grid="#ded8c4",
    grid_minor="#f1ecdd",
    reading="#a35a37",
    curves=(
        *("#1b5e4b", "#c8501e", "#2b5f94", "#7d3c78"),
        *("#8f6a00", "#b03060", "#4a5568", "#55702a"),
    ),
)
DARK = Palette(
    ground="#191f1c",
    card="#1c2320",
    ink="#ece7d8",
    muted="#a9b0a4",
    rule="#6f786c",
    grid="#343d37",
    grid_minor="#222925",
    reading="#e59b74",
    curves=(
        *("#6ccbad", "#ff8a58", "#84b8f0", "#d796d2"),
        *("#d9b545", "#f288ad", "#aab7ca", "#a9cb7c"),
    ),
)
THEMES = {"light": LIGHT, "dark": DARK}
USUAL_DASHES: tuple[tuple[float, ...], ...] = tuple(map(tuple, LOOK["usualDashes"]))
DASHES: dict[str, tuple[float, ...]] = {name: tuple(d) for name, d in LOOK["dashes"].items()}
WIDTHS: dict[str, float] = LOOK["widths"]


def dash_of(lane: Lane) -> tuple[float, ...]:
    """A lane's dash pattern."""
    return DASHES.get(lane.style.dash, USUAL_DASHES[lane.colour])


def width_of(lane: Lane) -> float:
    """How thick a lane's curve is."""
    return WIDTHS[lane.style.thickness]
