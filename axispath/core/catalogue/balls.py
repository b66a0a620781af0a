"""Helpers for enclosures: arb (a ball) and arb_series (a ball with its Taylor coefficients).

A box of x becomes a series of length n; evaluating a formula on it encloses the value and
the first n - 1 derivatives over the whole box at once (Moore, Kearfott and Cloud 2009,
Introduction to Interval Analysis, chapter 9; Johansson 2017, Arb).
"""

from __future__ import annotations

import threading
from collections.abc import Callable

from flint import arb, arb_series, ctx

from axispath.core.memory import keeps

Ball = arb | arb_series

MAX_ORDER = 8
LONGEST = 32
BITS = 53  # of what is not asked for with more
NAN = arb.nan()


def _put_back() -> None:
    """Globals of the library: its working precision, and the longest series anyone may ask for."""
    ctx.prec, ctx.cap = BITS, LONGEST


_put_back()
keeps(_put_back)


LOCK = threading.RLock()


class precision:
    """Work with balls at so many bits.

    The library's working precision is global, so this holds a lock. A precision changed by
    others would never make a result wrong, only wider.
    """

    __slots__ = ("before", "bits")

    def __init__(self, bits: int) -> None:
        self.bits = bits

    def __enter__(self) -> None:
        LOCK.acquire()
        self.before = ctx.prec
        ctx.prec = self.bits

    def __exit__(self, *error: object) -> None:
        ctx.prec = self.before
        LOCK.release()


class OutsideDomain(ArithmeticError):
    """The argument is surely outside the domain, on the whole box."""


def head(x: Ball) -> arb:
    """The enclosure of the value itself."""
    return x if isinstance(x, arb) else x[0]


def undetermined(x: Ball) -> Ball:
    """Nothing can be said: NaN in the shape of ``x``."""
    return NAN if isinstance(x, arb) else arb_series([NAN] * x.prec, x.prec)


def only_value(value: arb, x: Ball) -> Ball:
    """A known value whose derivatives are not known, in the shape of ``x``."""
    if isinstance(x, arb):
        return value
    return arb_series([value] + [NAN] * (x.prec - 1), x.prec)


def guarded(
    inside: Callable[[arb], bool], outside: Callable[[arb], bool], work: Callable[[Ball], Ball]
) -> Callable[[Ball], Ball]:
    """``work`` where the argument is surely inside the domain."""

    def ball(x: Ball) -> Ball:
        at = head(x)
        if inside(at):
            return work(x)
        if outside(at):
            raise OutsideDomain
        return undetermined(x)

    return ball


WIDE = arb(2) ** -6  # radius from which on the ends of a box are looked at one by one


def rising(work: Callable[[arb], arb]) -> Callable[[arb], arb]:
    """An enclosure of a function that rises throughout, from its values at both ends of a box.

    What the library makes of a wide box is wider, or nothing, where something cancels.
    """

    def enclosed(x: arb) -> arb:
        if not (x.rad() > WIDE and x.is_finite()):
            return work(x)
        return work(arb(x.lower())).union(work(arb(x.upper())))

    return enclosed


def with_value(series: Ball, value: arb) -> Ball:
    """The series with a tighter enclosure of its value."""
    if isinstance(series, arb):
        return value
    return arb_series([value, *(series[k] for k in range(1, series.prec))], series.prec)


def value_power(base: arb, n: int) -> arb:
    """A power of a box; the library's own says nothing where the box contains 0."""
    if n < 2 or base != 0 or base.is_exact() or not base.is_finite():
        return base**n
    if n % 2 == 0:
        return arb(0).union(abs(base).abs_upper() ** n)
    return (arb(base.lower()) ** n).union(arb(base.upper()) ** n)


def square(x: Ball) -> Ball:
    """x², never below 0."""
    return with_value(x * x, value_power(head(x), 2))


def divide(top: Ball, bottom: Ball) -> Ball:
    """A quotient; surely undefined where the divisor is exactly zero."""
    at = head(bottom)
    if at != 0:
        return top / bottom
    if at.is_zero():
        raise OutsideDomain
    return undetermined(bottom if isinstance(top, arb) else top)
