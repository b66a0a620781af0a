"""The path of a function over an interval, and the intersections of two functions."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import replace

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, nearest, precision
from axispath.core.arithmetic.folding import folded
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program, TooLarge
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.at_point import value_at
from axispath.core.search.breaks import AtCut, Classifier
from axispath.core.search.budget import EVALUATIONS, Budget
from axispath.core.search.cells import stretches
from axispath.core.search.cuts import BITS, MIDDLE, Cut, Found, Piece
from axispath.core.search.edges import edge
from axispath.core.search.isolate import MAX_ROOTS, merged_open
from axispath.core.search.landmark import (
    BREAKS,
    Cell,
    Certainty,
    Kind,
    Landmark,
    Method,
    Open,
    Path,
    Reason,
    Span,
    Stretch,
    Undefined,
)
from axispath.core.search.pieces import Cutter
from axispath.core.search.prepared import prepared
from axispath.core.search.root import Root
from axispath.core.search.rooted import kind_of_root
from axispath.core.search.spans import in_order, joined_spans, merged_flat, spans_of
from axispath.core.search.specialise import followed
from axispath.core.search.tower import Tower


def find_path(
    plan: Program, unit: AngleUnit, low: End, high: End, budget: Budget | int = EVALUATIONS
) -> Path:
    """Where a function is defined and breaks, its zeros, extrema, inflections and spans."""
    return _searched(plan, unit, low, high, budget, (0, 1, 2))


def find_zeros(
    plan: Program,
    unit: AngleUnit,
    low: End,
    high: End,
    budget: Budget | int = EVALUATIONS,
    with_breaks: bool = False,
) -> Path:
    """The zeros alone, or with the breaks, and the stretches on which the function is zero."""
    kinds = (Kind.ZERO, *BREAKS) if with_breaks else (Kind.ZERO,)
    return _searched(plan, unit, low, high, budget, (0,), kinds)


def _searched(
    plan: Program,
    unit: AngleUnit,
    low: End,
    high: End,
    budget: Budget | int,
    levels: tuple[int, ...],
    kinds: tuple[Kind, ...] = tuple(Kind),
) -> Path:
    try:
        if not low.ball < high.ball:
            return _at_one_place(plan, unit, low, kinds)
        return _Search(plan, unit, low, high, budget, levels, kinds).path()
    except TooLarge:
        # The steps that may break are too many to be taken apart: nothing is claimed.
        return untouched(low.x, high.x)


def _at_one_place(plan: Program, unit: AngleUnit, place: End, kinds: tuple[Kind, ...]) -> Path:
    """The path over an interval that is a single place."""
    cutter = Cutter(prepared(folded(plan, unit)), unit, Budget())
    cut = edge(cutter, place)
    found = Classifier(cutter, [], [], []).at(cut, None, None)
    return Path(
        cut.x,
        cut.x,
        tuple(mark for mark in found.landmarks if mark.kind in kinds),
        (),
        found.open,
        (),
        (),
        cells=() if found.cell is None else (found.cell,),
    )


def untouched(low: float, high: float) -> Path:
    """A path of which nothing is known: there was more to search than could be."""
    return Path(low, high, (), (), (Open(low, high, Reason.BUDGET),), (), ())


AT_CUTS = 4  # a quarter of a budget is for what happens at the cuts


class _Search:
    """One search of one interval."""

    def __init__(
        self,
        plan: Program,
        unit: AngleUnit,
        low: End,
        high: End,
        budget: Budget | int,
        wanted: tuple[int, ...],
        kinds: tuple[Kind, ...],
    ) -> None:
        self.plan = plan
        self.unit = unit
        self.wanted = wanted
        self.kinds = kinds
        self.budget = Budget(budget) if isinstance(budget, int) else budget
        self.cutter = Cutter(prepared(folded(plan, unit)), unit, self.budget)
        self.low, self.high = edge(self.cutter, low), edge(self.cutter, high)
        self.landmarks: list[Landmark] = []
        self.breaks: list[Landmark] = []
        self.at_cuts: list[tuple[Cut, AtCut]] = []
        self.spans: list[Span] = []
        self.open: list[Open] = []
        self.nowhere: list[Stretch] = []
        self.flat: dict[int, list[Stretch]] = {0: [], 1: []}

    def path(self) -> Path:
        """Everything found."""
        kept = self.budget.left // AT_CUTS
        self.budget.left -= kept
        pieces = self.cutter.cut(self.low, self.high)
        more = self.cutter.more
        waiting = sum(piece.alive for piece in pieces)
        searched: list[tuple[Piece, Found | None]] = []
        for piece in pieces:
            if not piece.alive:
                searched.append((piece, None))
                continue
            share = self.budget.part(waiting)
            granted = share.left
            self.cutter.budget = share
            for part, found in self._search_piece(piece):
                searched.append((part, found))
                more |= found.more
                self._take(part, found)
            self.budget.left -= granted - share.left
            waiting -= 1
        pieces = [piece for piece, _ in searched]
        self.cutter.budget = self.budget
        self.open += [
            Open(piece.left.low, piece.right.high, piece.open) for piece in pieces if piece.open
        ]
        self.budget.left += kept
        self._at_cuts(pieces)
        self._y_intercept(pieces)
        cells = tuple(self._cells(searched)) if self.wanted == (0,) else ()
        start, stop = self.low.low, self.high.high
        ordered = in_order(self.landmarks)
        narrow = (stop - start) * 2.0**-39
        return Path(
            start,
            stop,
            tuple(_with_extremes(ordered, pieces, self)[: 4 * MAX_ROOTS]),
            tuple(joined_spans(self.spans, ordered, self.open)),
            tuple(merged_open(self.open, narrow)),
            tuple(self._undefined(pieces)),
            tuple(merged_flat(self.flat[0], self.breaks, self.open)),
            tuple(merged_flat(self.flat[1], self.breaks, self.open)),
            cells,
            more,
        )

    def _search_piece(self, piece: Piece) -> list[tuple[Piece, Found]]:
        """Search a piece; cut it where landmarks of high order sit at a simple place."""
        target = self.cutter.plan.result
        found = self.cutter.search(piece, target, self.wanted)
        cuts = self.cutter.touched(piece, found)
        if cuts is None:
            return [(piece, found)]
        edges = [piece.left, *sorted(cuts, key=lambda cut: cut.x), piece.right]
        parts = [replace(piece, left=a, right=b) for a, b in itertools.pairwise(edges)]
        return [(part, self.cutter.search(part, target, self.wanted)) for part in parts]

    def _cells(self, searched: list[tuple[Piece, Found | None]]) -> Iterator[Cell]:
        """Places and stretches from left to right; what has no sign is open."""
        known = {id(cut): told.cell for cut, told in self.at_cuts}
        first = known.get(id(searched[0][0].left))
        if first is not None and self.low.belongs:
            yield first
        for piece, found in searched:
            for cell, gap in stretches(self.cutter, piece, found):
                if cell is not None:
                    yield cell
                if gap is not None:
                    self.open.append(gap)
            after = known.get(id(piece.right))
            if after is not None and (piece.right is not self.high or self.high.belongs):
                yield after

    def _take(self, piece: Piece, found: Found) -> None:
        """What a search of a piece came to."""
        target = self.cutter.plan.result
        function = self.cutter.function(piece, target)
        whole = Stretch(piece.left.x, piece.right.x)
        for level in (0, 1):
            if level in found.flat and level in self.wanted:
                self.flat[level].append(whole)
        tower = Tower(function, self.cutter.budget)
        marks = []
        for root in found.roots:
            kind = kind_of_root(tower, root)
            if kind is not None:
                marks.append(self._landmark(piece, function.true, kind, root))
                if root.level == 0:
                    found.places[id(root)] = marks[-1].x
        self.landmarks += marks
        self.open += found.open
        self.nowhere += found.undefined
        if self.wanted != (0,):
            self.spans += spans_of(function, piece, marks, found)

    def _landmark(self, piece: Piece, function: BallFunction, kind: Kind, root: Root) -> Landmark:
        certainty, method, exact = self._certainty(piece, root)
        with precision(BITS):
            place = None if exact is None else exact.ball
        x = root.x if place is None else float(place.mid())
        if root.ball.contains(0):
            x = 0.0
        y, y_radius = 0.0, 0.0
        if kind is not Kind.ZERO:
            with precision(BITS):
                height = function.value(root.ball if place is None else place)
            y, y_radius = nearest(height), float(height.rad())
        radius = float(root.ball.rad())
        return Landmark(
            kind,
            x,
            y,
            certainty,
            radius,
            root.low,
            root.high,
            y_radius=y_radius,
            method=method,
            exact=exact,
            of=(function.plan, root.level),
        )

    def _certainty(self, piece: Piece, root: Root) -> tuple[Certainty, Method, Exact | None]:
        """How sure a root is, how that was found, and its place where that is exact."""
        if root.level == 0:
            exact = self.cutter.exact_root(root, self.cutter.plan.result)
            if exact is not None:
                return Certainty.EXACT, Method.EXACT, exact
        if not root.multiple:
            return Certainty.PROVEN, Method.CROSSING, None
        if root.level == 0 and self._factor_crosses(piece, root):
            return Certainty.PROVEN, Method.FACTOR, None
        if root.level and root.crosses:
            # The signs on both sides differ, so there is a zero of this level in between.
            return Certainty.PROVEN, Method.CROSSING, None
        return Certainty.APPROACHED, Method.TOUCH, None

    def _factor_crosses(self, piece: Piece, root: Root) -> bool:
        """Whether a factor of the function changes sign within the bracket of a root."""
        for factor in self.cutter.factors(self.cutter.plan.result, piece.branches):
            if factor == followed(self.cutter.plan.result, piece.branches):
                continue
            tower = Tower(self.cutter.function(piece, factor), self.cutter.budget)
            if tower.sign_at(0, root.low) * tower.sign_at(0, root.high) < 0:
                return True
        return False

    def _at_cuts(self, pieces: list[Piece]) -> None:
        slopes = self.wanted != (0,)
        classifier = Classifier(self.cutter, self.spans, self.flat[0], self.nowhere, slopes)
        after: list[Piece | None] = [*pieces, None]
        for before, behind in zip([None, *pieces], after, strict=True):
            cut = before.right if before is not None else pieces[0].left
            found = classifier.at(cut, before, behind)
            self.at_cuts.append((cut, found))
            self.open += found.open
            self.breaks += [mark for mark in found.landmarks if mark.kind in BREAKS]
            self.landmarks += [mark for mark in found.landmarks if mark.kind in self.kinds]

    def _undefined(self, pieces: list[Piece]) -> list[Undefined]:
        """Stretches without a value, neighbours with the same reason joined."""
        gaps = [(piece.left.x, piece.right.x) for piece in pieces if piece.dead is not None]
        gaps += [(stretch.low, stretch.high) for stretch in self.nowhere]
        single = {mark.x for mark in self.landmarks if mark.closed and mark.kind is Kind.END}
        found: list[Undefined] = []
        for low, high in sorted(gaps):
            why = why_undefined(self.plan, self.unit, low + (high - low) * MIDDLE) or ""
            last = found[-1] if found else None
            if last and last.high == low and last.why == why and low not in single:
                found[-1] = replace(last, high=high)
            else:
                found.append(Undefined(low, high, why))
        return found

    def _y_intercept(self, pieces: list[Piece]) -> None:
        if self.wanted == (0,) or not self.low.low <= 0 <= self.high.high:
            return
        for piece in pieces:
            if piece.alive and piece.low < 0 < piece.high:
                with precision(BITS):
                    try:
                        y = self.cutter.function(piece, self.cutter.plan.result).true.value(arb(0))
                    except OutsideDomain:
                        return
                if y.is_finite():
                    self._intercept(y)
                return
        for cut in [self.low, *(piece.right for piece in pieces)]:
            if cut.x == 0.0 and cut.belongs:
                value = value_at(self.cutter, cut)
                if value is not None and value.is_finite():
                    self._intercept(value)
                return

    def _intercept(self, y: arb) -> None:
        self.landmarks.append(
            Landmark(
                Kind.Y_INTERCEPT,
                0.0,
                nearest(y),
                Certainty.PROVEN,
                y_radius=float(y.rad()),
                method=Method.VALUE,
            )
        )


def _with_extremes(ordered: list[Landmark], pieces: list[Piece], search: _Search) -> list[Landmark]:
    """The landmarks, with the largest and the smallest value over the interval marked."""
    turning = [m for m in ordered if m.kind in (Kind.MAXIMUM, Kind.MINIMUM)]
    if not turning or search.open:
        return ordered
    bounds = _bounds(ordered, pieces, search)
    marked = []
    for mark in ordered:
        whole = (mark.kind is Kind.MAXIMUM and all(mark.y >= b for b in bounds)) or (
            mark.kind is Kind.MINIMUM and all(mark.y <= b for b in bounds)
        )
        marked.append(replace(mark, whole=whole))
    return marked


def _bounds(ordered: list[Landmark], pieces: list[Piece], search: _Search) -> list[float]:
    """Every height that the function takes or comes close to at its turning points and ends."""
    heights = [m.y for m in ordered if m.kind in (Kind.MAXIMUM, Kind.MINIMUM, Kind.Y_INTERCEPT)]
    for mark in ordered:
        if mark.kind in BREAKS:
            heights += [mark.left, mark.right, mark.y]
    for cut, piece in ((search.low, pieces[0]), (search.high, pieces[-1])):
        if piece.alive:
            with precision(BITS):
                try:
                    y = search.cutter.function(piece, search.cutter.plan.result).true.value(
                        cut.ball
                    )
                except OutsideDomain:
                    continue
            heights.append(float(y.mid()))
    return [y for y in heights if not math.isnan(y)]
