"""What the shelf calls: rename, duplicate, delete, restore."""

from __future__ import annotations

from flask import Blueprint, redirect, request, url_for
from flask.typing import ResponseReturnValue

from axispath.core.path.edited import edited
from axispath.core.sheet.edits import Rename
from axispath.store import sheets
from axispath.store.sheets import NotFound
from axispath.web.person import current_person, store

blueprint = Blueprint("shelf_api", __name__, url_prefix="/shelf")


@blueprint.post("/<sheet_id>/<any(rename, duplicate, delete, restore, destroy):action>")
def act(sheet_id: str, action: str) -> ResponseReturnValue:
    """One of the shelf's buttons."""
    person = current_person()
    if person is None:
        raise NotFound
    with store().transaction() as database:
        match action:
            case "rename":
                found = sheets.open_sheet(database, person, sheet_id)
                rename = Rename(name=request.form.get("name", ""))
                steps = edited(found.document, [rename], None)
                sheets.change(database, person, sheet_id, found.head, steps)
            case "duplicate":
                sheets.duplicate(database, person, sheet_id)
            case "destroy":
                sheets.destroy(database, person, sheet_id)
            case _:
                sheets.set_deleted(database, person, sheet_id, action == "delete")
    return redirect(
        url_for("pages.shelf", _anchor="deleted" if action in ("delete", "destroy") else None)
    )
