"""A formula with parameters, ready to be fitted: values and slopes along its parameters."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.floats import bound_to_floats
from axispath.core.arithmetic.program import Bound, Definition, NotComputable, Program
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tree import Expression

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Shape:
    """y as a program of the variables and the parameters, with its derivative by each parameter.

    Places are an array of one variable, shape (n,), or of several, shape (n, variables).

    ``linear`` are the numbers of parameters that it is linear in, all together.
    """

    names: tuple[str, ...]
    plan: Program
    slopes: tuple[Program, ...]
    linear: tuple[int, ...]
    unit: AngleUnit

    @cached_property
    def _bound(self) -> tuple[Bound, ...]:
        return tuple(bound_to_floats(plan, self.unit) for plan in (self.plan, *self.slopes))

    def values(self, x: Floats, parameters: Floats) -> Floats:
        """The formula at places, shape (n,)."""
        return _run(self._bound[0], x, parameters)

    def design(self, x: Floats, parameters: Floats) -> Floats:
        """The derivatives by the parameters at places, shape (n, parameters)."""
        found = [_run(bound, x, parameters) for bound in self._bound[1:]]
        return np.stack(found, axis=1) if found else np.empty((len(x), 0))

    @property
    def is_linear(self) -> bool:
        """Whether it is linear in all of its parameters."""
        return len(self.linear) == len(self.names)


def _run(bound: Bound, x: Floats, parameters: Floats) -> Floats:
    variables = x.T if x.ndim == 2 else (x,)
    with np.errstate(all="ignore"):
        found = np.asarray(bound.run(*variables, *parameters.tolist()), dtype=np.float64)
    return found if found.shape == (len(x),) else np.full(len(x), found)


def shape_of(
    body: Expression,
    variables: tuple[str, ...],
    names: tuple[str, ...],
    definitions: Mapping[str, Definition],
    unit: AngleUnit,
) -> Shape:
    """A formula with parameters. Raises NotComputable where it has no derivative."""
    known = {name: given for name, given in definitions.items() if name not in names}
    inputs = (*variables, *names)
    trees = [derivative(body, name, known) for name in names]
    linear: list[int] = []
    for k, tree in enumerate(trees):
        # Linear in several at once: no derivative holds any of them.
        if all(_without(tree, names[j], known) for j in (*linear, k)) and all(
            _without(trees[j], names[k], known) for j in linear
        ):
            linear.append(k)
    plan = program(body, inputs, known)
    slopes = tuple(program(tree, inputs, known) for tree in trees)
    return Shape(names, plan, slopes, tuple(linear), unit)


def _without(tree: Expression, name: str, known: Mapping[str, Definition]) -> bool:
    try:
        return derivative(tree, name, known) == ZERO
    except NotComputable:
        return False
