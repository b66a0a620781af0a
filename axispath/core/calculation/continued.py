"""Functions that bend or jump, continued from where they are smooth on the real axis."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from flint import acb, arb

from axispath.core import catalogue
from axispath.core.quantities.scalars import TooWide, enclosed, known, negate, sign, subtract
from axispath.core.quantities.values import Scalar


def real_part(value: Scalar) -> Scalar:
    """The real part, which decides on which side of a bend a number lies."""
    ball = enclosed(known(value))
    return ball.real if isinstance(ball, acb) else ball


def _absolute(given: Sequence[Scalar]) -> Scalar:
    return given[0] if sign(real_part(given[0])) > 0 else negate(given[0])


def _extreme(way: int) -> Callable[[Sequence[Scalar]], Scalar]:
    def found(given: Sequence[Scalar]) -> Scalar:
        best = given[0]
        for other in given[1:]:
            if sign(subtract(real_part(other), real_part(best))) == way:
                best = other
        return best

    return found


def _level(function: str) -> Callable[[Sequence[Scalar]], Scalar]:
    """A function that is the same all around, as floor is between whole numbers."""

    def found(given: Sequence[Scalar]) -> Scalar:
        value: arb = catalogue.ENTRIES[function].ball(*map(real_part, given))
        if not value.is_exact():
            raise TooWide
        return value

    return found


CONTINUED: dict[str, Callable[[Sequence[Scalar]], Scalar]] = {
    "abs": _absolute,
    "min": _extreme(-1),
    "max": _extreme(1),
    "floor": _level("floor"),
    "ceil": _level("ceil"),
    "sign": _level("sign"),
}
"""Each raises TooWide where an enclosure may hold a bend or a jump."""
