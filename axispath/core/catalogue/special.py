"""The gamma function, the error function and the normal distribution."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from flint import acb, arb, arb_series

from axispath.core.catalogue.balls import (
    Ball,
    OutsideDomain,
    divide,
    head,
    undetermined,
)
from axispath.core.catalogue.entry import Entry
from axispath.core.catalogue.parts import AtGuard
from axispath.core.catalogue.rounded import elementwise, through_balls
from axispath.core.language.vocabulary import Word


def _gamma(x: Ball) -> Ball:
    at = head(x)
    if at > 0:
        return x.gamma()
    whole = at.unique_fmpz()
    if whole is not None and at.is_exact() and whole <= 0:
        raise OutsideDomain
    return undetermined(x) if at.contains_integer() else x.gamma()


def _digamma(x: Ball) -> Ball:
    at = head(x)
    if at <= 0 and at.contains_integer():
        if at.is_exact():
            raise OutsideDomain
        return undetermined(x)
    if not at > 0 and at.contains_integer():
        return undetermined(x)
    return _with_derivatives(lambda k: acb(at).polygamma(k).real if k else at.digamma(), x)


def _polygamma(n: Ball, x: Ball) -> Ball:
    order = n.unique_fmpz() if isinstance(n, arb) and n.is_exact() else None
    if order is None:
        return undetermined(x)
    if not 1 <= order <= HIGHEST_POLYGAMMA:
        raise OutsideDomain
    at = head(x)
    if at <= 0 and at.contains_integer():
        if at.is_exact():
            raise OutsideDomain
        return undetermined(x)
    if not at > 0 and at.contains_integer():
        return undetermined(x)
    return _with_derivatives(lambda k: acb(at).polygamma(int(order) + k).real, x)


def _with_derivatives(derivative: Callable[[int], arb], x: Ball) -> Ball:
    """A function of ``x`` from its derivatives of every order at the head of ``x``."""
    if isinstance(x, arb):
        return derivative(0)
    if x.prec < 2 or all(x[k].is_zero() for k in range(1, x.prec)):
        return arb_series([derivative(0)], x.prec)
    outer = arb_series([derivative(k) / arb(math.factorial(k)) for k in range(x.prec)], x.prec)
    return outer(arb_series([arb(0), *(x[k] for k in range(1, x.prec))], x.prec))


def _standard(x: Ball, mean: Ball | None, deviation: Ball | None) -> Ball:
    centred = x if mean is None else x - mean
    if deviation is None:
        return centred
    size = head(deviation)
    if size <= 0:
        raise OutsideDomain
    return divide(centred, deviation) if size > 0 else undetermined(x)


def _density(x: Ball, mean: Ball | None = None, deviation: Ball | None = None) -> Ball:
    z = _standard(x, mean, deviation)
    height = (z * z / arb(-2)).exp() / (arb(2) * arb.pi()).sqrt()
    return height if deviation is None else divide(height, deviation)


def _distribution(x: Ball, mean: Ball | None = None, deviation: Ball | None = None) -> Ball:
    z = _standard(x, mean, deviation)
    return (z / -arb(2).sqrt()).erfc() / arb(2)


def _exact_density(sp: Any, x: Any, mean: Any = 0, deviation: Any = 1) -> Any:
    if not sp.sympify(deviation).is_positive:
        return sp.nan
    z = (x - mean) / deviation
    return sp.exp(-z * z / 2) / (deviation * sp.sqrt(2 * sp.pi))


def _exact_distribution(sp: Any, x: Any, mean: Any = 0, deviation: Any = 1) -> Any:
    if not sp.sympify(deviation).is_positive:
        return sp.nan
    return sp.erfc(-(x - mean) / (deviation * sp.sqrt(2))) / 2


def _exact_polygamma(sp: Any, n: Any, x: Any) -> Any:
    whole = n.is_integer and 1 <= n <= HIGHEST_POLYGAMMA
    return sp.polygamma(n, x) if whole else sp.nan


HIGHEST_POLYGAMMA = 20
NORMAL = ("x", "mean", "deviation")

ENTRIES = (
    Entry(
        Word("gamma"),
        "The gamma function: (x − 1)! for whole numbers, and smooth in between.",
        "gamma(5)",
        through_balls(_gamma),
        _gamma,
        ("gamma(x) digamma(x)",),
        needs="the number is not 0, −1, −2, …",
        exact=lambda sp, x: sp.gamma(x),
        breaks="poles at 0, −1, −2, …",
        guards=("sin(180° x)",),
        cautious=True,
        plainer="π / (sin(180° x) gamma(1 - x))",
        at_guard=AtGuard.NOWHERE,
    ),
    Entry(
        Word("digamma"),
        "The slope of the logarithm of the gamma function.",
        "digamma(1)",
        through_balls(_digamma),
        _digamma,
        ("polygamma(1, x)",),
        needs="the number is not 0, −1, −2, …",
        exact=lambda sp, x: sp.digamma(x),
        breaks="poles at 0, −1, −2, …",
        guards=("sin(180° x)",),
        cautious=True,
        plainer="digamma(1 - x) - π cos(180° x) / sin(180° x)",
        at_guard=AtGuard.NOWHERE,
    ),
    Entry(
        Word("polygamma", ("n", "x")),
        "The n-th derivative of digamma, for whole n from 1 to 20.",
        "polygamma(1, 2)",
        through_balls(_polygamma),
        _polygamma,
        ("", "polygamma(n + 1, x)"),
        needs="n is a whole number from 1 to 20 and the number is not 0, −1, −2, …",
        exact=_exact_polygamma,
        breaks="poles at 0, −1, −2, …",
        guards=("sin(180° x)",),
        cautious=True,
        at_guard=AtGuard.NOWHERE,
    ),
    Entry(
        Word("erf"),
        "The error function: the share of a normal spread within x√2 deviations.",
        "erf(1)",
        elementwise(math.erf),
        lambda x: x.erf(),
        ("2 exp(-x^2) / sqrt(π)",),
        exact=lambda sp, x: sp.erf(x),
    ),
    Entry(
        Word("normalpdf", NORMAL, optional=2),
        "The height of the normal curve at x; mean 0 and deviation 1 unless given.",
        "normalpdf(1)",
        through_balls(_density),
        _density,
        (
            "-normalpdf(x, mean, deviation) (x - mean) / deviation^2",
            "normalpdf(x, mean, deviation) (x - mean) / deviation^2",
            "normalpdf(x, mean, deviation) ((x - mean)^2 / deviation^2 - 1) / deviation",
        ),
        needs="the deviation is above 0",
        defaults=("0", "1"),
        exact=_exact_density,
    ),
    Entry(
        Word("normalcdf", NORMAL, optional=2),
        "The share of a normal distribution below x; mean 0 and deviation 1 unless given.",
        "normalcdf(1)",
        through_balls(_distribution),
        _distribution,
        (
            "normalpdf(x, mean, deviation)",
            "-normalpdf(x, mean, deviation)",
            "-normalpdf(x, mean, deviation) (x - mean) / deviation",
        ),
        needs="the deviation is above 0",
        defaults=("0", "1"),
        exact=_exact_distribution,
        plainer="(1 + erf((x - mean) / (deviation sqrt(2)))) / 2",
    ),
)
