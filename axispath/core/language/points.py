"""What can be said of two points: each word is written out in their coordinates.

The words are no reserved ones: a sheet may define something of the same name, which then counts.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from axispath.core.language.tree import (
    Apply,
    Expression,
    Name,
    Negation,
    Number,
    Pair,
    Power,
    Product,
    Quotient,
    Sum,
)

Point = tuple[Expression, Expression]


@dataclass(frozen=True, slots=True)
class PointWord:
    """A word about two points: ``expand`` writes it out in their coordinates."""

    name: str
    summary: str
    example: str
    expand: Callable[[Point, Point], Expression]

    @property
    def signature(self) -> str:
        """How it is written."""
        return f"{self.name}(P, Q)"


def from_polar(radius: Expression, angle: Expression) -> tuple[Expression, Expression]:
    """r cos θ and r sin θ."""
    across, upwards = (Apply(word, (angle,)) for word in ("cos", "sin"))
    return Product(radius, across), Product(radius, upwards)


def _apart(one: Expression, other: Expression) -> Expression:
    return Sum((other, Negation(one)))


def _distance(p: Point, q: Point) -> Expression:
    squares = (Power(_apart(a, b), Number("2")) for a, b in zip(p, q, strict=True))
    return Apply("sqrt", (Sum(tuple(squares)),))


def _midpoint(p: Point, q: Point) -> Expression:
    first, second = (Quotient(Sum((a, b)), Number("2")) for a, b in zip(p, q, strict=True))
    return Pair(first, second)


def _slope(p: Point, q: Point) -> Expression:
    return Quotient(_apart(p[1], q[1]), _apart(p[0], q[0]))


def _line(p: Point, q: Point) -> Expression:
    return Sum((p[1], Product(_slope(p, q), _apart(p[0], Name("x")))))


WORDS = (
    PointWord("distance", "The distance of two points.", "distance((0, 0), (3, 4))", _distance),
    PointWord("midpoint", "The point halfway between two.", "midpoint((0, 1), (4, 3))", _midpoint),
    PointWord(
        "slope", "The slope of the line through two points.", "slope((0, 1), (4, 3))", _slope
    ),
    PointWord(
        "line", "The line through two points, as a function of x.", "line((0, 1), (4, 3))", _line
    ),
)
POINT_WORDS = {word.name: word for word in WORDS}
GIVING_POINTS = ("midpoint",)  # those that are points themselves
