"""The results of lines of calculation: a decimal as it is wanted, a fraction, or why not."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.arithmetic.program import NotComputable
from axispath.core.arithmetic.rationals import exact_registers
from axispath.core.arithmetic.reasons import why_undefined
from axispath.core.language.numbers import MINUS, decimal, listed
from axispath.core.sheet.document import Document, Notation
from axispath.core.sheet.resolve import ResolvedLane

LARGEST_FRACTION = 10**9  # denominators beyond say less than the decimal
MOST_ITEMS = 30
LARGEST_FIXED = 1e15
RAISED = str.maketrans("0123456789-", "⁰¹²³⁴⁵⁶⁷⁸⁹⁻")
STEP = {"scientific": 1, "engineering": 3}  # of the power of ten


@dataclass(frozen=True, slots=True)
class Result:
    """What a line comes to. ``exact`` is a fraction where it is one that no short decimal is.

    ``sure`` says that the decimal is exact; ``why`` stands in place of a result.
    """

    shown: str = ""
    exact: str = ""
    sure: bool = False
    why: str = ""


def result_of(document: Document, lane: ResolvedLane) -> Result:
    """The result of a line that defines or evaluates something."""
    if lane.error is not None:
        return Result(why=lane.error.message)
    if lane.missing:
        return Result(why=f"waits for {listed(lane.missing)}")
    if lane.statement is None or lane.parameters or len(lane.programs) > 1:
        return Result()
    try:
        if lane.items is not None:
            items = [_written(value, document) for value in lane.items[:MOST_ITEMS]]
            more = ", …" if len(lane.items) > MOST_ITEMS else ""
            return Result(f"[{', '.join(items)}{more}]")
        value = lane.value
    except (NotComputable, OutOfTime) as error:
        return Result(why=str(error) or "this takes too long to compute")
    if not math.isfinite(value):
        return Result(why=f"no value: {why_undefined(lane.program, lane.unit) or 'undefined'}")
    shown = _written(value, document)
    found = exact_registers(lane.program, lane.unit)[lane.program.result]
    if found is None or found.turns:
        return Result(shown)
    sure = _says(shown, found.rational)
    short = found.rational.denominator <= LARGEST_FRACTION
    return Result(shown, "" if sure or not short else _fraction(found.rational), sure)


def _fraction(value: Fraction) -> str:
    sign = MINUS if value < 0 else ""
    bottom = f"/{value.denominator}" if value.denominator > 1 else ""
    return f"{sign}{abs(value.numerator)}{bottom}"


def _says(shown: str, value: Fraction) -> bool:
    try:
        return Fraction(shown.replace(MINUS, "-")) == value
    except ValueError:  # in powers of ten
        return False


def _written(value: float, document: Document) -> str:
    if not math.isfinite(value):
        return "—"
    return in_notation(value, document.notation, document.digits)


def in_notation(value: float, notation: Notation, digits: int) -> str:
    """A number as it is wanted: so many digits behind the point, or a power of ten."""
    if not notation:
        return decimal(value, digits, 1e-16 * abs(value))
    if notation == "fixed":
        if abs(value) >= LARGEST_FIXED:
            return _power(value, 1, digits)
        return f"{value + 0.0:.{digits}f}".replace("-", MINUS)
    return _power(value, STEP[notation], digits)


def _power(value: float, step: int, digits: int) -> str:
    if value == 0:
        return "0"
    mantissa, power = f"{abs(value):.{digits - 1}e}".split("e")
    exponent = int(power)
    low = exponent // step * step
    figures = mantissa.replace(".", "")
    before = 1 + exponent - low
    figures = figures.ljust(before, "0")
    behind = figures[before:].rstrip("0")
    text = figures[:before] + (f".{behind}" if behind else "")
    sign = MINUS if value < 0 else ""
    return f"{sign}{text} × 10{str(low).translate(RAISED)}" if low else f"{sign}{text}"
