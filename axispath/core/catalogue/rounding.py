"""Functions that jump: sign, floor, ceiling, rounding, remainder.

A ball function here answers only where a box lies within one step; a finite enclosure always
means that the function is continuous on the box.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from flint import arb

from axispath.core.catalogue import parts
from axispath.core.catalogue.balls import NAN, Ball, OutsideDomain, divide, head, undetermined
from axispath.core.catalogue.entry import Entry
from axispath.core.catalogue.parts import AtGuard
from axispath.core.language.vocabulary import Shape, Word

Values = Any
MOST_PLACES = 15


def _sign_ball(x: Ball) -> Ball:
    at = head(x)
    if at > 0:
        return arb(1)
    if at < 0:
        return arb(-1)
    return arb(0) if isinstance(x, arb) and at.is_zero() else undetermined(x)


def _floor_ball(x: Ball) -> Ball:
    step = head(x).floor()
    return step if step.is_exact() else undetermined(x)


def _ceiling_ball(x: Ball) -> Ball:
    step = head(x).ceil()
    return step if step.is_exact() else undetermined(x)


def _round(x: Values, places: Values = 0) -> Values:
    """Halves away from zero, as school has it; a float next to a half stands for that half."""
    scale = np.power(10.0, np.where(_are_places(places), places, np.nan))
    scaled = np.abs(x) * scale
    half = np.floor(scaled) + 0.5
    # 2.675 as typed is a float64 below it, and must become 2.68 all the same.
    at_half = np.abs(scaled - half) <= np.spacing(scaled)
    size = np.floor(np.where(at_half, half, scaled) + 0.5) / scale
    return np.copysign(size, x) + 0.0


def _are_places(places: Values) -> Values:
    return (np.rint(places) == places) & (np.abs(places) <= MOST_PLACES)


def _round_ball(x: Ball, places: Ball | None = None) -> Ball:
    scale = arb(1)
    if places is not None:
        whole = places.unique_fmpz() if isinstance(places, arb) and places.is_exact() else None
        if whole is None:
            return undetermined(x)
        if abs(int(whole)) > MOST_PLACES:
            raise OutsideDomain
        scale = arb(10) ** int(whole)
    at = head(x) * scale
    half = arb(0.5)
    if abs(at) < half:
        return arb(0)
    step = (at + half).floor() if at > 0 else -(half - at).floor()
    return step / scale if step.is_exact() else undetermined(x)


def _modulo(a: Values, b: Values) -> Values:
    return np.mod(a, np.where(np.equal(b, 0), np.nan, b))


def _modulo_ball(a: Ball, b: Ball) -> Ball:
    steps = _floor_ball(divide(a, b))
    if head(steps).is_finite():
        return a - b * steps
    return undetermined(a if not isinstance(a, arb) else b) if not isinstance(a, arb) else NAN


def _exact_round(sp: Any, x: Any, places: Any = 0) -> Any:
    places = sp.sympify(places)
    if not places.is_integer or abs(places) > MOST_PLACES:
        return sp.nan
    scale = sp.Integer(10) ** places
    return sp.sign(x) * sp.floor(sp.Abs(x) * scale + sp.Rational(1, 2)) / scale


# The slope is 0 except at the jumps, where there is none.
_FLAT = "0 / (x - floor(x))"

ENTRIES = (
    Entry(
        Word("sign", spellings=("sgn",)),
        "1 above zero, −1 below, 0 at zero.",
        "sign(-3)",
        np.sign,
        _sign_ball,
        ("0 / x",),
        exact=lambda sp, x: sp.sign(x),
        breaks="a jump at 0",
        guards=("x",),
        stepped=True,
        at_guard=AtGuard.JUMPS,
        part=parts.sign,
        throughout=parts.ZERO,
    ),
    Entry(
        Word("floor", shape=Shape.FLOOR),
        "The largest whole number that is not above x.",
        "floor(2.7)",
        np.floor,
        _floor_ball,
        (_FLAT,),
        exact=lambda sp, x: sp.floor(x),
        breaks="jumps at the whole numbers",
        guards=("sin(180° x)",),
        stepped=True,
        at_guard=AtGuard.JUMPS,
        part=parts.floor,
    ),
    Entry(
        Word("ceil", spellings=("ceiling",), shape=Shape.CEILING),
        "The smallest whole number that is not below x.",
        "ceil(2.1)",
        np.ceil,
        _ceiling_ball,
        (_FLAT,),
        exact=lambda sp, x: sp.ceiling(x),
        breaks="jumps at the whole numbers",
        plainer="-floor(-x)",
        stepped=True,
    ),
    Entry(
        Word("round", ("x", "places"), optional=1),
        "The nearest whole number, or with so many decimal places; halves go away from 0.",
        "round(2.345, 2)",
        _round,
        _round_ball,
        ("0 / (x 10^places + 1/2 - floor(x 10^places + 1/2))", ""),
        defaults=("0",),
        needs="the places are a whole number up to 15",
        exact=_exact_round,
        breaks="jumps halfway between the rounded values",
        plainer="sign(x) floor(|x| 10^places + 1/2) / 10^places",
        stepped=True,
    ),
    Entry(
        Word("mod", ("a", "b")),
        "The remainder of a divided by b, with the sign of b.",
        "mod(17, 5)",
        _modulo,
        _modulo_ball,
        ("1 + 0 / (a / b - floor(a / b))", "-floor(a / b) + 0 / (a / b - floor(a / b))"),
        needs="the divisor is not 0",
        exact=lambda sp, a, b: a - b * sp.floor(a / b),
        breaks="jumps where a is a multiple of b",
        plainer="a - b floor(a / b)",
        stepped=True,
    ),
)
