"""Two equations in x and y at once, and inequalities beside them: “x^2 + y^2 = 25, x + y = 7”."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

import numpy as np

from axispath.core import catalogue
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.relation import is_relation
from axispath.core.language.tokens import tokenise
from axispath.core.path.kinds import MEETS
from axispath.core.path.lanes import Effort
from axispath.core.path.survey import ordered
from axispath.core.plane.relation import relation_of
from axispath.core.search.landmark import Landmark, Path
from axispath.core.sheet.document import MAX_LANES, Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve

IDS = ("equation1", "equation2")
_PARTS = re.compile(r"[,;]|\band\b")
MOST_PARTS = 8


@dataclass(frozen=True)
class System:
    """Two equations as lanes that are tried out by ``edits``, and where both hold."""

    edits: tuple[AddLane, ...]
    path: Path
    residuals: tuple[float, ...]


def solve_system(document: Document, text: str, effort: Effort) -> System | None:
    """The solutions in the view; None where the text is no system in x and y.

    Raises EditRefused where it is one that cannot be solved here.
    """
    parts = [part.strip() for part in _PARTS.split(text)]
    if not 2 <= len(parts) <= MOST_PARTS or not all(parts) or not any(map(_in_the_plane, parts)):
        return None
    equations = [part for part in parts if "=" in re.sub(r"[<>]=?|≤|≥", "", part)]
    others = [part for part in parts if part not in equations]
    if len(equations) != 2:
        count = "1 equation" if len(equations) == 1 else f"{len(equations)} equations"
        raise EditRefused(f"Two unknowns take two equations; these are {count}.")
    if len(document.lanes) + 3 > MAX_LANES:
        raise EditRefused("The sheet has too many lanes to draw two equations beside them.")
    edits = tuple(AddLane(text=part, id=i) for part, i in zip(equations, IDS, strict=True))
    tried = document
    for edit in edits:
        tried = apply(tried, edit)
    sheet = resolve(tried)
    first, second = (sheet.lane(lane_id) for lane_id in IDS)
    assert first is not None and second is not None
    pair = ordered(first, second) if first.ready and second.ready else None
    if pair is None:
        raise EditRefused("Both parts have to be equations in x and y, such as x + y = 7.")
    search = MEETS[pair[0].kind.key, pair[1].kind.key]
    path = search(*pair, document.view, effort.budget(1), None)
    if path is None:
        raise EditRefused("These two have no part of the plane in common.")
    if others:
        tried = apply(tried, AddLane(text=" and ".join(others), id="beside"))
        beside = resolve(tried).lane("beside")
        assert beside is not None
        path = replace(path, landmarks=_within(beside, path.landmarks))
    marks = path.landmarks
    return System(edits, path, tuple(_residual((first, second), mark) for mark in marks))


def _in_the_plane(part: str) -> bool:
    try:
        tokens = tokenise(written(part))
        uses_y = any(token.kind == "name" and token.text == "y" for token in tokens)
        return uses_y and is_relation(tokens, catalogue.VOCABULARY)
    except LanguageError:
        return False


def _within(lane: ResolvedLane, marks: tuple[Landmark, ...]) -> tuple[Landmark, ...]:
    if lane.kind.key != "region":
        raise EditRefused("What stands beside two equations has to be inequalities in x and y.")
    relation = relation_of(lane)
    return tuple(m for m in marks if relation.holds_at(m.x, m.y))


def _residual(lanes: tuple[ResolvedLane, ResolvedLane], mark: Landmark) -> float:
    """How far the sides of both equations are apart at the decimals of a solution, at most."""
    worst = 0.0
    for lane in lanes:
        if lane.kind.key == "relation":
            curve = relation_of(lane).curve
            assert curve is not None
            value = float(curve.values(np.array([mark.x]), np.array([mark.y]))[0])
        else:
            value = float(lane.floats(np.array([mark.x]))[0]) - mark.y
        worst = max(worst, abs(value))
    return worst
