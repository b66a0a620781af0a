"""What happens along a curve: zeros and breaks of its coordinates and of their slopes."""

from __future__ import annotations

import bisect
import math
from contextlib import suppress
from dataclasses import dataclass, field

from flint import arb

from axispath.core.arithmetic.balls import nearest, precision
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.curves.round import Round
from axispath.core.search.budget import Budget
from axispath.core.search.find import find_zeros
from axispath.core.search.isolate import merged_open
from axispath.core.search.landmark import (
    BREAKS,
    Certainty,
    Kind,
    Landmark,
    Method,
    Open,
    Path,
    Undefined,
)
from axispath.core.sheet.curve import Curve, Slopes

BITS = 106
SAME = 1e-12  # of the range: places nearer than that are looked at as one
HARD = (Kind.POLE, Kind.JUMP, Kind.HOLE, Kind.END)


@dataclass
class Along:
    """The four searches of a curve, and what they say of its parameter."""

    curve: Curve
    round: Round
    values: tuple[Path, Path]
    slopes: tuple[Path, Path]
    slope_plans: tuple[Program, Program]
    hard: list[float] = field(default_factory=list)  # where the curve may break

    def broken(self, k: int, t: float) -> bool:
        """Whether the coordinate x (0) or y (1) may break at a place."""
        path = self.values[k]
        marks = [mark.x for mark in path.of(Kind.POLE, Kind.JUMP, Kind.HOLE)]
        ends = [end for item in path.open for end in (item.low, item.high)]
        ends += [end for item in path.undefined for end in (item.low, item.high)]
        return any(self.same(t, place) for place in (*marks, *ends))

    def exact(self, mark: Landmark, plan: Program) -> Exact | None:
        """The place of a zero of ``plan`` where it is known exactly, as it may be at an end."""
        if mark.exact is not None:
            return mark.exact
        for end in (self.round.low, self.round.high):
            if end.exact is not None and self.same(mark.x, end.x):
                value = exact_registers(plan, self.curve.unit, end.exact)[plan.result]
                if value is not None and value.is_zero:
                    return end.exact
        return None

    @property
    def plans(self) -> tuple[Program, Program]:
        """The coordinates."""
        return self.curve.x, self.curve.y

    def zeros(self, k: int) -> list[Landmark]:
        """The zeros of a coordinate, those among them at which its domain ends."""
        path = self.values[k]
        zeros = path.of(Kind.ZERO)
        known = {mark.x for mark in zeros}
        ends = [m for m in path.of(Kind.END) if m.closed and m.y == 0 and self.inside(m.x)]
        marks = [*zeros, *(mark for mark in ends if mark.x not in known)]
        return [mark for mark in marks if not self.at_high(mark.x)]

    def inside(self, t: float) -> bool:
        """Whether a place lies between the ends."""
        return self.low < t < self.high

    @property
    def low(self) -> float:
        """Where it begins."""
        return self.round.low.x

    @property
    def high(self) -> float:
        """Where it ends."""
        return self.round.high.x

    @property
    def paths(self) -> tuple[Path, ...]:
        """All searches."""
        return (*self.values, *self.slopes)

    def same(self, one: float, other: float) -> bool:
        """Whether two places are one, as far as floats tell."""
        return abs(one - other) <= SAME * max(self.high - self.low, abs(one))

    def at_high(self, t: float) -> bool:
        """Whether a place is the end of a closed round, and so its start as well."""
        return self.round.closed and self.same(t, self.high)


def along(curve: Curve, slopes: Slopes, around: Round, budget: Budget) -> Along:
    """Search both coordinates and both slopes."""
    plans = (curve.x, curve.y, slopes.x, slopes.y)
    found: list[Path] = []
    for k, plan in enumerate(plans):
        share = budget.part(2 * (len(plans) - k))
        granted = share.left
        found.append(find_zeros(plan, curve.unit, around.low, around.high, share, with_breaks=True))
        budget.left -= granted - share.left
    both = (slopes.x, slopes.y)
    told = Along(curve, around, (found[0], found[1]), (found[2], found[3]), both)
    places = {
        mark.t if not math.isnan(mark.t) else mark.x
        for path in told.paths
        for mark in path.of(*BREAKS)
        if told.low < mark.x < told.high
    }
    for path in told.paths:
        places |= {end for item in path.open for end in (item.low, item.high)}
        places |= {end for item in path.undefined for end in (item.low, item.high)}
    told.hard = sorted(place for place in places if told.low <= place <= told.high)
    return told


