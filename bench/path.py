"""Complete paths, against sampling 10,001 points and refining each sign change with Brent."""

from __future__ import annotations

import statistics
from contextlib import suppress

import numpy as np
from scipy.optimize import brentq

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_function
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.statement import parse_statement
from axispath.core.search.find import find_path
from axispath.core.search.landmark import Kind
from bench.timing import median

FUNCTIONS = (
    *(
        (line, -10, 10)
        for line in (
            *("x^2 - x - 3", "(x - 1)^2", "(x - 2)(x - 2.0001)", "x^3 - 2x - 5", "cos x - x"),
            *("e^x - 3x", "x^5 - 5x^3 + 4x", "x^4 - 3x^2 + 1", "2x + 1", "7", "(x - 3)^3"),
            *("sin x", "2 sin(3x)", "sin(x) + cos(2x)", "x sin x", "sin(x)^2", "cos(x) e^(-x/5)"),
            *("sin(x^2/4)", "sin(5x) + x/4", "arctan(100(x - 1))", "e^(-x^2)", "x e^(-x)"),
            *("1 - e^(-1000000 (x - 0.3)^2)", "ln x", "ln|x|", "x ln x", "ln(x)/x", "ln(x^2 + 1)"),
            *("√(x + 4)", "√(4 - x^2)", "√(x^2 + 1) - 2", "x^(1/3)", "x^(2/3)", "1/√(x + 2)"),
            *("1/(x - 1)", "1/x^2", "(x^2 - 1)/(x - 2)", "(x^2 - 1)/(x - 1)", "x/(x^2 + 1)"),
            *("1/(x^2 - 4)", "(x^3 - x)/(x^2 - 9)", "tan x", "sec(x/2)", "x + 1/x", "e^(1/x)"),
            *("sin(x)/x", "(1 - cos x)/x^2", "|x - 2|", "||x| - 3|", "|x^2 - 4|", "|sin x|"),
            *("floor(x)", "mod(x, 3)", "round(x/2)", "x - floor(x)", "sign(x) x^2"),
            *("x if x < 0, x^2 otherwise", "x^2 if x < 1, 3 - x otherwise", "max(x, 2 - x^2)"),
            *("min(sin x, 1/2)", "arcsin(x/3)", "arccos(x/4)", "sinh(x) - 10", "tanh(x) - x/2"),
            *("x^x", "2^x - x^2", "erf(x)", "normalpdf(x)", "x^2 - 2^x + 1"),
        )
    ),
    ("3.1 + 1.4 sin(2π(x - 2)/12.4)", 0, 24),
    ("sin(x^2)", -5, 5),
)


def report() -> None:
    """Print, per function, how long both take and how many zeros each finds."""
    print(f"paths of {len(FUNCTIONS)} functions: breaks, zeros, extrema, inflections, with proof")
    print("against a scan of f for zeros alone, 10,001 points and Brent")
    ours, ratios, mine_found, their_found, whole = [], [], 0, 0, 0
    for line, low, high in FUNCTIONS:
        body = parse_statement(line, catalogue.SCOPE).body
        plan = program(body)
        f = float_function(plan, AngleUnit.RADIAN)
        ends = End.at(low), End.at(high)
        found = find_path(plan, AngleUnit.RADIAN, *ends)
        mine = median(lambda plan=plan, ends=ends: find_path(plan, AngleUnit.RADIAN, *ends), 7)
        scanned = _scan(f, low, high)
        other = median(lambda f=f, low=low, high=high: _scan(f, low, high), 7)
        ours.append(mine)
        ratios.append(mine / other)
        zeros = len(found.of(Kind.ZERO))
        mine_found, their_found = mine_found + zeros, their_found + len(scanned)
        whole += found.complete
        state = "complete" if found.complete else "open"
        print(
            f"  {line:32s} {mine:7.2f} ms, {len(found.landmarks):3d} landmarks, {zeros:2d} zeros, "
            f"{state} | scan {other:6.2f} ms, {len(scanned):2d} zeros | {mine / other:5.2f} ×"
        )
    ranked = sorted(ours)
    late = ranked[int(0.95 * len(ranked))]
    print(f"  {whole} of {len(FUNCTIONS)} complete; zeros: {mine_found}, the scan: {their_found}")
    print(f"  median {statistics.median(ours):.2f} ms (budget 2), p95 {late:.2f} ms (budget 20)")
    print(f"  median ratio {statistics.median(ratios):.2f} × (budget below 1)")


def _scan(f, low: float, high: float) -> list[float]:  # noqa: ANN001
    x = np.linspace(low, high, 10_001)
    y = f(x)
    found = [float(place) for place in x[y == 0]]
    one = np.empty(1)

    def at(place: float) -> float:
        one[0] = place
        return float(f(one)[0])

    for k in np.flatnonzero(np.sign(y[:-1]) * np.sign(y[1:]) < 0):
        with suppress(ValueError):  # at a pole there is no value
            found.append(brentq(at, x[k], x[k + 1], xtol=1e-15))
    return found
