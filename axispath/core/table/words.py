"""What the plot shows, in sentences: for screen readers, and where nothing shows."""

from __future__ import annotations

import numpy as np

from axispath.core.language.numbers import decimal, listed
from axispath.core.path.landmark import BREAKS, Kind, Path
from axispath.core.path.survey import Survey
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.values import column

SAMPLES = 400
MOST_NAMED = 6


def in_words(document: Document, found: Survey) -> str:
    """The visible lanes described by their paths."""
    sentences = [_described(lane, path, document.digits) for lane, path in found.lanes]
    return " ".join(sentences) or "The plot is empty."


def _described(lane: ResolvedLane, path: Path | None, digits: int) -> str:
    if path is None:
        return f"{lane.name} is not in this view."
    if undefined_throughout(path):
        return f"{lane.name} is undefined here."
    phrases = [_walked(path, digits)] if path.spans else []
    for kind, one in KINDS.items():
        marks = path.of(kind)[:MOST_NAMED]
        if marks:
            at = ", ".join(decimal(mark.x, digits) for mark in marks)
            phrases.append(f"{one[0] if len(marks) == 1 else one[1]} at {at}")
    if not path.of(Kind.ZERO) and path.complete:
        phrases.append("no zeros")
    if not phrases and path.open:
        phrases.append("not settled in the time allowed")
    found = "; ".join(phrase for phrase in phrases if phrase)
    return f"{lane.name} from {decimal(path.low, digits)} to {decimal(path.high, digits)}: {found}."


def _walked(path: Path, digits: int) -> str:
    """The way from left to right: where it rises, falls or stays level, and to which points."""
    runs: list[list[float]] = []  # from, to, direction
    breaks = {mark.x for mark in path.of(Kind.POLE, Kind.JUMP, Kind.HOLE)}
    for span in path.spans:
        if runs and runs[-1][1] == span.low not in breaks and runs[-1][2] == span.direction:
            runs[-1][1] = span.high
        else:
            runs.append([span.low, span.high, span.direction])
    told = []
    for _, high, direction in runs[:MOST_NAMED]:
        verb = {1: "rises", -1: "falls"}.get(int(direction), "stays level")
        told.append(f"{verb} {_until(path, high, digits)}")
    more = ", and so on" if len(runs) > MOST_NAMED else ""
    return ", then ".join(told) + more


def _until(path: Path, x: float, digits: int) -> str:
    """Up to which point a stretch goes."""
    place = decimal(x, digits)
    for kind, name in ((Kind.MAXIMUM, "maximum"), (Kind.MINIMUM, "minimum")):
        for mark in path.of(kind):
            if mark.x == x:
                return f"to its {name} {decimal(mark.y, digits, mark.y_radius)} at {place}"
    if any(mark.x == x for mark in path.of(Kind.POLE)):
        return f"without bound towards the pole at {place}"
    return f"until {place}"


KINDS = {
    Kind.ZERO: ("zero", "zeros"),
    Kind.POLE: ("pole", "poles"),
    Kind.JUMP: ("jump", "jumps"),
    Kind.HOLE: ("hole", "holes"),
}


def undefined_throughout(path: Path) -> bool:
    """Whether the function surely has no value anywhere on the interval."""
    return bool(path.undefined) and not path.spans and not path.open


def defined_where(path: Path, variable: str, digits: int) -> str:
    """The part of the interval on which the function is defined; empty where that is all."""
    if not path.undefined:
        return _without(path, variable, digits)
    closed = {mark.x for mark in path.landmarks if mark.closed and mark.kind in BREAKS}
    parts = []
    low = path.low
    for gap in [*path.undefined, None]:
        high = path.high if gap is None else gap.low
        if low < high:
            parts.append(_part(path, low, high, closed, variable, digits))
        elif low == high and low in closed:
            parts.append(f"{variable} = {decimal(low, digits)}")
        low = gap.high if gap is not None else low
    where = " or ".join(parts)
    return f"{where}{_without(path, variable, digits, inside=True)}" if where else ""


def _part(
    path: Path, low: float, high: float, closed: set[float], variable: str, digits: int
) -> str:
    below, above = (decimal(x, digits) for x in (low, high))
    if low == path.low and high == path.high:
        return ""
    if high == path.high:
        return f"{variable} {'≥' if low in closed else '>'} {below}"
    if low == path.low:
        return f"{variable} {'≤' if high in closed else '<'} {above}"
    left, right = ("≤" if x in closed else "<" for x in (low, high))
    return f"{below} {left} {variable} {right} {above}"


def _without(path: Path, variable: str, digits: int, inside: bool = False) -> str:
    """The single places at which there is no value."""
    ends = {x for gap in path.undefined for x in (gap.low, gap.high)}
    missing = [
        mark.x
        for mark in path.landmarks
        if not mark.closed
        and mark.kind in BREAKS
        and mark.x not in ends
        and path.low < mark.x < path.high
    ]
    if not missing:
        return ""
    named = ", ".join(decimal(x, digits) for x in missing[:MOST_NAMED])
    more = f" and {len(missing) - MOST_NAMED} more" if len(missing) > MOST_NAMED else ""
    return f"{', ' if inside else ''}{variable} ≠ {named}{more}"


def explain_empty(document: Document, found: Survey) -> tuple[str, bool]:
    """Why no curve shows, and whether framing would help; an empty text where one shows."""
    sheet = resolve(document)
    if not sheet.lanes:
        return "", False
    if not found.lanes:
        return _nothing_to_show(document), False
    reasons = [_why_unseen(lane, path, document) for lane, path in found.lanes]
    if any(reason is None for reason in reasons):
        return "", False
    undefined = [reason for reason in reasons if reason and "undefined" in reason]
    can_frame = len(undefined) < len(reasons)
    return " ".join(dict.fromkeys(reason for reason in reasons if reason)), can_frame


def _nothing_to_show(document: Document) -> str:
    sheet = resolve(document)
    if any(lane.plottable for lane in sheet):
        return "Every function is hidden."
    waiting = [name for lane in sheet for name in lane.missing]
    if waiting:
        names = listed(dict.fromkeys(waiting))
        verb = "has" if len(set(waiting)) == 1 else "have"
        return f"Nothing can be drawn yet: {names} {verb} no value."
    return ""


def _why_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
    """Why a lane does not show in the view; None where it does."""
    view = document.view
    values = column(lane, np.linspace(view.left, view.right, SAMPLES)).values
    defined = np.isfinite(values)
    if ((values >= view.bottom) & (values <= view.top)).any():
        return None
    if defined.any():
        above = bool(np.nanmin(values[defined]) > view.top)
        below = bool(np.nanmax(values[defined]) < view.bottom)
        where = "above" if above else "below" if below else "outside"
        return f"{lane.name} lies {where} this view."
    low, high = lane.ends
    if (low and low.x > view.right) or (high and high.x < view.left):
        return f"The domain of {lane.name} lies outside this view."
    if path is not None and undefined_throughout(path):
        why = path.undefined[0].why
        everywhere = f"{lane.name} is undefined everywhere here"
        return f"{everywhere}: {why}." if why else f"{everywhere}."
    return f"{lane.name} is undefined, or not in this view."
