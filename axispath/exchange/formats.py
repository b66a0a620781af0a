"""The formats that a sheet can be taken away in: one entry each. Loads nothing that draws."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import dataclass

from axispath.core.sheet.document import Document
from axispath.exchange.picture.sizes import USUAL, Size

Make = Callable[[Document, Collection[str]], bytes]
PARTS = {
    "plot": "plot",
    "formulas": "formulas",
    "landmarks": "Landmarks",
    "values": "Values",
    "solve": "Solve",
    "data": "Data",
    "working": "Working",
    "questions": "Questions",
}
"""The parts of a sheet that can be chosen, as they are called on the page."""


@dataclass(frozen=True, slots=True)
class Format:
    """A format: its ending, what it is called, its media type, and in a few words what it is for.

    ``make`` writes a sheet, or the chosen PARTS of one where it has ``parts``; without it the
    format is a picture of the plot as it is seen, which has ``pixels`` or not.
    """

    name: str
    title: str
    media: str
    words: str
    suffix: str = ""
    pixels: bool = False
    parts: bool = False
    make: Make | None = None

    @property
    def ending(self) -> str:
        """What the name of a file ends in."""
        return self.suffix or self.name


def _sheet(document: Document, _: Collection[str]) -> bytes:
    from axispath.exchange.sheets.file import sheet_file

    return sheet_file(document)


def _script(document: Document, _: Collection[str]) -> bytes:
    from axispath.exchange.script.written import script

    return script(document)


def _notebook(document: Document, _: Collection[str]) -> bytes:
    from axispath.exchange.script.written import notebook

    return notebook(document)


def _latex(document: Document, chosen: Collection[str]) -> bytes:
    from axispath.exchange.latex.document import latex_document

    return latex_document(document, chosen)


def _paper(document: Document, chosen: Collection[str]) -> bytes:
    from axispath.exchange.paper.sheet import printed

    return printed(document, chosen)


def _workbook(document: Document, _: Collection[str]) -> bytes:
    from axispath.exchange.workbook import workbook

    return workbook(document)


_XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
PICTURES = (
    Format("png", "PNG picture", "image/png", "for a page or a slide", pixels=True),
    Format("svg", "SVG drawing", "image/svg+xml", "sharp at any size, to be worked on"),
    Format("pdf", "PDF drawing", "application/pdf", "to print, or to put into a text"),
)
WHOLE = (
    Format(
        *("sheet", "the sheet itself", "application/json", "to keep, and to bring back whole"),
        suffix="json",
        make=_sheet,
    ),
    Format(
        *(
            "notebook",
            "notebook",
            "application/x-ipynb+json",
            "that computes it again, step by step",
        ),
        suffix="ipynb",
        make=_notebook,
    ),
    Format(
        *("script", "Python script", "text/x-python", "that computes it again in one go"),
        suffix="py",
        make=_script,
    ),
    Format(
        *("paper", "PDF of the sheet", "application/pdf", "on pages to print"),
        suffix="pdf",
        parts=True,
        make=_paper,
    ),
    Format(
        *("latex", "LaTeX", "application/x-tex", "its source, with the figure to be worked on"),
        suffix="tex",
        parts=True,
        make=_latex,
    ),
    Format(
        *("workbook", "spreadsheet", _XLSX, "tables, landmarks and data"),
        suffix="xlsx",
        make=_workbook,
    ),
)
FORMATS = {found.name: found for found in (*PICTURES, *WHOLE)}


@dataclass(frozen=True, slots=True)
class Choice:
    """How a sheet is written: what of it, and how large and in which theme a picture is."""

    parts: tuple[str, ...] = tuple(PARTS)
    size: Size = USUAL
    theme: str = "light"
    clear: bool = False


def made(document: Document, wanted: Format, choice: Choice) -> bytes:
    """A sheet in a format. Raises EditRefused where a size is out of bounds."""
    if wanted.make is not None:
        return wanted.make(document, choice.parts)
    from axispath.exchange.picture.draw import picture
    from axispath.exchange.picture.seen import Seen

    width, height, scale = choice.size
    seen = Seen(document, width, height)
    return picture(seen, wanted.name, scale, choice.theme, choice.clear)
