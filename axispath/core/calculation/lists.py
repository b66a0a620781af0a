"""Functions of several values or of a list, and lists made by step or by count."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.functions import at_numbers
from axispath.core.catalogue.sequences import ordered
from axispath.core.quantities import grids
from axispath.core.quantities.scalars import (
    TooWide,
    add,
    multiply,
    real_ball,
    subtract,
    to_power,
    whole,
)
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, Items, NoResult, Scalar, Undefined, Value

MOST_ITEMS = 5_000
ONE = Surd.of(1)
HALF = Surd.of(Fraction(1, 2))


def of_many(function: str, given: list[Value]) -> Value:
    """A function of the catalogue that takes several values or a list."""
    items: list[Scalar] = []
    for value in given:
        if isinstance(value, Items):
            items += value.values
        elif isinstance(value, Grid):
            items += value.entries
        else:
            items.append(grids.scalar(value, f"what {function} takes"))
    if not items:
        raise NoResult(f"{function} needs at least one value")
    work = MANY.get(function)
    return work(items) if work else at_numbers(function, AngleUnit.RADIAN, tuple(items))


def _folded(work: Callable[[Scalar, Scalar], Scalar]) -> Callable[[list[Scalar]], Scalar]:
    def total(items: list[Scalar]) -> Scalar:
        found = items[0]
        for item in items[1:]:
            found = work(found, item)
        return found

    return total


_total = _folded(add)


def _mean(items: list[Scalar]) -> Scalar:
    return multiply(_total(items), Surd.of(Fraction(1, len(items))))


def _median(items: list[Scalar]) -> Scalar:
    values = ordered(tuple(items))
    middle = len(values) // 2
    if len(values) % 2:
        return values[middle]
    return multiply(add(values[middle - 1], values[middle]), HALF)


def _variance(items: list[Scalar]) -> Scalar:
    if len(items) < 2:
        return Undefined("variance is defined only where there are at least two values")
    mean = _mean(items)
    apart = [subtract(value, mean) for value in items]
    squares = [multiply(value, value) for value in apart]
    return multiply(_total(squares), Surd.of(Fraction(1, len(items) - 1)))


def _extreme(items: list[Scalar], place: int) -> Scalar:
    try:
        return ordered(tuple(items))[place]
    except TooWide:  # which one it is cannot be told; its value can
        balls = [real_ball(value) for value in items]
        found = balls[0]
        for ball in balls[1:]:
            found = found.max(ball) if place else found.min(ball)
        return found


MANY: dict[str, Callable[[list[Scalar]], Scalar]] = {
    "sum": _total,
    "product": _folded(multiply),
    "mean": _mean,
    "median": _median,
    "variance": _variance,
    "deviation": lambda items: to_power(_variance(items), HALF),
    "min": lambda items: _extreme(items, 0),
    "max": lambda items: _extreme(items, -1),
}


def _spread(given: list[Value]) -> Value:
    low, high, third = (grids.scalar(value, "what spread takes") for value in given)
    count = whole(third, "the number of values")
    if count < 2:
        raise NoResult("spread needs a whole number of values, 2 or more")
    allowed(count)
    width = subtract(high, low)
    shares = (Surd.of(Fraction(k, count - 1)) for k in range(count))
    return Items(tuple(add(low, multiply(width, share)) for share in shares))


def _steps(given: list[Value]) -> Value:
    found = []
    for value in given:
        rational = value.rational if isinstance(value, Surd) else None
        if rational is None:
            raise NoResult("steps takes fixed fractions")
        found.append(rational)
    low, high, step = found
    if step == 0:
        raise NoResult("the step of a list must not be 0")
    distance = high - low
    count = int(distance / step) + 1 if distance * step >= 0 else 0
    return Items(tuple(Surd.of(low + k * step) for k in range(allowed(count))))


MADE: dict[str, Callable[[list[Value]], Value]] = {"spread": _spread, "steps": _steps}
"""Lists by count and by step."""


def allowed(count: int) -> int:
    """So many values, if these are not too many."""
    if count > MOST_ITEMS:
        raise NoResult(f"that is more than {MOST_ITEMS} values, which is too many to compute")
    return max(count, 0)
