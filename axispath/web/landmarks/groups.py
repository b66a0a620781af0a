"""The lists of the Landmarks page: by function, or all along x."""

from __future__ import annotations

import math
from contextlib import suppress
from dataclasses import dataclass, field, replace
from fractions import Fraction

from axispath.budgets import MEASURES
from axispath.core.arithmetic.patience import OutOfTime, limited
from axispath.core.arithmetic.rationals import Exact
from axispath.core.language.names import lowered
from axispath.core.language.numbers import decimal, full_precision, listed
from axispath.core.path.called import CERTAINTY, KIND_NAMES
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.labels import crossing_key, keyed, shown_t, shown_x, shown_y, shown_z
from axispath.core.path.lanes import Crossing
from axispath.core.path.survey import unsearched
from axispath.core.search.landmark import (
    BREAKS,
    Kind,
    Landmark,
    Open,
    Path,
    Reason,
)
from axispath.core.sheet.curve import written_exact
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.where import defined_where, undefined_throughout
from axispath.web.landmarks.forms import may_have_forms
from axispath.web.landmarks.words import MARKS, why

MOST_NAMED = 3  # stretches in a sentence
ALWAYS = ("zeros", "turning points")  # headings that show even where there is nothing
MOST_SHOWN = 400  # rows of one section; the rest comes with the copy and the CSV


@dataclass
class Row:
    """One landmark in a list; ``owner`` and its lane and colour where lists are of several."""

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
    owner: str = ""
    colour: int | None = None
    lane: str = ""
    parameter: str = ""


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
    unlisted: int = 0  # landmarks that are not listed until the list is opened
    has_forms: bool = False

    @property
    def count(self) -> int:
        """How many landmarks it has."""
        return self.unlisted + sum(len(section.rows) + section.more for section in self.sections)


def group(lane: ResolvedLane, path: Path, digits: int, looking: bool, listed: bool = True) -> Group:
    """The landmarks of a lane, kind by kind; not ``listed`` one by one where the list is folded."""
    sections = []
    letter = lane.parameters[0] if lane.parameters else "x"
    if listed and not undefined_throughout(path):
        named = list(keyed(lane.lane.id, path))
        for title, kinds in SEARCHED[lane.kind.key].groups.items():
            marks = [(key, mark) for key, mark in named if mark.kind in kinds]
            if marks or title in ALWAYS:
                rows = [_row(key, mark, digits, letter) for key, mark in marks[:MOST_SHOWN]]
                none = "" if rows else _none(path, kinds)
                more = max(0, len(marks) - MOST_SHOWN)
                sections.append(Section(title, rows, none, more))
    where = defined_where(path, letter, digits)
    along = SEARCHED[lane.kind.key].along
    return Group(
        lowered(lane.name or ""),
        lane.lane.colour,
        _interval(path, letter, digits),
        _verdict(path, digits, looking, letter if along == "parameter" else "x"),
        path.complete,
        sections,
        lane.lane.id,
        _defined(path, where),
        [*_units(lane), *_measured(lane, path, digits, looking), *_notes(path, digits)],
        0 if listed else len(path.landmarks),
        listed and may_have_forms(lane, path),
    )


def _units(lane: ResolvedLane) -> list[str]:
    """What the numbers of a lane of quantities count."""
    counted = [("x", lane.across), ("values", lane.measure)]
    told = [f"{what} in {unit}" for what, unit in counted if unit]
    return [f"Units: {', '.join(told)}."] if told else []


def _measured(lane: ResolvedLane, path: Path, digits: int, looking: bool) -> list[str]:
    """The length of a curve and its areas, once nothing moves."""
    measured = SEARCHED[lane.kind.key].measured
    if measured is None or not path.complete:
        return []
    with suppress(OutOfTime), limited(MEASURES):
        found = measured(lane, path)
        crossed = bool(path.of(Kind.CROSSING))
        enclosed = None if found.swept is not None else found.area
        told = []
        for words, part in (
            ("Length", found.length),
            ("Area, counted with its turns" if crossed else "Area", enclosed),
            ("Area swept from the pole", found.swept),
        ):
            if part is not None:
                value = abs(part.value) if words == "Area" else part.value
                told.append(f"{words}: {decimal(value, digits, part.error)}.")
        return told
    return ["Its length takes longer to compute than the time allowed."]


def _defined(path: Path, where: str) -> str:
    """Where a function lives, and why not elsewhere."""
    if not where:
        return ""
    reasons = list(dict.fromkeys(gap.why for gap in path.undefined if gap.why))
    return f"Defined for {where}: {'; '.join(reasons)}." if reasons else f"Defined for {where}."


def called(crossing: Crossing) -> str:
    """What the list of two lanes that meet is called."""
    signs = "=" if crossing.first.kind.key == crossing.second.kind.key == "function" else "and"
    first_name, second_name = (lowered(str(one.name)) for one in (crossing.first, crossing.second))
    return f"{first_name} {signs} {second_name}"


