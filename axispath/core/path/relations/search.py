"""All landmarks of a relation in a rectangle: on the axes, turns, crossings, single points."""

from __future__ import annotations

import itertools
from dataclasses import replace

from axispath.core.arithmetic.fraction import radical
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.simplest import ZERO
from axispath.core.language.tree import Name
from axispath.core.path.relations.centres import (
    NEAR,
    PLACES,
    around,
    centres_of,
    may_be_flat,
    near,
    open_stretches,
    unsettled,
)
from axispath.core.path.relations.eliminating import eliminated
from axispath.core.path.relations.rules import Rectangle, Rules, heights, landmark
from axispath.core.plane.polynomials import slope as slope_of
from axispath.core.plane.relation import Relation
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Pair, solve
from axispath.core.search.find import find_zeros
from axispath.core.search.isolate import merged_open
from axispath.core.search.landmark import (
    Common,
    Count,
    Kind,
    Landmark,
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
MOST_CUTS = 40


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
    centres = middle.known
    marks += middle.marks
    for kind, letter in ((Kind.UPRIGHT, "y"), (Kind.LEVEL, "x")):
        turns, unsure = _turns(rules, kind, letter, rectangle, budget, centres)
        marks += turns
        still += unsure
    still += unsettled(rules, middle, rectangle)
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


def _turns(
    whole: Rules,
    kind: Kind,
    letter: str,
    rectangle: Rectangle,
    budget: Budget,
    centres: list[Landmark],
) -> tuple[list[Landmark], list[Open]]:
    """Where the slope along a letter is 0, but for centres; and what stays open."""
    rules = whole.turning
    steep = ZERO if rules is None else rules.slopes["xy".index(letter)]
    if rules is None or steep == ZERO:
        return [], []
    settled = around(rules, letter, centres)
    both = rules.pair(rules.tree, radical(steep))
    solved = solve(both, rectangle, budget.part(PLACES), settled)
    own = rules.polynomial
    if own is not None:
        solved = eliminated(own, slope_of(own, letter), both, solved, rectangle)
    found, still = [], open_stretches(solved, centres, rectangle)
    for one in solved.zeros:
        if any(near(mark, one.x, one.y, rectangle) for mark in centres):
            continue
        if one.by_elimination and may_be_flat(whole, one):
            still.append(Open(*one.box[:2], Reason.CLOSE))
        else:
            found.append(landmark(kind, one))
    return found, still


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
    pair = Pair.of(plans, first.unit)
    solved = solve(pair, rectangle, budget)
    solved = eliminated(first.polynomial, second.polynomial, pair, solved, rectangle)
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
    # Along a stretch of the axis that belongs to it, no point is one by itself.
    if across:
        return marks, list(path.open)
    return marks, [Open(0.0, 0.0, item.reason) for item in path.open]


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
