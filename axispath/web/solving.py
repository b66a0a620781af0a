"""The Solve page of the desk: answers, exact answers, and methods step by step."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Any

from flask import Blueprint, Response, render_template

from axispath.budgets import SOLVING, SOLVING_ON
from axispath.core import catalogue
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.latex import latex
from axispath.core.language.numbers import decimal, full_precision, listed
from axispath.core.path.called import CERTAINTY
from axispath.core.path.labels import labelled, shown_x
from axispath.core.search.exact_forms import asked_for, exact_forms
from axispath.core.sheet.angles import of_angles, suspect_in
from axispath.core.sheet.document import Document
from axispath.core.sheet.ends import typed_end, typed_interval
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.answer import Answer, answer
from axispath.core.solve.general import general_solution
from axispath.core.solve.lanes import method_lanes, side_lanes
from axispath.core.solve.largest import largest
from axispath.core.solve.meet import met
from axispath.core.solve.methods import METHODS, run
from axispath.core.solve.methods.way import Run, Way
from axispath.core.solve.question import Question, Unclear, ask
from axispath.core.solve.system import solve_system
from axispath.core.solve.words import verdict
from axispath.web.asked import Solving, Watching, answered, body
from axispath.web.computing import computed, patient
from axispath.web.exact import LATE, answers
from axispath.web.inside import UNFINISHED
from axispath.web.landmarks.words import MARKS
from axispath.web.meeting import largest_answer, meeting_answer, system_answer, temporary
from axispath.work.kinds import EXACT

blueprint = Blueprint("solving", __name__, url_prefix="/api")
MOST_SHOWN = 400
MOST_EXACT = 40


@dataclass(frozen=True)
class Row:
    """One solution as it is listed."""

    key: str
    x: str
    y: str
    raw_x: str
    mark: str
    how_sure: str
    residual: str


def _question(wanted: Solving, document: Document) -> tuple[Question, End | None, End | None]:
    question = ask(document, wanted.text, wanted.unknown)
    return question, *typed_interval(document, wanted.low, wanted.high)


@blueprint.post("/sheets/<key>/solve")
@computed(patient)
def solve(key: str) -> Response:
    """All solutions of an equation or inequality."""
    wanted = Solving.model_validate(body())
    document = wanted.document(key)
    meeting = met(document, wanted.text, SOLVING_ON if wanted.longer else SOLVING)
    if meeting is not None:
        return answered(meeting_answer(meeting, document, wanted.longer))
    extreme = largest(document, wanted.text)
    if extreme is not None:
        return answered(largest_answer(extreme, document))
    system = solve_system(document, wanted.text, SOLVING_ON if wanted.longer else SOLVING)
    if system is not None:
        return answered(system_answer(system, document, wanted.longer))
    try:
        question, low, high = _question(wanted, document)
    except Unclear as unclear:
        return answered({"choices": unclear.choices, "message": unclear.message})
    found = answer(question, low, high, SOLVING_ON if wanted.longer else SOLVING)
    goes_on = not wanted.longer and found.unsearched
    digits = document.digits
    rows = [
        Row(
            f"solution:{k}",
            shown_x(s.mark, digits),
            decimal(s.y, digits, abs(s.mark.x) * 1e-16),
            full_precision(s.mark.x),
            MARKS[s.mark.certainty],
            CERTAINTY[s.mark.certainty],
            decimal(s.residual, 2) if s.residual else "0",
        )
        for k, s in enumerate(found.solutions[:MOST_SHOWN])
    ]
    page = render_template(
        "parts/solutions.html",
        rows=rows,
        more=max(0, len(found.solutions) - MOST_SHOWN),
        words=verdict(question, found, digits, goes_on),
        complete=found.complete,
        endless=found.endless,
        unknown=question.unknown,
        pair=question.pair,
        inequality=not question.is_equation,
        question=_degrees(document, question),
        turn=_turn(question, found),
    )
    return answered(
        {
            "html": page,
            "unknown": question.unknown,
            "latex": _latex(question),
            "marks": _marks(found, digits),
            "solved": _shown_set(found),
            "goesOn": goes_on,
            "isEquation": question.is_equation,
            **temporary(document, side_lanes(document, question)),
        }
    )


def _marks(found: Answer, digits: int) -> list[dict[str, Any]]:
    """The solutions as landmarks on the plot."""
    return [
        {
            "key": f"solution:{k}",
            "kind": "intersection",
            "x": s.mark.x,
            "y": s.y if math.isfinite(s.y) else None,
            "left": None,
            "right": None,
            "closed": True,
            "label": labelled(s.mark, digits),
        }
        for k, s in enumerate(found.solutions)
    ]


def _shown_set(found: Answer) -> list[list[Any]]:
    """The solution set of an inequality for the rail; null for infinity."""
    return [
        [
            None if math.isinf(part.low) else part.low,
            None if math.isinf(part.high) else part.high,
            part.low_closed,
            part.high_closed,
        ]
        for part in found.solved or ()
    ]


def _latex(question: Question) -> str:
    signs = {"=": "=", "<": "<", "<=": r"\le ", ">": ">", ">=": r"\ge "}
    texts = [latex(side, catalogue.VOCABULARY) for side in question.comparison.operands]
    shown = texts[0]
    for sign, text in zip(question.comparison.signs, texts[1:], strict=True):
        shown += f" {signs[sign]} {text}"
    return shown


def _turn(question: Question, found: Answer) -> tuple[str, str] | None:
    """One turn of the angle to look at, where less was looked at and nothing found; else None."""
    if found.solutions or not question.is_equation or question.pair:
        return None
    degrees = question.unit is AngleUnit.DEGREE
    less = found.high - found.low < (360.0 if degrees else math.tau)
    if not less or not any(map(of_angles, question.comparison.operands)):
        return None
    return ("360", "360°") if degrees else ("2π", "2π")


def _degrees(document: Document, question: Question) -> str:
    found = suspect_in(document.unit, question.comparison.operands)
    return f"{found} suggests degrees, but this sheet measures angles in radians." if found else ""


@blueprint.post("/sheets/<key>/solve/exact")
@computed(EXACT)
def exact(key: str) -> Response:
    """Exact forms of the solutions, and the general solution, as far as found in time."""
    wanted = Solving.model_validate(body())
    document = wanted.document(key)
    if met(document, wanted.text, SOLVING) is not None:
        return answered({"forms": {}, "families": [], "always": False, "late": False})
    try:
        question, low, high = _question(wanted, document)
    except Unclear:
        return answered({"forms": {}, "families": [], "always": False, "late": False})
    if not question.is_equation:
        return answered({"forms": {}, "families": [], "always": False, "late": False})
    found = answer(question, low, high, SOLVING_ON if wanted.longer else SOLVING)
    left, right = question.sides
    sought = tuple(
        asked_for(f"solution:{k}", s.mark if question.pair else replace(s.mark, y=math.nan))
        for k, s in enumerate(found.solutions[:MOST_EXACT])
    )
    places = tuple(s.mark.x for s in found.solutions)
    jobs = [
        ("forms", exact_forms, (left, question.unit, sought)),
        (
            "general",
            general_solution,
            (left, right, question.unit, places, found.low, found.high),
        ),
    ]
    forms, general = answers(jobs)
    late = forms is LATE or general is LATE
    forms = {} if forms is None or forms is LATE else forms
    general = None if general is LATE else general
    response = answered(
        {
            "forms": {key: {"x": f.x, "y": f.y} for key, f in forms.items() if f.x or f.y},
            "families": [f"{question.unknown} = {text}" for text in general.families]
            if general
            else [],
            "always": bool(general and general.always),
            "late": late,
        }
    )
    if late:
        response.headers[UNFINISHED] = "1"
    return response


@blueprint.post("/sheets/<key>/method")
@computed()
def method(key: str) -> Response:
    """A method carried out from the starts that a student chose."""
    wanted = Watching.model_validate(body())
    document = wanted.document(key)
    question = ask(document, wanted.text, wanted.unknown)
    way = METHODS.get(wanted.method)
    if way is None:
        raise EditRefused(f"There is no such method; there are {listed(METHODS)}.")
    if not wanted.start.strip():
        raise EditRefused("Where shall it start? Type a number.")
    start = typed_end(document, wanted.start).x
    second = typed_end(document, wanted.second).x if wanted.second.strip() else None
    found = run(question, way, start, second)
    return answered(
        {
            "html": render_template(
                "parts/iterates.html",
                steps=_steps(question, found, way, document.digits),
                way=way,
                told=found.told,
                found=found.found,
                unknown=question.unknown,
            ),
            "told": found.told,
            "found": found.found,
            "strokes": [_strokes(found, k, way) for k in range(len(found.steps))],
            "alone": way.alone,
            "places": [step.x for step in found.steps],
            **temporary(document, method_lanes(document, question, way)),
        }
    )


def _steps(question: Question, found: Run, way: Way, digits: int) -> list[dict[str, str]]:
    rows = []
    for k, step in enumerate(found.steps):
        bracket = f"{decimal(step.low, digits + 3)} … {decimal(step.high, digits + 3)}"
        rows.append(
            {
                "x": _number(step.x, 10),
                "value": _number(step.value, 4),
                "error": _number(step.error, 2) if math.isfinite(step.error) else "—",
                "bracket": bracket if way.bracketed else "",
                "worked": way.worked(question, found, k),
            }
        )
    return rows


def _number(value: float, digits: int) -> str:
    return decimal(value, digits) if math.isfinite(value) else "—"


def _strokes(found: Run, k: int, way: Way) -> list[list[list[float]]]:
    """What a step draws, as lines through points of the axes; null for the edge of the plot."""
    lines = way.drawn(found, k)
    return [[[x, y] for x, y in line if math.isfinite(x) and not math.isnan(y)] for line in lines]
