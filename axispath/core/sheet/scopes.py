"""Which names a line may use: what the lanes of a sheet define, and the words of its language."""

from __future__ import annotations

from dataclasses import replace

from axispath.core import catalogue
from axispath.core.equations.reading import claimed
from axispath.core.language.errors import LanguageError
from axispath.core.language.running import POINT
from axispath.core.language.scope import Scope
from axispath.core.language.statement import Heading, as_value, heading, parse_statement
from axispath.core.language.tree import Statement
from axispath.core.language.vocabulary import Vocabulary
from axispath.core.memory import remembered
from axispath.core.sheet.dependencies import coordinates_of
from axispath.core.sheet.document import Lane

COMPLEX = catalogue.LINE_VOCABULARY

AXES = ("x", "y")  # no names of a sheet
Names = tuple[
    tuple[tuple[str, int], ...],
    frozenset[str],
    tuple[tuple[str, str], ...],
    frozenset[str],
    frozenset[str],
    tuple[tuple[str, str], ...],
]


def names_of(scope: Scope) -> Names:
    """The names of a scope as a key: the same line under the same names reads the same."""
    signatures = tuple(scope.signatures.items())
    sets = scope.points, scope.curves, tuple(scope.regions.items())
    return tuple(scope.functions.items()), scope.values, signatures, *sets


def scope_from(names: Names) -> Scope:
    """The scope that has these names."""
    functions, values, signatures, points, curves, regions = names
    words, given, lines = dict(functions), dict(signatures), dict(regions)
    return Scope(catalogue.VOCABULARY, words, values, given, points, curves, lines)


@remembered(4096)
def read_with(
    text: str, names: Names, value: bool, runs: str, working: bool, measured: bool = False
) -> Statement:
    """A line under these names. Raises LanguageError."""
    scope = replace(scope_from(names), vocabulary=vocabulary_of(working, measured))
    statement = parse_statement(text, scope, runs)
    return as_value(statement) if value else statement


def vocabulary_of(working: bool, measured: bool = False) -> Vocabulary:
    """The words of a line; complex numbers are read on the page Working, units there and where
    axes have some.
    """
    if working:
        return COMPLEX
    return catalogue.MEASURED_VOCABULARY if measured else catalogue.VOCABULARY


@remembered(4096)
def _heading(text: str) -> Heading:
    return heading(text, catalogue.VOCABULARY)


def found_by_blocks(lanes: tuple[Lane, ...], without: str | None = None) -> set[str]:
    """The names that blocks of equations may give a value to."""
    blocks = (
        lane.block
        for lane in lanes
        if lane.block is not None and lane.id != without and not lane.written.rests
    )
    return {name for block in blocks for name in claimed(block.text, block.letters)}


def scope_of(lanes: tuple[Lane, ...], without: str | None = None) -> Scope:
    """The names that lanes define, but for the lane ``without``."""
    functions: dict[str, int] = {}
    signatures: dict[str, str] = {}
    values: set[str] = set()
    points: set[str] = set()
    curves: set[str] = set()
    regions: dict[str, str] = {}
    calls: list[tuple[str, str]] = []
    for lane in lanes:
        if lane.id == without or lane.written.rests or lane.block is not None:
            continue
        if lane.data is not None:
            # Where a formula stands in the way of a column's name, the column comes first.
            values.update(column.name for column in lane.data.columns)
            continue
        try:
            head = _heading(lane.text)
        except LanguageError:
            continue
        if head.relation:
            if lane.name:
                regions[lane.name] = lane.text
            continue
        runs = "" if head.parameters is not None or lane.runs == POINT else lane.runs
        radius = bool(runs) and not head.point
        name = lane.name if radius else head.name or lane.name
        if not name or any(name in known for known in (functions, values, points, curves)):
            continue
        parameters = (runs,) if runs else head.parameters
        if head.point and parameters is None:
            points.add(name)
            values.update(coordinates_of(name))
        elif head.point:
            curves.add(name)
            functions.update(dict.fromkeys(coordinates_of(name), 1))
        elif parameters is None and (head.name or lane.value):
            values.add(name)
            calls.append((name, head.call))
        else:
            functions[name] = len(parameters or ("x",))
            signatures[name] = f"{name}({', '.join(parameters or ('x',))})"
    for name, called in calls:
        if called in curves:  # P = C(2), a point of a curve
            values.remove(name)
            points.add(name)
            values.update(coordinates_of(name))
    if found := found_by_blocks(lanes, without):
        values |= found.difference(functions, points, curves, regions, AXES)
    sets = frozenset(values), frozenset(points), frozenset(curves)
    return Scope(catalogue.VOCABULARY, functions, sets[0], signatures, sets[1], sets[2], regions)


def defined_by_lanes(lanes: tuple[Lane, ...], without: str | None = None) -> Scope:
    """The names that lanes define themselves, without those that equations may find."""
    return scope_of(tuple(lane for lane in lanes if lane.block is None), without)
