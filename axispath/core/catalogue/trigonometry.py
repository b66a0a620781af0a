"""Sine, cosine, tangent and their inverses, in radians and in degrees."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from flint import arb

from axispath.core.catalogue import parts
from axispath.core.catalogue.balls import Ball, divide, guarded, head
from axispath.core.catalogue.entry import Angle, Entry
from axispath.core.catalogue.parts import AtGuard
from axispath.core.language.vocabulary import Word

Values = Any


def _quarter(x: Values) -> tuple[Values, Values]:
    """Degrees as a quarter turn 0..3 and the rest in radians within ±π/4; both exact in effect.

    fmod is exact in floating point, so sin(180°) is 0 and not a rounding of π away from it.
    """
    turn = np.fmod(x, 360.0)
    quarter = np.rint(turn / 90.0)
    return np.mod(quarter, 4), np.deg2rad(turn - 90.0 * quarter)


def sine_of_degrees(x: Values) -> Values:
    """The sine of an angle in degrees, exact at multiples of 90°."""
    quarter, rest = _quarter(x)
    size: Values = np.where(quarter % 2 == 0, np.sin(rest), np.cos(rest))
    return np.where(quarter >= 2, -size, size) + 0.0


def cosine_of_degrees(x: Values) -> Values:
    """The cosine of an angle in degrees, exact at multiples of 90°."""
    quarter, rest = _quarter(x)
    size: Values = np.where(quarter % 2 == 0, np.cos(rest), np.sin(rest))
    return np.where((quarter == 1) | (quarter == 2), -size, size) + 0.0


def tangent_of_degrees(x: Values) -> Values:
    """The tangent of an angle in degrees, undefined at odd multiples of 90°."""
    quarter, rest = _quarter(x)
    tangent = np.tan(rest)
    turned = -1.0 / np.where(tangent == 0, np.nan, tangent)
    return np.where(quarter % 2 == 0, tangent, turned) + 0.0


NEAREST = 1e9  # quarter turns up to which a float64 can be told from its neighbours' multiples


def off_multiples(x: Values, odd: bool) -> Values:
    """x, undefined where it is the float64 next to an odd (or even) multiple of a right angle.

    No float64 is a multiple of π; one next to it was written as that, as 2.675 stands for itself.
    """
    quarter = np.rint(x / (np.pi / 2))
    at = (quarter * (np.pi / 2) == x) & (quarter % 2 == (1 if odd else 0))
    return np.where(at & (np.abs(quarter) < NEAREST), np.nan, x)


def _half_turns(x: Ball) -> Ball:
    return x / arb(180)


def _tangent_of_degrees_ball(x: Ball) -> Ball:
    turns = _half_turns(x)
    return divide(turns.sin_pi(), turns.cos_pi())


def _within_one(at: arb) -> bool:
    return bool(abs(at) < 1)


def _beyond_one(at: arb) -> bool:
    return bool(abs(at) > 1)


def _inverse_ball(work: Callable[[Ball], Ball]) -> Callable[[Ball], Ball]:
    inner = guarded(_within_one, _beyond_one, work)

    def ball(x: Ball) -> Ball:
        at = head(x)
        return work(x) if isinstance(x, arb) and at.is_exact() and abs(at) == 1 else inner(x)

    return ball


ENTRIES = (
    Entry(
        Word("sin", inverse="arcsin", spellings=("sen",)),
        "The sine of an angle.",
        "sin(π/6)",
        np.sin,
        lambda x: x.sin(),
        ("cos(x)",),
        angle=Angle.ARGUMENT,
        value_in_degrees=sine_of_degrees,
        ball_in_degrees=lambda x: _half_turns(x).sin_pi(),
        exact=lambda sp, x: sp.sin(x),
    ),
    Entry(
        Word("cos", inverse="arccos"),
        "The cosine of an angle.",
        "cos(π/3)",
        np.cos,
        lambda x: x.cos(),
        ("-sin(x)",),
        angle=Angle.ARGUMENT,
        value_in_degrees=cosine_of_degrees,
        ball_in_degrees=lambda x: _half_turns(x).cos_pi(),
        exact=lambda sp, x: sp.cos(x),
    ),
    Entry(
        Word("tan", inverse="arctan", spellings=("tg",)),
        "The tangent of an angle: sine over cosine.",
        "tan(π/4)",
        lambda x: np.tan(off_multiples(x, odd=True)),
        lambda x: x.tan(),
        ("1 / cos(x)^2",),
        needs="the angle is not an odd multiple of a right angle",
        angle=Angle.ARGUMENT,
        value_in_degrees=tangent_of_degrees,
        ball_in_degrees=_tangent_of_degrees_ball,
        exact=lambda sp, x: sp.tan(x),
        breaks="poles at the odd multiples of a right angle",
        guards=("cos(x)",),
        plainer="sin(x) / cos(x)",
        at_guard=AtGuard.NOWHERE,
        throughout=parts.NO_VALUE,
    ),
    Entry(
        Word("arcsin", inverse="sin", spellings=("asin",)),
        "The angle between −90° and 90° whose sine is x.",
        "arcsin(1/2)",
        np.arcsin,
        _inverse_ball(lambda x: x.asin()),
        ("1 / sqrt(1 - x^2)",),
        needs="the number is between −1 and 1",
        angle=Angle.RESULT,
        exact=lambda sp, x: sp.asin(x),
        guards=("1 - x^2",),
        plainer="2 arctan(x / (1 + sqrt(1 - x^2)))",
        at_guard=AtGuard.GOES_ON,
    ),
    Entry(
        Word("arccos", inverse="cos", spellings=("acos",)),
        "The angle between 0° and 180° whose cosine is x.",
        "arccos(1/2)",
        np.arccos,
        _inverse_ball(lambda x: x.acos()),
        ("-1 / sqrt(1 - x^2)",),
        needs="the number is between −1 and 1",
        angle=Angle.RESULT,
        exact=lambda sp, x: sp.acos(x),
        guards=("1 - x^2",),
        plainer="2 arctan(sqrt(1 - x^2) / (1 + x))",
        at_guard=AtGuard.GOES_ON,
    ),
    Entry(
        Word("arctan", inverse="tan", spellings=("atan", "arctg")),
        "The angle between −90° and 90° whose tangent is x.",
        "arctan(1)",
        np.arctan,
        lambda x: x.atan(),
        ("1 / (1 + x^2)",),
        angle=Angle.RESULT,
        exact=lambda sp, x: sp.atan(x),
    ),
)
