"""Relations and regions: their landmarks, where they meet others, and what a view has to hold."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import replace

import numpy as np

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.program import Definition, NotComputable, extended
from axispath.core.language.tree import Call, Name
from axispath.core.path.curves.meets import parts_of, zeros_along
from axispath.core.path.kinds.register import Box, Search, Searched
from axispath.core.path.lanes import Effort, Range, interval, met_on, remembered
from axispath.core.path.relations.regions import find_corners
from axispath.core.path.relations.rules import Rectangle, is_polynomial, rules_of
from axispath.core.path.relations.search import find_relation, met
from axispath.core.path.relations.sharing import met_or_shared
from axispath.core.plane.picture import borders, curve_drawn
from axispath.core.plane.plain import PLANE
from axispath.core.plane.relation import relation_of
from axispath.core.plane.screen import Screen
from axispath.core.search.budget import Budget
from axispath.core.search.find import find_zeros
from axispath.core.search.landmark import REGION_GROUPS, RELATION_GROUPS, Open, Path, Reason
from axispath.core.sheet.curve import range_of
from axispath.core.sheet.document import View
from axispath.core.sheet.resolve import ResolvedLane

RULE, HEIGHT = "the relation", "the height"
REACHES = (10.0, 100.0, 1000.0)
PIXELS = 160
MARGIN = 0.2
SEEN = 2.0  # times as far as the nearest part of something that has no end


def _rectangle(view: View, only: Range | None) -> Rectangle | None:
    left, right = view.left, view.right
    if only is not None:
        left, right = max(left, only[0].x), min(right, only[1].x)
    return (left, right, view.bottom, view.top) if left < right else None


def in_rectangle(work: Callable[[ResolvedLane, Rectangle, Budget], Path]) -> Search:
    """A search of the part of the plane that a view shows."""

    def path(
        lane: ResolvedLane, view: View, effort: Effort, searches: int, only: Range | None
    ) -> Path | None:
        rectangle = _rectangle(view, only)
        return None if rectangle is None else work(lane, rectangle, effort.budget(searches))

    return path


def _relation(lane: ResolvedLane, rectangle: Rectangle, budget: Budget) -> Path:
    relation = relation_of(lane)
    return searched(
        ("relation", relation),
        lane,
        rectangle,
        budget,
        lambda: find_relation(rules_of(lane), relation, rectangle, budget),
    )


def _region(lane: ResolvedLane, rectangle: Rectangle, budget: Budget) -> Path:
    relation = relation_of(lane)
    return searched(
        ("relation", relation),
        lane,
        rectangle,
        budget,
        lambda: find_corners(lane, relation, rectangle, budget),
    )


def searched(
    subject: tuple[Hashable, ...],
    lane: ResolvedLane,
    rectangle: Rectangle,
    budget: Budget,
    work: Callable[[], Path],
) -> Path:
    """A path in a rectangle, remembered; open throughout where no rule gives a slope."""
    left, right = rectangle[:2]
    ends = interval(lane, left, right, None)
    assert ends is not None

    def tried() -> Path:
        try:
            return work()
        except NotComputable:
            return Path(left, right, (), (), (Open(left, right, Reason.BREAK),), (), ())

    return remembered((*subject, rectangle), ends, budget, tried)


def quick(lane: ResolvedLane, view: View, only: Range | None) -> Path | None:
    """Nothing is looked for while something moves: the picture is all there is time for."""
    return Path(view.left, view.right, (), (), (), (), (), proven=False)


RELATION = Searched(in_rectangle(_relation), quick, RELATION_GROUPS)
REGION = Searched(in_rectangle(_region), quick, REGION_GROUPS)


def function_meets(
    first: ResolvedLane, second: ResolvedLane, view: View, budget: Budget, only: Range | None
) -> Path | None:
    """Where a function f meets a relation: zeros of F(x, f(x)) on the domain of f."""
    ends = interval(first, view.left, view.right, only)
    if ends is None:
        return None
    assert first.statement is not None
    rules, relation = rules_of(second), relation_of(second)
    height = Definition(first.parameters, first.statement.body)
    more = {RULE: Definition(PLANE, rules.tree), HEIGHT: height}
    known = extended(second.definitions, more)
    variable = first.parameters[0]
    at = Name(variable)
    apart = program(Call(RULE, (at, Call(HEIGHT, (at,)))), (variable,), known)

    def work() -> Path:
        path = find_zeros(apart, first.unit, *ends, budget)
        marks = [met_on(first, mark) for mark in path.landmarks]
        return replace(path, landmarks=tuple(m for m in marks if relation.holds_at(m.x, m.y)))

    return remembered(("meets", apart, first.program, relation), ends, budget, work)


def curve_meets(
    first: ResolvedLane, second: ResolvedLane, view: View, budget: Budget, only: Range | None
) -> Path | None:
    """Where a curve meets a relation: zeros of F(x(t), y(t))."""
    rules, relation = rules_of(second), relation_of(second)
    known = extended(first.definitions, {RULE: Definition(PLANE, rules.tree)})
    apart = program(Call(RULE, parts_of(first)), first.parameters, known)
    span = range_of(first)

    def work() -> Path:
        path = zeros_along(first, apart, budget)
        return replace(
            path, landmarks=tuple(m for m in path.landmarks if relation.holds_at(m.x, m.y))
        )

    subject = ("meets", apart, first.programs, relation)
    return remembered(subject, (span.low, span.high), budget, work)


def relations_meet(
    first: ResolvedLane, second: ResolvedLane, view: View, budget: Budget, only: Range | None
) -> Path | None:
    """Where two relations meet: two equations in two unknowns."""
    rectangle = _rectangle(view, only)
    if rectangle is None:
        return None
    one, other = relation_of(first), relation_of(second)

    def work() -> Path:
        rules = rules_of(first), rules_of(second)
        alike = all(is_polynomial(lane) for lane in (first, second))
        path = (met_or_shared if alike else met)(*rules, rectangle, budget)
        kept = tuple(
            m for m in path.landmarks if one.holds_at(m.x, m.y) and other.holds_at(m.x, m.y)
        )
        return replace(path, landmarks=kept)

    return searched(("meets", one, other), first, rectangle, budget, work)


def relation_box(lane: ResolvedLane, margins: bool) -> Box | None:
    """left, right, bottom and top around something bounded, or around its part nearest to 0."""
    relation = relation_of(lane)
    for reach in REACHES:
        frame = Screen(-reach, reach, -reach, reach, PIXELS, PIXELS)
        if relation.curve is not None:
            found = curve_drawn(relation, relation.curve, frame).segments
        else:
            found = np.concatenate(borders(relation, frame)[:2])
        places = found.reshape(-1, 2)
        if not len(places):
            continue
        low, high = places.min(axis=0), places.max(axis=0)
        pixel = 4 * reach / PIXELS
        if (low > -reach + pixel).all() and (high < reach - pixel).all():
            break
        near = float(np.hypot(places[:, 0], places[:, 1]).min())
        half = min(reach, max(SEEN * near, 0.3 * reach))
        low, high = np.array([-half, -half]), np.array([half, half])
        break
    else:
        return None
    size = np.where(high > low, high - low, 2.0)
    pad = size * MARGIN if margins else 0.0
    (left, bottom), (right, top) = low - pad, high + pad
    return float(left), float(right), float(bottom), float(top)
