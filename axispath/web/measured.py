"""The page Data: rows of a data set, what describes it, its fits; files in and out."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Any

from flask import Blueprint, Response, render_template, request
from pydantic import Field

from axispath.core.data.cells import Cells
from axispath.core.data.reading import CannotRead, Found, Read
from axispath.core.language.numbers import decimal, full_precision
from axispath.core.sheet.document import Document, LaneId
from axispath.core.sheet.edits.data import AddColumns, columns_of, taken_names
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.exchange.data.opened import Opened, opened
from axispath.exchange.data.written import csv_of, xlsx_of
from axispath.store import sheets
from axispath.web import computing
from axispath.web.asked import Looking, Trying, Typed, answered, body, revision
from axispath.web.computing import ask, computed
from axispath.web.person import person_for_change, remember_person, store
from axispath.web.showing import panel, predicted
from axispath.web.source import BLANK, DEMO, document_at
from axispath.web.source import opened as opened_sheet
from axispath.work.kinds import LONG

blueprint = Blueprint("measured", __name__, url_prefix="/api")
MOST_ROWS = 300
PER_DAY = {"days": 1, "hours": 24, "minutes": 1440, "seconds": 86400}
SHOWN = 8  # rows of a preview
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


class Rowing(Looking):
    """A look at some rows of a data set; the first one where none is named."""

    data: Annotated[str, Field(max_length=12)] = ""
    first: Annotated[int, Field(ge=0, le=1_000_000)] = 0
    count: Annotated[int, Field(ge=0, le=MOST_ROWS)] = 80


class Predicting(Trying):
    """What a fit says at an x."""

    lane: LaneId
    typed: Typed


class Writing(Trying):
    """A data set as a file."""

    data: LaneId
    format: Annotated[str, Field(pattern="^(csv|tabs|xlsx)$")] = "csv"


def data_lane(document: Document, lane_id: str) -> ResolvedLane | None:
    """The data set with this id, else the first."""
    sets = [lane for lane in resolve(document) if lane.measured is not None]
    return next((lane for lane in sets if lane.lane.id == lane_id), sets[0] if sets else None)


@blueprint.post("/sheets/<key>/data")
@computed(shared=False)
def rows(key: str) -> Response:
    """Rows of a data set as text, and its panel."""
    wanted = Rowing.model_validate(body())
    document = wanted.document(key)
    sets = [lane for lane in resolve(document) if lane.measured is not None]
    lane = data_lane(document, wanted.data)
    if lane is None:
        return answered({"sets": [], "id": "", "rows": 0, "html": panel(document, None)})
    data, arrays = lane.lane.data, lane.measured
    assert data is not None and arrays is not None
    names = [column.name for column in data.columns]
    last = min(wanted.first + wanted.count, data.rows)
    part = range(min(wanted.first, data.rows), last)
    columns = [
        {
            "name": column.name,
            "title": column.title,
            "formula": column.formula,
            "error": arrays.errors.get(column.name, ""),
        }
        for column in data.columns
    ]
    cells = [
        [
            _cell(float(arrays.columns[c.name][row]), bool(c.formula), document.digits)
            for c in data.columns
        ]
        for row in part
    ]
    return answered(
        {
            "sets": [{"id": one.lane.id, "name": one.lane.text} for one in sets],
            "id": lane.lane.id,
            "rows": data.rows,
            "first": part.start,
            "columns": columns,
            "cells": cells,
            "drawn": [names.index(n) for n in (data.across, data.upwards) if n in names],
            "out": [row for row in data.out if part.start <= row < last],
            "html": panel(document, lane),
        }
    )


def _cell(value: float, computed_one: bool, digits: int) -> str:
    if value != value:
        return ""
    return decimal(value, digits + 2) if computed_one else full_precision(value)


@blueprint.post("/sheets/<key>/data/predict")
@computed(shared=False)
def predict(key: str) -> Response:
    """What a fit says at an x, with its intervals."""
    wanted = Predicting.model_validate(body())
    document = wanted.tried(key)
    lane = resolve(document).lane(wanted.lane)
    if lane is None or lane.fitted is None:
        raise EditRefused("This lane is no fit.")
    return answered(predicted(document, lane, typed_end(document, wanted.typed).x))


@blueprint.post("/sheets/<key>/data/file")
@computed(LONG, shared=False)
def write(key: str) -> Response:
    """A data set as a file."""
    wanted = Writing.model_validate(body())
    lane = data_lane(wanted.tried(key), wanted.data)
    if lane is None:
        raise EditRefused("There is no data set on this sheet.")
    if wanted.format == "xlsx":
        return Response(xlsx_of(lane), mimetype=XLSX)
    text = csv_of(lane, "\t" if wanted.format == "tabs" else ",")
    return Response(text, mimetype="text/csv" if wanted.format == "csv" else "text/plain")


def in_unit(column: Found, unit: str) -> Found:
    """A column of dates or times in another unit of time."""
    if not column.how or unit not in PER_DAY:
        return column
    own = "hours" if column.how.endswith("hours") else "days"
    factor = PER_DAY[unit] / PER_DAY[own]
    how = column.how.replace(own, unit)
    return replace(column, how=how, cells=Cells(column.cells.values * factor))


def read_file(data: bytes, table: int, taken: tuple[str, ...]) -> Opened | str:
    """A table of a file, or why it cannot be read."""
    try:
        return opened(data, table, taken)
    except CannotRead as reason:
        return str(reason)


@blueprint.post("/sheets/<key>/data/open")
def open_file(key: str) -> Response:
    """A file: looked at first, and with ``keep`` put on the sheet as a data set."""
    head = request.args.get("head", 0, type=revision)
    document = document_at(key, head)
    taken = tuple(sorted(taken_names(document)))
    table = request.args.get("table", 0, type=revision)
    found = ask(LONG, key, "", read_file, request.get_data(), table, taken)
    if isinstance(found, str):
        raise EditRefused(found)
    name = request.args.get("name", "")[:80]
    per = request.args.get("per", "")
    columns = tuple(in_unit(column, per) for column in found.read.columns)
    read = replace(found.read, columns=columns)
    if "keep" not in request.args:
        html = render_template("parts/preview_data.html", **preview(read), name=name, per=per)
        return answered({"html": html, "tables": found.tables, "table": found.table})
    edit = AddColumns(name=name.rpartition(".")[0] or name, columns=columns_of(read))
    steps = computing.steps(document, [edit], key)  # type: ignore[list-item]
    with store().transaction() as database:
        person = person_for_change(database)
        if key == BLANK or key.startswith(DEMO):
            made = sheets.create(database, person, opened_sheet(key).document, steps)
        else:
            made = sheets.change(database, person, key, head, steps)
    remember_person(person)
    return answered({"id": made.id, "head": made.head})


def preview(read: Read) -> dict[str, Any]:
    """What was understood of a table, for its confirmation."""
    columns = [
        {
            "name": column.name,
            "title": column.title,
            "how": column.how,
            "missing": column.missing,
            "wrong": column.wrong,
            "troubles": [f"row {row}: “{text}”" for row, text in column.troubles],
            "cells": [
                "" if value is None else full_precision(value)
                for value in column.cells.listed()[:SHOWN]
            ],
        }
        for column in read.columns
    ]
    shown = min(SHOWN, read.rows)
    timed = any(column.how for column in read.columns)
    told = {"rows": read.rows, "shown": shown, "notes": read.notes}
    return {"columns": columns, "timed": timed, **told}
