"""Two equations in x and y: all common zeros in a rectangle, each proved.

Boxes are parted until each is proved to hold no common zero, or exactly one: with the Krawczyk
operator K(B) = m − Y F(m) + (1 − Y J(B))(B − m) a zero in the box B lies in K(B), and there is
exactly one where K(B) lies inside B (R. Krawczyk 1969; R. E. Moore, R. B. Kearfott and M. J. Cloud
2009, Introduction to Interval Analysis, chapter 8). Boxes are made a little wider for that, so that
a zero on a border is inside. All boxes of a round are worked on at once.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import (
    THROUGHOUT,
    Boxes,
    add,
    between,
    multiply,
    quartered,
    subtract,
)
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.search.budget import Budget

Floats = NDArray[np.float64]
Truth = NDArray[np.bool_]
Plane = Callable[[Boxes, Boxes], Boxes]
WIDER = 0.1  # of a box, that is added on every side
START = 8  # boxes along each side of the rectangle
SHARE = 40  # boxes that cost as much as one evaluation of a search along x
NARROW = 2.0**-34  # of the rectangle, from where on boxes are not parted
MOST_BOXES = 20_000
MOST_STUCK = 64
POLISH = 6


@dataclass(frozen=True)
class Pair:
    """Two functions of the plane and their slopes (along x, along y), on boxes."""

    plans: tuple[Program, Program]
    functions: tuple[Plane, Plane]
    slopes: tuple[tuple[Plane, Plane], tuple[Plane, Plane]]

    @staticmethod
    def of(plans: list[Program], unit: AngleUnit) -> Pair:
        """From programs: both functions, then the slopes of the first and of the second."""
        f, g, fx, fy, gx, gy = (box_function(plan, unit) for plan in plans)
        return Pair((plans[0], plans[1]), (f, g), ((fx, fy), (gx, gy)))


@dataclass(frozen=True, slots=True)
class Zero:
    """A common zero: rectangles (left, right, bottom, top) that hold it, and just it; by the
    Krawczyk operator, or by elimination.
    """

    box: tuple[float, float, float, float]
    around: tuple[float, float, float, float]
    of: tuple[Program, Program] | None = None
    by_elimination: bool = False

    @property
    def x(self) -> float:
        """The middle along x."""
        return (self.box[0] + self.box[1]) / 2

    @property
    def y(self) -> float:
        """The middle along y."""
        return (self.box[2] + self.box[3]) / 2

    @property
    def radii(self) -> tuple[float, float]:
        """How far off the middle may be, along x and along y."""
        a, b, c, d = self.box
        return max(b - self.x, self.x - a), max(d - self.y, self.y - c)


@dataclass(frozen=True, slots=True)
class Solved:
    """All common zeros but for those in ``open`` boxes; ``spent`` where a budget did not reach."""

    zeros: tuple[Zero, ...]
    open: Floats
    spent: bool


def solve(
    pair: Pair,
    rectangle: tuple[float, float, float, float],
    budget: Budget,
    settled: Sequence[tuple[float, float, float, float]] = (),
    also: Plane | None = None,
) -> Solved:
    """The common zeros in a rectangle (left, right, bottom, top), but for those in rectangles about
    which everything is ``settled`` already, and for those where ``also`` is surely not 0.
    """
    left, right, bottom, top = rectangle
    x, y = np.linspace(left, right, START + 1), np.linspace(bottom, top, START + 1)
    i, j = (part.ravel() for part in np.meshgrid(range(START), range(START), indexing="ij"))
    boxes = np.stack([x[i], x[i + 1], y[j], y[j + 1]], axis=1)
    narrow = np.array([(right - left) * NARROW, (top - bottom) * NARROW])
    found: list[Floats] = []
    stuck: list[Floats] = []
    while len(boxes):
        budget.spend(1 + len(boxes) // SHARE)
        if budget.spent or len(boxes) > MOST_BOXES or sum(map(len, stuck)) > MOST_STUCK:
            still = np.concatenate([*stuck, boxes])
            return Solved(_within(_polished(pair, found), rectangle), still, True)
        boxes = boxes[_may(pair, boxes) & ~within_any(boxes, settled)]
        if also is not None:
            boxes = boxes[also(*_sides(boxes)).may_be_zero]
        if not len(boxes):
            break
        wide = _wider(boxes)
        inside, gone, image = _krawczyk(pair, wide)
        found.append(np.concatenate([image[inside], wide[inside]], axis=1))
        # What Krawczyk's operator throws out of the box holds nothing.
        hit = (
            (image[:, 0] <= boxes[:, 1])
            & (image[:, 1] >= boxes[:, 0])
            & (image[:, 2] <= boxes[:, 3])
            & (image[:, 3] >= boxes[:, 2])
        )
        boxes = boxes[~inside & ~gone & hit]
        size = np.stack([boxes[:, 1] - boxes[:, 0], boxes[:, 3] - boxes[:, 2]], axis=1)
        done = (size <= narrow).all(axis=1)
        if done.any():
            stuck.append(boxes[done & ~_known(found, boxes)])
            boxes = boxes[~done]
        boxes = quartered(boxes)
    still = np.concatenate(stuck) if stuck else np.empty((0, 4))
    return Solved(_within(_polished(pair, found), rectangle), still, False)


def within_any(boxes: Floats, settled: Sequence[tuple[float, float, float, float]]) -> Truth:
    """Whether boxes lie in one of these."""
    found = np.zeros(len(boxes), dtype=bool)
    for a, b, c, d in settled:
        found |= (boxes[:, 0] >= a) & (boxes[:, 1] <= b) & (boxes[:, 2] >= c) & (boxes[:, 3] <= d)
    return found


def _within(found: list[Zero], rectangle: tuple[float, float, float, float]) -> tuple[Zero, ...]:
    left, right, bottom, top = rectangle
    return tuple(
        one
        for one in found
        if one.box[1] >= left and one.box[0] <= right and one.box[3] >= bottom and one.box[2] <= top
    )


def _wider(boxes: Floats) -> Floats:
    x, y = (boxes[:, 1] - boxes[:, 0]) * WIDER, (boxes[:, 3] - boxes[:, 2]) * WIDER
    return np.stack([boxes[:, 0] - x, boxes[:, 1] + x, boxes[:, 2] - y, boxes[:, 3] + y], axis=1)


def _sides(boxes: Floats) -> tuple[Boxes, Boxes]:
    return between(boxes[:, 0], boxes[:, 1]), between(boxes[:, 2], boxes[:, 3])


def _may(pair: Pair, boxes: Floats) -> Truth:
    x, y = _sides(boxes)
    first, second = (function(x, y) for function in pair.functions)
    return first.may_be_zero & second.may_be_zero


def _krawczyk(pair: Pair, boxes: Floats) -> tuple[Truth, Truth, Floats]:
    """Where the image lies inside its box, where a slope or value is nowhere, and the image."""
    x, y = _sides(boxes)
    middle_x, middle_y = (boxes[:, 0] + boxes[:, 1]) / 2, (boxes[:, 2] + boxes[:, 3]) / 2
    at_x, at_y = between(middle_x, middle_x), between(middle_y, middle_y)
    values = [function(at_x, at_y) for function in pair.functions]
    whole = [function(x, y) for function in pair.functions]
    slopes = [[part(x, y) for part in both] for both in pair.slopes]
    smooth = np.logical_and.reduce(
        [part.state == THROUGHOUT for part in (*values, *whole, *slopes[0], *slopes[1])]
    )
    with np.errstate(all="ignore"):
        (a, b), (c, d) = [[(part.low + part.high) / 2 for part in both] for both in slopes]
        det = a * d - b * c
        inverse = [[d / det, -b / det], [-c / det, a / det]]
        usable = smooth & np.isfinite(inverse).all(axis=(0, 1))
        image = []
        shift = [subtract(x, at_x), subtract(y, at_y)]
        for k in (0, 1):
            y0, y1 = (_exactly(np.where(usable, part, 0.0)) for part in inverse[k])
            step = add(multiply(y0, values[0]), multiply(y1, values[1]))
            total = subtract((at_x, at_y)[k], step)
            for m in (0, 1):
                kept = add(multiply(y0, slopes[0][m]), multiply(y1, slopes[1][m]))
                unit = _exactly(np.full(len(boxes), float(k == m)))
                total = add(total, multiply(subtract(unit, kept), shift[m]))
            image += [total.low, total.high]
    found = np.stack(image, axis=1)
    found[~usable] = [-np.inf, np.inf, -np.inf, np.inf]
    inside = (
        usable
        & (found[:, 0] > boxes[:, 0])
        & (found[:, 1] < boxes[:, 1])
        & (found[:, 2] > boxes[:, 2])
        & (found[:, 3] < boxes[:, 3])
    )
    gone = np.logical_or.reduce([part.state == 0 for part in whole])
    return inside, gone, found


def _exactly(values: Floats) -> Boxes:
    return between(values, values)


def _polished(pair: Pair, found: list[Floats]) -> list[Zero]:
    """The zeros in boxes (image, then the box around it that holds no other), each once."""
    if not found:
        return []
    rows = np.concatenate(found)
    box, around = rows[:, :4], rows[:, 4:]
    for _ in range(POLISH):
        _, _, closer = _krawczyk(pair, box)
        low = np.maximum(box[:, [0, 2]], closer[:, [0, 2]])
        high = np.minimum(box[:, [1, 3]], closer[:, [1, 3]])
        better = np.logical_and(np.isfinite(closer).all(axis=1), (low <= high).all(axis=1))
        after = np.stack([low[:, 0], high[:, 0], low[:, 1], high[:, 1]], axis=1)
        after = np.where(better[:, None], after, box)
        if (after == box).all():
            break
        box = after
    zeros: list[Zero] = []
    for (a, b, c, d), (e, f, g, h) in zip(box.tolist(), around.tolist(), strict=True):
        # Each box around a zero holds no other: two zeros whose places meet are one.
        if any(p <= b and q >= a and r <= d and s >= c for p, q, r, s in (o.box for o in zeros)):
            continue
        zeros.append(Zero((a, b, c, d), (e, f, g, h), pair.plans))
    return zeros


def _known(found: list[Floats], boxes: Floats) -> Truth:
    """Whether boxes lie inside one that holds a single zero which is known."""
    around = np.concatenate(found)[:, 4:].tolist() if found else ()
    return within_any(boxes, around)
