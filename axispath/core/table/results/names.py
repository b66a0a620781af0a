"""All names that a sheet defines: what each is, its size and value, and where it stands."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from axispath.core.language.numbers import listed
from axispath.core.quantities.values import Measured
from axispath.core.sheet.document import Document, Written
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.scopes import AXES
from axispath.core.table.results.result import Result, result_of, text_of

LONGEST = 60  # characters of a value


@dataclass(frozen=True, slots=True)
class NameInUse:
    """``used`` is how it stands in a formula; ``line`` the id of what defines it."""

    name: str
    used: str
    kind: str
    size: str
    value: str
    where: str
    line: str


def names_in_use(document: Document, known: Mapping[str, Result]) -> list[NameInUse]:
    """The names of a sheet, in the order of their letters; ``known`` are results by lane."""
    found: list[NameInUse] = []
    lines = 0
    for lane in resolve(document):
        if lane.lane.written.rests:
            lines += lane.lane.working and lane.lane.block is None
            continue
        if lane.lane.block is not None:
            found += _of_block(document, lane)
            continue
        lines += lane.lane.working
        where = f"line {lines}" if lane.lane.working else "the sheet"
        if lane.lane.data is not None:
            for column in lane.lane.data.columns:
                found.append(
                    NameInUse(column.name, column.name, "a column", "", "", where, lane.lane.id)
                )
        elif lane.name:
            found.append(
                _of_lane(lane, where, known.get(lane.lane.id) or result_of(document, lane))
            )
    return sorted(found, key=lambda one: (one.name.lower(), one.name))


def _of_block(document: Document, lane: ResolvedLane) -> list[NameInUse]:
    """The unknowns of a block of equations."""
    answers = lane.answers
    if answers is None or lane.lane.id not in answers.blocks:
        return []
    found = []
    for name in answers.blocks[lane.lane.id].read.unknowns:
        if name in AXES:
            continue
        value = answers.value(name)
        kind = "a quantity" if isinstance(value, Measured) else "a number"
        text = "" if value is None else text_of(value, document, Written())
        kind = "an unknown" if value is None else kind
        found.append(NameInUse(name, name, kind, "", text, "equations", lane.lane.id))
    return found


def _of_lane(lane: ResolvedLane, where: str, result: Result) -> NameInUse:
    name = str(lane.name)
    parameters = lane.parameters
    used = f"{name}({', '.join(parameters)})" if parameters else name
    kind, size, value = _told(lane, result)
    return NameInUse(name, used, kind, size, value, where, lane.lane.id)


def _told(lane: ResolvedLane, result: Result) -> tuple[str, str, str]:
    if lane.missing:
        return "waits", "", f"for {listed(lane.missing)}"
    if lane.error is not None:
        return "not understood", "", ""
    if lane.parameters:
        return "a function" if lane.for_lines else lane.kind.called, "", ""
    if result.kind == "none" or result.why:
        return lane.kind.called, "", ""
    named = {"number": "a number", "list": "a list", "matrix": "a matrix", "formula": "a formula"}
    text = result.text
    short = text if len(text) <= LONGEST else f"{text[: LONGEST - 2]} …"
    return named.get(result.kind, "several results"), result.size, short
