"""The plot as a figure of PGFPlots, whose curves and words can be changed in the source."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from axispath.core.sampling.kinds import DRAWN
from axispath.core.sampling.primitives import Dots, Primitive, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.palette import LIGHT, width_of
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.exchange.latex.text import text

WIDTH, HEIGHT = 900, 600  # pixels that curves are sampled for
MOST_PLACES = 1_500  # along one line
THINNER = 0.4  # points of a line to one pixel of the page


def figure(document: Document) -> str:
    """A tikzpicture of the shown lanes in the view."""
    view, ground = document.view, document.ground
    frame = Frame(view.left, view.right, view.bottom, view.top, WIDTH, HEIGHT)
    lanes = resolve(document).shown(DRAWN)
    lanes = [lane for lane in lanes if lane.ready]
    labels = document.axis_labels
    options = [
        r"width=0.95\linewidth, height=0.63\linewidth",
        f"xmin={_number(view.left)}, xmax={_number(view.right)}",
        f"ymin={_number(view.bottom)}, ymax={_number(view.top)}",
        "axis lines=middle" if ground.axes == "origin" else "axis lines=left",
        f"xlabel={{{text(labels[0]) or '$x$'}}}, ylabel={{{text(labels[1]) or '$y$'}}}",
        "grid=none" if ground.grid == "none" else "grid=major",
        "unbounded coords=jump, filter discard warning=false",
    ]
    if ground.equal:
        options.append("axis equal image")
    if ground.title:
        options.append(f"title={{{text(ground.title)}}}")
    colours = [
        rf"\definecolor{{lane{k}}}{{HTML}}{{{LIGHT.colour_of(lane.lane)[1:].upper()}}}"
        for k, lane in enumerate(lanes)
    ]
    plots = [line for k, lane in enumerate(lanes) for line in _plots(document, lane, k, frame)]
    inside = ",\n  ".join(options)
    body = "\n".join([*colours, rf"\begin{{axis}}[{inside}]", *plots, r"\end{axis}"])
    return f"\\begin{{tikzpicture}}\n{body}\n\\end{{tikzpicture}}"


def _plots(document: Document, lane: ResolvedLane, k: int, frame: Frame) -> Iterator[str]:
    shapes = DRAWN[lane.kind.key](document, lane, frame)
    yield f"% {' '.join(lane.lane.text.split())}"
    named = False
    for shape in shapes:
        places = _places(shape, frame)
        if not places:
            continue
        points = "only marks, mark size=1.6pt" if isinstance(shape, Dots) else "no markers"
        faint = ", opacity=0.4" if getattr(shape, "faint", False) else ""
        width = f", line width={width_of(lane.lane) * THINNER:.2g}pt"
        forget = ", forget plot" if named else ""
        yield rf"\addplot[lane{k}, {points}{width}{faint}{forget}] coordinates {{"
        yield from places
        yield "};"
        if not named and lane.name:
            yield rf"\addlegendentry{{${text(lane.name)}$}}"
        named = True


def _places(shape: Primitive, frame: Frame) -> list[str]:
    """The places of a line or of points, eight on each line of the source."""
    if not isinstance(shape, Stroke | Dots) or not len(shape.rows):
        return []
    rows = np.asarray(shape.rows, dtype=np.float64)
    step = max(1, len(rows) // MOST_PLACES)
    if step > 1 and isinstance(shape, Stroke):
        kept = np.zeros(len(rows), dtype=bool)
        kept[::step] = True
        kept |= np.isnan(rows[:, 0])
        rows = rows[kept]
    x = frame.left + rows[:, 0] * (frame.right - frame.left)
    y = frame.bottom + rows[:, 1] * (frame.top - frame.bottom)
    pairs = [_pair(a, b) for a, b in zip(x.tolist(), y.tolist(), strict=True)]
    return [" ".join(pairs[i : i + 8]) for i in range(0, len(pairs), 8)]


def _pair(x: float, y: float) -> str:
    return "(nan,nan)" if x != x or y != y else f"({_number(x)},{_number(y)})"


def _number(value: float) -> str:
    return f"{value:.6g}"
