"""Functions of whole numbers: factorial, binomial, common divisors and multiples."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
from flint import arb, fmpz

from axispath.core.catalogue.balls import Ball, OutsideDomain, head, undetermined
from axispath.core.catalogue.entry import Entry
from axispath.core.catalogue.rounded import elementwise
from axispath.core.language.vocabulary import Shape, Word

Values = Any
LARGEST_FACTORIAL = 170  # the last one that a float64 can hold
LARGEST = 10_000
_FACTORIALS = np.array([float(math.factorial(n)) for n in range(LARGEST_FACTORIAL + 1)])


def _factorial(x: Values) -> Values:
    whole = (np.rint(x) == x) & (np.greater_equal(x, 0))
    index = np.where(whole & (np.less_equal(x, LARGEST_FACTORIAL)), x, 0).astype(int)
    return np.where(
        whole, np.where(np.greater(x, LARGEST_FACTORIAL), np.inf, _FACTORIALS[index]), np.nan
    )


def _of_integers(work: Callable[..., int], fits: Callable[..., bool]) -> Callable[..., Values]:
    """A function of Python integers on float arrays, NaN where the arguments do not fit."""

    def one(*given: float) -> float:
        if not all(math.isfinite(x) and x == int(x) and abs(x) < 2**53 for x in given):
            return math.nan
        numbers = [int(x) for x in given]
        if not fits(*numbers):
            return math.nan
        try:
            return float(work(*numbers))
        except OverflowError:
            return math.inf

    return elementwise(one)


def _exactly(work: Callable[..., int], fits: Callable[..., bool]) -> Callable[..., Ball]:
    """The same for balls, which have to be exact whole numbers."""

    def ball(*given: Ball) -> Ball:
        heads = [head(x) for x in given]
        whole = [x.unique_fmpz() if x.is_exact() else None for x in heads]
        numbers = [int(n) for n in whole if n is not None]
        if len(numbers) == len(given) and all(isinstance(x, arb) for x in given):
            if not fits(*numbers):
                raise OutsideDomain
            return arb(fmpz(work(*numbers)))
        if any(x.is_finite() and not x.contains_integer() for x in heads):
            raise OutsideDomain
        return undetermined(next((x for x in given if not isinstance(x, arb)), given[0]))

    return ball


def _binomial_fits(n: int, k: int) -> bool:
    return 0 <= n <= LARGEST and k >= 0


def _if_integers(sp: Any, work: Any, *given: Any) -> Any:
    return work(*given) if all(x.is_integer for x in given) else sp.nan


def _if_whole(sp: Any, work: Any, *given: Any) -> Any:
    whole = all(x.is_integer and x.is_nonnegative and x <= LARGEST for x in given)
    return work(*given) if whole else sp.nan


ENTRIES = (
    Entry(
        Word("factorial", shape=Shape.FACTORIAL),
        "The product of the whole numbers from 1 to x, written x!; gamma(x + 1) fills the gaps.",
        "5!",
        _factorial,
        _exactly(math.factorial, lambda n: 0 <= n <= LARGEST),
        (),
        needs="the number is whole and not negative",
        exact=lambda sp, x: _if_whole(sp, sp.factorial, x),
        breaks="defined at single points only",
        guards=("sin(180° x)",),
    ),
    Entry(
        Word("binomial", ("n", "k")),
        "In how many ways k things can be chosen from n.",
        "binomial(6, 2)",
        _of_integers(math.comb, _binomial_fits),
        _exactly(math.comb, _binomial_fits),
        (),
        needs="both numbers are whole and not negative",
        exact=lambda sp, n, k: _if_whole(sp, sp.binomial, n, k),
        breaks="defined at single points only",
        guards=("sin(180° n)", "sin(180° k)"),
    ),
    Entry(
        Word("gcd", ("a", "b"), many=True),
        "The greatest common divisor of whole numbers.",
        "gcd(12, 18)",
        _of_integers(math.gcd, lambda *_: True),
        _exactly(math.gcd, lambda *_: True),
        (),
        needs="the numbers are whole",
        exact=lambda sp, *given: _if_integers(sp, sp.igcd, *given),
        breaks="defined at single points only",
        guards=("sin(180° a)", "sin(180° b)"),
    ),
    Entry(
        Word("lcm", ("a", "b"), many=True),
        "The least common multiple of whole numbers.",
        "lcm(4, 6)",
        _of_integers(math.lcm, lambda *_: True),
        _exactly(math.lcm, lambda *_: True),
        (),
        needs="the numbers are whole",
        exact=lambda sp, *given: _if_integers(sp, sp.ilcm, *given),
        breaks="defined at single points only",
        guards=("sin(180° a)", "sin(180° b)"),
    ),
)
