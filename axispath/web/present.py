"""From the core's values to what templates and scripts show."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from flask import render_template

from axispath.core import catalogue
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.language.latex import latex_statement
from axispath.core.language.mathml import mathml_statement
from axispath.core.language.numbers import decimal, full_precision, listed
from axispath.core.language.plain import plain_statement
from axispath.core.language.rename import renamed
from axispath.core.language.scope import Scope
from axispath.core.language.tree import ValueStatement
from axispath.core.path import framing
from axispath.core.path.landmark import Certainty, Kind, Landmark, Open, Path, Reason
from axispath.core.path.lanes import MOST_CROSSED, crossings, path_of, share
from axispath.core.sheet.angles import seems_to_mean_degrees
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import Edit, RemoveLane, plain_end, who_waits
from axispath.core.sheet.resolve import ResolvedLane, resolve, scope_of
from axispath.core.table.rows import TableRefused, number, places
from axispath.core.table.values import column
from axispath.core.table.words import explain_empty, in_words
from axispath.store.sheets import Opened
from axispath.web.reading_back import nearest

PAGE_ROWS = 500


@dataclass(frozen=True)
class LaneView:
    """A lane as its template needs it."""

    id: str
    text: str
    name: str
    colour: int
    hidden: bool
    mathml: str = ""
    latex: str = ""
    plottable: bool = False
    low: str = ""
    high: str = ""
    below: str = "≤"
    under: str = "≤"
    variable: str = "x"
    note: str = ""
    missing: tuple[str, ...] = ()
    respelt: tuple[tuple[str, str], ...] = ()
    wrong: bool = False
    signature: str = ""


def lane_view(lane: ResolvedLane, scope: Scope, digits: int) -> LaneView:
    """What the template of a lane shows; ``scope`` holds the names of its sheet."""
    base: dict[str, Any] = {
        "id": lane.lane.id,
        "text": lane.lane.text,
        "name": lane.name or "",
        "colour": lane.lane.colour,
        "hidden": lane.lane.hidden,
        "missing": lane.missing,
        "respelt": tuple(_respelt(lane, scope)),
        "note": _note(lane, digits),
        "wrong": lane.error is not None,
        "signature": _signature(lane),
    }
    if lane.statement is None:
        return LaneView(**base)
    words = catalogue.VOCABULARY
    rule = lane.statement
    if not isinstance(rule, ValueStatement):
        # The domain has fields of its own below the formula.
        rule = type(rule)(rule.name, rule.parameters, rule.body, None, rule.body_end)
        base["variable"] = rule.parameters[0] if rule.parameters else "x"
    domain = lane.domain
    return LaneView(
        **base,
        mathml=mathml_statement(rule, words, lane.name),
        latex=latex_statement(rule, words, lane.name),
        plottable=lane.plottable,
        low=plain_end(domain.low) if domain else "",
        high=plain_end(domain.high) if domain else "",
        below="≤" if not domain or domain.low_closed or not domain.low else "<",
        under="≤" if not domain or domain.high_closed or not domain.high else "<",
    )


def _respelt(lane: ResolvedLane, scope: Scope) -> Iterator[tuple[str, str]]:
    """Known names that look like one the lane waits for, each with the line that uses it."""
    for name in lane.missing:
        near = nearest(name, scope)
        if near and near != lane.name and lane.statement is not None:
            yield near, renamed(lane.lane.text, lane.statement, name, near)


def _signature(lane: ResolvedLane) -> str:
    parameters = getattr(lane.statement, "parameters", None)
    return f"{lane.name}({', '.join(parameters)})" if parameters else lane.name or ""


def _note(lane: ResolvedLane, digits: int) -> str:
    if lane.error:
        return f"not understood: {lane.error.message}"
    if lane.missing:
        return f"waits for {listed(lane.missing)}"
    if isinstance(lane.statement, ValueStatement):
        shown = plain_statement(lane.statement, catalogue.VOCABULARY)
        if lane.items is not None:
            return _list_note(lane.items, digits)
        if not np.isfinite(lane.value):
            return why_no_value_of_number(lane)
        value = decimal(lane.value, digits)
        return "number" if shown.endswith(f"= {value}") else f"= {value}"
    if not lane.plottable:
        return "a function of several numbers, for use in other lanes"
    return ""


LISTED = 8


def _list_note(items: list[float], digits: int) -> str:
    shown = [decimal(item, digits) if np.isfinite(item) else "—" for item in items[:LISTED]]
    more = ", …" if len(items) > LISTED else ""
    count = "1 value" if len(items) == 1 else f"{len(items)} values"
    return f"{count}: {', '.join(shown)}{more}" if items else "an empty list"


def why_no_value_of_number(lane: ResolvedLane) -> str:
    """Why a number lane has no value."""
    return f"no value: {why_undefined(lane.program, lane.unit) or 'undefined'}"


def lane_views(document: Document) -> list[LaneView]:
    """All lanes of a sheet as their template needs them."""
    scope = scope_of(document.lanes)
    return [lane_view(lane, scope, document.digits) for lane in resolve(document)]


def state(found: Opened) -> dict[str, Any]:
    """A sheet after an edit, for the scripts."""
    document = found.document
    lanes = lane_views(document)
    return {
        "id": found.id,
        "head": found.head,
        "undo": found.undo,
        "redo": found.redo,
        "name": document.name,
        "unit": document.unit,
        "view": document.view.model_dump(),
        "table": document.table.model_dump(),
        "question": seems_to_mean_degrees(document),
        "lanes": [
            {
                "id": lane.id,
                "name": lane.name,
                "colour": lane.colour,
                "hidden": lane.hidden,
                "plottable": lane.plottable,
                "signature": lane.signature,
                "html": render_template("parts/lane.html", lane=lane),
            }
            for lane in lanes
        ],
    }


def told_of_waiting(before: Document, after: Document, edits: list[Edit]) -> str:
    """Who needs what a deletion has taken away."""
    if not any(isinstance(edit, RemoveLane) for edit in edits):
        return ""
    waiting = who_waits(before, after)
    if not waiting:
        return ""
    lost = dict.fromkeys(name for names in waiting.values() for name in names)
    verb = "needs" if len(waiting) == 1 else "need"
    return f"{listed(waiting)} {verb} {listed(lost)}, and will wait until it is defined again."


KIND_NAMES = {
    Kind.ZERO: ("zeros", "zero"),
    Kind.MAXIMUM: ("maxima", "maximum"),
    Kind.MINIMUM: ("minima", "minimum"),
    Kind.INFLECTION: ("inflections", "inflection"),
    Kind.Y_INTERCEPT: ("y-intercept", "y-intercept"),
    Kind.END: ("ends of the domain", "end of the domain"),
    Kind.INTERSECTION: ("intersections", "intersection"),
}
CERTAINTY = {
    Certainty.PROVEN: "proven: interval arithmetic shows that it is there, alone in its bracket",
    Certainty.EXACT: "exact: the value is 0 in exact arithmetic",
    Certainty.APPROACHED: "approached: touched as closely as can be told, but not proven",
}
MARKS = {Certainty.PROVEN: "✓", Certainty.EXACT: "=", Certainty.APPROACHED: "≈"}


@dataclass
class Row:
    """One landmark in a list."""

    kind: str
    label: str
    x: str
    y: str
    mark: str
    how_sure: str
    raw_x: str
    raw_y: str


@dataclass
class Section:
    """The landmarks of one kind of one lane."""

    title: str
    rows: list[Row] = field(default_factory=list)
    none: str = ""


@dataclass
class Group:
    """The landmarks of one lane, or of two that meet."""

    title: str
    colour: int | None
    where: str
    verdict: str
    complete: bool
    sections: list[Section]


@dataclass
class Paths:
    """All paths of a view, for scripts and for the Landmarks page."""

    lanes: list[dict[str, Any]]
    crossings: list[dict[str, Any]]
    groups: list[Group]
    empty: str
    explanation: str
    can_frame: bool
    words: str
    settled: str


def paths(document: Document) -> Paths:
    """Landmarks, spans and open stretches of every visible lane in the document's view."""
    view, digits = document.view, document.digits
    lanes = resolve(document).functions()
    found, groups = [], []
    for lane in lanes:
        path = path_of(lane, view.left, view.right, share(len(lanes)))
        found.append(_path_for_script(lane, path))
        if path is not None:
            groups.append(_group(lane, path, digits))
    meeting = []
    for crossing in crossings(lanes, view.left, view.right):
        names = f"{crossing.first.name} = {crossing.second.name}"
        meeting.append(
            {
                "lanes": [crossing.first.lane.id, crossing.second.lane.id],
                "landmarks": [_mark_for_script(m) for m in crossing.path.landmarks],
            }
        )
        title = f"{names} (intersections)"
        section = Section(title, [_row(m, digits) for m in crossing.path.landmarks])
        section.none = "none in this interval" if crossing.path.complete else ""
        if crossing.path.zero:
            section.title = f"{names}: the same on a whole stretch"
        groups.append(
            Group(
                names,
                None,
                _interval(crossing.path, digits),
                _verdict(crossing.path, digits),
                crossing.path.complete,
                [section],
            )
        )
    if len(lanes) > MOST_CROSSED:
        note = f"Intersections are looked for among the first {MOST_CROSSED} functions shown."
        groups.append(Group("more functions", None, "", note, False, []))
    empty = "" if lanes else "Landmarks appear here as soon as the sheet shows a function."
    explanation, can_frame = explain_empty(document)
    complete = all(group.complete for group in groups)
    settled = "every landmark proven" if groups and complete else ""
    return Paths(
        found,
        meeting,
        groups,
        empty,
        explanation,
        can_frame,
        in_words(document),
        settled or ("some stretches are not settled" if groups else ""),
    )


