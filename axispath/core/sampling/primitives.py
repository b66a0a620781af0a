"""What pictures are made of: shapes that name what they are, and nothing of the kinds of lanes.

Coordinates are relative to the view, 0 to 1 from left to right and from bottom to top. A row of NaN
separates the parts of a shape. Whoever draws takes colour, dash and width from the lane.
"""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import Any, ClassVar, Literal

import numpy as np
from numpy.typing import NDArray

Rows = NDArray[np.float32]


@dataclass(frozen=True, slots=True)
class Shape:
    """What all shapes have in common."""

    def looks(self) -> dict[str, Any]:
        """How it is drawn: its fields but for the numbers."""
        return {f.name: getattr(self, f.name) for f in fields(self) if f.name != "rows"}


@dataclass(frozen=True, slots=True)
class Stroke(Shape):
    """A line through ``rows`` (x, y). A ``faint`` one is seen behind what matters, a ``pale`` one
    is told apart from the rest of its lane. A ``border`` belongs to its region or not.
    """

    name: ClassVar[str] = "stroke"
    rows: Rows
    faint: bool = False
    dashed: bool = True
    pale: bool = False
    border: Literal["", "closed", "open"] = ""


@dataclass(frozen=True, slots=True)
class Band(Shape):
    """A strip between two lines: ``rows`` are (x, lowest, x, highest)."""

    name: ClassVar[str] = "band"
    rows: Rows
    faint: bool = False


@dataclass(frozen=True, slots=True)
class Dots(Shape):
    """Single points, ``rows`` (x, y); with a ``handle`` where a hand can take hold of them.

    ``large`` ones are points of the sheet, ``small`` ones no wider than a line, ``hollow`` ones
    do not count.
    """

    name: ClassVar[str] = "dots"
    rows: Rows
    faint: bool = False
    handle: bool = False
    large: bool = False
    small: bool = False
    hollow: bool = False


@dataclass(frozen=True, slots=True)
class Patch(Shape):
    """Part of the plane: ``rows`` are rectangles (left, bottom, right, top).

    An ``open`` one is where nothing could be settled, a ``tint`` above 0
    says how strongly a band of a map is coloured, up to 1.
    """

    name: ClassVar[str] = "patch"
    rows: Rows
    faint: bool = False
    open: bool = False
    tint: float = 0.0


@dataclass(frozen=True, slots=True)
class Label(Shape):
    """A number or a word, ``text``, at a place (x, y)."""

    name: ClassVar[str] = "label"
    rows: Rows
    text: str
    faint: bool = False


Primitive = Stroke | Band | Dots | Patch | Label
