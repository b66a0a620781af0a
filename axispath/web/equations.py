"""Blocks of equations on the page Working: their answers, and tables over them."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, render_template

from axispath.budgets import BLOCK
from axispath.core.arithmetic.patience import OutOfTime, limited
from axispath.core.sheet.block import Block, Run
from axispath.core.sheet.document import Document, LaneId
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.results.blocks import run_table, told
from axispath.web.asked import Trying, answered, body
from axispath.web.computing import computed
from axispath.work.kinds import LONG

blueprint = Blueprint("equations", __name__, url_prefix="/api")


class Running(Trying):
    """A table in which a name runs through a block."""

    id: LaneId
    run: Run


@blueprint.post("/sheets/<key>/equations")
@computed(LONG, shared=False)
def blocks(key: str) -> Response:
    """All blocks with their answers, as HTML by their ids."""
    document = Trying.model_validate(body()).tried(key)
    with limited(BLOCK):
        lanes = resolve(document).blocks
    return answered({"blocks": [_block(document, lane, k) for k, lane in enumerate(lanes, 1)]})


def _block(document: Document, lane: ResolvedLane, number: int) -> dict[str, Any]:
    given = lane.lane.block or Block(text="")
    late = False
    found = None
    try:
        with limited(BLOCK):
            found = told(document, lane)
    except OutOfTime:
        late = True
    html = render_template(
        "desk/equations.html",
        id=lane.lane.id,
        block=found,
        given=given,
        late=late,
        rests=lane.lane.written.rests,
    )
    return {
        "id": lane.lane.id,
        "number": number,
        "block": given.model_dump(mode="json"),
        "rests": lane.lane.written.rests,
        "html": html,
        "latex": found.latex if found else "",
        "text": found.text if found else "",
    }


@blueprint.post("/sheets/<key>/equations/run")
@computed(LONG, shared=False)
def run(key: str) -> Response:
    """A table over a block, as HTML and as text."""
    wanted = Running.model_validate(body())
    document = wanted.tried(key)
    lane = resolve(document).lane(wanted.id)
    if lane is None or lane.lane.block is None:
        raise EditRefused("This block is not on the sheet any more.")
    try:
        with limited(BLOCK):
            table = run_table(document, lane, wanted.run)
    except OutOfTime as error:
        raise EditRefused("This table takes too long to compute: ask for fewer rows.") from error
    html = render_template("desk/equations_run.html", table=table)
    return answered({"html": html, "text": table.copied})
