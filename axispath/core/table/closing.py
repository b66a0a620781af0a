"""Whether a curve is closed, in words, and the one action that would close it."""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.rationals import Exact
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.curves.round import round_of
from axispath.core.sheet.curve import Curve, Range, curve_of, end_text, range_of, times_over
from axispath.core.sheet.resolve import ResolvedLane

BITS = 200
ALMOST = 1e-12


@dataclass(frozen=True)
class Closing:
    """``words`` say it, ``until`` is the end of the range at which the curve would close."""

    words: str
    closed: bool = False
    until: str = ""


def closing(lane: ResolvedLane) -> Closing:
    """Whether a curve is closed over its range."""
    curve, span = curve_of(lane), range_of(lane)
    motion = curve.motion
    if motion.period is None:
        if round_of(curve, span).joined:
            return Closing("closed: its end is at its start", True)
        if motion.never:
            return Closing(f"never closes: {motion.never}")
        return Closing("open: start and end are apart" if _apart(curve, span) else "")
    period = span_text(motion.period, lane)
    times = _times(curve, span)
    if motion.mirror is not None:
        if times >= 1 - ALMOST:
            return Closing(f"runs to and fro on one line, there and back in {period}", False)
        return Closing(f"open: it goes back the way it came, and is at its start after {period}")
    if times >= 1 - ALMOST:
        whole = round(times)
        if abs(times - whole) > 1e-9:
            return Closing(f"closes after {period}, drawn {times:.3g} times over", True)
        again = f", drawn {whole} times over" if whole > 1 else ""
        return Closing(f"closes after {period}{again}", True)
    stop = _after(span.low, motion.period)
    return Closing(f"open: it would close at {span_text(stop, lane)}", False, end_text(stop))


def span_text(end: End, lane: ResolvedLane) -> str:
    """A value of the parameter, in degrees where the sheet is."""
    degrees = lane.unit is AngleUnit.DEGREE and (end.exact is None or not end.exact.turns)
    return f"{end_text(end)}°" if degrees else end_text(end)


def _times(curve: Curve, span: Range) -> float:
    exact = times_over(span, curve.motion)
    if exact is not None:
        return float(exact)
    assert curve.motion.period is not None
    return span.width / curve.motion.period.x


def _after(low: End, period: End) -> End:
    exact = None
    if low.exact is not None and period.exact is not None:
        exact = Exact(
            low.exact.rational + period.exact.rational, low.exact.turns + period.exact.turns
        )
    with precision(BITS):
        return End(low.ball + period.ball, exact=exact)


def _apart(curve: Curve, span: Range) -> bool:
    """Whether start and end are surely at different places."""
    with precision(BITS):
        try:
            ends: list[list[arb]] = [
                [balls.value(end.ball) for balls in curve.balls] for end in (span.low, span.high)
            ]
        except OutsideDomain:
            return True
        return bool(ends[0][0] != ends[1][0] or ends[0][1] != ends[1][1])
