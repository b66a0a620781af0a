"""The straight lines that a function comes ever closer to, read off its expansion at infinity."""

from __future__ import annotations

from fractions import Fraction

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.folding import folded
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program, Step, TooLarge, folded_in
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.cuts import BITS
from axispath.core.search.find import find_zeros
from axispath.core.search.germ import Germ
from axispath.core.search.prepared import prepared
from axispath.core.search.series import NoGerm
from axispath.core.search.tail import WIDTHS, germ_at_zero

FAR = 1e6
Line = tuple[Fraction, Fraction]  # slope and height at x = 0


def asymptote(plan: Program, unit: AngleUnit, side: int) -> Line | None:
    """The asymptote towards +∞ (``side`` 1) or −∞ (−1), where its numbers are fractions.

    None where there is none, where the function is that line itself, or where this cannot tell.
    """
    try:
        outside = prepared(folded(folded_in(plan), unit))
    except TooLarge:
        return None
    for width in WIDTHS[2:]:
        with precision(BITS):
            try:
                germ = germ_at_zero(outside, unit, side, width)
                line = None if germ is None else _line(germ, side)
            except (NoGerm, OutsideDomain, ZeroDivisionError):
                continue
        return None if line is None or _is_line(plan, unit, line, side) else line
    return None


def _line(germ: Germ, side: int) -> Line | None:
    """Slope and height from a germ in u, where |x| is u^−q."""
    q = germ.corner.fineness
    parts: dict[int, arb] = {}
    if germ.growth is not None:
        return None
    for (r, j), series in germ.terms.items():
        if j and r <= 0:
            return None
        for power, value in enumerate((series.at[k] for k in range(series.at.prec)), r):
            if power in (-q, 0):
                parts[power] = parts.get(power, arb(0)) + value
            elif power < 0 and not value.is_zero():
                return None
        if r + series.at.prec <= 0:
            return None  # the expansion ends before the height
    slope, height = _fraction(parts.get(-q, arb(0)) * side), _fraction(parts.get(0, arb(0)))
    return None if slope is None or height is None else (slope, height)


def _is_line(plan: Program, unit: AngleUnit, line: Line, side: int) -> bool:
    """Whether a function is a line itself, far out."""
    step = len(plan.steps)
    steps = [
        *plan.steps,
        Step("number", (), line[0]),
        Step("multiply", (0, step)),
        Step("number", (), line[1]),
        Step("add", (step + 1, step + 2)),
        Step("subtract", (plan.result, step + 3)),
    ]
    ends = sorted((FAR * side, 2 * FAR * side))
    apart = Program(plan.inputs, tuple(steps), len(steps) - 1)
    return bool(find_zeros(apart, unit, End.at(ends[0]), End.at(ends[1])).zero)


def _fraction(value: arb) -> Fraction | None:
    if not value.is_exact():
        return None
    top, power = value.man_exp()
    return Fraction(int(top)) * Fraction(2) ** int(power)
