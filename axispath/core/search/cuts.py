"""Places at which the axis is cut, and the pieces between them."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from flint import arb

from axispath.core.arithmetic.balls import nearest, precision
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.landmark import Open, Reason, Stretch
from axispath.core.search.root import Root
from axispath.core.search.scaled import ScaledFunction
from axispath.core.search.specialise import Branches

BITS = 160
MIDDLE = 0.4870123771  # off the middle, where nothing special is likely


@dataclass(eq=False)
class Cut:
    """A place between pieces: the end of the interval, or a zero of guards.

    ``zeros`` are the steps known to be exactly 0 there, ``maybe`` those that cannot be told
    from 0. ``exact`` is the place itself where it is known exactly. ``touching`` marks a place at
    which nothing breaks, but where many derivatives are 0. ``of`` is a program that is 0 here.
    """

    ball: arb
    low: float
    high: float
    end: End | None = None
    zeros: set[int] = field(default_factory=set)
    maybe: set[int] = field(default_factory=set)
    exact: Exact | None = None
    touching: bool = False
    of: Program | None = None

    @property
    def x(self) -> float:
        """The nearest float64."""
        return nearest(self.ball)

    @property
    def belongs(self) -> bool:
        """Whether the place is part of the interval."""
        return self.end is None or not self.end.of_domain or self.end.closed

    @property
    def breaks(self) -> bool:
        """Whether a guard is, or may be, 0 there."""
        return bool(self.zeros or self.maybe)


@dataclass(frozen=True, eq=False)
class Piece:
    """The open stretch between two cuts. ``dead`` is the step that has no value there."""

    left: Cut
    right: Cut
    branches: Branches = field(default_factory=dict)
    decided: frozenset[int] = frozenset()
    dead: int | None = None
    open: Reason | None = None

    @property
    def low(self) -> float:
        """A float64 inside, next to the left end or on it."""
        return self.left.high

    @property
    def high(self) -> float:
        """A float64 inside, next to the right end or on it."""
        return self.right.low

    @property
    def middle(self) -> float:
        """A place inside where nothing special is likely."""
        return self.low + (self.high - self.low) * MIDDLE

    @property
    def alive(self) -> bool:
        """Whether the function is defined and smooth all over it."""
        return self.dead is None and self.open is None


@dataclass
class Found:
    """What a search on a piece came to; roots on its ends are left out."""

    roots: list[Root] = field(default_factory=list)
    open: list[Open] = field(default_factory=list)
    undefined: list[Stretch] = field(default_factory=list)
    flat: frozenset[int] = frozenset()
    more: bool = False
    places: dict[int, float] = field(default_factory=dict)  # of zeros, by the id of the root


def floats_around(ball: arb) -> tuple[float, float]:
    """The tightest float64s around a ball."""
    low, high = float(ball.lower()), float(ball.upper())
    if not ball >= low:
        low = math.nextafter(low, -math.inf)
    if not ball <= high:
        high = math.nextafter(high, math.inf)
    return low, high


def add_cut(cuts: list[Cut], new: Cut) -> None:
    """Add a cut, or what it knows to one at the same place."""
    for cut in cuts:
        if cut.ball.overlaps(new.ball):
            same = cut.exact is not None and cut.exact == new.exact
            (cut.zeros if same else cut.maybe).update(new.zeros - cut.zeros)
            cut.maybe |= new.maybe - cut.zeros
            return
    cuts.append(new)


def gap_cuts(unsettled: list[Open]) -> list[Cut]:
    """Cuts around stretches that are not settled."""
    return [Cut(arb(x), x, x) for gap in unsettled for x in (gap.low, gap.high)]


def is_regular(function: ScaledFunction, cut: Cut, count: int) -> bool:
    """Whether a function goes on smoothly across a cut."""
    with precision(BITS):
        try:
            return all(level.is_finite() for level in function.true.taylor(cut.ball, count))
        except OutsideDomain:
            return False
