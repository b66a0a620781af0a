"""Names of lanes: free ones, and a new one wherever the old one was used."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from typing import Any

from axispath.core.data.rows import OVER_ROWS
from axispath.core.equations.reading import read_block
from axispath.core.language.equation import parse_equation
from axispath.core.language.errors import LanguageError
from axispath.core.language.rename import renamed, renamed_in
from axispath.core.language.scope import Scope
from axispath.core.language.statement import Named, parse_expression, parse_statement
from axispath.core.language.tree import FunctionStatement
from axispath.core.language.walking import coordinates
from axispath.core.sheet.block import Block
from axispath.core.sheet.captions import MARK
from axispath.core.sheet.dependencies import coordinates_of
from axispath.core.sheet.document import MAX_LANES, Document, Equation, Ground, Lane, Table
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.scopes import scope_of

LETTERS = "fghjklmnpqsuvwzabcd"
RELATIONS = "RSTUVW"
CAPITALS = "ABCDFGHJKLMNPQRSTUVW"
Text = Callable[[str], str]
_SEPARATORS = re.compile(r"([;,\s]+)")


NAMES: dict[Named, tuple[str, str]] = {
    "function": (LETTERS, LETTERS[0]),
    "value": ("", "v"),  # a letter alone would be taken for one that somebody means to define
    "point": (CAPITALS, CAPITALS[0]),
    "radius": ("r", "r"),
    "relation": (RELATIONS, RELATIONS[0]),
}
"""The letters that lines are called by which name nothing, and what is numbered after these."""


def free_name(document: Document, lane: Lane, named: Named = "function") -> str:
    """The next free letter, from f on, then f_1 and so on; and likewise for other lines."""
    scope = scope_of(document.lanes, without=lane.id)
    # Relations are called by names that nothing can use.
    called = {other.name for other in document.lanes if other.id != lane.id}
    taken = {*_all_names(scope), *_wanted(document, lane), *called}
    letters, stem = NAMES[named]
    numbered = (f"{stem}_{number}" for number in range(1, MAX_LANES + 2))
    free: str = next(name for name in (*letters, *numbered) if name not in taken)
    return free


def free_like(document: Document, lane: Lane, name: str) -> str:
    """The next free name with the stem of ``name``: a_2 after a."""
    scope = scope_of(document.lanes)
    taken = {*_all_names(scope), *_wanted(document, lane)}
    stem = name.partition("_")[0]
    return next(new for k in range(2, MAX_LANES + 3) if (new := f"{stem}_{k}") not in taken)


def _all_names(scope: Scope) -> set[str]:
    return {*scope.functions, *scope.values, *scope.points, *scope.curves}


def _wanted(document: Document, lane: Lane) -> set[str]:
    """Names that other lanes wait for: giving one of them by chance would change their meaning."""
    return {
        name for other in resolve(document) if other.lane.id != lane.id for name in other.missing
    }


def renamed_elsewhere(before: Document, after: Document, lane: Lane, new: str | None) -> Document:
    """Everything else on the sheet with a lane's new name where it used its old one."""
    was = resolve(before).lane(lane.id)
    old = was.name if was and was.statement else None
    if not old or not new or old == new:
        return after
    assert was is not None
    scope = scope_of(before.lanes)
    pairs = _new_names(was, old, new)
    for other in resolve(before):
        if other.lane.id == lane.id or other.statement is None:
            continue
        text = other.lane.text
        for one, its in reversed(pairs):
            text = _Renaming(scope, one, its).line(text, other.lane.runs)
        if text != other.lane.text:
            after = after.with_lane(other.lane.model_copy(update={"text": text}))
    for one, its in pairs:
        after = _in_the_rest(after, _Renaming(scope, one, its))
    return after


def renamed_everywhere(before: Document, after: Document, old: str, new: str) -> Document:
    """A document with a new name for something that no line defines: the column of a data set."""
    name = _Renaming(scope_of(before.lanes), old, new)
    for lane in resolve(before):
        if lane.statement is None:
            continue
        text = name.line(lane.lane.text, lane.lane.runs)
        if text != lane.lane.text:
            kept = after.lane(lane.lane.id)
            assert kept is not None
            after = after.with_lane(kept.model_copy(update={"text": text}))
    return _in_the_rest(after, name)


def _new_names(lane: ResolvedLane, old: str, new: str) -> list[tuple[str, str]]:
    """The names that others use, before and after: of a point those of its coordinates."""
    if lane.statement is None or coordinates(lane.statement.body) is None:
        return [(old, new)]
    return list(zip(coordinates_of(old), coordinates_of(new), strict=True))


