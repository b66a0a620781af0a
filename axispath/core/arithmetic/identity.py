"""What no enclosure can tell: that a function is zero, constant or straight on a whole stretch.

Quotients of polynomials are brought to lowest terms; other formulas to a normal form.
"""

from __future__ import annotations

from collections.abc import Callable

from flint import fmpq, fmpq_poly

from axispath.core.arithmetic.normal import flat_in, normal_form
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.unit import AngleUnit

MAX_DEGREE = 40
Quotient = tuple[fmpq_poly, fmpq_poly]


class _NotRational(Exception):
    pass


def lowest_terms(plan: Program) -> Quotient | None:
    """Numerator and denominator of a program of one input; None for other functions."""
    results: list[Quotient] = [(fmpq_poly([0, 1]), fmpq_poly([1]))]
    try:
        for step in plan.steps[1:]:
            results.append(_carry_out(step, [results[i] for i in step.operands]))
    except (_NotRational, ZeroDivisionError):
        return None
    return results[plan.result]


def flat_levels(plan: Program, unit: AngleUnit, suspected: Callable[[], set[int]]) -> set[int]:
    """Which of the function (0), its slope (1) and its bend (2) are zero everywhere on a piece.

    ``suspected`` tells which of them look like it there: only then looking closely is worth it, and
    a form that holds elsewhere alone, as that of an angle in another quadrant, is not believed.
    """
    levels = _of_quotient(plan)
    if levels is not None:
        return levels
    levels = suspected()
    form = normal_form(plan, unit) if levels else None
    return set() if form is None else flat_in(form) & levels


def _of_quotient(plan: Program) -> set[int] | None:
    """The same for quotients of polynomials; None for other functions."""
    found = lowest_terms(plan)
    if found is None:
        return None
    if found[1].degree() > 0 or found[0].degree() > 1:
        return set()
    degree = found[0].degree()  # −1 for the zero polynomial
    return {level for level in (0, 1, 2) if level > degree}


def _carry_out(step: Step, given: list[Quotient]) -> Quotient:
    one = fmpq_poly([1])
    match step.operation, given:
        case "number", _:
            return fmpq_poly([fmpq(step.detail.numerator, step.detail.denominator)]), one
        case "negate", [(top, bottom)]:
            return -top, bottom
        case "add", [(a, b), (c, d)]:
            return _reduced(a * d + c * b, b * d)
        case "subtract", [(a, b), (c, d)]:
            return _reduced(a * d - c * b, b * d)
        case "multiply", [(a, b), (c, d)]:
            return _reduced(a * c, b * d)
        case "divide", [(a, b), (c, d)] if c.degree() >= 0:
            return _reduced(a * d, b * c)
        case "whole power", [(a, b)] if (
            0 <= step.detail * max(a.degree(), b.degree(), 1) <= (MAX_DEGREE)
        ):
            return a**step.detail, b**step.detail
    raise _NotRational


def _reduced(top: fmpq_poly, bottom: fmpq_poly) -> Quotient:
    if max(top.degree(), bottom.degree()) > 2 * MAX_DEGREE:
        raise _NotRational
    if bottom.degree() <= 0:
        return top / bottom[0], fmpq_poly([1])
    common = top.gcd(bottom)
    if common.degree() > 0:
        top, bottom = top // common, bottom // common
    if max(top.degree(), bottom.degree()) > MAX_DEGREE:
        raise _NotRational
    if bottom.degree() == 0:
        return top / bottom[0], fmpq_poly([1])
    return top, bottom