def _path_for_script(lane: ResolvedLane, path: Path | None) -> dict[str, Any]:
    low, high = lane.ends
    return {
        "id": lane.lane.id,
        "low": low.x if low else None,
        "high": high.x if high else None,
        "lowClosed": low.closed if low else True,
        "highClosed": high.closed if high else True,
        "landmarks": [_mark_for_script(m) for m in path.landmarks] if path else [],
        "spans": [[s.low, s.high, s.sign, s.direction] for s in path.spans] if path else [],
        "open": [[o.low, o.high] for o in path.open] if path else [],
        "undefined": [[s.low, s.high] for s in path.undefined] if path else [],
    }


def _mark_for_script(mark: Landmark) -> dict[str, Any]:
    return {"kind": mark.kind, "x": mark.x, "y": mark.y, "closed": mark.closed}


def _group(lane: ResolvedLane, path: Path, digits: int) -> Group:
    sections = []
    everywhere = bool(path.undefined) and not path.spans and not path.open
    for kinds in (
        (Kind.ZERO,),
        (Kind.MAXIMUM, Kind.MINIMUM),
        (Kind.INFLECTION,),
        (Kind.Y_INTERCEPT,),
        (Kind.END,),
    ):
        rows = [_row(mark, digits) for mark in path.of(*kinds)]
        wanted = Kind.ZERO in kinds or Kind.MAXIMUM in kinds
        if everywhere or not (rows or wanted):
            continue
        title = "turning points" if Kind.MAXIMUM in kinds else KIND_NAMES[kinds[0]][0]
        section = Section(title, rows)
        if not rows:
            section.none = _none(path, kinds)
        sections.append(section)
    return Group(
        lane.name or "",
        lane.lane.colour,
        _interval(path, digits),
        _verdict(path, digits),
        path.complete,
        sections,
    )


