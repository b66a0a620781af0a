"""From the core's values to what templates and scripts show."""

from __future__ import annotations

from collections.abc import Container, Iterator, Sequence
from dataclasses import asdict, dataclass, field, replace
from typing import Any

from flask import render_template

from axispath.budgets import FRAMING
from axispath.core import catalogue
from axispath.core.language.latex import latex_statement
from axispath.core.language.mathml import mathml_statement
from axispath.core.language.names import lowered
from axispath.core.language.numbers import listed
from axispath.core.language.rename import renamed
from axispath.core.language.rewriting import sought
from axispath.core.language.scope import Scope
from axispath.core.language.spelling import nearest
from axispath.core.language.tree import FunctionStatement
from axispath.core.path import framing
from axispath.core.path.kinds import FRAMED, SEARCHED
from axispath.core.sampling.kinds import DRAWN
from axispath.core.sheet.angles import seems_to_mean_degrees
from axispath.core.sheet.document import Document, Ground, Lane, Samples, Style, View
from axispath.core.sheet.edits import AddLane, Edit, RemoveLane
from axispath.core.sheet.edits.domain import plain_end
from axispath.core.sheet.edits.formed import form_of, wanted
from axispath.core.sheet.edits.lines import who_waits
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.table.kinds import AT_PLACE, READ
from axispath.core.table.rows import number
from axispath.exchange.names import file_name
from axispath.store.sheets import Opened
from axispath.web.ground import ground_view, own_colours
from axispath.web.kinds import FACES
from axispath.web.kinds.curve import CurveView
from axispath.web.kinds.number import SliderView
from axispath.web.kinds.register import Face


@dataclass(frozen=True)
class LaneView:
    """A lane as its template needs it."""

    id: str
    text: str
    name: str
    colour: int
    hidden: bool
    kind: str = "wrong"
    can: tuple[str, ...] = ()
    mathml: str = ""
    latex: str = ""
    low: str = ""
    high: str = ""
    below: str = "≤"
    under: str = "≤"
    variable: str = "x"
    note: str = ""
    missing: tuple[str, ...] = ()
    respelt: tuple[tuple[str, str], ...] = ()
    wrong: bool = False
    signature: str = ""
    slider: SliderView | None = None
    curve: CurveView | None = None
    comment: str = ""
    folded: bool = False
    style: Style = field(default_factory=Style)
    samples: Samples = field(default_factory=Samples)
    places: tuple[tuple[float, float], ...] = ()
    free: bool = False
    label: str = ""
    letters: tuple[str, ...] = ()
    polar: str = ""
    levels: str = ""
    solved: dict[str, tuple[str, ...]] = field(default_factory=dict)
    others: tuple[str, ...] = ()
    within: str = ""
    measured: dict[str, Any] = field(default_factory=dict)
    ticks: tuple[float, ...] = ()
    residuals: tuple[tuple[float, float], ...] = ()

    @property
    def face(self) -> Face:
        """How lanes of its kind look."""
        return FACES[self.kind]

    @property
    def domain(self) -> bool:
        """Whether it can have a domain."""
        return "domain" in self.can

    @property
    def swatch(self) -> str:
        """The classes of a short line in the lane's colour and dash."""
        return swatch_of(self.id, self.colour, self.style)


ABILITIES: dict[str, Container[str]] = {
    "drawn": DRAWN,
    "searched": SEARCHED,
    "framed": FRAMED,
    "read": READ,
    "place": AT_PLACE,
}
"""What scripts and templates ask of a lane, by the registers that answer."""


def abilities(lane: ResolvedLane) -> tuple[str, ...]:
    """What can be done with a lane."""
    found = [name for name, register in ABILITIES.items() if lane.can(register)]
    return tuple([*found, "domain"] if lane.kind.domain else found)


def lane_row(lane: LaneView) -> str:
    """A lane as HTML."""
    return render_template(lane.face.template, lane=lane)


