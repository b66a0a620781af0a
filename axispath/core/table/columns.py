"""The columns of a table: lanes, and expressions typed into a column's head."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from axispath.core.arithmetic.program import Definition, NotComputable
from axispath.core.language.errors import LanguageError
from axispath.core.language.numbers import full_precision
from axispath.core.language.pasted import written
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Call, Expression, FunctionStatement, Name
from axispath.core.language.walking import free_names
from axispath.core.sheet.calculating import found_from
from axispath.core.sheet.curve import parameters
from axispath.core.sheet.document import Document, Table, called
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.table.kinds import ALONG, OVER_SLIDER, OVER_X
from axispath.core.table.rows import TableRefused, stepped

MOST_ACROSS = 40
TWO = ("map", "several")  # kinds that may have two numbers


NOT_FOLLOWED = (
    "{name} is worked out from {running} on the page Working: under its equations there is a table."
)


@dataclass(frozen=True)
class Head:
    """A column: its text, what it computes, and the lane that it is. ``error`` where it is none."""

    text: str
    source: ResolvedLane | None
    lane: ResolvedLane | None = None
    error: str = ""


def heads(document: Document, table: Table) -> list[Head]:
    """The columns of a table, as typed or as they go without saying."""
    texts = table.columns or _across(document, table) or usual_columns(document, table)
    return [_head(document, table, text) for text in texts]


def of_two(document: Document) -> tuple[str, ...]:
    """The functions of two numbers, that a table can run over in both directions."""
    return tuple(
        lane.name
        for lane in resolve(document)
        if lane.ready and lane.name and len(lane.parameters) == 2 and lane.kind.key in TWO
    )


def _across(document: Document, table: Table) -> tuple[str, ...]:
    """The columns of a table over two numbers. Raises TableRefused."""
    if not table.across:
        return ()
    if table.across not in of_two(document):
        raise TableRefused(f"{table.across} is no function of two numbers.", "across")
    steps = stepped(document, table, "across_")
    if len(steps) > MOST_ACROSS:
        message = f"These are {len(steps)} columns; a table can have {MOST_ACROSS}."
        raise TableRefused(message, "across_step")
    return tuple(f"{table.across}({table.variable}, {_written(step)})" for step in steps)


def _written(value: Fraction) -> str:
    """A number as it is typed: a decimal where that is exact, else a fraction."""
    near = full_precision(float(value))
    return near if Fraction(near) == value else str(value)


def usual_columns(document: Document, table: Table) -> tuple[str, ...]:
    """The shown functions; for a slider that runs, the numbers of the sheet that depend on it.

    For the parameter of curves, their coordinates.
    """
    sheet = resolve(document)
    if table.variable in parameters(document):
        own = [lane for lane in sheet.shown(ALONG) if lane.parameters == (table.variable,)]
        return tuple(text for lane in own for text in ALONG[lane.kind.key](lane))
    usual = OVER_X if table.variable == "x" else OVER_SLIDER
    return tuple(usual[lane.kind.key](lane) for lane in sheet.shown(usual))


def _head(document: Document, table: Table, text: str) -> Head:
    sheet = resolve(document)
    definitions = sheet.lanes[0].definitions if sheet.lanes else {}
    running = table.variable
    try:
        scope = scope_of(document.lanes).with_values((running,))
        tree = parse_expression(written(text), scope)
    except LanguageError as error:
        return Head(text, None, error=error.message)
    missing = _missing(tree, running, definitions)
    if missing:
        return Head(text, None, error=missing)
    worked_out = found_from(tree, running, definitions)
    if worked_out is not None:
        return Head(text, None, error=NOT_FOLLOWED.format(name=worked_out, running=running))
    own = _own_lane(tree, running, list(sheet))
    if own is not None:
        return Head(text, own, own) if own.can(OVER_X) else Head(text, None, error=_unready(own))
    statement = FunctionStatement(None, (running,), tree, None)
    source = ResolvedLane(
        called("column", text, text[:60]),
        document.unit,
        statement,
        definitions=definitions,
        running=running != "x",
    )
    try:
        if source.program.items is not None:
            return Head(text, None, error="A column has one number in each row, not a list.")
    except NotComputable as error:
        return Head(text, None, error=str(error))
    except KeyError as error:
        return Head(text, None, error=f"{error.args[0]} has no value.")
    return Head(text, source)


def _missing(tree: Expression, running: str, definitions: Mapping[str, Definition]) -> str:
    for node in free_names(tree):
        if isinstance(node, Call):
            if node.name not in definitions:
                return f"{node.name} is not a function here."
        elif node.name != running and node.name not in definitions:
            return f"{node.name} has no value in a table that runs over {running}."
    return ""


def _own_lane(tree: Expression, running: str, lanes: list[ResolvedLane]) -> ResolvedLane | None:
    """The lane that an expression such as f(x) is."""
    if running != "x" or not isinstance(tree, Call) or tree.order:
        return None
    if tree.arguments != (Name("x"),):
        return None
    return next((lane for lane in lanes if lane.name == tree.name), None)


def _unready(lane: ResolvedLane) -> str:
    if lane.error is not None:
        return lane.error.message
    return f"{lane.name} waits for {', '.join(lane.missing)}."
