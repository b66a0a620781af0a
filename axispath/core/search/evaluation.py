"""The values of steps at a place of a piece, where every choice has been made."""

from __future__ import annotations

from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.balls import operation, precision
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import NAN, OutsideDomain
from axispath.core.search.cuts import BITS
from axispath.core.search.specialise import Branches, followed, needed, needs


class Evaluation:
    """Carries out steps of a program."""

    def __init__(self, plan: Program, unit: AngleUnit) -> None:
        self.plan = plan
        self.operations = [
            None if index < self.plan.inputs else operation(step, unit)
            for index, step in enumerate(self.plan.steps)
        ]

    def value(self, index: int, x: arb, branches: Branches, bits: int = BITS) -> arb:
        """An enclosure of a step's value; NaN where unknown or undefined."""
        with precision(bits):
            try:
                return self.values([index], x, branches)[0]
            except OutsideDomain:
                return NAN

    def values(self, targets: list[int], x: arb, branches: Branches) -> list[arb]:
        """Enclosures of the values of some steps. Raises OutsideDomain."""
        at = [followed(index, branches) for index in targets]
        found: dict[int, arb] = {}
        for index in needed(self.plan, at, branches):
            given = [found[i] for i in needs(self.plan, index, branches)]
            branch = branches.get(index)
            if index < self.plan.inputs:
                found[index] = x
            elif branch is None:
                found[index] = self.operations[index](*given)  # type: ignore[misc]
            else:
                found[index] = (
                    -given[0] if branch.negated else Exact(branch.number or Fraction(0)).ball
                )
        return [found[index] for index in at]