class _Renaming:
    """One name for another in texts of every form; what cannot be read stays as it is."""

    def __init__(self, scope: Scope, old: str, new: str) -> None:
        self.scope, self.old, self.new = scope, old, new

    def _in(self, text: str, read: Callable[[], str]) -> str:
        try:
            # A point may stand where its coordinates are meant.
            stem = self.old.rpartition("_")[0] or self.old
            return read() if stem in text else text
        except LanguageError:
            return text

    def formula(self, text: str, running: str = "") -> str:
        """An expression, in which ``running`` is a variable."""

        def read() -> str:
            scope = self.scope.with_values((running,)) if running else self.scope
            tree = parse_expression(text, scope)
            parameters = (running,) if running else ()
            statement = FunctionStatement(None, parameters, tree, None)
            return renamed(text, statement, self.old, self.new)

        return self._in(text, read)

    def by_row(self, text: str) -> str:
        """A formula of a column, which may look at other rows."""
        functions = {**self.scope.functions, **dict.fromkeys(OVER_ROWS, 1)}
        wider = replace(self.scope, functions=functions)
        return _Renaming(wider, self.old, self.new).formula(text)

    def equation(self, text: str) -> str:
        """An equation, an inequality or a chain of them."""

        def read() -> str:
            comparison, _ = parse_equation(text, self.scope)
            return renamed_in(text, comparison.operands, self.old, self.new)

        return self._in(text, read)

    def block(self, block: Block) -> str:
        """The equations of a block, in which a value of the sheet has another name."""
        known = frozenset({self.old})

        def read(line: str) -> str:
            found = read_block(line, self.scope, known, block.letters).equations
            parts = [side for one in found for side in (one.left, one.right)]
            return renamed_in(line, parts, self.old, self.new) if len(found) == 1 else line

        return "\n".join(read(line) for line in block.text.split("\n"))

    def list_of(self, text: str) -> str:
        """Numbers between commas, semicolons or spaces."""
        return "".join(self.formula(part) for part in _SEPARATORS.split(text))

    def caption(self, text: str) -> str:
        """Words with lines of mathematics between dollar signs."""
        pieces = text.split(MARK)
        for k in range(1, len(pieces) - 1, 2):
            pieces[k] = self.line(pieces[k])
        return MARK.join(pieces)

    def line(self, text: str, runs: str = "") -> str:
        """A line as a lane has it, with the letter that runs along a curve."""

        def read() -> str:
            return renamed(text, parse_statement(text, self.scope, runs), self.old, self.new)

        return self._in(text, read)


def _in_the_rest(document: Document, name: _Renaming) -> Document:
    """Everything typed into a document that is no line of a lane, with a new name."""
    lanes = tuple(_lane(lane, name) for lane in document.lanes)
    tables = tuple(_table(table, name) for table in document.tables)
    equations = tuple(_equation(equation, name) for equation in document.equations)
    ground = _ground(document.ground, name)
    changes = {"lanes": lanes, "tables": tables, "equations": equations, "ground": ground}
    return document.model_copy(update=changes)


def _with(value: Any, change: Text, *fields: str) -> Any:
    return value.model_copy(update={field: change(getattr(value, field)) for field in fields})


def _lane(lane: Lane, name: _Renaming) -> Lane:
    slider = _with(lane.slider, name.formula, "low", "high", "step")
    samples = _with(lane.samples, name.formula, "amount")
    update = {"slider": slider, "samples": samples, "levels": name.list_of(lane.levels)}
    if lane.data is not None:
        columns = tuple(_with(column, name.by_row, "formula") for column in lane.data.columns)
        update["data"] = lane.data.model_copy(update={"columns": columns})
    if lane.block is not None:
        update["block"] = lane.block.model_copy(update={"text": name.block(lane.block)})
    return lane.model_copy(update=update)


def _table(table: Table, name: _Renaming) -> Table:
    running = name.new if table.variable == name.old else table.variable
    ends = (f"across_{end}" for end in ("start", "stop", "step"))
    changed: Table = _with(table, name.formula, "start", "stop", "step", "count", *ends)
    across = name.new if table.across == name.old else table.across
    columns = tuple(name.formula(text, "x") for text in table.columns)
    update = {
        "columns": columns,
        "variable": running,
        "across": across,
        "places": name.list_of(table.places),
    }
    return changed.model_copy(update=update)


def _equation(equation: Equation, name: _Renaming) -> Equation:
    changed: Equation = _with(equation, name.formula, "low", "high")
    unknown = name.new if equation.unknown == name.old else equation.unknown
    text = name.equation(equation.text)
    return changed.model_copy(update={"text": text, "unknown": unknown})


def _ground(ground: Ground, name: _Renaming) -> Ground:
    ticks = {
        axis: _with(getattr(ground, axis), name.formula, "step") for axis in ("x_ticks", "y_ticks")
    }
    captions = {
        field: name.caption(getattr(ground, field)) for field in ("title", "x_label", "y_label")
    }
    return ground.model_copy(update={**ticks, **captions})
