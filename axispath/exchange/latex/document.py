"""A sheet as one LaTeX file that compiles by itself."""

from __future__ import annotations

from collections.abc import Iterator

from axispath.core import catalogue
from axispath.core.language.latex import latex_statement
from axispath.core.language.numbers import decimal
from axispath.core.path.called import CERTAINTY, KIND_NAMES
from axispath.core.path.survey import survey
from axispath.core.search.landmark import Landmark
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import resolve
from axispath.core.table.columns import heads
from axispath.core.table.rows import TableRefused, places
from axispath.core.table.values import column
from axispath.exchange.latex.figure import figure
from axispath.exchange.latex.text import text

MOST_ROWS = 200
HEAD = r"""\documentclass{article}
\usepackage{fontspec}
\usepackage{amsmath,amssymb,booktabs,longtable,xcolor}
\usepackage{pgfplots}
\pgfplotsset{compat=1.16}
% Compile with LuaLaTeX or XeLaTeX.
"""


def latex_document(document: Document) -> bytes:
    """Formulas, the figure, landmarks and tables."""
    parts = [
        HEAD + rf"\title{{{text(document.name)}}}" + "\n\\date{}",
        "\\begin{document}\n\\maketitle",
        *_formulas(document),
        r"\section*{Figure}" + "\n" + figure(document),
        *_landmarks(document),
        *_tables(document),
        r"\end{document}",
    ]
    return ("\n\n".join(parts) + "\n").encode()


def _formulas(document: Document) -> Iterator[str]:
    lines = []
    for lane in resolve(document):
        note = rf" \quad\text{{{text(lane.lane.note)}}}" if lane.lane.note else ""
        if lane.lane.block is not None or lane.lane.data is not None:
            continue
        if lane.written is None or lane.error is not None:
            lines.append(rf"\[ \text{{{text(lane.lane.text)}}} \]")
            lines.append(f"% not understood: {' '.join(lane.lane.text.split())}")
            continue
        formula = latex_statement(lane.written, catalogue.VOCABULARY, lane.name)
        lines.append(rf"\[ {formula}{note} \]")
    if lines:
        yield "\\section*{Formulas}\n" + "\n".join(lines)


def _landmarks(document: Document) -> Iterator[str]:
    found = survey(document)
    rows = [
        rf"{text(name)} & {text(KIND_NAMES[mark.kind])} & {_numbers(mark, document.digits)} & "
        rf"{text(CERTAINTY[mark.certainty])} \\"
        for name, path in found.named
        for mark in path.landmarks
    ]
    if rows:
        head = r"function & kind & $x$ & $y$ & how sure \\ \midrule \endhead"
        yield _table("Landmarks", "llrrl", head, rows)


def _numbers(mark: Landmark, digits: int) -> str:
    shown = (decimal(v, digits) if v == v and abs(v) < 1e300 else "" for v in (mark.x, mark.y))
    return " & ".join(text(one) for one in shown)


def _tables(document: Document) -> Iterator[str]:
    for number, table in enumerate(document.tables, 1):
        if table.by == "points":
            continue
        try:
            x = places(document, table)[:MOST_ROWS]
            columns = [head for head in heads(document, table) if head.source is not None]
        except TableRefused:
            continue
        if not columns or not len(x):
            continue
        values = [column(head.source, x) for head in columns if head.source is not None]
        rows = [
            " & ".join(
                [text(decimal(float(place), document.digits))]
                + [text(one.shown(k, document.digits)) for one in values]
            )
            + r" \\"
            for k, place in enumerate(x)
        ]
        titles = " & ".join([f"${table.variable}$", *(text(head.text) for head in columns)])
        head = titles + r" \\ \midrule \endhead"
        yield _table(f"Table {number}", "r" * (len(columns) + 1), head, rows)


def _table(title: str, columns: str, head: str, rows: list[str]) -> str:
    inside = "\n".join([head, *rows])
    return f"\\section*{{{title}}}\n\\begin{{longtable}}{{{columns}}}\n{inside}\n\\end{{longtable}}"
