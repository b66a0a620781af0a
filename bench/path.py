"""Complete paths, against sampling 10,001 points and refining each sign change with Brent."""

from __future__ import annotations

import statistics

import numpy as np
from scipy.optimize import brentq

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_function
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.statement import parse_statement
from axispath.core.path.find import find_path
from axispath.core.path.landmark import Kind
from bench.timing import median

FUNCTIONS = (
    ("x^2 - x - 3", -10, 10),
    ("2 sin(3x)", -2, 4.5),
    ("(x - 1)^2", -10, 10),
    ("(x - 2)(x - 2.0001)", -10, 10),
    ("x^3 - 2x - 5", -10, 10),
    ("cos x - x", -10, 10),
    ("e^x - 3x", -10, 10),
    ("x^5 - 5x^3 + 4x", -3, 3),
    ("sin(x^2)", -5, 5),
    ("3.1 + 1.4 sin(2π(x - 2)/12.4)", 0, 24),
)


def report() -> None:
    """Print, per function, how long both take and how many zeros each finds."""
    print("path of one function: breadth of ours (zeros, extrema, inflections, proof)")
    print("against a scan of f for zeros alone, 10,001 points and Brent")
    ours, ratios = [], []
    for line, low, high in FUNCTIONS:
        body = parse_statement(line, catalogue.SCOPE).body
        plan = program(body)
        f = float_function(plan, AngleUnit.RADIAN)
        ends = End.at(low), End.at(high)
        found = find_path(plan, AngleUnit.RADIAN, *ends)
        mine = median(lambda plan=plan, ends=ends: find_path(plan, AngleUnit.RADIAN, *ends), 20)
        scanned = _scan(f, low, high)
        other = median(lambda f=f, low=low, high=high: _scan(f, low, high), 20)
        ours.append(mine)
        ratios.append(mine / other)
        state = "complete" if found.complete else "open"
        print(
            f"  {line:32s} {mine:7.2f} ms, {len(found.of(Kind.ZERO)):2d} zeros, {state}"
            f" | scan {other:6.2f} ms, {len(scanned):2d} zeros | {mine / other:5.2f} ×"
        )
    print(f"  median {statistics.median(ours):.2f} ms (budget 10 ms), largest {max(ours):.2f} ms")
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
        found.append(brentq(at, x[k], x[k + 1], xtol=1e-15))
    return found
