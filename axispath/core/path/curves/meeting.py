"""Where two curves, or two parts of one, are at the same point: two equations in two unknowns.

Pairs of pieces are halved until each is proved to hold no common point, or exactly one: with the
Krawczyk operator K(E) = m − Y F(m) + (1 − Y J(E))(E − m), a solution of F = 0 in the box E lies in
K(E), and there is exactly one where K(E) lies inside E (R. Krawczyk 1969; R. E. Moore, R. B.
Kearfott and M. J. Cloud 2009, Introduction to Interval Analysis, chapter 8). All pairs of a round
are worked on at once.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.patience import time_check
from axispath.core.path.curves.models import SLACK, TERMS, Floats, Pieces, shifted
from axispath.core.search.budget import Budget

ROUNDS = 60
MOST_PAIRS = 60_000
GROWING = 6  # rounds in which pairs grow in number, from which on curves seem to overlap
LARGEST = 1.2  # half a box, for the box in which a solution is looked for
NARROWEST = 2.0**-34  # of the range
PAIRS_PER_EVALUATION = 40

Indices = NDArray[np.int64]


@dataclass(frozen=True)
class Meeting:
    """One common point, at the parameters ``s`` and ``t``, each within its radius."""

    s: float
    t: float
    s_radius: float
    t_radius: float


@dataclass
class Met:
    """All common points outside the pairs of stretches in ``open``, each (s, s, t, t)."""

    points: list[Meeting] = field(default_factory=list)
    open: list[tuple[float, float, float, float]] = field(default_factory=list)
    spent: bool = False
    overlap: bool = False


@dataclass
class _Pairs:
    """Boxes of pairs: pieces, and middles and half widths about the middles of the pieces."""

    i: Indices
    j: Indices
    s: Floats
    t: Floats
    ds: Floats
    dt: Floats

    def __len__(self) -> int:
        return len(self.i)

    def where(self, chosen: NDArray[np.bool_] | Indices) -> _Pairs:
        return _Pairs(*(getattr(self, name)[chosen] for name in ("i", "j", "s", "t", "ds", "dt")))


def meetings(
    one: Pieces,
    other: Pieces,
    i: Indices,
    j: Indices,
    ignored: Callable[[Floats, Floats, Floats, Floats], NDArray[np.bool_]],
    budget: Budget,
) -> Met:
    """The common points of the pieces ``i`` of one and ``j`` of the other.

    ``ignored`` tells of boxes (lowest and highest s, lowest and highest t) whether nothing in them
    counts.
    """
    met = Met()
    pairs = _Pairs(i, j, np.zeros(len(i)), np.zeros(len(j)), one.half[i], other.half[j])
    narrow = [_extent(pieces) * NARROWEST for pieces in (one, other)]
    found: list[_Pairs] = []
    check = time_check()
    growing, before = 0, 0
    for _ in range(ROUNDS):
        growing = growing + 1 if len(pairs) > before > 0 else 0
        before = len(pairs)
        if not len(pairs) or growing >= GROWING:
            met.overlap = growing >= GROWING
            break
        if check is not None:
            check()
        budget.spend(len(pairs) // PAIRS_PER_EVALUATION + 1)
        if budget.spent or len(pairs) > MOST_PAIRS:
            met.spent = True
            break
        apart, rest = _separated(one, other, pairs)
        pairs = pairs.where(~apart)
        rest = tuple(part[~apart] for part in rest)
        low_s, high_s, low_t, high_t = _borders(one, other, pairs)
        kept = ~ignored(low_s, high_s, low_t, high_t)
        pairs, rest = pairs.where(kept), tuple(part[kept] for part in rest)
        single, none, solved = _krawczyk(one, other, pairs, *rest)
        if single.any():
            found.append(_solved(pairs.where(single), solved, single))
        pairs = pairs.where(~(single | none))
        tiny = one.reach[pairs.i] * pairs.ds <= narrow[0]
        tiny &= other.reach[pairs.j] * pairs.dt <= narrow[1]
        tiny |= _blurred(one, other, pairs, *(part[~(single | none)] for part in rest))
        met.open += [tuple(row) for row in np.stack(_borders(one, other, pairs.where(tiny)), 1)]
        pairs = _halved(pairs.where(~tiny))
    if len(pairs):
        met.spent = not met.overlap
        met.open += [tuple(row) for row in np.stack(_borders(one, other, pairs), 1)]
    for part in found:
        s, t = one.at(part.i, part.s), other.at(part.j, part.t)
        ds, dt = one.reach[part.i] * part.ds, other.reach[part.j] * part.dt
        rows = zip(s, t, ds + SLACK * np.abs(s), dt + SLACK * np.abs(t), strict=True)
        met.points += [Meeting(*(float(value) for value in row)) for row in rows]
    return met


def _blurred(one: Pieces, other: Pieces, pairs: _Pairs, p: Floats, q: Floats) -> NDArray[np.bool_]:
    """Boxes in which the curves go less far than their polynomials are off by."""
    moved = _reach(p, pairs.ds) + _reach(q, pairs.dt)
    error = one.error[pairs.i] + other.error[pairs.j]
    blurred: NDArray[np.bool_] = np.all(moved < error, axis=1)
    return blurred


def _extent(pieces: Pieces) -> float:
    if not pieces.count:
        return 0.0
    low, high = pieces.middle - pieces.reach, pieces.middle + pieces.reach
    return float(high.max() - low.min())


def _borders(one: Pieces, other: Pieces, pairs: _Pairs) -> tuple[Floats, Floats, Floats, Floats]:
    s, t = one.at(pairs.i, pairs.s), other.at(pairs.j, pairs.t)
    ds, dt = one.reach[pairs.i] * pairs.ds, other.reach[pairs.j] * pairs.dt
    return s - ds, s + ds, t - dt, t + dt


def _separated(
    one: Pieces, other: Pieces, pairs: _Pairs
) -> tuple[NDArray[np.bool_], tuple[Floats, ...]]:
    """Which boxes hold no common point, since their hulls are apart; and their polynomials."""
    p = shifted(one.c[pairs.i], pairs.s)
    q = shifted(other.c[pairs.j], pairs.t)
    reach = _reach(p, pairs.ds) + one.error[pairs.i]
    reach += _reach(q, pairs.dt) + other.error[pairs.j]
    size = one.size[pairs.i] + other.size[pairs.j]
    gap = np.abs(p[:, :, 0] - q[:, :, 0])
    apart: NDArray[np.bool_] = np.any(gap > reach * (1 + SLACK) + SLACK * size, axis=1)
    return apart, (p, q)


def _reach(p: Floats, half: Floats) -> Floats:
    """How far polynomials get from their values in the middle."""
    total, power = np.zeros(p.shape[:2]), half.copy()
    for k in range(1, TERMS):
        total += np.abs(p[:, :, k]) * power[:, None]
        power = power * half
    return total


def _bend(p: Floats, half: Floats) -> Floats:
    """How far their slopes get from those in the middle."""
    total, power = np.zeros(p.shape[:2]), half.copy()
    for k in range(2, TERMS):
        total += k * np.abs(p[:, :, k]) * power[:, None]
        power = power * half
    return total


def _krawczyk(
    one: Pieces, other: Pieces, pairs: _Pairs, p: Floats, q: Floats
) -> tuple[NDArray[np.bool_], NDArray[np.bool_], tuple[Floats, ...]]:
    """Which boxes hold exactly one common point, or lie near one that they do not hold; which hold
    none; and where the points are."""
    s_room = np.minimum(pairs.ds * LARGEST, 1 - np.abs(pairs.s))
    t_room = np.minimum(pairs.dt * LARGEST, 1 - np.abs(pairs.t))
    s_room, t_room = np.maximum(s_room, pairs.ds), np.maximum(t_room, pairs.dt)
    f = p[:, :, 0] - q[:, :, 0]
    a, b, c, d = p[:, 0, 1], -q[:, 0, 1], p[:, 1, 1], -q[:, 1, 1]
    with np.errstate(all="ignore"):
        det = a * d - b * c
        y = np.stack([d, -b, -c, a], axis=1) / det[:, None]
        s_off = -(y[:, 0] * f[:, 0] + y[:, 1] * f[:, 1])
        t_off = -(y[:, 2] * f[:, 0] + y[:, 3] * f[:, 1])
        magnitude = np.abs(y)
        error = one.error[pairs.i] + other.error[pairs.j]
        error = error + SLACK * (one.size[pairs.i] + other.size[pairs.j])
        js = _bend(p, s_room) + one.slope_error[pairs.i] + SLACK * one.slope_size[pairs.i]
        jt = _bend(q, t_room) + other.slope_error[pairs.j] + SLACK * other.slope_size[pairs.j]
        spread = error + js * s_room[:, None] + jt * t_room[:, None]
        ns = magnitude[:, 0] * spread[:, 0] + magnitude[:, 1] * spread[:, 1]
        nt = magnitude[:, 2] * spread[:, 0] + magnitude[:, 3] * spread[:, 1]
        # The inverse is one of floats: what Y J is off by in the middle counts as well.
        rounding = 16 * SLACK
        ns = ns * (1 + rounding) + rounding * (s_room + np.abs(s_off))
        nt = nt * (1 + rounding) + rounding * (t_room + np.abs(t_off))
        near = magnitude[:, 0] * np.abs(f[:, 0]) + magnitude[:, 1] * np.abs(f[:, 1])
        far = magnitude[:, 2] * np.abs(f[:, 0]) + magnitude[:, 3] * np.abs(f[:, 1])
        ns, nt = ns + rounding * near, nt + rounding * far
        known = np.isfinite(ns) & np.isfinite(nt) & np.isfinite(s_off) & np.isfinite(t_off)
        condition = magnitude.max(axis=1) * np.abs(np.stack([a, b, c, d], axis=1)).max(axis=1)
        known &= condition < 1e8
        single = known & (np.abs(s_off) + ns < s_room) & (np.abs(t_off) + nt < t_room)
        none = known & ((np.abs(s_off) - ns > pairs.ds) | (np.abs(t_off) - nt > pairs.dt))
    none &= ~single
    # A single point that is surely outside its own box is left to the box next to it.
    with np.errstate(all="ignore"):
        beside = (np.abs(s_off) - ns > pairs.ds) | (np.abs(t_off) - nt > pairs.dt)
    none |= single & beside
    single &= ~beside
    return single, none, (s_off, t_off, ns, nt)


def _solved(pairs: _Pairs, solved: tuple[Floats, ...], single: NDArray[np.bool_]) -> _Pairs:
    s_off, t_off, ns, nt = (part[single] for part in solved)
    return _Pairs(pairs.i, pairs.j, pairs.s + s_off, pairs.t + t_off, ns, nt)


def _halved(pairs: _Pairs) -> _Pairs:
    """Every box as four."""
    s = [pairs.s - pairs.ds / 2, pairs.s + pairs.ds / 2]
    t = [pairs.t - pairs.dt / 2, pairs.t + pairs.dt / 2]
    parts = [
        _Pairs(pairs.i, pairs.j, at_s, at_t, pairs.ds / 2, pairs.dt / 2) for at_s in s for at_t in t
    ]
    return _Pairs(
        *(
            np.concatenate([getattr(part, name) for part in parts])
            for name in ("i", "j", "s", "t", "ds", "dt")
        )
    )
