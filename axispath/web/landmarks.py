"""The Landmarks page of the desk, and the same landmarks for the scripts."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from axispath.clock import spent
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.language.numbers import decimal, full_precision, listed
from axispath.core.path.labels import (
    crossing_key,
    keyed,
    labelled,
    shown_side,
    shown_x,
    shown_y,
)
from axispath.core.path.landmark import (
    BREAKS,
    Certainty,
    Kind,
    Landmark,
    Method,
    Open,
    Path,
    Reason,
)
from axispath.core.path.lanes import MOST_CROSSED, Crossing, Effort, Range
from axispath.core.path.survey import Survey, further, moving_survey, survey, unsearched
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.words import (
    defined_where,
    explain_empty,
    in_words,
    undefined_throughout,
)

USUAL = Effort(20_000, 0.15, spent)  # of one search
FURTHER = Effort(600_000, 9.0, spent)  # of all that is still open then
MOVING = Patience(0.08, spent)  # of one lane, while something moves
WORDS = Patience(0.5, spent)

KIND_NAMES = {
    Kind.ZERO: "zero",
    Kind.MAXIMUM: "maximum",
    Kind.MINIMUM: "minimum",
    Kind.INFLECTION: "inflection",
    Kind.Y_INTERCEPT: "y-intercept",
    Kind.POLE: "pole",
    Kind.JUMP: "jump",
    Kind.HOLE: "hole",
    Kind.KINK: "kink",
    Kind.END: "end",
    Kind.INTERSECTION: "intersection",
}
SECTIONS = (
    ("zeros", (Kind.ZERO,)),
    ("turning points", (Kind.MAXIMUM, Kind.MINIMUM)),
    ("inflections", (Kind.INFLECTION,)),
    ("breaks", BREAKS),
    ("y-intercept", (Kind.Y_INTERCEPT,)),
)
CERTAINTY = {
    Certainty.PROVEN: "proven",
    Certainty.EXACT: "exact",
    Certainty.APPROACHED: "approached, not proven",
}
MARKS = {Certainty.PROVEN: "✓", Certainty.EXACT: "=", Certainty.APPROACHED: "≈"}
MOST_NAMED = 3  # stretches in a sentence
MOST_SHOWN = 400  # rows of one section; the rest comes with the copy and the CSV


@dataclass
class Row:
    """One landmark in a list."""

    key: str
    kind: str
    label: str
    x: str
    y: str
    mark: str
    how_sure: str
    raw_x: str
    raw_y: str
    why: tuple[str, ...] = ()
    tag: str = ""
    closed: bool = True


@dataclass
class Section:
    """The landmarks of one kind of one lane."""

    title: str
    rows: list[Row] = field(default_factory=list)
    none: str = ""
    more: int = 0


@dataclass
class Group:
    """The landmarks of one lane, or of two that meet."""

    title: str
    colour: int | None
    where: str
    verdict: str
    complete: bool
    sections: list[Section]
    lane: str = ""
    defined: str = ""
    notes: list[str] = field(default_factory=list)


@dataclass
class Page:
    """All landmarks of a view, for scripts and for the Landmarks page."""

    lanes: list[dict[str, Any]]
    crossings: list[dict[str, Any]]
    groups: list[Group]
    empty: str
    explanation: str
    can_frame: bool
    words: str
    settled: str
    goes_on: bool
    moving: bool = False


def marks_only(document: Document, only: Range | None) -> dict[str, Any]:
    """Landmarks for plot and strips alone, while something moves."""
    found = moving_survey(document, only, MOVING)
    lanes = [_lane_for_script(lane, path, document.digits) for lane, path in found.lanes]
    return {"lanes": lanes, "crossings": [], "landmarks": None}


def looked(document: Document, longer: bool, only: Range | None) -> Survey:
    """A look at a sheet; what stays open in the usual effort is searched ``longer`` if wanted."""
    found = survey(document, USUAL, only)
    return further(document, found, FURTHER, only) if longer else found


def landmarks(document: Document, moving: bool, longer: bool, only: Range | None) -> Page:
    """Landmarks, spans and open stretches of every visible lane in the document's view.

    While something moves nothing is proved. What is open after the usual effort is searched
    ``longer`` when nothing else is asked for.
    """
    found = moving_survey(document, only, MOVING) if moving else looked(document, longer, only)
    digits = document.digits
    looking = not moving and not longer
    groups = [_group(lane, path, digits, looking) for lane, path in found.lanes if path is not None]
    groups += [_meeting(crossing, digits, looking) for crossing in found.crossings]
    if len(found.lanes) > MOST_CROSSED:
        note = f"Intersections are looked for among the first {MOST_CROSSED} functions shown."
        groups.append(Group("more functions", None, "", note, False, []))
    try:
        with limited(WORDS):
            explanation, can_frame = explain_empty(document, found)
    except OutOfTime:  # the picture says so too
        explanation, can_frame = "", False
    goes_on = looking and found.goes_on
    return Page(
        [_lane_for_script(lane, path, digits) for lane, path in found.lanes],
        [_crossing_for_script(crossing, digits) for crossing in found.crossings],
        groups,
        "" if found.lanes else "Landmarks appear here as soon as the sheet shows a function.",
        explanation,
        can_frame,
        in_words(document, found),
        _settled(groups, moving, goes_on) if groups else "",
        goes_on,
        moving,
    )


def _settled(groups: list[Group], moving: bool, goes_on: bool) -> str:
    """How far all landmarks are settled, in a few words."""
    if moving:
        return "following the movement; proved when it rests"
    if all(group.complete for group in groups):
        return "every landmark found and settled"
    return "looking further …" if goes_on else "some stretches are not settled"


def as_csv(document: Document, longer: bool, only: Range | None) -> str:
    """All landmarks at full precision, as RFC 4180 text."""
    out = io.StringIO()
    write = csv.writer(out, lineterminator="\r\n")
    write.writerow(["function", "kind", "x", "y", "left limit", "right limit", "certainty"])
    found = looked(document, longer, only)
    named = [(lane.name or "", path) for lane, path in found.lanes if path is not None]
    named += [(f"{c.first.name} = {c.second.name}", c.path) for c in found.crossings]
    for name, path in named:
        for mark in path.landmarks:
            numbers = [_csv_number(v) for v in (mark.x, mark.y, mark.left, mark.right)]
            write.writerow([name, KIND_NAMES[mark.kind], *numbers, CERTAINTY[mark.certainty]])
    return out.getvalue()


def _csv_number(value: float) -> str:
    return full_precision(value) if math.isfinite(value) else ""


# For the scripts


def _lane_for_script(lane: ResolvedLane, path: Path | None, digits: int) -> dict[str, Any]:
    low, high = lane.ends
    return {
        "id": lane.lane.id,
        "low": low.x if low else None,
        "high": high.x if high else None,
        "lowClosed": low.closed if low else True,
        "highClosed": high.closed if high else True,
        "landmarks": list(_marks_for_script(lane.lane.id, path, digits)) if path else [],
        "spans": [[s.low, s.high, s.sign, s.direction] for s in path.spans] if path else [],
        "open": [[o.low, o.high] for o in path.open] if path else [],
        "undefined": [[s.low, s.high, s.why] for s in path.undefined] if path else [],
    }


def _crossing_for_script(crossing: Crossing, digits: int) -> dict[str, Any]:
    key = crossing_key(crossing)
    return {
        "lanes": [crossing.first.lane.id, crossing.second.lane.id],
        "landmarks": list(_marks_for_script(key, crossing.path, digits)),
    }


def _marks_for_script(key: str, path: Path, digits: int) -> Iterator[dict[str, Any]]:
    for name, mark in keyed(key, path):
        yield {
            "key": name,
            "kind": mark.kind,
            "x": mark.x,
            "y": _finite(mark.y),
            "left": _finite(mark.left),
            "right": _finite(mark.right),
            "closed": mark.closed,
            "label": labelled(mark, digits),
        }


def _finite(value: float) -> float | None:
    return value if math.isfinite(value) else None


# For the page


def _group(lane: ResolvedLane, path: Path, digits: int, looking: bool) -> Group:
    sections = []
    if not undefined_throughout(path):
        named = list(keyed(lane.lane.id, path))
        for title, kinds in SECTIONS:
            marks = [(key, mark) for key, mark in named if mark.kind in kinds]
            wanted = title in ("zeros", "turning points")
            if marks or wanted:
                rows = [_row(key, mark, digits) for key, mark in marks[:MOST_SHOWN]]
                none = "" if rows else _none(path, kinds)
                more = max(0, len(marks) - MOST_SHOWN)
                sections.append(Section(title, rows, none, more))
    parameters = getattr(lane.statement, "parameters", ("x",))
    where = defined_where(path, parameters[0], digits)
    return Group(
        lane.name or "",
        lane.lane.colour,
        _interval(path, parameters[0], digits),
        _verdict(path, digits, looking),
        path.complete,
        sections,
        lane.lane.id,
        _defined(path, where),
        _notes(path, digits),
    )


def _defined(path: Path, where: str) -> str:
    """Where a function lives, and why not elsewhere."""
    if not where:
        return ""
    reasons = list(dict.fromkeys(gap.why for gap in path.undefined if gap.why))
    return f"Defined for {where}: {'; '.join(reasons)}." if reasons else f"Defined for {where}."


def _meeting(crossing: Crossing, digits: int, looking: bool) -> Group:
    names = f"{crossing.first.name} = {crossing.second.name}"
    path = crossing.path
    rows = [_row(key, mark, digits) for key, mark in keyed(crossing_key(crossing), path)]
    section = Section("intersections", rows)
    if not rows:
        section.none = "none in this interval" if path.complete else "none found so far"
    if path.zero:
        section.none = "" if rows else "no single points"
    notes = [f"The same {_from_to(s.low, s.high, digits)}." for s in path.zero[:MOST_NAMED]]
    return Group(
        names,
        None,
        _interval(path, "x", digits),
        _verdict(path, digits, looking),
        path.complete,
        [section],
        notes=notes,
    )


def _notes(path: Path, digits: int) -> list[str]:
    """Stretches on which a function is 0, or stays level."""
    zero = {(s.low, s.high) for s in path.zero}
    level = [s for s in path.flat if (s.low, s.high) not in zero]
    notes = []
    for word, stretches in (("Zero", path.zero), ("Level", level)):
        shown = [_from_to(s.low, s.high, digits) for s in stretches[:MOST_NAMED]]
        if len(stretches) > MOST_NAMED:
            shown.append(f"on {len(stretches) - MOST_NAMED} more stretches")
        if shown:
            notes.append(f"{word} {listed(shown)}.")
    return notes


def _none(path: Path, kinds: tuple[Kind, ...]) -> str:
    if Kind.ZERO in kinds and path.zero:
        return "no single zeros"
    if not path.complete:
        return "none found outside the open stretches"
    signs = {span.sign for span in path.spans}
    directions = {span.direction for span in path.spans}
    if Kind.ZERO in kinds and signs in ({1}, {-1}):
        return f"none here: {'above' if signs == {1} else 'below'} zero throughout"
    if Kind.MAXIMUM in kinds and len(directions) == 1 and not path.of(*BREAKS):
        word = {1: "rising", -1: "falling", 0: "level"}[directions.pop()]
        return f"none here: {word} throughout"
    return "none on this interval"


def _interval(path: Path, variable: str, digits: int) -> str:
    return f"{decimal(path.low, digits)} ≤ {variable} ≤ {decimal(path.high, digits)}"


REASONS = {
    Reason.BREAK: "what the function does there could not be settled",
    Reason.CLOSE: "landmarks there are too close together to be told apart",
    Reason.BUDGET: "there is more to search than the time allowed",
    Reason.MANY: "one follows after the other",
}


def _verdict(path: Path, digits: int, looking: bool) -> str:
    if undefined_throughout(path):
        why = path.undefined[0].why
        return f"Undefined everywhere here: {why}." if why else "Undefined everywhere here."
    if not path.proven:
        return "Following the movement; proved when it rests."
    if path.complete:
        return "Nothing missed: every landmark on this interval is listed."
    if looking and unsearched(path):
        return "Looking further …"
    if path.more or len(path.landmarks) > MOST_SHOWN:
        return "There are more: only the first are listed."
    shown = [_place(item, digits) for item in path.open[:3]]
    rest = len(path.open) - len(shown)
    where = ", ".join(shown) + (f" and {rest} more places" if rest else "")
    return f"Not settled {where}: {REASONS[path.open[0].reason]}."


def _place(item: Open, digits: int) -> str:
    low, high = decimal(item.low, digits), decimal(item.high, digits)
    middle = (item.low + item.high) / 2
    if low == high or item.high - item.low < 1e-6 * max(1.0, abs(middle)):
        near = 0.0 if abs(middle) < item.high - item.low else middle
        return f"at x ≈ {decimal(near, digits)}"
    return f"for {_stretch(item.low, item.high, digits)}"


def _stretch(low: float, high: float, digits: int) -> str:
    return f"{decimal(low, digits)} ≤ x ≤ {decimal(high, digits)}"


def _from_to(low: float, high: float, digits: int) -> str:
    """A stretch, saying nothing of its ends."""
    return f"from {decimal(low, digits)} to {decimal(high, digits)}"


def _row(key: str, mark: Landmark, digits: int) -> Row:
    return Row(
        key,
        mark.kind,
        KIND_NAMES[mark.kind],
        shown_x(mark, digits),
        shown_y(mark, digits),
        MARKS[mark.certainty],
        CERTAINTY[mark.certainty],
        full_precision(mark.x),
        full_precision(mark.y) if math.isfinite(mark.y) else "",
        tuple(_why(mark)),
        {Kind.MAXIMUM: "highest", Kind.MINIMUM: "lowest"}.get(mark.kind, "") if mark.whole else "",
        mark.closed,
    )


def _why(mark: Landmark) -> Iterator[str]:
    """How a landmark was found, in sentences that a student can follow."""
    place = f"between {decimal(mark.low, 8)} and {decimal(mark.high, 8)}"
    if mark.kind in BREAKS:
        yield from _why_break(mark)
        return
    if mark.method is Method.SCAN:
        yield "Seen while something moves; the proof follows when it rests."
        return
    if mark.method is Method.SIDES:
        yield (
            "The curve breaks or bends here; comparing the value with the curve on both sides "
            f"shows that it is a {KIND_NAMES[mark.kind]}."
        )
        return
    what = {Kind.ZERO: "value", Kind.INTERSECTION: "difference of the two values"}.get(
        mark.kind, "bend" if mark.kind is Kind.INFLECTION else "slope"
    )
    if mark.method is Method.EXACT:
        yield f"Putting this x into the formula gives exactly 0; the {what} is not rounded."
    elif mark.method is Method.FACTOR:
        yield (
            f"A factor of the formula changes sign {place}, so the formula is 0 there, although "
            "its own sign is the same on both sides."
        )
    elif mark.method is Method.TOUCH:
        yield (
            f"The {what} comes so close to 0 that no difference can be told, but it does not "
            "change sign, so this is not a proof."
        )
    elif mark.method is Method.VALUE:
        yield "The value at x = 0, computed with a bound for every rounding."
        return
    else:
        yield (
            f"The {what} has different signs at both ends of the bracket {place} and is monotone "
            "in between, so there is exactly one such point in it."
        )
    if mark.radius:
        yield (
            f"Interval arithmetic then narrowed x to {full_precision(mark.x)}, with an error "
            f"below {decimal(max(mark.radius, abs(mark.x) * 1.2e-16), 2)}."
        )
        if mark.kind not in (Kind.ZERO, Kind.INTERSECTION):
            error = max(mark.y_radius, abs(mark.y) * 1.2e-16)
            yield f"There y is {full_precision(mark.y)}, with an error below {decimal(error, 2)}."
    elif mark.method is Method.EXACT:
        yield (
            f"It is the only one {place}."
            if mark.low < mark.high
            else "It is at an end of the interval or at a break."
        )


def _why_break(mark: Landmark) -> Iterator[str]:
    sides = []
    for word, y in (("left", mark.left), ("right", mark.right)):
        if not math.isnan(y):
            sides.append(f"from the {word} the values approach {shown_side(y)}")
    told = " and ".join(sides)
    if told:
        yield f"{told[0].upper()}{told[1:]}."
    if mark.kind is Kind.POLE:
        yield "The curve leaves every bound here: a vertical asymptote."
    elif mark.kind is Kind.HOLE:
        yield (
            "There is no value here, but the curve could be closed with this one."
            if not mark.closed
            else "The value here lies off the curve."
        )
    elif mark.kind is Kind.JUMP:
        value = (
            f"The value here is {decimal(mark.y)}." if mark.closed else "There is no value here."
        )
        yield value
    elif mark.kind is Kind.KINK:
        yield "The curve goes on without a gap, but its slope is not the same on both sides."
    else:
        yield (
            "The end belongs to the domain." if mark.closed else "The end does not belong to it."
        )
