"""Small things that several rules do with text."""

from __future__ import annotations

import re

PAIR = r"\(\s*([^(),]+)\s*,\s*([^(),]+)\s*\)"
RAISED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁽⁾", "0123456789+-()")


def is_plain(part: str) -> bool:
    """Whether a part is one number or name, which needs no brackets."""
    return re.fullmatch(r"[\w.]+", part) is not None


def less(value: str, part: str) -> str:
    """One part less another."""
    return f"{value} - {part}" if is_plain(part) else f"{value} - ({part})"


def apart(text: str, separator: str) -> list[str]:
    """A text taken apart at a pattern wherever it stands outside of all brackets."""
    parts, depth, start = [], 0, 0
    for found in re.finditer(rf"[()\[\]{{}}]|{separator}", text):
        sign = found[0]
        if sign in "([{":
            depth += 1
        elif sign in ")]}":
            depth -= 1
        elif not depth:
            parts.append(text[start : found.start()])
            start = found.end()
    return [*parts, text[start:]]


def closes_at_end(text: str) -> bool:
    """Whether the bracket that a text begins with is closed at its end."""
    depth = 0
    for k, sign in enumerate(text):
        depth += (sign == "(") - (sign == ")")
        if not depth:
            return k == len(text) - 1
    return False
