"""Exponentials, logarithms, roots and the absolute value."""

from __future__ import annotations

from typing import Any

import numpy as np
from flint import arb

from axispath.core.catalogue import parts
from axispath.core.catalogue.balls import (
    Ball,
    OutsideDomain,
    divide,
    guarded,
    head,
    only_value,
    undetermined,
)
from axispath.core.catalogue.entry import Entry
from axispath.core.catalogue.parts import AtGuard
from axispath.core.language.vocabulary import Shape, Word

Values = Any


def _positive(x: Values) -> Values:
    return np.where(np.greater(x, 0), x, np.nan)


def natural_logarithm(x: Values) -> Values:
    """ln, undefined at 0 and below."""
    return np.log(_positive(x))


def _common_logarithm(x: Values) -> Values:
    return np.log10(_positive(x))


def _logarithm(base: Values, x: Values) -> Values:
    """The logarithm to any base, exact for the bases that NumPy knows."""
    if np.ndim(base) == 0 and base in (2, 10):
        return (np.log2 if base == 2 else np.log10)(_positive(x))
    bottom = np.log(_positive(base))
    return np.log(_positive(x)) / np.where(bottom == 0, np.nan, bottom)


_ball_log = guarded(lambda at: bool(at > 0), lambda at: bool(at <= 0), lambda x: x.log())


def logarithm_ball(x: Ball) -> Ball:
    """An enclosure of ln."""
    return _ball_log(x)


def _base_ball(base: Ball, x: Ball) -> Ball:
    return divide(_ball_log(x), _ball_log(base))


def square_root_ball(x: Ball) -> Ball:
    """An enclosure of the square root."""
    at = head(x)
    if at > 0 or at.is_zero():
        return x.sqrt()
    if at < 0:
        raise OutsideDomain
    return undetermined(x)


def odd_root(x: Values, n: int) -> Values:
    """The real n-th root for odd n, corrected by one Newton step to the last digits."""
    if n == 3:
        return np.cbrt(x)
    size = np.abs(x)
    root = np.power(size, 1.0 / n)
    power = np.power(root, n - 1)
    usable = (power > 0) & np.isfinite(power) & np.isfinite(size)
    step = np.where(usable, (root - size / np.where(usable, power, 1.0)) / n, 0.0)
    return np.copysign(root - step, x)


def odd_root_ball(x: Ball, n: int) -> Ball:
    """An enclosure of the real n-th root for odd n, across zero too."""
    at = head(x)
    if at > 0:
        return (x.log() / arb(n)).exp()
    if at < 0:
        return -((-x).log() / arb(n)).exp()
    if at.is_zero() and isinstance(x, arb):
        return x
    if not at.is_finite():
        return undetermined(x)
    low, high = _real_root(arb(at.lower()), n), _real_root(arb(at.upper()), n)
    return only_value(low.union(high), x)


def _real_root(x: arb, n: int) -> arb:
    return x.root(n) if x >= 0 else -((-x).root(n))


def _root(n: Values, x: Values) -> Values:
    """The n-th root for whole n from 1 on; odd roots take negative numbers."""
    if np.ndim(n) == 0:
        whole = float(n)
        if whole != np.rint(whole) or not 1 <= whole <= 1000:
            return np.full_like(np.asarray(x, dtype=float), np.nan)[()]
        if whole % 2:
            return odd_root(x, int(whole))
        return np.where(np.less(x, 0), np.nan, np.abs(odd_root(np.abs(x), int(whole))))
    return np.where((n == np.rint(n)) & (n >= 1) & (x >= 0), np.power(np.abs(x), 1.0 / n), np.nan)


def _root_ball(n: Ball, x: Ball) -> Ball:
    index = n.unique_fmpz() if isinstance(n, arb) and n.is_exact() else None
    if index is None:
        return undetermined(x)
    whole = int(index)
    if not 1 <= whole <= 1000:
        raise OutsideDomain
    if whole % 2:
        return odd_root_ball(x, whole)
    at = head(x)
    if at > 0:
        return (x.log() / arb(whole)).exp()
    if at < 0:
        raise OutsideDomain
    return x if at.is_zero() and isinstance(x, arb) else undetermined(x)


