"""How a line is read while it is typed."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.errors import LanguageError
from axispath.core.language.latex import latex_statement
from axispath.core.language.pasted import written
from axispath.core.language.readings import other_readings
from axispath.core.language.rename import renamed
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
        return {"latex": "", "readings": [], "hint": error.message}
    parameters = statement.parameters
    readings = [
        {"taken": reading.taken, "other": reading.other}
        for reading in other_readings(line, scope.with_values(parameters))
    ]
    unknown = _unknown(statement, scope)
    readings += [
        {"taken": f"{name} is not known", "other": renamed(line, statement, name, near)}
        for name in unknown
        if (near := nearest(name, scope))
    ]
    hint = " ".join(f"{name} has no value yet." for name in unknown)
    if document.unit is AngleUnit.DEGREE and turns(statement.body):
        hint = f"Angles are in degrees. {hint}".strip()
    typeset = latex_statement(statement, catalogue.VOCABULARY)
    return {"latex": typeset, "readings": readings, "hint": hint}


def _unknown(statement: Statement, scope: Scope) -> list[str]:
    parameters = statement.parameters
    found = dict.fromkeys(
        node.name
        for node in free_names(statement.body)
        if isinstance(node, Name) and node.name not in parameters and not scope.knows(node.name)
    )
    return list(found)
