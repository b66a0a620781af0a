"""Blocks of equations as they are shown: lines as read, answers with what determined them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

from axispath.core import catalogue
from axispath.core.equations.reading import MOST_EQUATIONS, Reading, Wrong
from axispath.core.equations.solved import Solved, Step, System, Trouble
from axispath.core.language.latex import latex, latex_statement
from axispath.core.language.mathml import mathml_statement
from axispath.core.language.numbers import decimal, stretched
from axispath.core.language.tree import Name, RelationStatement
from axispath.core.quantities.values import Measured, Scalar
from axispath.core.sheet.answers import Answers
from axispath.core.sheet.block import Run, Unknown
from axispath.core.sheet.document import Document, Written
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.run import Ran, ran, runnable
from axispath.core.sheet.scopes import AXES
from axispath.core.table.results.copies import SEPARATED, latex_of
from axispath.core.table.results.measures import common_unit
from axispath.core.table.results.result import Cell, cell_of

MOST_SHOWN = 8  # solutions side by side
WORDS = catalogue.VOCABULARY


@dataclass(frozen=True, slots=True)
class Line:
    """One equation: as typed, typeset, and what is wrong with it."""

    number: int
    text: str
    mathml: str = ""
    latex: str = ""
    wrong: Wrong | None = None
    clash: bool = False  # one of those that contradict each other, or do not fit


@dataclass(frozen=True, slots=True)
class Row:
    """An unknown with its value in each solution, and where that is from."""

    name: str
    cells: tuple[Cell | None, ...]
    source: str
    said: Unknown
    note: str = ""


@dataclass(frozen=True, slots=True)
class Group:
    """Equations that hang together: their unknowns, and which solution is used."""

    key: str
    rows: tuple[Row, ...]
    solutions: int
    used: int
    apart: tuple[str, ...]  # how far the sides are apart at the decimals, by solution
    troubles: tuple[Trouble, ...]
    beyond: tuple[int, ...]  # equations of other blocks that are solved with these
    runs: tuple[str, ...]
    checks: tuple[str, ...]
    index: int = 0
    unused: str = ""  # why the chosen solution is not there


@dataclass(frozen=True, slots=True)
class Told:
    """A block to be shown."""

    lines: tuple[Line, ...]
    groups: tuple[Group, ...]
    readings: tuple[Reading, ...]
    left: str
    note: str
    latex: str
    text: str


def told(document: Document, lane: ResolvedLane) -> Told:
    """A block with its answers. Raises OutOfTime."""
    answers = lane.answers
    found = answers.blocks.get(lane.lane.id) if answers is not None else None
    if answers is None or found is None:
        return Told((), (), (), "", "", "", "")
    here = {one.number for one in found.read.equations}
    # What several blocks share is shown where its first equation stands.
    first = {k: answers.systems[k].equations[0].number in here for k in found.systems}
    groups = tuple(
        _group(document, answers, k, found.block.said_of, here) for k in found.systems if first[k]
    )
    moved = [
        one.number
        for k in found.systems
        if not first[k]
        for one in answers.systems[k].equations
        if one.number in here
    ]
    note = ""
    if moved:
        many = "equations" if len(moved) > 1 else "equation"
        note = f"{many} {stretched(moved)}: solved with those of a block above, and shown there"
    troubles = [one for k in found.systems for one in answers.solved(k).troubles]
    clashing = {n for one in troubles for n in one.equations}
    lines = [
        Line(
            one.number,
            one.text,
            mathml_statement(RelationStatement(one.comparison), WORDS, None),
            latex_statement(RelationStatement(one.comparison), WORDS, None),
            clash=one.number in clashing,
        )
        for one in found.read.equations
    ]
    lines += [Line(one.number, one.text, wrong=one) for one in found.read.wrong]
    lines.sort(key=lambda line: line.number)
    left = ""
    if found.read.left:
        left = f"A block has {MOST_EQUATIONS} equations at most; {found.read.left} more are left."
    copies = _latex(lines, groups), _text(groups)
    return Told(tuple(lines), groups, found.read.readings, left, note, *copies)


def _group(
    document: Document,
    answers: Answers,
    index: int,
    said_of: Callable[[str], Unknown],
    here: set[int],
) -> Group:
    system, solved = answers.systems[index], answers.solved(index)
    solutions = solved.solutions[:MOST_SHOWN]
    sources = {name: _source(step) for step in solved.steps for name in step.unknowns}
    form: Literal["", "decimal"] = "decimal" if solved.digits else ""
    written = Written(form=form, digits=_digits(document, solved))
    rows = []
    for name in _order(system, solved):
        values = [solution.values.get(name) for solution in solutions]
        cells = tuple(None if v is None else cell_of(v, document, written) for v in values)
        note = f"{name} is the letter of an axis, and no name of the sheet" if name in AXES else ""
        rows.append(Row(name, cells, sources.get(name, ""), said_of(name), note))
    used = answers.which(index)
    unused = ""
    if used >= len(solved.solutions) and used:
        count = len(solved.solutions)
        unused = f"solution {used + 1} is not there now: there {_are(count)}"
    return Group(
        min(system.unknowns, default=""),
        tuple(rows),
        len(solved.solutions),
        used,
        tuple(decimal(max(one.residuals.values(), default=0.0), 2) for one in solutions),
        solved.troubles,
        tuple(one.number for one in system.equations if one.number not in here),
        tuple(runnable(answers, index)) if system.unknowns else (),
        tuple(_check(step) for step in solved.steps if not step.unknowns),
        index,
        unused,
    )


def _are(count: int) -> str:
    return "is one" if count == 1 else f"are {count}" if count else "is none"


def _digits(document: Document, solved: Solved) -> int:
    """By what was typed, but no more than the sheet has."""
    return min(solved.digits, document.digits) if solved.digits else document.digits


def _order(system: System, solved: Solved) -> list[str]:
    """The unknowns in the order in which they are named, those without a value last."""
    found: dict[str, None] = {}
    for one in system.equations:
        for name in sorted(one.names & set(system.unknowns), key=lambda n: one.text.find(n)):
            found[name] = None
    there = {name for solution in solved.solutions for name in solution.values}
    return sorted(found, key=lambda name: name not in there)


def _source(step: Step) -> str:
    together = " together" if len(step.equations) > 1 else ""
    words = f"from {stretched(step.equations)}{together}"
    return f"{words}: {step.words}" if step.words else words


def _check(step: Step) -> str:
    return f"equation {step.equations[0]} {step.words}"


def _latex(lines: list[Line], groups: tuple[Group, ...]) -> str:
    rows = [one.latex.replace("=", "&=", 1) for one in lines if one.latex]
    for group in groups:
        for row in group.rows:
            cells = [latex_of(cell) for cell in row.cells if cell is not None]
            if cells:
                rows.append(f"{latex(Name(row.name), WORDS)} &= {SEPARATED.join(cells)}")
    if not rows:
        return ""
    return r"\begin{aligned} " + r" \\ ".join(rows) + r" \end{aligned}"


def _text(groups: tuple[Group, ...]) -> str:
    lines = []
    for group in groups:
        for row in group.rows:
            cells = [cell.best for cell in row.cells if cell is not None]
            if cells:
                lines.append(f"{row.name} = {' or '.join(cells)}")
    return "\n".join(lines)


@dataclass(frozen=True, slots=True)
class RunTable:
    """A table over equations: heads with their units, cells, and its rows as a text of columns."""

    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    why: tuple[str, ...]
    copied: str


def run_table(document: Document, lane: ResolvedLane, run: Run) -> RunTable:
    """The table in which a name runs. Raises EditRefused, OutOfTime."""
    answers = lane.answers
    found = answers.blocks.get(lane.lane.id) if answers is not None else None
    if answers is None or found is None:
        raise EditRefused("This block rests.")
    index = next((k for k in found.systems if run.name in runnable(answers, k)), None)
    if index is None:
        raise EditRefused(f"{run.name or 'This name'} cannot run through these equations.")
    return _tabulated(document, ran(answers, index, run, document.unit), answers.solved(index))


def _tabulated(document: Document, found: Ran, solved: Solved) -> RunTable:
    written = Written(form="decimal", digits=_digits(document, solved))
    columns = [_column(document, [row[k] for row in found.rows]) for k in range(len(found.names))]
    units = [unit for _, unit in columns]
    cells = [
        [None if v is None else cell_of(v, document, written) for v in row]
        for row in zip(*(values for values, _ in columns), strict=True)
    ]
    heads = tuple(f"{n} ({u})" if u else n for n, u in zip(found.names, units, strict=True))
    rows = tuple(
        tuple(_bare(cell, unit) for cell, unit in zip(row, units, strict=True)) for row in cells
    )
    full = [
        "\t".join("" if c is None else _bare_full(c, u) for c, u in zip(row, units, strict=True))
        for row in cells
    ]
    return RunTable(heads, rows, found.why, "\n".join(["\t".join(heads), *full]))


def _column(document: Document, values: list[Scalar | None]) -> tuple[list[Scalar | None], str]:
    """The values of a column, all in one unit."""
    measured = [one for one in values if isinstance(one, Measured)]
    shown = common_unit(measured, document.measures)
    if shown is not None:
        values = [
            replace(one, shown_in=shown) if isinstance(one, Measured) else one for one in values
        ]
        return values, shown[0]
    first = measured[0].shown_in if measured else None
    return values, first[0] if first is not None else ""


def _bare(cell: Cell | None, unit: str) -> str:
    if cell is None:
        return "—"
    return cell.shown.removesuffix(f" {unit}") if unit else cell.shown


def _bare_full(cell: Cell, unit: str) -> str:
    return cell.full if not cell.unit or unit else cell.shown
