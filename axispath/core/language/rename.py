"""Another name for something, wherever a line uses it."""

from __future__ import annotations

from axispath.core.language.tree import FunctionStatement, Statement, free_names


def renamed(text: str, statement: Statement, old: str, new: str) -> str:
    """The line with ``old`` replaced by ``new`` where it means the sheet's ``old``."""
    parameters = getattr(statement, "parameters", ())
    places = set()
    roots = [statement.body]
    if isinstance(statement, FunctionStatement) and statement.domain:
        roots += [end for end in (statement.domain.low, statement.domain.high) if end]
    for root in roots:
        hidden = parameters if root is statement.body else ()
        for node in free_names(root):
            if node.name == old and old not in hidden and node.place[1] > node.place[0]:
                places.add(node.place)
    for start, end in sorted(places, reverse=True):
        before, after = text[:start], text[end:]
        gap_before = " " if before[-1:].isalnum() else ""
        gap_after = " " if after[:1].isalnum() else ""
        text = f"{before}{gap_before}{new}{gap_after}{after}"
    return text
