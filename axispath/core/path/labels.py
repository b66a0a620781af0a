"""Landmarks in short: the names they are pointed at by, and the numbers written beside them."""

from __future__ import annotations

import math
from collections.abc import Iterator

from axispath.core.language.numbers import MINUS, decimal
from axispath.core.path.lanes import Crossing
from axispath.core.search.landmark import Kind, Landmark, Path
from axispath.core.sheet.curve import written_exact

MOST_SHOWN = 5


def crossing_key(crossing: Crossing) -> str:
    """The name of the meeting of two lanes."""
    return f"{crossing.first.lane.id}+{crossing.second.lane.id}"


def keyed(key: str, path: Path) -> Iterator[tuple[str, Landmark]]:
    """Landmarks with names that stay the same while a function changes a little."""
    counts: dict[Kind, int] = {}
    for mark in path.landmarks:
        counts[mark.kind] = counts.get(mark.kind, 0) + 1
        yield f"{key}:{mark.kind}:{counts[mark.kind]}", mark


def shown_t(mark: Landmark, letter: str, digits: int) -> str:
    """The parameters of a landmark of a curve: t = π/4 and t = 2.5; empty for other landmarks."""
    if math.isnan(mark.t):
        return ""
    first = _exact_or_decimal(mark, digits)
    others = [decimal(t, digits, abs(t) * 1e-15) for t in mark.also[:MOST_SHOWN]]
    more = f" and {len(mark.also) - MOST_SHOWN} more" if len(mark.also) > MOST_SHOWN else ""
    return f"{letter} = {', '.join([first, *others])}{more}"


def shown_z(mark: Landmark, name: str, digits: int) -> str:
    """The value of a function of two variables at a landmark; empty for other landmarks."""
    return "" if math.isnan(mark.z) else f"{name} = {decimal(mark.z, digits, mark.z_radius)}"


def _exact_or_decimal(mark: Landmark, digits: int) -> str:
    if mark.exact is not None and mark.exact.turns:
        return written_exact(mark.exact)
    return decimal(mark.t, digits, mark.t_radius)


def labelled(mark: Landmark, digits: int) -> str:
    """What a label on the plot says of a landmark."""
    return f"({shown_x(mark, digits)}, {shown_y(mark, digits)})"


def shown_x(mark: Landmark, digits: int) -> str:
    """The place, with no digit that is not known."""
    if not math.isfinite(mark.x):
        return "—"
    return decimal(mark.x, digits, mark.radius)


def shown_y(mark: Landmark, digits: int) -> str:
    """The height, or what stands in its place at a break."""
    if not math.isfinite(mark.x):
        return "—"
    if mark.kind is Kind.POLE:
        sides = [shown_side(y) for y in (mark.left, mark.right) if not math.isnan(y)]
        return " | ".join(dict.fromkeys(sides) if len(set(sides)) == 1 else sides)
    if mark.kind is Kind.JUMP and math.isfinite(mark.left) and math.isfinite(mark.right):
        return f"{decimal(mark.left, digits)} → {decimal(mark.right, digits)}"
    return decimal(mark.y, digits, max(mark.y_radius, abs(mark.x) * 1e-16))


def shown_side(value: float) -> str:
    """A one-sided limit."""
    if math.isinf(value):
        return "+∞" if value > 0 else f"{MINUS}∞"
    return decimal(value)
