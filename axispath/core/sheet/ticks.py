"""Where the numbers of an axis stand, and how they are written."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.numbers import MINUS, decimal
from axispath.core.sheet.document import Document, Ticks
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.look import LOOK
from axispath.core.sheet.refused import EditRefused

MOST: int = LOOK["ticks"]["most"]
TYPED: float = LOOK["ticks"]["typed"]
PARTS_OF_PI = tuple(Fraction(*part) for part in LOOK["ticks"]["partsOfPi"])
TURNS: tuple[int, ...] = tuple(LOOK["ticks"]["turns"])


@dataclass(frozen=True, slots=True)
class TickStep:
    """A step between numbers. ``unit`` is what one is worth, ``part`` the step in those.

    A step of π/3 has the unit π and the part 1/3; ``sign`` is then written after the part.
    ``free`` lets the step be chosen by how wide the axis is.
    """

    part: Fraction | float = 1
    unit: float = 1.0
    sign: str = ""
    free: bool = True


def tick_step(document: Document, ticks: Ticks, across: bool = True) -> TickStep:
    """The step that is meant on the x-axis, or on the y-axis where not ``across``.

    Raises EditRefused where what is typed makes none.
    """
    in_degrees = document.unit is AngleUnit.DEGREE
    kind = ticks.kind
    # On a polar grid the angles stand at its rays, and x is a length.
    if kind == "automatic" and in_degrees and across and document.ground.grid != "polar":
        kind = "degrees"
    match kind:
        case "pi":
            return TickStep(1, math.pi, "π")
        case "degrees":
            return TickStep(1, 1.0 if in_degrees else math.pi / 180, "°")
        case "step":
            return _typed_step(document, ticks.step)
    return TickStep()


def _typed_step(document: Document, text: str) -> TickStep:
    if not text.strip():
        return TickStep()
    end = typed_end(document, text)
    if not end.x > 0:
        raise EditRefused("The step between the numbers of an axis is above 0.")
    if end.exact is not None and end.exact.turns and not end.exact.rational:
        return TickStep(end.exact.turns, math.pi, "π", free=False)
    part = end.exact.rational if end.exact is not None and not end.exact.turns else end.x
    return TickStep(part, free=False)


def spaced(step: TickStep, least: float) -> Fraction | float:
    """The part between two written numbers that are at least ``least`` apart.

    A step that was typed is kept, or multiplied where its numbers would run into each other.
    """
    if not step.free:
        least *= TYPED
        factors = (m * 10**n for n in range(16) for m in (1, 2, 5))
        fitting = (p for f in factors if float(p := step.part * f) * step.unit >= least)
        return next(fitting, _nice(least / step.unit))
    wanted = least / step.unit
    if step.sign == "π":
        found = next((p for p in PARTS_OF_PI if float(p) >= wanted), None)
        return found if found is not None else _nice(wanted)
    if step.sign == "°":
        turn = next((t for t in TURNS if t >= wanted), None) if wanted > 0.5 else None
        return Fraction(turn) if turn is not None else _nice(wanted)
    return _nice(wanted)


def places(low: float, high: float, part: Fraction | float, unit: float) -> list[int]:
    """The multiples of a step from ``low`` to ``high``, as whole numbers."""
    size = float(part) * unit
    first = math.ceil(low / size - 1e-9)
    last = math.floor(high / size + 1e-9)
    return list(range(first, min(last, first + MOST) + 1))


def label(k: int, part: Fraction | float, sign: str) -> str:
    """What stands at the ``k``-th multiple of a step."""
    if k == 0:
        return "0" + (sign if sign == "°" else "")
    if sign == "π":
        turns = Fraction(part) * k
        top = "π" if abs(turns.numerator) == 1 else f"{abs(turns.numerator)}π"
        bottom = f"/{turns.denominator}" if turns.denominator > 1 else ""
        return f"{MINUS if k < 0 else ''}{top}{bottom}"
    return decimal(float(part * k), 12) + sign


def _nice(least: float) -> Fraction:
    """The step of 1, 2 or 5 times a power of ten that is at least ``least``."""
    power = Fraction(10) ** math.floor(math.log10(least))
    for factor in (1, 2, 5, 10):
        if float(factor * power) >= least * 0.999999:
            return factor * power
    return 10 * power
