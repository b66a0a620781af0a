"""A name that runs through equations: each row solved with another value of it."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.measuring import Shown
from axispath.core.equations.solved import System
from axispath.core.equations.solving import solve
from axispath.core.equations.wishes import typed_value
from axispath.core.language.errors import LanguageError
from axispath.core.quantities.scalars import add, dimension_of, multiply, subtract
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, NoResult, Scalar
from axispath.core.sheet.answers import Answers, Others
from axispath.core.sheet.block import Run
from axispath.core.sheet.refused import EditRefused

MOST_ROWS = 200


@dataclass(frozen=True, slots=True)
class Ran:
    """``rows`` are the values of ``names``, the running one first; None where one has none.

    ``why`` says of each row that has no solution why it has none.
    """

    names: tuple[str, ...]
    rows: tuple[tuple[Scalar | None, ...], ...]
    why: tuple[str, ...]


def runnable(answers: Answers, index: int) -> list[str]:
    """The names that can run: those that one equation gives, those of the sheet, and loose ones."""
    system, solved = answers.systems[index], answers.solved(index)
    names = {one.number: one.names for one in system.equations}
    unknowns = set(system.unknowns)
    alone = [
        step.unknowns[0]
        for step in solved.steps
        if len(step.equations) == len(step.unknowns) == 1
        and names[step.equations[0]] & unknowns == set(step.unknowns)
    ]
    found = {name for solution in solved.solutions for name in solution.values}
    loose = [name for name in system.unknowns if name not in found]
    needed = {name for one in system.equations for name in one.names} - unknowns
    known = [n for n in sorted(needed) if n in answers.plain]
    return [*alone, *known, *loose]


def ran(answers: Answers, index: int, run: Run, unit: AngleUnit) -> Ran:
    """The rows of a table over equations. Raises EditRefused, OutOfTime."""
    if run.name not in runnable(answers, index):
        raise EditRefused(
            f"{run.name} does not run here: it is found together with others. Take an equation "
            "away, or let a name run that one equation gives."
        )
    values = _places(run)
    system = answers.systems[index]
    given = tuple(one for one in system.equations if not _gives(one.names, run.name, system))
    unknowns = tuple(name for name in system.unknowns if name != run.name)
    kept = System(given, unknowns)
    wishes = {n: w for n, w in answers.wishes.items() if n in unknowns}
    rows: list[tuple[Scalar | None, ...]] = []
    why: list[str] = []
    shown = _shown(answers, index)
    for value in values:
        others = _Running(answers, frozenset(system.unknowns), run.name, value)
        solved = solve(kept, wishes, others.known, others, unit)
        which = answers.which(index)
        found = solved.solutions[which].values if which < len(solved.solutions) else {}
        rows.append((value, *(_in(found.get(n), shown.get(n)) for n in unknowns)))
        why.append("; ".join(one.words for one in solved.troubles) if not found else "")
    return Ran((run.name, *unknowns), tuple(rows), tuple(why))


def _gives(names: frozenset[str], name: str, system: System) -> bool:
    """Whether an equation says nothing but what the running name is."""
    return names & set(system.unknowns) == {name}


def _shown(answers: Answers, index: int) -> dict[str, Shown]:
    """The units in which the results of the block are shown, so that a column keeps to one."""
    solutions = answers.solved(index).solutions
    return {
        name: value.shown_in
        for solution in solutions[:1]
        for name, value in solution.values.items()
        if isinstance(value, Measured) and value.shown_in is not None
    }


def _in(value: Scalar | None, shown: Shown | None) -> Scalar | None:
    if isinstance(value, Measured) and shown is not None:
        return Measured(value.value, value.dimension, shown)
    return value


@dataclass(frozen=True)
class _Running(Others):
    """All definitions, with another value of one name."""

    name: str
    value: Scalar

    def known(self, name: str) -> Scalar:
        """The value of a name; that of the row for the running one."""
        return self.value if name == self.name else super().known(name)


def _places(run: Run) -> list[Scalar]:
    try:
        count = int(run.count)
    except ValueError:
        raise EditRefused("How many rows is a whole number, such as 11.") from None
    if not 2 <= count <= MOST_ROWS:
        raise EditRefused(f"A table over equations has from 2 to {MOST_ROWS} rows.")
    low, high = _typed(run.low, "from"), _typed(run.high, "to")
    if dimension_of(low) != dimension_of(high):
        raise EditRefused("Both ends of the table need the same unit.")
    try:
        step = multiply(subtract(high, low), Surd.of(Fraction(1, count - 1)))
        found = [add(low, multiply(step, Surd.of(k))) for k in range(count)]
    except NoResult as reason:
        raise EditRefused(f"The table cannot run so: {reason}.") from reason
    shown = low.shown_in if isinstance(low, Measured) else None
    return [_in(one, shown) or one for one in found]


def _typed(text: str, word: str) -> Scalar:
    if not text.strip():
        raise EditRefused(f"Type where the table runs {word}, such as 100 kg or 2.5.")
    try:
        value = typed_value(text)
        if not isinstance(value, Surd | arb | Measured):
            raise NoResult("this is no real number")
        return _as_typed(value, text) if isinstance(value, Measured) else value
    except LanguageError as error:
        raise EditRefused(error.message) from error
    except NoResult as reason:
        message = f"“{text.strip()}” is no value that a name could run from or to: {reason}."
        raise EditRefused(message) from reason


def _as_typed(value: Measured, text: str) -> Scalar:
    """An amount shown in the unit that was typed behind its number."""
    unit = text.strip().partition(" ")[2]
    if not unit or value.shown_in is not None:
        return value
    try:
        shown = typed_value(f"{text} in {unit}")
    except (LanguageError, NoResult):
        return value
    return shown if isinstance(shown, Measured) else value