def _none(path: Path, kinds: tuple[Kind, ...]) -> str:
    if Kind.ZERO in kinds and path.zero:
        return "zero throughout"
    if not path.complete:
        return "none found outside the open stretches"
    signs = {span.sign for span in path.spans}
    if Kind.ZERO in kinds and signs == {1}:
        return "none here: above zero throughout"
    if Kind.ZERO in kinds and signs == {-1}:
        return "none here: below zero throughout"
    directions = {span.direction for span in path.spans}
    if Kind.MAXIMUM in kinds and directions == {1}:
        return "none here: rising throughout"
    if Kind.MAXIMUM in kinds and directions == {-1}:
        return "none here: falling throughout"
    if Kind.MAXIMUM in kinds and directions == {0}:
        return "none here: constant throughout"
    return "none in this interval"


def _interval(path: Path, digits: int) -> str:
    return f"{decimal(path.low, digits)} ≤ x ≤ {decimal(path.high, digits)}"


REASONS = {
    Reason.BREAK: "it may break there (a pole, a jump or the edge of where it is defined)",
    Reason.CLOSE: "landmarks there are too close together to be told apart",
    Reason.BUDGET: "there is more to search than the time allowed",
}


def _verdict(path: Path, digits: int) -> str:
    if path.undefined and not path.spans and not path.open:
        return "Undefined everywhere here."
    if path.complete:
        return "Nothing missed: every landmark in this interval is listed."
    if path.more:
        return "There are more: only the first are listed."
    shown = [_stretch(item, digits) for item in path.open[:3]]
    rest = len(path.open) - len(shown)
    where = ", ".join(shown) + (f" and {rest} more places" if rest else "")
    return f"Not settled {where}: {REASONS[path.open[0].reason]}."


