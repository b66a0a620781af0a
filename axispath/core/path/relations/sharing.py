"""Two polynomials that are 0 at once on a whole curve, and the points that are left besides."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from axispath.core import catalogue
from axispath.core.arithmetic.polynomial import Coefficients
from axispath.core.language.plain import fair, plain
from axispath.core.path.relations.centres import DENOMINATOR
from axispath.core.path.relations.rules import Rectangle, Rules, may_pass
from axispath.core.path.relations.search import met
from axispath.core.plane.elimination import seen_within
from axispath.core.plane.polynomials import Shared, shared, value_at, written
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import Landmark, Open, Path, Reason, SharedCurve


def shared_within(
    first: Coefficients | None, second: Coefficients | None, rectangle: Rectangle
) -> Shared | None:
    """What two polynomials share, where it is a curve that surely is in a rectangle."""
    if first is None or second is None:
        return None
    found = shared(first, second)
    return found if found is not None and seen_within(found.curve, rectangle) else None


def met_or_shared(first: Rules, second: Rules, rectangle: Rectangle, budget: Budget) -> Path:
    """Where two equations hold at once: along a curve that they share, and at single points."""
    found = shared_within(first.polynomial, second.polynomial, rectangle)
    if found is None:
        return met(first, second, rectangle, budget)
    curve, one, other = (
        Rules(written(part), first.definitions, first.unit) for part in (found.curve, *found.rest)
    )
    whole = sum(k for k, part in ((1, one), (2, other)) if _is_constant(part))
    told = SharedCurve(text_of(found.curve), whole)
    left, right = rectangle[:2]
    if whole:
        return Path(left, right, (), (), (), (), (), shared=told)
    path = met(one, other, rectangle, budget)
    marks, still = beside(path.landmarks, curve, found)
    return replace(path, landmarks=marks, open=(*path.open, *still), shared=told)


def beside(
    marks: tuple[Landmark, ...], curve: Rules, found: Shared
) -> tuple[tuple[Landmark, ...], list[Open]]:
    """The points that do not lie on a shared curve; and where that could not be told."""
    kept, still = [], []
    for mark in marks:
        if not may_pass(curve, mark):
            kept.append(mark)
            continue
        place = [Fraction(at).limit_denominator(DENOMINATOR) for at in (mark.x, mark.y)]
        if any(value_at(part, *place) for part in (found.curve, *found.rest)):
            still.append(Open(mark.x, mark.x, Reason.OVERLAP))
    return tuple(kept), still


def text_of(curve: Coefficients) -> str:
    """The equation of a curve on one line."""
    return f"{fair(plain(written(curve), catalogue.VOCABULARY))} = 0"


def _is_constant(rules: Rules) -> bool:
    return max(map(sum, rules.polynomial or [(0, 0)])) == 0
