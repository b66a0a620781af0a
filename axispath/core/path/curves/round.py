"""The part of a parameter's range that shows all of a curve once."""

from __future__ import annotations

import math
from dataclasses import dataclass

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.guessing import guess
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.sheet.curve import Curve, Range, times_over

BITS = 200


@dataclass(frozen=True)
class Round:
    """From ``low`` to ``high``.

    ``closed`` where the curve goes on at its start when it has come to its end, ``joined`` where
    its end is at its start but it does not repeat, ``mirrored`` where it goes back the way it came
    from there, ``times`` how often the range goes over it.
    """

    low: End
    high: End
    closed: bool = False
    joined: bool = False
    mirrored: bool = False
    times: float = 1.0


def round_of(curve: Curve, span: Range) -> Round:
    """The least part of a range that shows what all of it shows."""
    motion, times = curve.motion, times_over(span, curve.motion)
    period = motion.period
    if period is not None and motion.mirror is not None:
        with precision(BITS):
            half = period.ball / 2
            steps = math.ceil(float(((span.low.ball - motion.mirror) / half).mid()) - 1e-12)
            low = motion.mirror + half * steps
            if low + half <= span.high.ball or (low + half).overlaps(span.high.ball):
                over = span.width / float(half.mid())
                return Round(_end(low), _end(low + half), mirrored=True, times=over)
    if times is not None and times >= 1 and period is not None:
        return Round(span.low, _after(span.low, period), closed=True, times=float(times))
    return Round(span.low, span.high, joined=_joined(curve, span))


def _end(ball: arb) -> End:
    exact = next(iter(guess(ball)), None)
    return End(ball if exact is None else exact.ball, exact=exact)


def _after(low: End, period: End) -> End:
    exact = None
    if low.exact is not None and period.exact is not None:
        exact = Exact(
            low.exact.rational + period.exact.rational, low.exact.turns + period.exact.turns
        )
    with precision(BITS):
        return End(low.ball + period.ball if exact is None else exact.ball, exact=exact)


def _joined(curve: Curve, span: Range) -> bool:
    """Whether the ends are exactly at the same place."""
    ends = span.low.exact, span.high.exact
    if ends[0] is None or ends[1] is None:
        return False
    return all(
        (first := _exactly(plan, curve, ends[0])) is not None
        and first == _exactly(plan, curve, ends[1])
        for plan in (curve.x, curve.y)
    )


def _exactly(plan: Program, curve: Curve, t: Exact) -> Exact | None:
    return exact_registers(plan, curve.unit, t)[plan.result]
