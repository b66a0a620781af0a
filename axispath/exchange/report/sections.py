"""The parts of a report: one entry each, named as on the page."""

from __future__ import annotations

import math
from collections.abc import Callable, Collection, Iterable, Iterator
from contextlib import suppress

from axispath.core import catalogue
from axispath.core.language.latex import latex_statement
from axispath.core.language.names import lowered
from axispath.core.language.numbers import decimal
from axispath.core.path.called import CERTAINTY, KIND_NAMES
from axispath.core.path.labels import shown_t, shown_x, shown_y
from axispath.core.path.survey import survey
from axispath.core.practice.kinds import sentence
from axispath.core.sampling.kinds import DRAWN
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.results.blocks import told
from axispath.core.table.results.copies import as_latex
from axispath.core.table.results.result import result_of
from axispath.exchange.formats import PARTS
from axispath.exchange.report.blocks import Block, Formula, Grid, Part, Plot, Words
from axispath.exchange.report.numbers import data_sets, tables_of_values
from axispath.exchange.report.solutions import solved

MOST_ROWS = 400  # of one table
WORDS = catalogue.VOCABULARY


def _plot(document: Document) -> Iterator[Block]:
    yield Plot()


def _formulas(document: Document) -> Iterator[Block]:
    for lane in resolve(document):
        if lane.lane.working or lane.lane.data is not None:
            continue
        yield _formula(lane)


def _formula(lane: ResolvedLane) -> Formula:
    text = " ".join(lane.lane.text.split())
    drawn = lane.lane if lane.can(DRAWN) and not lane.lane.hidden else None
    if lane.written is None or lane.error is not None:
        return Formula(text, "", lane.lane.note)
    shown = latex_statement(lane.written, WORDS, lane.name)
    return Formula(text, shown, lane.lane.note, drawn)


def _landmarks(document: Document) -> Iterator[Block]:
    found = survey(document)
    digits = document.digits
    rows = []
    for name, path in found.named:
        for mark in path.landmarks:
            place = shown_x(mark, digits), shown_y(mark, digits)
            along = shown_t(mark, "t", digits)
            kind = f"{KIND_NAMES[mark.kind]}, {along}" if along else KIND_NAMES[mark.kind]
            rows.append((lowered(name), kind, *place, CERTAINTY[mark.certainty]))
    if rows:
        yield _grid("", ("lane", "landmark", "x", "y", "how sure"), rows, left=2)
        yield Words(
            "Nothing missed: every landmark in the view is listed."
            if found.complete
            else "Others are covered."
            if document.cover.on
            else "Some stretches are not settled: there may be more."
        )


def _values(document: Document) -> Iterator[Block]:
    digits = document.digits
    tables = list(tables_of_values(document))
    for table in tables:
        title = f"Table {table.number}" if len(tables) > 1 else ""
        if table.refused:
            yield Words(f"{title or 'The table'}: {table.refused}")
            continue
        shown = range(min(len(table.x), MOST_ROWS))
        rows = [
            (
                decimal(float(table.x[k]), digits),
                *(one.shown(k, digits) for _, one in table.columns),
            )
            for k in shown
        ]
        if rows and table.columns:
            heads = (table.variable, *(head for head, _ in table.columns))
            more = len(table.x) - len(rows)
            yield Grid(title, heads, tuple(rows), more=more)


def _solutions(document: Document) -> Iterator[Block]:
    for equation in document.equations:
        yield from solved(document, equation)


def _data(document: Document) -> Iterator[Block]:
    digits = document.digits
    for one in data_sets(document):
        count = len(one.columns[0]) if one.columns else 0
        rows = [
            tuple("" if math.isnan(v[k]) else decimal(float(v[k]), digits) for v in one.columns)
            for k in range(min(count, MOST_ROWS))
        ]
        yield Grid(one.lane.name or "", one.heads, tuple(rows), more=count - len(rows))
    for lane in resolve(document):
        if lane.fitted is None:
            continue
        result = lane.fitted.result
        yield _formula(lane)
        rows = [
            (name, decimal(value, digits), decimal(error, 3) if math.isfinite(error) else "—")
            for name, value, error in zip(
                result.names, result.parameters, result.errors, strict=True
            )
        ]
        title = f"Fit {lane.name}" if lane.name else "Fit"
        yield _grid(title, ("parameter", "value", "standard error"), rows, left=1)


def _questions(document: Document) -> Iterator[Block]:
    """What is asked; the answers stand in no report."""
    for number, question in enumerate(document.questions, 1):
        with suppress(EditRefused):  # of a lane that is not there any more
            yield Words(f"{number}. {sentence(document, question)}")
            yield from (Words(f"– {option}") for option in question.options)
            if question.places:
                rows = tuple((place, "") for place in question.places)
                yield _grid("", ("x", "value"), rows)


def _working(document: Document) -> Iterator[Block]:
    sheet = resolve(document)
    for lane in sheet.working:
        line = _formula(lane)
        result = result_of(document, lane)
        if result.why:
            yield Formula(f"{line.plain}   ({result.why})", line.latex, result.why)
            continue
        if result.kind == "none":
            yield line
            continue
        shown = as_latex(result)
        if line.plain.endswith(result.text):
            yield line
            continue
        plain = f"{line.plain} = {result.text}"
        latex = f"{line.latex} = {shown}" if line.latex and shown else ""
        yield Formula(plain, latex, lane.lane.note)
    for lane in sheet.blocks:
        found = told(document, lane)
        for one in found.lines:
            yield Formula(one.text, one.latex)
        for text in found.text.splitlines():
            yield Words(text)


def _grid(
    title: str, heads: tuple[str, ...], rows: Iterable[tuple[str, ...]], left: int = 0
) -> Grid:
    """A table cut after so many rows."""
    found = list(rows)
    kept = tuple(found[:MOST_ROWS])
    return Grid(title, heads, kept, left, len(found) - len(kept))


MADE: dict[str, Callable[[Document], Iterator[Block]]] = {
    "plot": _plot,
    "formulas": _formulas,
    "landmarks": _landmarks,
    "values": _values,
    "solve": _solutions,
    "data": _data,
    "working": _working,
    "questions": _questions,
}
"""What makes each of the parts that can be chosen."""


def report(document: Document, chosen: Collection[str] = tuple(PARTS)) -> Iterator[Part]:
    """The chosen parts of a sheet that hold something."""
    for key, title in PARTS.items():
        if key in chosen:
            blocks = tuple(MADE[key](document))
            if blocks:
                yield Part(title[0].upper() + title[1:], blocks)