def swatch_of(lane_id: str, colour: int, style: Style) -> str:
    """The classes of a short line in a lane's colour and dash; ``k-`` stands for its own."""
    dash = "" if style.dash == "usual" else f" d-{style.dash.replace(' ', '-')}"
    return f"swatch c{colour} k-{lane_id}{dash}"


def lane_view(document: Document, lane: ResolvedLane, scope: Scope) -> LaneView:
    """What the template of a lane shows; ``scope`` holds the names of its sheet."""
    base: dict[str, Any] = {
        "id": lane.lane.id,
        "text": lane.lane.text,
        "name": lane.name or "",
        "colour": lane.lane.colour,
        "hidden": lane.lane.hidden,
        "kind": lane.kind.key,
        "can": abilities(lane),
        "missing": lane.missing,
        "respelt": tuple(_respelt(lane, scope)),
        "note": FACES[lane.kind.key].note(lane, document.digits),
        "wrong": lane.error is not None,
        "signature": lane.kind.signature(lane) if lane.statement else "",
        "comment": lane.lane.note,
        "folded": lane.lane.folded,
        "style": lane.lane.style,
        "samples": lane.lane.samples,
        **FACES[lane.kind.key].more(document, lane),
    }
    if lane.written is None:
        return LaneView(**base)
    words = catalogue.VOCABULARY
    rule, domain = lane.written, lane.typed_domain
    if isinstance(rule, FunctionStatement) and lane.kind.domain:
        rule = replace(rule, domain=None)  # the domain has fields of its own beside the formula
    base["variable"] = lane.parameters[0] if lane.parameters else "x"
    return LaneView(
        **base,
        mathml=mathml_statement(rule, words, lane.name),
        latex=latex_statement(rule, words, lane.name),
        low=plain_end(domain.low) if domain else "",
        high=plain_end(domain.high) if domain else "",
        below="≤" if not domain or domain.low_closed or not domain.low else "<",
        under="≤" if not domain or domain.high_closed or not domain.high else "<",
    )


def _respelt(lane: ResolvedLane, scope: Scope) -> Iterator[tuple[str, str]]:
    """Known names that look like one the lane waits for, each with the line that uses it."""
    for name in lane.missing:
        near = nearest(name, scope)
        if near and near != lane.name and lane.statement is not None:
            yield near, renamed(lane.lane.text, lane.statement, name, near)


def lane_views(document: Document) -> list[LaneView]:
    """All lanes of a sheet as their template needs them."""
    scope = scope_of(document.lanes)
    return [lane_view(document, lane, scope) for lane in resolve(document) if not lane.lane.working]


def state(found: Opened, shown: dict[str, Any]) -> dict[str, Any]:
    """A sheet after an edit, for the scripts; ``shown`` is the payload of its document."""
    document = found.document
    return {
        **shown,
        "id": found.id,
        "handout": found.handout,
        "head": found.head,
        "undo": found.undo,
        "redo": found.redo,
        "name": document.name,
        "file": file_name(document.name, "x").removesuffix(".x"),
        "unit": document.unit,
        "notation": document.notation,
        "digits": document.digits,
        "measures": document.measures,
        "system": document.system,
        "cover": document.cover.model_dump(),
        "view": document.view.model_dump(),
        "tables": [table.model_dump() for table in document.tables],
        "equations": [equation.model_dump() for equation in document.equations],
    }


def payload(document: Document) -> dict[str, Any]:
    """All that has to be computed to show a document, whatever its view."""
    lanes = lane_views(document)
    return {
        "ground": ground_view(document, [x for x in lanes if "drawn" in x.can and not x.hidden]),
        "question": seems_to_mean_degrees(document),
        "lanes": [
            {**scripted, "html": lane_row(lane)}
            for lane, scripted in zip(lanes, scripted_lanes(document, lanes), strict=True)
        ],
    }


