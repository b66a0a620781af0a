"""Where curves meet functions and one another."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.program import Definition, Program, extended
from axispath.core.language.points import from_polar
from axispath.core.language.tree import Call, Expression, FunctionStatement, Name, Negation, Sum
from axispath.core.language.walking import coordinates
from axispath.core.path.curves.along import Along, along, ball_of, located
from axispath.core.path.curves.arcs import Arcs, arcs_of
from axispath.core.path.curves.crossing import crossing_at, polished, size_of
from axispath.core.path.curves.meeting import meetings
from axispath.core.path.curves.models import Floats, modelled
from axispath.core.path.curves.round import round_of
from axispath.core.search.budget import Budget
from axispath.core.search.find import find_zeros, untouched
from axispath.core.search.isolate import merged_open
from axispath.core.search.landmark import Kind, Landmark, Open, Path, Reason
from axispath.core.sheet.curve import curve_of, range_of, slopes_of
from axispath.core.sheet.resolve import ResolvedLane

RULE = "the other function"


def parts_of(lane: ResolvedLane) -> tuple[Expression, Expression]:
    """The coordinates of a curve as trees."""
    statement = lane.statement
    assert isinstance(statement, FunctionStatement)
    return coordinates(statement.body) or from_polar(statement.body, Name(statement.parameters[0]))


def with_function(curve: ResolvedLane, function: ResolvedLane, budget: Budget) -> Path:
    """Where a curve meets a function: zeros of y(t) − f(x(t)); the path is over the parameter."""
    assert function.statement is not None
    x, y = parts_of(curve)
    rule = Definition(function.parameters, function.statement.body)
    apart = program(
        Sum((y, Negation(Call(RULE, (x,))))),
        curve.parameters,
        extended(curve.definitions, {RULE: rule}),
    )
    found = zeros_along(curve, apart, budget)
    return replace(found, landmarks=tuple(m for m in found.landmarks if _within(function, m)))


def zeros_along(curve: ResolvedLane, apart: Program, budget: Budget) -> Path:
    """The places of a curve at whose parameters a program of these is 0."""
    shape = curve_of(curve)
    around = round_of(shape, range_of(curve))
    found = find_zeros(apart, curve.unit, around.low, around.high, budget)
    marks = []
    for mark in found.landmarks:
        closing = around.closed and abs(mark.x - around.high.x) <= 1e-12 * abs(around.high.x)
        bracket = (mark.low, mark.high)
        at = None
        if not closing:
            at = located(
                shape,
                Kind.INTERSECTION,
                ball_of(mark),
                mark.certainty,
                mark.method,
                bracket,
                mark.exact,
            )
        if at is not None:
            marks.append(at)
    return replace(found, landmarks=tuple(marks), cells=())


def _within(function: ResolvedLane, mark: Landmark) -> bool:
    """Whether a place lies in the domain that is written for a function."""
    low, high = function.ends
    room = 4 * mark.radius + 1e-15 * abs(mark.x)
    above = low is None or mark.x > low.x + room or (low.closed and mark.x >= low.x - room)
    below = high is None or mark.x < high.x - room or (high.closed and mark.x <= high.x + room)
    return above and below


def with_curve(one: ResolvedLane, other: ResolvedLane, budget: Budget) -> Path:
    """Where two curves meet; the path is over the parameter of the first."""
    sides: list[tuple[Along, Arcs]] = []
    for lane in (one, other):
        shape, slopes = curve_of(lane), slopes_of(lane)
        around = round_of(shape, range_of(lane))
        if slopes is None:
            return untouched(around.low.x, around.high.x)
        told = along(shape, slopes, around, budget.part(3))
        sides.append((told, arcs_of(told)))
    (first, first_arcs), (second, second_arcs) = sides
    low, high = first.low, first.high
    open_ones = [Open(*part, Reason.BREAK) for part in first_arcs.unknown]
    open_ones += [item for path in first.paths for item in path.open]
    size = max(size_of(first.curve, first_arcs), size_of(second.curve, second_arcs))
    pieces, bad = modelled(first.curve, first_arcs.stretches, size, budget)
    others, worse = modelled(second.curve, second_arcs.stretches, size, budget)
    if (worse and pieces.count) or second_arcs.unknown:
        # The other curve has parts of which no box is known.
        open_ones.append(Open(low, high, Reason.BREAK))
    open_ones += [Open(*part, Reason.BREAK) for part in bad]
    i, j = pieces.near(others)

    def nothing(low_s: Floats, high_s: Floats, low_t: Floats, high_t: Floats) -> np.ndarray:
        return np.zeros(len(low_s), dtype=bool)

    met = meetings(pieces, others, i, j, nothing, budget)
    marks: list[Landmark] = []
    for point in polished(first.curve, second.curve, met, budget):
        mark = crossing_at(first.curve, point)
        if mark is None or any(
            _same(first, mark, known) or _at_one_place(mark, known) for known in marks
        ):
            continue
        marks.append(replace(mark, kind=Kind.INTERSECTION))
    reason = Reason.OVERLAP if met.overlap else Reason.BUDGET if met.spent else Reason.CLOSE
    open_ones += [Open(part[0], part[1], reason) for part in met.open]
    still = merged_open(open_ones, (high - low) * 2.0**-30)
    marks.sort(key=lambda mark: mark.t)
    return Path(low, high, tuple(marks), (), tuple(still), (), (), more=met.spent)


def _at_one_place(one: Landmark, other: Landmark) -> bool:
    """Whether two meetings cannot be told apart by place: curves may pass it several times."""
    return all(
        abs(a - b) <= off + noise + 4 * math.ulp(max(abs(a), abs(b), 1.0))
        for a, b, off, noise in (
            (one.x, other.x, one.radius, other.radius),
            (one.y, other.y, one.y_radius, other.y_radius),
        )
    )


def _same(told: Along, one: Landmark, other: Landmark) -> bool:
    """Whether two meetings are one: at the same place of both curves."""
    near = 1e-9 * max(told.high - told.low, 1.0)
    ends = told.round.closed and {True} == {
        told.same(one.t, told.low) or told.same(one.t, told.high),
        told.same(other.t, told.low) or told.same(other.t, told.high),
    }
    return (ends or abs(one.t - other.t) < near) and abs(one.also[0] - other.also[0]) < near
