"""Secant, cosecant, cotangent, their inverses, and the angle of a point."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from flint import arb

from axispath.core.catalogue import parts
from axispath.core.catalogue.balls import (
    Ball,
    OutsideDomain,
    divide,
    head,
    only_value,
    undetermined,
)
from axispath.core.catalogue.entry import Angle, Entry
from axispath.core.catalogue.parts import AtGuard
from axispath.core.catalogue.rounded import through_balls
from axispath.core.catalogue.trigonometry import (
    cosine_of_degrees,
    off_multiples,
    sine_of_degrees,
    tangent_of_degrees,
)
from axispath.core.language.vocabulary import Word

Values = Any


def _one_over(function: Callable[[Values], Values]) -> Callable[[Values], Values]:
    def value(x: Values) -> Values:
        below = function(x)
        return 1.0 / np.where(below == 0, np.nan, below)

    return value


def _cotangent_of_degrees(x: Values) -> Values:
    tangent = tangent_of_degrees(x)
    # Where the tangent has no value the cotangent is 0, and where it is 0 it has none.
    return np.where(np.isnan(tangent), x * 0.0, 1.0 / np.where(tangent == 0, np.nan, tangent))


def _turns(x: Ball) -> Ball:
    return x / arb(180)


def _arcsec(x: Ball) -> Ball:
    inner = _outside_one(x)
    return inner if inner is not None else divide(arb(1), x).acos()


def _arccsc(x: Ball) -> Ball:
    inner = _outside_one(x)
    return inner if inner is not None else divide(arb(1), x).asin()


def _outside_one(x: Ball) -> Ball | None:
    """None where the argument is usable; at ±1 exactly only as a number."""
    at = head(x)
    if abs(at) > 1 or (isinstance(x, arb) and at.is_exact() and abs(at) == 1):
        return None
    if abs(at) < 1:
        raise OutsideDomain
    return undetermined(x)


def _angle(y: Ball, x: Ball) -> Ball:
    """The angle of the point (x, y) in (−π, π]; it jumps across the negative x-axis."""
    right, up = head(x), head(y)
    half = arb.pi() / arb(2)
    if right > 0:
        return divide(y, x).atan()
    if up > 0:
        return half - divide(x, y).atan()
    if up < 0:
        return -half - divide(x, y).atan()
    if right.is_zero() and up.is_zero():
        raise OutsideDomain
    if right < 0 and up.is_zero():
        # A value at the jump, which goes on to neither side.
        return only_value(arb.pi(), y)
    return undetermined(x if isinstance(y, arb) else y)


def _angle_value(y: Values, x: Values) -> Values:
    return np.where((np.equal(x, 0)) & (np.equal(y, 0)), np.nan, np.arctan2(y + 0.0, x))


ENTRIES = (
    Entry(
        Word("sec", inverse="arcsec"),
        "The secant of an angle: one over its cosine.",
        "sec(π/3)",
        lambda x: 1.0 / np.cos(off_multiples(x, odd=True)),
        lambda x: divide(arb(1), x.cos()),
        ("sec(x) tan(x)",),
        needs="the cosine is not 0",
        angle=Angle.ARGUMENT,
        value_in_degrees=_one_over(cosine_of_degrees),
        ball_in_degrees=lambda x: divide(arb(1), _turns(x).cos_pi()),
        exact=lambda sp, x: sp.sec(x),
        breaks="poles where the cosine is 0",
        guards=("cos(x)",),
        plainer="1 / cos(x)",
        at_guard=AtGuard.NOWHERE,
        throughout=parts.NO_VALUE,
    ),
    Entry(
        Word("csc", inverse="arccsc", spellings=("cosec",)),
        "The cosecant of an angle: one over its sine.",
        "csc(π/6)",
        lambda x: 1.0 / np.sin(off_multiples(x, odd=False)),
        lambda x: divide(arb(1), x.sin()),
        ("-csc(x) cot(x)",),
        needs="the sine is not 0",
        angle=Angle.ARGUMENT,
        value_in_degrees=_one_over(sine_of_degrees),
        ball_in_degrees=lambda x: divide(arb(1), _turns(x).sin_pi()),
        exact=lambda sp, x: sp.csc(x),
        breaks="poles where the sine is 0",
        guards=("sin(x)",),
        plainer="1 / sin(x)",
        at_guard=AtGuard.NOWHERE,
        throughout=parts.NO_VALUE,
    ),
    Entry(
        Word("cot", inverse="arccot", spellings=("cotan", "ctg", "cotg")),
        "The cotangent of an angle: cosine over sine.",
        "cot(π/4)",
        lambda x: 1.0 / np.tan(off_multiples(x, odd=False)),
        lambda x: divide(x.cos(), x.sin()),
        ("-csc(x)^2",),
        needs="the sine is not 0",
        angle=Angle.ARGUMENT,
        value_in_degrees=_cotangent_of_degrees,
        ball_in_degrees=lambda x: divide(_turns(x).cos_pi(), _turns(x).sin_pi()),
        exact=lambda sp, x: sp.cot(x),
        breaks="poles where the sine is 0",
        guards=("sin(x)",),
        plainer="cos(x) / sin(x)",
        at_guard=AtGuard.NOWHERE,
        throughout=parts.NO_VALUE,
    ),
    Entry(
        Word("arcsec", inverse="sec", spellings=("asec",)),
        "The angle between 0° and 180° whose secant is x.",
        "arcsec(2)",
        through_balls(_arcsec),
        _arcsec,
        ("1 / (abs(x) sqrt(x^2 - 1))",),
        needs="the number is at least 1 or at most −1",
        angle=Angle.RESULT,
        exact=lambda sp, x: sp.acos(1 / x),
        breaks="a gap between −1 and 1",
        guards=("x", "x^2 - 1"),
        plainer="arccos(1 / x)",
    ),
    Entry(
        Word("arccsc", inverse="csc", spellings=("acsc",)),
        "The angle between −90° and 90° whose cosecant is x.",
        "arccsc(2)",
        through_balls(_arccsc),
        _arccsc,
        ("-1 / (abs(x) sqrt(x^2 - 1))",),
        needs="the number is at least 1 or at most −1",
        angle=Angle.RESULT,
        exact=lambda sp, x: sp.asin(1 / x),
        breaks="a gap between −1 and 1",
        guards=("x", "x^2 - 1"),
        plainer="arcsin(1 / x)",
    ),
    Entry(
        Word("arccot", inverse="cot", spellings=("acot", "arcctg")),
        "The angle between 0° and 180° whose cotangent is x.",
        "arccot(1)",
        lambda x: np.arctan2(1.0, x),
        lambda x: arb.pi() / arb(2) - x.atan(),
        ("-1 / (1 + x^2)",),
        angle=Angle.RESULT,
        exact=lambda sp, x: sp.pi / 2 - sp.atan(x),
    ),
    Entry(
        Word("arctan2", ("y", "x"), spellings=("atan2",)),
        "The angle of the point (x, y), between −180° and 180°.",
        "arctan2(1, -1)",
        _angle_value,
        _angle,
        ("x / (x^2 + y^2)", "-y / (x^2 + y^2)"),
        needs="the point is not the origin",
        angle=Angle.RESULT,
        exact=lambda sp, y, x: sp.atan2(y, x),
        breaks="a jump across the negative x-axis",
        guards=("y",),
        at_guard=AtGuard.JUMPS,
    ),
)
