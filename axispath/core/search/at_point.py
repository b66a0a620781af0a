"""The value of a function exactly at a cut, where enclosures alone cannot decide."""

from __future__ import annotations

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import operation, precision
from axispath.core.arithmetic.comparing import COMPARED
from axispath.core.arithmetic.program import Step
from axispath.core.catalogue.balls import NAN, OutsideDomain
from axispath.core.catalogue.parts import AtGuard
from axispath.core.search.cuts import BITS, Cut
from axispath.core.search.pieces import Cutter
from axispath.core.search.tower import FAR


def value_at(cutter: Cutter, cut: Cut) -> arb | None:
    """The value at a cut: NaN where it cannot be told, None where there surely is none."""
    if cut.exact is not None:
        exact = cutter.registers(cut.exact)[cutter.plan.result]
        if exact is not None:
            with precision(BITS):
                return exact.ball
    found: arb | None = None
    # What comes as near to 0 as 1 − erf(16) takes many bits to be told from it.
    for bits in (BITS, *FAR):
        with precision(bits):
            try:
                found = _Point(cutter, cut).value(cutter.plan.result)
            except OutsideDomain:
                return None
            if found != 0 or found.is_zero() or not found.is_finite():
                break
    return found


class _Point:
    """Steps at a place where some guards are known to be 0."""

    def __init__(self, cutter: Cutter, cut: Cut) -> None:
        self.cutter = cutter
        self.cut = cut
        self.found: dict[int, arb] = {}
        self.exact = cutter.registers(cut.exact) if cut.exact is not None else None

    def value(self, target: int) -> arb:
        """The value of a step. Raises OutsideDomain."""
        pending = [target]
        steps = self.cutter.plan.steps
        while pending:
            index = pending[-1]
            if index in self.found:
                pending.pop()
                continue
            step = steps[index]
            wanted = step.operands
            if step.operation == "choose":
                wanted = self._choice(index)
            missing = [i for i in wanted if i not in self.found]
            if missing:
                pending += missing
                continue
            self.found[index] = self._carry_out(index)
        return self.found[target]

    def _choice(self, index: int) -> tuple[int, ...]:
        """What a choice needs next: what it compares, then the branch that it takes."""
        step = self.cutter.plan.steps[index]
        left, right, value, rest = step.operands
        if left not in self.found or right not in self.found:
            return (left, right)
        order = self._order(index, left, right)
        if order is None:
            return (left, right)
        return (value if COMPARED[step.detail](order, 0) else rest,)

    def _order(self, index: int, left: int, right: int) -> int | None:
        """−1, 0 or 1 as left is below, at or above right; None where that cannot be told."""
        guards = self.cutter.prepared.guards.get(index, ())
        if any(guard in self.cut.zeros for guard in guards):
            return 0
        a, b = self.found[left], self.found[right]
        if a > b:
            return 1
        if a < b:
            return -1
        return 0 if a.is_exact() and b.is_exact() and a == b else None

    def _carry_out(self, index: int) -> arb:
        step, zeros = self.cutter.plan.steps[index], self.cut.zeros
        if index < self.cutter.plan.inputs:
            return self.cut.exact.ball if self.cut.exact is not None else self.cut.ball
        if self.exact is not None and (known := self.exact[index]) is not None:
            return known.ball
        if index in zeros:
            return arb(0)
        if step.operation == "choose":
            order = self._order(index, *step.operands[:2])
            if order is None:
                return NAN
            return self.found[step.operands[2 if COMPARED[step.detail](order, 0) else 3]]
        given = [self.found[i] for i in step.operands]
        guards = self.cutter.prepared.guards.get(index, ())
        if any(guard in zeros for guard in guards):
            if step.operation == "restrict":
                if not step.detail[0].startswith("at or"):
                    raise OutsideDomain
                return given[0]
            if step.operation == "apply":
                if catalogue.ENTRIES[step.detail].cautious:
                    found: arb = operation(step, self.cutter.unit)(*given)
                    if found.is_finite():
                        return found
                if _is_nowhere(step):
                    raise OutsideDomain
                given = [_snapped(x) for x in given]
        value: arb = operation(step, self.cutter.unit)(*given)
        return value


def _snapped(x: arb) -> arb:
    """The whole number that an argument is known to be."""
    whole = x.unique_fmpz()
    return x if whole is None else arb(whole)


def _is_nowhere(step: Step) -> bool:
    """Whether a step has no value at the zeros of its guards, not that of a whole number."""
    entry = catalogue.ENTRIES.get(step.detail) if step.operation == "apply" else None
    return entry is not None and entry.at_guard is AtGuard.NOWHERE
