"""All zeros of a quotient of polynomials and of its derivatives, each with its multiplicity.

The k-th derivative of p/q is nₖ/qᵏ⁺¹ with n₀ = p and nₖ₊₁ = nₖ′ q − (k + 1) nₖ q′, so that its
zeros are those of a polynomial with exact coefficients. They are enclosed one by one, real ones
known to be real, after a factorisation without squares (Johansson 2017, Arb: efficient
arbitrary-precision midpoint-radius interval arithmetic; FLINT's module arb_fmpz_poly).
"""

from __future__ import annotations

import itertools
from fractions import Fraction
from typing import cast

from flint import acb, arb, fmpq, fmpq_poly

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.identity import lowest_terms
from axispath.core.arithmetic.program import Program
from axispath.core.memory import remembered
from axispath.core.search.cuts import Cut, Found, Piece
from axispath.core.search.root import Root
from axispath.core.search.tower import LADDER

MOST = 24  # degree of a numerator, beyond which the search by boxes is quicker
Zeros = tuple[tuple[arb, int], ...]


class Rational:
    """The numerators of a quotient of polynomials and of its derivatives, and their zeros."""

    def __init__(self, top: fmpq_poly, bottom: fmpq_poly) -> None:
        self.bottom = bottom
        self.slope = bottom.derivative()
        self.numerators = [top]
        self._zeros: dict[int, Zeros] = {}

    def numerator(self, level: int) -> fmpq_poly:
        """What is 0 where a derivative is, and perhaps at poles."""
        while len(self.numerators) <= level:
            last, k = self.numerators[-1], len(self.numerators)
            self.numerators.append(last.derivative() * self.bottom - last * self.slope * k)
        return self.numerators[level]

    def at(self, place: Fraction, level: int = 0) -> Fraction | None:
        """The value or the slope at a fraction; None at a pole."""
        x = fmpq(place.numerator, place.denominator)
        below = self.bottom(x)
        if below == 0:
            return None
        found = self.numerator(level)(x) / below ** (level + 1)
        return Fraction(int(found.p), int(found.q))

    def zeros(self, level: int) -> Zeros | None:
        """The real zeros of a derivative from left to right; None where there are too many."""
        if level not in self._zeros:
            found = self.numerator(level)
            while self.bottom.degree() > 0 and found.degree() > 0:
                common = found.gcd(self.bottom)
                if common.degree() < 1:
                    break
                found = found // common
            if found.degree() > MOST:
                return None
            self._zeros[level] = _real_zeros(found)
        return self._zeros[level]

    def roots(self, piece: Piece, levels: tuple[int, ...]) -> Found | None:
        """The zeros of some levels inside a piece; None where something cannot be told apart."""
        found = Found()
        for level in levels:
            if self.numerator(level).degree() < 0:
                found.flat |= {level}
                continue
            zeros = self.zeros(level)
            inside = None if zeros is None else self._inside(piece, level, zeros)
            if inside is None:
                return None
            # Brackets end halfway to the next zero, or to the end, where there may be no value.
            places = [piece.low, *(float(ball.mid()) for ball, _ in inside), piece.high]
            borders = [low + (high - low) / 2 for low, high in itertools.pairwise(places)]
            pairs = itertools.pairwise(borders)
            for (ball, times), (low, high) in zip(inside, pairs, strict=True):
                if not (ball > low and ball < high):
                    return None
                crosses = times % 2 == 1
                found.roots.append(Root(level, ball, low, high, crosses, times > 1, bits=LADDER[1]))
        return found

    def _inside(self, piece: Piece, level: int, zeros: Zeros) -> list[tuple[arb, int]] | None:
        """Those zeros that lie between the ends; None where that cannot be told of one."""
        inside = []
        for ball, times in zeros:
            ends = [cut for cut in (piece.left, piece.right) if ball.overlaps(cut.ball)]
            if any(not self._is_zero(cut, level) for cut in ends):
                return None
            if not ends and ball > piece.left.ball and ball < piece.right.ball:
                inside.append((ball, times))
        return inside

    def _is_zero(self, cut: Cut, level: int) -> bool:
        """Whether a level is surely 0 at a cut."""
        if cut.exact is None or cut.exact.turns:
            return False
        place = fmpq(cut.exact.rational.numerator, cut.exact.rational.denominator)
        return bool(self.numerator(level)(place) == 0)


def _real_zeros(polynomial: fmpq_poly) -> Zeros:
    if polynomial.degree() < 1:
        return ()
    with precision(LADDER[1]):
        every = cast("list[tuple[acb, int]]", polynomial.complex_roots())
        real = [(root.real, times) for root, times in every if root.imag.is_zero()]
    return tuple(sorted(real, key=lambda one: float(one[0].mid())))


@remembered(512)
def rational(plan: Program) -> Rational | None:
    """A program of one input as a quotient of polynomials; None for other functions."""
    quotient = lowest_terms(plan)
    return None if quotient is None else Rational(*quotient)
