"""What is left of a curve beside its breaks, where no polynomial holds: boxes by its corners.

On an arc both coordinates only rise, fall or stay, so that a part of it lies in the box between its
ends; next to a break, of which no value is known, in the quarter of the plane that begins at the
other end.
"""

from __future__ import annotations

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axispath.core.path.curves.along import place_of
from axispath.core.path.curves.arcs import Arcs
from axispath.core.path.curves.models import Floats, Pieces
from axispath.core.sheet.curve import Curve

MOST = 400  # parts that are looked at

Box = tuple[float, float, float, float]
"""left, right, bottom and top."""


def unseparated(
    curve: Curve, arcs: Arcs, pieces: Pieces, bad: list[tuple[float, float]]
) -> list[tuple[float, float]]:
    """Of the stretches without polynomials those of which another part of the curve may be near."""
    parts = _merged(arcs, bad)
    if not parts:
        return []
    if len(parts) > MOST:
        return bad
    boxes = [_box(curve, arcs, owner, low, high) for owner, low, high in parts]
    around = pieces.boxes
    owners = np.array([owner for owner, _, _ in parts], dtype=np.int64)
    left = []
    for k, (owner, low, high) in enumerate(parts):
        same = np.full(pieces.count, owner, dtype=np.int64)
        others = arcs.compared(same, pieces.owner) & _meet(boxes[k], around)
        mine = np.full(len(parts), owner, dtype=np.int64)
        beside = arcs.compared(mine, owners) & _meet(boxes[k], np.array(boxes))
        if others.any() or beside.any():
            left.append((low, high))
    return left


def _merged(arcs: Arcs, bad: list[tuple[float, float]]) -> list[tuple[int, float, float]]:
    """Stretches with the arc that each is a part of, neighbours joined."""
    found: list[tuple[int, float, float]] = []
    for low, high in sorted(bad):
        middle = low + (high - low) / 2
        owner = next(k for k, (a, b) in enumerate(arcs.stretches) if a <= middle <= b)
        if found and found[-1][0] == owner and found[-1][2] >= low:
            found[-1] = (owner, found[-1][1], high)
        else:
            found.append((owner, low, high))
    return found


def _box(curve: Curve, arcs: Arcs, owner: int, low: float, high: float) -> Box:
    """A box around a part of an arc."""
    start, stop = arcs.stretches[owner]
    ends = [place_of(curve, arb(t)) if t not in (start, stop) else None for t in (low, high)]
    found: list[float] = []
    for k in (0, 1):
        way = arcs.signs[owner][k]
        values = [None if end is None else end[k] for end in ends]
        lows = [float(v.lower()) for v in values if v is not None]
        highs = [float(v.upper()) for v in values if v is not None]
        bottom, top = min(lows, default=-np.inf), max(highs, default=np.inf)
        if values[0] is None and way >= 0:  # it came from below
            bottom = -np.inf if way else bottom
        if values[0] is None and way < 0:
            top = np.inf
        if values[1] is None and way > 0:
            top = np.inf
        if values[1] is None and way < 0:
            bottom = -np.inf
        found += [bottom, top]
    return found[0], found[1], found[2], found[3]


def _meet(box: Box, others: Floats) -> NDArray[np.bool_]:
    met: NDArray[np.bool_] = (
        (others[:, 0] <= box[1])
        & (others[:, 1] >= box[0])
        & (others[:, 2] <= box[3])
        & (others[:, 3] >= box[2])
    )
    return met
