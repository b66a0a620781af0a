"""Exact rational arithmetic, for the part of the language that stays rational.

Answers None as soon as a step leaves the rationals or grows too long to be worth it.
"""

from __future__ import annotations

import operator
from fractions import Fraction

from axispath.core.arithmetic.program import Program

MAX_DIGITS = 2000


class _Irrational(Exception):
    pass


def exact_value(plan: Program, *inputs: Fraction) -> Fraction | None:
    """The exact result for rational inputs, where it is rational and defined."""
    results = list(inputs)
    try:
        for step in plan.steps[plan.inputs :]:
            given = [results[operand] for operand in step.operands]
            results.append(_carry_out(step.operation, given, step.detail))
    except (_Irrational, ZeroDivisionError):
        return None
    return results[plan.result]


def _carry_out(operation: str, given: list[Fraction], detail: object) -> Fraction:
    match operation, given:
        case "number", _:
            assert isinstance(detail, Fraction)
            return detail
        case "negate", [value]:
            return -value
        case "add", [left, right]:
            return _short(left + right)
        case "subtract", [left, right]:
            return _short(left - right)
        case "multiply", [left, right]:
            return _short(left * right)
        case "divide", [top, bottom]:
            return _short(top / bottom)
        case "whole power", [base]:
            assert isinstance(detail, int)
            digits = max(base.numerator.bit_length(), base.denominator.bit_length())
            if digits * abs(detail) > 4 * MAX_DIGITS:
                raise _Irrational
            return base**detail
        case "apply", [value] if detail == "abs":
            return abs(value)
        case "given", [value, _]:
            return value
        case "choose", [left, right, value, rest]:
            return value if _COMPARED[str(detail)](left, right) else rest
    raise _Irrational


_COMPARED = {
    "<": operator.lt,
    "<=": operator.le,
    ">": operator.gt,
    ">=": operator.ge,
    "=": operator.eq,
    "!=": operator.ne,
}


def _short(value: Fraction) -> Fraction:
    if max(value.numerator.bit_length(), value.denominator.bit_length()) > 4 * MAX_DIGITS:
        raise _Irrational
    return value
