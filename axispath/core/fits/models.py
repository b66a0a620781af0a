"""The register of the curves that can be fitted: their formulas, and where to begin the search."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Starts = Callable[[Floats, Floats], Iterator[list[float]]]
MAX_DEGREE = 10


def _none(x: Floats, y: Floats) -> Iterator[list[float]]:
    return iter(())


@dataclass(frozen=True, slots=True)
class Model:
    """A kind of curve.

    ``formula`` is its text in x and ``names``; ``starts`` gives sets of parameters to begin with,
    and ``degree`` is that of a polynomial whose coefficients the names are, or None.
    """

    key: str
    title: str
    formula: str
    names: tuple[str, ...]
    starts: Starts = _none
    degree: int | None = None
    remark: str = ""


def _line_through(x: Floats, y: Floats) -> tuple[float, float] | None:
    """Height at 0 and slope; None where there is none."""
    there = np.isfinite(x) & np.isfinite(y)
    if there.sum() < 2 or not np.ptp(x[there]) > 0:
        return None
    slope, height = np.polyfit(x[there], y[there], 1)
    return float(height), float(slope)


def _exponential(x: Floats, y: Floats) -> Iterator[list[float]]:
    for sign in (1.0, -1.0):
        with np.errstate(all="ignore"):
            line = _line_through(x, np.log(sign * y))
        if line is not None:
            yield [sign * float(np.exp(np.clip(line[0], -600, 600))), line[1]]


def _power(x: Floats, y: Floats) -> Iterator[list[float]]:
    for sign in (1.0, -1.0):
        with np.errstate(all="ignore"):
            line = _line_through(np.log(x), np.log(sign * y))
        if line is not None:
            yield [sign * float(np.exp(np.clip(line[0], -600, 600))), line[1]]


def _logistic(x: Floats, y: Floats) -> Iterator[list[float]]:
    top = 1.05 * float(y.max())
    if top > 0:
        with np.errstate(all="ignore"):
            line = _line_through(x, np.log(y / (top - y)))
        if line is not None and line[1]:
            yield [top, line[1], -line[0] / line[1]]


def _sine(x: Floats, y: Floats) -> Iterator[list[float]]:
    """The frequencies at which a sine takes away most, from half a period to two points in one."""
    span = float(np.ptp(x)) or 1.0
    tried = np.linspace(0.25, max(2.0, len(x) / 2), 240) * 2 * np.pi / span
    left = []
    for rate in tried:
        design = np.stack([np.ones(len(x)), np.sin(rate * x), np.cos(rate * x)], axis=1)
        best = np.linalg.lstsq(design, y, rcond=None)[0]
        left.append((float(((y - design @ best) ** 2).sum()), float(rate), best))
    left.sort(key=lambda one: one[0])
    for _, rate, best in left[:4]:
        yield [
            float(best[0]),
            float(np.hypot(best[1], best[2])),
            rate,
            float(np.arctan2(best[2], best[1])),
        ]


def _bell(x: Floats, y: Floats) -> Iterator[list[float]]:
    for at in (int(np.argmax(y)), int(np.argmin(y))):
        span = float(np.ptp(x)) or 1.0
        for part in (4, 12, 40):
            yield [float(y[at]), float(x[at]), span / part]


def polynomial(degree: int) -> Model:
    """A polynomial of some degree up to MAX_DEGREE."""
    names = tuple(f"a_{k}" for k in range(degree + 1))
    powers = ["", " x", *(f" x^{k}" for k in range(2, degree + 1))]
    formula = " + ".join(f"{name}{power}" for name, power in zip(names, powers, strict=False))
    return Model("polynomial", f"polynomial of degree {degree}", formula, names, degree=degree)


NOT_OF_LOGARITHMS = "fitted to y itself, not to ln y"
MODELS: dict[str, Model] = {
    model.key: model
    for model in (
        Model("line", "line", "a + b x", ("a", "b"), degree=1),
        Model("origin", "line through the origin", "b x", ("b",)),
        Model("quadratic", "quadratic", "a + b x + c x^2", ("a", "b", "c"), degree=2),
        Model("cubic", "cubic", "a + b x + c x^2 + d x^3", ("a", "b", "c", "d"), degree=3),
        Model(
            "quartic",
            "quartic",
            "a + b x + c x^2 + d x^3 + g x^4",
            ("a", "b", "c", "d", "g"),
            degree=4,
        ),
        Model(
            "exponential",
            "exponential",
            "a e^(b x)",
            ("a", "b"),
            _exponential,
            remark=NOT_OF_LOGARITHMS,
        ),
        Model("logarithmic", "logarithmic", "a + b ln(x)", ("a", "b")),
        Model("power", "power", "a x^b", ("a", "b"), _power, remark=NOT_OF_LOGARITHMS),
        Model("logistic", "logistic", "c/(1 + e^(-k (x - m)))", ("c", "k", "m"), _logistic),
        Model("sine", "sine", "a + b sin(w x + p)", ("a", "b", "w", "p"), _sine),
        Model("reciprocal", "reciprocal", "a + b/x", ("a", "b")),
        Model("bell", "Gaussian bell", "h e^(-((x - m)/s)^2/2)", ("h", "m", "s"), _bell),
    )
}
POLYNOMIAL, OWN = "polynomial", "own"
