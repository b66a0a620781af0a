"""All landmarks of a relation in a rectangle: on the axes, turns, crossings, single points."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

import numpy as np

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import between, multiply, subtract
from axispath.core.arithmetic.fraction import radical
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.language.tree import Name
from axispath.core.path.relations.kinks import find_kinks
from axispath.core.path.relations.rules import Rectangle, Rules, heights, landmark
from axispath.core.plane.branches import Branches, alone_within, branches_at
from axispath.core.plane.relation import Relation
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Pair, Solved, Zero, solve, within_any
from axispath.core.search.find import find_zeros
from axispath.core.search.isolate import merged_open
from axispath.core.search.landmark import (
    Certainty,
    Common,
    Count,
    Kind,
    Landmark,
    Method,
    Open,
    Path,
    Reason,
)

AXES = ((Kind.MEETS_X, "y"), (Kind.MEETS_Y, "x"))
SIDES = (
    ("leftmost", Kind.UPRIGHT, "x", -1),
    ("rightmost", Kind.UPRIGHT, "x", 1),
    ("lowest", Kind.LEVEL, "y", -1),
    ("highest", Kind.LEVEL, "y", 1),
)
SHARP = (Kind.KINK, Kind.CUSP, Kind.CROSSING, Kind.ISOLATED)  # may be outermost without a turn
NEAR = 2.0**-30  # of the rectangle, within which boxes belong to a crossing that is known
MOST_CUTS = 40
DENOMINATOR = 64  # of coordinates that are tried exactly
PLACES = 5  # searches that share a budget


def find_relation(rules: Rules, relation: Relation, rectangle: Rectangle, budget: Budget) -> Path:
    """The landmarks in a rectangle, in the order of x; the path is over x."""
    left, right = rectangle[:2]
    marks: list[Landmark] = []
    still: list[Open] = []
    for kind, letter in AXES:
        found, unknown = _on_axis(rules, kind, letter, rectangle, budget.part(PLACES))
        marks += found
        still += unknown
    fx, fy = rules.slopes
    if ZERO in (fx, fy):  # lines along an axis, which have no turns
        return _straight(marks, still, relation, rectangle)
    middle = centres_of(rules, rectangle, budget)
    centres, singular = middle.known, middle.singular
    marks += middle.marks
    for kind, letter, slope in ((Kind.UPRIGHT, "y", fy), (Kind.LEVEL, "x", fx)):
        settled = around(rules, letter, centres)
        both = rules.pair(rules.tree, radical(slope))
        solved = solve(both, rectangle, budget.part(PLACES), settled)
        marks += [
            landmark(kind, one)
            for one in solved.zeros
            if not any(_near(mark, one.x, one.y, rectangle) for mark in centres)
        ]
        still += open_stretches(solved, centres, rectangle)
    if singular.spent or len(singular.open):
        # Where both slopes vanish on whole curves, only those on the relation itself matter.
        still += _open_singular(rules, middle, rectangle)
    marks = [mark for mark in marks if relation.holds_at(mark.x, mark.y)]
    marks.sort(key=lambda mark: (mark.x, mark.y))
    counts: tuple[Count, ...] = ()
    if not still:
        edges = [on_edge(rules, edge, rectangle, budget) for edge in EDGES]
        if all(edge == [] for edge in edges):
            marks = _outermost(marks)
        counts = _counted(rules, relation, marks, edges[2:], rectangle, budget)
    stretches = tuple(merged_open(still, (right - left) * NEAR))
    return Path(left, right, tuple(marks), (), stretches, (), (), counts=counts)


@dataclass(frozen=True, slots=True)
class Centres:
    """Where a relation may be no smooth line: crossings, cusps, single points and kinks.

    ``smooth`` are places at which both slopes are 0 and it is a smooth line all the same, and
    ``singular`` all places at which both slopes are 0.
    """

    marks: list[Landmark]
    smooth: list[Landmark]
    singular: Solved

    @property
    def known(self) -> list[Landmark]:
        """All places about which everything is known."""
        return [*self.marks, *self.smooth]


def centres_of(rules: Rules, rectangle: Rectangle, budget: Budget) -> Centres:
    """The places at which both slopes are 0, and the kinks."""
    singular = solve(rules.pair(*rules.slopes), rectangle, budget.part(PLACES))
    found = [*_singular(rules, singular), *_degenerate(rules, singular)]
    kinks = find_kinks(rules, rectangle, budget.part(PLACES))
    smooth = [mark for kind, mark in found if kind is None]
    return Centres([*(m for kind, m in found if kind is not None), *kinks], smooth, singular)


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


def _straight(
    marks: list[Landmark], still: list[Open], relation: Relation, rectangle: Rectangle
) -> Path:
    left, right = rectangle[:2]
    kept = tuple(
        sorted((m for m in marks if relation.holds_at(m.x, m.y)), key=lambda m: (m.x, m.y))
    )
    return Path(left, right, kept, (), tuple(merged_open(still, 0.0)), (), ())


def met(first: Rules, second: Rules, rectangle: Rectangle, budget: Budget) -> Path:
    """Where two equations hold at once, in a rectangle; the path is over x."""
    left, right = rectangle[:2]
    trees = [first.tree, second.tree]
    plans = [first.plan(trees[0]), second.plan(trees[1])]
    for rules in (first, second):
        plans += [rules.plan(slope) for slope in rules.slopes]
    solved = solve(Pair.of(plans, first.unit), rectangle, budget)
    marks = sorted(
        (landmark(Kind.INTERSECTION, one) for one in solved.zeros), key=lambda m: (m.x, m.y)
    )
    still = merged_open(open_stretches(solved, [], rectangle), (right - left) * NEAR)
    return Path(left, right, tuple(marks), (), tuple(still), (), ())


def _on_axis(
    rules: Rules, kind: Kind, letter: str, rectangle: Rectangle, budget: Budget
) -> tuple[list[Landmark], list[Open]]:
    left, right, bottom, top = rectangle
    across = letter == "y"
    fixed, (low, high) = (
        (bottom, top) if across else (left, right),
        ((left, right) if across else (bottom, top)),
    )
    if not fixed[0] <= 0 <= fixed[1]:
        return [], []
    plan = rules.along(letter, 0)
    path = find_zeros(plan, rules.unit, End.at(low), End.at(high), budget)
    marks = []
    for mark in path.landmarks:
        at = replace(mark, kind=kind, y=0.0, y_radius=0.0)
        if not across:
            at = replace(at, x=0.0, y=mark.x, radius=0.0, y_radius=mark.radius, exact=None)
            both = rules.plan(Name("x")), rules.plan(rules.tree)
            pair = Common(*both, 0.0, 0.0, mark.low, mark.high)
            at = replace(at, low=0.0, high=0.0, of=None, pair=pair)
        marks.append(at)
    stretches = [*path.open, *(Open(s.low, s.high, Reason.OVERLAP) for s in path.zero)]
    if across:
        return marks, stretches
    return marks, [Open(0.0, 0.0, item.reason) for item in stretches]


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
        place = _simple(near)
        if place is None or place in known or not _exactly_zero(rules, near):
            continue
        known.add(place)
        branches = branches_at(found, *place)
        if branches is None:
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
    return Kind.CUSP if branches.sharp else None


def _simple(one: Zero) -> tuple[Fraction, Fraction] | None:
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
    simple = _simple(one)
    if simple is None:
        return False
    places = [Exact(near, Fraction(0)) for near in simple]
    for tree in (rules.tree, *rules.slopes):
        plan = rules.plan(tree)
        found = exact_registers(plan, rules.unit, *places)[plan.result]
        if found is None or not found.is_zero:
            return False
    return True


def _near(mark: Landmark, x: float, y: float, rectangle: Rectangle) -> bool:
    left, right, bottom, top = rectangle
    return abs(mark.x - x) <= (right - left) * NEAR and abs(mark.y - y) <= (top - bottom) * NEAR


def open_stretches(solved: Solved, centres: list[Landmark], rectangle: Rectangle) -> list[Open]:
    """Stretches of x with boxes that stayed open, but for those at a crossing that is known."""
    reason = Reason.BUDGET if solved.spent else Reason.CLOSE
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


def _open_singular(rules: Rules, middle: Centres, rectangle: Rectangle) -> list[Open]:
    solved, settled = middle.singular, around(rules, "x", middle.known)
    boxes = solved.open[~within_any(solved.open, settled)]
    value = box_function(rules.plan(rules.tree), rules.unit)
    x, y = between(boxes[:, 0], boxes[:, 1]), between(boxes[:, 2], boxes[:, 3])
    kept = boxes[value(x, y).may_be_zero]
    return open_stretches(Solved((), kept, solved.spent), [], rectangle)


EDGES = (("x", 0), ("x", 1), ("y", 2), ("y", 3))
BREAKING = (Kind.UPRIGHT, *SHARP)


def on_edge(
    rules: Rules, edge: tuple[str, int], rectangle: Rectangle, budget: Budget
) -> list[float] | None:
    """Where the relation meets an edge of the rectangle; None where that is not settled."""
    letter, which = edge
    left, right, bottom, top = rectangle
    low, high = (bottom, top) if letter == "x" else (left, right)
    plan = rules.along(letter, rectangle[which])
    path = find_zeros(plan, rules.unit, End.at(low), End.at(high), budget.part(PLACES))
    return None if path.zero or not path.complete else [mark.x for mark in path.landmarks]


def _counted(
    rules: Rules,
    relation: Relation,
    marks: list[Landmark],
    edges: list[list[float] | None],
    rectangle: Rectangle,
    budget: Budget,
) -> tuple[Count, ...]:
    """How many points lie over each x: as many as over one place between two that change it."""
    left, right, bottom, top = rectangle
    if relation.rule is not None or any(edge is None for edge in edges):
        return ()
    cuts = {left, right, *(mark.x for mark in marks if mark.kind in BREAKING)}
    cuts |= {x for edge in edges if edge is not None for x in edge}
    ordered = sorted(x for x in cuts if left <= x <= right)
    if len(ordered) > MOST_CUTS:
        return ()
    found = []
    for low, high in itertools.pairwise(ordered):
        there, complete = heights(rules, (bottom, top), (low + high) / 2, budget.part(PLACES))
        if not complete:
            return ()
        found.append(Count(low, high, len(there)))
    return tuple(found)


def _outermost(marks: list[Landmark]) -> list[Landmark]:
    """The landmarks of something bounded, with those farthest to one side marked as such."""
    named: dict[int, list[str]] = {}
    for word, kind, axis, sign in SIDES:
        own = [m for m in marks if m.kind is kind or m.kind in SHARP]
        if not own:
            continue
        best = max(sign * getattr(mark, axis) for mark in own)
        for mark in own:
            error = 2 * (mark.radius if axis == "x" else mark.y_radius) + 1e-13 * abs(best)
            if sign * getattr(mark, axis) >= best - error:
                named.setdefault(id(mark), []).append(word)
    return [replace(m, extremes=tuple(named[id(m)])) if id(m) in named else m for m in marks]
