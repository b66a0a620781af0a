"""One program for all states of the values that are turned: they are inputs behind x.

What is computed in a state is what the program with these numbers written into it computes: parts
that depend on them alone are carried out exactly where they can be, so that 1/(3a − 0.3) has no
value at a = 0.1.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from fractions import Fraction
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.balls import BallFunction
from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import Boxes
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import operation
from axispath.core.arithmetic.folding import folded, simpler
from axispath.core.arithmetic.patience import time_check
from axispath.core.arithmetic.program import Definition, NotComputable, Operation, Program, Step
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tree import Expression

Floats = NDArray[np.float64]
Index = NDArray[np.int64]
State = Sequence[Fraction]
MOST = 4 << 20  # numbers at once in one step


class NotTurned(NotComputable):
    """How the formula is computed depends on the numbers themselves."""


class TurnedProgram:
    """A formula of x in which some values of the sheet are turned."""

    def __init__(self, plan: Program, unit: AngleUnit) -> None:
        self.plan = plan
        self.unit = unit
        self._folded = folded(plan, unit)
        steps = self._folded.steps
        over_x, turned = {0}, set(range(1, plan.inputs))
        self._constant: list[int] = []  # of no input
        self._turned: list[int] = []  # of the values that are turned alone
        self._work: list[int] = []  # of x
        for index, step in enumerate(steps[plan.inputs :], plan.inputs):
            if not over_x.isdisjoint(step.operands):
                if step.operation == "power" and step.operands[1] in turned:
                    raise NotTurned("The power depends on what is turned.")
                over_x.add(index)
                self._work.append(index)
            elif not turned.isdisjoint(step.operands):
                turned.add(index)
                self._turned.append(index)
            else:
                self._constant.append(index)
        self._exact: list[Exact | None] = [None] * len(steps)
        self._floats: list[np.float64 | None] = [None] * len(steps)
        for index in self._constant:
            self._settle(index, self._exact, self._floats)
        used = {i for index in self._work for i in steps[index].operands} | {plan.result}
        self._used = sorted(used & turned)
        self._operations = {index: operation(steps[index], unit) for index in self._work}
        last = {i: index for index in self._work for i in steps[index].operands}
        self._done: dict[int, list[int]] = {}
        for part, index in last.items():
            if part in over_x and part != plan.result:
                self._done.setdefault(index, []).append(part)

    def _settle(
        self, index: int, exact: list[Exact | None], floats: list[np.float64 | None]
    ) -> None:
        """The value of a step that does not depend on x, exact where it can be."""
        step = self._folded.steps[index]
        exact[index], told = simpler(step, [exact[i] for i in step.operands], self.unit)
        given = [floats[i] for i in told.operands]
        floats[index] = np.float64(operation(told, self.unit)(*given))

    @cached_property
    def boxed(self) -> Callable[..., Boxes]:
        """The formula on boxes of x and of the values that are turned."""
        return box_function(self.plan, self.unit)

    def at(self, state: State) -> Program:
        """The program of x alone in one state."""
        numbers = [Step("number", (), value) for value in state]
        steps = (self.plan.steps[0], *numbers, *self.plan.steps[self.plan.inputs :])
        return replace(self.plan, inputs=1, steps=steps)

    def rows(self, states: Sequence[State]) -> TurnedRows:
        """The function in some states."""
        return TurnedRows(self, states)

    def settled(self, state: State) -> tuple[list[np.float64], bool]:
        """What the steps over x need of the values in one state, and whether anything of it is
        too large to hold.
        """
        exact, floats = list(self._exact), list(self._floats)
        for index, value in enumerate(state, 1):
            exact[index] = Exact(value)
            floats[index] = np.float64(float(value))
        with np.errstate(all="ignore"):
            for index in self._turned:
                self._settle(index, exact, floats)
        found = [floats[index] for index in self._used]
        immense = any(bool(np.isinf(value)) for value in floats if value is not None)
        return [np.float64(np.nan) if one is None else one for one in found], immense

    def run(self, x: Floats, settled: Floats) -> Floats:
        """The values at ``x``; ``settled`` has a row for each value needed, and fits its shape."""
        check = time_check()
        steps = self._folded.steps
        registers: list[Floats | np.float64 | None] = list(self._floats)
        registers[0] = x
        for index, values in zip(self._used, settled, strict=True):
            registers[index] = values
        with np.errstate(all="ignore"):
            for index in self._work:
                if check is not None:
                    check()
                operands = [registers[i] for i in steps[index].operands]
                registers[index] = self._carried_out(index, operands)
                for part in self._done.get(index, ()):
                    registers[part] = None
        found = np.asarray(registers[self.plan.result], dtype=np.float64)
        shape = np.broadcast_shapes(x.shape, *(values.shape for values in settled))
        return found if found.shape == shape else np.broadcast_to(found, shape).copy()

    def _carried_out(self, index: int, operands: list[Floats | np.float64 | None]) -> Floats:
        carry_out: Operation = self._operations[index]
        if len(operands) > 1 and self._folded.steps[index].operation == "apply":
            operands = list(np.broadcast_arrays(*map(np.asarray, operands)))
        found: Floats = carry_out(*operands)
        return found


class TurnedRows:
    """A function in so many states, one a row: see ``sampling/rows.py``."""

    def __init__(self, turned: TurnedProgram, states: Sequence[State]) -> None:
        self.turned = turned
        self.states = states
        settled = [turned.settled(state) for state in states]
        self.immense = any(immense for _, immense in settled)
        """Whether a part that does not depend on x is too large to hold in some state."""
        shape = len(states), len(settled[0][0])
        self._settled = np.array([values for values, _ in settled]).reshape(shape).T

    @property
    def count(self) -> int:
        """How many states."""
        return len(self.states)

    def grid(self, x: Floats) -> Floats:
        """All states at the same places, shape (states, places)."""
        many = max(1, MOST // max(len(x), 1))
        settled = self._settled[:, :, None]
        parts = [
            np.broadcast_to(
                self.turned.run(x[None], settled[:, k : k + many]),
                (min(many, self.count - k), len(x)),
            )
            for k in range(0, self.count, many)
        ]
        return np.concatenate(parts)

    def at(self, x: Floats, row: Index) -> Floats:
        """At each place the state of that row."""
        return self.turned.run(x, self._settled[:, row])

    def balls(self, row: int) -> BallFunction:
        """One state on boxes."""
        return BallFunction(self.turned.at(self.states[row]), self.turned.unit)


def turned_program(
    expression: Expression,
    variable: str,
    definitions: Mapping[str, Definition],
    turned: tuple[str, ...],
    unit: AngleUnit,
) -> TurnedProgram:
    """A formula of one variable in which some values are turned.

    Raises NotTurned where the steps themselves depend on these values, as in xⁿ, which is another
    power for a whole number; NotComputable where there is no program at all.
    """
    plan = program(expression, (variable,), definitions, turned=turned)
    return TurnedProgram(plan, unit)
