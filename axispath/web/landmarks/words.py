"""What landmarks are called, how sure they are, and why, in sentences that a student can follow."""

from __future__ import annotations

import math
from collections.abc import Iterator

from axispath.core.language.numbers import decimal, full_precision
from axispath.core.path.called import KIND_NAMES
from axispath.core.path.labels import shown_side
from axispath.core.search.landmark import BREAKS, Certainty, Kind, Landmark, Method
from axispath.web.landmarks.curves import why_on_curve

MARKS = {Certainty.PROVEN: "✓", Certainty.EXACT: "=", Certainty.APPROACHED: "≈"}


PAIRS = {
    Kind.UPRIGHT: "the equation holds and its slope along y is 0",
    Kind.LEVEL: "the equation holds and its slope along x is 0",
    Kind.CROSSING: "the equation holds and both of its slopes are 0; beside it two branches cross",
    Kind.ISOLATED: "the equation holds and both of its slopes are 0; about it nothing else is",
    Kind.CUSP: "the equation holds and both of its slopes are exactly 0",
    Kind.CORNER: "two borders meet",
    Kind.PEAK: "both slopes are 0, and it falls to all sides",
    Kind.PIT: "both slopes are 0, and it rises to all sides",
    Kind.SADDLE: "both slopes are 0; it rises to some sides and falls to others",
    Kind.INTERSECTION: "both equations hold",
}


def _why_pair(mark: Landmark) -> Iterator[str]:
    what = PAIRS.get(mark.kind, "both equations hold")
    yield f"Here {what}."
    if mark.certainty is Certainty.EXACT:
        yield "Exact arithmetic with these coordinates gives exactly 0."
    elif mark.method is Method.ELIMINATION:
        yield (
            "Eliminating one unknown from both equations (their resultant) leaves all common "
            "points, however they touch: this is one of them."
        )
    elif mark.certainty is Certainty.PROVEN:
        yield (
            "A box about it is proved to hold exactly one such point, by intervals that hold every "
            "rounding (Krawczyk’s operator)."
        )
    else:
        yield "No difference from 0 can be told, but it is not proved."


def why(mark: Landmark) -> Iterator[str]:
    """How a landmark was found, in sentences that a student can follow."""
    if not math.isnan(mark.t):
        yield from why_on_curve(mark)
        return
    place = f"between {decimal(mark.low, 8)} and {decimal(mark.high, 8)}"
    if mark.kind in BREAKS:
        yield from _why_break(mark)
        return
    if mark.method is Method.SCAN:
        yield "Seen while something moves; the proof follows when it rests."
        return
    if mark.method in (Method.PAIR, Method.ELIMINATION):
        yield from _why_pair(mark)
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
