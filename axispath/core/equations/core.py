"""A part of a system made as small as it can be: unknowns that stand alone are written out.

Where an equation gives an unknown by the others, times a number that is not 0, that is put in
everywhere else: what is left has fewer unknowns and the same solutions.
"""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.arithmetic.letter import opposite, over, powers_of, uses
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.calculation.calculate import Calculator
from axispath.core.language.rebuild import substituted
from axispath.core.language.tree import Expression, Name, Negation, Sum
from axispath.core.language.walking import free_names, walk
from axispath.core.quantities.scalars import TooWide, is_zero
from axispath.core.quantities.values import Items, NoResult

LONGEST = 3_000  # parts of a formula into which something is still put

Sides = tuple[Expression, Expression]


@dataclass(frozen=True, slots=True)
class Core:
    """What has to be 0 in ``unknowns``, and the others by these, to be computed from the last on.

    ``empty`` are differences in which no unknown is left.
    """

    unknowns: tuple[str, ...]
    differences: tuple[Expression, ...]
    explicit: tuple[tuple[str, Expression], ...]
    empty: tuple[Expression, ...] = ()


def core_of(sides: list[Sides], unknowns: tuple[str, ...], calculator: Calculator) -> Core:
    """The core of a part in which every known value stands as a number."""
    left, open_ = list(sides), list(unknowns)
    explicit: list[tuple[str, Expression]] = []
    while True:
        found = _given(left, open_) or _linear(left, open_, calculator)
        if found is None:
            break
        index, name, tree = found
        put = {name: tree}
        rest = [pair for k, pair in enumerate(left) if k != index]
        try:
            after = [(substituted(a, put), substituted(b, put)) for a, b in rest]
        except ValueError:
            break
        if any(sum(1 for _ in walk(side)) > LONGEST for pair in after for side in pair):
            break
        left, explicit = after, [*explicit, (name, tree)]
        open_.remove(name)
    differences = [a if b == ZERO else Sum((a, Negation(b))) for a, b in left]
    names = set(open_)
    empty = tuple(d for d in differences if not _names(d) & names)
    kept = tuple(d for d in differences if _names(d) & names)
    return Core(tuple(open_), kept, tuple(explicit), empty)


def _names(node: Expression) -> set[str]:
    return {one.name for one in free_names(node)}


def _given(sides: list[Sides], names: list[str]) -> tuple[int, str, Expression] | None:
    """An equation that has an unknown alone on one side and not on the other."""
    for index, (left, right) in enumerate(sides):
        for one, other in ((left, right), (right, left)):
            if isinstance(one, Name) and one.name in names and not uses(one.name, other):
                return index, one.name, other
    return None


def _linear(
    sides: list[Sides], names: list[str], calculator: Calculator
) -> tuple[int, str, Expression] | None:
    """An equation in which an unknown stands once, times a number."""
    for index, (left, right) in enumerate(sides):
        both = Sum((left, Negation(right)))
        for name in names:
            if not uses(name, both):
                continue
            powers = powers_of(name, both)
            if powers is None or len([p for p in powers if p != ZERO]) > 2 or len(powers) != 2:
                continue
            constant, factor = powers
            if not _names(factor) & set(names) and _is_number(factor, calculator):
                return index, name, over(opposite(constant), factor)
    return None


def _is_number(node: Expression, calculator: Calculator) -> bool:
    """Whether a factor is a number other than 0 for certain."""
    try:
        value = calculator.result(node).value
        return not isinstance(value, Items) and not is_zero(value)  # type: ignore[arg-type]
    except (NoResult, TooWide):
        return False
