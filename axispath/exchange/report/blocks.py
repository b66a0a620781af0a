"""What a report is made of."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.sheet.document import Lane


@dataclass(frozen=True, slots=True)
class Words:
    """A sentence or more."""

    text: str


@dataclass(frozen=True, slots=True)
class Formula:
    """A formula in LaTeX and as it is typed; ``latex`` is empty where it was not understood.

    ``lane`` is the one whose curve it is, ``note`` what stands beside it.
    """

    plain: str
    latex: str = ""
    note: str = ""
    lane: Lane | None = None


@dataclass(frozen=True, slots=True)
class Grid:
    """A table as text; ``left`` is how many columns from the first are words."""

    title: str
    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    left: int = 0
    more: int = 0  # rows that are left out


@dataclass(frozen=True, slots=True)
class Plot:
    """The plot, as it is seen."""


Block = Words | Formula | Grid | Plot


@dataclass(frozen=True, slots=True)
class Part:
    """A part of a report."""

    title: str
    blocks: tuple[Block, ...]
