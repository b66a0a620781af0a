"""The unknowns of a sheet's equations as values of the sheet, found when they are looked up.

The equations of all blocks are one set: what hangs together by its unknowns is solved together,
whichever block it stands in. Equations are counted on from one block to the next.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Any

from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.arithmetic.program import Definition
from axispath.core.arithmetic.simplest import number
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.measure import real_value
from axispath.core.equations.reading import Block as ReadBlock
from axispath.core.equations.reading import Equation, Letters, read_block
from axispath.core.equations.solved import Solved, System, Trouble
from axispath.core.equations.solving import solve
from axispath.core.equations.wishes import Wish, read_wish
from axispath.core.language.scope import Scope
from axispath.core.language.tree import (
    Expression,
    ListOf,
    Name,
    Power,
    Product,
    Quotient,
    UnitOf,
)
from axispath.core.language.walking import names_in
from axispath.core.memory import Memory, remembered
from axispath.core.quantities.dimensions import BASES
from axispath.core.quantities.values import Measured, NoResult, Scalar, Undefined
from axispath.core.sheet.block import Block
from axispath.core.sheet.dependencies import closure_of
from axispath.core.sheet.document import Lane
from axispath.core.sheet.scopes import AXES, Names, defined_by_lanes, names_of, scope_from

SLOW = Trouble("this takes too long to solve")


@dataclass(frozen=True, slots=True)
class BlockOf:
    """A block as it was read, with the systems that its equations belong to, by their indices."""

    read: ReadBlock
    block: Block
    systems: tuple[int, ...]


_solved: Memory[Solved] = Memory(2_000)


@dataclass
class Answers(Mapping[str, Definition]):
    """Definitions of a sheet, with the unknowns of its equations among them.

    ``owner`` says which of the ``systems`` an unknown belongs to, ``needs`` what it depends on;
    ``measured`` are unknowns that may be quantities, ``broken`` names without a meaning. ``late``
    is set once something was broken off for lack of time.
    """

    plain: Mapping[str, Definition]
    unit: AngleUnit
    systems: tuple[System, ...] = ()
    blocks: Mapping[str, BlockOf] = field(default_factory=dict)
    owner: Mapping[str, int] = field(default_factory=dict)
    needs: Mapping[str, Definition] = field(default_factory=dict)
    measured: frozenset[str] = frozenset()
    chosen: Mapping[str, int] = field(default_factory=dict)
    wishes: Mapping[str, Wish] = field(default_factory=dict)
    broken: set[str] = field(default_factory=set)
    late: bool = False
    found: dict[int, Solved] = field(default_factory=dict)

    def over(self, plain: Mapping[str, Definition]) -> Answers:
        """The same answers with other definitions of what is plain."""
        return Answers(
            *(plain, self.unit, self.systems, self.blocks, self.owner, self.needs),
            *(self.measured, self.chosen, self.wishes, self.broken, self.late, self.found),
        )

    def __getitem__(self, name: str) -> Definition:
        known = self.plain.get(name)
        if known is not None:
            return known
        value = self.value(name)
        if value is None:
            raise KeyError(name)
        return Definition(None, _as_tree(value))

    def get(self, name: str, default: Any = None) -> Any:
        """The definition of a name; most lookups are of plain ones."""
        known = self.plain.get(name)
        if known is not None or name not in self.owner:
            return default if known is None else known
        return super().get(name, default)

    def __contains__(self, name: object) -> bool:
        return name in self.plain or (name in self.owner and self.value(str(name)) is not None)

    def __iter__(self) -> Iterator[str]:
        yield from self.plain
        yield from (name for name in self.owner if name in self)

    def __len__(self) -> int:
        return sum(1 for _ in self)

    def value(self, name: str) -> Scalar | None:
        """The value of an unknown in the solution that is used; None where it has none."""
        index = self.owner.get(name)
        if index is None or name in AXES:
            return None
        solved = self.solved(index)
        which = self.which(index)
        return solved.solutions[which].values.get(name) if which < len(solved.solutions) else None

    def which(self, index: int) -> int:
        """Which solution of a system is used."""
        return self.chosen.get(min(self.systems[index].unknowns, default=""), 0)

    def solved(self, index: int) -> Solved:
        """A system, solved once. What is broken off for lack of time has no answer."""
        known = self.found.get(index)
        if known is not None:
            return known
        system = self.systems[index]
        others = Others(self, frozenset(system.unknowns))
        try:
            sides = [side for one in system.equations for side in (one.left, one.right)]
            closure = closure_of(sides, others)
            said = tuple(
                (name, self.wishes[name]) for name in system.unknowns if name in self.wishes
            )
            key = (system, self.unit, closure, said, frozenset(self.broken))
            found = _solved.get(key) if closure is not None else None
            if found is None:
                found = solve(system, dict(said), others.known, others, self.unit)
                if closure is not None:
                    _solved.keep(key, found)
        except OutOfTime:
            self.late = True
            return Solved((), (), (SLOW,))
        self.found[index] = found
        return found


@dataclass(frozen=True)
class Others(Mapping[str, Definition]):
    """All definitions but those of the unknowns that are looked for."""

    answers: Answers
    without: frozenset[str]

    def __getitem__(self, name: str) -> Definition:
        if name in self.without:
            raise KeyError(name)
        return self.answers[name]

    def __contains__(self, name: object) -> bool:
        return name not in self.without and name in self.answers

    def __iter__(self) -> Iterator[str]:
        return (name for name in self.answers if name not in self.without)

    def __len__(self) -> int:
        return sum(1 for _ in self)

    def known(self, name: str) -> Scalar:
        """The value of a name. Raises NoResult where it has none."""
        if name in self.answers.broken or name not in self:
            raise NoResult(f"waits for {name}")
        return real_value(Calculator(self, self.answers.unit).result(Name(name)).value, name)


def answers_of(
    lanes: tuple[Lane, ...], scope: Scope, plain: Mapping[str, Definition], unit: AngleUnit
) -> Answers:
    """The answers of the blocks among some lanes, nothing solved yet."""
    given = [(lane, lane.block) for lane in lanes if lane.block and not lane.written.rests]
    if not given:
        return Answers(plain, unit)
    texts = tuple((block.text, block.letters) for _, block in given)
    found = _together(texts, names_of(scope), defined_by_lanes(lanes).values)
    blocks = {
        lane.id: BlockOf(read, block, systems)
        for (lane, block), read, systems in zip(given, found.read, found.of, strict=True)
    }
    chosen = dict(pair for _, block in given for pair in block.chosen)
    wishes = {
        one.name: read_wish(one.name, one.low, one.high, one.start, one.unit)
        for _, block in given
        for one in block.unknowns
    }
    return Answers(
        *(plain, unit, found.systems, blocks, found.owner, found.needs, found.measured),
        *(chosen, wishes),
    )


@dataclass(frozen=True, slots=True)
class _Together:
    """All blocks of a sheet as they were read; ``of`` are the systems of each block."""

    read: tuple[ReadBlock, ...]
    systems: tuple[System, ...]
    of: tuple[tuple[int, ...], ...]
    owner: Mapping[str, int]
    needs: Mapping[str, Definition]
    measured: frozenset[str]


@remembered(128)
def _together(
    texts: tuple[tuple[str, Letters], ...], names: Names, known: frozenset[str]
) -> _Together:
    """The blocks with these texts; nothing in them depends on a value of the sheet."""
    scope = scope_from(names)
    read: list[ReadBlock] = []
    for text, letters in texts:
        first = 1 + sum(one.count for one in read)
        read.append(read_block(text, scope, known, letters, first))
    systems = _apart(read)
    owner = {name: k for k, system in enumerate(systems) for name in system.unknowns}
    place = {one.number: k for k, system in enumerate(systems) for one in system.equations}
    of = tuple(tuple(dict.fromkeys(place[e.number] for e in one.equations)) for one in read)
    measured = {
        name
        for one, indices in zip(read, of, strict=True)
        if one.measured
        for k in indices
        for name in systems[k].unknowns
    }
    needs: dict[str, Definition] = {}
    for system in systems:
        needed = Definition(None, ListOf(tuple(map(Name, _needed(system)))))
        needs |= dict.fromkeys(system.unknowns, needed)
    return _Together(tuple(read), systems, of, owner, needs, frozenset(measured))


def _needed(system: System) -> list[str]:
    """The names of the sheet that a system depends on."""
    sides = (side for one in system.equations for side in (one.left, one.right))
    names = {one.name for side in sides for one in names_in(side)}
    return sorted(names - set(system.unknowns))


def _apart(blocks: Sequence[ReadBlock]) -> tuple[System, ...]:
    """The equations of all blocks, in groups that share unknowns."""
    unknowns = frozenset(name for block in blocks for name in block.unknowns)
    groups: list[tuple[list[Equation], set[str]]] = []
    for block in blocks:
        for one in block.equations:
            letters = set(one.names & unknowns)
            members = [one]
            apart = []
            for other in groups:
                if other[1] & letters:
                    members = [*other[0], *members]
                    letters |= other[1]
                else:
                    apart.append(other)
            groups = [*apart, (members, letters)]
    made = [
        System(tuple(sorted(members, key=lambda e: e.number)), tuple(sorted(letters)))
        for members, letters in groups
    ]
    return tuple(sorted(made, key=lambda system: system.equations[0].number))


def _as_tree(value: Scalar) -> Expression:
    """A value as a formula: a number, with the SI's base units where it is measured."""
    assert not isinstance(value, Undefined)
    if not isinstance(value, Measured):
        return tree_of(value)
    tree = tree_of(value.value)
    for base, power in zip(BASES, value.dimension, strict=True):
        if power:
            unit = _power(UnitOf(base), abs(power))
            tree = Product(tree, unit) if power > 0 else Quotient(tree, unit)
    return tree


def _power(unit: Expression, power: Fraction) -> Expression:
    return unit if power == 1 else Power(unit, number(power))
