"""What happens at a cut: a pole, a jump, a hole, a kink, an end, or nothing at all."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import nearest, precision
from axispath.core.arithmetic.program import Step
from axispath.core.arithmetic.rationals import ZERO, Exact, exact_registers
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.catalogue.parts import AtGuard
from axispath.core.search.at_point import value_at
from axispath.core.search.cells import at_cut
from axispath.core.search.cuts import BITS, Cut, Piece
from axispath.core.search.germ import Germ
from axispath.core.search.landmark import (
    Cell,
    Certainty,
    Kind,
    Landmark,
    Method,
    Open,
    Reason,
    Span,
    Stretch,
)
from axispath.core.search.pieces import TAILS, Cutter
from axispath.core.search.rational import rational
from axispath.core.search.series import NoGerm


@dataclass(frozen=True)
class Side:
    """One side of a cut: the limits of the function and of its slope, None where not known.

    ``direction`` and ``bend`` are those of the stretch next to the cut.
    """

    limit: arb | None
    slope: arb | None
    exact: Exact | None
    direction: int
    bend: int


@dataclass(frozen=True)
class AtCut:
    """What was found at a cut."""

    landmarks: tuple[Landmark, ...] = ()
    open: tuple[Open, ...] = ()
    cell: Cell | None = None  # None where nothing is known of the value


class Classifier:
    """Tells what a function does at the cuts of an interval."""

    def __init__(
        self,
        cutter: Cutter,
        spans: list[Span],
        zero: list[Stretch],
        nowhere: list[Stretch],
        slopes: bool = True,
    ) -> None:
        self.cutter = cutter
        self.slopes = slopes  # whether kinks are looked for
        self.zero = zero
        self.nowhere = nowhere
        self.spans = spans

    def at(self, cut: Cut, before: Piece | None, after: Piece | None) -> AtCut:
        """The landmarks at a cut between two pieces; None for a piece beyond the interval."""
        if self.cutter.budget.spent:
            return AtCut(open=(Open(cut.low, cut.high, Reason.BUDGET),))
        left = self._side(cut, before, -1)
        right = self._side(cut, after, 1)
        with precision(BITS):
            return self._told(cut, before, after, left, right)

    def _told(
        self,
        cut: Cut,
        before: Piece | None,
        after: Piece | None,
        left: Side | None,
        right: Side | None,
    ) -> AtCut:
        sides = [side for side in (left, right) if side is not None]
        value = value_at(self.cutter, cut) if cut.belongs else None
        told = value is None or value.is_finite()
        cell = at_cut(cut, value) if told else None
        wild = AtCut(open=(Open(cut.low, cut.high, Reason.BREAK),), cell=cell)
        if any(piece is not None and piece.open for piece in (before, after)):
            return AtCut(cell=cell)
        if any(side.limit is None for side in sides):
            return wild
        if value is not None and not value.is_finite():
            limits = [side.limit for side in sides]
            if not limits or self._jumps(cut) or not all(_finite(limit) for limit in limits):
                return wild
            value = limits[0]  # continuous, so the value is the limit
        place = self._place(cut, value, left, right)
        kind = _kind(cut, left, right, value)
        if kind is Kind.KINK and not self.slopes:
            kind = None
        if kind is Kind.KINK and any(side.slope is None for side in sides):
            return replace(wild, cell=at_cut(cut, value))
        marks = []
        if kind is not None:
            marks.append(replace(place, kind=kind, y=self._height(kind, value, sides)))
        if value is not None:
            marks += self._zero(cut, place, value)
        if value is not None and sides:
            marks += self._turning(cut, place, value, left, right, kind)
        return AtCut(tuple(marks), cell=at_cut(cut, value))

    # One side

    def _side(self, cut: Cut, piece: Piece | None, side: int) -> Side | None:
        """``side`` is −1 for the piece before the cut; None where there is no function."""
        if piece is None or not piece.alive:
            return None
        if any(s.low <= cut.x <= s.high for s in self.nowhere):
            return None
        direction, bend = self._shape(piece, cut, side)
        target = self.cutter.plan.result
        plan = self.cutter.specialised(piece, target)
        exact: Exact | None = None
        if cut.exact is not None:
            exact = exact_registers(plan, self.cutter.unit, cut.exact)[plan.result]
        flat = self.cutter.flat(piece, target)
        if 0 in flat:
            return Side(arb(0), arb(0), ZERO, 0, 0)
        if 1 in flat:
            level = self.cutter.value(target, arb(piece.middle), piece.branches)
            return Side(level if level.is_finite() else None, arb(0), exact, 0, 0)
        at_once = self._side_of_quotient(piece, cut, side, direction, bend)
        if at_once is not None:
            return at_once
        self.cutter.budget.spend(2)
        function = self.cutter.function(piece, target).true
        with precision(BITS):
            try:
                place = cut.exact.ball if cut.exact is not None else cut.ball
                value, slope = function.taylor(place, 2)
                if value.is_finite() and slope.is_finite():
                    limit = exact.ball if exact is not None else value
                    return Side(limit, slope, exact, direction, bend)
            except OutsideDomain:
                pass
        for tail in TAILS[2:]:
            try:
                width = (piece.high - piece.low) * tail
                (germ,) = self.cutter.germs(piece, cut, side, target, 1, width)
                with precision(BITS):
                    reached = germ.limit()
                    beyond = self._slope(piece, germ)
                return Side(reached, beyond, exact, direction, bend)
            except NoGerm:
                continue
        return Side(None, None, None, direction, bend)

    def _side_of_quotient(
        self, piece: Piece, cut: Cut, side: int, direction: int, bend: int
    ) -> Side | None:
        """The same for a quotient of polynomials at a fraction: exactly; None elsewhere."""
        quotient = rational(self.cutter.specialised(piece, self.cutter.plan.result))
        if quotient is None or cut.exact is None or cut.exact.turns:
            return None
        place = cut.exact.rational
        value = quotient.at(place)
        if value is not None:
            slope = quotient.at(place, 1)
            told = Exact(value)
            ball = None if slope is None else Exact(slope).ball
            with precision(BITS):
                return Side(told.ball, ball, told, direction, bend)
        touching = self._touching(piece, side)
        if touching is None or not touching.sign:
            return None
        return Side(arb("inf") * touching.sign, None, None, direction, bend)

    def _slope(self, piece: Piece, germ: Germ) -> arb | None:
        """The limit of the slope next to a cut; None where it is not known."""
        if not self.slopes:
            return None
        if 1 in self.cutter.flat(piece, self.cutter.plan.result):
            return arb(0)
        try:
            return germ.derivative().limit()
        except NoGerm:
            return None

    def _shape(self, piece: Piece, cut: Cut, side: int) -> tuple[int, int]:
        """Direction and bend of the span of a piece that touches the cut."""
        span = self._touching(piece, side)
        return (0, 0) if span is None else (span.direction, span.bend)

    def _touching(self, piece: Piece, side: int) -> Span | None:
        """The first or the last span of a piece."""
        inside = [s for s in self.spans if s.low >= piece.left.low and s.high <= piece.right.high]
        if not inside:
            return None
        return inside[0] if side > 0 else inside[-1]

    # Both sides

    def _jumps(self, cut: Cut) -> bool:
        """Whether a step that can jump has its guard at 0 here."""
        known = cut.zeros | cut.maybe
        for index, guards in self.cutter.prepared.guards.items():
            step = self.cutter.plan.steps[index]
            if known.isdisjoint(guards):
                continue
            if step.operation == "choose" or _at_guard(step) is AtGuard.JUMPS:
                return True
            # A guard that only may be 0: where it is, such a step has no value at all.
            if not cut.maybe.isdisjoint(guards) and not _goes_on(step):
                return True
        return False

    def _height(self, kind: Kind, value: arb | None, sides: list[Side]) -> float:
        if kind is Kind.POLE:
            return math.nan
        if kind is Kind.HOLE or value is None:
            return _float(sides[0].limit) if sides else math.nan
        return _float(value)

    def _place(
        self, cut: Cut, value: arb | None, left: Side | None, right: Side | None
    ) -> Landmark:
        exact = cut.exact is not None
        return Landmark(
            Kind.END,
            cut.x,
            math.nan if value is None else _float(value),
            Certainty.EXACT if exact else Certainty.APPROACHED if cut.maybe else Certainty.PROVEN,
            0.0 if exact else float(cut.ball.rad()),
            cut.low,
            cut.high,
            closed=value is not None,
            y_radius=0.0 if value is None else float(value.rad()),
            method=Method.SIDES,
            left=math.nan if left is None else _float(left.limit),
            right=math.nan if right is None else _float(right.limit),
            exact=cut.exact,
            of=None if cut.of is None else (cut.of, 0),
        )

    def _zero(self, cut: Cut, place: Landmark, value: arb) -> list[Landmark]:
        beside_zeros = any(cut.x in (stretch.low, stretch.high) for stretch in self.zero)
        if value != 0 or beside_zeros:
            return []
        # Exactly 0, but at a place that is itself only as sure as what makes it one.
        sure = value.is_zero()
        certainty = place.certainty if sure else Certainty.APPROACHED
        method = Method.TOUCH
        if sure:
            method = Method.EXACT if cut.exact is not None else Method.SIDES
        return [replace(place, kind=Kind.ZERO, y=0.0, certainty=certainty, method=method)]

    def _turning(
        self,
        cut: Cut,
        place: Landmark,
        value: arb,
        left: Side | None,
        right: Side | None,
        kind: Kind | None,
    ) -> list[Landmark]:
        """An extremum or an inflection at the cut."""
        if cut.end is not None and not cut.end.of_domain:
            return []
        heights = [
            _beside(value, side, falls)
            for side, falls in ((left, -1), (right, 1))
            if side is not None
        ]
        turned = replace(place, method=Method.SIDES, y=_float(value), closed=True)
        if all(h < 0 for h in heights):
            return [replace(turned, kind=Kind.MAXIMUM)]
        if all(h > 0 for h in heights):
            return [replace(turned, kind=Kind.MINIMUM)]
        smooth = left is not None and right is not None and kind is None
        if smooth and left.bend * right.bend < 0:  # type: ignore[union-attr]
            return [replace(turned, kind=Kind.INFLECTION)]
        return []


def _goes_on(step: Step) -> bool:
    """Whether a step keeps its value where a guard of it is 0."""
    if step.operation == "root power":
        return bool(step.detail > 0)
    return _at_guard(step) is AtGuard.GOES_ON


def _at_guard(step: Step) -> AtGuard:
    entry = catalogue.ENTRIES.get(step.detail) if step.operation == "apply" else None
    return entry.at_guard if entry is not None else AtGuard.UNKNOWN


def _same(a: arb | None, b: arb | None, exact: tuple[Exact | None, Exact | None]) -> bool:
    """Whether two limits are the same number, as far as can be told."""
    if a is None or b is None:
        return False
    if exact[0] is not None and exact[1] is not None:
        return exact[0] == exact[1]
    if not a.is_finite() or not b.is_finite():
        return bool(not a.is_finite() and not b.is_finite() and (a > 0) == (b > 0))
    return bool(a.overlaps(b))


def _kind(
    cut: Cut,
    left: Side | None,
    right: Side | None,
    value: arb | None,
) -> Kind | None:
    """What the limits and the value make of a cut."""
    sides = [side for side in (left, right) if side is not None]
    edge = cut.end is not None
    if not sides:
        return Kind.END if value is not None and not edge else None
    if any(not _finite(side.limit) for side in sides):
        return Kind.POLE
    if left is None or right is None:
        if edge and not cut.end.of_domain:  # type: ignore[union-attr]
            return None
        if value is not None and not sides[0].limit.overlaps(value):  # type: ignore[union-attr]
            return Kind.JUMP
        return Kind.END
    if not _same(left.limit, right.limit, (left.exact, right.exact)):
        return Kind.JUMP
    if value is None or not left.limit.overlaps(value):  # type: ignore[union-attr]
        return Kind.HOLE
    if left.slope is None or right.slope is None:
        return Kind.KINK
    return None if _same(left.slope, right.slope, (None, None)) else Kind.KINK


def _beside(value: arb, side: Side, onwards: int) -> int:
    """Whether the function next to the cut is below (−1) or above (1) its value there."""
    limit = side.limit
    assert limit is not None
    if limit < value:
        return -1
    if limit > value:
        return 1
    return side.direction * onwards


def _finite(value: arb | None) -> bool:
    return value is not None and bool(value.is_finite())


def _float(value: arb | None) -> float:
    if value is None:
        return math.nan
    if value.is_finite():
        return nearest(value)
    return math.inf if value > 0 else -math.inf
