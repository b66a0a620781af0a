"""Landmarks of thirty figures, and a redraw while a frequency slider moves."""

from __future__ import annotations

import statistics

import numpy as np

from axispath.core.path.curves.search import find_curve
from axispath.core.sampling.kinds import drawn
from axispath.core.sampling.view import Frame
from axispath.core.sheet.curve import curve_of, range_of, slopes_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, Slide, apply
from axispath.core.sheet.resolve import ResolvedLane, resolve
from bench.timing import median

FIGURES = (
    *(
        "(cos t, sin t)",
        "(cos 5t, sin 3t)",
        "(cos 3t, sin 2t)",
        "(sin 5t, cos 4t)",
        "(sin t, sin 2t)",
    ),
    *("(cos 7t, sin 5t)", "(cos^3 t, sin^3 t)", "(t - sin t, 1 - cos t)", "(t^2 - 1, t^3 - t)"),
    *(
        "(t, t^2)",
        "(t^2, t^3)",
        "(2cos t - cos 2t, 2sin t - sin 2t)",
        "(3t/(1 + t^3), 3t^2/(1 + t^3))",
    ),
    *(
        "(3cos t + cos 3t, 3sin t - sin 3t)",
        "(t cos t, t sin t)",
        "(e^(-t/5) cos t, e^(-t/5) sin t)",
    ),
    "(cos t/(1 + sin^2 t), sin t cos t/(1 + sin^2 t))",
    "(16sin^3 t, 13cos t - 5cos 2t - 2cos 3t - cos 4t)",
    *(
        "(5cos t - cos 5t, 5sin t - sin 5t)",
        "(t/3 - 4, sin t) for 0 <= t <= 8π",
        "(sin(t/5), cos t)",
    ),
    *(
        "r = 1 + cos θ",
        "r = 1 + 2cos θ",
        "r = 2cos 3θ",
        "r = 2sin 2θ",
        "r = 1 + 2cos(3θ)",
        "r = θ/3",
    ),
    *("r = 2 + sin 5θ", "r = sin(θ/3)", "r = 1/(2 + cos θ)"),
)
FRAME = Frame(-4, 4, -3, 3, 900, 600)


def _lane(line: str) -> ResolvedLane:
    return resolve(apply(Document(), AddLane(text=line))).lanes[0]


def report() -> None:
    """Print how long the landmarks of each figure take, and a redraw."""
    print(f"landmarks of {len(FIGURES)} figures with crossings, proved (wanted: median ≤ 60 ms)")
    times, settled, marks = [], 0, 0
    for line in FIGURES:
        lane = _lane(line)
        curve, slopes, span = curve_of(lane), slopes_of(lane), range_of(lane)
        found = find_curve(curve, slopes, span, 20_000)
        took = median(lambda c=curve, s=slopes, r=span: find_curve(c, s, r, 20_000), 5)
        times.append(took)
        settled += found.complete
        marks += len(found.landmarks)
        print(f"  {took:7.1f} ms  {len(found.landmarks):4} {line}")
    ordered = sorted(times)
    print(
        f"median {statistics.median(times):.1f} ms, p95 {ordered[-2]:.1f} ms, ",
        end="",
    )
    print(f"{settled} of {len(FIGURES)} complete, {marks} landmarks")
    _redraw()


def _redraw() -> None:
    document = apply(Document(), AddLane(text="a = 3", id="a"))
    document = apply(document, AddLane(text="(cos(a t), sin(2 t)) for 0 <= t <= 2π", id="c"))
    values = iter(np.linspace(1, 9, 10_000))

    def once() -> None:
        moved = apply(document, Slide(id="a", value=float(next(values))))
        lane = resolve(moved).lane("c")
        assert lane is not None
        drawn(moved, lane, FRAME)

    print(f"redraw while the frequency moves: {median(once, 60):.2f} ms a frame")
