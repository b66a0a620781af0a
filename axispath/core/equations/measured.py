"""A system as equations between numbers, whatever the values of the sheet are."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from axispath.core.arithmetic.program import Definition
from axispath.core.calculation.measuring import Shown
from axispath.core.equations.core import Sides
from axispath.core.equations.digits import typed_digits
from axispath.core.equations.measure import Kind, Measuring, has_units
from axispath.core.equations.reading import Equation
from axispath.core.equations.solved import System, Trouble
from axispath.core.equations.structure import Structure, structure_of
from axispath.core.language.tree import Call, Expression
from axispath.core.language.walking import free_names, names_in
from axispath.core.memory import Memory
from axispath.core.quantities.dimensions import NONE, Dimension
from axispath.core.quantities.values import NoResult


@dataclass(frozen=True, slots=True)
class MeasuredSystem:
    """The equations that fit together, as ``sides`` of numbers in units of the SI.

    ``names`` are the unknowns in each, ``of`` their dimensions, ``shown`` the units that the
    equations ask for; ``unfit`` are names in equations that do not fit.
    """

    equations: tuple[Equation, ...]
    sides: tuple[Sides, ...]
    names: tuple[frozenset[str], ...]
    structure: Structure
    of: Mapping[str, Dimension]
    shown: Mapping[str, Shown]
    troubles: tuple[Trouble, ...]
    unfit: frozenset[str]
    digits: int


def needed(system: System, definitions: Mapping[str, Definition]) -> tuple[list[str], list[str]]:
    """The names of values and those of functions that a system depends on."""
    sides = (side for one in system.equations for side in (one.left, one.right))
    return needed_in(sides, frozenset(system.unknowns), definitions)


def needed_in(
    trees: Iterable[Expression], bound: frozenset[str], definitions: Mapping[str, Definition]
) -> tuple[list[str], list[str]]:
    """The names of values and those of functions that formulas need, but for those ``bound``."""
    values: dict[str, None] = {}
    functions: dict[str, None] = {}
    pending: list[tuple[Expression, frozenset[str]]] = [(tree, bound) for tree in trees]
    while pending:
        node, hidden = pending.pop()
        for one in names_in(node):
            if one.name in hidden or one.name in values or one.name in functions:
                continue
            if isinstance(one, Call):
                functions[one.name] = None
                known = definitions.get(one.name)
                if known is not None and known.parameters is not None:
                    pending.append((known.body, hidden | set(known.parameters)))
            else:
                values[one.name] = None
    return sorted(values), sorted(functions)


_measured: Memory[MeasuredSystem] = Memory(500)


def measured(
    system: System, known: Mapping[str, Kind], definitions: Mapping[str, Definition]
) -> MeasuredSystem:
    """A system whose known names are measured as said. Never fails: what does not fit is told."""
    functions = needed(system, definitions)[1]
    used = tuple((name, definitions.get(name)) for name in functions)
    key = (system, tuple(sorted(known.items(), key=lambda one: one[0])), used)
    return _measured.found(key, lambda: _of(system, known, dict(used)))


def _of(
    system: System, known: Mapping[str, Kind], functions: Mapping[str, Definition | None]
) -> MeasuredSystem:
    unknowns = frozenset(system.unknowns)
    there = {name: one for name, one in functions.items() if one is not None}
    bodies = [one.body for one in there.values()]
    sides = [side for one in system.equations for side in (one.left, one.right)]
    plain = all(one.dimension == NONE for one in known.values()) and not any(
        map(has_units, (*sides, *bodies))
    )
    measuring = Measuring(known, there, unknowns, plain)
    found: dict[int, tuple[Equation, Sides]] = {}
    troubles: list[Trouble] = []
    unfit: set[str] = set()
    # Those about fewest unknowns first: which equation does not fit is the same then, whatever
    # their order.
    for one in sorted(system.equations, key=lambda e: (len(e.names & unknowns), e.text)):
        before = dict(measuring.dimensions.solved)
        try:
            found[one.number] = one, measuring.equation(one)
        except NoResult as reason:
            measuring.dimensions.solved = before
            origin = measuring.dimensions.origin(one.names & unknowns)
            troubles.append(Trouble(f"{reason}{origin}", (one.number,)))
            unfit |= one.names
    pairs = [found[number] for number in sorted(found)]
    names = tuple(_names(pair) & unknowns for _, pair in pairs)
    return MeasuredSystem(
        tuple(one for one, _ in pairs),
        tuple(pair for _, pair in pairs),
        names,
        structure_of(names, system.unknowns),
        {name: measuring.dimensions.of(name) for name in unknowns},
        {**measuring.scales, **measuring.wished},
        tuple(troubles),
        frozenset(unfit),
        typed_digits(system.equations),
    )


def _names(sides: Sides) -> frozenset[str]:
    return frozenset(one.name for side in sides for one in free_names(side))
