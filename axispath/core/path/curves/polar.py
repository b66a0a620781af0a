"""What a distance from the pole says of its curve: farthest and nearest points, and crossings.

Two parameters give the same point where the distance is 0 at both, or where they are whole turns
apart with the same distance, or turns and a half apart with opposite ones. So crossings are zeros
of functions of one variable.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.curves.along import ball_of, located
from axispath.core.path.curves.crossing import Crossings
from axispath.core.path.curves.round import Round
from axispath.core.search.budget import Budget
from axispath.core.search.find import find_zeros
from axispath.core.search.landmark import Certainty, Kind, Landmark, Open, Path, Span
from axispath.core.sheet.curve import Curve, Slopes

BITS = 106
MOST_TURNS = 40
PI = "π"


def distances(
    curve: Curve, slopes: Slopes, around: Round, budget: Budget
) -> tuple[list[Landmark], list[Span], list[Open]]:
    """Where the distance from the pole is greatest and least, where it is 0, and its sign."""
    assert curve.radius is not None and slopes.radius is not None
    zeros = _zeros(curve.radius, curve, around.low, around.high, budget)
    flat = _zeros(slopes.radius, curve, around.low, around.high, budget)
    radius = BallFunction(curve.radius, curve.unit)
    found = []
    for mark in flat.of(Kind.ZERO):
        if around.closed and abs(mark.x - around.high.x) <= 1e-12 * abs(around.high.x):
            continue
        kind = _kind(radius, ball_of(mark))
        bracket = (mark.low, mark.high)
        if kind is None:
            continue
        at = located(curve, kind, ball_of(mark), mark.certainty, mark.method, bracket, mark.exact)
        if at is not None:
            found.append(at)
    at_ends = [m for m in zeros.of(Kind.END) if m.closed and m.y == 0]
    # Where a zero is at an end, both are one.
    places = {m.x: m for m in (*at_ends, *zeros.of(Kind.ZERO)) if not _at_end(around, m.x)}
    passes = [places[x] for x in sorted(places)]
    if passes:
        first = passes[0]
        at = located(
            curve,
            Kind.AT_POLE,
            ball_of(first),
            max((m.certainty for m in passes), key=list(Certainty).index),
            first.method,
            (first.low, first.high),
            first.exact,
        )
        if at is not None:
            found.append(replace(at, x=0.0, y=0.0, also=tuple(m.x for m in passes[1:])))
    signs = [Span(c.low, c.high, c.sign, 0, 0) for c in zeros.cells if c.low < c.high and c.sign]
    return _farthest(found), signs, [*zeros.open, *flat.open]


def _at_end(around: Round, t: float) -> bool:
    return around.closed and abs(t - around.high.x) <= 1e-12 * max(abs(around.high.x), 1.0)


def _zeros(plan: Program, curve: Curve, low: End, high: End, budget: Budget) -> Path:
    share = budget.part(3)
    granted = share.left
    found = find_zeros(plan, curve.unit, low, high, share, with_breaks=True)
    budget.left -= granted - share.left
    return found


def _kind(radius: BallFunction, t: arb) -> Kind | None:
    """Whether the distance is greatest or least at a zero of its slope, which may be neither."""
    with precision(BITS):
        try:
            value, _, bend = radius.taylor(t, 3)
        except OutsideDomain:
            return None
        turned = value * bend
        if turned < 0:
            return Kind.FARTHEST
        return Kind.NEAREST if turned > 0 else None


def _farthest(marks: list[Landmark]) -> list[Landmark]:
    """The farthest of all marked as such."""
    far = [mark.x * mark.x + mark.y * mark.y for mark in marks if mark.kind is Kind.FARTHEST]
    if not far:
        return marks
    best = max(far) * (1 - 1e-12)
    return [
        replace(mark, extremes=("farthest of all",))
        if mark.kind is Kind.FARTHEST and mark.x * mark.x + mark.y * mark.y >= best
        else mark
        for mark in marks
    ]


def polar_crossings(curve: Curve, around: Round, budget: Budget) -> Crossings:
    """Where a polar curve crosses itself away from the pole."""
    assert curve.radius is not None
    found = Crossings()
    half = 180.0 if curve.unit is AngleUnit.DEGREE else float(arb.pi().mid())
    width = around.high.x - around.low.x
    most = int(width / half / (2 if around.closed else 1) + 1e-9)
    if most > MOST_TURNS:
        found.spent, most = True, MOST_TURNS
    radius = BallFunction(curve.radius, curve.unit)
    known: list[tuple[float, float]] = []
    for k in range(1, most + 1):
        shift = _shift(k, curve.unit)
        with precision(200):
            high = around.high if around.closed else End(around.high.ball - shift.ball)
        if not around.low.ball < high.ball:
            continue
        apart = _apart(curve.radius, shift, 1 if k % 2 else -1)
        path = _zeros(apart, curve, around.low, high, budget)
        found.open += [(item.low, item.high) for item in path.open]
        for mark in path.of(Kind.ZERO):
            if _at_end(around, mark.x):
                continue
            other = mark.x + k * half
            other = other - width if around.closed and other > around.high.x - 1e-9 else other
            pair = (min(mark.x, other), max(mark.x, other))
            near = 1e-9 * max(width, 1.0)
            if any(abs(a - pair[0]) < near and abs(b - pair[1]) < near for a, b in known):
                continue
            with precision(BITS):
                if radius.value(ball_of(mark)).contains(0):
                    continue  # at the pole
            known.append(pair)
            at = _crossing(curve, mark, pair)
            if at is not None:
                found.marks.append(at)
    return found


def _crossing(curve: Curve, mark: Landmark, pair: tuple[float, float]) -> Landmark | None:
    bracket = (mark.low, mark.high)
    at = located(
        curve, Kind.CROSSING, ball_of(mark), mark.certainty, mark.method, bracket, mark.exact
    )
    if at is None:
        return None
    return replace(at, also=(pair[0] if abs(pair[1] - mark.x) < 1e-9 else pair[1],))


def _shift(k: int, unit: AngleUnit) -> Exact:
    return Exact(Fraction(180 * k)) if unit is AngleUnit.DEGREE else Exact(Fraction(0), Fraction(k))


def _apart(plan: Program, shift: Exact, sign: int) -> Program:
    """r(θ + shift) + sign · r(θ) as a program of θ."""
    steps = [Step("input", (), "θ"), Step("number", (), shift.rational or shift.turns)]
    last = 1
    if shift.turns:
        steps += [Step("constant", (), PI), Step("multiply", (1, 2))]
        last = 3
    steps.append(Step("add", (0, last)))
    results = []
    for start in (len(steps) - 1, 0):
        moved = {0: start}
        for index, step in enumerate(plan.steps[1:], 1):
            operands = tuple(moved[i] for i in step.operands)
            moved[index] = len(steps)
            steps.append(Step(step.operation, operands, step.detail))
        results.append(moved[plan.result])
    steps.append(Step("add" if sign > 0 else "subtract", (results[0], results[1])))
    return Program(1, tuple(steps), len(steps) - 1)
