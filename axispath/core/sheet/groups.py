"""The groups in which landmarks are marked on the plot, covered and asked for."""

from __future__ import annotations

from typing import Literal

MarkGroup = Literal[
    "zeros",
    "turning points",
    "inflections",
    "breaks",
    "intersections",
    "start and end",
    "on the axes",
    "turns",
    "cusps",
    "crossings of itself",
    "distances from the pole",
    "single points",
    "corners",
    "highest and lowest",
    "saddles",
]
