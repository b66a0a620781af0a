"""A rectangle of the plane at a size in pixels."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Screen:
    """Limits of x and y, and how many pixels they are apart."""

    left: float
    right: float
    bottom: float
    top: float
    width: int
    height: int