def plain_payload(document: Document, why: str) -> dict[str, Any]:
    """The same without anything computed: the lines as they were typed, to be mended."""
    plain = document.model_copy(update={"ground": Ground()})
    lanes = [
        LaneView(
            lane.id,
            lane.text,
            "",
            lane.colour,
            lane.hidden,
            note=why,
            wrong=True,
            comment=lane.note,
            folded=lane.folded,
            style=lane.style,
            samples=lane.samples,
        )
        for lane in document.shown_lanes
    ]
    return {
        "ground": ground_view(plain, []),
        "question": "",
        "lanes": [
            {**_scripted(view, lane), "html": lane_row(view)}
            for view, lane in zip(lanes, document.shown_lanes, strict=True)
        ],
    }


def scripted_lanes(document: Document, lanes: list[LaneView]) -> list[dict[str, Any]]:
    """The lanes of a document for the scripts that draw them."""
    return [_scripted(view, lane) for view, lane in zip(lanes, document.shown_lanes, strict=True)]


def _scripted(view: LaneView, lane: Lane) -> dict[str, Any]:
    return {
        "id": view.id,
        "name": view.name,
        "colour": view.colour,
        "hidden": view.hidden,
        "kind": view.kind,
        "strip": view.face.strip,
        "can": list(view.can),
        "signature": view.signature,
        "slider": asdict(view.slider) if view.slider else None,
        "style": view.style.model_dump(),
        "variable": view.variable,
        "sampled": bool(view.samples.by),
        "places": view.places,
        "ticks": view.ticks,
        "residuals": view.residuals,
        "free": view.free,
        "label": view.label or lowered(view.name),
        "own": own_colours(lane),
    }


def takes_away(edits: Sequence[Edit]) -> bool:
    """Whether edits may leave lanes without something that they need."""
    return any(isinstance(edit, RemoveLane) for edit in edits)


def gone_to(before: Document, after: Document, edits: Sequence[Edit]) -> dict[str, str]:
    """Where a line has gone that was typed as a lane and is none: what is told, and the page."""
    # A line that was kept as it is has gone nowhere.
    typed = [edit.text for edit in edits if isinstance(edit, AddLane) and not edit.keep]
    if not typed:
        return {}
    was = {lane.id for lane in before.lanes}
    new = [lane for lane in after.lanes if lane.working and lane.id not in was]
    listed_as = sought(typed[-1])
    if listed_as is not None and not new and after != before:
        return {"told": f"Its {listed_as[0]}: see the list of landmarks.", "page": "landmarks"}
    form = wanted(typed[-1])
    if form is not None and len(after.lanes) > len(before.lanes):
        return {"told": _told_of_form(resolve(after).lanes[-1], form), "page": "landmarks"}
    if not new:
        return {}
    what = "This is a calculation: its line and its result stand on the page Working."
    if new[-1].block is not None:
        what = "These are several equations: they stand as a block on the page Working."
    return {"told": what, "page": "working"}


def _told_of_form(lane: ResolvedLane, form: tuple[str, tuple[str, ...], str]) -> str:
    """What a form that was asked for equals; its kin stand below the list of landmarks."""
    _, names, formula = form
    more = "Its other forms stand below its landmarks."
    found = form_of(lane, names)
    if found is not None and found.condition:
        return f"{formula} = {found.text} {found.condition}. {more}"
    return f"{formula} = {lane.lane.text}, wherever there is a value. {more}"


def told_of_waiting(before: Document, after: Document) -> str:
    """Who needs what a deletion has taken away."""
    waiting = who_waits(before, after)
    if not waiting:
        return ""
    lost = dict.fromkeys(name for names in waiting.values() for name in names)
    verb = "needs" if len(waiting) == 1 else "need"
    return f"{listed(waiting)} {verb} {listed(lost)}, and will wait until it is defined again."


def framed(document: Document, lane_id: str) -> View:
    """A view of what matters on a sheet or in one lane; the standard view where nothing does."""
    lanes = resolve(document).shown(FRAMED)
    wanted = [lane for lane in lanes if lane.lane.id == lane_id] if lane_id else lanes
    return framing.frame(wanted, FRAMING) or View()


def limit(document: Document, text: str, name: str) -> float:
    """A typed view limit as a number."""
    return float(number(document, text, name))