def _absolute_ball(x: Ball) -> Ball:
    at = head(x)
    if at > 0 or (isinstance(x, arb) and at >= 0):
        return x
    if at < 0 or (isinstance(x, arb) and at <= 0):
        return -x
    return only_value(abs(at), x)


def _exact_logarithm(sp: Any, base: Any, x: Any) -> Any:
    usable = base.is_positive and x.is_positive and base != 1
    return sp.log(x, base) if usable else sp.nan


def _exact_root(sp: Any, n: Any, x: Any) -> Any:
    return sp.real_root(x, n) if n.is_integer and 1 <= n <= 1000 else sp.nan


ENTRIES = (
    Entry(
        Word("exp", inverse="ln"),
        "e to the power x.",
        "exp(1)",
        np.exp,
        lambda x: x.exp(),
        ("exp(x)",),
        exact=lambda sp, x: sp.exp(x),
    ),
    Entry(
        Word("ln", inverse="exp"),
        "The natural logarithm: the power to which e is raised to give x.",
        "ln(e^2)",
        natural_logarithm,
        logarithm_ball,
        ("1 / x",),
        needs="the number is above 0",
        exact=lambda sp, x: sp.log(x),
        breaks="a pole at 0",
        guards=("x",),
        throughout=parts.NO_VALUE,
    ),
    Entry(
        Word("log", spellings=("lg",)),
        "The logarithm to base 10.",
        "log(1000)",
        _common_logarithm,
        lambda x: _ball_log(x) / arb(10).log(),
        ("1 / (x ln(10))",),
        needs="the number is above 0",
        exact=lambda sp, x: sp.log(x, 10),
        breaks="a pole at 0",
        guards=("x",),
        plainer="ln(x) / ln(10)",
        throughout=parts.NO_VALUE,
    ),
    Entry(
        Word("log_base", ("b", "x"), shape=Shape.BASE),
        "The logarithm of x to base b, written log_b(x).",
        "log_2(8)",
        _logarithm,
        _base_ball,
        ("-ln(x) / (b ln(b)^2)", "1 / (x ln(b))"),
        needs="the number and the base are above 0 and the base is not 1",
        exact=_exact_logarithm,
        breaks="a pole at x = 0",
        guards=("b", "b - 1", "x"),
        plainer="ln(x) / ln(b)",
    ),
    Entry(
        Word("sqrt", shape=Shape.ROOT),
        "The square root.",
        "sqrt(2)",
        np.sqrt,
        square_root_ball,
        ("1 / (2 sqrt(x))",),
        needs="the number is not negative",
        exact=lambda sp, x: sp.sqrt(x),
        breaks="a vertical start at 0",
        guards=("x",),
        at_guard=AtGuard.GOES_ON,
        throughout=parts.ZERO,
    ),
    Entry(
        Word("cbrt"),
        "The cube root, of negative numbers too.",
        "cbrt(-8)",
        np.cbrt,
        lambda x: odd_root_ball(x, 3),
        ("1 / (3 cbrt(x)^2)",),
        exact=lambda sp, x: sp.real_root(x, 3),
        breaks="a vertical tangent at 0",
        guards=("x",),
        plainer="x^(1/3)",
        at_guard=AtGuard.GOES_ON,
        throughout=parts.ZERO,
    ),
    Entry(
        Word("root", ("n", "x"), shape=Shape.INDEXED_ROOT),
        "The n-th root of x for whole n; odd roots take negative numbers.",
        "root(5, 32)",
        _root,
        _root_ball,
        ("0", "root(n, x) / (n x)"),
        needs="the index is whole and the number is not negative under an even root",
        exact=_exact_root,
        breaks="a vertical tangent or start at 0",
        guards=("x",),
        at_guard=AtGuard.GOES_ON,
    ),
    Entry(
        Word("abs", shape=Shape.BARS),
        "The absolute value: the distance from 0.",
        "|-3|",
        np.abs,
        _absolute_ball,
        ("abs(x) / x",),
        exact=lambda sp, x: sp.Abs(x),
        breaks="a kink at 0",
        guards=("x",),
        stepped=True,
        at_guard=AtGuard.GOES_ON,
        part=parts.size,
        throughout=parts.ZERO,
    ),
)
