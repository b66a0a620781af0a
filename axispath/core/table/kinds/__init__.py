"""The registers of how lanes of each kind are read, tabled and put in words, by their keys."""

from __future__ import annotations

from collections.abc import Callable

from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.curve import (
    DESCRIBED_CURVE,
    columns_of_curve,
    columns_of_polar,
    moving_words,
)
from axispath.core.table.kinds.data import DESCRIBED_DATA
from axispath.core.table.kinds.function import DESCRIBED_FUNCTION, column_of, read_function
from axispath.core.table.kinds.map import DESCRIBED_MAP
from axispath.core.table.kinds.point import DESCRIBED_POINT, rows_of_points
from axispath.core.table.kinds.register import Described, Read, Spot
from axispath.core.table.kinds.relation import (
    DESCRIBED_REGION,
    DESCRIBED_RELATION,
    read_region,
    read_relation,
)
from axispath.core.table.kinds.spot import spot_of_map, spot_of_region
from axispath.core.table.kinds.value import column_of_value

READ: dict[str, Callable[[Document, ResolvedLane, float], Read]] = {
    "function": read_function,
    "relation": read_relation,
    "region": read_region,
}
"""How a lane is read at an x."""

AT_PLACE: dict[str, Callable[[Document, ResolvedLane, float, float], Spot]] = {
    "map": spot_of_map,
    "region": spot_of_region,
}
"""What a lane is at a place of the plane."""

DESCRIBED: dict[str, Described] = {
    "function": DESCRIBED_FUNCTION,
    "parametric": DESCRIBED_CURVE,
    "polar": DESCRIBED_CURVE,
    "point": DESCRIBED_POINT,
    "relation": DESCRIBED_RELATION,
    "region": DESCRIBED_REGION,
    "map": DESCRIBED_MAP,
    "data": DESCRIBED_DATA,
}
"""How a lane is put in words, and why it may not show."""

MOVING: dict[str, Callable[[ResolvedLane, int], str]] = {
    "parametric": moving_words,
    "polar": moving_words,
}
"""What moves along a lane, in words of so many digits."""

OVER_X: dict[str, Callable[[ResolvedLane], str]] = {
    "function": column_of,
}
"""The usual column of a lane in a table that runs over x."""

OVER_SLIDER: dict[str, Callable[[ResolvedLane], str]] = {
    "value": column_of_value,
}
"""The usual column of a lane in a table in which a slider runs."""

ROWS: dict[str, Callable[[ResolvedLane], list[tuple[str, tuple[float, float]]]]] = {
    "point": rows_of_points,
}
"""The places of a lane that are rows of a table, and what they are called."""

ALONG: dict[str, Callable[[ResolvedLane], tuple[str, ...]]] = {
    "parametric": columns_of_curve,
    "polar": columns_of_polar,
}
"""The usual columns of a lane in a table in which its parameter runs."""
