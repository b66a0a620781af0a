"""The path of a function over an interval, and the intersections of two functions."""

from __future__ import annotations

import itertools
import math
from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import exact_value
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.isolate import MAX_ROOTS, Isolated, isolate
from axispath.core.path.landmark import Certainty, Kind, Landmark, Open, Path, Span, Stretch
from axispath.core.path.root import Root
from axispath.core.path.tower import Tower, sign

EVALUATIONS = 8_000  # the usual budget of one search
VALUE_BITS = 160


def find_path(
    plan: Program, unit: AngleUnit, low: End, high: End, evaluations: int = EVALUATIONS
) -> Path:
    """Zeros, extrema, inflections and spans of a function of one variable."""
    function = BallFunction(plan, unit)
    tower = Tower(function, evaluations)
    start, stop = _outward(low, high)
    found = isolate(tower, start, stop, (0, 1, 2))
    landmarks: list[Landmark] = []
    for root in found.roots:
        kind = _kind(tower, root)
        if kind is not None and _inside(root, low, high):
            landmarks.append(_landmark(function, plan, kind, root))
    landmarks += _ends(function, low, high)
    landmarks += _y_intercept(function, start, stop)
    ordered = _in_order(landmarks)
    spans = _spans(function, start, stop, ordered, found)
    return _path(start, stop, ordered[: 3 * MAX_ROOTS], spans, found)


def find_zeros(
    plan: Program,
    unit: AngleUnit,
    low: End,
    high: End,
    kind: Kind = Kind.ZERO,
    evaluations: int = EVALUATIONS,
) -> Path:
    """The zeros alone; as intersections where the function is a difference of two."""
    function = BallFunction(plan, unit)
    tower = Tower(function, evaluations)
    start, stop = _outward(low, high)
    found = isolate(tower, start, stop, (0,))
    landmarks = [
        _landmark(function, plan, kind, root)
        for root in found.roots
        if root.level == 0 and _inside(root, low, high)
    ]
    return _path(start, stop, _in_order(landmarks), [], found)


def _path(
    start: float, stop: float, landmarks: list[Landmark], spans: list[Span], found: Isolated
) -> Path:
    return Path(
        start,
        stop,
        tuple(landmarks),
        tuple(spans),
        tuple(found.open),
        tuple(found.undefined),
        tuple(found.flat.get(0, ())),
        found.more,
    )


def _outward(low: End, high: End) -> tuple[float, float]:
    """The interval in float64, never narrower than the true one."""
    start, stop = float(low.ball.mid()), float(high.ball.mid())
    if not low.ball >= start:
        start = math.nextafter(start, -math.inf)
    if not high.ball <= stop:
        stop = math.nextafter(stop, math.inf)
    return start, stop


def _inside(root: Root, low: End, high: End) -> bool:
    """Whether a root belongs to the interval; one that cannot be told from an end does."""
    if root.ball < low.ball or root.ball > high.ball:
        return False
    at_low, at_high = not root.ball > low.ball, not root.ball < high.ball
    return not ((at_low and not low.closed) or (at_high and not high.closed))


def _kind(tower: Tower, root: Root) -> Kind | None:
    match root.level:
        case 0:
            return Kind.ZERO
        case 1 if root.crosses:
            rising_before = _sign_beside(tower, root)
            return None if not rising_before else _EXTREMA[rising_before]
        case 2 if root.crosses:
            return Kind.INFLECTION
    return None


_EXTREMA = {1: Kind.MAXIMUM, -1: Kind.MINIMUM}


def _sign_beside(tower: Tower, root: Root) -> int:
    """The sign of a root's level left of it, within its bracket."""
    left = tower.sign_at(root.level, root.low)
    return left or -tower.sign_at(root.level, root.high)


def _landmark(function: BallFunction, plan: Program, kind: Kind, root: Root) -> Landmark:
    x = _tidy(root)
    with precision(VALUE_BITS):
        y = 0.0 if kind is Kind.ZERO else float(function.value(root.ball).mid())
        radius = float(root.ball.rad())
    if kind is Kind.INTERSECTION:
        y = math.nan  # the caller knows the functions that meet
    certainty = _certainty(function, plan, root, x)
    return Landmark(kind, x, _no_minus_zero(y), certainty, radius, root.low, root.high)


def _tidy(root: Root) -> float:
    """The nearest float64, or 0 where nothing speaks against it."""
    return 0.0 if root.ball.contains(0) else root.x


