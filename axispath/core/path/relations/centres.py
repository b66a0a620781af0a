"""Where a relation may be no smooth line: crossings, cusps, single points and kinks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

import numpy as np

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import between, multiply, subtract
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.path.relations.eliminating import eliminated
from axispath.core.path.relations.kinks import find_kinks
from axispath.core.path.relations.rules import Rectangle, Rules, landmark
from axispath.core.plane.branches import Branches, alone_within, branches_at
from axispath.core.plane.polynomials import slope as slope_of
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Solved, Zero, solve, within_any
from axispath.core.search.landmark import Certainty, Kind, Landmark, Method, Open, Reason

NEAR = 2.0**-30  # of the rectangle, within which boxes belong to a crossing that is known
DENOMINATOR = 64  # of coordinates that are tried exactly
PLACES = 5  # searches that share a budget


@dataclass(frozen=True, slots=True)
class Centres:
    """Where a relation may be no smooth line: crossings, cusps, single points and kinks.

    ``smooth`` are places at which both slopes are 0 and it is a smooth line all the same,
    ``singular`` all places at which both slopes are 0, and ``bent`` boxes in which its formula may
    jump or bend in a way that is not known.
    """

    marks: list[Landmark]
    smooth: list[Landmark]
    singular: Solved
    bent: Solved

    @property
    def known(self) -> list[Landmark]:
        """All places about which everything is known."""
        return [*self.marks, *self.smooth]


def centres_of(rules: Rules, rectangle: Rectangle, budget: Budget) -> Centres:
    """The places at which both slopes are 0, and the kinks."""
    singular, exact = _both_flat(rules, rectangle, budget)
    found = [*_singular(rules, singular), *_degenerate(rules, singular)]
    if exact:  # its boxes are about single points, of which some are known now
        told = [place.around for place in singular.zeros]
        told += [_beside(mark, rectangle) for _, mark in found]
        left = singular.open[~within_any(singular.open, told)]
        singular = replace(singular, open=left)
    kinks = find_kinks(rules, rectangle, budget.part(PLACES))
    smooth = [mark for kind, mark in found if kind is None]
    marks = [*(m for kind, m in found if kind is not None), *kinks.marks]
    return Centres(marks, smooth, singular, kinks.open)


def _beside(mark: Landmark, rectangle: Rectangle) -> Rectangle:
    """A rectangle about a landmark, of the size within which places are taken for one."""
    wide, high = (rectangle[1] - rectangle[0]) * NEAR, (rectangle[3] - rectangle[2]) * NEAR
    return (mark.x - wide, mark.x + wide, mark.y - high, mark.y + high)


def _both_flat(rules: Rules, rectangle: Rectangle, budget: Budget) -> tuple[Solved, bool]:
    """Where both slopes are 0; what only elimination finds stays open, in boxes about the points.

    Also whether it did, so that there are no other points but those in the boxes.
    """
    pair = rules.pair(*rules.slopes)
    own = rules.polynomial
    if own is None:
        value = box_function(rules.plan(rules.tree), rules.unit)
        return solve(pair, rectangle, budget.part(PLACES), also=value), False
    solved = solve(pair, rectangle, budget.part(PLACES))
    slopes = (slope_of(own, "x"), slope_of(own, "y"))
    exact = eliminated(*slopes, pair, solved, rectangle)
    if exact is solved:
        return solved, False
    boxes = [one.box for one in exact.zeros if one.by_elimination]
    return Solved(solved.zeros, np.array(boxes).reshape(-1, 4), False), True


def may_be_flat(rules: Rules, one: Zero) -> bool:
    """Whether both slopes may be 0 in the box of a zero."""
    x, y = (between(np.array([a]), np.array([b])) for a, b in (one.box[:2], one.box[2:]))
    return all(
        bool(box_function(rules.plan(slope), rules.unit)(x, y).may_be_zero[0])
        for slope in rules.slopes
    )


def around(rules: Rules, letter: str, centres: list[Landmark]) -> list[Rectangle]:
    """Rectangles about exact centres of a polynomial in which no other place has this slope 0."""
    found = []
    for mark in centres:
        if rules.polynomial is None or mark.certainty is not Certainty.EXACT:
            continue
        place = [Fraction(at).limit_denominator(DENOMINATOR) for at in (mark.x, mark.y)]
        alone = alone_within(rules.polynomial, letter, *place)
        if alone is not None:
            half = float(alone) / 2
            found.append((mark.x - half, mark.x + half, mark.y - half, mark.y + half))
    return found


Told = tuple[Kind | None, Landmark]
"""What a place at which both slopes are 0 is: None for a smooth line."""


def _singular(rules: Rules, solved: Solved) -> Iterator[Told]:
    """Simple zeros of both slopes at which F is 0 too, as far as can be told."""
    value = box_function(rules.plan(rules.tree), rules.unit)
    fx, fy = rules.slopes
    second = [
        box_function(rules.plan(rules.slope(tree, letter)), rules.unit)
        for tree, letter in ((fx, "x"), (fx, "y"), (fy, "y"))
    ]
    for one in solved.zeros:
        x, y = (between(np.array([a]), np.array([b])) for a, b in (one.box[:2], one.box[2:]))
        if not bool(value(x, y).may_be_zero[0]):
            continue
        exact = _exactly_zero(rules, one)
        room = float(value(x, y).high[0] - value(x, y).low[0])
        if not exact and not room < 1e-9:
            continue
        a, b, c = (part(x, y) for part in second)
        det = subtract(multiply(a, c), multiply(b, b))
        if not (det.has_no_zero[0]):
            continue
        # Beside it the relation is as the quadratic form of its second slopes.
        kind = Kind.CROSSING if det.high[0] < 0 else Kind.ISOLATED
        certainty = Certainty.EXACT if exact else Certainty.APPROACHED
        yield kind, landmark(kind, one, certainty)


def _degenerate(rules: Rules, solved: Solved) -> Iterator[Told]:
    """Simple places at which F and both slopes are exactly 0, where nothing else could be told.

    What they are tell the branches of a polynomial; of another formula nothing is said.
    """
    found = rules.polynomial
    if solved.spent or found is None:
        return
    known: set[tuple[Fraction, Fraction]] = set()
    for a, b, c, d in solved.open.tolist():
        wide, high = (b - a) or 1e-300, (d - c) or 1e-300
        near = Zero((a - wide, b + wide, c - high, d + high), (a - wide, b + wide, c, d))
        place = exact_place(near)
        if place is None or place in known or not _exactly_zero(rules, near):
            continue
        known.add(place)
        branches = branches_at(found, *place)
        if branches is None or (branches.half == 2 and not branches.sharp and not branches.tangent):
            continue
        kind = _kind(branches)
        x, y = (float(part) for part in place)
        at = Landmark(Kind.CROSSING, x, y, Certainty.EXACT, low=a, high=b, method=Method.PAIR)
        yield kind, replace(at, kind=kind or at.kind)


def _kind(branches: Branches) -> Kind | None:
    if branches.half == 0:
        return Kind.ISOLATED
    if branches.half > 2:
        return Kind.CROSSING
    if branches.sharp:
        return Kind.CUSP
    return {(0, 1): Kind.UPRIGHT, (1, 0): Kind.LEVEL}.get(branches.tangent or (1, 1))


def exact_place(one: Zero) -> tuple[Fraction, Fraction] | None:
    """The simple fractions that a box holds, if it does."""
    places = []
    for value, radius in zip((one.x, one.y), one.radii, strict=True):
        near = Fraction(value).limit_denominator(DENOMINATOR)
        if abs(float(near) - value) > 2 * radius + 1e-15 * abs(value):
            return None
        places.append(near)
    return places[0], places[1]


def _exactly_zero(rules: Rules, one: Zero) -> bool:
    """Whether exact arithmetic gives 0 at the simple place that a box holds."""
    simple = exact_place(one)
    if simple is None:
        return False
    places = [Exact(near, Fraction(0)) for near in simple]
    for tree in (rules.tree, *rules.slopes):
        plan = rules.plan(tree)
        found = exact_registers(plan, rules.unit, *places)[plan.result]
        if found is None or not found.is_zero:
            return False
    return True


def near(mark: Landmark, x: float, y: float, rectangle: Rectangle) -> bool:
    """Whether a place is so near to a landmark that it is taken for the same."""
    left, right, bottom, top = rectangle
    return abs(mark.x - x) <= (right - left) * NEAR and abs(mark.y - y) <= (top - bottom) * NEAR


def open_stretches(
    solved: Solved, centres: list[Landmark], rectangle: Rectangle, why: Reason = Reason.CLOSE
) -> list[Open]:
    """Stretches of x with boxes that stayed open, but for those at a crossing that is known."""
    reason = Reason.BUDGET if solved.spent else why
    left, right, bottom, top = rectangle
    wide, high = (right - left) * NEAR * 4, (top - bottom) * NEAR * 4
    found = []
    for a, b, c, d in solved.open.tolist():
        if any(
            a - wide <= mark.x <= b + wide and c - high <= mark.y <= d + high for mark in centres
        ):
            continue
        found.append(Open(a, b, reason))
    return found


def unsettled(rules: Rules, middle: Centres, rectangle: Rectangle) -> list[Open]:
    """Where a relation may be no smooth line in a way that is not known."""
    bent = open_stretches(middle.bent, middle.known, rectangle, Reason.BREAK)
    solved, settled = middle.singular, around(rules, "x", middle.known)
    if not solved.spent and not len(solved.open):
        return bent
    # Where both slopes vanish on whole curves, only those on the relation itself matter.
    boxes = solved.open[~within_any(solved.open, settled)]
    value = box_function(rules.plan(rules.tree), rules.unit)
    x, y = between(boxes[:, 0], boxes[:, 1]), between(boxes[:, 2], boxes[:, 3])
    kept = boxes[value(x, y).may_be_zero]
    kinks = [mark for mark in middle.marks if mark.kind is Kind.KINK]
    return [*bent, *open_stretches(Solved((), kept, solved.spent), kinks, rectangle)]
