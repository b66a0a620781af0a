"""Reading and typesetting one line."""

from __future__ import annotations

import statistics

from axispath.core import catalogue
from axispath.core.language.errors import LanguageError
from axispath.core.language.latex import latex_statement
from axispath.core.language.readings import other_readings
from axispath.core.language.statement import parse_statement
from bench.timing import median

LINES = (
    "x^2 - x - 3",
    "g(x) = 2 sin(3x) for -2 <= x <= 4",
    "h(x) = 3.1 + 1.4 sin(2π (x - 2) / 12.4) for 0 <= x <= 24",
    "f(x) = x + 2 if x < 0, x^2 otherwise",
    "sum(x^k/k! for k = 0 to 10)",
    "||x| - 3| - √(x^2 + 1)/(1 + ln(x + 4))",
    "sin(",
    "+".join(["x"] * 200),
)


def report() -> None:
    """Print how long a line takes from text to typeset, with its other readings."""
    times = [median(lambda line=line: _read(line), 40) for line in LINES]
    print(f"one line read and typeset   median {statistics.median(times):.3f} ms (budget 1 ms)")
    print(f"  the longest of {len(LINES)} lines     {max(times):.3f} ms")


def _read(line: str) -> str:
    try:
        statement = parse_statement(line, catalogue.SCOPE)
    except LanguageError as error:
        return error.message
    other_readings(line, catalogue.SCOPE)
    return latex_statement(statement, catalogue.VOCABULARY, "f")
