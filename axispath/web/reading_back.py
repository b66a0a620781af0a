"""How a line is read while it is typed."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace
from typing import Any

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.errors import LanguageError
from axispath.core.language.latex import latex_statement
from axispath.core.language.pasted import written
from axispath.core.language.readings import other_readings
from axispath.core.language.rename import renamed
from axispath.core.language.rewriting import Known, alternatives, rewritings
from axispath.core.language.scope import Scope
from axispath.core.language.spelling import nearest
from axispath.core.language.statement import read_line
from axispath.core.language.tree import Name, Statement
from axispath.core.language.walking import free_names
from axispath.core.sheet.angles import turns
from axispath.core.sheet.document import Document
from axispath.core.sheet.scopes import scope_of, vocabulary_of


def read_back(document: Document, text: str) -> dict[str, Any]:
    """The typeset line, other plausible readings, and a hint where something is unknown."""
    words = vocabulary_of(False, document.axes.measured)
    scope = replace(scope_of(document.lanes), vocabulary=words)
    try:
        line = written(text)
        statement = read_line(line, scope).statement
    except LanguageError as error:
        others = _rewritten(text, scope)
        return {"latex": "", "readings": others, "hint": "" if others else error.message}
    parameters = statement.parameters
    readings = [
        _reading(reading.taken, reading.other, scope)
        for reading in other_readings(line, scope.with_values(parameters))
    ]
    unknown = _unknown(statement, scope)
    readings += [
        _reading(f"{name} is not known", renamed(line, statement, name, near), scope)
        for name in unknown
        if (near := nearest(name, scope))
    ]
    if unknown:
        readings += _rewritten(text, scope)
    hint = " ".join(f"{name} has no value yet." for name in unknown)
    if document.unit is AngleUnit.DEGREE and turns(statement.body):
        hint = f"Angles are in degrees. {hint}".strip()
    typeset = latex_statement(statement, catalogue.VOCABULARY)
    return {"latex": typeset, "readings": readings, "hint": hint}


def _reading(taken: str, other: str, scope: Scope) -> dict[str, str]:
    """Another reading of a line, typeset where it can be read."""
    typeset = ""
    if other:
        with suppress(LanguageError):
            found = read_line(written(other), scope).statement
            typeset = latex_statement(found, catalogue.VOCABULARY)
    return {"taken": taken, "other": other, "latex": typeset}


def _rewritten(text: str, scope: Scope) -> list[dict[str, str]]:
    """A line that is written otherwise here, in all ways that it may be meant."""
    several = [one for one in alternatives(text) if _is_read(one, scope)]
    if several:
        return [_reading("It may be meant so", one, scope) for one in several]
    for other in rewritings(text, Known.of(scope)):
        if _is_read(other, scope):
            return [_reading("Here this is written otherwise", other, scope)]
    return []


def _is_read(text: str, scope: Scope) -> bool:
    """Whether a line is understood, and has no names that are not known."""
    try:
        return not _unknown(read_line(written(text), scope).statement, scope)
    except LanguageError:
        return False


def _unknown(statement: Statement, scope: Scope) -> list[str]:
    parameters = statement.parameters
    found = dict.fromkeys(
        node.name
        for node in free_names(statement.body)
        if isinstance(node, Name) and node.name not in parameters and not scope.knows(node.name)
    )
    return list(found)
