"""Lanes at one place of the plane: a function of two variables there, and who is in a region."""

from __future__ import annotations

import math
from fractions import Fraction

import numpy as np

from axispath.core.arithmetic.balls import BallFunction
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.derivative import derivative
from axispath.core.arithmetic.floats import float_function, float_value
from axispath.core.arithmetic.program import Definition, NotComputable, Program, extended
from axispath.core.arithmetic.simplest import number
from axispath.core.language.numbers import MINUS, decimal, full_precision
from axispath.core.plane.member import belongs
from axispath.core.plane.relation import relation_of
from axispath.core.sampling.curve import drawn
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.register import Section, Spot

WIDTH, HEIGHT = 250, 84  # pixels that a section is drawn at
LOOKED = 400
MATTERS = 0.02, 0.98  # of the heights of a section, beyond which a pole runs off
ROOM = 0.08
LEVEL = 1e-12  # slopes below this share of the value are level as far as floats can tell
MEMBER = {True: "in it", False: "not in it", None: "close to the border of it"}


def spot_of_region(document: Document, lane: ResolvedLane, x: float, y: float) -> Spot:
    """Whether the place belongs to a region."""
    return Spot(lane, MEMBER[belongs(relation_of(lane), x, y)])


def spot_of_map(document: Document, lane: ResolvedLane, x: float, y: float) -> Spot:
    """Value, gradient, steepest direction and tangent plane of a function, and its sections."""
    digits = document.digits
    value = float_value(lane.program, lane.unit, x, y)
    sections = (
        _section(document, lane, "x", (x, y)),
        _section(document, lane, "y", (x, y)),
    )
    kept = tuple(section for section in sections if section is not None)
    if not math.isfinite(value):
        return Spot(lane, "—", ("it has no value here",), kept)
    slopes = _slopes(lane, x, y)
    shown = decimal(value, digits, 1e-15 * abs(value))
    if slopes is None:
        return Spot(lane, shown, ("no tangent plane here: it breaks or bends sharply",), kept)
    return Spot(lane, shown, tuple(_words(document, (x, y, value), slopes)), kept)


def _slopes(lane: ResolvedLane, x: float, y: float) -> tuple[float, float] | None:
    """The slopes along x and y; None where there are none."""
    assert lane.statement is not None
    names = lane.parameters
    try:
        trees = [derivative(lane.statement.body, name, lane.definitions) for name in names]
        plans = [program(tree, names, lane.definitions) for tree in trees]
    except NotComputable:
        return None
    first, second = (float_value(plan, lane.unit, x, y) for plan in plans)
    return (first, second) if math.isfinite(first) and math.isfinite(second) else None


def _words(
    document: Document, place: tuple[float, float, float], slopes: tuple[float, float]
) -> list[str]:
    digits = document.digits
    a, b = (decimal(slope, digits, 1e-15 * abs(slope)) for slope in slopes)
    steep = math.hypot(*slopes)
    if steep <= LEVEL * (1 + abs(place[2])):
        plane = f"tangent plane: level, z = {decimal(place[2], digits)}"
        return ["gradient (0, 0): level in every direction", plane]
    angle = math.degrees(math.atan2(slopes[1], slopes[0]))
    return [
        f"gradient ({a}, {b})",
        f"rises fastest at {decimal(angle, 4, 1e-12)}° from the direction of x, "
        f"by {decimal(steep, digits, 1e-15 * steep)} a unit",
        f"tangent plane: z = {_plane(place, slopes, digits)}",
    ]


def _plane(place: tuple[float, float, float], slopes: tuple[float, float], digits: int) -> str:
    """c + a (x − x0) + b (y − y0), as it is written by hand."""
    parts = [decimal(place[2], digits, 1e-15 * abs(place[2]))]
    if parts == ["0"]:
        parts = []
    for letter, at, slope in (("x", place[0], slopes[0]), ("y", place[1], slopes[1])):
        size = decimal(abs(slope), digits, 1e-15 * abs(slope))
        if size == "0":
            continue
        away = (
            letter
            if at == 0
            else f"({letter} {MINUS if at > 0 else '+'} {decimal(abs(at), digits)})"
        )
        term = away if size == "1" else f"{size} {away}"
        sign = MINUS if slope < 0 else "+"
        parts.append(f"{sign} {term}" if parts else (f"{MINUS}{term}" if slope < 0 else term))
    return " ".join(parts) or "0"


def _section(
    document: Document, lane: ResolvedLane, letter: str, place: tuple[float, float]
) -> Section | None:
    """The function along x, or along y, through a place; None where it has no value there."""
    view = document.view
    along_x = letter == "x"
    low, high = (view.left, view.right) if along_x else (view.bottom, view.top)
    free, fixed = lane.parameters if along_x else lane.parameters[::-1]
    at, still = place if along_x else place[::-1]
    plan = _cut(lane, free, fixed, still)
    function = float_function(plan, lane.unit)
    values = function(np.linspace(low, high, LOOKED))
    values = values[np.isfinite(values)]
    if not len(values) or not low < high:
        return None
    bottom, top = (float(v) for v in np.quantile(values, MATTERS))
    room = (top - bottom) * 2
    bottom, top = max(float(values.min()), bottom - room), min(float(values.max()), top + room)
    pad = (top - bottom) * ROOM or max(1.0, abs(top)) * ROOM
    frame = Frame(low, high, bottom - pad, top + pad, WIDTH, HEIGHT)
    rows = drawn(function, BallFunction(plan, lane.unit), frame).strokes
    height = float(function(np.array([at]))[0])
    where = (at - low) / (high - low), (height - frame.bottom) / (frame.top - frame.bottom)
    inputs = ("x", full_precision(still)) if along_x else (full_precision(still), "x")
    other = "y" if along_x else "x"
    return Section(
        f"along {letter} at {other} = {decimal(still, document.digits)}",
        f"{lane.name}({inputs[0]}, {inputs[1]})",
        rows,
        where,
        (low, high, bottom, top),
    )


def _cut(lane: ResolvedLane, free: str, fixed: str, still: float) -> Program:
    """The function with one of its variables fixed."""
    assert lane.statement is not None
    known = extended(lane.definitions, {fixed: Definition(None, number(Fraction(still)))})
    return program(lane.statement.body, (free,), known)
