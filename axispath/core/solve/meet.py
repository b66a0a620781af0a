"""Where two lanes meet, asked in words: “where do C and f meet”, “C and f”, “C meets f”."""

from __future__ import annotations

import re
from dataclasses import dataclass

from axispath.core.path.kinds import MEETS
from axispath.core.path.lanes import Effort
from axispath.core.path.survey import ordered
from axispath.core.search.landmark import Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve

_NAME = r"(?P<{}>[^\W\d]\w*)(?:\(\w+\))?"
_ASKED = re.compile(
    r"\s*(?:where\s+do(?:es)?\s+)?"
    + _NAME.format("one")
    + r"\s+(?:and|meets?|crosse?s?|intersects?)\s+"
    + _NAME.format("other")
    + r"(?:\s+(?:meet|cross|intersect))?\s*\??\s*",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Met:
    """Two lanes, and the path of the places at which they meet."""

    first: ResolvedLane
    second: ResolvedLane
    path: Path


def met(document: Document, text: str, effort: Effort) -> Met | None:
    """The places that a question in words asks for; None where the text is no such question.

    Raises EditRefused where a name is none, or cannot meet anything.
    """
    asked = _ASKED.fullmatch(text)
    if asked is None:
        return None
    lanes = {lane.name: lane for lane in resolve(document) if lane.name}
    found = []
    for name in (asked["one"], asked["other"]):
        if name not in lanes:
            raise EditRefused(f"There is no {name} on this sheet.")
        found.append(lanes[name])
    one, other = found
    pair = ordered(one, other) if one.ready and other.ready and one is not other else None
    if pair is None:
        raise EditRefused(f"{one.name} and {other.name} are not two curves that could meet.")
    first, second = pair
    view = document.view
    search = MEETS[first.kind.key, second.kind.key]
    path = search(first, second, view, effort.budget(1), None)
    if path is None:
        raise EditRefused(f"The domains of {first.name} and {second.name} have nothing in common.")
    return Met(first, second, path)
