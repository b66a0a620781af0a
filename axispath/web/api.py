"""What the scripts of a sheet call: edits, pictures, paths, readings and tables."""

from __future__ import annotations

from collections.abc import Callable

from flask import Blueprint, Response, render_template
from sqlalchemy.orm import Session

from axispath.budgets import USUAL_SEARCH
from axispath.core.path.called import CERTAINTY, KIND_NAMES
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import EDITS, with_view
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.states import States
from axispath.core.table.rows import stretch
from axispath.exchange.landmarks import landmarks_csv
from axispath.exchange.numbers import numbers_from
from axispath.exchange.table import table_text
from axispath.store import handouts, sheets
from axispath.store.receipts import carried_out, once
from axispath.store.sheets import Conflict, NotFound, Opened
from axispath.web import computing, present, tables
from axispath.web import reading as reading_card
from axispath.web.asked import (
    Finer,
    Following,
    Foreseeing,
    Forming,
    Framing,
    Numbers,
    Picturing,
    Previewing,
    Reading,
    Searching,
    Spotting,
    Surfacing,
    TableText,
    Tabulating,
    Trailing,
    answered,
    base_and_edits,
    body,
    named_change,
    seen_revision,
)
from axispath.web.computing import computed, patient
from axispath.web.exact import forms as exact_forms
from axispath.web.inside import UNFINISHED
from axispath.web.landmarks.forms import forms as forms_of_lane
from axispath.web.landmarks.page import landmarks
from axispath.web.landmarks.searching import looked
from axispath.web.landmarks.wire import marks_in_states, marks_only
from axispath.web.person import made_once, own_person, remember_person, store
from axispath.web.picture import encoded_frames, encoded_picture, encoded_trails, frame_of
from axispath.web.reading_back import read_back
from axispath.web.source import BLANK, DEMO, LINK, document_at, opened, remember
from axispath.web.spot import spot as spot_of
from axispath.web.surface import surface as surface_of
from axispath.work.kinds import EXACT, LONG
from axispath.work.protocol import PARTS

blueprint = Blueprint("api", __name__, url_prefix="/api")


def _state(found: Opened, **told: str) -> Response:
    remember(found)
    shown = computing.payload(found.document, found.id)
    return answered({**present.state(found, shown), "told": "", **told})


@blueprint.post("/sheets")
def start_sheet() -> Response:
    """The first change to a blank or a demo sheet: it becomes a sheet of this person's own.

    The first turn in a hand-out is kept for its visitor, and on no shelf.
    """
    given = body()
    source = str(given.get("source") or BLANK)
    if source != BLANK and not source.startswith((DEMO, LINK)):
        raise NotFound
    document = opened(source).document
    if "view" in given:
        document = with_view(document, View.model_validate(given["view"]))
    edits = EDITS.validate_python(given.get("edits"))
    steps = computing.steps(document, edits, source)
    with store().transaction() as database:
        found, person = made_once(
            database,
            named_change(given),
            lambda mine: (
                handouts.turned(database, mine, source.removeprefix(LINK), steps)
                if source.startswith(LINK)
                else sheets.create(database, mine, document, steps)
            ),
        )
    remember_person(person)
    return _state(found, **present.gone_to(document, found.document, edits))


@blueprint.post("/sheets/<sheet_id>/edits")
def edit_sheet(sheet_id: str) -> Response:
    """Apply edits, all or none."""
    given = body()
    base, edits = base_and_edits(given)
    before = opened(sheet_id)
    if before.head != base:
        # The sheet may have moved on by this very change, sent before.
        found = _known(given)
        if found is None:
            raise Conflict(before.head)
        return _state(found)
    steps = computing.steps(before.document, edits, sheet_id)
    found = _carried_out(given, lambda at, mine: sheets.change(at, mine, sheet_id, base, steps))
    told = computing.told_of_waiting(before.document, found.document, edits, sheet_id)
    gone = present.gone_to(before.document, found.document, edits)
    return _state(found, **({"told": told} if told else gone))


@blueprint.post("/sheets/<sheet_id>/branch")
def branch_sheet(sheet_id: str) -> Response:
    """Keep edits that came too late as a sheet of their own."""
    given = body()
    base, edits = base_and_edits(given)
    before = sheets.copy_of(document_at(sheet_id, base))
    steps = computing.steps(before, edits, sheet_id)
    return _state(_carried_out(given, lambda at, mine: sheets.create(at, mine, before, steps)))


