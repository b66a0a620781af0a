"""All zeros of a function and its derivatives where one derivative has none.

If level k has no zero on a box, level k − 1 is monotone there and has at most one; its
zero cuts the box into pieces on which level k − 2 is monotone; and so on down to the
function itself (Rolle's theorem, used as in the derivative-sequence method of Collins and
Loos 1976, Polynomial real root isolation by differentiation). Multiple zeros need no special
case: they are where a level is zero at a zero of the level above.
"""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb

from axispath.core.search.root import Root, bracketed, sign_at_root
from axispath.core.search.tower import Tower


@dataclass(frozen=True, slots=True)
class _Knot:
    """A place between monotone pieces: an end of the box, or a zero of the level above."""

    low: arb
    high: arb
    root: Root | None


def resolve(tower: Tower, low: float, high: float, top: int, bottom: int = 0) -> list[Root]:
    """Every zero of the levels from ``bottom`` to below ``top`` on the box.

    Level ``top`` must have none there.
    """
    found: list[Root] = []
    above: list[Root] = []
    for level in range(top - 1, bottom - 1, -1):
        above = _zeros_of_level(tower, level, low, high, above)
        found += above
    return found


def _zeros_of_level(
    tower: Tower, level: int, low: float, high: float, above: list[Root]
) -> list[Root]:
    knots = [_Knot(arb(low), arb(low), None)]
    knots += [_Knot(arb(root.ball.lower()), arb(root.ball.upper()), root) for root in above]
    knots.append(_Knot(arb(high), arb(high), None))
    signs = [_sign_at(tower, level, knot) for knot in knots]
    roots = []
    for index, knot in enumerate(knots):
        if signs[index] == 0:
            roots.append(_multiple(level, knots, signs, index))
        if index + 1 < len(knots) and signs[index] * signs[index + 1] < 0:
            after = knots[index + 1]
            start, end = knot.high, after.low
            roots.append(bracketed(tower, level, start, end, signs[index]))
    return roots


def _sign_at(tower: Tower, level: int, knot: _Knot) -> int:
    if knot.root is None:
        return tower.sign_at(level, float(knot.low))
    return sign_at_root(tower, level, knot.root)


def _multiple(level: int, knots: list[_Knot], signs: list[int], index: int) -> Root:
    """A zero that coincides with a zero of the level above, or with an end of the box."""
    knot = knots[index]
    before = signs[index - 1] if index else 0
    after = signs[index + 1] if index + 1 < len(signs) else 0
    ball = knot.root.ball if knot.root else knot.low
    low = float(knots[max(index - 1, 0)].low)
    high = float(knots[min(index + 1, len(knots) - 1)].high)
    return Root(level, ball, low, high, before * after < 0, multiple=True)
