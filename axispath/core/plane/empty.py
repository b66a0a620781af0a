"""Whether there is any point of a region in a rectangle: one that belongs, or a cover without any.

Rectangles are halved until enclosures say of each that nothing in it belongs; on the way simple
places in those that are left are tried exactly. What is too thin or too small to be seen in a
picture is found so, and what is not settled is said to be open.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.boxes import between, halved, quartered
from axispath.core.arithmetic.program import Program
from axispath.core.memory import Memory
from axispath.core.plane.member import belongs
from axispath.core.plane.relation import Relation, known

Floats = NDArray[np.float64]
Rectangle = tuple[float, float, float, float]
ROUNDS = 26  # halvings
MOST = 1500  # rectangles in a round
TRIED = 40  # of them in which places are tried
SIMPLE = (1, 2, 5, 10, 100)  # denominators of coordinates that are tried


@dataclass(frozen=True, slots=True)
class Presence:
    """``place`` is a point of the region; None where there is none, if ``settled``, or none is
    known: then there may be one near ``about``.
    """

    place: tuple[float, float] | None
    settled: bool
    about: tuple[float, float] | None = None


_found: Memory[Presence] = Memory(200)


def any_point(relation: Relation, rectangle: Rectangle) -> Presence:
    """Whether a region has a point in a rectangle (left, right, bottom, top)."""
    return _found.found((relation, rectangle), lambda: _any(relation, rectangle))


def _any(relation: Relation, rectangle: Rectangle) -> Presence:
    assert relation.rule is not None
    letters = _letters(relation) or {0}
    boxes = np.array([rectangle])
    for _ in range(ROUNDS):
        boxes = boxes[~_outside(relation, boxes)]
        if not len(boxes):
            return Presence(None, True)
        step = max(1, len(boxes) // TRIED)
        for box in boxes[::step][:TRIED].tolist():
            for x, y in _simple_places(box):
                if belongs(relation, x, y):
                    return Presence((float(x), float(y)), True)
        if len(boxes) * 4 > MOST:
            break
        boxes = quartered(boxes) if len(letters) > 1 else halved(boxes, *letters)
    a, b, c, d = boxes[0].tolist()
    return Presence(None, False, ((a + b) / 2, (c + d) / 2))


def _letters(relation: Relation) -> set[int]:
    """Of which coordinates there is any in it: 0 for x, 1 for y."""
    return {k for side in relation.sides for k in (0, 1) if _uses(side.plan, k)}


def _uses(plan: Program, index: int) -> bool:
    return plan.result == index or any(index in step.operands for step in plan.steps)


def _outside(relation: Relation, boxes: Floats) -> NDArray[np.bool_]:
    """Of which rectangles it is sure that nothing in them belongs."""
    assert relation.rule is not None
    x, y = between(boxes[:, 0], boxes[:, 1]), between(boxes[:, 2], boxes[:, 3])
    told = [side.known(side.whole(x, y)) for side in relation.sides]
    return known(relation.rule, [yes for yes, _ in told], [no for _, no in told])[1]


def _simple_places(box: list[float]) -> list[tuple[Fraction, Fraction]]:
    """The middle of a rectangle, and the places nearest to it whose coordinates are simple."""
    a, b, c, d = box
    x, y = (Fraction(low) / 2 + Fraction(high) / 2 for low, high in ((a, b), (c, d)))
    places = [(x, y)]
    for bottom in SIMPLE:
        across, up = Fraction(round(x * bottom), bottom), Fraction(round(y * bottom), bottom)
        if a <= across <= b and c <= up <= d:
            places.append((across, up))
    return places
