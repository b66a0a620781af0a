"""The sides of an equation, and what a method works on, as lanes for a while or for good."""

from __future__ import annotations

from axispath.core import catalogue
from axispath.core.language.plain import plain
from axispath.core.language.tree import Call, Expression, Name
from axispath.core.path.kinds import SEARCHED
from axispath.core.sheet.document import MAX_LANES, Document
from axispath.core.sheet.edits import AddLane
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of
from axispath.core.solve.methods.way import Way
from axispath.core.solve.question import Question

SIDES = {2: ("left", "right"), 3: ("low", "middle", "high")}


def side_lanes(document: Document, question: Question) -> list[AddLane]:
    """A lane for each side that is not one already.

    None where the unknown is a value of the sheet, since other lanes use it as that.
    """
    operands = question.comparison.operands
    shown = {lane.name for lane in resolve(document).shown(SEARCHED)}

    def is_lane(side: Expression) -> bool:
        if not isinstance(side, Call) or side.order or side.name not in shown:
            return False
        return side.arguments == (Name(question.unknown),)

    texts = [
        (word, plain(side, catalogue.VOCABULARY))
        for word, side in zip(SIDES[len(operands)], operands, strict=True)
        if not is_lane(side)
    ]
    return _lanes(document, question, texts)


def method_lanes(document: Document, question: Question, way: Way) -> list[AddLane]:
    """What a method works on."""
    return _lanes(document, question, way.lanes(question))


def _lanes(document: Document, question: Question, sides: list[tuple[str, str]]) -> list[AddLane]:
    if question.unknown in question.definitions or len(document.lanes) + len(sides) > MAX_LANES:
        return []
    scope = scope_of(document.lanes)
    taken = {*scope.functions, *scope.values, question.unknown}
    found = []
    for word, text in sides:
        numbered = (f"{word}_{k}" for k in range(1, MAX_LANES + 2))
        name = next(n for n in (word, *numbered) if n not in taken)
        line = f"{name}({question.unknown}) = {text}"
        found.append(AddLane(text=line, id=f"solve{word}"[:12]))
    return found
