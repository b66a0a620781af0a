"""Analytic functions of u: power series at 0, and enclosures of them over a box."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from flint import arb, arb_series

Apply = Callable[[arb_series], arb | arb_series]


class NoGerm(ArithmeticError):
    """The function has no germ of this form, or none could be found."""


class NeedsRoot(Exception):
    """The germ exists in a root of the distance: u has to be a finer one, by this factor."""

    def __init__(self, factor: int) -> None:
        super().__init__()
        self.factor = factor


@dataclass(frozen=True, slots=True)
class Series:
    """An analytic function of u: at 0 and over the box."""

    at: arb_series
    over: arb_series

    def join(self, other: Series, work: Callable[[arb_series, arb_series], arb_series]) -> Series:
        """Both parts combined with those of another."""
        return Series(work(self.at, other.at), work(self.over, other.over))

    def each(self, work: Apply) -> Series:
        """A function of the series."""
        # What has no known value at the break has none after any function.
        known = self.at[0].is_finite()
        at = work(self.at) if known else arb_series([arb.nan()] * self.at.prec, self.at.prec)
        return Series(_series(at, self.at.prec), _series(work(self.over), self.over.prec))

    @property
    def starts_with_zero(self) -> bool:
        """Whether the value at 0 is exactly 0."""
        return bool(self.at[0].is_zero())

    def shifted(self) -> Series:
        """Divided by u, where the value at 0 is 0."""
        return Series(_without_first(self.at), _without_first(self.over))

    @property
    def vanishes(self) -> bool:
        """Whether this is the zero function, as far as it is known."""
        return all(self.at[k].is_zero() and self.over[k].is_zero() for k in range(self.at.prec))


def constant(value: arb, length: int) -> Series:
    """A number as a series."""
    return Series(arb_series([value], length), arb_series([value], length))


def _series(value: arb | arb_series, length: int) -> arb_series:
    return arb_series([value], length) if isinstance(value, arb) else value


def one_like(like: arb_series) -> arb_series:
    """1 as a series of the same length."""
    return arb_series([arb(1)], like.prec)


def delayed(series: arb_series, n: int) -> arb_series:
    """Times u^n."""
    kept = [series[k] for k in range(max(series.prec - n, 0))]
    return arb_series([arb(0)] * min(n, series.prec) + kept, series.prec)


def _without_first(series: arb_series) -> arb_series:
    length = series.prec - 1
    return arb_series([series[k + 1] for k in range(length)], length)


def derived(series: arb_series) -> arb_series:
    """The derivative of a series, one coefficient shorter."""
    length = series.prec - 1
    return arb_series([series[k + 1] * (k + 1) for k in range(length)], length)
