"""The equations of the page Solve with their answers, as parts of a report."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from axispath.core import catalogue
from axispath.core.language.latex import latex_statement
from axispath.core.language.numbers import decimal
from axispath.core.language.tree import RelationStatement
from axispath.core.path.called import CERTAINTY
from axispath.core.path.labels import shown_x, shown_y
from axispath.core.path.lanes import Effort
from axispath.core.search.landmark import Landmark
from axispath.core.sheet.document import Document, Equation
from axispath.core.sheet.ends import typed_interval
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.answer import THOROUGH, answer
from axispath.core.solve.largest import largest
from axispath.core.solve.meet import met
from axispath.core.solve.question import ask
from axispath.core.solve.several import (
    extreme_words,
    fraction_shown,
    meeting_words,
    system_words,
)
from axispath.core.solve.system import solve_system
from axispath.core.solve.words import verdict
from axispath.exchange.report.blocks import Block, Formula, Grid, Words

MOST = 200  # solutions of one equation


def solved(document: Document, equation: Equation, effort: Effort = THOROUGH) -> Iterator[Block]:
    """An equation, what is said of it, and its solutions."""
    try:
        yield from _solved(document, equation, effort)
    except EditRefused as refused:
        yield Formula(equation.text)
        yield Words(str(refused))


def _solved(document: Document, equation: Equation, effort: Effort) -> Iterator[Block]:
    digits, text = document.digits, equation.text
    meeting = met(document, text, effort)
    if meeting is not None:
        names = f"{meeting.first.name} and {meeting.second.name}"
        yield Formula(text)
        yield Words(" ".join(meeting_words(names, meeting.path, False)))
        yield from _places(meeting.path.landmarks, digits)
        return
    extreme = largest(document, text)
    if extreme is not None:
        value = "" if extreme.value is None else fraction_shown(extreme.value, digits)
        yield Formula(text)
        yield Words(" ".join(extreme_words(extreme, value)))
        corners = [
            (fraction_shown(x, digits), fraction_shown(y, digits)) for x, y in extreme.places
        ]
        if corners:
            yield Grid("", ("x", "y"), tuple(corners))
        return
    system = solve_system(document, text, effort)
    if system is not None:
        yield Formula(text)
        yield Words(" ".join(system_words(system.path, False)))
        yield from _places(system.path.landmarks, digits)
        return
    question = ask(document, text, equation.unknown)
    found = answer(question, *typed_interval(document, equation.low, equation.high), effort)
    shown = latex_statement(RelationStatement(question.comparison), catalogue.VOCABULARY)
    yield Formula(text, shown)
    yield Words(" ".join(verdict(question, found, digits)))
    rows = [
        (
            shown_x(one.mark, digits),
            CERTAINTY[one.mark.certainty],
            decimal(one.residual, 2) if one.residual else "0",
        )
        for one in found.solutions[:MOST]
    ]
    if rows:
        heads = (question.unknown, "how sure", "sides apart by")
        yield Grid("", heads, tuple(rows), more=len(found.solutions) - len(rows))


def _places(marks: Sequence[Landmark], digits: int) -> Iterator[Grid]:
    rows = [
        (shown_x(mark, digits), shown_y(mark, digits), CERTAINTY[mark.certainty])
        for mark in marks[:MOST]
    ]
    if rows:
        yield Grid("", ("x", "y", "how sure"), tuple(rows), more=len(marks) - len(rows))
