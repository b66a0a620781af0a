"""What the steps of a program come to on a piece of the axis: choices, jumps and bends settled."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Protocol

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.comparing import COMPARED
from axispath.core.arithmetic.program import Program, Step
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.catalogue.entry import Entry
from axispath.core.catalogue.parts import Part
from axispath.core.search.cuts import Piece
from axispath.core.search.landmark import Reason
from axispath.core.search.specialise import Branch, Branches
from axispath.core.search.tower import LADDER

_SIGNS = {"above": ">", "at or above": ">=", "below": "<", "at or below": "<="}


class Values(Protocol):
    """The values of some steps at a place, on a piece where these branches are taken."""

    def __call__(self, targets: list[int], x: arb, branches: Branches) -> list[arb]:
        """Enclosures in the order of ``targets``. Raises OutsideDomain."""


class Decisions:
    """Decides what steps come to on a piece."""

    def __init__(
        self, plan: Program, operations: Sequence[Callable[..., arb] | None], values: Values
    ) -> None:
        self.plan = plan
        self.operations = operations
        self.values = values

    def decided(self, piece: Piece, step: int, flat: set[int]) -> Piece:
        """The piece with what a step comes to on it."""
        known = replace(piece, decided=piece.decided | {step})
        if flat:
            return self._decided_flat(known, step)
        for bits in LADDER[1:]:
            with precision(bits):
                try:
                    decision = self._decision(known, step)
                except OutsideDomain:
                    return replace(known, dead=step)
            if decision is not None:
                return replace(known, branches={**piece.branches, **decision})
        return replace(known, open=Reason.BREAK)

    def _decision(self, piece: Piece, index: int) -> dict[int, Branch] | None:
        """What a step comes to by its values in the middle; None where that cannot be told."""
        step = self.plan.steps[index]
        middle = arb(piece.middle)
        if step.operation in ("choose", "restrict"):
            at = 0 if step.operation == "choose" else 1
            left, right = self.values(list(step.operands[at : at + 2]), middle, piece.branches)
            sign = step.detail if step.operation == "choose" else _SIGNS[step.detail[0]]
            if not (left > right or left < right):
                return (
                    self._chosen(index, sign, 0) if left.is_exact() and right.is_exact() else None
                )
            return self._chosen(index, sign, 1 if left > right else -1)
        given = self.values(list(step.operands), middle, piece.branches)
        part = entry.part if (entry := _entry(step)) is not None else None
        if part is not None:
            chosen = part(given)
            return None if chosen is None else {index: _branch(chosen, step.operands)}
        value = self.operations[index](*given)  # type: ignore[misc]
        return {} if value.is_finite() else None

    def _chosen(self, index: int, sign: str, order: int) -> dict[int, Branch]:
        """The branch of a choice where left is below (−1), at (0) or above (1) right."""
        step = self.plan.steps[index]
        holds = COMPARED[sign](order, 0)
        if step.operation == "choose":
            return {index: Branch(step.operands[2 if holds else 3])}
        if not holds:
            raise OutsideDomain
        return {index: Branch(step.operands[0])}

    def _decided_flat(self, piece: Piece, index: int) -> Piece:
        """A step whose guard is 0 all over the piece."""
        step = self.plan.steps[index]
        name = step.detail
        try:
            if step.operation in ("choose", "restrict"):
                sign = name if step.operation == "choose" else _SIGNS[name[0]]
                return replace(piece, branches={**piece.branches, **self._chosen(index, sign, 0)})
        except OutsideDomain:
            return replace(piece, dead=index)
        entry = _entry(step)
        part = entry.throughout if entry is not None else None
        if step.operation in ("divide", "whole power") or (part is not None and part.nowhere):
            return replace(piece, dead=index)
        if part is None or (entry is not None and entry.word.many and len(step.operands) > 2):
            return replace(piece, open=Reason.CLOSE)
        branch = _branch(part, step.operands)
        return replace(piece, branches={**piece.branches, index: branch})


def _entry(step: Step) -> Entry | None:
    return catalogue.ENTRIES.get(step.detail) if step.operation == "apply" else None


def _branch(part: Part, operands: tuple[int, ...]) -> Branch:
    """A part of a function as a branch of its step."""
    if part.number is not None:
        return Branch(number=part.number)
    assert part.argument is not None
    return Branch(operands[part.argument], negated=part.negated)
