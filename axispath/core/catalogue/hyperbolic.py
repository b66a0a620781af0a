"""Hyperbolic functions and their inverses."""

from __future__ import annotations

from typing import Any

import numpy as np
from flint import arb

from axispath.core.catalogue.balls import (
    Ball,
    divide,
    guarded,
    head,
    only_value,
    rising,
    square,
    with_value,
)
from axispath.core.catalogue.entry import Entry
from axispath.core.catalogue.powers import logarithm_ball, square_root_ball
from axispath.core.language.vocabulary import Word

Values = Any


def _sinh(x: Ball) -> Ball:
    if isinstance(x, arb):
        return x.sinh()
    return with_value((x.exp() - (-x).exp()) / arb(2), head(x).sinh())


def _cosh(x: Ball) -> Ball:
    if isinstance(x, arb):
        return x.cosh()
    return with_value((x.exp() + (-x).exp()) / arb(2), head(x).cosh())


_arsinh_value = rising(lambda x: x.asinh())
_arcosh_value = rising(lambda x: x.acosh())
_artanh_value = rising(lambda x: x.atanh())


def _tanh(x: Ball) -> Ball:
    if isinstance(x, arb):
        return x.tanh()
    value = head(x).tanh()
    # The slope is 1/cosh², in which nothing cancels; sinh over cosh loses it far out.
    below = square(_cosh(x))
    if not head(below) > 0:
        return only_value(value, x)
    return with_value((x.derivative() / below).integral(), value)


def _arsinh(x: Ball) -> Ball:
    value = _arsinh_value(head(x))
    if isinstance(x, arb):
        return value
    below = square_root_ball(square(x) + arb(1))
    if not head(below) > 0:
        return only_value(value, x)
    return with_value((x.derivative() / below).integral(), value)


def _arcosh(x: Ball) -> Ball:
    value = _arcosh_value(head(x))
    if isinstance(x, arb):
        return value
    return with_value(logarithm_ball(x + square_root_ball(x * x - arb(1))), value)


def _artanh(x: Ball) -> Ball:
    value = _artanh_value(head(x))
    if isinstance(x, arb):
        return value
    ratio = divide(arb(1) + x, arb(1) - x)
    return with_value(logarithm_ball(ratio) / arb(2), value)


def _below_one(x: Values) -> Values:
    return np.arctanh(np.where(np.abs(x) < 1, x, np.nan))


ENTRIES = (
    Entry(
        Word("sinh", inverse="arsinh"),
        "The hyperbolic sine: half of e^x − e^−x.",
        "sinh(1)",
        np.sinh,
        _sinh,
        ("cosh(x)",),
        exact=lambda sp, x: sp.sinh(x),
        plainer="(exp(x) - exp(-x)) / 2",
    ),
    Entry(
        Word("cosh", inverse="arcosh"),
        "The hyperbolic cosine: half of e^x + e^−x; a hanging chain has its shape.",
        "cosh(1)",
        np.cosh,
        _cosh,
        ("sinh(x)",),
        exact=lambda sp, x: sp.cosh(x),
        plainer="(exp(x) + exp(-x)) / 2",
    ),
    Entry(
        Word("tanh", inverse="artanh"),
        "The hyperbolic tangent: sinh over cosh.",
        "tanh(1)",
        np.tanh,
        _tanh,
        ("1 / cosh(x)^2",),
        exact=lambda sp, x: sp.tanh(x),
        plainer="1 - 2 / (exp(2x) + 1)",
    ),
    Entry(
        Word("arsinh", inverse="sinh", spellings=("asinh", "arcsinh")),
        "The number whose hyperbolic sine is x.",
        "arsinh(1)",
        np.arcsinh,
        _arsinh,
        ("1 / sqrt(x^2 + 1)",),
        exact=lambda sp, x: sp.asinh(x),
        plainer="ln(x + sqrt(x^2 + 1))",
    ),
    Entry(
        Word("arcosh", inverse="cosh", spellings=("acosh", "arccosh")),
        "The number from 0 on whose hyperbolic cosine is x.",
        "arcosh(2)",
        np.arccosh,
        guarded(lambda at: bool(at > 1), lambda at: bool(at < 1), _arcosh),
        ("1 / (sqrt(x - 1) sqrt(x + 1))",),
        needs="the number is at least 1",
        exact=lambda sp, x: sp.acosh(x),
        guards=("x - 1",),
        plainer="ln(x + sqrt(x^2 - 1))",
    ),
    Entry(
        Word("artanh", inverse="tanh", spellings=("atanh", "arctanh")),
        "The number whose hyperbolic tangent is x.",
        "artanh(1/2)",
        _below_one,
        guarded(lambda at: bool(abs(at) < 1), lambda at: bool(abs(at) >= 1), _artanh),
        ("1 / (1 - x^2)",),
        needs="the number is between −1 and 1",
        exact=lambda sp, x: sp.atanh(x),
        breaks="poles at −1 and 1",
        guards=("1 - x^2",),
        plainer="(ln(1 + x) - ln(1 - x)) / 2",
    ),
)
