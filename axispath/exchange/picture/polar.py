"""A polar grid on paper: circles about the pole, and rays at parts of a turn with their angles."""

from __future__ import annotations

import math
from fractions import Fraction

import numpy as np

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.sheet.look import LOOK
from axispath.core.sheet.ticks import label
from axispath.exchange.picture.field import PlotField
from axispath.exchange.picture.sheet_of_paper import Paper

POLAR = LOOK["polar"]
CORNERS = 180  # of a circle


def draw_polar_grid(paper: Paper, field: PlotField, step: float) -> None:
    """The lines of the grid, circles at multiples of ``step``."""
    x, y = field.px(0), field.py(0)
    across = max(abs(x - field.left), abs(field.right - x))
    upwards = max(abs(y - field.top), abs(field.bottom - y))
    far = math.hypot(across, upwards)
    for size, count, colour in (
        (step / 2, POLAR["rays"], paper.palette.grid_minor),
        (step, POLAR["named"], paper.palette.grid),
    ):
        _circles(paper, field, size, colour, far)
        rows = []
        for k in range(count):
            angle = 2 * math.pi * k / count
            rows += [
                [x, y],
                [x + far * math.cos(angle), y - far * math.sin(angle)],
                [np.nan, np.nan],
            ]
        paper.line(np.array(rows), colour, 1.0)


def _circles(paper: Paper, field: PlotField, step: float, colour: str, far: float) -> None:
    x, y = field.px(0), field.py(0)
    gap, down = field.px(step) - x, y - field.py(step)
    if gap < POLAR["closest"]:
        return
    near_x = max(0.0, field.left - x, x - field.right)
    near_y = max(0.0, field.top - y, y - field.bottom)
    first = max(1, math.floor(math.hypot(near_x, near_y) / gap))
    turn = np.linspace(0, 2 * math.pi, CORNERS)
    k = first
    while k * min(gap, down) <= far and k < first + POLAR["most"]:
        ring = np.stack([x + k * gap * np.cos(turn), y - k * down * np.sin(turn)], axis=1)
        paper.line(ring, colour, 1.0)
        k += 1


def draw_angles(paper: Paper, field: PlotField, unit: AngleUnit) -> None:
    """The angles at the rays, on the widest circle about the pole that the view holds."""
    x, y = field.px(0), field.py(0)
    reach = min(x - field.left, field.right - x, y - field.top, field.bottom - y) - POLAR["room"]
    if reach < 3 * POLAR["room"]:
        return
    count = POLAR["named"]
    degrees = unit is AngleUnit.DEGREE
    part = Fraction(360 if degrees else 2, count)
    for k in range(count):
        if (4 * k) % count:
            angle = 2 * math.pi * k / count
            place = x + reach * math.cos(angle), y - reach * math.sin(angle)
            text = label(k, part, "°" if degrees else "π")
            paper.text(*place, text, paper.palette.muted, 12, halo=paper.palette.ground)
