"""Where a function is defined, in the notation of inequalities."""

from __future__ import annotations

from axispath.core.language.numbers import decimal
from axispath.core.search.landmark import BREAKS, Path

MOST_NAMED = 6


def undefined_throughout(path: Path) -> bool:
    """Whether the function surely has no value anywhere on the interval."""
    return bool(path.undefined) and not path.spans and not path.open


def defined_where(path: Path, variable: str, digits: int) -> str:
    """The part of the interval on which the function is defined; empty where that is all."""
    if not path.undefined:
        return _without(path, variable, digits)
    closed = {mark.x for mark in path.landmarks if mark.closed and mark.kind in BREAKS}
    parts = []
    low = path.low
    for gap in [*path.undefined, None]:
        high = path.high if gap is None else gap.low
        if low < high:
            parts.append(_part(path, low, high, closed, variable, digits))
        elif low == high and low in closed:
            parts.append(f"{variable} = {decimal(low, digits)}")
        low = gap.high if gap is not None else low
    where = " or ".join(parts)
    return f"{where}{_without(path, variable, digits, inside=True)}" if where else ""


def _part(
    path: Path, low: float, high: float, closed: set[float], variable: str, digits: int
) -> str:
    below, above = (decimal(x, digits) for x in (low, high))
    if low == path.low and high == path.high:
        return ""
    if high == path.high:
        return f"{variable} {'≥' if low in closed else '>'} {below}"
    if low == path.low:
        return f"{variable} {'≤' if high in closed else '<'} {above}"
    left, right = ("≤" if x in closed else "<" for x in (low, high))
    return f"{below} {left} {variable} {right} {above}"


def _without(path: Path, variable: str, digits: int, inside: bool = False) -> str:
    """The single places at which there is no value."""
    ends = {x for gap in path.undefined for x in (gap.low, gap.high)}
    missing = [
        mark.x
        for mark in path.landmarks
        if not mark.closed
        and mark.kind in BREAKS
        and mark.x not in ends
        and path.low < mark.x < path.high
    ]
    if not missing:
        return ""
    named = ", ".join(decimal(x, digits) for x in missing[:MOST_NAMED])
    more = f" and {len(missing) - MOST_NAMED} more" if len(missing) > MOST_NAMED else ""
    return f"{', ' if inside else ''}{variable} ≠ {named}{more}"
