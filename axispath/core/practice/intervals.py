"""Sets of numbers as people type them: x < 2 or x >= 5, (−∞, 2) ∪ [5, ∞), x ≠ 1, ℝ without {1}."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence

from axispath.core.practice.typed import LONGEST, Number, is_none, number, pieces, signed
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.sets import Interval, common, united

Set = tuple[Interval, ...]
ALL: Set = (Interval(-math.inf, math.inf, False, False),)
EVERY = re.compile(
    r"(?:x\s*(?:∈|in)\s*)?(?:ℝ|R|all|all x|every x|all numbers|all real numbers|everywhere|any x)",
    re.I,
)
_SIGNS = {
    "∨": " or ",
    "∧": " and ",
    "≤": "<=",
    "≥": ">=",
    "≠": "!=",
    "=<": "<=",
    "=>": ">=",
    "−∞": "-∞",
}
_COMPARED = re.compile(r"(<=|>=|!=|<|>|=)")
_WITHOUT = re.compile(r"\s*(?:\\|\bwithout\b|\bexcept\b|\bbut\b|\bminus\b)\s*")
_TURNED = re.compile(r"([\]\[])(\s*[-+−]?[\w∞√.][^\[\]();,]*[;,][^\[\];,]*[\w∞.)]\s*)([\[\]])")
_INFINITE = re.compile(r"([+\-−]?)\s*(?:∞|inf|infinity|oo)", re.I)


class Typed:
    """A set that is being read; ``numbers`` are its ends as they were typed."""

    def __init__(
        self, document: Document, truth: Sequence[float] = (), digits: float = 1e-12
    ) -> None:
        """Ends that are one of ``truth``, as far as can be told, are taken to be it."""
        self.document = document
        self.truth = truth
        self.digits = digits
        self.numbers: list[Number] = []

    def read(self, text: str) -> Set:
        """The set. Raises EditRefused that names what is not read."""
        if len(text) > LONGEST:
            raise EditRefused(f"An answer has {LONGEST} characters at most.")
        if is_none(text):
            return ()
        if not text.strip():
            raise EditRefused(
                "There is no answer yet: type a set such as x < 2 or x ≥ 5, or “none”."
            )
        for sign, plain in _SIGNS.items():
            text = text.replace(sign, plain)
        return self._listed(_TURNED.sub(_upright, text))

    def _listed(self, text: str) -> Set:
        """Parts with commas between them: more numbers, or numbers to leave out."""
        found: Set | None = None
        for piece in pieces(text, ",;\n", ()):
            part = self._united(piece)
            if "!=" in piece and found is not None:
                found = common(found, part)
            else:
                found = part if found is None else united((*found, *part))
        return found or ()

    def _united(self, text: str) -> Set:
        parts = re.split(r"∪|\bor\b|\bunion\b", text)
        return united(interval for part in parts for interval in self._common(part))

    def _common(self, text: str) -> Set:
        found = ALL
        for part in re.split(r"∩|\band\b", text):
            found = common(found, self._cut(part))
        return found

    def _cut(self, text: str) -> Set:
        whole, *without = _WITHOUT.split(text.strip())
        found = self._one(whole)
        for part in without:
            inside = part if re.match(r"\s*[\[\](){}]", part) else "{" + part + "}"
            found = common(found, _complement(self._one(inside)))
        return found

    def _one(self, text: str) -> Set:
        text = re.sub(r"^\s*[^\W\d]\w*\s*(?:∈|\bin\b)\s*", "", text).strip()
        if EVERY.fullmatch(text):
            return ALL
        inside = re.fullmatch(r"\{(.*)\}", text, re.DOTALL)
        if inside:
            listed = [one for piece in pieces(inside[1], ",;", ()) for one in signed(piece)]
            ends = [self._end(one) for one in listed]
            return united(Interval(x, x, True, True) for x in ends)
        size = re.fullmatch(r"\|\s*(?P<x>[^\W\d_])\s*\|\s*(?P<sign><=|<|>=|>|=)(?P<end>.+)", text)
        if size and _is_unknown(size["x"]):
            end = self._end(size["end"])
            return _sized(size["sign"], end)
        between = re.fullmatch(r"([\[\](])(.*)([\[\])(])", text, re.DOTALL)
        if between and len(parts := _two(between[2])) == 2:
            low, high = (self._end(part) for part in parts)
            return _interval(low, high, between[1] == "[", between[3] == "]")
        return self._compared(text)

    def _compared(self, text: str) -> Set:
        parts = _COMPARED.split(text)
        if len(parts) < 3 or not all(part.strip() for part in parts):
            raise EditRefused(
                f"“{text[:60]}” is not read as a set: write x < 2, (−∞, 2) or {{1, 2}}."
            )
        sides, signs = parts[::2], parts[1::2]
        unknown = [k for k, side in enumerate(sides) if _is_unknown(side)]
        if len(unknown) != 1:
            raise EditRefused(f"“{text[:60]}” is not read as a set: it compares x with numbers.")
        at = unknown[0]
        found = ALL
        for k, sign in enumerate(signs):
            if at not in (k, k + 1):
                raise EditRefused(f"“{text[:60]}” compares numbers with one another.")
            turned = (
                sign if at == k else {"<": ">", ">": "<", "<=": ">=", ">=": "<="}.get(sign, sign)
            )
            found = common(found, _beside(turned, self._end(sides[k + 1 if at == k else k])))
        return found

    def _end(self, text: str) -> float:
        infinite = _INFINITE.fullmatch(text.strip())
        if infinite:
            return -math.inf if infinite[1] in ("-", "−") else math.inf
        typed = number(self.document, text)
        self.numbers.append(typed)
        near = [end for end in self.truth if _is(typed, end, self.digits)]
        return min(near, key=lambda end: abs(end - typed.x), default=typed.x)


def _two(text: str) -> list[str]:
    """Both ends of an interval; where a semicolon stands between them, commas are decimal ones."""
    if ";" in text:
        return pieces(re.sub(r"(?<=\d),(?=\d)", ".", text), ";", ())
    return pieces(text, ",|", ())


def _upright(match: re.Match[str]) -> str:
    """An interval ]a; b[ with its open ends turned outwards, as (a; b)."""
    first, inside, last = match.groups()
    return f"{'[' if first == '[' else '('}{inside}{']' if last == ']' else ')'}"


def _sized(sign: str, end: float) -> Set:
    """|x| compared with a number."""
    if sign == "=":
        return united(Interval(x, x, True, True) for x in (-end, end)) if end >= 0 else ()
    closed = sign.endswith("=")
    if sign.startswith("<"):
        inside = end > 0 or (end == 0 and closed)
        return (Interval(-end, end, closed, closed),) if inside else ()
    if end < 0 or (end == 0 and closed):
        return ALL
    return Interval(-math.inf, -end, False, closed), Interval(end, math.inf, closed, False)


def _is(typed: Number, end: float, digits: float) -> bool:
    return math.isfinite(end) and abs(typed.x - end) <= typed.slack + digits * max(1.0, abs(end))


def _is_unknown(text: str) -> bool:
    return re.fullmatch(r"\s*[^\W\d_]\s*", text) is not None and text.strip() not in "πe"


def _interval(low: float, high: float, low_closed: bool, high_closed: bool) -> Set:
    if low > high or (low == high and not (low_closed and high_closed)):
        raise EditRefused("An interval runs from its smaller end to its larger one.")
    return (
        Interval(low, high, low_closed and math.isfinite(low), high_closed and math.isfinite(high)),
    )


def _beside(sign: str, x: float) -> Set:
    if sign == "=":
        return (Interval(x, x, True, True),)
    if sign == "!=":
        return Interval(-math.inf, x, False, False), Interval(x, math.inf, False, False)
    if sign.startswith("<"):
        return (Interval(-math.inf, x, False, sign == "<="),)
    return (Interval(x, math.inf, sign == ">=", False),)


def _complement(parts: Set) -> Set:
    found = []
    low, low_closed = -math.inf, False
    for part in parts:
        if low < part.low or (low == part.low and low_closed and not part.low_closed):
            found.append(Interval(low, part.low, low_closed, not part.low_closed))
        low, low_closed = part.high, not part.high_closed
    if low < math.inf:
        found.append(Interval(low, math.inf, low_closed, False))
    return tuple(found)


def without(parts: Set, others: Set) -> Set:
    """What is in one set and not in the other."""
    return common(parts, _complement(others))


def some_number(parts: Set) -> float:
    """A simple number of a set that is not empty."""
    part = parts[0]
    if part.low == part.high:
        return part.low
    low, high = max(part.low, -1e6), min(part.high, 1e6)
    if low >= high:  # far out
        return part.low * 2 if math.isinf(part.high) else part.high * 2
    for step in (10.0, 1.0, 0.5, 0.25, 0.125):
        inside = math.ceil(low / step) * step
        inside = inside if inside > low else inside + step
        if inside < high:
            return 0.0 if low < 0 < high else inside
    return (low + high) / 2
