"""One side of a break, and the germs that functions there are made of."""

from __future__ import annotations

from dataclasses import dataclass, field

from flint import arb, arb_series, fmpq

from axispath.core.search.germ import Germ
from axispath.core.search.merged import merged
from axispath.core.search.series import (
    NoGerm,
    Series,
    constant,
    one_like,
)

LENGTH = 12  # coefficients carried


@dataclass(frozen=True)
class Corner:
    """One side of a break: x = ``place`` ± u^``fineness``, for u from 0 to ``width``."""

    place: arb
    side: int
    fineness: int
    width: arb
    length: int = LENGTH
    powers: dict[int, arb_series] = field(default_factory=dict, compare=False)

    @property
    def box(self) -> arb:
        """All u."""
        return arb(0).union(self.width)

    def number(self, value: arb) -> Germ:
        """A constant."""
        return Germ({} if value.is_zero() else {(0, 0): constant(value, self.length)}, self)

    def variable(self) -> Germ:
        """x itself."""
        distance = [arb(0)] * self.fineness + [arb(self.side)]
        at = arb_series(distance, self.length)
        over = arb(self.side) * self.power(self.fineness)
        series = Series(at + self.place, over + self.place)
        return self.germ(series)

    def bounded(self, values: arb) -> Germ:
        """A function of which nothing is known but an enclosure of its values."""
        # One coefficient: of the derivatives nothing is known, and of the value at 0 neither.
        return Germ({(0, 0): Series(arb_series([arb.nan()], 1), arb_series([values], 1))}, self)

    def germ(self, series: Series) -> Germ:
        """An analytic germ."""
        return Germ(merged([((0, 0), series)], self), self)

    def rate(self) -> Germ:
        """du/dx."""
        factor = arb(fmpq(self.side, self.fineness))
        return Germ({(1 - self.fineness, 0): constant(factor, self.length)}, self)

    def power(self, n: int) -> arb_series:
        """u^n over the box."""
        if n not in self.powers:
            u = arb_series([self.box, arb(1)], self.length)
            self.powers[n] = one_like(u) if n == 0 else u**n
        return self.powers[n]

    def share(self, a: int, k: int) -> arb:
        """An enclosure of u^a (ln u)^k over the box, where that stays bounded."""
        if a == 0 and k == 0:
            return arb(1)
        if k and not self.width < 1:
            raise NoGerm
        if k == 0:
            return arb(0).union(self.width**a)
        log = self.width.log()
        if a == 0:
            return arb(0).union(log**k)
        if k > 0 and not log < arb(fmpq(-k, a)):
            raise NoGerm
        return arb(0).union(self.width**a * log**k)
