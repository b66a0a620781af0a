"""A sheet of paper measured in pixels from its upper left corner, on which Matplotlib draws."""

from __future__ import annotations

import io
import logging
import math
from collections.abc import Mapping, Sequence
from pathlib import Path as File
from threading import Lock
from typing import Any

import matplotlib as mpl
import numpy as np
from matplotlib import font_manager
from matplotlib.backends.backend_agg import FigureCanvasAgg
from matplotlib.backends.backend_pdf import PdfPages
from matplotlib.figure import Figure
from matplotlib.mathtext import MathTextParser
from matplotlib.patches import PathPatch
from matplotlib.path import Path
from matplotlib.patheffects import withStroke
from matplotlib.textpath import TextPath
from numpy.typing import NDArray

from axispath.core import catalogue
from axispath.core.language.latex import latex_statement
from axispath.core.language.plain import fair, plain_statement
from axispath.core.language.tree import Statement
from axispath.core.sheet.palette import LIGHT, Palette
from axispath.exchange.picture.sizes import INCH

POINTS = 72 / INCH
FONTS = sorted((File(__file__).parents[1] / "fonts").glob("*.ttf"))
FACE = "Atkinson Hyperlegible"
# What KaTeX reads and Matplotlib does not.
SIGNS = {r"\le ": r"\leq ", r"\ge ": r"\geq ", r"\ne ": r"\neq ", r"\lvert": "|", r"\rvert": "|"}
Floats = NDArray[np.floating[Any]]

# It remarks on the date inside every font file that it embeds.
logging.getLogger("fontTools").setLevel(logging.ERROR)
for _font in FONTS:
    font_manager.fontManager.addfont(str(_font))
mpl.rcParams |= {
    "font.family": [FACE, "DejaVu Sans"],  # the second has the signs that the first lacks
    "mathtext.fontset": "cm",
    "svg.fonttype": "path",
    "pdf.fonttype": 42,
    "path.simplify": False,
    "agg.path.chunksize": 20_000,
    "svg.hashsalt": "axis path",
}
# Matplotlib's text layout keeps state that two threads must not share.
drawing = Lock()
_mathematics = MathTextParser("path")


