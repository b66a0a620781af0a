"""The registers of how lanes are searched and framed, and which have exact values, by kind."""

from __future__ import annotations

from axispath.core.path.kinds.curve import PARAMETRIC, POLAR, curve_box, curves_met, function_met
from axispath.core.path.kinds.function import FUNCTION, function_box
from axispath.core.path.kinds.point import point_box
from axispath.core.path.kinds.register import Framed, Meets, Searched
from axispath.core.path.lanes import crossing_path

SEARCHED: dict[str, Searched] = {
    "function": FUNCTION,
    "parametric": PARAMETRIC,
    "polar": POLAR,
}
MEETS: dict[tuple[str, str], Meets] = {
    ("function", "function"): crossing_path,
    ("parametric", "function"): function_met,
    ("polar", "function"): function_met,
    ("parametric", "parametric"): curves_met,
    ("parametric", "polar"): curves_met,
    ("polar", "polar"): curves_met,
}
"""How intersections of lanes are found, by their kinds."""

VALUED = frozenset({"value"})
"""The kinds whose lanes are one number that may have an exact form."""

FRAMED: dict[str, Framed] = {
    "function": function_box,
    "parametric": curve_box,
    "polar": curve_box,
    "point": point_box,
}