@blueprint.post("/sheets/<sheet_id>/<any(undo, redo):direction>")
def step(sheet_id: str, direction: str) -> Response:
    """One step back or forward in the history."""
    given = body()
    base = seen_revision(given)
    move = sheets.undo if direction == "undo" else sheets.redo
    return _state(_carried_out(given, lambda at, mine: move(at, mine, sheet_id, base)))


@blueprint.get("/sheets/<sheet_id>")
def read_sheet(sheet_id: str) -> Response:
    """The sheet as it is now."""
    return _state(opened(sheet_id))


@blueprint.put("/sheets/<sheet_id>/view")
def look(sheet_id: str) -> Response:
    """Remember the view."""
    view = View.model_validate(body())
    with store().transaction() as database:
        sheets.set_view(database, own_person(), sheet_id, view)
    return answered({"ok": True})


@blueprint.post("/sheets/<key>/picture")
@computed(patient, shared=False)
def picture(key: str) -> Response:
    """The curves of a view: see picture.py for the format."""
    wanted = Picturing.model_validate(body())
    document = wanted.tried(key)
    frame = frame_of(wanted.view, wanted.width, wanted.height)
    data = encoded_picture(document, resolve(document), frame, wanted.patient, wanted.only)
    return Response(data, mimetype="application/octet-stream")


@blueprint.post("/sheets/<key>/frames")
@computed(shared=False)
def frames(key: str) -> Response:
    """The curves of a view in states that are going to show, in the same format."""
    wanted = Foreseeing.model_validate(body())
    frame = frame_of(wanted.view, wanted.width, wanted.height)
    data = encoded_frames(States(wanted.tried(key), wanted.states), frame)
    return Response(data, mimetype="application/octet-stream")


@blueprint.post("/sheets/<key>/trails")
@computed(shared=False)
def trails(key: str) -> Response:
    """What lanes with a trail left behind, in the same format."""
    wanted = Trailing.model_validate(body())
    frame = frame_of(wanted.view, wanted.width, wanted.height)
    data = encoded_trails(frame, wanted.view, wanted.tried(key), wanted.states)
    return Response(data, mimetype="application/octet-stream")


@blueprint.post("/sheets/<key>/path")
@computed(patient)
def path(key: str) -> Response:
    """The paths of all lanes in a view, for strips, plot and the Landmarks page."""
    wanted = Searching.model_validate(body())
    document = wanted.document(key)
    if not wanted.page:
        return answered(marks_only(document, wanted.range(document)))
    found = landmarks(
        document,
        wanted.moving,
        wanted.longer,
        wanted.range(document),
        wanted.along,
        wanted.unfolded,
    )
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
            "goesOn": found.goes_on,
        }
    )


@blueprint.post("/sheets/<key>/marks")
@computed(shared=False)
def marks(key: str) -> Response:
    """Landmarks in states that are going to show, for strips and plot."""
    wanted = Following.model_validate(body())
    document = wanted.document(key)
    states = States(document, wanted.states)
    return answered(marks_in_states(states, document.view, wanted.range(document)))


@blueprint.post("/sheets/<key>/landmarks.csv")
@computed(patient)
def landmarks_file(key: str) -> Response:
    """The same landmarks at full precision."""
    wanted = Searching.model_validate(body())
    document = wanted.document(key)
    found = looked(document, wanted.longer, wanted.range(document))
    text = landmarks_csv(found, KIND_NAMES, CERTAINTY)
    return Response(text, mimetype="text/csv")


@blueprint.post("/sheets/<key>/exact")
@computed(EXACT)
def exact(key: str) -> Response:
    """Exact forms of the same landmarks, as far as they are found in time."""
    wanted = Searching.model_validate(body())
    document = wanted.document(key)
    found = exact_forms(document, wanted.longer, wanted.range(document))
    response = answered(found)
    if found["late"]:
        response.headers[UNFINISHED] = "1"
    return response


@blueprint.post("/sheets/<key>/forms")
@computed(shared=False)
def forms(key: str) -> Response:
    """The other forms of a function, as they stand below its landmarks."""
    wanted = Forming.model_validate(body())
    document = wanted.tried(key)
    lane = resolve(document).lane(wanted.lane)
    if lane is None:
        raise EditRefused("This lane is not there any more.")
    found = forms_of_lane(document, lane)
    return answered({"forms": render_template("parts/forms.html", forms=found, lane=lane)})


