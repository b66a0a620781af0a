"""Pages that are filled from top to bottom. Lengths are pixels, 100 to the inch, as in pictures."""

from __future__ import annotations

import io
import textwrap
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from matplotlib.backends.backend_pdf import PdfPages

from axispath.core.memory import remembered
from axispath.core.sheet.document import Lane
from axispath.core.sheet.palette import LIGHT, dash_of, width_of
from axispath.exchange.picture.sheet_of_paper import Paper, mathematics, plain_words

WIDTH, HEIGHT = 827, 1169  # A4 upright
EDGE, FOOT = 70, 40
INSIDE = WIDTH - 2 * EDGE
BOTTOM = HEIGHT - EDGE - FOOT
MOST_PAGES = 80
TEXT, SMALL, LINE = 13.0, 11.5, 19
SWATCH = 34
GAP = 22  # between columns
WHITE = replace(LIGHT, ground="#ffffff")


class Full(Exception):
    """There are as many pages as there may be."""


class Flow:
    """Pages in the making, and how far down the last is filled."""

    def __init__(self, name: str) -> None:
        self.name = name
        self.pages: list[Paper] = []
        self._turn()

    @property
    def paper(self) -> Paper:
        """The page that is being filled."""
        return self.pages[-1]

    def _turn(self) -> None:
        if len(self.pages) == MOST_PAGES:
            raise Full
        self.pages.append(Paper(WIDTH, HEIGHT, WHITE))
        self.y = float(EDGE)

    def room(self, height: float) -> bool:
        """Turn the page where there is no room for so much; says whether it was turned."""
        turned = self.y + height > BOTTOM and self.y > EDGE
        if turned:
            self._turn()
        return turned

    def title(self, words: str) -> None:
        """The name of the sheet."""
        for line in wrapped(words, INSIDE, 24.0):
            self.paper.text(EDGE, self.y + 14, line, LIGHT.ink, 24, ha="left", weight="bold")
            self.y += 34
        self.y += 6

    def heading(self, words: str) -> None:
        """The heading of a part, never alone at the foot of a page."""
        self.y += 14
        self.room(90)
        self.paper.text(EDGE, self.y + 10, words, LIGHT.curves[0], 17, ha="left", weight="bold")
        self.y += 22
        rule = np.array([[EDGE, self.y], [WIDTH - EDGE, self.y]])
        self.paper.line(rule, LIGHT.rule, 0.8)
        self.y += 10

    def words(self, text: str, colour: str = LIGHT.ink, indent: float = 0.0) -> None:
        """A sentence or more, broken into lines."""
        for line in wrapped(text, INSIDE - indent, TEXT):
            self.room(LINE)
            self.paper.text(EDGE + indent, self.y + LINE / 2, line, colour, TEXT, ha="left")
            self.y += LINE
        self.y += 4

    def formula(self, latex: str, plain: str, lane: Lane | None, note: str) -> None:
        """A typeset formula, or its plain line; before it the line that its curve is drawn with."""
        indent = SWATCH if lane is not None else 0
        found = mathematics(latex, TEXT + 2) if latex else None
        across = INSIDE - indent
        if found is None or found[1] > 2 * across:
            self.room(LINE + 6)
            self._swatch(lane, self.y + LINE / 2)
            self.words(plain, indent=indent)
        else:
            shown, wide, high = found
            shrunk = min(1.0, across / wide)
            tall = max(high * shrunk, LINE) + 8
            self.room(tall)
            middle = self.y + tall / 2
            self._swatch(lane, middle)
            place = EDGE + indent
            self.paper.text(place, middle, f"${shown}$", LIGHT.ink, (TEXT + 2) * shrunk, ha="left")
            self.y += tall
        if note:
            self.words(note, LIGHT.muted, indent)

    def _swatch(self, lane: Lane | None, y: float) -> None:
        if lane is not None and not lane.hidden:
            line = np.array([[EDGE, y], [EDGE + SWATCH - 10, y]])
            self.paper.line(line, LIGHT.colour_of(lane), width_of(lane), dash_of(lane))

    def plot(self, height: int) -> Paper:
        """Room for a picture across the page."""
        self.room(height)
        found = self.paper.part(EDGE, self.y, INSIDE, height)
        self.y += height + 8
        return found

    def grid(
        self, title: str, heads: Sequence[str], rows: Sequence[Sequence[str]], left: int
    ) -> None:
        """A table; one that is too wide comes in parts, each with the first column."""
        if title:
            self.y += 4
            self.room(3 * LINE)
            self.paper.text(
                EDGE, self.y + LINE / 2, title, LIGHT.ink, TEXT, ha="left", weight="bold"
            )
            self.y += LINE
        widths = [
            min(max(width(cell, SMALL) for cell in column), INSIDE / 2)
            for column in zip(heads, *rows, strict=True)
        ]
        for chosen in _parts(widths):
            self._columns(
                [[row[k] for k in chosen] for row in (heads, *rows)], left, chosen, widths
            )
        self.y += 6

    def _columns(
        self,
        rows: Sequence[Sequence[str]],
        left: int,
        chosen: Sequence[int],
        widths: Sequence[float],
    ) -> None:
        self.room(3 * LINE)
        self._row(rows[0], left, chosen, widths, head=True)
        for row in rows[1:]:
            if self.room(LINE):
                self._row(rows[0], left, chosen, widths, head=True)
            self._row(row, left, chosen, widths)

    def _row(
        self,
        row: Sequence[str],
        left: int,
        chosen: Sequence[int],
        widths: Sequence[float],
        head: bool = False,
    ) -> None:
        x, middle = float(EDGE), self.y + LINE / 2
        for k, cell in zip(chosen, row, strict=True):
            words = shortened(cell, widths[k], SMALL)
            way, place = ("left", x) if k < left else ("right", x + widths[k])
            colour = LIGHT.muted if head else LIGHT.ink
            self.paper.text(place, middle, plain_words(words), colour, SMALL, ha=way)
            x += widths[k] + GAP
        self.y += LINE
        if head:
            rule = np.array([[EDGE, self.y - 1], [x - GAP, self.y - 1]])
            self.paper.line(rule, LIGHT.rule, 0.8)

    def saved(self) -> bytes:
        """All pages, numbered, as a PDF."""
        count = len(self.pages)
        about = {"Title": self.name, "Creator": "Axis Path", "CreationDate": None}
        out = io.BytesIO()
        with PdfPages(out, metadata=about) as book:
            for number, page in enumerate(self.pages, 1):
                y = HEIGHT - EDGE
                name = plain_words(shortened(self.name, INSIDE - 120, SMALL))
                page.text(EDGE, y, name, LIGHT.muted, SMALL, ha="left")
                place = f"{number} of {count}"
                page.text(WIDTH - EDGE, y, place, LIGHT.muted, SMALL, ha="right")
                page.put_into(book)
        return out.getvalue()


