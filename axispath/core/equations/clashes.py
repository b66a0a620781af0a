"""Equations that contradict each other: what is checked, and the smallest set that is at fault."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.calculation.calculate import Calculator
from axispath.core.equations.core import Sides
from axispath.core.equations.engines.verify import BITS
from axispath.core.equations.linear import impossible, linear, row_of, smallest
from axispath.core.equations.measured import MeasuredSystem
from axispath.core.equations.solved import Step, Trouble, equations_told
from axispath.core.equations.structure import Part
from axispath.core.language.tree import Expression, Negation, Sum
from axispath.core.quantities.factors import factor_apart
from axispath.core.quantities.scalars import UNDECIDED, real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import NoResult, Scalar

Number = Surd | arb
Numbers = Mapping[str, Number]
CLOSE = -100  # as a power of two, what two sides may be apart by that are known to 128 bits


def difference_of(sides: Sides) -> Expression:
    """What is 0 where an equation holds."""
    return Sum((sides[0], Negation(sides[1])))


@dataclass(frozen=True)
class Clashes:
    """Looks for what is at fault in a system; ``given`` are the values of other names."""

    system: MeasuredSystem
    unknowns: tuple[str, ...]
    calculator: Calculator
    given: Numbers

    def numbers(self, indices: tuple[int, ...]) -> tuple[int, ...]:
        """The numbers of equations by their places."""
        return tuple(self.system.equations[i].number for i in indices)

    def checked(
        self, branches: list[dict[str, Number]], failed: set[str]
    ) -> tuple[list[dict[str, Number]], list[Step], Trouble | None]:
        """The branches in which those equations hold too that were not needed to find anything.

        Where there are none, the smallest trouble.
        """
        least: Trouble | None = None
        steps: list[Step] = []
        for index, above in self.system.structure.checks:
            if self.system.names[index] & failed:
                continue
            difference = difference_of(self.system.sides[index])
            kept = [known for known in branches if self.holds(difference, known)]
            if kept:
                branches = kept
                steps.append(Step(self.numbers((index,)), (), "holds too and says nothing new"))
                continue
            numbers = self.numbers(above)
            trouble = Trouble(self._against(index, numbers, branches), numbers)
            if least is None or len(numbers) < len(least.equations):
                least = trouble
        among = self._linear_set() if least is not None and len(least.equations) > 1 else None
        if least is not None and among is not None and len(among) < len(least.equations):
            least = Trouble(f"{equations_told(among)} contradict each other", among)
        return branches, steps, least

    def _against(
        self, index: int, numbers: tuple[int, ...], branches: list[dict[str, Number]]
    ) -> str:
        words = "is not true" if len(numbers) == 1 else "contradict each other"
        told = f"{equations_told(numbers)} {words}"
        for known in branches[:1]:
            try:
                names = {**self.given, **known}
                sides = [self.calculator.result(s, names).value for s in self.system.sides[index]]
            except NoResult:
                break
            left, right = sides
            if isinstance(left, Surd | arb) and isinstance(right, Surd | arb):
                factor = factor_apart(*(float(real_ball(one).mid()) for one in (left, right)))
                told += f": {factor}" if factor else ""
        return told

    def in_part(self, part: Part, rows: tuple[tuple[Scalar, ...], ...]) -> Trouble:
        """The smallest set of linear equations that contradict each other, given a part that has
        no solution.
        """
        among = self._linear_set()
        if among is None:
            with precision(BITS):
                chosen = smallest(list(rows), part.unknowns)
            among = self.with_what_is_above(tuple(part.equations[k] for k in chosen))
        return Trouble(f"{equations_told(among)} contradict each other", among)

    def _linear_set(self) -> tuple[int, ...] | None:
        """The smallest contradiction among all equations that are linear; None without one."""
        differences = [difference_of(one) for one in self.system.sides]
        kept = [k for k, one in enumerate(differences) if linear(one, set(self.unknowns))]
        with precision(BITS):
            try:
                rows = [
                    row_of(differences[k], self.unknowns, self.calculator, self.given) for k in kept
                ]
            except NoResult:
                return None
            if not impossible(rows, self.unknowns):
                return None
            return self.numbers(tuple(kept[k] for k in smallest(rows, self.unknowns)))

    def with_what_is_above(self, indices: tuple[int, ...]) -> tuple[int, ...]:
        """The numbers of some equations and of those that determine what is in them."""
        owner = {
            name: part.equations for part in self.system.structure.parts for name in part.unknowns
        }
        found, pending = set(indices), list(indices)
        while pending:
            for name in self.system.names[pending.pop()]:
                for index in owner.get(name, ()):
                    if index not in found:
                        found.add(index)
                        pending.append(index)
        return tuple(sorted(self.numbers(tuple(found))))

    def holds(self, difference: Expression, known: Numbers) -> bool:
        """Whether a difference is 0, as far as can be told."""
        try:
            value = self.calculator.result(difference, {**self.given, **known}).value
        except NoResult as reason:
            return str(reason) == UNDECIDED
        if isinstance(value, arb):
            return bool(abs(value) < arb(2) ** CLOSE)
        return isinstance(value, Surd) and value.is_zero
