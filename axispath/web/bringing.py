"""Sheets brought in from files: all of a file, or nothing of it; and the schema of such files."""

from __future__ import annotations

from flask import Blueprint, Response, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from axispath.budgets import FRAMING
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.incoming import brought
from axispath.exchange.sheets.archive import Found, archive
from axispath.exchange.sheets.file import LARGEST, schema
from axispath.store import sheets
from axispath.web.asked import answered
from axispath.web.computing import ask
from axispath.web.pages import shelf_page
from axispath.web.person import own_person, person_for_change, remember_person, store
from axispath.work.kinds import LONG

blueprint = Blueprint("bringing", __name__)


def opened(data: bytes, name: str) -> Found | str:
    """The sheets of a file, or why there are none."""
    try:
        return brought(data, name, FRAMING)
    except EditRefused as reason:
        return str(reason)


@blueprint.post("/shelf/bring")
def bring() -> ResponseReturnValue:
    """Put the sheets of a file on the shelf, all together; what of it is none is told."""
    upload = request.files.get("file")
    data = upload.stream.read(LARGEST + 1) if upload is not None else b""
    if upload is None or not data:
        return shelf_page("Choose a file first.")
    found = ask(LONG, "shelf", "", opened, data, upload.filename or "")
    if isinstance(found, str):
        return shelf_page(found)
    with store().transaction() as database:
        person = person_for_change(database)
        made = [sheets.create(database, person, document) for document in found.documents]
    remember_person(person)
    if len(made) == 1 and not found.left:
        return redirect(url_for("pages.sheet", sheet_id=made[0].id))
    names = [one.name for one in found.documents]
    return render_template("brought.html", names=names, left=found.left)


@blueprint.get("/shelf/away")
def away() -> Response:
    """All sheets of the shelf as one ZIP."""
    person = own_person()
    with store().transaction() as database:
        kept = [one for one in sheets.shelf(database, person) if not one.deleted]
        found = [sheets.open_sheet(database, person, one.id).document for one in kept]
    data = ask(LONG, "shelf", "", archive, found)
    head = {"Content-Disposition": 'attachment; filename="sheets.zip"'}
    return Response(data, mimetype="application/zip", headers=head)


@blueprint.get("/schema/sheet-1.json")
def published() -> Response:
    """The JSON Schema of a sheet's file."""
    return answered(schema())
