"""The page Working: lines of calculation with their results, and the names in use."""

from __future__ import annotations

import re
from typing import Any

from flask import Blueprint, Response, render_template

from axispath.core import catalogue
from axispath.core.language.latex import latex, latex_statement
from axispath.core.language.mathml import mathml, mathml_statement
from axispath.core.language.names import lowered
from axispath.core.language.tree import MatrixOf
from axispath.core.language.walking import literal
from axispath.core.quantities.scalars import is_real
from axispath.core.quantities.values import Grid, Items, Undefined
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.results.copies import as_csv, as_latex
from axispath.core.table.results.names import names_in_use
from axispath.core.table.results.result import Result, result_of
from axispath.web.asked import Trying, answered, body
from axispath.web.computing import computed

blueprint = Blueprint("working", __name__, url_prefix="/api")
SEED = re.compile(r"(\brandom(?:whole)?\([^()]*,\s*)(\d+)(\s*\))")


@blueprint.post("/sheets/<key>/working")
@computed(shared=False)
def lines(key: str) -> Response:
    """All lines with their results, and the names in use, as HTML."""
    wanted = Trying.model_validate(body())
    document = wanted.tried(key)
    found = [
        _line(document, lane, number + 1) for number, lane in enumerate(resolve(document).working)
    ]
    html = render_template("desk/working_lines.html", lines=found)
    names = render_template("desk/working_names.html", names=names_in_use(document))
    return answered({"html": html, "names": names, "count": len(found)})


def _line(document: Document, lane: ResolvedLane, number: int) -> dict[str, Any]:
    result = result_of(document, lane)
    return {
        "id": lane.lane.id,
        "number": number,
        "text": lane.lane.text,
        "name": lowered(lane.name or ""),
        "own": bool(lane.written and lane.written.name),
        "written": lane.lane.written,
        "again": SEED.sub(lambda at: f"{at[1]}{int(at[2]) + 1}{at[3]}", lane.lane.text),
        "turned": _is_complex(lane),
        "matrix": lane.outcome is not None and isinstance(lane.outcome.value, Grid),
        **_typeset(lane),
        "result": result,
        "copies": {"text": result.text, "LaTeX": as_latex(result), "CSV": as_csv(result)},
        "shown": _formula(result),
        "plain": _is_plain_matrix(lane),
    }


def _is_complex(lane: ResolvedLane) -> bool:
    """Whether a line is a complex number, or a list with some."""
    value = lane.outcome.value if lane.outcome else None
    if isinstance(value, Items):
        known = [one for one in value.values if not isinstance(one, Undefined)]
        return any(not is_real(one) for one in known)
    return value is not None and not isinstance(value, Grid) and lane.for_lines and _plain(value)


def _plain(value: object) -> bool:
    return hasattr(value, "imag") or hasattr(value, "terms")


def _is_plain_matrix(lane: ResolvedLane) -> bool:
    """Whether a line is a matrix of plain numbers, which would only stand there twice."""
    body = lane.written.body if lane.written else None
    if not isinstance(body, MatrixOf):
        return False
    return all(literal(entry) is not None for row in body.rows for entry in row)


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
