"""A sheet as one LaTeX file that compiles by itself."""

from __future__ import annotations

from collections.abc import Collection, Iterator

from axispath.core.sheet.document import Document
from axispath.exchange.formats import PARTS
from axispath.exchange.latex.figure import figure
from axispath.exchange.latex.text import text
from axispath.exchange.report.blocks import Block, Formula, Grid, Plot, Words
from axispath.exchange.report.sections import report

HEAD = r"""\documentclass{article}
\usepackage{fontspec}
\usepackage{amsmath,amssymb,booktabs,longtable,xcolor}
\usepackage{pgfplots}
\pgfplotsset{compat=1.16}
% Compile with LuaLaTeX or XeLaTeX.
"""


def latex_document(document: Document, chosen: Collection[str] = tuple(PARTS)) -> bytes:
    """The chosen parts of a sheet."""
    parts = [
        HEAD + rf"\title{{{text(document.name)}}}" + "\n\\date{}",
        "\\begin{document}\n\\maketitle",
    ]
    for part in report(document, chosen):
        parts.append(rf"\section*{{{text(part.title)}}}")
        parts += [line for block in part.blocks for line in _written(document, block)]
    return ("\n\n".join([*parts, r"\end{document}"]) + "\n").encode()


def _written(document: Document, block: Block) -> Iterator[str]:
    match block:
        case Plot():
            yield figure(document)
        case Words(words):
            yield text(words)
        case Formula(plain, "", _):
            yield f"{text(plain)}\n% this line is not understood: {' '.join(plain.split())}"
        case Formula(_, latex, note):
            beside = rf" \quad\text{{{text(note)}}}" if note else ""
            yield rf"\[ {latex}{beside} \]"
        case Grid():
            yield _table(block)


def _cell(words: str) -> str:
    """A cell. Behind the end of a row a bracket or a star would be taken for its argument."""
    return ("{}" if words[:1] in ("[", "*") else "") + text(words)


def _table(grid: Grid) -> str:
    columns = "l" * grid.left + "r" * (len(grid.heads) - grid.left)
    title = rf"\subsection*{{{text(grid.title)}}}" + "\n" if grid.title else ""
    rows = "\n".join(" & ".join(map(_cell, row)) + r" \\" for row in grid.rows)
    heads = " & ".join(map(text, grid.heads)) + r" \\ \midrule \endhead"
    more = f"\n\n{text(f'{grid.more} more rows are left out here.')}" if grid.more else ""
    inside = f"{heads}\n{rows}"
    return f"{title}\\begin{{longtable}}{{{columns}}}\n{inside}\n\\end{{longtable}}{more}"
