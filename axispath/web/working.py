"""The page Working: lines of calculation with their results."""

from __future__ import annotations

from flask import Blueprint, Response, render_template

from axispath.core import catalogue
from axispath.core.language.latex import latex_statement
from axispath.core.language.mathml import mathml_statement
from axispath.core.language.names import lowered
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.working import result_of
from axispath.web.asked import Trying, answered, body
from axispath.web.computing import computed

blueprint = Blueprint("working", __name__, url_prefix="/api")


@blueprint.post("/sheets/<key>/working")
@computed(shared=False)
def lines(key: str) -> Response:
    """All lines with their results, as HTML."""
    wanted = Trying.model_validate(body())
    document = wanted.tried(key)
    found = [
        {
            "id": lane.lane.id,
            "text": lane.lane.text,
            "name": lowered(lane.name or ""),
            "own": bool(lane.statement and lane.statement.name),
            **_typeset(lane),
            "result": result_of(document, lane),
        }
        for lane in resolve(document).working
    ]
    html = render_template("desk/working_lines.html", lines=found)
    return answered({"html": html, "count": len(found)})


def _typeset(lane: ResolvedLane) -> dict[str, str]:
    if lane.written is None:
        return {"latex": "", "mathml": ""}
    words = catalogue.VOCABULARY
    return {
        "latex": latex_statement(lane.written, words, None),
        "mathml": mathml_statement(lane.written, words, None),
    }
