"""A function next to a break: powers of the distance, logarithms, and power series.

At a distance t = uᑫ from the break a germ is exp(E) times a finite sum of terms
uʳ (ln u)ʲ S(u), where S is analytic and known twice: by its Taylor coefficients at u = 0,
and by enclosures of its Taylor coefficients over the whole box [0, width]. Poles, roots,
logarithms and holes are then plain algebra, and dividing by u is leaving out a coefficient:
where S(0) = 0, the Taylor coefficients of S(u)/u over the box are those of S, one place on
(the mean value theorem under an integral sign). The leading term gives limits; the sum over
the box gives a sign that holds up to the break (generalised power series as in Hardy 1910,
Orders of Infinity; enclosures as in Moore, Kearfott and Cloud 2009, chapter 9).
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cmp_to_key
from typing import TYPE_CHECKING

from flint import arb, arb_series

from axispath.core.search.merged import Terms, _raised, merged
from axispath.core.search.series import (
    Apply,
    NeedsRoot,
    NoGerm,
    Series,
    constant,
    derived,
    one_like,
)

if TYPE_CHECKING:
    from axispath.core.search.corner import Corner

LONG = 30  # where many of them may be 0
MOST_FLAT = 6  # derivatives that are known of what falls faster than every power


@dataclass(frozen=True)
class Germ:
    """exp(``growth``) times the sum of u^r (ln u)^j S over the ``terms``, and ``smaller`` germs.

    Each of these has a growth of its own, below that of this one by more than any power of u.
    """

    terms: Terms
    corner: Corner
    growth: Germ | None = None
    smaller: tuple[Germ, ...] = ()

    def __add__(self, other: Germ) -> Germ:
        parts: list[Germ] = []
        for part in (*self._parts(), *other._parts()):
            at = next((k for k, known in enumerate(parts) if part._is_like(known)), None)
            if at is None:
                parts.append(part)
            else:
                parts[at] = parts[at]._with(part)
        found = sorted((part for part in parts if part.terms), key=cmp_to_key(_slower))
        if not found:
            return Germ({}, self.corner)
        first = found[0]
        return Germ(first.terms, first.corner, first.growth, tuple(found[1:]))

    def _parts(self) -> Iterator[Germ]:
        """This germ as germs of one growth each."""
        if self.terms:
            yield Germ(self.terms, self.corner, self.growth)
        yield from self.smaller

    def _rate(self, other: Germ) -> Germ:
        """How much faster this germ grows than another one, as an exponent."""
        own = self.growth or Germ({}, self.corner)
        return own - other.growth if other.growth is not None else own

    def _is_like(self, other: Germ) -> bool:
        """Whether two germs of one growth each differ by a factor that is analytic."""
        if self.growth is other.growth:
            return True
        rate = self._rate(other)
        return not rate.smaller and all(r >= 0 and j == 0 for r, j in rate.terms)

    def _with(self, other: Germ) -> Germ:
        """The sum with a germ that is like this one."""
        terms = other.terms
        if self.growth is not other.growth and (rate := other._rate(self)).terms:
            terms = (Germ(terms, self.corner) * rate.through(lambda s: s.exp())).terms
        together = merged([*self.terms.items(), *terms.items()], self.corner)
        return Germ(together, self.corner, self.growth)

    def _whole(self) -> Germ:
        """This germ without smaller ones beside it.

        What is smaller than e^E by a factor that falls faster than every power of the distance is
        e^E times a function that is smooth up to the break, with all its derivatives 0 there.
        """
        whole = Germ(self.terms, self.corner, self.growth)
        for part in self.smaller:
            flat = Germ(part.terms, self.corner, part._rate(whole))._flat()
            whole = whole._with(Germ({(0, 0): flat}, self.corner, self.growth))
        return whole

    def _flat(self) -> Series:
        """A germ that falls faster than every power of the distance, as a smooth function."""
        level, factorial = self, arb(1)
        over = [level._bound()]
        for k in range(1, MOST_FLAT):
            try:
                level, factorial = level._slope_in_u(), factorial * k
                over.append(level._bound() / factorial)
            except NoGerm:
                break
        length = len(over)
        return Series(arb_series([arb(0)] * length, length), arb_series(over, length))

    def _slope_in_u(self) -> Germ:
        """The derivative with respect to u."""
        return self.derivative() / self.corner.rate()

    def _bound(self) -> arb:
        """An enclosure of all values up to the break, for a growth towards −∞."""
        assert self.growth is not None
        total = arb(0)
        for (r, j), series in self.terms.items():
            total += series.over[0] * self.growth._decay(r, j)
        return total

    def _decay(self, r: int, j: int) -> arb:
        """An enclosure of u^r (ln u)^j e^E over the box, for this E falling to −∞.

        With E <= −c u^−s and |ln u| <= u^−1 it is at most u^(r − j) e^(−c u^−s), which rises with u
        as long as u^s <= c s / (j − r).
        """
        first = self.leading()
        if first is None or first[0] >= 0:
            raise NoGerm
        s, log, _ = first
        width = self.corner.width
        rate = arb(0)
        for (power, k), series in self.terms.items():
            rate += series.over[0] * self.corner.share(power - s, k - log)
        # |ln u| is above 1 on the box, or nothing depends on it.
        far = bool(width < 1) and bool(width.log() < -1)
        if log % 2:
            rate = -rate
        if not rate < 0 or not width < 1 or log < 0 or (not far and (log or j < 0)):
            raise NoGerm
        c = arb((-rate).lower())
        worst = max(j, 0) - r
        if worst > 0 and not width ** (-s) <= c * (-s) / worst:
            raise NoGerm
        top = width ** (-worst) * (-c * width**s).exp()
        return arb(0).union(top).union(-top)

    def __neg__(self) -> Germ:
        return self._each(lambda s: -s)

    def __sub__(self, other: Germ) -> Germ:
        return self + (-other)

    def __mul__(self, other: Germ) -> Germ:
        if self.smaller or other.smaller:
            total = Germ({}, self.corner)
            for one in self._parts():
                for another in other._parts():
                    total = total + one * another
            return total
        parts = [
            ((r + s, j + k), left.join(right, lambda a, b: a * b))
            for (r, j), left in self.terms.items()
            for (s, k), right in other.terms.items()
        ]
        growth = self.growth
        if other.growth is not None:
            growth = other.growth if growth is None else growth + other.growth
        return Germ(merged(parts, self.corner), self.corner, growth)

    def __truediv__(self, other: Germ) -> Germ:
        if other.smaller:
            return self * other._inverse()
        (r, j), series = other.single()
        if not series.over[0] != 0:
            raise NoGerm
        inverse = {(-r, -j): series.each(lambda s: one_like(s) / s)}
        growth = None if other.growth is None else -other.growth
        return self * Germ(inverse, self.corner, growth)

    def _inverse(self) -> Germ:
        """One over this: 1/(a + b) = 1/a − b/(a (a + b)), in which the smaller b is kept apart."""
        one = self.corner.number(arb(1))
        first = one / Germ(self.terms, self.corner, self.growth)
        rest = Germ({}, self.corner)
        for part in self.smaller:
            rest = rest + part
        return first - rest * first * (one / self._whole())

    def _each(self, work: Apply) -> Germ:
        terms = {place: series.each(work) for place, series in self.terms.items()}
        smaller = tuple(part._each(work) for part in self.smaller)
        return Germ(terms, self.corner, self.growth, smaller)

    def single(self) -> tuple[tuple[int, int], Series]:
        """The only term."""
        if len(self.terms) != 1:
            raise NoGerm
        ((place, series),) = self.terms.items()
        return place, series

    def whole_power(self, n: int) -> Germ:
        """A whole power."""
        if n == 0:
            return self.corner.number(arb(1))
        if abs(n) > 64:
            raise NoGerm
        power = self
        for _ in range(abs(n) - 1):
            power = power * self
        return power if n > 0 else self.corner.number(arb(1)) / power

    def root(self, n: int) -> Germ:
        """An n-th root; of negative values for odd n only."""
        whole = self._whole()
        (r, j), series = whole.single()
        if j or whole.growth is not None:
            raise NoGerm
        if r % n:
            raise NeedsRoot(n // math.gcd(n, r))
        sign = 1 if series.over[0] > 0 else -1 if series.over[0] < 0 else 0
        if sign == 0 or (sign < 0 and n % 2 == 0):
            raise NoGerm
        rooted = series.each(lambda s: ((s * arb(sign)).log() / arb(n)).exp() * arb(sign))
        return Germ({(r // n, 0): rooted}, self.corner)

    def logarithm(self) -> Germ:
        """The natural logarithm of a positive germ."""
        whole = self._whole()
        (r, j), series = whole.single()
        if j or not series.over[0] > 0:
            raise NoGerm
        found = self.corner.germ(series.each(lambda s: s.log()))
        if r:
            found = found + Germ({(0, 1): constant(arb(r), self.corner.length)}, self.corner)
        return found if self.growth is None else found + self.growth

    def exponential(self) -> Germ:
        """exp of this; what is not analytic stays in the exponent."""
        if self.smaller:
            return self._whole().exponential()
        if self.growth is not None:
            raise NoGerm
        if all(r >= 0 and j == 0 for r, j in self.terms):
            return self.through(lambda s: s.exp())
        power = self._whole_multiple_of_log()
        if power is not None:
            rest = {place: series for place, series in self.terms.items() if place != (0, 1)}
            factor = Germ({(power, 0): constant(arb(1), self.corner.length)}, self.corner)
            return factor * Germ(rest, self.corner).exponential()
        return Germ({(0, 0): constant(arb(1), self.corner.length)}, self.corner, self)

    def _whole_multiple_of_log(self) -> int | None:
        """n, where the logarithm of u occurs as n ln u with a whole number n."""
        series = self.terms.get((0, 1))
        if series is None or any(not series.over[k].is_zero() for k in range(1, series.over.prec)):
            return None
        whole = series.over[0].unique_fmpz() if series.over[0].is_exact() else None
        return None if whole is None else int(whole)

    def number(self) -> arb | None:
        """The value of a germ that is a number."""
        if not self.terms:
            return arb(0)
        if self.growth is not None or self.smaller or set(self.terms) != {(0, 0)}:
            return None
        over = self.terms[0, 0].over
        if over.prec < 2 or any(not over[k].is_zero() for k in range(1, over.prec)):
            return None
        return over[0]

    def through(self, work: Apply) -> Germ:
        """An analytic function of an analytic germ."""
        series = self.analytic().each(work)
        if not all(series.over[k].is_finite() for k in range(2)):
            raise NoGerm
        return self.corner.germ(series)

    def analytic(self) -> Series:
        """As one power series in u."""
        if self.smaller:
            return self._whole().analytic()
        if self.growth is not None:
            raise NoGerm
        total = constant(arb(0), self.corner.length)
        for (r, j), series in self.terms.items():
            if r < 0 or j:
                raise NoGerm
            total = total.join(_raised(series, r, self.corner), lambda a, b: a + b)
        return total

    def known_zero(self) -> Germ:
        """This germ, known to be 0 at the break."""
        if self.smaller:
            return self._whole().known_zero()
        if all(r > 0 for r, _ in self.terms):
            return self
        series = self.analytic()
        if not (series.at[0].is_finite() and series.at[0].contains(0)):
            raise NoGerm
        at = arb_series([arb(0), *(series.at[k] for k in range(1, series.at.prec))], series.at.prec)
        return self.corner.germ(Series(at, series.over))

    def derivative(self) -> Germ:
        """The derivative with respect to x."""
        if self.smaller:
            total = Germ({}, self.corner)
            for part in self._parts():
                total = total + part.derivative()
            return total
        parts: list[tuple[tuple[int, int], Series]] = []
        for (r, j), series in self.terms.items():
            if series.at.prec < 2:
                raise NoGerm
            slope = Series(derived(series.at), derived(series.over))
            parts.append(((r, j), slope))
            if r:
                parts.append(((r - 1, j), series.each(lambda s, r=r: s * arb(r))))  # type: ignore[misc]
            if j:
                parts.append(((r - 1, j - 1), series.each(lambda s, j=j: s * arb(j))))  # type: ignore[misc]
        along = Germ(merged(parts, self.corner), self.corner, self.growth) * self.corner.rate()
        if self.growth is None:
            return along
        return along + self * self.growth.derivative()

    # What can be said

    def leading(self) -> tuple[int, int, Series] | None:
        """The term that dominates at the break: r, j and S; None for the zero function."""
        if not self.terms:
            return None
        (r, j) = min(self.terms, key=lambda place: (place[0], -place[1]))
        return r, j, self.terms[r, j]

    def sign(self) -> int:
        """The sign all the way up to the break, 0 for the zero function. Raises NoGerm."""
        if self.smaller:
            return self._whole().sign()
        first = self.leading()
        if first is None:
            return 0
        r, j, _ = first
        total = arb(0)
        for (s, k), series in self.terms.items():
            total += series.over[0] * self.corner.share(s - r, k - j)
        if not total != 0:
            raise NoGerm
        if j and not self.corner.width < 1:
            raise NoGerm
        return (1 if total > 0 else -1) * (-1 if j % 2 else 1)

    def limit(self) -> arb:
        """The limit at the break, which may be infinite. Raises NoGerm where not known."""
        if self.smaller:
            return self._whole().limit()
        first = self.leading()
        if first is None:
            return arb(0)
        r, j, series = first
        value = series.at[0]
        if value.is_zero() and (r, j) == (0, 0) and self.growth is None:
            return value
        if not value != 0:
            raise NoGerm
        if self.growth is not None:
            rate = self.growth.limit()
            if not rate.is_finite():
                return arb(0) if rate < 0 else self._infinite(value, j)
            if (r, j) != (0, 0):
                return arb(0) if r > 0 or (r == 0 and j < 0) else self._infinite(value, j)
            return value * rate.exp()
        if (r, j) == (0, 0):
            return value
        return arb(0) if r > 0 or (r == 0 and j < 0) else self._infinite(value, j)

    def _infinite(self, value: arb, j: int) -> arb:
        sign = (1 if value > 0 else -1) * (-1 if j % 2 else 1)
        return arb.pos_inf() if sign > 0 else arb.neg_inf()


def _slower(one: Germ, other: Germ) -> int:
    """−1 where the first of two germs that are not alike grows faster, 1 where the second does."""
    return -1 if one._rate(other).limit() > 0 else 1
