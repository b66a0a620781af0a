"""How the landmarks of curves were found, in sentences that a student can follow."""

from __future__ import annotations

from collections.abc import Iterator

from axispath.core.language.numbers import decimal, full_precision
from axispath.core.search.landmark import Certainty, Kind, Landmark, Method
from axispath.core.sheet.curve import written_exact

WHAT = {
    Kind.MEETS_X: "y",
    Kind.MEETS_Y: "x",
    Kind.LEVEL: "the slope of y",
    Kind.UPRIGHT: "the slope of x",
    Kind.FARTHEST: "the slope of the distance from the pole",
    Kind.NEAREST: "the slope of the distance from the pole",
    Kind.AT_POLE: "the distance from the pole",
    Kind.INTERSECTION: "the difference of the two heights",
    Kind.CROSSING: "the difference of the two distances from the pole",
}


def why_on_curve(mark: Landmark) -> Iterator[str]:
    """How a landmark of a curve was found."""
    if mark.method is Method.SCAN:
        yield "Seen while something moves; the proof follows when it rests."
        return
    if mark.kind is Kind.POLE:
        yield "The curve leaves every bound here."
        return
    if mark.method is Method.PAIR:
        yield (
            "Two parameters give the same point: x and y both agree there, and the Krawczyk test "
            "shows that there is exactly one such pair nearby."
        )
    elif mark.kind in (Kind.CUSP, Kind.STOP):
        yield "The point stands still here: x and y have slope 0 at the same parameter."
        if mark.kind is Kind.CUSP:
            yield "It goes on in the direction from which it came."
    elif mark.kind in (Kind.START, Kind.END):
        yield "The point at an end of the range."
    elif mark.method is Method.EXACT and mark.exact is not None:
        what = WHAT.get(mark.kind, "the value")
        yield f"At {written_exact(mark.exact)} {what} is exactly 0; nothing is rounded."
    elif mark.method is Method.TOUCH or mark.certainty is Certainty.APPROACHED:
        what = WHAT.get(mark.kind, "the value")
        yield (
            f"Here {what} comes so close to 0 that no difference can be told, but it does not "
            "change sign, so this is not a proof."
        )
    elif mark.kind in WHAT:
        bracket = f"between {decimal(mark.low, 8)} and {decimal(mark.high, 8)}"
        yield (
            f"The sign of {WHAT[mark.kind]} changes {bracket}, and it is monotone in between, so "
            "there is exactly one such parameter in it."
        )
    else:
        yield "Comparing both sides of this parameter shows what the curve does."
    if mark.t_radius:
        error = max(mark.t_radius, abs(mark.t) * 1.2e-16)
        shown = full_precision(mark.t)
        yield f"The parameter is {shown}, with an error below {decimal(error, 2)}."
    error = max(mark.radius, mark.y_radius)
    if error:
        place = f"({full_precision(mark.x)}, {full_precision(mark.y)})"
        yield f"The point is {place}, with errors below {decimal(max(error, 1e-300), 2)}."
