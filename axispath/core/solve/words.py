"""What Solve answers, in sentences."""

from __future__ import annotations

import math

from axispath.core.language.numbers import MINUS, decimal
from axispath.core.path.landmark import Reason
from axispath.core.solve.answer import Answer
from axispath.core.solve.question import Question
from axispath.core.solve.sets import written

MOST_NAMED = 3
WHY = {
    Reason.BREAK: "what the sides do there could not be settled",
    Reason.CLOSE: "solutions there are too close together to be told apart",
    Reason.BUDGET: "there is more to search than the time allowed",
}


def verdict(question: Question, found: Answer, digits: int) -> list[str]:
    """The answer as a whole, then what is not settled."""
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
    if found.open:
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
        return f"No {name} makes this true."
    whole = written(found.solved, digits)
    if whole == f"({MINUS}∞, ∞)":
        return f"True for every {name}: {whole}."
    return f"True for {name} in {whole}."


def _equation(found: Answer, where: str, name: str, digits: int) -> str:
    count = len(found.solutions)
    parts = []
    if found.always:
        parts.append(f"The sides are the same for every {name} in {written(found.always, digits)}.")
    if count:
        sure = "no more" if found.complete else "perhaps more"
        word = "solution" if count == 1 else "solutions"
        parts.append(f"{count} {word} on {where}, {sure}.")
    elif not found.always:
        none = "No solution" if found.complete else "No solution found so far"
        near = _miss(found, name, digits)
        parts.append(f"{none} on {where}{near}.")
    return " ".join(parts)


def _miss(found: Answer, name: str, digits: int) -> str:
    miss = found.nearest
    if miss is None:
        return ""
    if math.isinf(miss.x):
        end = "∞" if miss.x > 0 else f"{MINUS}∞"
        return f": the two sides come ever closer towards {end}, but never meet"
    place, apart = decimal(miss.x, digits, 1e-12), decimal(miss.apart, digits)
    return f": the two sides come closest at {name} = {place}, {apart} apart"


def interval(low: float, high: float, name: str, digits: int) -> str:
    """An interval as a chain, or the whole line."""
    if math.isinf(low) and math.isinf(high):
        return "the whole line"
    if math.isinf(low):
        return f"{name} ≤ {decimal(high, digits)}"
    if math.isinf(high):
        return f"{name} ≥ {decimal(low, digits)}"
    if high - low <= 1e-9 * max(1.0, abs(low)):
        return f"{name} ≈ {decimal(low, digits)}"
    return f"{decimal(low, digits)} ≤ {name} ≤ {decimal(high, digits)}"