def meeting(crossing: Crossing, digits: int, looking: bool, listed: bool = True) -> Group:
    """Where two lanes meet."""
    path = crossing.path
    first = crossing.first
    curve = SEARCHED[first.kind.key].along == "parameter"
    letter = first.parameters[0] if curve else "x"
    rows = [_row(key, mark, digits, letter) for key, mark in keyed(crossing_key(crossing), path)]
    section = Section("intersections", rows)
    if not rows:
        section.none = "none in this interval" if path.complete else "none found so far"
        section.none = "none shown" if path.covered else section.none
    if path.zero or path.shared:
        section.none = "" if rows else "no single points"
    notes = _shared(crossing)
    notes += [f"The same {_from_to(s.low, s.high, digits)}." for s in path.zero[:MOST_NAMED]]
    return Group(
        called(crossing),
        None,
        _interval(path, letter, digits),
        _verdict(path, digits, looking, letter),
        path.complete,
        [section] if listed else [],
        notes=notes,
        unlisted=0 if listed else len(rows),
    )


def _shared(crossing: Crossing) -> list[str]:
    """What two relations have in common besides single points."""
    found = crossing.path.shared
    if found is None:
        return []
    first, second = (lowered(str(one.name)) for one in (crossing.first, crossing.second))
    return [
        {
            0: f"{first} and {second} have the whole curve {found.equation} in common.",
            1: f"All of {first} lies on {second}.",
            2: f"All of {second} lies on {first}.",
            3: f"{first} and {second} are the same curve.",
        }[found.whole]
    ]


def _notes(path: Path, digits: int) -> list[str]:
    """Stretches on which a function is 0, or stays level."""
    zero = {(s.low, s.high) for s in path.zero}
    along = path.shared
    level = [s for s in path.flat if (s.low, s.high) not in zero]
    notes = [f"Both slopes are 0 all along the curve {along.equation}."] if along else []
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
    if path.covered:
        return "none shown"
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
    low, high = (decimal(end, digits) for end in (path.low, path.high))
    if variable != "x":
        low, high = (_in_turns(end) or shown for end, shown in ((path.low, low), (path.high, high)))
    return f"{low} ≤ {variable} ≤ {high}"


def _in_turns(value: float) -> str:
    """A parameter as a part of π, where it is the nearest number to one."""
    parts = Fraction(value / math.pi).limit_denominator(24)
    return (
        written_exact(Exact(Fraction(0), parts))
        if parts and float(parts) * math.pi == value
        else ""
    )


COVERED = "Landmarks are covered here: say on the page Practise where you think one is."
REASONS = {
    Reason.BREAK: "what the function does there could not be settled",
    Reason.CLOSE: "landmarks there are too close together to be told apart",
    Reason.BUDGET: "there is more to search than the time allowed",
    Reason.MANY: "one follows after the other",
    Reason.OVERLAP: "parts of the curve seem to run over one another",
}


def _verdict(path: Path, digits: int, looking: bool, letter: str = "x") -> str:
    if undefined_throughout(path):
        why = path.undefined[0].why
        return f"Undefined everywhere here: {why}." if why else "Undefined everywhere here."
    if not path.proven:
        return "Following the movement; proved when it rests."
    if path.covered:
        return COVERED
    if path.complete:
        return "Nothing missed: every landmark on this interval is listed."
    if looking and unsearched(path):
        return "Looking further …"
    if path.more or len(path.landmarks) > MOST_SHOWN:
        return "There are more: only the first are listed."
    shown = [_place(item, digits, letter) for item in path.open[:3]]
    rest = len(path.open) - len(shown)
    where = ", ".join(shown) + (f" and {rest} more places" if rest else "")
    return f"Not settled {where}: {REASONS[path.open[0].reason]}."


def _place(item: Open, digits: int, letter: str) -> str:
    low, high = decimal(item.low, digits), decimal(item.high, digits)
    middle = (item.low + item.high) / 2
    if low == high or item.high - item.low < 1e-6 * max(1.0, abs(middle)):
        near = 0.0 if abs(middle) < item.high - item.low else middle
        return f"at {letter} ≈ {decimal(near, digits)}"
    return f"for {low} ≤ {letter} ≤ {high}"


def _from_to(low: float, high: float, digits: int) -> str:
    """A stretch, saying nothing of its ends."""
    return f"from {decimal(low, digits)} to {decimal(high, digits)}"


def _row(key: str, mark: Landmark, digits: int, letter: str) -> Row:
    return Row(
        key,
        mark.kind,
        KIND_NAMES[mark.kind],
        shown_x(mark, digits),
        shown_y(mark, digits),
        MARKS[mark.certainty],
        CERTAINTY[mark.certainty],
        full_precision(mark.x) if math.isfinite(mark.x) else "",
        full_precision(mark.y) if math.isfinite(mark.y) else "",
        tuple(why(mark)),
        _tag(mark),
        mark.closed,
        parameter=shown_t(mark, letter, digits) or shown_z(mark, "value", digits),
    )


def _tag(mark: Landmark) -> str:
    """Of what it is the most."""
    if mark.extremes:
        return listed(mark.extremes)
    return (
        {Kind.MAXIMUM: "highest", Kind.MINIMUM: "lowest"}.get(mark.kind, "") if mark.whole else ""
    )


def along(groups: list[Group]) -> Group:
    """All landmarks of some groups from left to right."""
    rows = [
        replace(row, owner=found.title, colour=found.colour, lane=found.lane)
        for found in groups
        for section in found.sections
        for row in section.rows
    ]
    rows.sort(key=lambda row: float(row.raw_x or "inf"))
    more = sum(section.more for found in groups for section in found.sections)
    open_ones = [f"{found.title}: {found.verdict}" for found in groups if not found.complete]
    verdict = " ".join(open_ones) or "Nothing missed: every landmark is listed."
    none = "" if rows else "none in this view"
    section = Section("", rows, none, more)
    return Group("", None, "", verdict, not open_ones, [section])
