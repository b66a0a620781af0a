"""Tables as others write them, read as columns of numbers: separators, heads, commas, dates, units.

Nothing is guessed silently: what was understood of each column stands beside it, and a cell that is
no number is named by its row and column.
"""

from __future__ import annotations

import csv
import io
import itertools
import math
import re
import unicodedata
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from axispath.core.data.cells import LARGEST, MAX_ROWS, Cells

MAX_COLUMNS = 60
MOST_TOLD = 5
SEPARATORS = ("\t", ";", ",", "|")
MISSING = {"", "-", "–", "—", "na", "n/a", "nan", "null", "none", "#n/a", "?", "."}
_NUMBER = re.compile(r"[+-]?(\d+([.]\d*)?|[.]\d+)([eE][+-]?\d+)?%?")
_WRITTEN = re.compile(r"[-+0-9eE.\n]*")
_THOUSANDS = re.compile(r"[+-]?\d{1,3}(\.\d{3})+(,|$)")
_CLOCK = r"(?P<h>\d{1,2}):(?P<n>\d{2})(:(?P<s>\d{2}(\.\d+)?))?"
_DATE = re.compile(rf"(?P<y>\d{{4}})-(?P<m>\d{{1,2}})-(?P<d>\d{{1,2}})([T ]{_CLOCK}Z?)?")
_DAY_FIRST = re.compile(rf"(?P<d>\d{{1,2}})[./](?P<m>\d{{1,2}})[./](?P<y>\d{{4}})( {_CLOCK})?")
_TIME = re.compile(r"(?P<h>\d{1,3}):(?P<n>\d{2})(:(?P<s>\d{2}(\.\d+)?))?")
_UNIT = re.compile(r"^(?P<name>.*?)\s*[\[(](?P<unit>[^\])]*)[\])]\s*$")
Cell = str | float | None


class CannotRead(Exception):
    """This is no table, in a sentence."""


@dataclass(frozen=True, slots=True)
class Found:
    """A column as it was understood. ``how`` says what its numbers are, where they were no plain
    numbers; ``troubles`` name cells that hold neither a number nor nothing, as (row, text).
    """

    name: str
    title: str
    how: str
    cells: Cells
    missing: int
    troubles: tuple[tuple[int, str], ...]
    wrong: int


@dataclass(frozen=True, slots=True)
class Read:
    """Columns of the same rows; ``notes`` say what was understood of the table as a whole."""

    columns: tuple[Found, ...]
    rows: int
    notes: tuple[str, ...]


def rows_of_text(text: str) -> tuple[list[list[Cell]], str]:
    """The cells of a pasted or opened text, and the sign between them."""
    text = text.lstrip("\ufeff")
    lines = [line for line in text.splitlines()[:50] if line.strip()]
    if not lines:
        raise CannotRead("There is nothing in it.")
    separator = _separator(lines)
    if not separator:
        return [[*line.split()] or [None] for line in text.splitlines()], " "
    try:
        csv.field_size_limit(1 << 20)
        found: list[list[Cell]] = [
            list(r) for r in csv.reader(io.StringIO(text), delimiter=separator)
        ]
    except csv.Error as error:
        raise CannotRead("A quotation mark in it is not closed.") from error
    return found, separator


def _separator(lines: Sequence[str]) -> str:
    """The sign that stands as often in most of the lines; a comma may be a decimal one."""
    for sign in SEPARATORS:
        counts = Counter(line.count(sign) for line in lines)
        often, many = counts.most_common(1)[0]
        if often and many >= 0.6 * len(lines):
            if sign == "," and often == 1 and _is_one_column(lines):
                return "\t"  # one column with decimal commas
            return sign
    return "" if any(len(line.split()) > 1 for line in lines) else "\t"


def _is_one_column(lines: Sequence[str]) -> bool:
    """Whether lines with one comma each are one column of decimal commas, and not two columns.

    A head with a comma has two, and so has what counts its rows in even steps.
    """
    pairs = [line.split(",") for line in lines if re.fullmatch(r"\s*-?\d+,\d+\s*", line)]
    if len(pairs) < 0.6 * len(lines):
        return False
    if any("," in line for line in lines if not any(c.isdigit() for c in line)):
        return False
    first = [int(whole) for whole, _ in pairs]
    steps = {b - a for a, b in itertools.pairwise(first)}
    return not (len(first) > 2 and len(steps) == 1 and steps != {0})


