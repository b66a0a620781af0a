"""From the core's values to what templates and scripts show."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass, field
from typing import Any

import numpy as np
from flask import render_template

from axispath.clock import spent
from axispath.core import catalogue
from axispath.core.arithmetic.patience import Patience
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.language.latex import latex_statement
from axispath.core.language.mathml import mathml_statement
from axispath.core.language.numbers import decimal, listed
from axispath.core.language.plain import plain_statement
from axispath.core.language.rename import renamed
from axispath.core.language.scope import Scope
from axispath.core.language.spelling import nearest
from axispath.core.language.tree import ValueStatement
from axispath.core.path import framing
from axispath.core.sheet.angles import seems_to_mean_degrees
from axispath.core.sheet.document import Document, Ground, Lane, Samples, Style, View
from axispath.core.sheet.edits import Edit, RemoveLane, plain_end, who_waits
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve, scope_of
from axispath.core.sheet.sliders import SliderRange, is_slider, slider_range, usual_range
from axispath.core.table.rows import number
from axispath.store.sheets import Opened
from axispath.web.ground import ground_view, own_colours

FRAMING = Patience(0.4, spent)  # of one lane, in choosing a view for it


@dataclass(frozen=True)
class SliderView:
    """A slider for its template and for the scripts."""

    low: float
    high: float
    step: float
    value: float
    low_text: str
    high_text: str
    step_text: str
    kind: str
    play: str
    speed: str


@dataclass(frozen=True)
class LaneView:
    """A lane as its template needs it."""

    id: str
    text: str
    name: str
    colour: int
    hidden: bool
    mathml: str = ""
    latex: str = ""
    plottable: bool = False
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
    comment: str = ""
    folded: bool = False
    style: Style = field(default_factory=Style)
    samples: Samples = field(default_factory=Samples)

    @property
    def swatch(self) -> str:
        """The classes of a short line in the lane's colour and dash."""
        return swatch_of(self.id, self.colour, self.style)


def swatch_of(lane_id: str, colour: int, style: Style) -> str:
    """The classes of a short line in a lane's colour and dash; ``k-`` stands for its own."""
    dash = "" if style.dash == "usual" else f" d-{style.dash.replace(' ', '-')}"
    return f"swatch c{colour} k-{lane_id}{dash}"


def lane_view(document: Document, lane: ResolvedLane, scope: Scope) -> LaneView:
    """What the template of a lane shows; ``scope`` holds the names of its sheet."""
    digits = document.digits
    base: dict[str, Any] = {
        "id": lane.lane.id,
        "text": lane.lane.text,
        "name": lane.name or "",
        "colour": lane.lane.colour,
        "hidden": lane.lane.hidden,
        "missing": lane.missing,
        "respelt": tuple(_respelt(lane, scope)),
        "note": _note(lane, digits),
        "wrong": lane.error is not None,
        "signature": _signature(lane),
        "slider": _slider_view(document, lane),
        "comment": lane.lane.note,
        "folded": lane.lane.folded,
        "style": lane.lane.style,
        "samples": lane.lane.samples,
    }
    if lane.statement is None:
        return LaneView(**base)
    words = catalogue.VOCABULARY
    rule = lane.statement
    if not isinstance(rule, ValueStatement):
        # The domain has fields of its own below the formula.
        rule = type(rule)(rule.name, rule.parameters, rule.body, None, rule.body_end)
        base["variable"] = rule.parameters[0] if rule.parameters else "x"
    domain = lane.domain
    return LaneView(
        **base,
        mathml=mathml_statement(rule, words, lane.name),
        latex=latex_statement(rule, words, lane.name),
        plottable=lane.plottable,
        low=plain_end(domain.low) if domain else "",
        high=plain_end(domain.high) if domain else "",
        below="≤" if not domain or domain.low_closed or not domain.low else "<",
        under="≤" if not domain or domain.high_closed or not domain.high else "<",
    )


def _slider_view(document: Document, lane: ResolvedLane) -> SliderView | None:
    if not is_slider(lane):
        return None
    typed = lane.lane.slider
    try:
        found = slider_range(document, lane)
    except EditRefused:
        # A value that the ends used is gone: the usual range until they mean something again.
        low, high = usual_range(lane.value, typed, document.unit)
        found = SliderRange(low, high, 0.0, lane.value)
    return SliderView(
        found.low,
        found.high,
        found.step,
        found.value,
        typed.low,
        typed.high,
        typed.step,
        typed.kind,
        typed.play,
        typed.speed,
    )


