"""What boxes left open, settled by elimination where both equations are polynomials."""

from __future__ import annotations

import numpy as np

from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.path.relations.rules import Rectangle
from axispath.core.plane.elimination import CommonPoint, common_points
from axispath.core.search.common_zeros import Pair, Solved, Zero

LEAST = 2.0**-60  # of the rectangle, that a box about a point is wide at least
APART = 4  # times as near as the next common point is the edge of a box that holds only one
WIDEST = 1.0  # half of such a box


def eliminated(
    first: Coefficients | None,
    second: Coefficients | None,
    pair: Pair,
    solved: Solved,
    rectangle: Rectangle,
) -> Solved:
    """The common zeros of two polynomials with none left open; of other pairs as they were."""
    if not len(solved.open) or first is None or second is None:
        return solved
    points = common_points(first, second)
    if points is None:
        return solved
    known = [one.around for one in solved.zeros]
    room = (rectangle[1] - rectangle[0]) * LEAST, (rectangle[3] - rectangle[2]) * LEAST
    new = [
        _zero(point, points, pair, room)
        for point in points
        if _in(point, rectangle) and not any(_in(point, box) for box in known)
    ]
    return Solved((*solved.zeros, *new), np.empty((0, 4)), False)


def _in(point: CommonPoint, box: Rectangle) -> bool:
    left, right, bottom, top = box
    across = left - point.radius <= point.x <= right + point.radius
    return across and bottom - point.y_radius <= point.y <= top + point.y_radius


def _zero(
    point: CommonPoint, points: tuple[CommonPoint, ...], pair: Pair, room: tuple[float, float]
) -> Zero:
    apart = [
        max(abs(point.x - other.x), abs(point.y - other.y))
        for other in points
        if other is not point
    ]
    half = min([WIDEST, *(far / APART for far in apart)])
    box = _about(point, max(point.radius, room[0]), max(point.y_radius, room[1]))
    return Zero(box, _about(point, half, half), pair.plans, by_elimination=True)


def _about(point: CommonPoint, across: float, up: float) -> Rectangle:
    return (point.x - across, point.x + across, point.y - up, point.y + up)
