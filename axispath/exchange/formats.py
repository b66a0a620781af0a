"""The formats that a sheet can be taken away in: one entry each. Loads nothing that draws."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from axispath.core.sheet.document import Document

Make = Callable[[Document], bytes]


@dataclass(frozen=True, slots=True)
class Format:
    """A format: its ending, what it is called, its media type, and in a few words what it is for.

    ``make`` writes a sheet; without it the format is a picture of the plot as it is seen, which
    has ``pixels`` or not.
    """

    name: str
    title: str
    media: str
    words: str
    suffix: str = ""
    pixels: bool = False
    make: Make | None = None

    @property
    def ending(self) -> str:
        """What the name of a file ends in."""
        return self.suffix or self.name


def _sheet(document: Document) -> bytes:
    from axispath.exchange.sheets.file import sheet_file

    return sheet_file(document)


def _script(document: Document) -> bytes:
    from axispath.exchange.script.written import script

    return script(document)


def _notebook(document: Document) -> bytes:
    from axispath.exchange.script.written import notebook

    return notebook(document)


def _latex(document: Document) -> bytes:
    from axispath.exchange.latex.document import latex_document

    return latex_document(document)


def _workbook(document: Document) -> bytes:
    from axispath.exchange.workbook import workbook

    return workbook(document)


_XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
PICTURES = (
    Format("png", "PNG picture", "image/png", "for a page or a slide", pixels=True),
    Format("svg", "SVG drawing", "image/svg+xml", "sharp at any size, to be worked on"),
    Format("pdf", "PDF page", "application/pdf", "to print"),
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
        *("latex", "LaTeX", "application/x-tex", "formulas, landmarks, tables and the figure"),
        suffix="tex",
        make=_latex,
    ),
    Format(
        *("workbook", "spreadsheet", _XLSX, "tables, landmarks and data"),
        suffix="xlsx",
        make=_workbook,
    ),
)
FORMATS = {found.name: found for found in (*PICTURES, *WHOLE)}
