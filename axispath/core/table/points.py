"""The points of a sheet as rows of a table."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import resolve
from axispath.core.table.kinds import ROWS

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class PointRows:
    """Points in the order of the sheet: what they are called, their x, and their other columns."""

    names: tuple[str, ...]
    x: Floats
    given: tuple[tuple[str, Floats], ...]


def point_rows(document: Document) -> PointRows:
    """The shown points that are there: with y, and on a polar grid with r and θ."""
    rows = [row for lane in resolve(document).shown(ROWS) for row in ROWS[lane.kind.key](lane)]
    names = tuple(name for name, _ in rows)
    x, y = (np.array([place[k] for _, place in rows], dtype=np.float64) for k in (0, 1))
    given = [("y", y)]
    if document.ground.grid == "polar":
        given += [("r", np.hypot(x, y)), ("θ", _angles(document, x, y))]
    return PointRows(names, x, tuple(given))


def _angles(document: Document, x: Floats, y: Floats) -> Floats:
    """In the sheet's unit, over the range that the sheet has chosen."""
    angle = np.arctan2(y, x)
    if document.ground.angles == "full":
        angle = np.where(angle < 0, angle + 2 * math.pi, angle)
    return np.degrees(angle) if document.unit is AngleUnit.DEGREE else angle