def _certainty(function: BallFunction, plan: Program, root: Root, x: float) -> Certainty:
    if root.level == 0 and _exactly_zero(plan, x):
        return Certainty.EXACT
    if not root.multiple:
        return Certainty.PROVEN
    if not _vanishes(function, root):
        return Certainty.APPROACHED
    return Certainty.EXACT if root.level == 0 else Certainty.PROVEN


def _vanishes(function: BallFunction, root: Root) -> bool:
    """Whether the level of a root is 0 there without any rounding."""
    return root.ball.is_exact() and function.taylor(root.ball, root.level + 1)[-1].is_zero()


def _exactly_zero(plan: Program, x: float) -> bool:
    """Whether the function is 0 at a short fraction next to ``x``, in exact arithmetic."""
    fraction = Fraction(x).limit_denominator(10_000)
    return abs(float(fraction) - x) <= abs(x) * 1e-14 and exact_value(plan, fraction) == 0


def _no_minus_zero(y: float) -> float:
    return y + 0.0


def _ends(function: BallFunction, low: End, high: End) -> list[Landmark]:
    found = []
    for end in (low, high):
        if not end.of_domain:
            continue
        y = _value_at(function, end.ball)
        if y is not None:
            x = float(end.ball.mid())
            radius = float(end.ball.rad())
            found.append(
                Landmark(Kind.END, x, y, Certainty.PROVEN, radius, x, x, closed=end.closed)
            )
    return found


def _y_intercept(function: BallFunction, start: float, stop: float) -> list[Landmark]:
    if not start <= 0 <= stop:
        return []
    y = _value_at(function, arb(0))
    return [] if y is None else [Landmark(Kind.Y_INTERCEPT, 0.0, y, Certainty.PROVEN)]


def _value_at(function: BallFunction, x: arb) -> float | None:
    with precision(VALUE_BITS):
        try:
            value = function.value(x)
        except OutsideDomain:
            return None
        return _no_minus_zero(float(value.mid())) if value.is_finite() else None


def _in_order(landmarks: list[Landmark]) -> list[Landmark]:
    """By x, each kind once per place: neighbouring boxes may both report a shared end."""
    ordered: list[Landmark] = []
    for item in sorted(landmarks, key=lambda landmark: (landmark.x, landmark.kind)):
        twin = next((o for o in reversed(ordered[-6:]) if o.kind == item.kind), None)
        if twin and item.x - twin.x <= 2 * (item.radius + twin.radius):
            continue
        ordered.append(item)
    return ordered


def _spans(
    function: BallFunction,
    start: float,
    stop: float,
    landmarks: list[Landmark],
    found: Isolated,
) -> list[Span]:
    """Signs between neighbours, read off in the middle: they cannot change in between."""
    closed_off: list[Open | Stretch] = [*found.open, *found.undefined]
    marks = {start, stop, *(landmark.x for landmark in landmarks)}
    for stretch in closed_off:
        marks |= {stretch.low, stretch.high}
    places = sorted(mark for mark in marks if start <= mark <= stop)
    spans = []
    for low, high in itertools.pairwise(places):
        middle = (low + high) / 2
        if any(stretch.low <= middle <= stretch.high for stretch in closed_off):
            continue
        signs = _signs(function, middle)
        if signs is not None:
            spans.append(Span(low, high, *signs))
    return _joined(spans, landmarks)


def _signs(function: BallFunction, x: float) -> tuple[int, int, int] | None:
    with precision(VALUE_BITS):
        try:
            value, slope, bend = function.taylor(arb(x), 3)
        except OutsideDomain:
            return None
        return sign(value), sign(slope), sign(bend)


def _joined(spans: list[Span], landmarks: list[Landmark]) -> list[Span]:
    """Spans that differ in nothing become one, as at a y-intercept."""
    joined: list[Span] = []
    for span in spans:
        last = joined[-1] if joined else None
        alike = last and (last.sign, last.direction, last.bend) == (
            span.sign,
            span.direction,
            span.bend,
        )
        touched = any(
            mark.x == span.low and mark.kind is not Kind.Y_INTERCEPT for mark in landmarks
        )
        if last and alike and last.high == span.low and not touched:
            joined[-1] = Span(last.low, span.high, span.sign, span.direction, span.bend)
        else:
            joined.append(span)
    return joined
