"""Results to take along: as LaTeX, and as rows for a spreadsheet."""

from __future__ import annotations

from axispath.core import catalogue
from axispath.core.language.latex import latex
from axispath.core.language.numbers import MINUS
from axispath.core.table.results.result import Cell, Result

SEPARATED = r",\ "


def as_latex(result: Result) -> str:
    """A result in LaTeX."""
    if result.formula is not None:
        return latex(result.formula, catalogue.VOCABULARY)
    if result.parts:
        return SEPARATED.join(f"{name} = {as_latex(part)}" for name, part in result.parts)
    if result.kind == "matrix":
        rows = r" \\ ".join(" & ".join(map(latex_of, row)) for row in result.cells)
        return rf"\begin{{bmatrix}} {rows} \end{{bmatrix}}"
    if result.kind == "list":
        inner = SEPARATED.join(latex_of(cell) for row in result.cells for cell in row)
        return rf"\left[{inner}\right]"
    return latex_of(result.cells[0][0]) if result.cells else ""


def latex_of(cell: Cell) -> str:
    """One number in LaTeX."""
    return cell.latex or cell.shown.replace(MINUS, "-")


def as_csv(result: Result) -> str:
    """The decimals of a result, a row on each line."""
    return "\n".join(",".join(_field(cell) for cell in row) for row in result.cells)


def _field(cell: Cell) -> str:
    text = cell.full.replace(MINUS, "-")
    return f'"{text}"' if "," in text else text
