"""A slider with its range in one line: a from 0 to 10, b = 3 in [0, 10], 0 ≤ c ≤ 2π."""

from __future__ import annotations

import re
from collections.abc import Callable

from axispath.core.sheet.document import Document, Slider
from axispath.core.sheet.edits.sliders import SetSlider
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.sheet.turning import TURNED

_NAME = r"(?P<name>(?![xyrtθzei]\b)[A-Za-zα-ωΑ-Ω]\w*)"
_VALUE = r"(?:\s*=\s*(?P<value>[-−+]?[\w./√π]+))"
_END = r"[^,;<>=≤≥\[\]()]+?"
_LESS = r"\s*(?:<=|≤|<)\s*"
_FORMS = (
    rf"{_NAME}{_VALUE}?\s*,?\s*(?:from|between)\s+(?P<low>{_END})\s+(?:to|and)\s+(?P<high>{_END})",
    rf"{_NAME}{_VALUE}?\s*,?\s*(?:in|∈|on)\s*\[(?P<low>{_END})[,;](?P<high>{_END})\]",
    rf"{_NAME}{_VALUE}\s*,?\s*\[(?P<low>{_END})[,;](?P<high>{_END})\]",
    rf"{_NAME}{_VALUE}\s*(?:,|;|for|with)?\s*(?P<low>{_END}){_LESS}(?P=name){_LESS}(?P<high>{_END})",
    rf"(?P<low>{_END}){_LESS}{_NAME}{_LESS}(?P<high>{_END})",
)
_RANGES = tuple(
    re.compile(rf"\s*(?:(?:let|a|an?\s+)?\s*(?:slider|parameter)\s+)?{form}\s*") for form in _FORMS
)


def with_range(document: Document, text: str, add: Callable[[str], Document]) -> Document | None:
    """A slider with the range that a line gives it, one that is there too; None for other lines."""
    found = _ranged(text)
    if found is None:
        return None
    name, value, slider = found
    there = next((one for one in resolve(document) if one.name == name), None)
    known = scope_of(document.lanes).knows(name)
    if (there is None and known) or (there and (value or not there.can(TURNED))):
        return None
    try:
        after = document if there else add(f"{name} = {value or _start(slider)}")
        lane = there.lane if there else after.lanes[-1]
        return SetSlider(id=lane.id, slider=slider).applied(after)
    except EditRefused:
        return None


def _ranged(text: str) -> tuple[str, str | None, Slider] | None:
    """Name, value if one is given, and range; None where a line is nothing of the kind."""
    for pattern in _RANGES:
        found = pattern.fullmatch(text)
        if found is None:
            continue
        given = found.groupdict()
        slider = Slider(low=given["low"].strip(), high=given["high"].strip())
        return given["name"], given.get("value"), slider
    return None


def _start(slider: Slider) -> str:
    """Where a slider begins of which only the range is known: at 1, else in the middle."""
    try:
        low, high = float(slider.low.replace("−", "-")), float(slider.high.replace("−", "-"))
    except ValueError:
        return slider.low
    return "1" if low <= 1 <= high else f"{(low + high) / 2:g}"
