"""Where two lanes meet or two equations hold at once, as the Solve page shows it."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from typing import Any

from flask import render_template

from axispath.core.language.numbers import decimal, full_precision
from axispath.core.path.called import CERTAINTY
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.labels import labelled, shown_t, shown_x, shown_y
from axispath.core.path.survey import unsearched
from axispath.core.search.landmark import Certainty, Kind, Landmark
from axispath.core.sheet.document import MAX_LANES, Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.scopes import scope_of
from axispath.core.solve.largest import Largest
from axispath.core.solve.meet import Met
from axispath.core.solve.several import extreme_words, fraction_shown, meeting_words, system_words
from axispath.core.solve.system import System
from axispath.web.landmarks.words import MARKS
from axispath.web.present import lane_views, scripted_lanes

MOST_SHOWN = 400
LEVEL = "level"


def meeting_answer(found: Met, document: Document, longer: bool) -> dict[str, Any]:
    """What answers the question where two lanes meet: as HTML, and as marks for the plot."""
    digits, path = document.digits, found.path
    along = SEARCHED[found.first.kind.key].along == "parameter"
    letter = found.first.parameters[0] if along else "x"
    marks = path.landmarks[:MOST_SHOWN]
    names = f"{found.first.name} and {found.second.name}"
    goes_on = not longer and unsearched(path)
    return _answer(
        document,
        marks,
        [_row(mark, digits, shown_t(mark, letter, digits)) for mark in marks],
        meeting_words(names, found.path, goes_on),
        more=max(0, len(path.landmarks) - MOST_SHOWN),
        complete=path.complete,
        goes_on=goes_on,
        latex=rf"{found.first.name} \text{{ and }} {found.second.name}",
        met=True,
    )


def system_answer(found: System, document: Document, longer: bool) -> dict[str, Any]:
    """What answers two equations in x and y, both drawn for a while."""
    digits, path = document.digits, found.path
    goes_on = not longer and unsearched(path)
    marks = path.landmarks[:MOST_SHOWN]
    return _answer(
        document,
        marks,
        [
            _row(mark, digits, decimal(residual, 2) if residual else "0")
            for mark, residual in zip(marks, found.residuals, strict=False)
        ],
        system_words(path, goes_on),
        more=max(0, len(path.landmarks) - MOST_SHOWN),
        complete=path.complete,
        goes_on=goes_on,
        edits=list(found.edits),
    )


def largest_answer(found: Largest, document: Document) -> dict[str, Any]:
    """What answers the question for an extreme value, with its level line drawn for a while."""
    digits = document.digits
    value = "" if found.value is None else fraction_shown(found.value, digits)
    marks = [
        Landmark(Kind.INTERSECTION, float(x), float(y), Certainty.EXACT) for x, y in found.places
    ]
    exact = [
        {"x": fraction_shown(x, digits), "y": fraction_shown(y, digits)} for x, y in found.places
    ]
    return _answer(
        document,
        marks,
        [_row(m, digits, f"value {value}") | e for m, e in zip(marks, exact, strict=True)],
        extreme_words(found, value),
        edits=[] if found.value is None else _level_line(document, found.form, found.value),
        met=True,
    )


def _level_line(document: Document, form: str, value: Fraction) -> list[AddLane]:
    """The line on which the expression has the value, which a slider of its own moves."""
    values = scope_of(document.lanes)
    named = (LEVEL, *(f"{LEVEL}_{k}" for k in range(2, MAX_LANES + 3)))
    name = next(name for name in named if not values.knows(name))
    return [
        AddLane(text=f"{name} = {full_precision(float(value))}", id="level"),
        AddLane(text=f"{form} = {name}", id="levelline"),
    ]


def _row(mark: Landmark, digits: int, beside: str) -> dict[str, str]:
    """A place in the list, with what stands beside it."""
    return {
        "x": shown_x(mark, digits),
        "y": shown_y(mark, digits),
        "raw_x": full_precision(mark.x),
        "mark": MARKS[mark.certainty],
        "how_sure": CERTAINTY[mark.certainty],
        "residual": beside,
    }


def _answer(
    document: Document,
    marks: Sequence[Landmark],
    rows: list[dict[str, str]],
    words: list[str],
    more: int = 0,
    complete: bool = True,
    goes_on: bool = False,
    latex: str = "",
    edits: Sequence[AddLane] = (),
    met: bool = False,
) -> dict[str, Any]:
    """Places of the plane as the Solve page lists them; ``met`` where no residuals stand there."""
    page = render_template(
        "parts/solutions.html",
        rows=[row | {"key": f"solution:{k}"} for k, row in enumerate(rows)],
        more=more,
        words=words,
        complete=complete,
        endless=False,
        unknown="x",
        pair=True,
        met=met,
        inequality=False,
        question="",
    )
    return {
        "html": page,
        "unknown": "x",
        "latex": latex,
        "marks": [_on_the_plot(k, mark, document.digits) for k, mark in enumerate(marks)],
        "solved": [],
        "goesOn": goes_on,
        "isEquation": False,
        **temporary(document, edits),
    }


def _on_the_plot(k: int, mark: Landmark, digits: int) -> dict[str, Any]:
    return {
        "key": f"solution:{k}",
        "kind": "intersection",
        "x": mark.x,
        "y": mark.y,
        "left": None,
        "right": None,
        "closed": True,
        "label": labelled(mark, digits),
    }


def temporary(document: Document, edits: Sequence[AddLane]) -> dict[str, Any]:
    """Lanes that are drawn for a while: as edits to be tried out, and for the plot."""
    tried = document
    for edit in edits:
        tried = apply(tried, edit)
    ids = {edit.id for edit in edits}
    scripted = scripted_lanes(tried, lane_views(tried)) if ids else []
    lanes = [lane for lane in scripted if lane["id"] in ids]
    return {"edits": [edit.model_dump() for edit in edits], "lanes": lanes}
