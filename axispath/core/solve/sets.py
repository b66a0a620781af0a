"""Sets of numbers as sorted intervals, for the solutions of inequalities."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from axispath.core.language.numbers import MINUS, decimal


@dataclass(frozen=True, slots=True)
class Interval:
    """All numbers from ``low`` to ``high``; a single one where they are the same."""

    low: float
    high: float
    low_closed: bool
    high_closed: bool


def united(parts: Iterable[Interval]) -> tuple[Interval, ...]:
    """The same numbers in as few intervals as possible, from left to right."""
    found: list[Interval] = []
    for part in sorted(parts, key=lambda p: (p.low, not p.low_closed, p.high)):
        last = found[-1] if found else None
        if last is None or not _touch(last, part):
            found.append(part)
            continue
        reach = max(last, part, key=lambda p: (p.high, p.high_closed))
        found[-1] = Interval(last.low, reach.high, last.low_closed, reach.high_closed)
    return tuple(found)


def _touch(left: Interval, right: Interval) -> bool:
    if right.low < left.high:
        return True
    return right.low == left.high and (left.high_closed or right.low_closed)


def common(one: Iterable[Interval], other: Iterable[Interval]) -> tuple[Interval, ...]:
    """The numbers that are in both sets."""
    others = list(other)
    found = []
    for a in one:
        for b in others:
            low = max((a.low, not a.low_closed), (b.low, not b.low_closed))
            high = min((a.high, a.high_closed), (b.high, b.high_closed))
            both = Interval(low[0], high[0], not low[1], high[1])
            single = both.low == both.high and both.low_closed and both.high_closed
            if both.low < both.high or single:
                found.append(both)
    return united(found)


def written(parts: Iterable[Interval], digits: int) -> str:
    """The set in interval notation, such as (−∞, −2] ∪ {0} ∪ [2, ∞)."""
    texts = [_one(part, digits) for part in parts]
    return " ∪ ".join(texts) if texts else "∅"


def _one(part: Interval, digits: int) -> str:
    if part.low == part.high:
        return f"{{{_end(part.low, digits)}}}"
    left, right = "[" if part.low_closed else "(", "]" if part.high_closed else ")"
    return f"{left}{_end(part.low, digits)}, {_end(part.high, digits)}{right}"


def _end(value: float, digits: int) -> str:
    if math.isinf(value):
        return "∞" if value > 0 else f"{MINUS}∞"
    return decimal(value, digits)
