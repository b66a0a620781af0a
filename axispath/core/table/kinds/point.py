"""Points in words."""

from __future__ import annotations

import math
from fractions import Fraction

from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import decimal
from axispath.core.search.landmark import Path
from axispath.core.sheet.curve import written_exact
from axispath.core.sheet.document import Document
from axispath.core.sheet.kinds.point import places, why_missing
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.register import Described

MOST_NAMED = 6


def written_place(place: tuple[float, float], digits: int) -> str:
    """Coordinates in brackets; a dash for one without a value."""
    parts = [decimal(value, digits) if math.isfinite(value) else "—" for value in place]
    return f"({', '.join(parts)})"


def polar_place(place: tuple[float, float], document: Document) -> str:
    """The distance from the pole and the angle, in the sheet's unit and the range it has chosen."""
    if not all(math.isfinite(value) for value in place):
        return ""
    x, y = place
    share = math.atan2(y, x) / (2 * math.pi)  # of a turn
    if document.ground.angles == "full" and share < 0:
        share += 1
    distance = decimal(math.hypot(x, y), document.digits, 1e-15 * math.hypot(x, y))
    if document.unit is AngleUnit.DEGREE:
        return f"({distance}; {decimal(share * 360, document.digits, 1e-13)}°)"
    part = Fraction(share * 2).limit_denominator(24)
    if abs(float(part) - share * 2) < 1e-15:
        return f"({distance}; {written_exact(Exact(Fraction(0), part))})"
    return f"({distance}; {decimal(share * 2 * math.pi, document.digits, 1e-15)})"


def why_not_there(lane: ResolvedLane) -> str:
    """Why a single point is not there; empty where it is."""
    plan = why_missing(lane)
    if plan is None:
        return ""
    coordinate = "x" if plan is lane.programs[0] else "y"
    why = why_undefined(plan, lane.unit) or "it is undefined"
    return f"not there: {coordinate} has no value, since {why}"


def in_words(lane: ResolvedLane, path: Path | None, document: Document) -> str:
    """Where the points are."""
    there = places(lane)
    if missing := why_not_there(lane):
        return f"{lane.name} is {missing}."
    shown = ", ".join(written_place(place, document.digits) for place in there[:MOST_NAMED])
    if len(there) == 1:
        return f"{lane.name} is a point at {shown}."
    more = f" and {len(there) - MOST_NAMED} more" if len(there) > MOST_NAMED else ""
    return f"{lane.name} is {len(there)} points: {shown}{more}."


def why_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
    """Why no point shows in the view; None where one does."""
    view = document.view
    for x, y in places(lane):
        if view.left <= x <= view.right and view.bottom <= y <= view.top:
            return None
    missing = why_not_there(lane)
    return f"{lane.name} is {missing}." if missing else f"{lane.name} lies outside this view."


def rows_of_points(lane: ResolvedLane) -> list[tuple[str, tuple[float, float]]]:
    """The points that are there and what they are called: P, and of a list P 1, P 2, …"""
    there = places(lane)
    named = [
        (f"{lane.name} {k}" if len(there) > 1 else f"{lane.name}", place)
        for k, place in enumerate(there, start=1)
    ]
    return [(name, place) for name, place in named if all(math.isfinite(v) for v in place)]


DESCRIBED_POINT = Described(in_words, why_unseen)
