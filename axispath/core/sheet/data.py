"""Data sets with their formulas carried out, row by row; columns as lists of the language."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from functools import partial

import numpy as np
from numpy.typing import NDArray

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import bound_to_floats
from axispath.core.arithmetic.program import Definition, NotComputable, Program
from axispath.core.arithmetic.simplest import number
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.data.cells import Cells
from axispath.core.data.rows import OVER_ROWS
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.rebuild import rebuilt
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Call, Expression, ListOf, Name, Negation, Number, Quotient
from axispath.core.language.walking import free_names
from axispath.core.memory import Memory
from axispath.core.sheet.measured import DataSet

Floats = NDArray[np.float64]
MOST_LISTED = 1_000  # rows of columns that can be used as lists
MISSING = Quotient(Number("0"), Number("0"))


@dataclass(frozen=True)
class Arrays:
    """The columns of a data set by name, each of all rows; NaN where a number is missing.

    ``errors`` says by name what is wrong with a formula; ``kept`` are the rows not left out.
    """

    columns: dict[str, Floats]
    errors: dict[str, str]
    kept: NDArray[np.bool_]
    digests: dict[str, str] = field(default_factory=dict)

    def used(self, name: str) -> Floats:
        """A column with NaN in the rows that are left out."""
        return np.where(self.kept, self.columns[name], np.nan)


_computed: Memory[Cells] = Memory(64)
_lists: Memory[Definition] = Memory(64)


def arrays_of(data: DataSet, definitions: Mapping[str, Definition], unit: AngleUnit) -> Arrays:
    """The columns of a data set; formulas may use the values and functions of the sheet."""
    rows = data.rows
    columns: dict[str, Floats] = {}
    digests: dict[str, str] = {}
    errors: dict[str, str] = {}
    for column in data.columns:
        if not column.formula:
            columns[column.name] = padded(column.cells.values, rows)
            digests[column.name] = column.cells.digest
    waiting = {c.name: c.formula for c in data.columns if c.formula}
    names = tuple(c.name for c in data.columns)
    while waiting:
        done = []
        for name, text in waiting.items():
            try:
                tree = formula_of(text, names, definitions)
            except LanguageError as error:
                errors[name] = error.message
                done.append(name)
                continue
            needs = {one.name for one in free_names(tree)} & set(names)
            if needs & set(errors):
                errors[name] = (
                    f"It needs {sorted(needs & set(errors))[0]}, which cannot be computed."
                )
                done.append(name)
            elif not needs & set(waiting):
                try:
                    cells = _carried_out(tree, columns, definitions, unit, rows)
                    columns[name], digests[name] = cells.values, cells.digest
                except (NotComputable, KeyError) as error:
                    what = error.args[0] if error.args else "It cannot be computed."
                    known = isinstance(error, NotComputable)
                    errors[name] = str(error) if known else f"{what} has no value."
                done.append(name)
        for name in done:
            del waiting[name]
        if not done:
            around = ", ".join(waiting)
            errors |= dict.fromkeys(waiting, f"These formulas go round in a circle: {around}.")
            break
    for name in errors:
        columns[name] = np.full(rows, np.nan)
    kept = np.ones(rows, dtype=bool)
    kept[[row for row in data.out if row < rows]] = False
    return Arrays(columns, errors, kept, digests)


def padded(values: Floats, rows: int) -> Floats:
    """Numbers of so many rows, those that are missing at the end with none; a copy."""
    return np.concatenate([values[:rows], np.full(max(0, rows - len(values)), np.nan)])


def formula_of(
    text: str, names: tuple[str, ...], definitions: Mapping[str, Definition]
) -> Expression:
    """A formula of a column as a tree. Raises LanguageError."""
    functions = {
        name: len(given.parameters) for name, given in definitions.items() if given.parameters
    }
    functions |= dict.fromkeys(OVER_ROWS, 1)
    values = {name for name, given in definitions.items() if given.parameters is None}
    scope = Scope(catalogue.VOCABULARY, functions, frozenset({*values, *names}))
    return parse_expression(written(text), scope)


def _carried_out(
    tree: Expression,
    columns: dict[str, Floats],
    definitions: Mapping[str, Definition],
    unit: AngleUnit,
    rows: int,
) -> Cells:
    inputs = dict(columns)
    plain = _without_rows(tree, inputs, definitions, unit, rows)
    used = tuple(
        name
        for name in inputs
        if any(isinstance(n, Name) and n.name == name for n in free_names(plain))
    )
    rest = {name: given for name, given in definitions.items() if name not in used}
    plan = program(plain, used, rest)
    given = tuple(Cells(inputs[name]) for name in used)
    key = (plan, unit, rows, tuple(one.digest for one in given))
    return _computed.found(key, lambda: Cells(_run(plan, unit, [g.values for g in given], rows)))


def _run(plan: Program, unit: AngleUnit, given: list[Floats], rows: int) -> Floats:
    if plan.items is not None:
        raise NotComputable("A column has one number in each row, not a list.")
    with np.errstate(all="ignore"):
        found = np.asarray(bound_to_floats(plan, unit).run(*given), dtype=np.float64)
    return found if found.shape == (rows,) else np.full(rows, found)


def _without_rows(
    tree: Expression,
    inputs: dict[str, Floats],
    definitions: Mapping[str, Definition],
    unit: AngleUnit,
    rows: int,
) -> Expression:
    """A formula with a column of its own for each part that looks at several rows."""

    def put(node: Expression) -> Expression:
        if isinstance(node, Call) and node.name in OVER_ROWS and node.name not in definitions:
            inner = _carried_out(node.arguments[0], inputs, definitions, unit, rows)
            name = f"{node.name} {len(inputs)}"
            inputs[name] = OVER_ROWS[node.name](inner.values)
            return Name(name)
        return rebuilt(node, put)

    return put(tree)


def as_lists(arrays: Arrays) -> dict[str, Definition]:
    """The columns as lists of the language, where they are short enough; gaps are undefined."""
    found = {}
    for name, values in arrays.columns.items():
        if name in arrays.errors or len(values) > MOST_LISTED:
            continue
        cells = Cells(values[arrays.kept])
        if len(cells):
            found[name] = _lists.found(cells, partial(_list_of, cells))
    return found


def _list_of(cells: Cells) -> Definition:
    return Definition(None, ListOf(tuple(map(_item, cells.values.tolist()))))


def _item(value: float) -> Expression:
    if value != value:
        return MISSING
    text = repr(abs(value))
    if "e" in text:
        return number(Fraction(repr(value)))
    return Negation(Number(text)) if value < 0 else Number(text)
