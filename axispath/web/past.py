"""The page History, and small pictures of sheets as they are and were."""

from __future__ import annotations

from flask import Blueprint, Response, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from axispath.core.sheet.compared import compared
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.formats import FORMATS, Choice, made
from axispath.exchange.picture.sizes import Size
from axispath.store import past
from axispath.web.asked import revision
from axispath.web.computing import ask, name_of
from axispath.web.person import own_person, store
from axispath.work.kinds import LONG

blueprint = Blueprint("past", __name__, url_prefix="/sheet")
SMALL = Size(360, 225, 1.0)
A_YEAR = "private, max-age=31536000, immutable"


def drawn(document: Document) -> bytes:
    """A small picture of a sheet."""
    return made(document, FORMATS["png"], Choice(size=SMALL))


@blueprint.get("/<sheet_id>/picture/<int(max=2147483647):number>.png")
def picture(sheet_id: str, number: int) -> Response:
    """A sheet at a revision; that never changes, so browsers keep it."""
    with store().transaction() as database:
        document = past.state(database, own_person(), sheet_id, number)
    data = ask(LONG, sheet_id, name_of("small picture", document), drawn, document)
    return Response(data, mimetype="image/png", headers={"Cache-Control": A_YEAR})


@blueprint.get("/<sheet_id>/history")
def listed(sheet_id: str) -> ResponseReturnValue:
    """The past of a sheet."""
    return _page(sheet_id)


def _page(sheet_id: str, trouble: str = "") -> str:
    before = request.args.get("before", type=revision)
    one, other = (request.args.get(name, type=revision) for name in ("from", "to"))
    with store().transaction() as database:
        person = own_person()
        found = past.past(database, person, sheet_id, before)
        document = past.state(database, person, sheet_id, found.head)
        both = None
        if one is not None and other is not None:
            both = [past.state(database, person, sheet_id, number) for number in (one, other)]
    # Where no two are chosen, the last change is marked.
    newest = [point.number for point in found.points[:2]]
    return render_template(
        "history.html",
        id=sheet_id,
        name=document.name,
        past=found,
        one=one if one is not None or len(newest) < 2 else newest[1],
        other=other if other is not None or not newest else newest[0],
        compared=compared(*both) if both else None,
        trouble=trouble,
        longest=past.LONGEST,
    )


@blueprint.post("/<sheet_id>/history/<int(max=2147483647):number>/<any(name, back, branch):action>")
def act(sheet_id: str, number: int, action: str) -> ResponseReturnValue:
    """Name a point, go back to it, or branch from it."""
    try:
        with store().transaction() as database:
            person = own_person()
            if action == "name":
                past.name(database, person, sheet_id, number, request.form.get("name", ""))
            elif action == "back":
                base = request.form.get("base", 0, type=revision)
                past.go_back(database, person, sheet_id, base, number)
                return redirect(url_for("pages.sheet", sheet_id=sheet_id))
            else:
                made = past.branch(database, person, sheet_id, number)
                return redirect(url_for("pages.sheet", sheet_id=made.id))
    except EditRefused as refused:
        return _page(sheet_id, refused.message), 422
    return redirect(url_for("past.listed", sheet_id=sheet_id))
