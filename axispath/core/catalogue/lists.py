"""Functions of several values or of a list: smallest, largest, sums and averages, ranges."""

from __future__ import annotations

import functools
import itertools
import operator
from typing import Any

import numpy as np
from flint import arb

from axispath.core.catalogue import parts
from axispath.core.catalogue.balls import Ball, OutsideDomain, head, only_value, undetermined
from axispath.core.catalogue.entry import Entry
from axispath.core.catalogue.parts import AtGuard
from axispath.core.language.vocabulary import Word

Values = Any


def _least_of_two(a: Ball, b: Ball) -> Ball:
    first, second = head(a), head(b)
    if first < second:
        return a
    if second < first:
        return b
    series = next((x for x in (a, b) if not isinstance(x, arb)), a)
    return only_value(first.min(second), series)


def _minimum_ball(*given: Ball) -> Ball:
    return functools.reduce(_least_of_two, given)


def _maximum_ball(*given: Ball) -> Ball:
    return -_minimum_ball(*(-x for x in given))


def _mean(*given: Values) -> Values:
    return _total(*given) / len(given)


def _total(*given: Values) -> Values:
    return functools.reduce(operator.add, given)


def _times(*given: Values) -> Values:
    return functools.reduce(operator.mul, given)


def _median(*given: Values) -> Values:
    return np.median(np.stack(np.broadcast_arrays(*given)), axis=0)


def _median_ball(*given: Ball) -> Ball:
    series = next((x for x in given if not isinstance(x, arb)), given[0])
    ordered = sorted(given, key=lambda x: float(head(x).mid()))
    if any(not head(a) <= head(b) for a, b in itertools.pairwise(ordered)):
        return undetermined(series)
    middle = len(ordered) // 2
    around = [head(x) for x in ordered[max(middle - 2, 0) : middle + 2]]
    if not isinstance(series, arb) and any(not a < b for a, b in itertools.pairwise(around)):
        return undetermined(series)
    if len(ordered) % 2:
        return ordered[middle]
    return (ordered[middle - 1] + ordered[middle]) / arb(2)


def _variance(*given: Values) -> Values:
    """The sample variance, from the differences to the mean (two passes)."""
    if len(given) < 2:
        return np.full(np.shape(given[0]), np.nan)[()]
    mean = _mean(*given)
    return _total(*((x - mean) * (x - mean) for x in given)) / (len(given) - 1)


def _variance_ball(*given: Ball) -> Ball:
    if len(given) < 2:
        raise OutsideDomain
    spread: Ball = _variance(*given)
    return spread


def _deviation_ball(*given: Ball) -> Ball:
    spread = _variance_ball(*given)
    return spread.sqrt() if head(spread) >= 0 else undetermined(spread)


def _exact_median(sp: Any, *given: Any) -> Any:
    ordered = sorted(given, key=lambda x: x.evalf(30))
    middle = len(ordered) // 2
    return ordered[middle] if len(ordered) % 2 else (ordered[middle - 1] + ordered[middle]) / 2


def _exact_variance(sp: Any, *given: Any) -> Any:
    if len(given) < 2:
        return sp.nan
    mean = sp.Add(*given) / len(given)
    return sp.Add(*((x - mean) ** 2 for x in given)) / (len(given) - 1)


def _nowhere(*_: Any) -> Any:
    raise AssertionError("lists are written out before anything is computed")


VALUES = ("a",)

ENTRIES = (
    Entry(
        Word("min", VALUES, many=True),
        "The smallest of several values.",
        "min(3, 1, 2)",
        lambda *given: functools.reduce(np.minimum, given),
        _minimum_ball,
        (),
        exact=lambda sp, *given: sp.Min(*given),
        breaks="kinks where two values meet",
        stepped=True,
        at_guard=AtGuard.GOES_ON,
        part=parts.smallest,
        throughout=parts.FIRST,
    ),
    Entry(
        Word("max", VALUES, many=True),
        "The largest of several values.",
        "max(3, 1, 2)",
        lambda *given: functools.reduce(np.maximum, given),
        _maximum_ball,
        (),
        exact=lambda sp, *given: sp.Max(*given),
        breaks="kinks where two values meet",
        stepped=True,
        at_guard=AtGuard.GOES_ON,
        part=parts.largest,
        throughout=parts.FIRST,
    ),
    Entry(
        Word("sum", VALUES, many=True),
        "The sum of values or of a list, or over a range: sum(k^2 for k = 1 to 10).",
        "sum(k^2 for k = 1 to 10)",
        _total,
        _total,
        (),
        exact=lambda sp, *given: sp.Add(*given),
    ),
    Entry(
        Word("product", VALUES, many=True),
        "The product of values or of a list, or over a range: product(k for k = 1 to 5).",
        "product(k for k = 1 to 5)",
        _times,
        _times,
        (),
        exact=lambda sp, *given: sp.Mul(*given),
    ),
    Entry(
        Word("mean", VALUES, many=True),
        "The average of values or of a list.",
        "mean(2, 3, 7)",
        _mean,
        lambda *given: _total(*given) / arb(len(given)),
        (),
        exact=lambda sp, *given: sp.Add(*given) / len(given),
    ),
    Entry(
        Word("median", VALUES, many=True),
        "The middle value of a list, or the mean of the two in the middle.",
        "median(2, 3, 7)",
        _median,
        _median_ball,
        (),
        exact=_exact_median,
        breaks="kinks where two values meet",
        stepped=True,
        at_guard=AtGuard.GOES_ON,
        part=parts.middle,
    ),
    Entry(
        Word("variance", VALUES, many=True),
        "The sample variance of a list: the mean square of the differences, over n − 1.",
        "variance(2, 4, 9)",
        _variance,
        _variance_ball,
        (),
        needs="there are at least two values",
        exact=_exact_variance,
    ),
    Entry(
        Word("deviation", VALUES, many=True, spellings=("stdev",)),
        "The sample standard deviation of a list: the root of its variance.",
        "deviation(2, 4, 9)",
        lambda *given: np.sqrt(_variance(*given)),
        _deviation_ball,
        (),
        needs="there are at least two values",
        exact=lambda sp, *given: sp.sqrt(_exact_variance(sp, *given)),
    ),
    Entry(
        Word("steps", ("start", "end", "step")),
        "A list from start to end by a step.",
        "steps(0, 2, 0.25)",
        _nowhere,
        _nowhere,
        (),
        exact=_nowhere,
    ),
    Entry(
        Word("spread", ("start", "end", "count")),
        "A list of so many values, evenly spaced from start to end.",
        "spread(-1, 1, 5)",
        _nowhere,
        _nowhere,
        (),
        exact=_nowhere,
    ),
)
