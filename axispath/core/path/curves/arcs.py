"""A curve cut into arcs on which both coordinates rise, fall or stay, and runs of such arcs.

On a run on which one coordinate only rises, or only falls, a curve cannot cross itself; so only
arcs that share neither a run of x nor one of y are compared.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.path.curves.along import Along, Signs
from axispath.core.search.landmark import Kind


@dataclass(frozen=True)
class Arcs:
    """``stretches`` of the parameter in order, with the numbers of their runs of x and of y.

    ``unknown`` are the stretches left out, since a slope there has no sign that is known, and
    ``signs`` those of both slopes on each stretch.
    """

    stretches: list[tuple[float, float]]
    runs: NDArray[np.int64]
    unknown: list[tuple[float, float]]
    signs: list[tuple[int, int]]

    def compared(self, one: NDArray[np.int64], other: NDArray[np.int64]) -> NDArray[np.bool_]:
        """Which pairs of arcs may cross."""
        apart: NDArray[np.bool_] = (self.runs[one] != self.runs[other]).all(axis=1)
        return apart


def arcs_of(told: Along) -> Arcs:
    """The arcs of a curve."""
    signs = [Signs(path) for path in told.slopes]
    cuts = {told.low, told.high, *told.hard}
    cuts |= {mark.x for path in told.slopes for mark in path.of(Kind.ZERO)}
    cuts |= {end for path in told.slopes for s in path.zero for end in (s.low, s.high)}
    places = sorted(cut for cut in cuts if told.low <= cut <= told.high)
    places = [t for k, t in enumerate(places) if not k or not told.same(t, places[k - 1])]
    dead = [(u.low, u.high) for path in told.values for u in path.undefined]
    stretches: list[tuple[float, float]] = []
    unknown: list[tuple[float, float]] = []
    before: list[int | None] = [None, None]
    runs = [0, 0]
    numbered: list[list[int]] = []
    ways: list[tuple[int, int]] = []
    for low, high in itertools.pairwise(places):
        middle = low + (high - low) / 2
        if any(a <= middle <= b for a, b in dead):
            before = [None, None]
            continue
        now = [one.between(low, high) for one in signs]
        if None in now or now == [0, 0]:
            if None in now:
                unknown.append((low, high))
            before = [None, None]
            continue
        for k in (0, 1):
            if now[k] == 0 or now[k] != before[k] or told.broken(k, low):
                runs[k] += 1
        before = now
        stretches.append((low, high))
        ways.append((int(now[0] or 0), int(now[1] or 0)))
        numbered.append(list(runs))
    found = np.array(numbered, dtype=np.int64).reshape(-1, 2)
    return Arcs(stretches, _closed(told, signs, stretches, found), unknown, ways)


def _closed(
    told: Along,
    signs: list[Signs],
    stretches: list[tuple[float, float]],
    runs: NDArray[np.int64],
) -> NDArray[np.int64]:
    """The first and the last run are one where the curve goes on at its start as it ended."""
    if not told.round.closed or not stretches or any(told.same(t, told.low) for t in told.hard):
        return runs
    first, last = stretches[0], stretches[-1]
    if not told.same(first[0], told.low) or not told.same(last[1], told.high):
        return runs
    found = runs.copy()
    for k, one in enumerate(signs):
        if one.between(*first) == one.between(*last) != 0:
            found[found[:, k] == runs[-1, k], k] = runs[0, k]
    return found
