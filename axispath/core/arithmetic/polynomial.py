"""Programs of x and y as polynomials, with exact coefficients."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.arithmetic.program import Program, Step

Coefficients = dict[tuple[int, int], Fraction]
"""By the powers of x and y; none of them is 0."""
CONIC = 2
TERMS = 200


class _NoPolynomial(Exception):
    pass


def coefficients(plan: Program, degree: int = CONIC) -> Coefficients | None:
    """The polynomial up to a degree that a program of x and y is; None for others, and for 0."""
    results: list[Coefficients] = [{(1, 0): Fraction(1)}, {(0, 1): Fraction(1)}]
    try:
        for step in plan.steps[2:]:
            results.append(_carried_out(step, [results[i] for i in step.operands], degree))
    except (_NoPolynomial, ZeroDivisionError):
        return None
    found = {powers: value for powers, value in results[plan.result].items() if value}
    return found if found and max(i + j for i, j in found) <= degree else None


def _carried_out(step: Step, given: list[Coefficients], degree: int) -> Coefficients:
    match step.operation, given:
        case "number", []:
            return {(0, 0): step.detail}
        case "negate", [a]:
            return {k: -v for k, v in a.items()}
        case ("add" | "subtract") as operation, [a, b]:
            sign = 1 if operation == "add" else -1
            return {k: a.get(k, Fraction(0)) + sign * b.get(k, Fraction(0)) for k in {*a, *b}}
        case "multiply", [a, b]:
            return _product(a, b, degree)
        case "divide", [a, b] if set(b) <= {(0, 0)}:
            return {k: v / b[0, 0] for k, v in a.items()}
        case "whole power", [a] if 0 <= step.detail <= degree:
            power: Coefficients = {(0, 0): Fraction(1)}
            for _ in range(step.detail):
                power = _product(power, a, degree)
            return power
    raise _NoPolynomial


def _product(a: Coefficients, b: Coefficients, degree: int) -> Coefficients:
    if len(a) * len(b) > TERMS * TERMS:
        raise _NoPolynomial
    found: Coefficients = {}
    for (i, j), v in a.items():
        for (k, m), w in b.items():
            if v and w and i + j + k + m > 2 * degree:
                raise _NoPolynomial
            found[i + k, j + m] = found.get((i + k, j + m), Fraction(0)) + v * w
    return found


def product(first: list[Fraction], second: list[Fraction]) -> list[Fraction]:
    """The product of two polynomials of one variable, as coefficients from the constant on."""
    found = [Fraction(0)] * (len(first) + len(second) - 1)
    for i, a in enumerate(first):
        for j, b in enumerate(second):
            found[i + j] += a * b
    return found