def _stretch(item: Open, digits: int) -> str:
    low, high = decimal(item.low, digits), decimal(item.high, digits)
    middle = (item.low + item.high) / 2
    if low == high or item.high - item.low < 1e-6 * max(1.0, abs(middle)):
        near = 0.0 if abs(middle) < item.high - item.low else middle
        return f"at x ≈ {decimal(near, digits)}"
    return f"for {low} ≤ x ≤ {high}"


def _row(mark: Landmark, digits: int) -> Row:
    return Row(
        mark.kind,
        KIND_NAMES[mark.kind][1],
        decimal(mark.x, digits, mark.radius),
        decimal(mark.y, digits, max(mark.radius, abs(mark.x) * 1e-16)),
        MARKS[mark.certainty],
        CERTAINTY[mark.certainty],
        full_precision(mark.x),
        full_precision(mark.y),
    )


def reading(document: Document, x: float) -> dict[str, Any]:
    """The values of the visible lanes at one x."""
    at = np.array([x])
    rows = []
    for lane in resolve(document).functions():
        values = column(lane, at)
        value = float(values.values[0])
        rows.append(
            {
                "id": lane.lane.id,
                "name": lane.name,
                "colour": lane.lane.colour,
                "shown": values.shown(0, document.digits),
                "reason": values.reason(0),
                "y": value if np.isfinite(value) else None,
            }
        )
    return {"x": x, "shown": decimal(x, document.digits), "rows": rows}


def table(document: Document, page: int) -> dict[str, Any]:
    """A page of the table of values; ``trouble`` where its rows cannot be made."""
    lanes = resolve(document).functions()
    head = [{"name": lane.name, "colour": lane.lane.colour} for lane in lanes]
    empty = {"head": head, "rows": [], "first": 0, "count": 0, "page": 0, "pages": 0}
    try:
        every = places(document, document.table)
    except TableRefused as refused:
        return {**empty, "trouble": refused.message}
    pages = -(-len(every) // PAGE_ROWS)
    page = min(page, pages - 1)
    x = every[page * PAGE_ROWS : (page + 1) * PAGE_ROWS]
    columns = [column(lane, x) for lane in lanes]
    rows = [
        {
            "x": decimal(float(place), document.digits),
            "raw": float(place),
            "cells": [
                {"shown": c.shown(index, document.digits), "reason": c.reason(index)}
                for c in columns
            ],
        }
        for index, place in enumerate(x)
    ]
    return {
        "head": head,
        "rows": rows,
        "first": page * PAGE_ROWS + 1,
        "count": len(every),
        "page": page,
        "pages": pages,
        "trouble": "",
    }


def framed(document: Document) -> View:
    """A view of what matters on a sheet; the standard view of an empty one."""
    return framing.frame(resolve(document).functions()) or View()


def limit(document: Document, text: str, name: str) -> float:
    """A typed view limit as a number."""
    return float(number(document, text, name))
