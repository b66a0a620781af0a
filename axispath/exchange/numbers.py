"""Numbers out of what spreadsheets and instruments write: lists and CSV, in any of their habits."""

from __future__ import annotations

import re

from axispath.core.language.numbers import full_precision
from axispath.core.sheet.refused import EditRefused

MOST = 5_000
LONGEST = 80  # characters of one number
# Each digit can be read in one way only, so that no text makes this go back and try again.
_NUMBER = re.compile(r"[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d{1,4})?")


def numbers_from(text: str) -> list[str]:
    """The numbers of the first column, each as plain text.

    Takes a byte-order mark, a head line, semicolons, tabs, quotes, and commas as decimal points.
    Raises EditRefused with a sentence that names the line.
    """
    lines = [line.strip() for line in text.lstrip("\ufeff").splitlines() if line.strip()]
    if not lines:
        raise EditRefused("There are no numbers in this.")
    separator = _separator(lines)
    comma = separator != "," and any("," in line for line in lines)
    found: list[str] = []
    for number, line in enumerate(lines, 1):
        cells = [cell.strip().strip('"').strip() for cell in line.split(separator)]
        if len(lines) > 1:
            cells = cells[:1]
        for cell in cells:
            plain = cell.replace("−", "-").replace("\u202f", "").replace("\xa0", "")
            plain = plain.replace(",", ".") if comma else plain
            if len(plain) <= LONGEST and _NUMBER.fullmatch(plain):
                found.append(full_precision(float(plain)))
            elif number == 1 and len(lines) > 1:
                continue  # a head line
            elif cell:
                raise EditRefused(f"Line {number} has “{cell[:40]}”, which is not a number.")
    if not found:
        raise EditRefused("There are no numbers in the first column.")
    if len(found) > MOST:
        raise EditRefused(f"These are {len(found)} numbers; a list can have {MOST}.")
    return found


def _separator(lines: list[str]) -> str:
    """What stands between two columns."""
    for separator in (";", "\t"):
        if any(separator in line for line in lines):
            return separator
    # One number a line, each with at most one comma, and no head with commas: decimal commas.
    plain = [line for line in lines if re.fullmatch(r'"?[+\-−]?\d+(,\d+)?"?', line)]
    several = len(plain) > 1 and any("," in line for line in plain)
    if several and len(plain) >= len(lines) - 1 and ("," not in lines[0] or lines[0] in plain):
        return ";"
    return ","
