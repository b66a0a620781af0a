"""What the scripts of a sheet call: edits, pictures, paths, readings and tables."""

from __future__ import annotations

from typing import Annotated

import orjson
from flask import Blueprint, Response, render_template, request
from pydantic import BaseModel, ConfigDict, Field

from axispath.core.path.lanes import Range
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import EDITS, Edit, apply, with_view
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.store import sheets
from axispath.store.sheets import NotFound, Opened
from axispath.web import landmarks, present
from axispath.web.exact import forms as exact_forms
from axispath.web.person import current_person, person_for_change, remember_person, store
from axispath.web.picture import encoded_picture
from axispath.web.reading_back import read_back
from axispath.web.source import BLANK, DEMO, document_at, opened, remember

blueprint = Blueprint("api", __name__, url_prefix="/api")
Typed = Annotated[str, Field(max_length=200)]
Pixels = Annotated[int, Field(ge=40, le=4000)]


class _Request(BaseModel):
    model_config = ConfigDict(extra="forbid")


class Trying(_Request):
    """A look at a sheet with edits that are being tried out and are not stored."""

    head: int
    preview: Annotated[list[Annotated[Edit, Field(discriminator="do")]], Field(max_length=20)] = []

    def tried(self, key: str) -> Document:
        """The document with these edits."""
        found = document_at(key, self.head)
        for edit in self.preview:
            found = apply(found, edit)
        return found


class Looking(Trying):
    """A look at a sheet through a view."""

    view: View

    def document(self, key: str) -> Document:
        """The document looked at."""
        return with_view(self.tried(key), self.view)


class Searching(Looking):
    """A look for landmarks, on a part of the axis where ends are typed."""

    low: Typed = ""
    high: Typed = ""
    longer: bool = False
    moving: bool = False

    def range(self, document: Document) -> Range | None:
        """The part of the axis; None for all of the view or the domains."""
        if not self.low.strip() and not self.high.strip():
            return None
        ends = (
            typed_end(document, self.low or repr(document.view.left)),
            typed_end(document, self.high or repr(document.view.right)),
        )
        if not ends[0].ball < ends[1].ball:
            raise EditRefused("The interval is empty: its start is not below its end.")
        return ends


class Picturing(Looking):
    """A look at a certain size in pixels."""

    width: Pixels
    height: Pixels


class Reading(Trying):
    """A look at one x."""

    x: Annotated[float, Field(allow_inf_nan=False)]


class Previewing(_Request):
    """A line that is being typed."""

    head: int
    text: Annotated[str, Field(max_length=6000)]


class Tabulating(Trying):
    """A page of the table of values."""

    page: Annotated[int, Field(ge=0, le=10_000)] = 0


def answered(found: object) -> Response:
    """A JSON answer."""
    data = orjson.dumps(found, option=orjson.OPT_SERIALIZE_NUMPY)
    return Response(data, mimetype="application/json")


def body() -> dict[str, object]:
    """The request as a JSON object."""
    try:
        found = orjson.loads(request.get_data())
    except orjson.JSONDecodeError as error:
        raise EditRefused("This request is not valid JSON.") from error
    if not isinstance(found, dict):
        raise EditRefused("This request is not a JSON object.")
    return found


def seen_revision(found: dict[str, object]) -> int:
    """The revision that a change is about."""
    base = found.get("base")
    if not isinstance(base, int) or isinstance(base, bool) or abs(base) > 2**31:
        raise EditRefused("This request does not say which revision it is about.")
    return base


def base_and_edits(found: dict[str, object]) -> tuple[int, list[Edit]]:
    """The revision that was seen and the edits made to it."""
    return seen_revision(found), EDITS.validate_python(found.get("edits"))


def _state(found: Opened, told: str = "") -> Response:
    remember(found)
    return answered({**present.state(found), "told": told})


@blueprint.post("/sheets")
def start_sheet() -> Response:
    """The first change to a blank or a demo sheet: it becomes a sheet of this person's own."""
    given = body()
    source = str(given.get("source") or BLANK)
    if source != BLANK and not source.startswith(DEMO):
        raise NotFound
    document = opened(source).document
    if "view" in given:
        document = with_view(document, View.model_validate(given["view"]))
    edits = EDITS.validate_python(given.get("edits"))
    with store().transaction() as database:
        person = person_for_change(database)
        found = sheets.create(database, person, document, edits)
    remember_person(person)
    return _state(found)


@blueprint.post("/sheets/<sheet_id>/edits")
def edit_sheet(sheet_id: str) -> Response:
    """Apply edits, all or none."""
    base, edits = base_and_edits(body())
    before = document_at(sheet_id, base)
    with store().transaction() as database:
        found = sheets.change(database, _person(), sheet_id, base, edits)
    return _state(found, present.told_of_waiting(before, found.document, edits))


