"""The interval taken apart into places and stretches, each with the one sign of its values."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.cuts import Cut, Found, Piece
from axispath.core.search.landmark import Cell, Open, Reason
from axispath.core.search.pieces import Cutter
from axispath.core.search.root import Root
from axispath.core.search.tower import LADDER, sign

BITS = (160, LADDER[-1])


@dataclass(frozen=True)
class Border:
    """Something between stretches of one sign: a zero, or what a search could not settle.

    Nothing is known of it where ``known`` is not set.
    """

    start: arb
    stop: arb
    low: float
    high: float
    sign: int | None = None
    known: bool = True


def borders(found: Found, places: dict[int, float]) -> list[Border]:
    """What a search of a piece left between its stretches; ``places`` are those of the zeros."""
    items = [_at_root(root, places) for root in found.roots if root.level == 0]
    items += [Border(arb(o.low), arb(o.high), o.low, o.high, known=False) for o in found.open]
    items += [Border(arb(s.low), arb(s.high), s.low, s.high) for s in found.undefined]
    return sorted(items, key=lambda item: float(item.start))


def _at_root(root: Root, places: dict[int, float]) -> Border:
    x = places.get(id(root), root.x)
    return Border(arb(root.ball.lower()), arb(root.ball.upper()), x, x, 0)


def stretches(
    cutter: Cutter, piece: Piece, found: Found | None
) -> Iterator[tuple[Cell | None, Open | None]]:
    """The cells inside a piece; an open stretch where no sign could be told."""
    left, right = piece.left, piece.right
    if piece.open or found is None:
        if piece.dead is not None:
            yield Cell(left.x, right.x, None), None
        return
    if 0 in found.flat:
        yield Cell(left.x, right.x, 0), None
        return
    known = borders(found, found.places)
    before, low = arb(left.ball.upper()), left.x
    for item in [*known, Border(arb(right.ball.lower()), right.ball, right.x, right.x)]:
        if before < item.start:
            told = _sign_between(cutter, piece, before, item.start)
            if told is None:
                yield None, Open(low, item.low, Reason.CLOSE)
            else:
                yield Cell(low, item.low, told[0]), None
        if item.known and item.stop is not right.ball:
            yield Cell(item.low, item.high, item.sign), None
        before, low = item.stop, item.high


def _sign_between(cutter: Cutter, piece: Piece, low: arb, high: arb) -> tuple[int | None] | None:
    """The sign in the middle of a stretch; None where it cannot be told."""
    function = cutter.function(piece, cutter.plan.result)
    for bits in BITS:
        with precision(bits):
            place = arb((low + (high - low) * arb(0.4870123771)).mid())
            try:
                found = sign(function.value(place))
            except OutsideDomain:
                return (None,)
        if found:
            return (found,)
    return None


def at_cut(cut: Cut, value: arb | None) -> Cell:
    """The cell of a cut at which the value is known, or known to be missing."""
    if value is None:
        return Cell(cut.x, cut.x, None)
    return Cell(cut.x, cut.x, 1 if value > 0 else -1 if value < 0 else 0)
