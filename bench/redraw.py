"""The server's part of one redraw, against hand-written NumPy evaluating as many points."""

from __future__ import annotations

import itertools
import struct

import numpy as np
import orjson

from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import AddLane, Slide, apply
from axispath.core.sheet.resolve import resolve
from axispath.web.picture import encoded_picture, frame_of
from bench.timing import median

LINES = ("x^2 - x - 3", "2 sin(3x)", "e^(-x^2/4)", "x^3/20 - x", "ln(x^2 + 1) cos(2x)")
BY_HAND = (
    lambda x: x * x - x - 3,
    lambda x: 2 * np.sin(3 * x),
    lambda x: np.exp(-(x * x) / 4),
    lambda x: x**3 / 20 - x,
    lambda x: np.log(x * x + 1) * np.cos(2 * x),
)


def report() -> None:
    """Print the figures of a redraw of five lanes at 900 px."""
    document = apply(Document(), AddLane(text="a = 1", id="slider"))
    for line in LINES:
        document = apply(document, AddLane(text=f"a ({line})"))
    view = View()
    sheet = resolve(document)
    frame = frame_of(view, 900, 560)
    data = encoded_picture(document, sheet, frame)
    (length,) = struct.unpack_from("<I", data)
    counts = [
        lane["shapes"][-1]["at"][1] // 2 for lane in orjson.loads(data[4 : 4 + length])["lanes"]
    ]

    def by_hand() -> None:
        for function, count in zip(BY_HAND, counts, strict=True):
            x = np.linspace(view.left, view.right, count)
            y = (function(x) - view.bottom) / (view.top - view.bottom)
            np.stack([(x - view.left) / (view.right - view.left), y], 1).astype(
                np.float32
            ).tobytes()

    values = itertools.count(1)

    def moved() -> None:
        """A slider that all lanes use is somewhere else, so that nothing is known already."""
        now = apply(document, Slide(id="slider", value=1 + next(values) / 1000))
        encoded_picture(now, resolve(now), frame)

    ours = median(moved)
    plain = median(by_hand)
    print(f"redraw, 5 lanes, 900 px, {sum(counts)} points")
    print(f"  server            {ours:6.2f} ms   (budget 4 ms)")
    print(f"  NumPy by hand     {plain:6.2f} ms")
    print(f"  ratio             {ours / plain:6.1f} ×    (budget 2.5 ×)")
