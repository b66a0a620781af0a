"""What the scripts of a sheet send: requests as checked values."""

from __future__ import annotations

import re
from collections.abc import Callable, Container
from typing import Annotated, Literal

import orjson
from flask import Response, request
from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from axispath.core.path.lanes import Range
from axispath.core.sheet.document import Document, LaneId, View
from axispath.core.sheet.edits import EDITS, Edit, Slide, apply, with_view
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.names import strange_sign
from axispath.core.sheet.practice import MOST_ROWS, Question, Ref
from axispath.core.sheet.refused import EditRefused
from axispath.exchange.formats import FORMATS, PARTS
from axispath.exchange.picture.sizes import Measure
from axispath.web.source import document_at

Typed = Annotated[str, Field(max_length=200)]
Place = Annotated[float, Field(allow_inf_nan=False)]
States = Annotated[list[Annotated[list[Slide], Field(max_length=20)]], Field(max_length=80)]
Coming = Annotated[
    list[Annotated[list[Slide], Field(min_length=1, max_length=20)]],
    Field(min_length=1, max_length=64),
]
Revision = Annotated[int, Field(ge=0, lt=2**31, strict=True)]
ChangeName = Annotated[str, Field(pattern=r"^([0-9a-f]{32,64})?$")]
Pixels = Annotated[int, Field(ge=40, le=4000)]


class Request(BaseModel):
    """A request with no field but its own."""

    model_config = ConfigDict(extra="forbid")


class Trying(Request):
    """A look at a sheet with edits that are being tried out and are not stored."""

    head: Revision
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
    """A look for landmarks, on a part of the axis where ends are typed.

    Without the ``page`` they are for plot and strips alone, while something moves. The page
    lists them by function, or all ``along`` x.
    """

    low: Typed = ""
    high: Typed = ""
    longer: bool = False
    moving: bool = False
    page: bool = True
    along: bool = False
    unfolded: Annotated[list[Typed], Field(max_length=200)] = []

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
    patient: bool = False
    only: Annotated[list[LaneId], Field(max_length=200)] = []


class Foreseeing(Looking):
    """A look at the states that sliders are going to be in, nearest first."""

    width: Pixels
    height: Pixels
    states: Coming


class Following(Searching):
    """A look for landmarks in the states that sliders are going to be in, nearest first."""

    states: Coming


class Forming(Trying):
    """A look at the other forms of a function."""

    lane: LaneId


class Surfacing(Looking):
    """A look at one function of two variables from the side."""

    lane: LaneId


class Hearing(Looking):
    """A function to be heard, over the view or a part of it."""

    lane: LaneId
    low: Place | None = None
    high: Place | None = None


class Reading(Trying):
    """A look at one x, given or typed, perhaps against a second one that is held.

    The tangent and the area are those of a lane; the area may be to another one.
    """

    x: Place = 0.0
    typed: Typed = ""
    held: Place | None = None
    tangent: LaneId | Literal[""] = ""
    area: LaneId | Literal[""] = ""
    against: LaneId | Literal[""] = ""


class Spotting(Looking):
    """A look at one place of the plane; y is given or typed."""

    x: Place
    y: Place = 0.0
    typed: Typed = ""


class Trailing(Picturing):
    """A look at what lanes left behind: states of the sliders that were passed."""

    states: States = []


class Framing(Trying):
    """A wish for a view that shows one lane, or all."""

    lane: LaneId | Literal[""] = ""


class Previewing(Request):
    """A line that is being typed."""

    head: Revision
    text: Annotated[str, Field(max_length=6000)]


class Tabulating(Trying):
    """Rows of a table of values: from the first on, or around a place."""

    table: LaneId | Literal[""] = ""
    first: Annotated[int, Field(ge=0, le=1_000_000)] = 0
    count: Annotated[int, Field(ge=1, le=400)] = 100
    near: Place | None = None
    view: View | None = None

    def document(self, key: str) -> Document:
        """The document, in the view where rows are landmarks."""
        found = self.tried(key)
        return with_view(found, self.view) if self.view is not None else found


class TableText(Tabulating):
    """A whole table as text."""

    separator: Literal[",", "\t"] = ","


class Finer(Tabulating):
    """A stretch between a row and the next, to be made finer."""

    row: Annotated[int, Field(ge=0, le=1_000_000)]


class Numbers(Request):
    """Numbers out of a file."""

    text: Annotated[str, Field(max_length=150_000)]


class Solving(Looking):
    """An equation with its unknown and its interval as typed."""

    text: Annotated[str, Field(max_length=6000)]
    unknown: Annotated[str, Field(max_length=120)] = ""
    low: Typed = ""
    high: Typed = ""
    longer: bool = False


