"""Values of several lanes at given places, with the reason where there is none."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core import catalogue
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.language.notation import write_domain
from axispath.core.language.numbers import decimal
from axispath.core.language.plain import Plain, fair
from axispath.core.sheet.resolve import ResolvedLane

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Column:
    """One lane's values, NaN where undefined, and how far each may be off by rounding of x."""

    lane: ResolvedLane
    x: Floats
    values: Floats
    noise: Floats

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
        return why_no_value(self.lane, float(self.x[row]))


def column(lane: ResolvedLane, x: Floats) -> Column:
    """The values of a plottable lane at the places ``x``."""
    values = lane.floats(x)
    low, high = lane.ends
    if low is not None:
        values = np.where(x >= low.x if low.closed else x > low.x, values, np.nan)
    if high is not None:
        values = np.where(x <= high.x if high.closed else x < high.x, values, np.nan)
    with np.errstate(all="ignore"):
        after, before = np.nextafter(x, np.inf), np.nextafter(x, -np.inf)
        noise = np.abs(lane.floats(after) - lane.floats(before))
    return Column(lane, x, values, np.where(np.isfinite(noise), noise, 0.0))


def why_no_value(lane: ResolvedLane, x: float) -> str:
    """A sentence on why a lane has no value at ``x``."""
    low, high = lane.ends
    below = low is not None and (x < low.x or (x == low.x and not low.closed))
    above = high is not None and (x > high.x or (x == high.x and not high.closed))
    if (below or above) and lane.domain is not None:
        written = write_domain(lane.domain, Plain(catalogue.VOCABULARY))
        return f"outside the domain of {lane.name}: {fair(written)}"
    return why_undefined(lane.program, lane.unit, x) or "undefined here"
