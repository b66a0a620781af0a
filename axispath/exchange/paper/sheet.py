"""A sheet with its desk pages as a PDF."""

from __future__ import annotations

from collections.abc import Collection

from axispath.core.sheet.document import Document
from axispath.exchange.formats import PARTS
from axispath.exchange.paper.flow import INSIDE, Flow, Full
from axispath.exchange.picture.draw import draw
from axispath.exchange.picture.seen import Seen
from axispath.exchange.picture.sheet_of_paper import drawing
from axispath.exchange.report.blocks import Block, Formula, Grid, Plot, Words
from axispath.exchange.report.sections import report

PLOT = 470  # pixels of the plot's height


def printed(document: Document, chosen: Collection[str] = tuple(PARTS)) -> bytes:
    """The chosen parts of a sheet on pages of A4; what is beyond the last is said there."""
    parts = list(report(document, chosen))
    with drawing:
        flow = Flow(document.name)
        flow.title(document.name)
        try:
            for part in parts:
                flow.heading(part.title)
                for block in part.blocks:
                    _put(flow, document, block)
        except Full:
            pass
        return flow.saved()


def _put(flow: Flow, document: Document, block: Block) -> None:
    match block:
        case Plot():
            paper = flow.plot(PLOT)
            draw(paper, Seen(document, INSIDE, PLOT))
        case Words(text):
            flow.words(text)
        case Formula(plain, latex, note, lane):
            flow.formula(latex, plain, lane, note)
        case Grid(title, heads, rows, left, more):
            flow.grid(title, heads, rows, left)
            if more:
                flow.words(f"{more} more rows are left out here.")
