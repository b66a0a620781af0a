"""What changed in the mathematics of a sheet from one state to a later one, in a few words."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.data.cells import Floats
from axispath.core.language.numbers import full_precision, listed
from axispath.core.sheet.compared import compared
from axispath.core.sheet.document import Document, Equation, Lane
from axispath.core.sheet.measured import DataSet

ARROW = " → "  # between what was and what is
ADDED, DELETED = "added", "deleted"
MOST_TOLD = 3  # lines named one by one; more are counted
UNITS = {AngleUnit.RADIAN: "radians", AngleUnit.DEGREE: "degrees"}
LONGEST = 60  # characters of a line that is told; a longer one is cut, and says so


def told(before: Document, after: Document) -> str:
    """Say what is written differently: “added g(x) = x + 1”, “swing 1.4 → 0.9”.

    Empty where no line, equation, unit or name differs; how things look is no mathematics.
    """
    both = compared(before, after)
    parts = [
        *_each(ADDED, [_line(lane) for lane in both.added]),
        *_each(DELETED, [_line(lane) for lane in both.gone]),
    ]
    turned = [words for pair in both.changed if (words := _turned(*pair))]
    parts += turned if len(turned) <= MOST_TOLD else [f"changed {len(turned)} lines"]
    parts += _around(before, after)
    return "; ".join(parts)


def told_as_one(before: str, after: str) -> str:
    """Two changes of one thing as one: from what was before the first to what is after the last.

    ``after`` alone where they are no changes from one value to another.
    """
    began, arrow, _ = before.rpartition(ARROW)
    return f"{began}{arrow}{after.rpartition(ARROW)[2]}" if arrow and ARROW in after else after


def of_one_thing(changes: Iterable[str]) -> bool:
    """Whether all of these tell of the same thing that it went from one value to another."""
    things = {words.rpartition(ARROW)[0].rpartition(" ")[0] for words in changes}
    return len(things) == 1 and things != {""}


def _each(verb: str, lines: list[str]) -> list[str]:
    if len(lines) > MOST_TOLD:
        return [f"{verb} {len(lines)} lines"]
    return [f"{verb} {listed(lines)}"] if lines else []


def _turned(before: Lane, after: Lane) -> str:
    """A line before and after; a number by its name and its two values."""
    if before.data != after.data:
        return _data_turned(before, after)
    if before.block != after.block:
        return "changed a block of equations"
    if before.fit != after.fit:
        return f"fitted {after.name or 'a curve'} anew"
    if before.text == after.text:
        return _range_turned(before, after)
    left, _, old = before.text.partition("=")
    right, _, new = after.text.partition("=")
    if old and new and left.strip() == right.strip():
        return f"{left.strip()} {_written(old)}{ARROW}{_written(new)}"
    return f"{_cut(before.text)}{ARROW}{_cut(after.text)}"


def _range_turned(before: Lane, after: Lane) -> str:
    """The ends of a slider; empty where something else about the line differs."""
    old, new = before.slider, after.slider
    if (old.low, old.high) == (new.low, new.high):
        return ""
    ends = [f"{word} {end}" for word, end in (("from", new.low), ("to", new.high)) if end]
    return " ".join([after.text.partition("=")[0].strip(), *ends]) if ends else ""


def _written(text: str) -> str:
    """A number to six digits, anything else as it is typed."""
    try:
        return f"{float(text):.6g}".replace("-", "−")
    except ValueError:
        return _cut(text.strip())


def _data_turned(before: Lane, after: Lane) -> str:
    name = after.name or "data"
    if before.data is None or after.data is None:
        return f"changed {name}"
    columns = len(after.data.columns) - len(before.data.columns)
    if columns:
        return f"{name}: {_counted(columns, 'column')}"
    rows = after.data.rows - before.data.rows
    if rows:
        return f"{name}: {_counted(rows, 'row')}"
    return _cells_turned(name, before.data, after.data) or f"changed {name}"


def _cells_turned(name: str, before: DataSet, after: DataSet) -> str:
    """The cells that differ, one by its two numbers; empty where no cell does."""
    found = [
        (new, int(row), old.cells.values[row], new.cells.values[row])
        for old, new in zip(before.columns, after.columns, strict=True)
        if old.cells != new.cells and len(old.cells) == len(new.cells)
        for row in np.nonzero(~_alike(old.cells.values, new.cells.values))[0][:2]
    ]
    if len(found) != 1:
        return f"changed cells of {name}" if found else ""
    [(column, row, was, now)] = found
    return f"{name}_{column.name}, row {row + 1}: {_number(was)}{ARROW}{_number(now)}"


def _alike(old: Floats, new: Floats) -> NDArray[np.bool_]:
    same: NDArray[np.bool_] = (old == new) | (np.isnan(old) & np.isnan(new))
    return same


def _number(value: float) -> str:
    return "empty" if math.isnan(value) else full_precision(float(value)).replace("-", "−")


def _counted(difference: int, word: str) -> str:
    how = "more" if difference > 0 else "fewer"
    count = abs(difference)
    return f"one {how} {word}" if count == 1 else f"{count} {how} {word}s"


def _around(before: Document, after: Document) -> Iterator[str]:
    """What belongs to the sheet as a whole."""
    if before.unit != after.unit:
        yield f"angles in {UNITS[after.unit]}"
    old, new = ({_key(one) for one in state.equations} for state in (before, after))
    yield from _each("solved", [_cut(one.text) for one in after.equations if _key(one) not in old])
    yield from _each("left", [_cut(one.text) for one in before.equations if _key(one) not in new])
    if before.name != after.name:
        yield f"named “{after.name}”"


def _key(equation: Equation) -> tuple[str, str]:
    return equation.text, equation.unknown


def _line(lane: Lane) -> str:
    if lane.data is not None:
        return f"data {lane.name}" if lane.name else "data"
    if lane.block is not None:
        return "a block of equations"
    if lane.fit is not None:
        return f"the fit {lane.name}" if lane.name else "a fit"
    named = lane.text.startswith(lane.name) if lane.name else True
    return _cut(lane.text if named else f"{lane.name}: {lane.text}")


def _cut(text: str) -> str:
    return text if len(text) <= LONGEST else f"{text[:LONGEST].rstrip()} …"
