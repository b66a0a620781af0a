"""Relations and regions on the page."""

from typing import Any

from axispath.core.arithmetic.polynomial import coefficients
from axispath.core.language.walking import free_names
from axispath.core.path.relations.conics import described
from axispath.core.plane.relation import relation_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.solved import Letter, solved_for
from axispath.web.kinds.register import Face

KINDS_JOINED = ("region",)
MOST_OTHERS = 6


def _note(lane: ResolvedLane, digits: int) -> str:
    """What it is: a conic by its name."""
    curve = relation_of(lane).curve
    found = coefficients(curve.plain) if curve is not None else None
    told = described(found, digits) if found is not None else ""
    return f"{lane.name}: {told or lane.kind.called}"


def _solved(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    """The letters it can be solved for, with the lines that come of it; x only where y stands."""
    letters: tuple[Letter, ...] = ("y", "x") if "y" in _letters(lane) else ()
    found = {letter: tuple(solved_for(letter, lane)) for letter in letters}
    return {"solved": {letter: lines for letter, lines in found.items() if lines}}


def _letters(lane: ResolvedLane) -> set[str]:
    body = lane.statement.body if lane.statement else None
    return {name.name for name in free_names(body)} if body is not None else set()


def _common(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    """The other regions that show, to be joined to this one."""
    others = [one.name for one in resolve(document).shown(KINDS_JOINED) if one.kind is lane.kind]
    return {"others": tuple(name for name in others if name != lane.name)[:MOST_OTHERS]}


RELATION = Face("parts/kinds/relation.html", "path", _note, _solved)
REGION = Face("parts/kinds/relation.html", "path", _note, _common)
