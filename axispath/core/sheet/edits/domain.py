"""The edit of a function's domain."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from axispath.core import catalogue
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.plain import plain
from axispath.core.language.statement import parse_expression
from axispath.core.language.tree import Expression, FunctionStatement
from axispath.core.sheet.curve import end_text, range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits.change import LaneChange, refused
from axispath.core.sheet.edits.lines import revised
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import scope_of, vocabulary_of


class SetDomain(LaneChange):
    """Ends of a lane's domain as typed; an empty text removes an end, None leaves it."""

    do: Literal["set domain"] = "set domain"
    low: Annotated[str, Field(max_length=200)] | None = None
    high: Annotated[str, Field(max_length=200)] | None = None

    def applied(self, document: Document) -> Document:
        lane = self.lane(document)
        resolved = resolve(document).lane(lane.id)
        statement = resolved.statement if resolved else None
        if not isinstance(statement, FunctionStatement) or len(statement.parameters) != 1:
            raise EditRefused("Only a function of one variable has a domain.")
        assert resolved is not None
        domain = resolved.typed_domain
        low = _new_end(document, self.low, domain.low if domain else None)
        high = _new_end(document, self.high, domain.high if domain else None)
        if statement.curve and (low or high) and (self.low or self.high):
            # The other end of a range stays where it is, and does not follow this one.
            span = range_of(resolved)
            low, high = low or end_text(span.low), high or end_text(span.high)
        text = _domain_text(
            statement.parameters[0],
            (low, domain.low_closed if domain and domain.low else True),
            (high, domain.high_closed if domain and domain.high else True),
        )
        return revised(document, lane, lane.text[: statement.body_end].rstrip() + text)

    def words(self, document: Document) -> str:
        return f"the domain of {self.called(document)}"


def _new_end(document: Document, typed: str | None, before: Expression | None) -> str:
    return plain_end(before) if typed is None else _checked_end(document, typed)


def plain_end(end: Expression | None) -> str:
    """An end of a domain as one-line text; empty where there is none."""
    return plain(end, catalogue.VOCABULARY) if end is not None else ""


def _checked_end(document: Document, typed: str) -> str:
    text = typed.strip()
    if not text or text in ("∞", "-∞", "−∞"):
        return ""
    try:
        text = written(text)
        words = vocabulary_of(False, document.axes.measured)
        parse_expression(text, replace(scope_of(document.lanes), vocabulary=words))
    except LanguageError as error:
        raise refused(error) from error
    return text


def _domain_text(variable: str, low: tuple[str, bool], high: tuple[str, bool]) -> str:
    (start, low_closed), (stop, high_closed) = low, high
    below, under = "<=" if low_closed else "<", "<=" if high_closed else "<"
    if start and stop:
        return f" for {start} {below} {variable} {under} {stop}"
    if start:
        return f" for {variable} {'>=' if low_closed else '>'} {start}"
    return f" for {variable} {under} {stop}" if stop else ""