@blueprint.post("/sheets/<sheet_id>/branch")
def branch_sheet(sheet_id: str) -> Response:
    """Keep edits that came too late as a sheet of their own."""
    base, edits = base_and_edits(body())
    with store().transaction() as database:
        found = sheets.branch(database, _person(), sheet_id, base, edits)
    return _state(found)


@blueprint.post("/sheets/<sheet_id>/<any(undo, redo):direction>")
def step(sheet_id: str, direction: str) -> Response:
    """One step back or forward in the history."""
    base = seen_revision(body())
    move = sheets.undo if direction == "undo" else sheets.redo
    with store().transaction() as database:
        found = move(database, _person(), sheet_id, base)
    return _state(found)


@blueprint.get("/sheets/<sheet_id>")
def read_sheet(sheet_id: str) -> Response:
    """The sheet as it is now."""
    return _state(opened(sheet_id))


@blueprint.put("/sheets/<sheet_id>/view")
def look(sheet_id: str) -> Response:
    """Remember the view."""
    view = View.model_validate(body())
    with store().transaction() as database:
        sheets.set_view(database, _person(), sheet_id, view)
    return answered({"ok": True})


@blueprint.post("/sheets/<key>/picture")
def picture(key: str) -> Response:
    """The curves of a view: see picture.py for the format."""
    wanted = Picturing.model_validate(body())
    sheet = resolve(wanted.document(key))
    data = encoded_picture(sheet, wanted.view, wanted.width, wanted.height)
    return Response(data, mimetype="application/octet-stream")


@blueprint.post("/sheets/<key>/path")
def path(key: str) -> Response:
    """The paths of all lanes in a view, for strips, plot and the Landmarks page."""
    wanted = Searching.model_validate(body())
    document = wanted.document(key)
    effort = landmarks.LONG if wanted.longer else landmarks.USUAL
    if wanted.moving:
        effort = None
    found = landmarks.landmarks(document, effort, wanted.range(document))
    page = render_template("parts/landmarks.html", page=found)
    return answered(
        {
            "lanes": found.lanes,
            "crossings": found.crossings,
            "landmarks": page,
            "explanation": found.explanation,
            "canFrame": found.can_frame,
            "words": found.words,
            "settled": found.settled,
        }
    )


@blueprint.post("/sheets/<key>/landmarks.csv")
def landmarks_csv(key: str) -> Response:
    """The same landmarks at full precision."""
    wanted = Searching.model_validate(body())
    document = wanted.document(key)
    text = landmarks.as_csv(document, landmarks.USUAL, wanted.range(document))
    return Response(text, mimetype="text/csv")


@blueprint.post("/sheets/<key>/exact")
def exact(key: str) -> Response:
    """Exact forms of the same landmarks, as far as they are found in time."""
    wanted = Searching.model_validate(body())
    document = wanted.document(key)
    return answered(exact_forms(document, wanted.range(document)))


@blueprint.post("/sheets/<key>/reading")
def reading(key: str) -> Response:
    """The values of all lanes at one x."""
    wanted = Reading.model_validate(body())
    return answered(present.reading(wanted.tried(key), wanted.x))


@blueprint.post("/sheets/<key>/values")
def values(key: str) -> Response:
    """A page of the table of values."""
    wanted = Tabulating.model_validate(body())
    table = present.table(wanted.tried(key), wanted.page)
    return answered({"html": render_template("parts/table.html", table=table)})


@blueprint.post("/sheets/<key>/preview")
def preview(key: str) -> Response:
    """How a line would be read, before it is put on the sheet."""
    wanted = Previewing.model_validate(body())
    return answered(read_back(document_at(key, wanted.head), wanted.text))


@blueprint.post("/sheets/<key>/frame")
def frame(key: str) -> Response:
    """A view that shows what matters."""
    head = body().get("head")
    document = document_at(key, head if isinstance(head, int) else 0)
    return answered(present.framed(document).model_dump())


@blueprint.post("/sheets/<key>/limits")
def limits(key: str) -> Response:
    """A view from typed limits, which may be formulas such as −2π."""
    given = body()
    head = given.get("head")
    document = document_at(key, head if isinstance(head, int) else 0)
    return answered(_typed_view(document, given).model_dump())


def _typed_view(document: Document, given: dict[str, object]) -> View:
    names = ("left", "right", "bottom", "top")
    found = {name: present.limit(document, str(given.get(name, ""))[:200], name) for name in names}
    return View(**found, chosen=True)


def _person() -> str:
    person = current_person()
    if person is None:
        raise NotFound
    return person
