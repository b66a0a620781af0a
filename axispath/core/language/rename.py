"""Another name for something, wherever a line uses it."""

from __future__ import annotations

from collections.abc import Iterable

from axispath.core.language.tree import Expression, RelationStatement, Statement
from axispath.core.language.walking import free_names

Place = tuple[int, int]


def renamed(text: str, statement: Statement, old: str, new: str) -> str:
    """The line with ``old`` replaced by ``new`` where it means the sheet's ``old``."""
    body = statement.written if isinstance(statement, RelationStatement) else statement.body
    places = set(_places(body, old)) if old not in statement.parameters else set()
    if statement.domain:
        for end in (statement.domain.low, statement.domain.high):
            places |= set(_places(end, old)) if end is not None else set()
    return _replaced(text, places, old, new)


def renamed_in(text: str, parts: Iterable[Expression], old: str, new: str) -> str:
    """The same in a text of which several expressions were read."""
    return _replaced(text, {place for part in parts for place in _places(part, old)}, old, new)


def _places(root: Expression, old: str) -> list[Place]:
    found = [node.place for node in free_names(root) if node.name == old]
    return [place for place in found if place[1] > place[0]]


def _replaced(text: str, places: set[Place], old: str, new: str) -> str:
    for start, end in sorted(places, reverse=True):
        before, after = text[:start], text[end:]
        # Where a point stands itself, its coordinate is meant: P for P_x.
        word = new if text[start:end] == old else new.rpartition("_")[0] or new
        gap_before = " " if before[-1:].isalnum() else ""
        gap_after = " " if after[:1].isalnum() else ""
        text = f"{before}{gap_before}{word}{gap_after}{after}"
    return text
