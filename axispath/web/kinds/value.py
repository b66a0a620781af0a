"""Values on the page."""

import math
from fractions import Fraction

from axispath.core.arithmetic.rationals import exact_registers
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.language.numbers import MINUS, decimal
from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def why_no_value(lane: ResolvedLane) -> str:
    """Why a number has no value."""
    return f"no value: {why_undefined(lane.program, lane.unit) or 'undefined'}"


def _note(lane: ResolvedLane, digits: int) -> str:
    if not math.isfinite(lane.value):
        return why_no_value(lane)
    shown = decimal(lane.value, digits)
    return f"{'=' if _is_exactly(lane, shown) else '≈'} {shown}"


def _is_exactly(lane: ResolvedLane, shown: str) -> bool:
    exact = exact_registers(lane.program, lane.unit)[lane.program.result]
    if exact is None or exact.turns:
        return False
    try:
        return Fraction(shown.replace(MINUS, "-")) == exact.rational
    except ValueError:  # in powers of ten
        return False


VALUE = Face("parts/kinds/value.html", note=_note)