def place_of(curve: Curve, t: arb) -> tuple[arb, arb] | None:
    """The point at a parameter; None where it is not surely one."""
    with precision(BITS), suppress(OutsideDomain):
        x, y = (balls.value(t) for balls in curve.balls)
        if x.is_finite() and y.is_finite():
            return x, y
    return None


def located(
    curve: Curve,
    kind: Kind,
    t: arb,
    certainty: Certainty,
    method: Method,
    bracket: tuple[float, float],
    exact: Exact | None = None,
) -> Landmark | None:
    """A landmark at a parameter; None where the curve is not surely there."""
    with precision(BITS):
        ball = exact.ball if exact is not None else t
    found = place_of(curve, ball)
    if found is None:
        return None
    x, y = found
    return Landmark(
        kind,
        0.0 if kind is Kind.MEETS_Y else nearest(x),
        0.0 if kind is Kind.MEETS_X else nearest(y),
        certainty,
        0.0 if kind is Kind.MEETS_Y else float(x.rad()),
        *bracket,
        y_radius=0.0 if kind is Kind.MEETS_X else float(y.rad()),
        method=method,
        exact=exact,
        t=0.0 if ball.contains(0) and ball.rad() < 1e-12 else float(ball.mid()),
        t_radius=float(ball.rad()),
    )


def ball_of(mark: Landmark) -> arb:
    """The place of a landmark of a search, in which its true place lies."""
    with precision(BITS):
        if mark.exact is not None:
            return mark.exact.ball
        return arb(mark.x, max(mark.radius, math.ulp(mark.x) if mark.x else mark.radius))


def on_the_axes(told: Along) -> list[Landmark]:
    """Where the curve meets the axes."""
    found = []
    for k, kind in enumerate((Kind.MEETS_Y, Kind.MEETS_X)):
        for mark in told.zeros(k):
            exact, bracket = told.exact(mark, told.plans[k]), (mark.low, mark.high)
            sure = Certainty.EXACT if exact is not None else mark.certainty
            at = located(told.curve, kind, ball_of(mark), sure, mark.method, bracket, exact)
            if at is not None:
                found.append(at)
    return found


def turns(told: Along) -> list[Landmark]:
    """Upright and level tangents, cusps, and places at which the point stands still."""
    found = []
    slopes_x, slopes_y = (
        [mark for mark in path.of(Kind.ZERO) if not _left_out(told, mark.x)] for path in told.slopes
    )
    both = [(a, b) for a in slopes_x for b in slopes_y if told.same(a.x, b.x)]
    shared = {id(mark) for pair in both for mark in pair}
    kinds = (Kind.UPRIGHT, Kind.LEVEL)
    for kind, plan, marks in zip(kinds, told.slope_plans, (slopes_x, slopes_y), strict=True):
        for mark in marks:
            if id(mark) in shared:
                continue
            exact, bracket = told.exact(mark, plan), (mark.low, mark.high)
            sure = Certainty.EXACT if exact is not None else mark.certainty
            at = located(told.curve, kind, ball_of(mark), sure, mark.method, bracket, exact)
            if at is not None:
                found.append(at)
    for a, b in both:
        places = told.exact(a, told.slope_plans[0]), told.exact(b, told.slope_plans[1])
        mark, exact = (a, places[0]) if places[0] is not None else (b, places[1])
        proven = places[0] is not None and places[0] == places[1]
        certainty = Certainty.EXACT if proven else Certainty.APPROACHED
        kind = _standing(told, ball_of(mark) if exact is None else exact.ball)
        method = Method.EXACT if proven else Method.TOUCH
        bracket = (max(a.low, b.low), min(a.high, b.high))
        at = located(told.curve, kind, ball_of(mark), certainty, method, bracket, exact)
        if at is not None:
            found.append(at)
    return found