def read_table(
    rows: Iterable[Sequence[Cell]], between: str = "", taken: Iterable[str] = ()
) -> Read:
    """Columns out of cells. Raises CannotRead with a sentence."""
    table = [list(row) for row in itertools.islice(rows, MAX_ROWS + 60)]
    while table and not any(_text(cell) for cell in table[-1]):
        table.pop()
    while table and not any(_text(cell) for cell in table[0]):
        table.pop(0)
    if not table:
        raise CannotRead("There is no number in it.")
    width = max(map(len, table))
    if width > MAX_COLUMNS:
        raise CannotRead(f"It has {width} columns; a data set can have {MAX_COLUMNS}.")
    table = [row + [None] * (width - len(row)) for row in table]
    heads = _heads(table, between)
    body = table[heads:]
    if not body:
        raise CannotRead("There is no row of numbers in it.")
    if len(body) > MAX_ROWS:
        raise CannotRead(f"It has more than {MAX_ROWS} rows, the most that a data set can have.")
    notes = []
    comma = _decimal_comma(body, between)
    if comma:
        notes.append("A comma was read as the decimal sign.")
    if heads:
        notes.append("The first line was read as heads." if heads == 1 else f"{heads} head lines.")
    used = {*taken}
    columns = []
    for k in range(width):
        title = " ".join(t for row in table[:heads] if (t := _text(row[k]))) if heads else ""
        column = _column([row[k] for row in body], title, k, comma, used)
        used.add(column.name)
        columns.append(column)
    kept = [c for c in columns if c.missing < len(body) or c.title]
    if all(c.missing + c.wrong >= len(body) for c in kept):
        raise CannotRead("There is no number in it.")
    return Read(tuple(kept), len(body), tuple(notes))


def _heads(table: list[list[Cell]], between: str) -> int:
    """How many lines at the top are heads: those without a number, above one with numbers."""
    for k, row in enumerate(table[:4]):
        filled = [cell for cell in row if _text(cell)]
        if any(_is_value(cell, between) for cell in filled):
            return k
    return 1


def _is_value(cell: Cell, between: str) -> bool:
    signs = (".",) if between == "," else (".", ",")
    return any(_plain(cell, sign) is not None for sign in signs) or any(
        read(_text(cell)) is not None for _, _, read in DATES
    )


def _decimal_comma(body: list[list[Cell]], between: str) -> bool:
    if between == ",":
        return False
    cells = [_text(cell) for row in body[:400] for cell in row]
    commas = sum(
        bool(re.fullmatch(r"[+-]?[\d.\s]*\d,\d+([eE][+-]?\d+)?%?", cell)) for cell in cells
    )
    points = sum(
        bool(re.fullmatch(r"[+-]?[\d,\s]*\d\.\d+([eE][+-]?\d+)?%?", cell)) for cell in cells
    )
    if between == ";":  # whose writers set the semicolon since the comma is taken
        return commas > points
    thousands = sum(bool(re.fullmatch(r"[+-]?\d{1,3}(,\d{3})+", cell)) for cell in cells)
    return commas > points and commas > thousands


def _text(cell: Cell) -> str:
    if cell is None:
        return ""
    return cell.strip() if isinstance(cell, str) else repr(cell)


def _plain(cell: Cell, signs: str = ".") -> float | None:
    """A number with a decimal sign out of ``signs``; None for others."""
    if isinstance(cell, float):
        return cell if abs(cell) <= LARGEST else None
    text = (
        _text(cell).replace("−", "-").replace("\u00a0", "").replace("\u202f", "").replace("'", "")
    )
    text = re.sub(r"(?<=\d) (?=\d{3}\b)", "", text)
    if signs == ",":
        if "." in text and not _THOUSANDS.match(text):
            return None
        text = text.replace(".", "").replace(",", ".")
    elif "," in signs:
        text = text.replace(",", ".")
    else:
        text = re.sub(r"(?<=\d),(?=\d{3}(\D|$))", "", text)
    if not _NUMBER.fullmatch(text):
        return None
    value = float(text.rstrip("%")) / (100 if text.endswith("%") else 1)
    return value if abs(value) <= LARGEST else None


