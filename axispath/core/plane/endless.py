"""Whether a region goes on without end, for regions whose sides are polynomials.

Along a ray every side is a polynomial of the way along it, whose sign far out is that of its
highest coefficient: where the rule holds with these signs, the region has no end. To prove that it
has one, directions are taken as points of the square max(|c|, |s|) = 1, and a side of degree n at
(r c, r s) as rⁿ q(c, s, 1/r): where enclosures of q on every piece of the square, for all 1/r from
0 to some small bound, say that the rule fails, nothing lies far out.
"""

from __future__ import annotations

import itertools
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.boxes import Boxes, add, between, multiply, of_number, whole_power
from axispath.core.arithmetic.comparing import COMPARED
from axispath.core.arithmetic.polynomial import Coefficients, coefficients, product
from axispath.core.memory import Memory
from axispath.core.plane.area import Rectangle
from axispath.core.plane.picture import shaded
from axispath.core.plane.relation import Relation, known
from axispath.core.plane.screen import Screen

Floats = NDArray[np.float64]
Truth = NDArray[np.bool_]
DEGREE = 8
LOOKED = 60  # pixels of the picture in which places of the region are looked for
MOST_PLACES = 12
START, HALVINGS = 16, 14  # pieces of each edge of the square, and how often they are halved
FAR = 1e-9  # 1/r from where on nothing may lie
SIMPLE = 12  # the largest denominator of a slope along which a ray is sent
EDGES = (("c", 1.0), ("c", -1.0), ("s", 1.0), ("s", -1.0))

_known: Memory[tuple[bool | None]] = Memory(200)


def endless(relation: Relation, rectangle: Rectangle) -> bool | None:
    """Whether a region goes on without end; None where that is not settled.

    ``rectangle`` (left, right, bottom, top) is where places of it are looked for.
    """
    return _known.found((relation, rectangle), lambda: (_endless(relation, rectangle),))[0]


def _endless(relation: Relation, rectangle: Rectangle) -> bool | None:
    sides = [coefficients(side.plan, DEGREE) or {} for side in relation.sides]
    if not all(sides):
        return None
    directions = _directions(sides)
    for place in _places(relation, rectangle):
        if any(_holds_far_out(relation, sides, place, way) for way in directions):
            return True
    return False if _ends(relation, sides) else None


def _places(relation: Relation, rectangle: Rectangle) -> list[tuple[Fraction, Fraction]]:
    """The middles of the largest rectangles that the region is made of in its picture."""
    boxes = shaded(relation, Screen(*rectangle, LOOKED, LOOKED))
    size = (boxes[:, 1] - boxes[:, 0]) * (boxes[:, 3] - boxes[:, 2])
    largest = boxes[np.argsort(-size)[:MOST_PLACES]]
    return [(Fraction(a + b) / 2, Fraction(c + d) / 2) for a, b, c, d in largest.tolist()]


def _directions(sides: list[Coefficients]) -> list[tuple[Fraction, Fraction]]:
    """Along the axes, between them, and along every straight border."""
    found = [(Fraction(a), Fraction(b)) for a in (-1, 0, 1) for b in (-1, 0, 1) if a or b]
    for side in sides:
        if max(i + j for i, j in side) == 1:
            a, b = side.get((1, 0), Fraction(0)), side.get((0, 1), Fraction(0))
            found += [(-b, a), (b, -a), (a, b), (-a, -b)]
    return list(dict.fromkeys(found))


def _holds_far_out(
    relation: Relation,
    sides: list[Coefficients],
    place: tuple[Fraction, Fraction],
    way: tuple[Fraction, Fraction],
) -> bool:
    """Whether everything far out on a ray belongs to the region, exactly."""
    found = []
    for side, given in zip(relation.sides, sides, strict=True):
        sign = _sign_far_out(given, place, way)
        found.append(np.array([COMPARED[side.sign](sign, 0)]))
    return bool(relation.ruled(found)[0])


def _sign_far_out(
    side: Coefficients, place: tuple[Fraction, Fraction], way: tuple[Fraction, Fraction]
) -> int:
    along = [Fraction(0)]
    for (i, j), factor in side.items():
        term = [factor]
        for start, step, power in ((place[0], way[0], i), (place[1], way[1], j)):
            for _ in range(power):
                term = product(term, [start, step])
        pairs = itertools.zip_longest(along, term, fillvalue=Fraction(0))
        along = [a + b for a, b in pairs]
    top = next((value for value in reversed(along) if value), Fraction(0))
    return (top > 0) - (top < 0)


def _ends(relation: Relation, sides: list[Coefficients]) -> bool:
    """Whether nothing lies far out, in any direction."""
    assert relation.rule is not None
    for letter, fixed in EDGES:
        cuts = np.linspace(-1.0, 1.0, START + 1)
        pieces = np.stack([cuts[:-1], cuts[1:]], axis=1)
        for _ in range(HALVINGS):
            low, high = pieces[:, 0], pieces[:, 1]
            free, still = between(low, high), np.full(len(pieces), fixed)
            held = between(still, still)
            c, s = (held, free) if letter == "c" else (free, held)
            out = between(np.zeros(len(pieces)), np.full(len(pieces), FAR))
            yes, no = [], []
            for side, given in zip(relation.sides, sides, strict=True):
                first, second = side.known(_far_out(given, c, s, out))
                yes.append(first)
                no.append(second)
            pieces = pieces[~known(relation.rule, yes, no)[1]]
            if not len(pieces):
                break
            middle = pieces.mean(axis=1)
            halves = [(pieces[:, 0], middle), (middle, pieces[:, 1])]
            pieces = np.concatenate([np.stack(half, axis=1) for half in halves])
        else:
            return False
    return True


def _far_out(side: Coefficients, c: Boxes, s: Boxes, out: Boxes) -> Boxes:
    """A side at (c/w, s/w), times wⁿ, for 1/r = w in ``out``: of the same sign for w > 0."""
    degree = max(i + j for i, j in side)
    total: Boxes | None = None
    for (i, j), factor in side.items():
        term = of_number(factor)
        for base, power in ((c, i), (s, j), (out, degree - i - j)):
            if power:
                term = multiply(term, whole_power(base, power))
        total = term if total is None else add(total, term)
    assert total is not None
    wide = np.broadcast_arrays(total.low, total.high, total.state, c.low)
    return Boxes(wide[0], wide[1], wide[2])
