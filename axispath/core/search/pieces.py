"""The axis cut into pieces on which a function is smooth or undefined.

Step by step, in the order in which a value is computed: where a guard of a step is 0 the
pieces are cut, and on each of the new pieces it is decided what the step comes to there.
Only steps that matter on a piece are looked at, so that a case that is not chosen cuts nothing.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import replace

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.guessing import guess
from axispath.core.arithmetic.identity import flat_levels
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.budget import Budget
from axispath.core.search.corner import LENGTH, Corner
from axispath.core.search.cuts import (
    BITS,
    MIDDLE,
    Cut,
    Found,
    Piece,
    add_cut,
    floats_around,
    gap_cuts,
    is_regular,
)
from axispath.core.search.decisions import Decisions
from axispath.core.search.evaluation import Evaluation
from axispath.core.search.factoring import Factoring
from axispath.core.search.germ import LONG, Germ
from axispath.core.search.isolate import isolate
from axispath.core.search.landmark import Open, Reason
from axispath.core.search.local import FINEST, germ_of, levels_of
from axispath.core.search.prepared import Prepared
from axispath.core.search.rational import rational
from axispath.core.search.root import Root
from axispath.core.search.scaled import ScaledFunction
from axispath.core.search.series import NeedsRoot, NoGerm
from axispath.core.search.specialise import Branches, followed, needs, specialised
from axispath.core.search.tower import Tower

MOST_TOUCHED = 20
PROBES = (MIDDLE, 0.2718281)  # of a piece: where a function is looked at that may be flat
GERM = 12  # evaluations that a germ costs as much as
SEARCH = 4  # and the beginning of a search
TAILS = (2.0**-3, 2.0**-6, 2.0**-11, 2.0**-18, 2.0**-28, 2.0**-40)  # of a piece, for its ends


class Cutter:
    """Cuts an interval for one prepared program, and searches the pieces."""

    def __init__(self, prepared: Prepared, unit: AngleUnit, budget: Budget) -> None:
        self.prepared = prepared
        self.plan = prepared.plan
        self.unit = unit
        self.budget = budget
        self.more = False
        self._flat: dict[int, set[int]] = {}
        self._functions: dict[int, ScaledFunction] = {}
        # By identity, with what must stay alive for that.
        self._specialised: dict[tuple[int, int], tuple[Program, Branches]] = {}
        self._registers: dict[Exact, list[Exact | None]] = {}
        self._has_gaps = any(step.operation == "undefined" for step in self.plan.steps)
        evaluation = Evaluation(self.plan, unit)
        self.value, self.values = evaluation.value, evaluation.values
        self.factoring = Factoring(prepared, evaluation.value)
        self.factors = self.factoring.factors
        self.decisions = Decisions(self.plan, evaluation.operations, evaluation.values)

    # Cutting

    def cut(self, low: Cut, high: Cut) -> list[Piece]:
        """The pieces between two ends, in order."""
        pending, finished = [Piece(low, high)], []
        while pending:
            piece = pending.pop()
            step = self._next_step(piece) if piece.alive else None
            if step is not None and self.budget.spent:
                piece, step = replace(piece, open=Reason.BUDGET), None
            if step is None:
                finished.append(piece)
            else:
                pending += reversed(list(self._split(piece, step)))
        return [self._without_value(piece) for piece in finished]

    def _without_value(self, piece: Piece) -> Piece:
        """The piece, dead where the case that holds on it has no value."""
        if not piece.alive or not self._has_gaps:
            return piece
        found: set[int] = set()
        pending = [followed(self.plan.result, piece.branches)]
        while pending:
            index = pending.pop()
            step = self.plan.steps[index]
            if step.operation == "undefined":
                return replace(piece, dead=index)
            if index not in found:
                found.add(index)
                # Of a choice that does not vary it is not known here which case holds.
                fixed = step.operation == "choose" and index not in piece.branches
                operands = tuple(followed(i, piece.branches) for i in step.operands[:2])
                pending += operands if fixed else needs(self.plan, index, piece.branches)
        return piece

    def _next_step(self, piece: Piece) -> int | None:
        """The first step that matters on the piece and has not been decided there."""
        guards, branches = self.prepared.guards, piece.branches
        found: set[int] = set()
        pending = [followed(self.plan.result, branches)]
        while pending:
            index = pending.pop()
            if index in found:
                continue
            found.add(index)
            step = self.plan.steps[index]
            if step.operation == "choose" and index in guards and index not in piece.decided:
                pending += [followed(i, branches) for i in step.operands[:2]]
            else:
                pending += needs(self.plan, index, branches)
        waiting = [i for i in found if i in guards and i not in piece.decided]
        return min(waiting, default=None)

    def _split(self, piece: Piece, step: int) -> Iterator[Piece]:
        """The piece cut at the zeros of a step's guards, the step decided on each part."""
        cuts: list[Cut] = []
        unsettled: list[Open] = []
        flat: set[int] = set()
        for guard in self.prepared.guards[step]:
            if guard not in self.prepared.varying:
                continue
            for factor in dict.fromkeys(self.factors(guard, piece.branches)):
                found = self.search(piece, factor, (0,))
                self.more |= found.more
                if found.flat:
                    # A factor may be 0 where the guard itself has no value.
                    whole = found if factor == guard else self.search(piece, guard, (0,))
                    if whole.flat and not whole.open and not whole.undefined:
                        flat.add(guard)
                        continue
                    found = whole
                    if whole.flat or not (whole.open or whole.undefined):
                        unsettled.append(Open(piece.low, piece.high, Reason.CLOSE))
                unsettled += found.open
                unsettled += [Open(s.low, s.high, Reason.BREAK) for s in found.undefined]
                for root in found.roots:
                    if not self._harmless(step, root.ball, piece):
                        cut = self._cut_at(root, factor, guard, piece.branches)
                        cut.of = self.specialised(piece, factor)
                        add_cut(cuts, cut)
                for end in (piece.left, piece.right):
                    if not self._harmless(step, end.ball, piece):
                        self._note_zero(end, factor, guard, piece)
        borders = sorted([*cuts, *gap_cuts(unsettled)], key=lambda cut: cut.x)
        edges = [piece.left, *borders, piece.right]
        for left, right in itertools.pairwise(edges):
            if not left.high < right.low:
                continue
            part = replace(piece, left=left, right=right)
            gap = next((o for o in unsettled if o.low <= part.middle <= o.high), None)
            if gap is not None:
                yield replace(part, open=gap.reason)
            else:
                yield self.decisions.decided(part, step, flat)

    def _harmless(self, step: int, place: arb, piece: Piece) -> bool:
        """Whether a step does not break at a zero of its guards."""
        applied = self.plan.steps[step]
        if applied.operation != "apply" or not catalogue.ENTRIES[applied.detail].cautious:
            return False
        return self.value(step, place, piece.branches).is_finite()

    def _cut_at(self, root: Root, factor: int, guard: int, branches: Branches) -> Cut:
        low, high = floats_around(root.ball)
        cut = Cut(root.ball, low, high)
        both = self.factoring.vanishes_with(guard, factor, root.ball, branches)
        # A simple zero that a sign change proves, or one that exact arithmetic confirms.
        (cut.zeros if not root.multiple else cut.maybe).add(factor)
        (cut.zeros if not root.multiple and both else cut.maybe).add(guard)
        exact = self.exact_root(root, factor)
        if exact is not None:
            self.place_exactly(cut, exact)
        return cut

    def exact_root(self, root: Root, step: int) -> Exact | None:
        """The simple exact number at which a step is exactly 0, if that is its root."""
        for candidate in guess(root.ball, self.unit is AngleUnit.DEGREE):
            if root.holds(candidate.ball):
                value = self.registers(candidate)[step]
                if value is not None and value.is_zero:
                    return candidate
        return None

    def place_exactly(self, cut: Cut, exact: Exact) -> None:
        """Note that a cut is at an exact place."""
        cut.exact = exact
        registers = self.registers(exact)
        cut.zeros |= {
            i for i, v in enumerate(registers) if v is not None and v.is_zero
        } & self.prepared.varying
        cut.maybe -= cut.zeros

    def touched(self, piece: Piece, found: Found) -> list[Cut] | None:
        """Simple places in a piece around which a search could not tell landmarks apart.

        None where there are none; the ends of the piece are marked and not listed.
        """
        cuts: list[Cut] = []
        marked = False
        for gap in found.open:
            if gap.reason is not Reason.CLOSE or len(cuts) >= MOST_TOUCHED:
                continue
            for end in (piece.left, piece.right):
                if gap.low <= end.high and gap.high >= end.low and not end.breaks:
                    end.touching = marked = True
            ball = arb(gap.low).union(arb(gap.high))
            for exact in guess(ball, self.unit is AngleUnit.DEGREE):
                if exact.ball > piece.left.ball and exact.ball < piece.right.ball:
                    cut = Cut(exact.ball, *floats_around(exact.ball), touching=True)
                    self.place_exactly(cut, exact)
                    cuts.append(cut)
                    break
        return cuts if cuts or marked else None

    def registers(self, exact: Exact) -> list[Exact | None]:
        """The exact values of all steps at an exact place, as far as they have any."""
        if exact not in self._registers:
            self._registers[exact] = exact_registers(self.plan, self.unit, exact)
        return self._registers[exact]

    def _note_zero(self, end: Cut, factor: int, guard: int, piece: Piece) -> None:
        """Note whether a guard is 0 at an end of the piece, where no search can tell."""
        if guard in end.zeros or guard in end.maybe:
            return
        value = self.value(factor, end.ball, piece.branches)
        if factor in end.zeros or value.is_zero():
            end.zeros.add(factor)
            both = self.factoring.vanishes_with(guard, factor, end.ball, piece.branches)
            (end.zeros if both else end.maybe).add(guard)
        elif not (value > 0 or value < 0):
            end.maybe.update((factor, guard))

    # Searching

    def specialised(self, piece: Piece, target: int) -> Program:
        """The program of a step on a piece."""
        key = id(piece.branches), target
        if key not in self._specialised:
            plan = specialised(self.plan, piece.branches, target)
            self._specialised[key] = plan, piece.branches
        return self._specialised[key][0]

    def function(self, piece: Piece, target: int) -> ScaledFunction:
        """A step on a piece as a function of boxes."""
        plan = self.specialised(piece, target)
        key = id(plan)
        if key not in self._functions:
            self._functions[key] = ScaledFunction(plan, self.unit)
        return self._functions[key]

    def flat(self, piece: Piece, target: int) -> set[int]:
        """Which levels of a step are known to be zero all over a piece."""
        plan = self.specialised(piece, target)
        key = id(plan)
        if key not in self._flat:
            self._flat[key] = flat_levels(
                plan, self.unit, lambda: self._looks_flat(self.function(piece, target), piece)
            )
        return self._flat[key]

    def _looks_flat(self, function: ScaledFunction, piece: Piece) -> set[int]:
        """The levels of a function that cannot be told from 0 at some places of a piece."""
        levels = {0, 1, 2}
        for share in PROBES:
            place = arb(piece.low + (piece.high - piece.low) * share)
            with precision(BITS):
                try:
                    found = function.true.taylor(place, 3)
                except OutsideDomain:
                    return set()
            levels = {k for k in levels if found[k].contains(0)}
        return levels

    def search(self, piece: Piece, target: int, wanted: tuple[int, ...]) -> Found:
        """The zeros of the ``wanted`` levels of a step inside a piece."""
        if self.budget.spent:
            return Found(open=[Open(piece.low, piece.high, Reason.BUDGET)])
        self.budget.spend(SEARCH)
        quotient = rational(self.specialised(piece, target))
        exact = None if quotient is None else quotient.roots(piece, wanted)
        if exact is not None:
            return exact
        function = self.function(piece, target)
        flat = self.flat(piece, target) & set(wanted)
        rest = tuple(level for level in wanted if level not in flat)
        if not rest or (1 in self.flat(piece, target) and self._is_off_zero(piece, target)):
            return Found(flat=frozenset(flat))
        start = self._ending(piece, piece.left, 1, target, rest, function)
        stop = self._ending(piece, piece.right, -1, target, rest, function)
        if not start < stop:
            return Found(flat=frozenset(flat))
        isolated = isolate(Tower(function, self.budget), start, stop, rest)
        found = Found(flat=frozenset(flat), more=isolated.more, open=list(isolated.open))
        if isolated.open or isolated.undefined:
            # It is flat on a part alone, of which no search tells where it ends.
            parts = [s for level, stretches in isolated.flat.items() for s in stretches]
            found.open += [Open(s.low, s.high, Reason.CLOSE) for s in parts]
        else:
            found.flat |= {level for level, stretches in isolated.flat.items() if stretches}
        found.undefined = isolated.undefined
        low, high = piece.left.ball, piece.right.ball
        found.roots = [r for r in isolated.roots if r.ball > low and r.ball < high]
        found.open = [o for o in found.open if o.high > piece.low and o.low < piece.high]
        return found

    def _is_off_zero(self, piece: Piece, target: int) -> bool:
        """Whether a step that is constant all over a piece is not 0."""
        value = self.value(target, arb(piece.middle), piece.branches)
        return bool(value > 0 or value < 0)

    def _ending(
        self,
        piece: Piece,
        cut: Cut,
        side: int,
        target: int,
        wanted: tuple[int, ...],
        function: ScaledFunction,
    ) -> float:
        """From where a search may start at an end of a piece; germs settle what is before it."""
        edge = cut.low if side > 0 else cut.high
        if not cut.touching and is_regular(function, cut, max(wanted) + 2):
            return edge
        width = piece.high - piece.low
        for tail in TAILS:
            try:
                germs = self.germs(piece, cut, side, target, max(wanted) + 1, width * tail)
                for level in wanted:
                    germs[level].sign()
            except NoGerm:
                continue
            # The germ holds up to the end of its corner, which reaches past this.
            return cut.high + width * tail if side > 0 else cut.low - width * tail
        return edge

    def germs(
        self, piece: Piece, cut: Cut, side: int, target: int, count: int, reach: float
    ) -> tuple[Germ, ...]:
        """A step and its derivatives next to a cut. Raises NoGerm."""
        fineness = 1
        zeros = frozenset(cut.zeros)
        while fineness <= FINEST:
            self.budget.spend(GERM)
            with precision(BITS):
                distance = arb(reach) + (cut.high - cut.low)
                width = distance if fineness == 1 else (distance.log() / fineness).exp()
                reached = width.upper() * (1 + arb(2) ** -60)
                length = LONG if cut.touching else min(LENGTH * fineness, LONG)
                place = cut.exact.ball if cut.exact is not None else cut.ball
                corner = Corner(place, side, fineness, reached, length)
                try:
                    germ = germ_of(
                        self.prepared, self.unit, piece.branches, target, corner, zeros, cut.exact
                    )
                    return tuple(levels_of(germ, count))
                except NeedsRoot as needed:
                    fineness *= needed.factor
                except OutsideDomain as error:
                    raise NoGerm from error
        raise NoGerm
