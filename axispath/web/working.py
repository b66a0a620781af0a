"""The page Working: lines of calculation with their results, and the names in use."""

from __future__ import annotations

import re
from typing import Any

from flask import Blueprint, Response, render_template
from flint import acb

from axispath.budgets import LINE
from axispath.core import catalogue
from axispath.core.arithmetic.patience import limited
from axispath.core.language.latex import latex, latex_statement
from axispath.core.language.mathml import mathml, mathml_statement
from axispath.core.language.names import lowered
from axispath.core.language.plain import plain
from axispath.core.language.tree import MatrixOf
from axispath.core.language.walking import literal
from axispath.core.quantities.scalars import is_real
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, Items, Value
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.results.copies import as_csv, as_latex
from axispath.core.table.results.names import names_in_use
from axispath.core.table.results.result import Result, result_of
from axispath.web.asked import Trying, answered, body
from axispath.web.computing import computed
from axispath.work.kinds import LONG

blueprint = Blueprint("working", __name__, url_prefix="/api")
SEED = re.compile(r"(\brandom(?:whole)?\([^()]*,\s*)(\d+)(\s*\))")


@blueprint.post("/sheets/<key>/working")
@computed(LONG, shared=False)
def lines(key: str) -> Response:
    """All lines with their results, and the names in use, as HTML."""
    wanted = Trying.model_validate(body())
    document = wanted.tried(key)
    found = [
        _line(document, lane, number + 1) for number, lane in enumerate(resolve(document).working)
    ]
    known = {line["id"]: line["result"] for line in found}
    html = render_template("desk/working_lines.html", lines=found)
    names = render_template("desk/working_names.html", names=names_in_use(document, known))
    return answered({"html": html, "names": names, "count": len(found)})


def _line(document: Document, lane: ResolvedLane, number: int) -> dict[str, Any]:
    with limited(LINE):
        result = result_of(document, lane)
    typeset = _typeset(lane)
    value = None if result.why or result.kind in ("none", "parts", "answer") else lane.outcome.value
    return {
        "id": lane.lane.id,
        "number": number,
        "text": lane.lane.text,
        "name": lowered(lane.name or ""),
        "own": bool(lane.written and lane.written.name),
        "written": lane.lane.written,
        "again": SEED.sub(lambda at: f"{at[1]}{int(at[2]) + 1}{at[3]}", lane.lane.text),
        "turned": _is_complex(value),
        "matrix": isinstance(value, Grid),
        **typeset,
        "result": result,
        "copies": {
            "text": result.text,
            "LaTeX": as_latex(result),
            "CSV": as_csv(result),
            "MathML": typeset["mathml"],
        },
        "shown": _formula(result),
        "grid": _plain_matrix(lane),
    }


def _is_complex(value: Value | None) -> bool:
    """Whether a result is a complex number, or a list with some."""
    given = value.values if isinstance(value, Items) else (value,)
    return any(isinstance(one, Surd | acb) and not is_real(one) for one in given)


def _plain_matrix(lane: ResolvedLane) -> list[list[str]]:
    """The cells of a line that is a matrix of plain numbers, and would only stand there twice."""
    body = lane.written.body if lane.written else None
    if not isinstance(body, MatrixOf):
        return []
    if any(literal(entry) is None for row in body.rows for entry in row):
        return []
    words = catalogue.VOCABULARY
    return [[plain(entry, words) for entry in row] for row in body.rows]


def _formula(result: Result) -> dict[str, str]:
    if result.formula is None:
        return {}
    words = catalogue.VOCABULARY
    return {"latex": latex(result.formula, words), "mathml": mathml(result.formula, words)}


def _typeset(lane: ResolvedLane) -> dict[str, str]:
    if lane.written is None:
        return {"latex": "", "mathml": ""}
    words = catalogue.VOCABULARY
    return {
        "latex": latex_statement(lane.written, words, None),
        "mathml": mathml_statement(lane.written, words, None),
    }
