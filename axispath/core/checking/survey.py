"""Every landmark of a look at a sheet, checked: what it is said to lie on it lies on."""

from __future__ import annotations

import math
from dataclasses import replace

from axispath.core.checking.lying import LIES
from axispath.core.checking.places import Coordinate, coordinate, simple
from axispath.core.search.landmark import Certainty, Kind, Landmark, Method, Path
from axispath.core.sheet.resolve import ResolvedLane

# Kinds of landmarks at which a lane may have no value.
WITHOUT_VALUE = (Kind.POLE, Kind.JUMP, Kind.HOLE, Kind.END, Kind.KINK)


def verdict(lanes: tuple[ResolvedLane, ...], mark: Landmark) -> bool | None:
    """Whether a landmark lies on all these lanes; None where that cannot be told."""
    if mark.kind in WITHOUT_VALUE or not mark.closed:
        return None
    if mark.certainty is Certainty.EXACT and mark.method is Method.PAIR:
        return told(lanes, simple(mark.x), simple(mark.y))
    # Along a curve what is known exactly is the parameter.
    x = coordinate(mark.x, mark.radius, mark.exact if math.isnan(mark.t) else None)
    return told(lanes, x, coordinate(mark.y, mark.y_radius))


def told(lanes: tuple[ResolvedLane, ...], x: Coordinate, y: Coordinate) -> bool | None:
    """Whether a place lies on all these lanes; None where that cannot be told."""
    each = [LIES[k](lane, x, y) if (k := lane.kind.key) in LIES else None for lane in lanes]
    if any(one is False for one in each):
        return False
    return True if all(each) else None


def confirmed(lanes: tuple[ResolvedLane, ...], path: Path) -> Path:
    """A path without the landmarks that surely do not lie on the lanes."""
    kept = tuple(mark for mark in path.landmarks if verdict(lanes, mark) is not False)
    return path if len(kept) == len(path.landmarks) else replace(path, landmarks=kept)
