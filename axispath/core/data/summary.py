"""What describes columns: counts, means, quartiles, spread; covariance and correlation."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Summary:
    """Of the numbers that are there; NaN where too few are.

    Quartiles are those of the rule that interpolates between the two nearest of n numbers in order,
    at (n − 1) p (R. J. Hyndman and Y. Fan 1996, Sample Quantiles in Statistical Packages, rule 7).
    """

    count: int
    missing: int
    total: float
    mean: float
    least: float
    lower: float
    median: float
    upper: float
    most: float
    sample: float
    population: float


def summary(values: Floats) -> Summary:
    """The summary of a column."""
    there = values[np.isfinite(values)]
    count, missing = len(there), len(values) - len(there)
    if not count:
        nothing = [math.nan] * 9
        return Summary(0, missing, *nothing)
    quartiles = np.quantile(there, [0, 0.25, 0.5, 0.75, 1])
    total = math.fsum(there.tolist())
    mean = total / count
    squares = math.fsum(((there - mean) ** 2).tolist())
    sample = math.sqrt(squares / (count - 1)) if count > 1 else math.nan
    least, lower, median, upper, most = (float(v) for v in quartiles)
    population = math.sqrt(squares / count)
    return Summary(
        count, missing, total, mean, least, lower, median, upper, most, sample, population
    )


@dataclass(frozen=True, slots=True)
class Pairing:
    """Of the rows that have both numbers: covariance of a sample, and correlation."""

    count: int
    covariance: float
    correlation: float


def pairing(first: Floats, second: Floats) -> Pairing:
    """How two columns go together; NaN where that has no meaning."""
    both = np.isfinite(first) & np.isfinite(second)
    x, y = first[both], second[both]
    count = len(x)
    if count < 2:
        return Pairing(count, math.nan, math.nan)
    dx, dy = x - math.fsum(x.tolist()) / count, y - math.fsum(y.tolist()) / count
    product = math.fsum((dx * dy).tolist())
    spread = math.sqrt(math.fsum((dx * dx).tolist()) * math.fsum((dy * dy).tolist()))
    correlation = max(-1.0, min(1.0, product / spread)) if spread > 0 else math.nan
    return Pairing(count, product / (count - 1), correlation)


@dataclass(frozen=True, slots=True)
class Histogram:
    """Counts of the numbers in bins; ``edges`` are one more than ``counts``.

    A bin holds its lower edge, the last one both.
    """

    edges: Floats
    counts: NDArray[np.int64]


def histogram(values: Floats, width: float, start: float | None = None) -> Histogram:
    """Bins of one width, of which one begins at ``start``."""
    there = values[np.isfinite(values)]
    low, high = float(there.min()), float(there.max())
    first = low if start is None else start + math.floor((low - start) / width) * width
    bins = max(1, math.ceil((high - first) / width * (1 - 1e-12)))
    edges: Floats = np.float64(first) + np.float64(width) * np.arange(bins + 1, dtype=np.float64)
    edges[-1] = max(edges[-1], high)
    counts, _ = np.histogram(there, edges)
    return Histogram(edges, counts.astype(np.int64))
