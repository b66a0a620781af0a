"""Answers as people type them: lists of numbers and of points."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from flint import arb

from axispath.core.arithmetic.interval import End
from axispath.core.sheet.document import Document
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.refused import EditRefused

MOST = 100  # numbers in one answer
LONGEST = 2000  # characters of one answer
NONE = frozenset(
    (
        *("none", "no", "∅", "{}", "nothing", "there is none", "empty", "empty set", "no number"),
        *(
            "the empty set",
            "no solution",
            "no solutions",
            "no real solution",
            "no zeros",
            "no zero",
        ),
        *("no real solutions", "there are none", "there is no solution", "there are no solutions"),
    )
)
_DECIMAL = re.compile(r"[+\-−]?\s*\d*\.\d+(?:[eE][+\-−]?\d+)?")
_REPEATING = re.compile(r"([+\-−]?)(\d*)[.,](\d*)\((\d+)\)")
_THOUSANDS = re.compile(r"[+\-−]?\d{1,3}(?:,\d{3}){2,}(?:\.\d+)?")
_COMMA = re.compile(r"[+\-−]?\d+,(?:\d+|\d*\(\d+\))")
_NAMED = re.compile(r"^\s*[^\W\d]\w*\s*=\s*(?!=)")
_BOTH = re.compile(r"±|\+/-|\+-")
_OUTER = {"(": 1, "[": 1, "{": 1, ")": -1, "]": -1, "}": -1}


@dataclass(frozen=True, slots=True)
class Number:
    """A number as typed: what it is, and half of the last digit of a decimal one; else 0."""

    text: str
    end: End
    slack: float

    @property
    def x(self) -> float:
        """The nearest float64."""
        return self.end.x

    def may_be(self, place: arb) -> bool:
        """Whether it is, to the digits typed, a number that lies in an enclosure.

        Halves are rounded away from 0; what has no digit but 0 stands for 0 alone.
        """
        if self.slack and self.end.x == 0 and not place.contains(0):
            return False
        off = abs(self.end.ball - place)
        if not off.lower() <= self.slack:
            return False
        return bool(off.upper() < self.slack) or not self.slack or self._rounded_to(place)

    def _rounded_to(self, place: arb) -> bool:
        """Whether what may lie just halfway is rounded to this number and not to the next."""
        return bool(abs(self.end.ball).upper() >= abs(place).lower())

    def meets(self, place: arb) -> bool:
        """Whether it lies in an enclosure itself, so that no more digits are wanted."""
        return bool((self.end.ball - place).contains(0))


@dataclass(frozen=True, slots=True)
class Point:
    """A number, with a second one where a point was typed."""

    x: Number
    y: Number | None = None


def pieces(text: str, signs: str = ",;\n", words: tuple[str, ...] = ("and", "or")) -> list[str]:
    """The parts of a list, split outside of all brackets."""
    if words:
        text = re.sub(rf"\b(?:{'|'.join(words)})\b", signs[0], text)
    found, depth, start = [], 0, 0
    for k, sign in enumerate(text):
        depth += _OUTER.get(sign, 0)
        if sign in signs and depth <= 0:
            found.append(text[start:k])
            start = k + 1
    found.append(text[start:])
    return [part.strip() for part in found if part.strip()]


def is_none(text: str) -> bool:
    """Whether an answer says that there is nothing."""
    return text.strip().lower().rstrip(".") in NONE


def number(document: Document, text: str) -> Number:
    """One number. Raises EditRefused that names it."""
    typed = _NAMED.sub("", text).strip()
    if _THOUSANDS.fullmatch(typed):
        typed = typed.replace(",", "")
    repeating = _REPEATING.fullmatch(typed)
    if repeating:
        return Number(text.strip(), typed_end(document, _fraction(repeating)), 0.0)
    try:
        end = typed_end(document, typed)
    except EditRefused as refused:
        raise EditRefused(
            f"“{text.strip()[:60]}” is not read as a number: {refused.message}"
        ) from (refused)
    return Number(typed, end, _slack(typed))


def _fraction(match: re.Match[str]) -> str:
    """A decimal whose digits repeat, such as 0.(3) or 1.2(45), as a fraction."""
    sign, whole, fixed, again = match.groups()
    below = 10 ** len(fixed) * (10 ** len(again) - 1)
    first = int((whole or "0") + fixed)
    top = first * (10 ** len(again) - 1) + int(again)
    return f"{'-' if sign else ''}{top}/{below}"


def with_points(text: str) -> str:
    """Decimal commas as points, where every number of a list may have one; else empty."""
    parts = [part for part in re.split(r"\s*(?:;|\n|\band\b|\bor\b)\s*", text.strip()) if part]
    bare = [_NAMED.sub("", part).strip() for part in parts]
    if not bare or not all(_COMMA.fullmatch(part) for part in bare):
        return ""
    return "; ".join(part.replace(",", ".") for part in bare)


def _slack(typed: str) -> float:
    """Half a unit of the last digit of a decimal number; 0 for all that is exact."""
    if not _DECIMAL.fullmatch(typed):
        return 0.0
    written = Decimal(typed.replace("−", "-").replace(" ", ""))
    exponent = written.as_tuple().exponent
    return 0.5 * 10.0**exponent if isinstance(exponent, int) else 0.0


def decimals(typed: Number) -> int | None:
    """How many decimals a decimal number has; None for an exact one."""
    if not typed.slack:
        return None
    return max(0, -Decimal(repr(2 * typed.slack)).adjusted())


def points(document: Document, text: str) -> list[Point]:
    """A list such as 2 ± √3, x = 1 or x = 0.5, (1, 2). Raises EditRefused; nothing is empty."""
    if len(text) > LONGEST:
        raise EditRefused(f"An answer has {LONGEST} characters at most.")
    if is_none(text):
        return []
    if _THOUSANDS.fullmatch(text.strip()):
        return [Point(number(document, text))]
    found = [point for piece in pieces(_without_braces(text)) for point in _points(document, piece)]
    if not found:
        raise EditRefused("There is no answer yet: type a number, several, or “none”.")
    if len(found) > MOST:
        raise EditRefused(f"An answer has {MOST} numbers at most.")
    return found


def _without_braces(text: str) -> str:
    """The inside of {1, 2}, which may have a name and a sign before it."""
    inside = re.fullmatch(r"\s*(?:[^\W\d]\w*\s*(?:∈|=|in)\s*)?\{(.*)\}\s*", text, re.DOTALL)
    return inside[1] if inside else text


def _points(document: Document, piece: str) -> Iterator[Point]:
    for one in signed(piece):
        inside = re.fullmatch(r"(?:[^\W\d]\w*\s*=?\s*)?\((.*)\)", one.strip(), re.DOTALL)
        parts = pieces(inside[1], ",;|", ()) if inside else []
        if len(parts) == 2:
            yield Point(number(document, parts[0]), number(document, parts[1]))
        else:
            yield Point(number(document, one))


def signed(piece: str) -> list[str]:
    """Both numbers that ± stands for."""
    if not _BOTH.search(piece):
        return [piece]
    return [_BOTH.sub("+", piece), _BOTH.sub("-", piece)]
