"""What a function is on a stretch where it neither jumps nor bends, and where its guard is 0."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import Enum
from fractions import Fraction

from flint import arb


class AtGuard(Enum):
    """What a function does where a guard of it is 0."""

    UNKNOWN = "unknown"
    NOWHERE = "nowhere"  # it has no value there
    GOES_ON = "goes on"  # it keeps its value
    JUMPS = "jumps"


@dataclass(frozen=True, slots=True)
class Part:
    """An argument, counted from 0, or its negative; or a number; or ``nowhere`` a value."""

    argument: int | None = None
    negated: bool = False
    number: Fraction | None = None
    nowhere: bool = False


Chosen = Callable[[Sequence[arb]], Part | None]
"""The part that a function is, by enclosures of its arguments; None where that cannot be told."""

NO_VALUE = Part(nowhere=True)
ZERO = Part(number=Fraction(0))
FIRST = Part(0)


def size(given: Sequence[arb]) -> Part | None:
    """The part of the absolute value."""
    (x,) = given
    return Part(0, negated=bool(x < 0)) if x > 0 or x < 0 else None


def sign(given: Sequence[arb]) -> Part | None:
    """The part of the sign."""
    (x,) = given
    return Part(number=Fraction(1 if x > 0 else -1)) if x > 0 or x < 0 else None


def floor(given: Sequence[arb]) -> Part | None:
    """The step of the floor."""
    step = given[0].floor()
    whole = step.unique_fmpz() if step.is_exact() else None
    return None if whole is None else Part(number=Fraction(int(whole)))


def ranked(rank: Callable[[int], int | None]) -> Chosen:
    """The argument of some rank, by how many there are, the smallest first."""

    def chosen(given: Sequence[arb]) -> Part | None:
        order = sorted(range(len(given)), key=lambda i: float(given[i].mid()))
        pairs = itertools.pairwise(order)
        # An argument given twice is the same ball.
        if any(given[a] is not given[b] and not given[a] < given[b] for a, b in pairs):
            return None
        place = rank(len(order))
        return None if place is None else Part(order[place])

    return chosen


smallest = ranked(lambda count: 0)
largest = ranked(lambda count: count - 1)
middle = ranked(lambda count: count // 2 if count % 2 else None)
