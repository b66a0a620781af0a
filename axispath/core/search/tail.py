"""What sign a function has towards an end of the line, read off its expansion there.

Unlike on a piece, nothing has been decided beforehand: what jumps or bends is enclosed, so that
floor(x) is x less something between 0 and 1, and a case is taken where its condition is settled.
"""

from __future__ import annotations

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.comparing import COMPARED
from axispath.core.arithmetic.program import Step
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.corner import Corner
from axispath.core.search.cuts import BITS
from axispath.core.search.germ import Germ
from axispath.core.search.local import FINEST, Run
from axispath.core.search.prepared import Prepared
from axispath.core.search.series import NeedsRoot, NoGerm

WIDTHS = (2.0**-4, 2.0**-8, 2.0**-14, 2.0**-24, 2.0**-40, 2.0**-80, 2.0**-200)


def sign_towards(
    prepared: Prepared, unit: AngleUnit, side: int, widest: float
) -> tuple[int, float] | None:
    """The sign on the whole stretch from 0 to ``side`` times a width, and that width.

    None where it cannot be told, or where the function is 0 or not defined there.
    """
    for width in (w for w in (widest, *WIDTHS) if w <= widest):
        with precision(BITS):
            try:
                germ = germ_at_zero(prepared, unit, side, width)
                sign = 0 if germ is None else germ.sign()
            except (NoGerm, OutsideDomain, ZeroDivisionError):
                continue
        return (sign, width) if sign else None
    return None


def germ_at_zero(prepared: Prepared, unit: AngleUnit, side: int, width: float) -> Germ | None:
    """The germ of a program at u = 0, over a width; None where it takes too fine a root of u.

    Raises NoGerm or OutsideDomain where there is none.
    """
    fineness = 1
    while fineness <= FINEST:
        reach = arb(width) if fineness == 1 else (arb(width).log() / fineness).exp()
        corner = Corner(arb(0), side, fineness, reach.upper() * (1 + arb(2) ** -60))
        try:
            return _Tail(prepared, Run(unit, corner)).germ(prepared.plan.result)
        except NeedsRoot as needed:
            fineness *= needed.factor
    return None


class _Tail:
    """The germs of steps, each found when it is needed."""

    def __init__(self, prepared: Prepared, run: Run) -> None:
        self.plan = prepared.plan
        self.run = run
        self.found: dict[int, Germ] = {}

    def germ(self, target: int) -> Germ:
        """The germ of a step. Raises NoGerm or OutsideDomain."""
        pending = [target]
        while pending:
            index = pending[-1]
            step = self.plan.steps[index]
            missing = [i for i in self._wanted(step) if i not in self.found]
            if index in self.found:
                pending.pop()
            elif missing:
                pending += missing
            else:
                self.found[index] = self._carry_out(index, step)
        return self.found[target]

    def _wanted(self, step: Step) -> tuple[int, ...]:
        if step.operation != "choose":
            return step.operands
        left, right, value, rest = step.operands
        if left not in self.found or right not in self.found:
            return (left, right)
        return (value if COMPARED[step.detail](self._order(left, right), 0) else rest,)

    def _order(self, left: int, right: int) -> int:
        """−1, 0 or 1 as one step is below, the same as or above another."""
        return 0 if left == right else (self.found[left] - self.found[right]).sign()

    def _carry_out(self, index: int, step: Step) -> Germ:
        corner = self.run.corner
        given = [self.found[i] for i in self._wanted(step)]
        if index < self.plan.inputs:
            return corner.variable()
        if step.operation == "choose":
            return given[0]
        if step.operation == "restrict":
            inside = self._order(*step.operands[1:])
            if not inside or (inside > 0) != step.detail[0].endswith("above"):
                raise NoGerm
            return given[0]
        match step.detail if step.operation == "apply" else None:
            case "abs":
                return given[0] if given[0].sign() >= 0 else -given[0]
            case "sign":
                return corner.number(arb(given[0].sign()))
            case "floor":
                return given[0] - corner.bounded(arb(0).union(1))
            case "min" | "max":
                best = step.operands[0]
                for other in step.operands[1:]:
                    above = self._order(other, best)
                    best = other if above * (1 if step.detail == "max" else -1) > 0 else best
                return self.found[best]
        return self.run.step(step, given, False, 0)
