"""Titles and labels: words, with mathematics between two dollar signs."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.language.errors import LanguageError
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_statement
from axispath.core.language.tree import Statement

MARK = "$"


@dataclass(frozen=True, slots=True)
class Part:
    """A piece of a caption: words, or a statement of the language."""

    text: str
    statement: Statement | None = None


def caption(text: str, scope: Scope) -> list[list[Part]]:
    """The lines of a caption. Mathematics that cannot be read stands as it was typed."""
    return [_line(line, scope) for line in text.splitlines() if line.strip()]


def _line(line: str, scope: Scope) -> list[Part]:
    pieces = line.split(MARK)
    if len(pieces) % 2 == 0:
        pieces[-2:] = [MARK.join(pieces[-2:])]  # a sign without its partner is a plain sign
    found = [_mathematics(p, scope) if k % 2 else Part(p) for k, p in enumerate(pieces)]
    return [part for part in found if part.text]


def _mathematics(text: str, scope: Scope) -> Part:
    try:
        return Part(text, parse_statement(text, scope))
    except LanguageError:
        return Part(text)
