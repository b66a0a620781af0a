"""The visible rectangle."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Frame:
    """Limits of x and y, and the size in pixels at which they are drawn."""

    left: float
    right: float
    bottom: float
    top: float
    width: int
    height: int