def number_of(text: str) -> float | None:
    """A number as it is typed into a cell, None for nothing. Raises CannotRead for others."""
    if text.strip().lower() in MISSING:
        return None
    for signs in (".", ","):
        found = _plain(text, signs)
        if found is not None:
            return found
    for _, _, read in DATES:
        found = read(text.strip())
        if found is not None:
            return found
    raise CannotRead(f"“{text.strip()[:40]}” is no number.")


def _days(match: re.Match[str]) -> float | None:
    """Days since the first of January 2000, by the calendar of today (H. C. Fliegel and T. C. Van
    Flandern 1968, A Machine Algorithm for Processing Calendar Dates)."""
    year, month, day = (int(match[k]) for k in "ymd")
    if not (1 <= month <= 12 and 1 <= day <= _last_day(year, month) and year):
        return None
    a = -1 if month <= 2 else 0
    julian = (
        (1461 * (year + 4800 + a)) // 4
        + (367 * (month - 2 - 12 * a)) // 12
        - (3 * ((year + 4900 + a) // 100)) // 4
        + day
        - 32075
    )
    return julian - 2451545 + _hours(match) / 24


def _last_day(year: int, month: int) -> int:
    """How many days a month has."""
    if month == 2:
        return 29 if year % 4 == 0 and (year % 100 or year % 400 == 0) else 28
    return 30 if month in (4, 6, 9, 11) else 31


def _hours(match: re.Match[str]) -> float:
    hours, minutes, seconds = (float(match[k] or 0) for k in "hns")
    return hours + minutes / 60 + seconds / 3600


def _iso(text: str) -> float | None:
    match = _DATE.fullmatch(text)
    return _days(match) if match else None


def _day_first(text: str) -> float | None:
    match = _DAY_FIRST.fullmatch(text)
    return _days(match) if match else None


def _clock(text: str) -> float | None:
    match = _TIME.fullmatch(text)
    return _hours(match) if match and int(match["n"]) < 60 else None


DATES = (
    ("dates, as days since 1 January 2000", "d", _iso),
    ("dates with the day first, as days since 1 January 2000", "d", _day_first),
    ("times, as hours", "h", _clock),
)


def _column(cells: list[Cell], title: str, number: int, comma: bool, used: set[str]) -> Found:
    texts = [_text(cell) for cell in cells]
    name = _name(title, number, used)
    if not comma and (simple := _simple(texts)) is not None:
        return Found(name, title[:120], "", simple, texts.count(""), (), 0)
    filled = [text for text in texts if text.lower() not in MISSING]
    how, reads = "", None
    for words, _, read in DATES:
        some = filled[:: max(1, len(filled) // 200)]
        if some and sum(read(text) is not None for text in some) >= 0.8 * len(some):
            how, reads = words, read
            break
    values: list[float | None] = []
    troubles: list[tuple[int, str]] = []
    wrong = missing = 0
    for row, (cell, text) in enumerate(zip(cells, texts, strict=True), start=1):
        if text.lower() in MISSING:
            missing += 1
            values.append(None)
            continue
        value = reads(text) if reads is not None else _plain(cell, "," if comma else ".")
        if value is None or not math.isfinite(value):
            wrong += 1
            if len(troubles) < MOST_TOLD:
                troubles.append((row, text[:40]))
            value = None
        values.append(value)
    return Found(name, title[:120], how, Cells(values), missing, tuple(troubles), wrong)


def _simple(texts: list[str]) -> Cells | None:
    """Cells that are numbers as a computer writes them, or empty; None where any is not."""
    if not _WRITTEN.fullmatch("\n".join(texts)):
        return None
    try:
        values = [float(text) if text else math.nan for text in texts]
    except ValueError:
        return None
    return Cells(values) if all(not abs(value) > LARGEST for value in values) else None


def _name(title: str, number: int, used: set[str]) -> str:
    """A name for formulas out of a head: its letters and digits, without its unit."""
    unit = _UNIT.match(title)
    bare = unit["name"] if unit and unit["name"] else title
    bare = "".join(c if c.isalnum() else "_" for c in unicodedata.normalize("NFC", bare.lower()))
    bare = re.sub(r"_+", "_", bare).strip("_")[:30]
    if not bare or not bare[0].isalpha():
        bare = f"column_{bare}".rstrip("_") if bare else f"column_{number + 1}"
    # One letter mostly means something else: x, y, e.
    if len(bare) == 1:
        bare = f"{bare}_data"
    name, k = bare, 2
    while name in used:
        name, k = f"{bare}_{k}", k + 1
    return name
