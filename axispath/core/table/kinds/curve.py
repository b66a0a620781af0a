"""Curves with a parameter in words, and their moving point as it is read."""

from __future__ import annotations

import math

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.language.numbers import decimal
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.curve import curve_of, inside, range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.closing import closing
from axispath.core.table.kinds.register import Described

BITS = 106
SAMPLES = 800


def moving_words(lane: ResolvedLane, digits: int) -> str:
    """Where the moving point of a curve is, whereto it goes, and how fast; empty without one."""
    if lane.lane.at is None:
        return ""
    curve, span = curve_of(lane), range_of(lane)
    t = inside(span, lane.lane.at)
    letter = lane.parameters[0]
    with precision(BITS):
        try:
            (x, dx), (y, dy) = (balls.taylor(arb(t), 2) for balls in curve.balls)
        except OutsideDomain:
            return f"{letter} = {decimal(t, digits)}: there is no point"
        if not (x.is_finite() and y.is_finite()):
            return f"{letter} = {decimal(t, digits)}: there is no point"
        told = f"{letter} = {decimal(t, digits)}: ({_number(x, digits)}, {_number(y, digits)})"
        if not (dx.is_finite() and dy.is_finite()):
            return told
        speed = float((dx * dx + dy * dy).sqrt().mid())
        if dx.contains(0) and dy.contains(0):
            return f"{told}, standing still"
        angle = math.atan2(float(dy.mid()), float(dx.mid()))
    degrees = math.degrees(angle)
    toward = f"{decimal(degrees, 4, 1e-12)}°"
    if lane.unit is AngleUnit.RADIAN:
        toward = decimal(angle, 4, 1e-14)
    return f"{told}, direction {toward}, speed {decimal(speed, 4)}"


def _number(ball: arb, digits: int) -> str:
    return decimal(float(ball.mid()), digits, float(ball.rad()) + 1e-300)


def columns_of_curve(lane: ResolvedLane) -> tuple[str, ...]:
    """The columns of a curve's x and y."""
    letter = lane.parameters[0]
    return f"{lane.name}_x({letter})", f"{lane.name}_y({letter})"


def columns_of_polar(lane: ResolvedLane) -> tuple[str, ...]:
    """The columns of a polar curve's distance, x and y."""
    letter = lane.parameters[0]
    radius = f"{lane.name}({letter})"
    return radius, f"{radius} cos({letter})", f"{radius} sin({letter})"


def in_words(lane: ResolvedLane, path: Path | None, document: Document) -> str:
    """A figure: whether it is closed, how large it is, and what it does."""
    digits = document.digits
    name = lane.name or "The curve"
    if path is None:
        return f"{name} is not in this view."
    curve, span = curve_of(lane), range_of(lane)
    x, y = curve.places(np.linspace(span.low.x, span.high.x, SAMPLES))
    known = np.isfinite(x)
    if not known.any():
        return f"{name} has no point for any {lane.parameters[0]} in its range."
    shape = "a closed curve" if closing(lane).closed else "a curve"
    counted = [
        _counted(len(path.of(Kind.CROSSING)), "crossing of itself", "crossings of itself"),
        _counted(len(path.of(Kind.CUSP)), "cusp", "cusps"),
        _counted(_petals(path), "petal", "petals"),
    ]
    found = [text for text in counted if text]
    parts = f" with {' and '.join(found)}" if found else ""
    box = []
    for letter, values, low, high in (
        ("x", x[known], "leftmost", "rightmost"),
        ("y", y[known], "lowest", "highest"),
    ):
        ends = [_extreme(path, word, letter) for word in (low, high)]
        least = ends[0] if ends[0] is not None else float(values.min())
        most = ends[1] if ends[1] is not None else float(values.max())
        box.append(f"{letter} = {decimal(least, digits)} and {decimal(most, digits)}")
    return f"{name} is {shape}{parts}, between {box[0]}, and between {box[1]}."


def _extreme(path: Path, word: str, letter: str) -> float | None:
    return next((getattr(m, letter) for m in path.landmarks if word in m.extremes), None)


def _counted(count: int, one: str, many: str) -> str:
    return "" if not count else f"1 {one}" if count == 1 else f"{count} {many}"


def _petals(path: Path) -> int:
    """The petals of a polar curve: as often as it comes to the pole, it has gone out and back."""
    poles = path.of(Kind.AT_POLE)
    if not poles or not path.complete or path.of(Kind.START):
        return 0
    passes = 1 + len(poles[0].also)
    return passes if len(path.of(Kind.FARTHEST)) == passes else 0


def why_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
    """Why a curve does not show in the view; None where it does."""
    view, span = document.view, range_of(lane)
    x, y = curve_of(lane).places(np.linspace(span.low.x, span.high.x, SAMPLES))
    seen = (x >= view.left) & (x <= view.right) & (y >= view.bottom) & (y <= view.top)
    if seen.any():
        return None
    if not np.isfinite(x).any():
        return f"{lane.name} is undefined for every {lane.parameters[0]} in its range."
    return f"{lane.name} lies outside this view."


DESCRIBED_CURVE = Described(in_words, why_unseen)