class Watching(Solving):
    """A method to be watched, from its starts."""

    method: Annotated[str, Field(max_length=20)]
    start: Typed = ""
    second: Typed = ""


class Guessing(Looking):
    """A guess at a covered landmark: where the plot was clicked, or what was typed."""

    x: Place = 0.0
    y: Place | None = None
    typed: Typed = ""
    group: Annotated[str, Field(max_length=40)] = ""
    lane: LaneId | Literal[""] = ""
    change: ChangeName = ""


class Hinting(Looking):
    """A wish for a hint at what is covered."""

    step: Annotated[int, Field(ge=0, le=10)] = 0
    group: Annotated[str, Field(max_length=40)] = ""
    lane: LaneId | Literal[""] = ""
    change: ChangeName = ""


class Naming(Request):
    """The name that somebody answers under."""

    name: Annotated[str, Field(max_length=200)] = ""


class Reporting(Request):
    """What the page of a sealed sheet says of itself."""

    kind: Annotated[str, Field(max_length=20)]
    detail: Annotated[str, Field(max_length=120)] = ""


class LockReport(Request):
    """What a managing device says: signed with the key of the hand-out, at seconds since 1970."""

    sitting: Annotated[str, Field(max_length=24)]
    locked: bool
    at: Annotated[int, Field(ge=0, lt=2**40)]
    signature: Annotated[str, Field(max_length=64)]


class Replying(Looking):
    """An answer to a question of the sheet, or to one that is being written."""

    question: Ref = ""
    writing: Question | None = None
    text: Annotated[str, Field(max_length=2000)] = ""
    rows: Annotated[list[Typed], Field(max_length=MOST_ROWS)] = []
    change: ChangeName = ""


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
    refuse_strange(found)
    return found


def refuse_strange(found: object) -> None:
    """Signs that no page, file or database can hold are refused wherever they stand."""
    sign = strange_sign(found)
    if sign:
        raise EditRefused(f"There is a sign here that cannot be shown ({sign}).")


def revision(text: str) -> int:
    """A number of a revision, or of anything that is counted. Raises ValueError."""
    number = int(text) if text.isascii() and len(text) < 11 else -1
    if not 0 <= number < 2**31:
        raise ValueError(text)
    return number


def seen_revision(found: dict[str, object], name: str = "base") -> int:
    """The revision that a request is about."""
    base = found.get(name)
    if not isinstance(base, int) or isinstance(base, bool) or not 0 <= base < 2**31:
        raise EditRefused("This request does not say which revision it is about.")
    return base


_NAME = re.compile(r"[0-9a-f]{32,64}")


def named_change(found: dict[str, object]) -> str:
    """The name that a page gave a change; empty where it gave none."""
    name = found.get("change", "")
    if name and not (isinstance(name, str) and _NAME.fullmatch(name)):
        raise EditRefused("This request has no proper name.")
    return str(name or "")


def base_and_edits(found: dict[str, object]) -> tuple[int, list[Edit]]:
    """The revision that was seen and the edits made to it."""
    return seen_revision(found), EDITS.validate_python(found.get("edits"))


def _one_of(register: Container[str], what: str) -> Callable[[str], str]:
    def checked(name: str) -> str:
        if name not in register:
            raise ValueError(f"There is no {what} “{name[:40]}”.")
        return name

    return checked


FormatName = Annotated[str, AfterValidator(_one_of(FORMATS, "format"))]
PartName = Annotated[str, AfterValidator(_one_of(PARTS, "part of a sheet"))]


class Taking(Searching):
    """A picture of the plot, or the whole sheet, to take away."""

    format: FormatName = "png"
    parts: Annotated[list[PartName], Field(max_length=len(PARTS))] = list(PARTS)
    width: Annotated[float, Field(gt=0, le=100_000)] = 1200
    height: Annotated[float, Field(gt=0, le=100_000)] = 750
    measure: Measure = "pixels"
    scale: Annotated[float, Field(ge=1, le=4)] = 1.0
    theme: Literal["light", "dark"] = "light"
    clear: bool = False
    pinned: Annotated[list[Annotated[str, Field(max_length=80)]], Field(max_length=2000)] = []
    states: States = []
    reading: Place | None = None
    held: Place | None = None
    tangent: LaneId | Literal[""] = ""
    area: LaneId | Literal[""] = ""
    against: LaneId | Literal[""] = ""


class TakingMany(BaseModel):
    """Several sheets of the shelf to take away, each as a file."""

    model_config = ConfigDict(extra="forbid")

    sheets: Annotated[
        list[Annotated[str, Field(max_length=40)]], Field(min_length=1, max_length=200)
    ]
    format: FormatName = "sheet"
