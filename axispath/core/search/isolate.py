"""Cut an interval into boxes until every derivative wanted is understood on each.

Breadth first, so that when the budget ends what is left open is as narrow as it can be; but
from left to right where there is so much to see that only a beginning can be made.
The test on each box follows Moore (1966) and Kearfott (1996): an enclosure without 0
proves that there is no zero; a derivative without zeros hands the box to chain.py.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field

from flint import arb, arb_poly

from axispath.core.arithmetic.balls import DOUBLE, box, precision
from axispath.core.catalogue.balls import MAX_ORDER, OutsideDomain
from axispath.core.search.chain import resolve
from axispath.core.search.landmark import Open, Reason, Stretch
from axispath.core.search.root import Root
from axispath.core.search.tower import Tower

MAX_ROOTS = 1000
NARROWEST = 2.0**-40  # of the whole interval
CUT = 0.4870123771  # off the middle, where zeros of school functions like to be
STRONGEST = (Reason.BUDGET, Reason.OVERLAP, Reason.BREAK, Reason.CLOSE, Reason.MANY)
STRAIGHT_ON = 200  # boxes waiting from which on the leftmost is followed to its end


@dataclass
class Isolated:
    """All roots of the wanted levels outside the ``open`` stretches."""

    roots: list[Root] = field(default_factory=list)
    open: list[Open] = field(default_factory=list)
    undefined: list[Stretch] = field(default_factory=list)
    flat: dict[int, list[Stretch]] = field(default_factory=dict)
    more: bool = False


@dataclass(frozen=True, slots=True)
class _Box:
    low: float
    high: float
    depth: int
    wanted: tuple[int, ...]


def isolate(tower: Tower, low: float, high: float, wanted: tuple[int, ...]) -> Isolated:
    """Find the zeros of the ``wanted`` levels between ``low`` and ``high``."""
    result = Isolated()
    narrowest = max((high - low) * NARROWEST, 8 * abs(high) * 2.0**-52, 8 * abs(low) * 2.0**-52)
    queue = deque([_Box(low, high, 0, wanted)])
    halves: list[_Box] = []
    with precision(DOUBLE):
        while queue:
            if tower.budget.spent or len(result.roots) > 3 * MAX_ROOTS:
                result.more = len(result.roots) > 3 * MAX_ROOTS
                result.open += [Open(b.low, b.high, Reason.BUDGET) for b in queue]
                break
            _examine(tower, queue.popleft(), narrowest, result, halves.append)
            if len(queue) < STRAIGHT_ON:
                queue.extend(halves)
            else:
                queue.extendleft(reversed(halves))
            halves.clear()
    result.open = merged_open(result.open, narrowest)
    result.undefined = merged(result.undefined, narrowest)
    result.flat = {level: merged(found, narrowest) for level, found in result.flat.items()}
    return result


def _examine(
    tower: Tower, at: _Box, narrowest: float, result: Isolated, later: Callable[[_Box], None]
) -> None:
    x = box(at.low, at.high)
    try:
        over = tower.coefficients(x)
    except OutsideDomain:
        result.undefined.append(Stretch(at.low, at.high))
        return
    levels = over
    if not _settled(levels, at.wanted):
        levels = _centred(tower, x, over, at.wanted)
    still: list[int] = []
    resolved: list[int] = []
    top = 0
    for level in at.wanted:
        if levels[level].is_zero():
            result.flat.setdefault(level, []).append(Stretch(at.low, at.high))
            continue
        # Without a finite enclosure nothing is known to be continuous.
        finite = levels[level].is_finite()
        first = next((k for k in range(level, MAX_ORDER) if levels[k] != 0), None)
        if first is None or (first > level and not finite):
            still.append(level)
        elif first > level:
            top = max(top, first)
            resolved.append(level)
    if resolved:
        for root in resolve(tower, at.low, at.high, top, resolved[0]):
            if root.level in resolved:
                _take(root, result)
    if still:
        _divide(at, tuple(still), narrowest, levels, result, later)


def _settled(levels: list[arb], wanted: tuple[int, ...]) -> bool:
    """Whether each wanted level, or one soon above it, is known to have no zero."""
    return all(
        any(levels[k] != 0 for k in range(level, level + 3)) or levels[level].is_zero()
        for level in wanted
    )


def _centred(tower: Tower, x: arb, over: list[arb], wanted: tuple[int, ...]) -> list[arb]:
    """The Taylor form around the middle m, with the last coefficient over the whole box.

    f(x) = Σ cₖ(m) (x − m)ᵏ + cₙ(ξ) (x − m)ⁿ, and likewise for the derivatives, as far as they are
    needed to settle the ``wanted`` ones; each up to a positive factor. Far
    tighter than plain enclosures on boxes of moderate width (Moore, Kearfott and Cloud 2009,
    chapter 9).
    """
    last = MAX_ORDER - 1
    if tower.scaled or not over[last].is_finite():
        return over
    middle = arb(x.mid())
    reach = x - middle
    form = arb_poly([*tower.coefficients(middle)[:last], over[last]])
    levels = list(over)
    low, high = min(wanted), max(wanted)
    for level in range(last):
        # Either enclosure may be the one without 0.
        if level >= low and levels[level].contains(0):
            levels[level] = form(reach)
        if level >= high and levels[level] != 0:
            break  # whatever is wanted lies below
        form = form.derivative()
    return levels


def _take(root: Root, result: Isolated) -> None:
    if root.narrow:
        result.roots.append(root)
    else:
        low, high = float(root.ball.lower()), float(root.ball.upper())
        result.open.append(Open(low, high, Reason.CLOSE))


def _divide(
    at: _Box,
    wanted: tuple[int, ...],
    narrowest: float,
    levels: list[arb],
    result: Isolated,
    later: Callable[[_Box], None],
) -> None:
    width = at.high - at.low
    if width <= narrowest:
        finite = all(levels[level].is_finite() for level in wanted)
        result.open.append(Open(at.low, at.high, Reason.CLOSE if finite else Reason.BREAK))
        return
    cut = at.low + width * CUT
    later(_Box(at.low, cut, at.depth + 1, wanted))
    later(_Box(cut, at.high, at.depth + 1, wanted))


def merged(stretches: list[Stretch], gap: float) -> list[Stretch]:
    """Neighbouring stretches joined, in order."""
    joined: list[Stretch] = []
    for stretch in sorted(stretches, key=lambda s: s.low):
        if joined and stretch.low - joined[-1].high <= gap:
            joined[-1] = Stretch(joined[-1].low, max(joined[-1].high, stretch.high))
        else:
            joined.append(stretch)
    return joined


def merged_open(stretches: list[Open], gap: float) -> list[Open]:
    """Neighbouring open stretches joined, with the strongest of their reasons."""
    joined: list[Open] = []
    for item in sorted(stretches, key=lambda s: s.low):
        if joined and item.low - joined[-1].high <= gap:
            last = joined[-1]
            reasons = {last.reason, item.reason}
            reason = next(r for r in STRONGEST if r in reasons)
            joined[-1] = Open(last.low, max(last.high, item.high), reason)
        else:
            joined.append(item)
    return joined
