"""Edits: functions from document to document.

An edit either gives a whole new document or raises EditRefused with a sentence; there is
nothing in between.
"""

from __future__ import annotations

import secrets
from typing import Annotated, Literal

from pydantic import Field, TypeAdapter

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.errors import LanguageError
from axispath.core.language.numbers import full_precision, listed
from axispath.core.language.pasted import written
from axispath.core.language.plain import plain
from axispath.core.language.rename import renamed
from axispath.core.language.statement import parse_expression, parse_statement
from axispath.core.language.tokens import MAX_LENGTH
from axispath.core.language.tree import Expression, FunctionStatement, Statement
from axispath.core.sheet.document import (
    COLOURS,
    MAX_EQUATIONS,
    MAX_LANES,
    MAX_NAME,
    MAX_TABLES,
    Document,
    Equation,
    Ground,
    Lane,
    LaneId,
    Line,
    Samples,
    Slider,
    Style,
    Table,
    Value,
    View,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve, scope_of
from axispath.core.sheet.samples import sample_amount
from axispath.core.sheet.sliders import is_slider, slid, slider_range
from axispath.core.sheet.ticks import tick_step

LETTERS = "fghjklmnpqsuvwzabcd"


class AddLane(Value):
    """A new lane at the end; ``keep`` even a line that is not understood."""

    do: Literal["add lane"] = "add lane"
    text: str
    id: LaneId | None = None
    keep: bool = False


class ReviseLane(Value):
    """Another line for a lane; ``keep`` even one that is not understood."""

    do: Literal["revise lane"] = "revise lane"
    id: LaneId
    text: str
    keep: bool = False


class RemoveLane(Value):
    """A lane less."""

    do: Literal["remove lane"] = "remove lane"
    id: LaneId


class ShowLane(Value):
    """Hide a lane from the plot, or show it again."""

    do: Literal["show lane"] = "show lane"
    id: LaneId
    shown: bool


class SetDomain(Value):
    """Ends of a lane's domain as typed; an empty text removes an end, None leaves it."""

    do: Literal["set domain"] = "set domain"
    id: LaneId
    low: Annotated[str, Field(max_length=200)] | None = None
    high: Annotated[str, Field(max_length=200)] | None = None


class Slide(Value):
    """Another value for a slider."""

    do: Literal["slide"] = "slide"
    id: LaneId
    value: Annotated[float, Field(allow_inf_nan=False, ge=-1e15, le=1e15)]


class SetSlider(Value):
    """The range and the play of a slider."""

    do: Literal["set slider"] = "set slider"
    id: LaneId
    slider: Slider


class MoveLane(Value):
    """A lane to another place, counted from 0."""

    do: Literal["move lane"] = "move lane"
    id: LaneId
    to: Annotated[int, Field(ge=0, lt=MAX_LANES)]


class DuplicateLane(Value):
    """A lane once more, under the next free name."""

    do: Literal["duplicate lane"] = "duplicate lane"
    id: LaneId


class SetColour(Value):
    """Another colour, and the dashes that go with it."""

    do: Literal["set colour"] = "set colour"
    id: LaneId
    colour: Annotated[int, Field(ge=0, lt=COLOURS)]


class SetNote(Value):
    """A few words about a lane."""

    do: Literal["set note"] = "set note"
    id: LaneId
    note: Annotated[str, Field(max_length=500)]


class SetStyle(Value):
    """How a lane's curve is drawn."""

    do: Literal["set style"] = "set style"
    id: LaneId
    style: Style


class SetSamples(Value):
    """A lane drawn from samples, or no longer."""

    do: Literal["set samples"] = "set samples"
    id: LaneId
    samples: Samples


class FoldLane(Value):
    """A lane folded to a narrow row, or unfolded."""

    do: Literal["fold lane"] = "fold lane"
    id: LaneId
    folded: bool


class SetGround(Value):
    """Grid, axes, ticks, title, labels and legend."""

    do: Literal["set ground"] = "set ground"
    ground: Ground


class SetUnit(Value):
    """The angle unit."""

    do: Literal["set unit"] = "set unit"
    unit: AngleUnit


class Rename(Value):
    """Another name for the sheet."""

    do: Literal["rename"] = "rename"
    name: str


class RemoveTable(Value):
    """A table deleted; the last one is emptied."""

    do: Literal["remove table"] = "remove table"
    id: LaneId


class KeepEquation(Value):
    """An equation put first in the sheet's history of equations."""

    do: Literal["keep equation"] = "keep equation"
    equation: Equation


class ForgetEquation(Value):
    """An equation taken out of the history."""

    do: Literal["forget equation"] = "forget equation"
    text: Line


class SetTable(Value):
    """The rows of the table of values."""

    do: Literal["set table"] = "set table"
    table: Table


Edit = (
    AddLane
    | ReviseLane
    | RemoveLane
    | ShowLane
    | SetDomain
    | Slide
    | SetSlider
    | MoveLane
    | DuplicateLane
    | SetColour
    | SetNote
    | SetStyle
    | SetSamples
    | FoldLane
    | SetGround
    | SetUnit
    | Rename
    | SetTable
    | RemoveTable
    | KeepEquation
    | ForgetEquation
)
EDITS: TypeAdapter[list[Edit]] = TypeAdapter(
    Annotated[list[Annotated[Edit, Field(discriminator="do")]], Field(min_length=1, max_length=50)]
)


def apply(document: Document, edit: Edit) -> Document:
    """The document after the edit."""
    match edit:
        case AddLane():
            return _add(document, edit)
        case ReviseLane():
            return _written(document, _lane(document, edit.id), edit.text, edit.keep)
        case RemoveLane():
            lane = _lane(document, edit.id)
            rest = tuple(other for other in document.lanes if other != lane)
            return document.model_copy(update={"lanes": rest})
        case ShowLane():
            return _with(document, edit.id, hidden=not edit.shown)
        case SetDomain():
            return _set_domain(document, edit)
        case Slide():
            return document.with_lane(slid(_slider(document, edit.id).lane, edit.value))
        case SetSlider():
            return _set_slider(document, edit)
        case MoveLane():
            lane = _lane(document, edit.id)
            others = [other for other in document.lanes if other != lane]
            others.insert(edit.to, lane)
            return document.model_copy(update={"lanes": tuple(others)})
        case DuplicateLane():
            return _duplicate(document, _lane(document, edit.id))
        case SetColour():
            lane = _lane(document, edit.id)
            style = lane.style.model_copy(update={"own": ""})
            return _with(document, edit.id, colour=edit.colour, style=style)
        case SetNote():
            return _with(document, edit.id, note=edit.note.strip())
        case SetStyle():
            return _with(document, edit.id, style=edit.style)
        case SetSamples():
            sample_amount(document, edit.samples)
            return _with(document, edit.id, samples=edit.samples)
        case FoldLane():
            return _with(document, edit.id, folded=edit.folded)
        case SetGround():
            return _set_ground(document, edit.ground)
        case SetUnit():
            return document.model_copy(update={"unit": edit.unit})
        case Rename():
            name = " ".join(edit.name.split())
            if not name:
                raise EditRefused("A sheet needs a name.")
            if len(name) > MAX_NAME:
                raise EditRefused(f"The name is too long: {MAX_NAME} characters at most.")
            return document.model_copy(update={"name": name})
        case SetTable():
            return _set_table(document, edit.table)
        case RemoveTable():
            left = tuple(table for table in document.tables if table.id != edit.id)
            return document.model_copy(update={"tables": left or (Table(id=edit.id),)})
        case KeepEquation():
            return _with_equation(document, edit.equation)
        case ForgetEquation():
            kept = tuple(e for e in document.equations if e.text != edit.text)
            return document.model_copy(update={"equations": kept})


def describe(document: Document, edit: Edit) -> str:
    """What the edit does, to stand after “Undo”."""
    match edit:
        case AddLane():
            return "adding a lane"
        case ReviseLane():
            return f"changing {_called(document, edit.id)}"
        case RemoveLane():
            return f"deleting {_called(document, edit.id)}"
        case ShowLane():
            return f"{'showing' if edit.shown else 'hiding'} {_called(document, edit.id)}"
        case SetDomain():
            return f"the domain of {_called(document, edit.id)}"
        case Slide():
            return f"sliding {_called(document, edit.id)}"
        case SetSlider():
            return f"the slider {_called(document, edit.id)}"
        case MoveLane():
            return f"moving {_called(document, edit.id)}"
        case DuplicateLane():
            return f"duplicating {_called(document, edit.id)}"
        case SetColour():
            return f"the colour of {_called(document, edit.id)}"
        case SetNote():
            return f"the note on {_called(document, edit.id)}"
        case SetStyle():
            return f"the style of {_called(document, edit.id)}"
        case SetSamples():
            return f"the samples of {_called(document, edit.id)}"
        case FoldLane():
            return f"{'folding' if edit.folded else 'unfolding'} {_called(document, edit.id)}"
        case SetGround():
            return _changed_part(document.ground, edit.ground)
        case SetUnit():
            return "the angle unit"
        case Rename():
            return "the sheet’s name"
        case SetTable():
            return "the table"
        case RemoveTable():
            return "deleting a table"
        case KeepEquation():
            return f"solving {edit.equation.text[:40]}"
        case ForgetEquation():
            return "forgetting an equation"


def _with_equation(document: Document, equation: Equation) -> Document:
    rest = [known for known in document.equations if known.text != equation.text]
    return document.model_copy(update={"equations": (equation, *rest)[:MAX_EQUATIONS]})


def _set_table(document: Document, table: Table) -> Document:
    known = any(other.id == table.id for other in document.tables)
    if not known and len(document.tables) >= MAX_TABLES:
        raise EditRefused(f"A sheet can have {MAX_TABLES} tables.")
    tables = tuple(table if other.id == table.id else other for other in document.tables)
    return document.model_copy(update={"tables": tables if known else (*tables, table)})


def _set_ground(document: Document, ground: Ground) -> Document:
    for ticks in (ground.x_ticks, ground.y_ticks):
        tick_step(document, ticks)
    if ground.title.count("\n") > 3:
        raise EditRefused("A title can have four lines.")
    return document.model_copy(update={"ground": ground})


_PARTS = {
    "grid": "the grid",
    "axes": "the axes",
    "equal": "equal scale",
    "x_ticks": "the numbers on the x-axis",
    "y_ticks": "the numbers on the y-axis",
    "x_label": "the label of the x-axis",
    "y_label": "the label of the y-axis",
    "title": "the title",
    "legend": "the legend",
    "legend_x": "the legend’s place",
    "legend_y": "the legend’s place",
}


def _changed_part(before: Ground, after: Ground) -> str:
    changed = [n for name, n in _PARTS.items() if getattr(before, name) != getattr(after, name)]
    return listed(dict.fromkeys(changed)) if changed else "the plot"


def with_view(document: Document, view: View) -> Document:
    """The document seen through another view."""
    return document.model_copy(update={"view": view})


def _called(document: Document, lane_id: str) -> str:
    lane = resolve(document).lane(lane_id)
    return (lane.name if lane else None) or "a lane"


def _lane(document: Document, lane_id: str) -> Lane:
    lane = document.lane(lane_id)
    if lane is None:
        raise EditRefused("This lane is not on the sheet any more.")
    return lane


def _with(document: Document, lane_id: str, **changes: object) -> Document:
    """The document with something of one lane changed."""
    return document.with_lane(_lane(document, lane_id).model_copy(update=changes))


def _add(document: Document, edit: AddLane) -> Document:
    if len(document.lanes) >= MAX_LANES:
        raise EditRefused(f"A sheet can hold {MAX_LANES} lanes, and this one is full.")
    lane_id = edit.id if edit.id and document.lane(edit.id) is None else secrets.token_hex(4)
    lane = Lane(id=lane_id, text="", colour=_free_colour(document))
    extended = document.model_copy(update={"lanes": (*document.lanes, lane)})
    return _written(extended, lane, edit.text, edit.keep)


def _written(document: Document, lane: Lane, text: str, keep: bool) -> Document:
    """``lane`` with another line; a line that is not understood is refused, or kept as it is."""
    try:
        text = written(text)
    except LanguageError as error:
        raise _refused(error) from error
    try:
        return _revise(document, lane, text)
    except EditRefused:
        if not keep or not text.strip() or len(text) > MAX_LENGTH:
            raise
        return document.with_lane(lane.model_copy(update={"text": text.strip()}))


def _revise(document: Document, lane: Lane, text: str) -> Document:
    """``lane`` with another line, checked in the company of the other lanes."""
    text = text.strip()
    statement = _read(document, lane, text)
    name = None
    if not statement.name and isinstance(statement, FunctionStatement):
        name = lane.name or _free_name(document, lane)
    changed = document.with_lane(lane.model_copy(update={"text": text, "name": name}))
    changed = _renamed_elsewhere(document, changed, lane, statement.name or name)
    resolved = resolve(changed).lane(lane.id)
    assert resolved is not None
    if resolved.error:
        raise _refused(resolved.error)
    _refuse_lost_argument(document, changed)
    return changed


def _renamed_elsewhere(before: Document, after: Document, lane: Lane, new: str | None) -> Document:
    """The other lanes with a lane's new name where they used its old one."""
    was = resolve(before).lane(lane.id)
    old = was.name if was and was.statement else None
    if not old or not new or old == new:
        return after
    for other in resolve(before):
        if other.lane.id == lane.id or other.statement is None:
            continue
        text = renamed(other.lane.text, other.statement, old, new)
        if text != other.lane.text:
            after = after.with_lane(other.lane.model_copy(update={"text": text}))
    return _renamed_in_tables(before, after, old, new)


def _renamed_in_tables(before: Document, after: Document, old: str, new: str) -> Document:
    """Columns and running variables of tables with the new name."""
    scope = scope_of(before.lanes)

    def column(text: str) -> str:
        try:
            tree = parse_expression(text, scope)
        except LanguageError:
            return text
        return renamed(text, FunctionStatement(None, (), tree, None), old, new)

    tables = tuple(
        table.model_copy(
            update={
                "columns": tuple(column(text) for text in table.columns),
                "variable": new if table.variable == old else table.variable,
            }
        )
        for table in after.tables
    )
    return after.model_copy(update={"tables": tables})


def who_waits(before: Document, after: Document) -> dict[str, tuple[str, ...]]:
    """Per lane that lost a name it needs by an edit, the names it waits for now."""
    was = {lane.lane.id: set(lane.missing) for lane in resolve(before)}
    return {
        lane.name or lane.lane.text: lane.missing
        for lane in resolve(after)
        if lane.lane.id in was and set(lane.missing) - was[lane.lane.id]
    }


def _read(document: Document, lane: Lane, text: str) -> Statement:
    scope = scope_of(document.lanes, without=lane.id)
    try:
        statement = parse_statement(text, scope)
    except LanguageError as error:
        raise _refused(error) from error
    if statement.name in scope.functions or statement.name in scope.values:
        end = len(text.partition("=")[0].rstrip())
        raise EditRefused(f"{statement.name} is defined in another lane already.", 0, end)
    return statement


def _refuse_lost_argument(before: Document, after: Document) -> None:
    """Refuse an edit that would make another lane, understood so far, an error."""
    was = {lane.lane.id for lane in resolve(before) if lane.error is None and lane.statement}
    for lane in resolve(after):
        if lane.error and lane.lane.id in was:
            raise EditRefused(f"{lane.name or 'Another lane'} would stop working: {lane.error}")


def _refused(error: LanguageError) -> EditRefused:
    return EditRefused(error.message, error.start, error.end, error.mend)


def _free_colour(document: Document) -> int:
    used = [lane.colour for lane in document.lanes]
    return min(range(COLOURS), key=lambda colour: (used.count(colour), colour))


def _free_name(document: Document, lane: Lane) -> str:
    """The next free letter, from f on, then f_1 and so on."""
    scope = scope_of(document.lanes, without=lane.id)
    taken = {*scope.functions, *scope.values, *_wanted(document, lane)}
    numbered = (f"f_{number}" for number in range(1, MAX_LANES + 2))
    free: str = next(name for name in (*LETTERS, *numbered) if name not in taken)
    return free


def _wanted(document: Document, lane: Lane) -> set[str]:
    """Names that other lanes wait for: giving one of them by chance would change their meaning."""
    return {
        name for other in resolve(document) if other.lane.id != lane.id for name in other.missing
    }


def _slider(document: Document, lane_id: str) -> ResolvedLane:
    lane = resolve(document).lane(_lane(document, lane_id).id)
    if lane is None or not is_slider(lane):
        raise EditRefused("Only a plain number, such as a = 2, is a slider.")
    return lane


def _set_slider(document: Document, edit: SetSlider) -> Document:
    lane = _slider(document, edit.id)
    wanted = edit.slider
    if wanted.kind == lane.lane.slider.kind:
        # An end that was never typed stays where it is, and does not jump with the value.
        now = slider_range(document, lane)
        low = wanted.low or ("" if lane.lane.slider.low else full_precision(now.low))
        high = wanted.high or ("" if lane.lane.slider.high else full_precision(now.high))
        wanted = wanted.model_copy(update={"low": low, "high": high})
    else:
        wanted = wanted.model_copy(update={"low": "", "high": "", "step": ""})
    changed = document.with_lane(lane.lane.model_copy(update={"slider": wanted}))
    after = resolve(changed).lane(edit.id)
    assert after is not None
    slider_range(changed, after)
    return changed


def _duplicate(document: Document, lane: Lane) -> Document:
    """The lane again below itself; a name of its own gives way to the next free one."""
    if len(document.lanes) >= MAX_LANES:
        raise EditRefused(f"A sheet can hold {MAX_LANES} lanes, and this one is full.")
    resolved = resolve(document).lane(lane.id)
    text, name = lane.text, lane.name
    statement = resolved.statement if resolved else None
    if statement is not None and statement.name:
        text = _under_another_name(document, lane, statement.name)
    elif name:
        name = _free_name(document, lane.model_copy(update={"id": "new"}))
    copy = lane.model_copy(
        update={
            "id": secrets.token_hex(4),
            "text": text,
            "name": name,
            "colour": _free_colour(document),
        }
    )
    at = document.lanes.index(lane) + 1
    lanes = (*document.lanes[:at], copy, *document.lanes[at:])
    return document.model_copy(update={"lanes": lanes})


def _under_another_name(document: Document, lane: Lane, name: str) -> str:
    scope = scope_of(document.lanes)
    taken = {*scope.functions, *scope.values, *_wanted(document, lane)}
    stem = name.partition("_")[0]
    free = next(new for k in range(2, MAX_LANES + 3) if (new := f"{stem}_{k}") not in taken)
    left, equals, right = lane.text.partition("=")
    return left.replace(name, free, 1) + equals + right


def _set_domain(document: Document, edit: SetDomain) -> Document:
    lane = _lane(document, edit.id)
    resolved = resolve(document).lane(lane.id)
    statement = resolved.statement if resolved else None
    if not isinstance(statement, FunctionStatement) or len(statement.parameters) != 1:
        raise EditRefused("Only a function of one variable has a domain.")
    domain = statement.domain
    low = _new_end(document, edit.low, domain.low if domain else None)
    high = _new_end(document, edit.high, domain.high if domain else None)
    written = _domain_text(
        statement.parameters[0],
        (low, domain.low_closed if domain and domain.low else True),
        (high, domain.high_closed if domain and domain.high else True),
    )
    return _revise(document, lane, lane.text[: statement.body_end].rstrip() + written)


def _new_end(document: Document, typed: str | None, before: Expression | None) -> str:
    return plain_end(before) if typed is None else _checked_end(document, typed)


def plain_end(end: Expression | None) -> str:
    """An end of a domain as one-line text; empty where there is none."""
    return plain(end, catalogue.VOCABULARY) if end is not None else ""


def _checked_end(document: Document, typed: str) -> str:
    text = typed.strip()
    if not text or text in ("∞", "-∞", "−∞"):
        return ""
    try:
        text = written(text)
        parse_expression(text, scope_of(document.lanes))
    except LanguageError as error:
        raise _refused(error) from error
    return text


def _domain_text(variable: str, low: tuple[str, bool], high: tuple[str, bool]) -> str:
    (start, low_closed), (stop, high_closed) = low, high
    below, under = "<=" if low_closed else "<", "<=" if high_closed else "<"
    if start and stop:
        return f" for {start} {below} {variable} {under} {stop}"
    if start:
        return f" for {variable} {'>=' if low_closed else '>'} {start}"
    return f" for {variable} {under} {stop}" if stop else ""