def _left_out(told: Along, t: float) -> bool:
    """Whether a place is listed as another: the start, or an end from which the curve goes back."""
    at_end = told.same(t, told.low) or told.same(t, told.high)
    return told.at_high(t) or (told.round.mirrored and at_end)


def _standing(told: Along, t: arb) -> Kind:
    """A cusp where the point turns back by its first terms, else a place where it only stops."""
    with precision(BITS), suppress(OutsideDomain):
        seconds = [balls.taylor(t, 3)[2] for balls in told.curve.balls]
        if any(second != 0 for second in seconds):
            return Kind.CUSP
    return Kind.STOP


def breaks(told: Along) -> list[Landmark]:
    """Places at which the curve breaks, or bends without a break."""
    found: list[Landmark] = []
    for t in told.hard:
        marks = [m for path in told.values for m in path.of(*BREAKS) if told.same(m.x, t)]
        bends = [m for path in told.slopes for m in path.of(*BREAKS) if told.same(m.x, t)]
        if not told.low < t < told.high:
            continue
        if not marks and not bends:
            continue
        kinds = {mark.kind for mark in marks}
        kind = next((k for k in HARD if k in kinds), Kind.KINK)
        certainty = Certainty.EXACT if any(m.exact for m in marks + bends) else Certainty.PROVEN
        exact = next((m.exact for m in marks + bends if m.exact), None)
        ball = exact.ball if exact is not None else arb(t)
        at = place_of(told.curve, ball)
        x, y = (nearest(v) for v in at) if at is not None else (math.nan, math.nan)
        if kind is Kind.KINK and at is None:
            continue
        found.append(
            Landmark(
                kind,
                x,
                y,
                certainty,
                closed=at is not None,
                method=Method.SIDES,
                exact=exact,
                t=t,
                low=t,
                high=t,
            )
        )
    return found


def ends(told: Along) -> list[Landmark]:
    """Start and end of a curve that has them."""
    if told.round.closed:
        return []
    found = []
    for kind, end in ((Kind.START, told.round.low), (Kind.END, told.round.high)):
        if kind is Kind.END and told.round.joined:
            continue
        at = located(
            told.curve,
            Kind.END if told.round.mirrored else kind,
            end.ball,
            Certainty.EXACT if end.exact is not None else Certainty.PROVEN,
            Method.VALUE,
            (end.x, end.x),
            end.exact,
        )
        if at is not None:
            found.append(at)
    return found


def open_stretches(told: Along) -> list[Open]:
    """Stretches of the parameter about which some search says nothing."""
    narrow = (told.high - told.low) * 2.0**-39
    return merged_open([item for path in told.paths for item in path.open], narrow)


def undefined(told: Along) -> list[Undefined]:
    """Stretches without a point."""
    found: list[Undefined] = []
    for item in sorted((u for path in told.values for u in path.undefined), key=lambda u: u.low):
        if found and item.low <= found[-1].high:
            last = found[-1]
            found[-1] = Undefined(last.low, max(last.high, item.high), last.why or item.why)
        else:
            found.append(item)
    return found


class Signs:
    """The sign of a slope between the places at which it may change."""

    def __init__(self, path: Path) -> None:
        cells = [cell for cell in path.cells if cell.low < cell.high]
        self.lows = [cell.low for cell in cells]
        self.cells = cells
        self.zero = [(s.low, s.high) for s in path.zero]

    def between(self, low: float, high: float) -> int | None:
        """−1, 0 or 1 on a stretch; None where that is not known."""
        middle = low + (high - low) / 2
        if any(a <= middle <= b for a, b in self.zero):
            return 0
        at = bisect.bisect_right(self.lows, middle) - 1
        if at < 0 or not self.cells[at].low <= middle <= self.cells[at].high:
            return None
        return self.cells[at].sign
