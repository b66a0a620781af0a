"""The registers of how lanes are searched and framed, and which have exact values, by kind."""

from __future__ import annotations

from axispath.core.path.kinds.curve import PARAMETRIC, POLAR, curve_box, curves_met, function_met
from axispath.core.path.kinds.data import data_box
from axispath.core.path.kinds.function import FUNCTION, function_box, functions_met
from axispath.core.path.kinds.map import MAP, map_box
from axispath.core.path.kinds.point import point_box
from axispath.core.path.kinds.register import Framed, Meets, Searched
from axispath.core.path.kinds.relation import (
    REGION,
    RELATION,
    curve_meets,
    function_meets,
    relation_box,
    relations_meet,
)

SEARCHED: dict[str, Searched] = {
    "function": FUNCTION,
    "parametric": PARAMETRIC,
    "polar": POLAR,
    "relation": RELATION,
    "region": REGION,
    "map": MAP,
}
MEETS: dict[tuple[str, str], Meets] = {
    ("function", "function"): functions_met,
    ("parametric", "function"): function_met,
    ("polar", "function"): function_met,
    ("parametric", "parametric"): curves_met,
    ("parametric", "polar"): curves_met,
    ("polar", "polar"): curves_met,
    ("function", "relation"): function_meets,
    ("parametric", "relation"): curve_meets,
    ("polar", "relation"): curve_meets,
    ("relation", "relation"): relations_meet,
}
"""How intersections of lanes are found, by their kinds."""

VALUED = frozenset({"value"})
"""The kinds whose lanes are one number that may have an exact form."""

FRAMED: dict[str, Framed] = {
    "function": function_box,
    "parametric": curve_box,
    "polar": curve_box,
    "point": point_box,
    "relation": relation_box,
    "region": relation_box,
    "map": map_box,
    "data": data_box,
}
