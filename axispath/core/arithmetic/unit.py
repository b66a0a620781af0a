"""The angle unit of a sheet."""

from __future__ import annotations

from enum import StrEnum


class AngleUnit(StrEnum):
    """In what the angles of a sheet are measured."""

    RADIAN = "rad"
    DEGREE = "deg"
