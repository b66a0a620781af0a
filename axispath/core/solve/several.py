"""What Solve answers about two lanes, two equations or an extreme value, in sentences."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.language.numbers import MINUS, decimal
from axispath.core.search.landmark import Path
from axispath.core.solve.largest import Largest


def meeting_words(names: str, path: Path, goes_on: bool) -> list[str]:
    """How often two lanes meet, and whether that is all."""
    count = len(path.landmarks)
    times = {0: "nowhere", 1: "once", 2: "twice"}.get(count, f"{count} times")
    words = [f"{names} meet {times} here." if count else f"{names} do not meet here."]
    if path.zero:
        words = [f"{names} run over one another on a stretch."]
    if path.shared:
        words = [f"{names} run over one another along {path.shared.equation}."]
    if path.complete:
        words.append("Nothing missed: every common point is listed.")
    elif goes_on:
        words.append("Looking further …")
    else:
        words[0] = words[0] if count else f"No common point of {names} was found."
        words.append("Some stretches are not settled.")
    return words


def system_words(path: Path, goes_on: bool) -> list[str]:
    """How often two equations hold at once in the view, and whether that is all."""
    count = len(path.landmarks)
    shown = "1 solution" if count == 1 else f"{count} solutions"
    words = [f"{shown} in this view." if count else "No solution in this view."]
    if path.shared:
        words = [
            "Infinitely many solutions: both equations hold all along the curve "
            f"{path.shared.equation}."
        ]
        words += [f"Besides, {shown}."] if count else []
    elif path.complete:
        words.append("Nothing missed: every solution in the view is listed.")
    elif path.zero:
        words[0] = "Infinitely many solutions: both equations hold on a whole stretch."
    elif goes_on:
        words.append("Looking further …")
    else:
        words[0] = words[0] if count else "No solution was found."
        words.append("Some places are not settled: both equations may hold along a whole curve.")
    return words


def extreme_words(found: Largest, value: str) -> list[str]:
    """Where an expression is largest or smallest, and why that is so."""
    word = "smallest" if found.smallest else "largest"
    if found.empty:
        return [f"{found.name} has no point."]
    if found.value is None:
        way = "falls" if found.smallest else "grows"
        return [f"There is no {word} value: {found.form} {way} without end in {found.name}."]
    where = "at this corner" if len(found.places) == 1 else "between these corners"
    words = [f"{found.form} is {word} {where}: {value}.", "Compared exactly at all corners."]
    if not found.reached:
        words.append(f"The place does not belong to {found.name}: the value is not reached.")
    return words


def fraction_shown(value: Fraction, digits: int) -> str:
    """A fraction, with its decimal where it is no whole number."""
    shown = decimal(float(value), digits)
    return shown if value.denominator == 1 else f"{str(value).replace('-', MINUS)} = {shown}"