@blueprint.post("/sheets/<key>/reading")
@computed(shared=False)
def reading(key: str) -> Response:
    """The values of all lanes at one x."""
    wanted = Reading.model_validate(body())
    document = wanted.tried(key)
    x = typed_end(document, wanted.typed).x if wanted.typed.strip() else wanted.x
    found = reading_card.reading(document, x, wanted.held)
    if wanted.tangent:
        found["tangent"] = reading_card.tangent(document, wanted.tangent, x)
    if wanted.area and wanted.held is not None:
        ends = (wanted.held, x)
        found["area"] = reading_card.area(document, wanted.area, wanted.against, ends)
    return answered(found)


@blueprint.post("/sheets/<key>/spot")
@computed(shared=False)
def spot(key: str) -> Response:
    """What lanes are at one place of the plane."""
    wanted = Spotting.model_validate(body())
    document = wanted.document(key)
    y = typed_end(document, wanted.typed).x if wanted.typed.strip() else wanted.y
    return answered(spot_of(document, wanted.x, y))


@blueprint.post("/sheets/<key>/surface")
@computed(patient)
def surface(key: str) -> Response:
    """A function of two variables as a surface over the view."""
    wanted = Surfacing.model_validate(body())
    return answered(surface_of(wanted.document(key), wanted.lane))


@blueprint.post("/sheets/<key>/values")
@computed()
def values(key: str) -> Response:
    """Some rows of a table of values."""
    wanted = Tabulating.model_validate(body())
    document = wanted.document(key)
    table = document.table(wanted.table)
    return answered(tables.chunk(document, table, wanted.first, wanted.count, wanted.near))


@blueprint.post("/sheets/<key>/values.text")
@computed(LONG, lengthy=True)
def values_text(key: str, part: int | None = None) -> Response:
    """A whole table at full precision, or one part of it."""
    wanted = TableText.model_validate(body())
    document = wanted.document(key)
    text, parts = table_text(
        document, document.table(wanted.table), wanted.separator, USUAL_SEARCH, part
    )
    response = Response(text, mimetype="text/csv" if wanted.separator == "," else "text/plain")
    response.headers[PARTS] = str(parts)
    return response


@blueprint.post("/sheets/<key>/values/finer")
@computed()
def finer(key: str) -> Response:
    """The ends of a stretch as a table keeps them."""
    wanted = Finer.model_validate(body())
    document = wanted.document(key)
    return answered({"stretch": stretch(document, document.table(wanted.table), wanted.row)})


@blueprint.post("/sheets/<key>/values/points")
@computed()
def value_points(key: str) -> Response:
    """Rows that are shown as points on the plot."""
    wanted = Tabulating.model_validate(body())
    return answered(tables.points(wanted.document(key)))


@blueprint.post("/numbers")
@computed()
def numbers() -> Response:
    """A list of rows out of a file's text."""
    found = numbers_from(Numbers.model_validate(body()).text)
    return answered({"places": ", ".join(found), "count": len(found)})


@blueprint.post("/sheets/<key>/preview")
@computed()
def preview(key: str) -> Response:
    """How a line would be read, before it is put on the sheet."""
    wanted = Previewing.model_validate(body())
    return answered(read_back(document_at(key, wanted.head), wanted.text))


@blueprint.post("/sheets/<key>/frame")
@computed()
def frame(key: str) -> Response:
    """A view that shows what matters, of one lane or of all."""
    wanted = Framing.model_validate(body())
    return answered(present.framed(wanted.tried(key), wanted.lane).model_dump())


@blueprint.post("/sheets/<key>/limits")
@computed(shared=False)
def limits(key: str) -> Response:
    """A view from typed limits, which may be formulas such as −2π."""
    given = body()
    document = document_at(key, seen_revision(given, "head"))
    return answered(_typed_view(document, given).model_dump())


def _typed_view(document: Document, given: dict[str, object]) -> View:
    names = ("left", "right", "bottom", "top")
    found = {name: present.limit(document, str(given.get(name, ""))[:200], name) for name in names}
    return View(**found, chosen=True)


def _known(given: dict[str, object]) -> Opened | None:
    """The sheet of a change that was carried out before; None where it was not."""
    name = named_change(given)
    if not name:
        return None
    with store().transaction() as database:
        return carried_out(database, name)


def _carried_out(given: dict[str, object], work: Callable[[Session, str], Opened]) -> Opened:
    """A change to a sheet of this person, once however often it is sent."""
    with store().transaction() as database:
        return once(database, named_change(given), own_person, lambda mine: work(database, mine))[0]
