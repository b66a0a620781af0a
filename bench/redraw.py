"""The server's part of one redraw, against hand-written NumPy evaluating as many points."""

from __future__ import annotations

import itertools

import numpy as np

from axispath.core.sampling.curve import first_places
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.edits import AddLane, Slide, apply
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.states import States
from axispath.web.picture import encoded_frames, encoded_picture, frame_of
from bench.timing import median

LINES = ("x^2 - x - 3", "2 sin(3x)", "e^(-x^2/4)", "x^3/20 - x", "ln(x^2 + 1) cos(2x)")
BY_HAND = (
    lambda x: x * x - x - 3,
    lambda x: 2 * np.sin(3 * x),
    lambda x: np.exp(-(x * x) / 4),
    lambda x: x**3 / 20 - x,
    lambda x: np.log(x * x + 1) * np.cos(2 * x),
)


AT_ONCE = 32  # states in one request


def report() -> None:
    """Print the figures of a redraw of five lanes at 900 px, one by one and many at once."""
    document = apply(Document(), AddLane(text="a = 1", id="slider"))
    for line in LINES:
        document = apply(document, AddLane(text=f"a ({line})"))
    view = View()
    frame = frame_of(view, 900, 560)
    count = len(first_places(frame))  # that a lane is looked at, before any is looked at closer

    def by_hand() -> None:
        for function in BY_HAND:
            x = np.linspace(view.left, view.right, count)
            y = (function(x) - view.bottom) / (view.top - view.bottom)
            np.stack([(x - view.left) / (view.right - view.left), y], 1).astype(
                np.float32
            ).tobytes()

    values = itertools.count(1)

    def slide() -> Slide:
        """Somewhere else each time, so that nothing is known already."""
        return Slide(id="slider", value=1 + next(values) / 1000)

    def moved() -> None:
        now = apply(document, slide())
        encoded_picture(now, resolve(now), frame)

    def ahead() -> None:
        encoded_frames(States(document, [[slide()] for _ in range(AT_ONCE)]), frame)

    plain = median(by_hand)
    one, many = median(moved), median(ahead, 20) / AT_ONCE
    print(f"redraw, 5 lanes, 900 px, {5 * count} places looked at in each")
    print(f"  NumPy by hand       {plain:6.2f} ms")
    for name, ours in (("one by one", one), (f"{AT_ONCE} at once, each", many)):
        print(f"  {name:20s}{ours:6.2f} ms   (budget 4 ms), {ours / plain:5.1f} × (budget 4 ×)")
