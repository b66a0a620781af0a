"""Functions of x: read at a place, tabled, and put in words."""

from __future__ import annotations

import math

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.program import NotComputable
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.numbers import decimal
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.register import Described, Read
from axispath.core.table.values import column
from axispath.core.table.where import undefined_throughout

BITS = 106
SAMPLES = 400
MOST_NAMED = 6


def column_of(lane: ResolvedLane) -> str:
    """The head of its column."""
    return f"{lane.name}(x)"


def read_function(document: Document, lane: ResolvedLane, x: float) -> Read:
    """Value and slope at ``x``."""
    values = column(lane, np.array([x]))
    y = float(values.values[0])
    slope = slope_at(lane, x) if math.isfinite(y) else math.nan
    return Read(lane, y, values.shown(0, document.digits), values.reason(0), slope)


def slope_at(lane: ResolvedLane, x: float) -> float:
    """The derivative at ``x``, enclosed before it is rounded; NaN where there is none."""
    with precision(BITS):
        try:
            slope = lane.balls.taylor(arb(x), 2)[1]
        except OutsideDomain:
            return math.nan
    if slope.is_finite():
        return float(slope.mid())
    # Where enclosures see a border or a bend, the rules of calculus may know better.
    try:
        return float(lane.slopes(np.array([x]))[0])
    except NotComputable:
        return math.nan


def in_words(lane: ResolvedLane, path: Path | None, document: Document) -> str:
    """A function as its path goes, from left to right."""
    digits = document.digits
    if path is None:
        return f"{lane.name} is not in this view."
    if undefined_throughout(path):
        return f"{lane.name} is undefined here."
    phrases = [_walked(path, digits)] if path.spans else []
    for kind, one in NAMED.items():
        marks = path.of(kind)[:MOST_NAMED]
        if marks:
            at = ", ".join(decimal(mark.x, digits) for mark in marks)
            phrases.append(f"{one[0] if len(marks) == 1 else one[1]} at {at}")
    if not path.of(Kind.ZERO) and path.complete:
        phrases.append("no zeros")
    if not phrases and path.open:
        phrases.append("not settled in the time allowed")
    if path.covered:
        phrases.append("its landmarks are covered")
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


NAMED = {
    Kind.ZERO: ("zero", "zeros"),
    Kind.POLE: ("pole", "poles"),
    Kind.JUMP: ("jump", "jumps"),
    Kind.HOLE: ("hole", "holes"),
}


def why_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
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


DESCRIBED_FUNCTION = Described(in_words, why_unseen)
