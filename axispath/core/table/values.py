"""Values of several lanes at given places, with the reason where there is none."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axispath.core import catalogue
from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.program import NotComputable
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.notation import write_domain
from axispath.core.language.numbers import decimal
from axispath.core.language.plain import Plain, fair
from axispath.core.sheet.resolve import ResolvedLane

Floats = NDArray[np.float64]
JUMP = 1e-9  # of a value, by which it differs right beside x where it jumps
MOST_EXACT = 3000  # rows of which the value is worked out by exact arithmetic
BITS = 300
SURE = 1e-15
NARROW = 128
FINE = 1e-20  # of a value, by which its enclosure may be wide so that it is rounded by it
FAR_OFF = 1e-6  # of a value, by which float64 is off at the most where it is rounded anew
MOST_NEAREST = 20_000  # rows of a column
SHORT = 15  # digits of a number that somebody has typed
SMALL = 10_000  # the largest denominator of a fraction that a row may stand at


@dataclass(frozen=True, slots=True)
class Column:
    """One lane's values, NaN where undefined, and how far each may be off by rounding of x.

    In the rows ``beside`` a jump it could not be told on which side x is: these have no value.
    """

    lane: ResolvedLane
    x: Floats
    values: Floats
    noise: Floats
    beside: frozenset[int] = frozenset()

    def shown(self, row: int, digits: int) -> str:
        """The value in a row as text, a dash where there is none."""
        value = float(self.values[row])
        if not np.isfinite(value):
            return "—"
        return decimal(value, digits, float(self.noise[row]))

    def reason(self, row: int) -> str | None:
        """Why a row has no value; None where it has one."""
        if np.isfinite(self.values[row]):
            return None
        if row in self.beside:
            return f"{self.lane.name} jumps or is very steep here: its value is not settled"
        return why_no_value(self.lane, float(self.x[row]))


def column(lane: ResolvedLane, x: Floats) -> Column:
    """The values of a plottable lane at the places ``x``."""
    values = np.array(lane.floats(x), dtype=np.float64)
    with np.errstate(all="ignore"):
        after, before = np.nextafter(x, np.inf), np.nextafter(x, -np.inf)
        noise = np.abs(lane.floats(after) - lane.floats(before))
        # What differs that much beside x jumps there: it is told by the number that is meant.
        jumps = noise > JUMP * (1 + np.abs(values))
    beside: set[int] = set()
    for row in np.flatnonzero(jumps & np.isfinite(values)).tolist():
        known = _at_number(lane, float(x[row])) if row < MOST_EXACT else None
        if known is not None:
            values[row], noise[row] = known, 0.0
        elif _is_short(x[row]):
            noise[row] = 0.0
        else:
            values[row] = math.nan
            beside.add(row)
    low, high = lane.ends
    if low is not None:
        values = np.where(x >= low.x if low.closed else x > low.x, values, np.nan)
    if high is not None:
        values = np.where(x <= high.x if high.closed else x < high.x, values, np.nan)
    noise = np.where(np.isfinite(noise), noise, 0.0)
    return Column(lane, x, values, noise, frozenset(beside))


def _at_number(lane: ResolvedLane, x: float) -> float | None:
    """The value at the simple number that x is the nearest float64 of; None where none is known.

    NaN where there surely is none.
    """
    if not math.isfinite(x) or lane.program is None:
        return None
    place = simple_number(x)
    if place is None:
        return None
    exact = exact_registers(lane.program, lane.unit, Exact(place))[lane.program.result]
    with precision(BITS):
        if exact is not None:
            return float(exact.ball.mid())
        try:
            value = lane.balls.value(Exact(place).ball)
        except OutsideDomain:
            return math.nan
        if not value.is_finite() or not value.rad() < SURE * (1 + abs(value)):
            return None
        return float(value.mid())


def nearest(found: Column) -> Floats:
    """The values as the float64 nearest to each, where enclosures are narrow enough to tell.

    A row stands at the number that it shows: at 0.1, not at the float64 beside it. What was worked
    out with float64 alone may differ in its last digits. Integrals stay as they are:
    an enclosure for each row would take too long.
    """
    values = found.values.copy()
    lane = found.lane
    if any(step.operation == "integral" for step in lane.program.steps):
        return values
    zeros = 0
    with precision(NARROW):
        for row in np.flatnonzero(np.isfinite(values)).tolist()[:MOST_NEAREST]:
            x = float(found.x[row])
            place = Exact(simple_number(x) or Fraction(x))
            try:
                value = lane.balls.value(place.ball)
            except (OutsideDomain, NotComputable):
                continue
            if not abs(float(value.mid()) - values[row]) <= FAR_OFF * (1 + abs(values[row])):
                continue
            if value.is_finite() and value.rad() <= FINE * abs(value):
                values[row] = float(value.mid())
            elif value.contains(0) and zeros < MOST_EXACT:
                zeros += 1
                exact = exact_registers(lane.program, lane.unit, place)[lane.program.result]
                if exact is not None and exact.is_zero:
                    values[row] = 0.0
    return values


def _is_short(x: float) -> bool:
    """Whether a float64 has so few bits that it is the number that was meant."""
    return bool(np.isfinite(x)) and float(x * 2**20).is_integer()


def simple_number(x: float) -> Fraction | None:
    """The number with few digits, or the fraction with a small denominator, that x stands for."""
    text = repr(x)
    if sum(c.isdigit() for c in text.partition("e")[0]) <= SHORT:
        return Fraction(text)
    near = Fraction(x).limit_denominator(SMALL)
    return near if float(near) == x else None


def why_no_value(lane: ResolvedLane, x: float) -> str:
    """A sentence on why a lane has no value at ``x``."""
    low, high = lane.ends
    below = low is not None and (x < low.x or (x == low.x and not low.closed))
    above = high is not None and (x > high.x or (x == high.x and not high.closed))
    if (below or above) and lane.domain is not None:
        written = write_domain(lane.domain, Plain(catalogue.VOCABULARY))
        return f"outside the domain of {lane.name}: {fair(written)}"
    return why_undefined(lane.program, lane.unit, x) or "undefined here"