def _parts(widths: Sequence[float]) -> list[list[int]]:
    """Columns that stand side by side: as many as the page is wide, the first always."""
    parts: list[list[int]] = [[0]]
    used = widths[0]
    for k in range(1, len(widths)):
        if used + GAP + widths[k] > INSIDE and len(parts[-1]) > 1:
            parts.append([0])
            used = widths[0]
        parts[-1].append(k)
        used += GAP + widths[k]
    return parts


@remembered(4096)
def _letter(sign: str, size: float) -> float:
    return Paper.width_of(plain_words(sign) * 8 if sign != " " else "n" * 4, size) / 8


def width(words: str, size: float) -> float:
    """About how wide words are: the sum of their letters."""
    return sum(_letter(sign, size) for sign in words) + 2


def shortened(words: str, room: float, size: float) -> str:
    """Words cut to a width."""
    if width(words, size) <= room + 1:
        return words
    kept = len(words)
    while kept > 1 and width(words[:kept] + " …", size) > room:
        kept -= 1
    return words[:kept] + " …"


def wrapped(words: str, room: float, size: float) -> list[str]:
    """Words in lines of a width, without signs of mathematics."""
    usual = max(width("n", size) - 2, 1.0)
    lines = textwrap.wrap(" ".join(words.split()), max(8, int(room / usual * 1.05)))
    return [plain_words(line) for line in lines]