class Paper:
    """One picture in the making. Lengths are pixels; y runs down, as on the screen."""

    def __init__(
        self, width: int, height: int, palette: Palette = LIGHT, clear: bool = False
    ) -> None:
        ground = "none" if clear else palette.ground
        figure = Figure(figsize=(width / INCH, height / INCH), dpi=INCH, facecolor=ground)
        FigureCanvasAgg(figure)
        self._on(figure, (0.0, 0.0, 1.0, 1.0), width, height, palette)

    def part(self, left: float, top: float, width: int, height: int) -> Paper:
        """A paper that is a part of this one."""
        across, down = self.size
        found = Paper.__new__(Paper)
        place = (left / across, 1 - (top + height) / down, width / across, height / down)
        found._on(self._figure, place, width, height, self.palette)
        return found

    def _on(
        self,
        figure: Figure,
        place: tuple[float, float, float, float],
        width: int,
        height: int,
        palette: Palette,
    ) -> None:
        self.size = (width, height)
        self.palette = palette
        self._figure = figure
        self._axes = figure.add_axes(place)
        self._axes.set_axis_off()
        self._axes.set_xlim(0, width)
        self._axes.set_ylim(height, 0)
        self._order = 0
        self.clip: PathPatch | None = None

    def _place(self, artist: Any) -> Any:
        self._order += 1
        artist.set_zorder(self._order)
        if self.clip is not None:
            artist.set_clip_path(self.clip)
        return artist

    def clipped_to(self, left: float, top: float, width: float, height: float) -> None:
        """From here on nothing is drawn outside this rectangle."""
        box = Path(
            [(left, top), (left + width, top), (left + width, top + height), (left, top + height)],
            closed=False,
        )
        self.clip = PathPatch(box, transform=self._axes.transData)

    def line(
        self,
        points: Floats,
        colour: str,
        width: float = 1.0,
        dash: Sequence[float] = (),
        **more: Any,
    ) -> None:
        """A line through points, shape (n, 2); a row of NaN lifts the pen."""
        style = (0, tuple(length / width for length in dash)) if dash else "-"
        more = {"linestyle": style, "solid_capstyle": "round", "solid_joinstyle": "round"} | more
        (drawn,) = self._axes.plot(
            points[:, 0], points[:, 1], color=colour, linewidth=width * POINTS, **more
        )
        self._place(drawn)

    def shape(
        self,
        path: Path,
        fill: str = "none",
        stroke: str = "none",
        width: float = 1.0,
        alpha: float = 1.0,
    ) -> None:
        """An outline, filled or not."""
        patch = PathPatch(path, facecolor=fill, edgecolor=stroke, lw=width * POINTS, alpha=alpha)
        self._axes.add_patch(self._place(patch))

    def hatch(self, area: Path, colour: str, angle: float, look: Mapping[str, Any]) -> None:
        """Lines through an area at an angle in degrees."""
        turn = math.radians(angle)
        box = area.get_extents()
        size = math.hypot(box.x1, box.y1)
        rows = []
        for at in np.arange(-size, size, look["gap"]):
            x, y = math.sin(turn) * at, math.cos(turn) * at
            along, aside = math.cos(turn) * size, math.sin(turn) * size
            rows += [[x - along, y + aside], [x + along, y - aside], [math.nan, math.nan]]
        points = np.array(rows)
        (drawn,) = self._axes.plot(
            points[:, 0],
            points[:, 1],
            color=colour,
            linewidth=look["width"] * POINTS,
            alpha=look["alpha"] * 0.5,
        )
        self._place(drawn)
        drawn.set_clip_path(area, self._axes.transData)

    def text(
        self,
        x: float,
        y: float,
        words: str,
        colour: str,
        size: float = 12.0,
        halo: str = "",
        **more: Any,
    ) -> None:
        """Text at a place; ``more`` is Matplotlib's (ha, va, weight, style)."""
        more = {"va": "center", "ha": "center"} | more
        drawn = self._axes.text(x, y, words, color=colour, fontsize=size * POINTS, **more)
        if halo:
            drawn.set_path_effects([withStroke(linewidth=4 * POINTS, foreground=halo)])
        self._place(drawn)

    @staticmethod
    def width_of(words: str, size: float, **more: Any) -> float:
        """How wide text will be."""
        if not words:
            return 0.0
        font = font_manager.FontProperties(family=[FACE, "DejaVu Sans"], **more)
        return float(TextPath((0, 0), words, size=size, prop=font).get_extents().width)

    def saved(self, kind: str, scale: float = 1.0) -> bytes:
        """The picture as a file of a kind in FORMATS; ``scale`` is the sharpness of a PNG."""
        out = io.BytesIO()
        date = {} if kind == "png" else {"CreationDate" if kind == "pdf" else "Date": None}
        maker = {"Software" if kind == "png" else "Creator": "Axis Path"}
        dpi = INCH * scale if kind == "png" else INCH
        self._figure.savefig(out, format=kind, dpi=dpi, metadata={**date, **maker})
        return out.getvalue()

    def put_into(self, book: PdfPages) -> None:
        """The picture as the next page of a book."""
        book.savefig(self._figure)  # type: ignore[no-untyped-call]


LONGEST = 400  # signs of LaTeX that are typeset: about a line across the picture
PLAIN = 90  # signs of a longer one, as plain text


def typeset(statement: Statement, name: str | None = None) -> str:
    """A statement between dollar signs; in plain words where that cannot be typeset here.

    A statement longer than a line is given by its beginning, so that the time it takes is bounded.
    """
    latex = latex_statement(statement, catalogue.VOCABULARY, name)
    if len(latex) > LONGEST:
        plain = plain_statement(statement, catalogue.VOCABULARY)
        return plain_words(fair(plain if len(plain) <= PLAIN else f"{plain[: PLAIN - 2]} …"))
    found = mathematics(latex)
    if found is None:
        plain = plain_statement(statement, catalogue.VOCABULARY)
        return plain_words(fair(plain))
    return f"${found[0]}$"


def mathematics(latex: str, size: float = 12.0) -> tuple[str, float, float] | None:
    """LaTeX as it is typeset here, its width and its height in pixels; None where it is not."""
    for katex, here in SIGNS.items():
        latex = latex.replace(katex, here)
    try:
        found = _mathematics.parse(
            f"${latex}$", dpi=72, prop=font_manager.FontProperties(size=size)
        )
    except (ValueError, RuntimeError):
        return None
    return latex, float(found[0]), float(found[1] + found[2])


def plain_words(text: str) -> str:
    """Words in which no sign means mathematics."""
    return text.replace("$", r"\$")
