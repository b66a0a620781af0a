"""What Solve answers, in sentences."""

from __future__ import annotations

import math

from axispath.core.language.numbers import MINUS, decimal
from axispath.core.search.landmark import Reason
from axispath.core.solve.answer import Answer
from axispath.core.solve.question import Question
from axispath.core.solve.sets import written

MOST_NAMED = 2
WHOLE = "the whole line"
WHY = {
    Reason.BREAK: "what the sides do there is unknown",
    Reason.CLOSE: "solutions there are too close together to be told apart",
    Reason.BUDGET: "there is too much to search",
    Reason.MANY: "one solution follows after the other",
    Reason.OVERLAP: "curves seem to run over one another",
}


def verdict(question: Question, found: Answer, digits: int, goes_on: bool = False) -> list[str]:
    """The answer as a whole, then what is not settled, unless the search still ``goes_on``."""
    name = question.unknown
    where = interval(found.low, found.high, name, digits)
    told = []
    if not found.defined:
        told.append(f"The two sides have no common value anywhere on {where}.")
    elif not question.is_equation:
        told.append(_set(found, name, digits))
    elif found.everywhere:
        told.append(f"True for every {name} where both sides are defined ({where}).")
    else:
        told.append(_equation(found, where, name, digits))
    if goes_on:
        told.append("Looking further …")
    elif found.open:
        shown = [interval(item.low, item.high, name, digits) for item in found.open[:MOST_NAMED]]
        rest = len(found.open) - len(shown)
        more = f" and {rest} more stretches" if rest > 0 else ""
        told.append(f"Not settled on {', '.join(shown)}{more}: {WHY[found.open[0].reason]}.")
    if found.more:
        told.append(f"There are more: only the first {len(found.solutions)} are listed.")
    return told


def _set(found: Answer, name: str, digits: int) -> str:
    assert found.solved is not None
    if not found.solved:
        if not found.complete:
            return f"No {name} that makes this true found so far."
        return f"No {name} makes this true."
    whole = written(found.solved, digits)
    if whole == f"({MINUS}∞, ∞)":
        return f"True for every {name}: {whole}."
    return f"True for {name} in {whole}."


def _equation(found: Answer, where: str, name: str, digits: int) -> str:
    count = len(found.solutions)
    # An interval names the unknown already.
    unknown = f" for {name}" if where == WHOLE else ""
    parts = []
    if found.always:
        parts.append(f"The sides are the same for every {name} in {written(found.always, digits)}.")
    if count:
        sure = "no more" if found.complete else "perhaps more"
        word = "solution" if count == 1 else "solutions"
        parts.append(f"{count} {word}{unknown} on {where}, {sure}.")
    elif not found.always:
        none = f"No solution{unknown}" if found.complete else f"No solution{unknown} found so far"
        near = _miss(found, name, digits)
        parts.append(f"{none} on {where}{near}.")
    return " ".join(parts)


def _miss(found: Answer, name: str, digits: int) -> str:
    miss = found.nearest
    if miss is None:
        return ""
    if math.isinf(miss.x):
        where = "towards ∞" if miss.x > 0 else f"towards {MINUS}∞"
    else:
        place = decimal(miss.x, digits, 1e-12)
        where = f"at {name} = {place}" if miss.attained else f"towards {name} = {place}"
    if not miss.apart:
        return f": the two sides come ever closer {where}, but never meet"
    apart = decimal(miss.apart, digits)
    if miss.attained:
        return f": the two sides come closest {where}, {apart} apart"
    return f": the two sides come ever closer to being {apart} apart {where}"


def interval(low: float, high: float, name: str, digits: int) -> str:
    """An interval as a chain, or the whole line."""
    if math.isinf(low) and math.isinf(high):
        return WHOLE
    if math.isinf(low):
        return f"{name} ≤ {decimal(high, digits)}"
    if math.isinf(high):
        return f"{name} ≥ {decimal(low, digits)}"
    if high - low <= 1e-9 * max(1.0, abs(low)):
        return f"{name} ≈ {decimal(low, digits)}"
    return f"{decimal(low, digits)} ≤ {name} ≤ {decimal(high, digits)}"
