"""What the shelf calls: rename, duplicate, delete, restore."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, redirect, request, url_for
from flask.typing import ResponseReturnValue
from sqlalchemy.orm import Session

from axispath.core.path.edited import edited
from axispath.core.sheet.edits import Rename
from axispath.core.sheet.refused import EditRefused
from axispath.store import sheets, shelf
from axispath.web.pages import shelf_page
from axispath.web.person import own_person, store

SHOWN = ("words", "label", "order", "look", "first")  # which part of the shelf is seen
blueprint = Blueprint("shelf_api", __name__, url_prefix="/shelf")


@blueprint.post("/chosen/<any(duplicate, delete, restore, destroy, label, unlabel):action>")
def act_on_many(action: str) -> ResponseReturnValue:
    """The same with all sheets that are chosen: all of them, or none."""
    person = own_person()
    chosen = request.form.getlist("sheet")[: sheets.MAX_SHEETS]
    try:
        if not chosen:
            raise EditRefused("Choose sheets first, by the boxes before their names.")
        with store().transaction() as database:
            for sheet_id in chosen:
                _act(database, person, sheet_id, action)
    except EditRefused as refused:
        return shelf_page(chosen_trouble=refused.message)
    shown = {name: request.form.get(f"shown_{name}", "")[:200] for name in SHOWN}
    given: dict[str, Any] = {name: text for name, text in shown.items() if text}
    return redirect(url_for("pages.shelf", **given))


def _act(database: Session, person: str, sheet_id: str, action: str) -> None:
    match action:
        case "duplicate":
            sheets.duplicate(database, person, sheet_id)
        case "destroy":
            sheets.destroy(database, person, sheet_id)
        case "label" | "unlabel":
            label = request.form.get("label", "")
            shelf.put_label(database, person, sheet_id, label, action == "label")
        case _:
            sheets.set_deleted(database, person, sheet_id, action == "delete")


@blueprint.post("/empty")
def empty() -> ResponseReturnValue:
    """Delete for good whatever was deleted."""
    person = own_person()
    with store().transaction() as database:
        shelf.empty(database, person)
    return redirect(url_for("pages.shelf"))


@blueprint.post("/<sheet_id>/<any(rename, duplicate, delete, restore, destroy):action>")
def act(sheet_id: str, action: str) -> ResponseReturnValue:
    """One of the shelf's buttons."""
    person = own_person()
    with store().transaction() as database:
        if action == "rename":
            found = sheets.open_sheet(database, person, sheet_id)
            rename = Rename(name=request.form.get("name", ""))
            steps = edited(found.document, [rename], None)
            sheets.change(database, person, sheet_id, found.head, steps)
        else:
            _act(database, person, sheet_id, action)
    return redirect(
        url_for("pages.shelf", _anchor="deleted" if action in ("delete", "destroy") else None)
    )