def _respelt(lane: ResolvedLane, scope: Scope) -> Iterator[tuple[str, str]]:
    """Known names that look like one the lane waits for, each with the line that uses it."""
    for name in lane.missing:
        near = nearest(name, scope)
        if near and near != lane.name and lane.statement is not None:
            yield near, renamed(lane.lane.text, lane.statement, name, near)


def _signature(lane: ResolvedLane) -> str:
    parameters = getattr(lane.statement, "parameters", None)
    return f"{lane.name}({', '.join(parameters)})" if parameters else lane.name or ""


def _note(lane: ResolvedLane, digits: int) -> str:
    if lane.error:
        return f"not understood: {lane.error.message}"
    if lane.missing:
        return f"waits for {listed(lane.missing)}"
    if isinstance(lane.statement, ValueStatement):
        shown = plain_statement(lane.statement, catalogue.VOCABULARY)
        if lane.items is not None:
            return _list_note(lane.items, digits)
        if not np.isfinite(lane.value):
            return why_no_value_of_number(lane)
        if is_slider(lane):
            return ""
        value = decimal(lane.value, digits)
        return "number" if shown.endswith(f"= {value}") else f"= {value}"
    if not lane.plottable:
        return "a function of several numbers, for use in other lanes"
    return ""


LISTED = 8


def _list_note(items: list[float], digits: int) -> str:
    shown = [decimal(item, digits) if np.isfinite(item) else "—" for item in items[:LISTED]]
    more = ", …" if len(items) > LISTED else ""
    count = "1 value" if len(items) == 1 else f"{len(items)} values"
    return f"{count}: {', '.join(shown)}{more}" if items else "an empty list"


def why_no_value_of_number(lane: ResolvedLane) -> str:
    """Why a number lane has no value."""
    return f"no value: {why_undefined(lane.program, lane.unit) or 'undefined'}"


def lane_views(document: Document) -> list[LaneView]:
    """All lanes of a sheet as their template needs them."""
    scope = scope_of(document.lanes)
    return [lane_view(document, lane, scope) for lane in resolve(document)]


def state(found: Opened, shown: dict[str, Any]) -> dict[str, Any]:
    """A sheet after an edit, for the scripts; ``shown`` is the payload of its document."""
    document = found.document
    return {
        **shown,
        "id": found.id,
        "head": found.head,
        "undo": found.undo,
        "redo": found.redo,
        "name": document.name,
        "unit": document.unit,
        "view": document.view.model_dump(),
        "tables": [table.model_dump() for table in document.tables],
        "equations": [equation.model_dump() for equation in document.equations],
    }


def payload(document: Document) -> dict[str, Any]:
    """All that has to be computed to show a document, whatever its view."""
    lanes = lane_views(document)
    return {
        "ground": ground_view(document, [x for x in lanes if x.plottable and not x.hidden]),
        "question": seems_to_mean_degrees(document),
        "lanes": [
            {**scripted, "html": render_template("parts/lane.html", lane=lane)}
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
        for lane in document.lanes
    ]
    return {
        "ground": ground_view(plain, []),
        "question": "",
        "lanes": [
            {**_scripted(view, lane), "html": render_template("parts/lane.html", lane=view)}
            for view, lane in zip(lanes, document.lanes, strict=True)
        ],
    }


def scripted_lanes(document: Document, lanes: list[LaneView]) -> list[dict[str, Any]]:
    """The lanes of a document for the scripts that draw them."""
    return [_scripted(view, lane) for view, lane in zip(lanes, document.lanes, strict=True)]


def _scripted(view: LaneView, lane: Lane) -> dict[str, Any]:
    return {
        "id": view.id,
        "name": view.name,
        "colour": view.colour,
        "hidden": view.hidden,
        "plottable": view.plottable,
        "signature": view.signature,
        "slider": asdict(view.slider) if view.slider else None,
        "style": view.style.model_dump(),
        "sampled": bool(view.samples.by),
        "own": own_colours(lane),
    }


def takes_away(edits: Sequence[Edit]) -> bool:
    """Whether edits may leave lanes without something that they need."""
    return any(isinstance(edit, RemoveLane) for edit in edits)


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
    lanes = resolve(document).functions()
    wanted = [lane for lane in lanes if lane.lane.id == lane_id] if lane_id else lanes
    return framing.frame(wanted, FRAMING) or View()


def limit(document: Document, text: str, name: str) -> float:
    """A typed view limit as a number."""
    return float(number(document, text, name))
