"""Steps taken apart into factors, and whether a step is 0 where one of its factors is."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Protocol

from flint import arb

from axispath.core.catalogue.balls import NAN
from axispath.core.search.prepared import Prepared
from axispath.core.search.specialise import Branches, followed, needs


class Value(Protocol):
    """An enclosure of a step's value at a place of a piece."""

    def __call__(self, index: int, x: arb, branches: Branches) -> arb:
        """The enclosure; NaN where unknown or undefined."""


class Factoring:
    """The factors of the steps of a prepared program."""

    def __init__(self, prepared: Prepared, value: Value) -> None:
        self.prepared = prepared
        self.plan = prepared.plan
        self.value = value

    def vanishes_with(self, step: int, factor: int, x: arb, branches: Branches) -> bool:
        """Whether a step is 0 at a zero of its factor: x/x is not, nor is x · 1/x."""
        index = followed(step, branches)
        if index == factor:
            return True
        applied = self.plan.steps[index]
        operands = applied.operands

        def vanishes(part: int) -> bool:
            return self.vanishes_with(part, factor, x, branches)

        if index in branches:
            return any(vanishes(part) for part in needs(self.plan, index, branches))
        match applied.operation:
            case "multiply":
                zero = [vanishes(part) for part in operands]
                known = [self.value(part, x, branches).is_finite() for part in operands]
                return any(zero) and all(z or k for z, k in zip(zero, known, strict=True))
            case "divide":
                below = self.value(operands[1], x, branches)
                return (below > 0 or below < 0) and vanishes(operands[0])
            case "negate" | "whole power" | "root power":
                return vanishes(operands[0])
            case "apply":
                return applied.detail in ("sqrt", "cbrt") and vanishes(operands[0])
        return False

    def factors(self, guard: int, branches: Branches) -> Iterator[int]:
        """Steps whose zeros together are those of a step, each of lower order."""
        index = followed(guard, branches)
        step = self.plan.steps[index]
        parts: tuple[int, ...] = ()
        if index in branches:
            parts = needs(self.plan, index, branches)
        elif step.operation in ("multiply", "negate"):
            parts = step.operands
        elif step.operation == "divide" or step.detail in ("sqrt", "cbrt"):
            parts = step.operands[:1]
        elif step.operation in ("whole power", "root power") and step.detail > 0:
            parts = step.operands
        fixed = [part for part in parts if part not in self.prepared.varying]
        if not parts or any(self._may_vanish(part) for part in fixed):
            yield index
            return
        for part in parts:
            if part in self.prepared.varying:
                yield from self.factors(part, branches)

    def _may_vanish(self, fixed: int) -> bool:
        """Whether a part that does not vary may be 0."""
        value = self.value(fixed, NAN, {})
        return not (value > 0 or value < 0)
